package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer;
import fixshelf.engine.DuckSession;
import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.render.Languages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What a job makes sure of stops it, here and in other languages, also inside of a table fix; and what a line would
/// tell beside its table is written where an output asks for it.
class ChecksTest {
    private static final String DATA = "a,n\nnote,\nx,1\n\"\",2\nx,3\n";

    @TempDir
    Path root;

    private Shelf shelf;

    @BeforeEach
    void aTableFixThatChecks() throws IOException {
        Jobs.shelf(root, DATA, "job: job\nlines:\n  - read: {file: data/in.csv, null_words: []}\n");
        Files.writeString(root.resolve("fixes/below_note.fix.md"), """
                ---
                fix: below_note
                kind: table
                parameters:
                  column: {type: column}
                ---
                # Below the note

                ```yaml
                - skip_rows: 1
                - make_sure_filled: ["{column}"]
                ```
                """);
        Files.writeString(root.resolve("data/other.csv"), "n\n4\n5\n");
        Files.writeString(root.resolve("datasets/other.yaml"), "dataset: other\nread: data/other.csv\n");
    }

    private PlannedJob planned(String line, String outputs) throws IOException {
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                "job: job\nlines:\n  - read: {file: data/in.csv, null_words: []}\n  - " + line + "\noutputs:\n"
                        + outputs);
        shelf = ShelfReader.read(root).get();
        return PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "below_note: {column: a} | 1 row breaks line 2: '', 2.",
                "make_sure: n <> '2' | 1 row breaks line 2: '', 2.",
                "make_sure_filled: [a, n] | 2 rows break line 2: note, ''; '', 2.",
                "make_sure_unique: [a] | 2 rows break line 2: x, 1; x, 3.",
                "make_sure: n <> '2'@only_count: true | ",
                "make_sure_unique: [a, n] | ",
                "make_sure_total: {n: count(n), a: count_rows()}@is: '4' | ",
                "make_sure_total: {n: max(n)}@is: '3' | ",
                "make_sure_total: {n: count(a), a: 'count(DISTINCT a)'}@is: '4' | 1 row breaks line 2: a, 3, 4.",
                "make_sure_total: {n: count(n)}@is: '5'@only_count: true | ",
                "make_sure_total: {n: max(n), a: count_rows()}@as_in: other | 2 rows break line 2: n, 3, 5; a, 4, 2.",
                "make_sure_total: {n: min(n)}@as_in: other | 1 row breaks line 2: n, '', 4."
            })
    void aBrokenCheckStopsARunBeforeItWrites(String line, String why) throws IOException {
        PlannedJob job = planned(line.strip().replace("@", "\n    "), "  - write: out.csv\n");
        Outcome<JobRun.Report> report = JobRun.run(job, JobRun.Watcher.NONE);
        assertThat(root.resolve("out.csv").toFile().exists()).isEqualTo(why == null);
        assertThat(report.problems().stream().map(p -> p.what().replace('\n', ' ')))
                .isEqualTo(why == null ? List.of() : List.of(why.strip()));
        report.problems().forEach(p -> assertThat(p.code()).isEqualTo(Code.CHECK_BROKEN));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "pandas | below_note: {column: a}",
                "r | below_note: {column: a}",
                "pandas | make_sure_total: {n: max(n)}@is: '1'",
                "r | make_sure_total: {n: max(n)}@is: '1'"
            })
    void dataFramesStopToo(String language, String line) throws IOException {
        FixEngine engine = Engines.of(language);
        Engines.assumeHere(engine);
        PlannedJob job = planned(line.replace("@", "\n    "), "  []\n");
        Map<String, List<List<String>>> rows = Map.of(
                "in",
                List.of(
                        Arrays.asList("note", ""),
                        Arrays.asList("x", "1"),
                        Arrays.asList("", "2"),
                        Arrays.asList("x", "3")));
        assertThat(engine.run(job.code(shelf), rows)).isInstanceOf(Answer.OfJob.Stopped.class);
        Map<String, List<List<String>>> good = Map.of("in", List.of(Arrays.asList("", ""), Arrays.asList("x", "1")));
        assertThat(engine.run(job.code(shelf), good)).isInstanceOf(Answer.OfJob.Rows.class);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "below_note: {column: a} | '', 2",
                "make_sure_total: {a: count_rows()}@is: '3' | ",
                "make_sure_total: {a: count_rows(), n: max(n)}@is: '2' | a, 3, 2"
            })
    void sqlHasAQueryForWhatBreaksIt(String line, String broken) throws IOException {
        String code = Languages.find("duckdb")
                .orElseThrow()
                .job(planned(line.strip().replace("@", "\n    "), "  []\n").code(shelf))
                .get();
        String check = code.substring(code.indexOf("-- What breaks line 2"));
        try (DuckSession session = DuckSession.open()) {
            session.run("CREATE TABLE \"in\" AS SELECT * FROM (VALUES ('note', '', 0), ('', '2', 1), ('x', '1', 2))"
                    + " AS t(a, n, row_no)");
            assertThat(session.query(check).rows().stream()
                            .map(r -> r.stream()
                                    .map(v -> String.valueOf(v).isEmpty() ? "''" : String.valueOf(v))
                                    .collect(java.util.stream.Collectors.joining(", ")))
                            .toList())
                    .isEqualTo(broken == null ? List.of() : List.of(broken.strip()));
        }
    }

    @Test
    void anOutputTakesTheReportOfALine() throws IOException {
        PlannedJob job = planned(
                "drop_repeats: [a]\n    keep: last\n    name: once",
                "  - write: out.csv\n  - write: repeats.csv\n    of: {line: once, report: repeats}\n");
        JobRun.Report report = JobRun.run(job, JobRun.Watcher.NONE).get();
        assertThat(root.resolve("out.csv"))
                .hasContent("a,n\nnote,\n,2\nx,3\n".replace(",\n", ",\"\"\n").replace("\n,2", "\n\"\",2"));
        assertThat(root.resolve("repeats.csv")).hasContent("a,n\nx,1\nx,3\n");
        assertThat(report.rows(root.resolve("repeats.csv"))).isEqualTo(2);
        assertThat(report.rows(root.resolve("out.csv"))).isEqualTo(3);
    }

    /// A report that costs more than its line is written where an output takes it, also of a line that would be worked
    /// out
    /// together with the one before it.
    @Test
    void anOutputTakesAReportThatRunsDoNotCount() throws IOException {
        PlannedJob job = planned(
                "drop_repeats: [a]\n    keep: last\n  - set: [n]\n    to: \"it || '.'\"\n  - set: [n]\n    to: replace(it, '.', '')"
                        + "\n  - set: [n]\n    to: upper(it)",
                "  - write: out.csv\n  - write: altered.csv\n    of: {line: 4, report: altered_numbers}\n");
        assertThat(JobRun.run(job, JobRun.Watcher.NONE).problems()).isEmpty();
        assertThat(root.resolve("altered.csv")).hasContent("column,was,now\n");
        assertThat(root.resolve("out.csv")).isNotEmptyFile();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "{line: 2, report: nothing} ; Line 2 gives no report nothing. ; It gives repeats, left.",
                "{line: twice, report: repeats} ; There is no line twice in this job. ; Give a line a `name`"
            })
    void aReportThatIsNotThereIsAProblem(String of, String what, String todo) throws IOException {
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                "job: job\nlines:\n  - read: {file: data/in.csv}\n  - drop_repeats: [a]\n    keep: last\noutputs:\n"
                        + "  - write: out.csv\n    of: " + of.strip() + "\n");
        shelf = ShelfReader.read(root).get();
        Problem problem = PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of())
                .problems()
                .getFirst();
        assertThat(problem.what()).isEqualTo(what.strip());
        assertThat(problem.todo()).startsWith(todo.strip());
    }

    /// One preview, one job, and a line whose table stays as it is while what it tells changes.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "make_sure: n < '9'; make_sure: n < '2'; 0; 2",
                "make_sure: n < '2'; make_sure: n < '9'; 2; 0",
                "make_sure_filled: [n]; make_sure_filled: [a]; 0; 1",
                "make_sure_unique: [n]; make_sure_unique: [a]; 0; 2",
            })
    void aCheckThatIsChangedIsLookedAtAnew(String first, String then, long before, long after) throws Exception {
        String head = "job: job\nlines:\n  - read: {file: data/in.csv, null_words: ['note']}\n  - ";
        try (Preview preview = Preview.open(changed(head, first).source()).get()) {
            assertThat(broken(preview, changed(head, first))).isEqualTo(before);
            assertThat(broken(preview, changed(head, then))).isEqualTo(after);
            assertThat(broken(preview, changed(head, first))).isEqualTo(before);
        }
    }

    private PlannedJob changed(String head, String line) throws Exception {
        Shelf shelf = Jobs.shelf(root, "a,n\nnote,1\nx,2\nx,3\n", head + line.strip() + "\n");
        return PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
    }

    private static long broken(Preview preview, PlannedJob job) {
        return preview.look(job).get().getLast().reports().stream()
                .filter(LineEffect.Counted::breaks)
                .mapToLong(LineEffect.Counted::rows)
                .sum();
    }
}
