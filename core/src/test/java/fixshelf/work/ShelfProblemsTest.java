package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import fixshelf.engine.Stop;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.shelf.FixPages;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.shelf.TableFixPages;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What is wrong with a shelf is found without running it, and after an edit as if it were read anew.
class ShelfProblemsTest {
    @TempDir
    Path root;

    private static final Map<String, String> PAGES = Map.of(
            "fixes/loud.fix.md",
            fix("loud", "upper(text)"),
            "fixes/louder.fix.md",
            fix("louder", "loud(text) || '!'"),
            "fixes/kept.fix.md",
            "---\nformat: 2\nfix: kept\nkind: table\nreads: keep every row once\n---\n# Kept\n\n```yaml\n- drop_repeats: all columns\n  keep: first\n```\n\n"
                    + "## Cases\n\n### One\n\ngiven\n\n| a | b |\n|---|---|\n| 'x' | '1' |\n\ngives\n\n| a | b |\n|---|---|\n| 'x' | '1' |\n",
            "datasets/rows.yaml",
            "dataset: rows\nread: data/rows.csv\n",
            "jobs/first.yaml",
            "job: first\nlines:\n  - read: rows\n  - louder: [a]\noutputs:\n  - write: out/first.csv\n",
            "jobs/second.yaml",
            "job: second\nlines:\n  - read: first\n  - add: {c: a || b}\noutputs:\n  - write: out/second.csv\n",
            "jobs/third.yaml",
            "job: third\nlines:\n  - read: second\n  - keep_rows: c <> ''\noutputs:\n  - write: out/third.csv\n",
            "jobs/apart.yaml",
            "job: apart\nlines:\n  - read: {file: data/apart.csv}\n  - keep_rows: n = 'x'\noutputs:\n  - write: out/apart.csv\n");

    private static String fix(String name, String body) {
        return "---\nfix: " + name + "\nkind: value\nreads: say {text} as " + name
                + "\nparameters:\n  text: {type: text, about: What is said.}\nreturns: text\n---\n# " + name
                + "\n\n```sql\nRETURN "
                + body + ";\n```\n";
    }

    @BeforeEach
    void write() throws IOException {
        for (Map.Entry<String, String> page : PAGES.entrySet()) {
            Path file = root.resolve(page.getKey());
            Files.createDirectories(file.getParent());
            Files.writeString(file, page.getValue());
        }
        Files.createDirectories(root.resolve("data"));
        Files.writeString(root.resolve("data/rows.csv"), "a,b\nx,1\n");
        Files.writeString(root.resolve("data/apart.csv"), "n\nx\n");
        Files.writeString(root.resolve("shelf.yaml"), "format: 2\n");
    }

    private Shelf read() {
        return ShelfReader.read(root).get();
    }

    /// In a source, in the dataset that is read, and in an output: each is told, and no other page is lost.
    @Test
    void aPathThatNoSystemCanHoldIsAProblem() throws IOException {
        Files.writeString(root.resolve("datasets/nul.yaml"), "dataset: nul\nread: \"data/a\\0b.csv\"\n");
        Map<String, String> jobs = Map.of(
                "in_line", "  - read: {file: \"data/\\0.csv\"}\noutputs:\n  - write: out/x.csv\n",
                "in_dataset", "  - read: nul\noutputs:\n  - write: out/y.csv\n",
                "in_output", "  - read: {file: data/apart.csv}\noutputs:\n  - write: \"out/a\\0.csv\"\n");
        for (Map.Entry<String, String> job : jobs.entrySet()) {
            Files.writeString(
                    root.resolve("jobs/" + job.getKey() + ".yaml"),
                    "job: " + job.getKey() + "\nlines:\n" + job.getValue());
        }
        assertThat(ShelfProblems.of(read()).problems())
                .extracting(p -> p.where().source().name() + ": " + p.what())
                .containsExactlyInAnyOrderElementsOf(jobs.keySet().stream()
                        .map(j -> "jobs/" + j + ".yaml: The character U+0000 stands in it, which no path may hold.")
                        .toList());
    }

    private Shelf with(Shelf shelf, String page, String text) {
        Path file = root.resolve(page);
        SourceText source = new SourceText(page, text);
        return page.endsWith(".yaml")
                ? shelf.with(JobPages.read(file, source))
                : TableFixPages.isTableFix(source)
                        ? shelf.with(TableFixPages.read(file, source))
                        : shelf.with(FixPages.read(file, source));
    }

    private static List<String> told(ShelfProblems.Found found) {
        return found.problems().stream()
                .map(p -> p.where().source().name() + ":" + p.where().position().line() + " " + p.what())
                .toList();
    }

    @Test
    void ofAWholeShelfThereAreNone() {
        assertThat(told(ShelfProblems.of(read()))).isEmpty();
        assertThat(ShelfProblems.of(read()).passed()).isEmpty();
    }

