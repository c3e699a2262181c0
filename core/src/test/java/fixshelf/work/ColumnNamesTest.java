package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.language.tree.Printer;
import fixshelf.plan.Plan;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.type.Column;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Names with line breaks, quotes, blanks at their ends and of the greatest length, in every place of every kind of
/// line: blanks, expressions, and the code of every language.
public class ColumnNamesTest {
    private static final List<String> NAMES = List.of(
            "two\nlines, a\ttab,\r\n it's \"so\"",
            "`tick` back\\slash; -- /* %d {b} ${x} [x].",
            "\nline before",
            " lead",
            "end\\",
            "NULL",
            "x".repeat(60));

    /// Every kind of relation, with the column in each of its places.
    private static final String JOB = """
            job: job
            lines:
              - read: data/in.csv
                null_words: [""]
              - rename: {a: NAME}
                name: begin
              - sort: [{NAME: descending}]
              - add: {twice: CODE}
                before: NAME
              - drop_repeats: [NAME, b]
                keep: last
                by: [NAME]
              - number_rows: nr
                within: [NAME]
              - bring_in: [seen]
                from: list
                matching: {NAME: k}
              - carry: down
                columns: [NAME]
              - columns_to_rows: [NAME, b]
                names_in: what
                values_in: is
                missing: keep
              - rows_to_columns: what
                values: [NAME, b]
                keys: [nr, twice]
                value: is
              - group: [NAME]
                measures: {n: count_rows(), all: LISTED}
              - keep_rows: CONDITION
            outputs:
              - write: out.csv
                replace: true
            """;

    @TempDir
    Path root;

    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @ParameterizedTest
    @MethodSource("engines")
    void areTheSameInEveryLanguage(FixEngine engine) throws Exception {
        Engines.assumeHere(engine);
        holdIn(engine, root);
    }

    /// Also for the engines of other modules.
    public static void holdIn(FixEngine engine, Path root) throws Exception {
        ColumnNamesTest test = new ColumnNamesTest();
        test.root = root;
        List<JobParity.Asked> asked = new ArrayList<>();
        for (String name : NAMES) {
            PlannedJob planned = test.planned(name);
            asked.add(JobParity.asked(test.shelf, planned).get());
        }
        List<JobParity.Verdict> verdicts = JobParity.verdicts(engine, asked);
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < NAMES.size(); i++) {
            JobParity result = new JobParity("job", engine.language(), verdicts.get(i), 0);
            boolean named = verdicts.get(i) instanceof JobParity.CannotSay
                    && result.detail().contains("no space at its ends");
            if (!result.isSame() && !named) {
                wrong.add(NAMES.get(i) + " " + result.mark() + " " + result.detail());
            }
        }
        assertThat(wrong).isEmpty();
    }

    private Shelf shelf;

    private PlannedJob planned(String name) throws Exception {
        String code = Printer.name(name);
        Files.createDirectories(root.resolve("data"));
        Files.createDirectories(root.resolve("datasets"));
        Files.createDirectories(root.resolve("jobs"));
        Files.writeString(root.resolve("shelf.yaml"), "shelf: names\n");
        Files.writeString(root.resolve("data/in.csv"), "a,b\nx,1\nx,1\n,2\ny,3\nx,2\n");
        Files.writeString(root.resolve("data/list.csv"), "k,seen\nx,yes\n");
        Files.writeString(root.resolve("datasets/list.yaml"), "dataset: list\nread: data/list.csv\n");
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                JOB.replace("CODE", yaml(code + " || '-'"))
                        .replace("LISTED", yaml("listagg(" + code + ", '+')"))
                        .replace("CONDITION", yaml(code + " IS NOT NULL"))
                        .replace("NAME", yaml(name)));
        shelf = ShelfReader.read(root).get();
        assertThat(shelf.problems()).as(name).isEmpty();
        var planned = PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of());
        assertThat(planned.problems()).as(name).isEmpty();
        Plan plan = planned.get().plan();
        assertThat(plan.columns()).extracting(Column::name).containsExactly(name, "n", "all");
        return planned.get();
    }

    private static String yaml(String text) {
        String escaped = text.replace("\\", "\\\\")
                .replace("\"", "\\\"")
                .replace("\n", "\\n")
                .replace("\r", "\\r")
                .replace("\t", "\\t");
        return '"' + escaped + '"';
    }
}
