package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.DuckSession;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.Shelf;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What lines do to rows, what they report of it, and how outputs appear.
class JobRunTest {
    private static final String DATA = """
        k,v,at
        A,w,2
        A,e,1
        B,n,
        B,m,5
        B,o,5
        ,x,1
        ,y,0
        """;

    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "[k]; first; []; A-w B-n -x",
                "[k]; last; []; A-e B-o -y",
                "[k]; first; [at]; A-e B-m -y",
                "[k]; first; [{at: descending}]; A-w B-m -x",
                "[k]; last; [at]; A-w B-o -x",
                "[k, at]; last; []; A-w A-e B-n B-o -x -y",
                "all columns; first; []; A-w A-e B-n B-m B-o -x -y"
            })
    void oneRowOfEachGroupStaysWholeAndInOrder(String keys, String keep, String order, String expected)
            throws Exception {
        String job = "job: job\nlines:\n  - read: data/in.csv\n  - drop_repeats: " + keys + "\n    keep: " + keep
                + "\n    by: " + order + "\n  - choose: [k, v]\noutputs:\n  - write: out.csv\n";
        Outcome<JobRun.Report> report = Jobs.run(Jobs.shelf(root, DATA, job));
        assertThat(report.problems()).isEmpty();
        List<String> rows =
                Files.readAllLines(root.resolve("out.csv")).stream().skip(1).toList();
        assertThat(rows.stream().map(r -> r.replace(",", "-")).toList()).containsExactly(expected.split(" "));
        LineEffect dropped = report.get().effects().get(1);
        assertThat(dropped.rowsBefore()).isEqualTo(7);
        assertThat(dropped.rowsBefore()).isEqualTo(dropped.rowsAfter() + dropped.rowsGone());
        assertThat(dropped.rowsAfter()).isEqualTo(rows.size());
    }

    @Test
    void previewAndRunReportTheSame() throws Exception {
        String job = """
            job: job
            lines:
              - read: data/in.csv
              - fix: tidy
                columns: every text column
                with: {unwanted: "'5'"}
              - rename: {v: k, k: v}
              - drop_repeats: [v]
                keep: last
              - fix: tidy
                columns: {all_but: [at]}
                with: {unwanted: "'x'"}
              - drop: [at]
            outputs:
              - write: out.parquet
            """;
        Shelf shelf = Jobs.shelf(root, DATA.replace("A,w", "\" A\",w"), job);
        JobRun.Report report = Jobs.run(shelf).get();
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            List<LineEffect> seen = preview.look(planned).get();
            assertThat(seen.stream().map(JobRunTest::withoutRepeats).toList())
                    .isEqualTo(report.effects().stream()
                            .map(JobRunTest::withoutRepeats)
                            .toList());
            assertThat(seen.get(1))
                    .extracting(LineEffect::cellsChanged, LineEffect::valuesLost)
                    .containsExactly(3L, 2L);
            assertThat(seen.get(3).repeats().orElseThrow()).isEqualTo(new LineEffect.Repeats(3, 3));
            // Every view has as many rows as the line says, whatever the line before it computed.
            for (LineEffect effect : seen.subList(1, seen.size())) {
                boolean repeats = effect.repeats().isPresent();
                long changed = preview.rows(planned, effect.line(), Preview.View.CHANGED, 0, 100).get().stream()
                        .flatMap(r -> r.cells().stream())
                        .filter(PreviewRow.Cell::changed)
                        .count();
                assertThat(repeats ? effect.cellsChanged() : changed).isEqualTo(effect.cellsChanged());
                assertThat(preview.count(planned, effect.line(), Preview.View.LEAVING)
                                        .get()
                                > 0)
                        .as("line " + effect.line())
                        .isEqualTo(effect.rowsGone() > 0);
                assertThat(preview.count(planned, effect.line(), Preview.View.LOST)
                                        .get()
                                > 0)
                        .as("line " + effect.line())
                        .isEqualTo(effect.valuesLost() > 0);
            }
            List<PreviewRow> leaving =
                    preview.rows(planned, 4, Preview.View.LEAVING, 0, 100).get();
            assertThat(leaving)
                    .hasSize(7)
                    .filteredOn(r -> r.mark() == PreviewRow.Mark.STAYS)
                    .hasSize(3);
        }
    }

    private static LineEffect withoutRepeats(LineEffect e) {
        return new LineEffect(
                e.line(),
                e.rowsBefore(),
                e.rowsAfter(),
                e.left(),
                e.added(),
                e.rows(),
                e.columns(),
                e.cellsChanged(),
                e.cellsChanged(),
                e.valuesLost(),
                Optional.empty(),
                List.of(),
                e.begins());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "fix: nofix ; There is no fix or operation nofix",
                "fix: tidy@columns: [kk] ; There is no column kk",
                "fix: tidy@columns: [k]@with: {unwanted: k} ; ",
                "fix: tidy@columns: [k]@with: {unwanted: 3} ; ",
                "fix: tidy@columns: [k]@with: {more: 3} ; has no argument more",
                "fix: tdy@columns: [k] ; There is no fix or operation tdy",
                "fix: tidy@columns: [K, k] ; ",
                "fix: tidy@columns: [k]@with: {unwanted: 'trimm(k)'} ; unwanted: no function trimm",
                "read: data/in.csv ; Only the first line reads a file itself",
                "rename: {k: V} ; Two columns would be called",
                "rename: {k: v, v: k} ; ",
                "rename: {k: ' '} ; A column would have no name",
                "rename: {z: n2} ; There is no column z",
                "rename: {k: v} ; Two columns would be called v",
                "drop: [k, v, at] ; leave no column",
                "choose: [K] ; "
            })
    void aLineThatDoesNotFitIsNamedBeforeAnythingRuns(String line, String what) throws Exception {
        String columns = line.contains("columns") || !line.startsWith("fix") ? "" : "\n    columns: [k]";
        String job =
                "job: job\nlines:\n  - read: data/in.csv\n  - " + line.strip().replace("@", "\n    ") + columns + "\n";
        Outcome<JobRun.Report> report = Jobs.run(Jobs.shelf(root, DATA, job));
        if (what == null) {
            assertThat(report.problems()).isEmpty();
        } else {
            assertThat(report.problems()).first().satisfies(p -> {
                assertThat(p.what()).contains(what);
                assertThat(p.where().position().line()).isBetween(4, 6);
            });
        }
    }

    @Test
    void anOutputAppearsWholeOrNotAtAllAndNeverOverTheSource() throws Exception {
        String job = "job: job\nlines:\n  - read: data/in.csv\noutputs:\n  - write: %s\n";
        assertThat(Jobs.run(Jobs.shelf(root, DATA, job.formatted("data/in.csv")))
                        .problems())
                .extracting(p -> p.code())
                .containsExactly(Code.TARGET_IS_SOURCE);
        Files.writeString(root.resolve("there.csv"), "mine");
        assertThat(Jobs.run(Jobs.shelf(root, DATA, job.formatted("there.csv"))).problems())
                .extracting(p -> p.code())
                .containsExactly(Code.TARGET_EXISTS);
        assertThat(root.resolve("there.csv")).hasContent("mine");
        Files.writeString(root.resolve("file"), "no folder");
        assertThat(Jobs.run(Jobs.shelf(root, DATA, job.formatted("file/out.csv")))
                        .problems())
                .extracting(p -> p.code())
                .containsExactly(Code.TARGET_NOT_WRITABLE);
        assertThat(Jobs.run(Jobs.shelf(root, DATA, job.formatted("\"{nowhere}/out.csv\"")))
                        .problems())
                .extracting(p -> p.code())
                .containsExactly(Code.NO_PARAMETER_VALUE);
        Files.createDirectories(root.resolve("out"));
        Files.writeString(root.resolve("out/.a.csv123.fixshelf-part"), "left by a run that was killed");
        assertThat(Jobs.run(Jobs.shelf(root, DATA, job.formatted("out/a.csv"))).problems())
                .isEmpty();
        try (var files = Files.list(root.resolve("out"))) {
            assertThat(files.map(f -> f.getFileName().toString())).containsExactly("a.csv");
        }
        assertThat(root.resolve("data/in.csv")).hasContent(DATA);
    }

    /// K1, E20: a lost value is counted and listed, or stops the run.
    @ParameterizedTest
    @CsvSource({"false", "true"})
    void aLostValueIsListedOrStopsTheRun(boolean strict) throws Exception {
        String job = """
            job: job
            lines:
              - read: data/in.csv
              - fix: tidy
                columns: [k, v]
                with: {unwanted: "'A'"}
            %s    reason: Because.
            outputs:
              - write: out.csv
            """.formatted(strict ? "    strict: true\n" : "");
        Shelf shelf = Jobs.shelf(root, "k,v\nA,1\nA,A\nB,\" A\"\n", job);
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            assertThat(preview.lost(planned, 2, 5).get())
                    .containsExactly(
                            new LostValue("k", "A", 2), new LostValue("v", " A", 1), new LostValue("v", "A", 1));
            assertThat(preview.lost(planned, 2, 1).get()).hasSize(1);
            assertThat(preview.lost(planned, 1, 5).get()).isEmpty();
        }
        Outcome<JobRun.Report> report = Jobs.run(shelf);
        if (!strict) {
            assertThat(report.get().effects().get(1).valuesLost()).isEqualTo(4);
            assertThat(root.resolve("out.csv")).exists();
            return;
        }
        assertThat(report.problems()).singleElement().satisfies(p -> {
            assertThat(p.code()).isEqualTo(Code.VALUES_LOST);
            assertThat(p.what())
                    .isEqualTo("Line 2 would lose 4 values, and is strict: "
                            + "'A' in k, 2 rows; '·A' in v, 1 row; 'A' in v, 1 row.");
            assertThat(p.where().position().line()).isEqualTo(4);
        });
        assertThat(root.resolve("out.csv")).doesNotExist();
        assertThat(planned.code(shelf).lines().getFirst().sentence()).contains("stops the run where Fix Shelf runs it");
    }

    @Test
    void aDiskThatIsFullLeavesNothingBehind() throws Exception {
        org.junit.jupiter.api.Assumptions.assumeTrue(
                Files.exists(Path.of("/dev/full")), "there is no full disk to write to");
        try (DuckSession session = DuckSession.open(List.of(Path.of("/dev/full")), Optional.empty())) {
            Assertions.assertThatThrownBy(
                            () -> session.run("COPY (SELECT * FROM range(5000000)) TO '/dev/full' (FORMAT csv)"))
                    .isInstanceOfSatisfying(
                            ProblemException.class,
                            e -> assertThat(e.problem().code()).isEqualTo(Code.DISK_FULL));
        }
    }

    @Test
    void aRunCanBeStopped() throws Exception {
        String job = "job: job\nlines:\n  - read: data/in.csv\noutputs:\n  - write: out.csv\n";
        Shelf shelf = Jobs.shelf(root, DATA, job);
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        Outcome<JobRun.Report> report = JobRun.run(planned, (_, stop) -> stop.run());
        assertThat(report.problems()).extracting(p -> p.code()).containsExactly(Code.CANCELLED);
        assertThat(root.resolve("out.csv")).doesNotExist();
    }

    @Test
    void aSessionTouchesOnlyTheFilesItWasOpenedFor() throws Exception {
        Path mine = Files.writeString(root.resolve("mine.csv"), "a\n1\n");
        Path other = Files.writeString(root.resolve("other.csv"), "a\n1\n");
        try (DuckSession session = DuckSession.open(List.of(mine), Optional.empty())) {
            assertThat(session.number("SELECT count(*) FROM read_csv('" + mine + "')"))
                    .isEqualTo(1);
            for (String sql : List.of(
                    "SELECT * FROM read_csv('" + other + "')",
                    "COPY (SELECT 1) TO '" + root + "/new.csv'",
                    "ATTACH '" + root + "/db'",
                    "INSTALL httpfs",
                    "LOAD httpfs",
                    "SET enable_external_access = true",
                    "SET allowed_paths = ['/']")) {
                Assertions.assertThatThrownBy(() -> session.run(sql)).as(sql).isInstanceOf(ProblemException.class);
            }
        }
    }
}