    /// An edit is told at every place that it breaks, however far from it, and at no other.
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            fixes/loud.fix.md   | upper(text)            | upper(txt)         | fixes/loud.fix.md:12 fixes/louder.fix.md:12 jobs/first.yaml:4 jobs/second.yaml:3 jobs/third.yaml:3
            fixes/louder.fix.md | louder                 | loudest            | jobs/first.yaml:4 jobs/second.yaml:3 jobs/third.yaml:3
            jobs/first.yaml     | louder: [a]            | drop: [b]     | jobs/second.yaml:4 jobs/third.yaml:3
            jobs/second.yaml    | c: a                   | d: a               | jobs/third.yaml:4
            jobs/first.yaml     | - write: out/first.csv | - write: "{elsewhere}/first.csv" | jobs/first.yaml:6
            jobs/second.yaml    | - write: out/second.csv | - write: data/rows.csv | jobs/second.yaml:6
            jobs/third.yaml     | - write: out/third.csv | - {write: out/third.csv, of: {line: 2, report: nobody}} | jobs/third.yaml:6
            jobs/apart.yaml     | n = 'x'                | m = 'x'            | jobs/apart.yaml:4
            """)
    void anEditIsToldWhereItBreaks(String page, String words, String other, String places) {
        ShelfProblems remembered = new ShelfProblems();
        Shelf whole = read();
        remembered.find(whole);
        Shelf edited = with(whole, page, PAGES.get(page).replace(words, other));
        ShelfProblems.Found found = remembered.find(edited);
        assertThat(found.problems().stream()
                        .filter(Problem::isError)
                        .map(p -> p.where().source().name() + ":"
                                + p.where().position().line())
                        .distinct()
                        .sorted())
                .containsExactly(places.split(" "));
        assertThat(told(remembered.find(whole))).isEmpty();
    }

    /// Whatever is edited, one page after another, what is remembered is what would be found anew.
    @Test
    void whatIsRememberedIsWhatWouldBeFound() {
        Map<String, List<String>> changes = new LinkedHashMap<>();
        changes.put("fixes/loud.fix.md", List.of("upper(text)", "lower(text)", "upper(", "char_length(text)"));
        changes.put("fixes/louder.fix.md", List.of("loud(text)", "text", "quiet(text)"));
        changes.put("fixes/kept.fix.md", List.of("keep: first", "keep: last", "keep: nobody"));
        changes.put("jobs/first.yaml", List.of("louder: [a]", "kept:", "drop: [b]", "rename: {b: e}", "loud: [b]"));
        changes.put("jobs/second.yaml", List.of("read: first\n", "read: third\n", "read: rows\n", "read: nobody\n"));
        changes.put("jobs/third.yaml", List.of("c <> ''", "d <> ''", "loud(c) = 'X1'"));
        Random random = new Random(5);
        Shelf shelf = read();
        ShelfProblems remembered = new ShelfProblems();
        for (int i = 0; i < 60; i++) {
            String page = changes.keySet().stream()
                    .skip(random.nextInt(changes.size()))
                    .findFirst()
                    .orElseThrow();
            List<String> words = changes.get(page);
            String other = words.get(random.nextInt(words.size()));
            shelf = with(shelf, page, PAGES.get(page).replace(words.getFirst(), other));
            ShelfProblems.Found found = remembered.find(shelf);
            ShelfProblems.Found anew = ShelfProblems.of(shelf);
            assertThat(told(found)).as(page + ": " + other).isEqualTo(told(anew));
            assertThat(found.passed()).isEqualTo(anew.passed());
        }
    }

    /// The lines can be looked at whatever is wrong with an output, and a line with a problem is told, not what waits
    /// for it.
    @Test
    void whatIsWrongWithAnOutputIsToldBesideThePlan() {
        String waits = PAGES.get("jobs/third.yaml")
                .replace("out/third.csv\n", "out/third.csv\n    of: {line: 2, report: left}\n")
                .replace("c <>", "d <>");
        for (String page : List.of(waits, waits.replace("left", "nobody").replace("d <>", "c <>"))) {
            Shelf edited = with(read(), "jobs/third.yaml", page);
            Outcome<PlannedJob> drafted =
                    PlannedJob.draft(edited, edited.job("third").orElseThrow(), Map.of());
            assertThat(drafted.get().plan().steps()).hasSize(2);
            assertThat(drafted.get().targets()).hasSize(1);
            assertThat(drafted.problems())
                    .hasSize(1)
                    .isEqualTo(ShelfProblems.of(edited).problems());
        }
    }

    /// What is stopped is found the next time as if nothing had been.
    @Test
    void whatWasStoppedIsNotRemembered() {
        ShelfProblems remembered = new ShelfProblems();
        Shelf edited =
                with(read(), "jobs/apart.yaml", PAGES.get("jobs/apart.yaml").replace("n =", "m ="));
        Stop stop = new Stop();
        stop.now();
        assertThatThrownBy(() -> stop.during(() -> remembered.find(edited))).hasMessageContaining("Stopped");
        assertThat(told(remembered.find(edited))).hasSize(1).isEqualTo(told(ShelfProblems.of(edited)));
    }

    /// A page that nothing touches is not looked at again: not even its file, which is gone meanwhile.
    @Test
    void onlyWhatAnEditCanReachIsPlannedAgain() throws IOException {
        ShelfProblems remembered = new ShelfProblems();
        Shelf whole = read();
        remembered.find(whole);
        Files.delete(root.resolve("data/apart.csv"));
        Shelf edited =
                with(whole, "jobs/third.yaml", PAGES.get("jobs/third.yaml").replace("c <>", "d <>"));
        assertThat(remembered.find(edited).passed()).isEmpty();
        assertThat(ShelfProblems.of(edited).passed())
                .hasSize(1)
                .first()
                .asString()
                .startsWith("apart reads ");
    }
}
