package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.engine.Grid;
import fixshelf.plan.Operation;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.TableNeeds.Need;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Every need of [TableNeeds] is met by its lines: in a preview, by a run, and in every language.
@Tag("proof")
public class TableNeedsTest {
    private static final String OPTIONS = "separator: \"|\"\nnull_words: [\"∅\"]\n";

    private static final List<JobParity.Asked> ASKED = new ArrayList<>();

    @TempDir
    Path root;

    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @Test
    void areMetByAPreview() throws Exception {
        List<String> wrong = new ArrayList<>();
        for (Need need : TableNeeds.ALL) {
            Outcome<PlannedJob> plan = planned(need, root);
            if (!isPlanned(need, plan, wrong)) {
                continue;
            }
            PlannedJob planned = plan.get();
            try (Preview preview = Preview.open(planned.source()).get()) {
                int last = planned.plan().resultLine();
                differ(need, "gives", need.gives(), table(preview.grid(planned, last)), wrong);
                if (!need.reports().isEmpty()) {
                    preview.look(planned).get();
                }
                need.reports().forEach((report, table) -> {
                    String told = planned.report(last, report)
                            .map(r -> reported(preview, planned, r))
                            .orElse("no such report");
                    differ(need, report, table, told, wrong);
                });
            }
        }
        assertThat(wrong).isEmpty();
    }

    @Test
    void areMetByARun() throws Exception {
        List<String> wrong = new ArrayList<>();
        for (Need need : TableNeeds.ALL) {
            Outcome<JobRun.Report> run = planned(need, root).then(planned -> JobRun.run(planned, JobRun.Watcher.NONE));
            if (!isPlanned(need, run, wrong)) {
                continue;
            }
            long rows = Stream.of(need.gives().split(" / ")).count() - 1;
            differ(need, "rows", "" + rows, "" + run.get().effects().getLast().rowsAfter(), wrong);
            // An empty text has marks around it in delimited text, and what is missing has none.
            String written = Files.readString(root.resolve("out.txt"));
            differ(need, "writes", need.gives(), shown(written), wrong);
        }
        assertThat(wrong).isEmpty();
    }

    @ParameterizedTest
    @MethodSource("engines")
    void areMetInEveryLanguage(FixEngine engine) throws Exception {
        Engines.assumeHere(engine);
        areMetIn(engine, root);
    }

    /// Also for the engines of other modules.
    public static void areMetIn(FixEngine engine, Path root) throws IOException {
        List<JobParity.Verdict> verdicts = JobParity.verdicts(engine, asked(root));
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < verdicts.size(); i++) {
            Need need = TableNeeds.ALL.get(i);
            boolean named = need.without().contains(engine.language().id());
            JobParity result = new JobParity(need.id(), engine.language(), verdicts.get(i), 0);
            if (named ? !(result.verdict() instanceof JobParity.CannotSay) : !result.isSame()) {
                wrong.add(need.id() + " " + need.lines() + ": " + result.mark() + " " + result.detail());
            }
        }
        assertThat(wrong).isEmpty();
    }

    /// Once for all languages: what they are asked holds its rows.
    private static synchronized List<JobParity.Asked> asked(Path root) throws IOException {
        if (ASKED.isEmpty()) {
            for (Need need : TableNeeds.ALL) {
                PlannedJob planned = planned(need, root).get();
                ASKED.add(JobParity.asked(shelf(need, root), planned).get());
            }
        }
        return ASKED;
    }

    private static Outcome<PlannedJob> planned(Need need, Path root) throws IOException {
        Shelf shelf = shelf(need, root);
        return PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of());
    }

    private static boolean isPlanned(Need need, Outcome<?> outcome, List<String> wrong) {
        outcome.problems().stream()
                .filter(Problem::isError)
                .forEach(p -> wrong.add("\n" + need.id() + " " + need.lines() + ": " + p.sentence()));
        return outcome.isPresent();
    }

    private static Shelf shelf(Need need, Path root) throws IOException {
        for (String folder : List.of("data", "datasets", "jobs", "fixes")) {
            Files.createDirectories(root.resolve(folder));
        }
        Files.writeString(root.resolve("shelf.yaml"), "shelf: needs\n");
        dataset(root, "given", need.given());
        for (Map.Entry<String, String> other : need.others().entrySet()) {
            dataset(root, other.getKey(), other.getValue());
        }
        Files.writeString(root.resolve("fixes/folded.fix.md"), """
                ---
                fix: folded
                parameters:
                  s: {type: text}
                returns: text
                ---
                # Folded

                ```sql
                RETURN lower(trim(s));
                ```
                """);
        String lines = need.lines().stream()
                .map(l -> "  - " + l.replace(" / ", "\n    ") + "\n")
                .collect(Collectors.joining());
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                "job: job\nlines:\n  - dataset: given\n" + lines
                        + "outputs:\n  - write: out.txt\n    separator: \"|\"\n    replace: true\n");
        return ShelfReader.read(root).get();
    }

    private static void dataset(Path root, String name, String table) throws IOException {
        String text = Stream.of(table.split(" / ", -1))
                .map(row -> Stream.of(row.split("\\|", -1))
                        .map(TableNeedsTest::field)
                        .collect(Collectors.joining("|")))
                .collect(Collectors.joining("\n"));
        Files.writeString(root.resolve("data/" + name + ".txt"), text + "\n");
        Files.writeString(
                root.resolve("datasets/" + name + ".yaml"),
                "dataset: " + name + "\nread: data/" + name + ".txt\n" + OPTIONS);
    }

    private static String field(String cell) {
        String value = cell.replace('·', ' ').replace('⍽', '\u00A0');
        return value.contains("¶") ? "\"" + value.replace('¶', '\n') + "\"" : value;
    }

    private static String reported(Preview preview, PlannedJob planned, Operation.Report report) {
        List<String> rows = new ArrayList<>();
        rows.add(String.join(
                "|",
                report.relation().shape().names().stream()
                        .map(TableNeedsTest::cell)
                        .toList()));
        for (PreviewRow row : preview.rows(planned, report, 0, 100).get()) {
            rows.add(row.cells().stream().map(c -> cell(c.value())).collect(Collectors.joining("|")));
        }
        return String.join(" / ", rows);
    }

    private static String table(Outcome<Grid> grid) {
        assertThat(grid.problems()).isEmpty();
        List<String> rows = new ArrayList<>();
        rows.add(grid.get().columns().stream().map(c -> cell(c.name())).collect(Collectors.joining("|")));
        grid.get()
                .rows()
                .forEach(r -> rows.add(r.stream().map(TableNeedsTest::cell).collect(Collectors.joining("|"))));
        return String.join(" / ", rows);
    }

    private static String cell(@Nullable Object value) {
        if (value == null) {
            return "∅";
        }
        String text = value.toString();
        return text.isEmpty()
                ? "\"\""
                : text.replace(' ', '·').replace('\u00A0', '⍽').replace('\n', '¶');
    }

    private static String shown(String written) {
        return Stream.of(written.split("\n", -1))
                .limit(written.chars().filter(c -> c == '\n').count())
                .map(row -> Stream.of(row.split("\\|", -1))
                        .map(c -> c.isEmpty() ? "∅" : c.replace(' ', '·').replace('\u00A0', '⍽'))
                        .collect(Collectors.joining("|")))
                .collect(Collectors.joining(" / "));
    }

    private static void differ(Need need, String what, String expected, String got, List<String> wrong) {
        String wanted =
                Stream.of(expected.split(" / ")).map(r -> r.replace(' ', '·')).collect(Collectors.joining(" / "));
        if (!wanted.equals(got)) {
            wrong.add("\n" + need.id() + " " + need.lines() + " " + what + "\n  expected " + wanted + "\n  got      "
                    + got);
        }
    }
}
