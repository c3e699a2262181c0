package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.engine.Stop;
import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/// Tables that lines take beside the one above them: named lines, other jobs, and the results of both as outputs.
class BranchesTest {
    private static final String VISITS = "no,village,hours\n1,Thornmere,2\n2,Alder Quay,5\n3,,1\n4,Thornmere,4\n";
    private static final String HEAD = "job: job\nlines:\n";
    private static final String TAIL = "outputs:\n  - write: out.csv\n    replace: true\n";

    @TempDir
    Path root;

    private Shelf shelf(String lines) throws IOException {
        Jobs.shelf(root, VISITS, HEAD + lines + TAIL);
        Files.createDirectories(root.resolve("datasets"));
        Files.writeString(root.resolve("datasets/visits.yaml"), "dataset: visits\nread: data/in.csv\n");
        Files.writeString(root.resolve("jobs/known.yaml"), """
                job: known
                lines:
                  - read: visits
                  - read_as: {hours: integer}
                  - keep_rows: village IS NOT NULL
                """);
        Files.writeString(root.resolve("jobs/by_village.yaml"), """
                job: by_village
                lines:
                  - read: known
                  - group: [village]
                    measures: {all_hours: sum(hours)}
                """);
        Files.createDirectories(root.resolve("fixes/tables"));
        Files.writeString(root.resolve("fixes/tables/beside.fix.md"), """
                ---
                format: 2
                fix: beside
                kind: table
                reads: count {key} beside each row in {n}
                parameters:
                  key: {type: column}
                  n: {type: new name}
                ---
                # Counted beside

                Lines of a fix come back to each other.

                ```yaml
                - choose: every column
                  name: all
                - count_by: ["{key}"]
                  into: "{n}"
                  name: counted
                - go_on_from: all
                - bring_in: ["{n}"]
                  from: counted
                  matching: {"{key}": "{key}"}
                ```
                """);
        return ShelfReader.read(root).get();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            nullValues = "-",
            value = {
                // What comes out, as text; then what stands in the margin of each line.
                "read: by_village ; village,all_hours|Thornmere,6|Alder Quay,5 ; 2 rows",
                "read: by_village@@keep_rows: all_hours > 5 ; village,all_hours|Thornmere,6 ; 2 rows|2 → 1 row",
                "read: visits@@bring_in: [all_hours]@from: by_village@matching: {village: village}@@drop: [no] ; village,hours,all_hours|Thornmere,2,6|Alder Quay,5,5|,1,|Thornmere,4,6 ; 4 rows|3 → 4 columns|4 → 3 columns",
                "read: visits@name: all@@keep_rows: hours > '3'@name: long@@go_on_from: all@@keep_matching: long@matching: {no: no}@@choose: [no] ; no|2|4 ; 4 rows|4 → 2 rows|4 rows|4 → 2 rows|3 → 1 column",
                "read: visits@name: all@@count_by: [village]@name: counted@@go_on_from: all@@bring_in: [rows]@from: counted@matching: {village: village}@@choose: [no, rows] ; no,rows|1,2|2,1|3,|4,2 ; 4 rows|4 → 3 rows, 3 → 2 columns|4 rows|3 → 4 columns|4 → 2 columns",
                "read: visits@name: all@@drop_repeats: [village]@keep: first@@put_under: all@@choose: [no] ; no|1|2|3|1|2|3|4 ; 4 rows|4 → 3 rows|3 → 7 rows|3 → 1 column",
                "read: visits@@by_mapping: [village]@pairs: {in: by_village, from: village, to: all_hours}@others: become_missing ; no,village,hours|1,6,2|2,5,5|3,,1|4,6,4 ; 4 rows|3 cells",
                "read: visits@@beside: {key: village, n: there}@@choose: [no, there] ; no,there|1,2|2,1|3,|4,2 ; 4 rows|3 → 4 columns|4 → 2 columns",
                "read: visits@@turn_table: what@names_from: village ; what,Thornmere,Alder Quay,row_3,Thornmere_2|no,1,2,3,4|hours,2,5,1,4 ; 4 rows|4 → 2 rows, 3 → 5 columns",
                "read: visits@@keep_rows: no < '3'@name: first@@by_mapping: [no]@pairs: {in: first, from: no, to: village} ; no,village,hours|Thornmere,Thornmere,2|Alder Quay,Alder Quay,5 ; 4 rows|4 → 2 rows|2 cells"
            })
    void tablesOfLinesAndJobs(String lines, String out, String margins) throws Exception {
        Shelf shelf = shelf(yaml(lines));
        Outcome<JobRun.Report> run = Jobs.run(shelf);
        assertThat(run.problems()).isEmpty();
        assertThat(Files.readString(root.resolve("out.csv")).replace("\r", "").strip())
                .isEqualTo(out.replace('|', '\n'));
        assertThat(run.get().effects().stream().map(LineEffect::margin)).containsExactly(margins.split("\\|"));
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            assertThat(preview.look(planned).get().stream().map(LineEffect::margin))
                    .containsExactly(margins.split("\\|"));
            assertThat(preview.ledger(planned).get().addsUp()).isTrue();
        }
    }

    private static String yaml(String lines) {
        return "  - " + lines.replace("@@", "\n  - ").replace("@", "\n    ") + "\n";
    }

    @Test
    void anOutputTakesTheTableOfALine() throws Exception {
        shelf(yaml("read: visits"));
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                HEAD + yaml("read: visits@@keep_rows: hours > '1'@name: long@@drop_repeats: [village]@keep: last")
                        + TAIL + "  - write: long.csv\n    of: {line: long}\n");
        Outcome<JobRun.Report> run = Jobs.run(ShelfReader.read(root).get());
        assertThat(run.problems()).isEmpty();
        assertThat(Files.readString(root.resolve("long.csv")).lines()).hasSize(4);
        assertThat(Files.readString(root.resolve("out.csv")).lines()).hasSize(3);
        assertThat(run.get().rows(root.resolve("long.csv"))).isEqualTo(3);
    }

    /// The result of a job is that of the line it names: what its outputs without `of` hold, what others read, what
    /// languages write, and what rows are accounted for.
    @Test
    void theResultIsThatOfANamedLine() throws Exception {
        shelf(yaml("read: visits"));
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                HEAD + yaml("read: visits@@keep_rows: hours > '1'@name: long@@drop_repeats: [village]@keep: last")
                        + "result: long\n" + TAIL + "  - write: each.csv\n    of: {line: 3}\n");
        Files.writeString(
                root.resolve("jobs/reader.yaml"),
                "job: reader\nlines:\n  - read: job\n  - bring_in: [rows]\n    from: counts\n    matching: {village: village}\n");
        Files.writeString(
                root.resolve("jobs/counts.yaml"),
                "job: counts\nlines:\n  - read: job\n  - count_by: [village]\n    name: counted\n  - first_rows: 1\nresult: '2'\n");
        Shelf shelf = ShelfReader.read(root).get();
        assertThat(shelf.problems()).isEmpty();
        Outcome<JobRun.Report> run = Jobs.run(shelf);
        assertThat(run.problems()).isEmpty();
        assertThat(Files.readString(root.resolve("out.csv")).lines()).hasSize(4);
        assertThat(Files.readString(root.resolve("each.csv")).lines()).hasSize(3);
        assertThat(run.get().rows()).isEqualTo(3);
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        assertThat(planned.code(shelf).lines()).hasSize(1);
        PlannedJob reader = PlannedJob.plan(shelf, shelf.job("reader").orElseThrow(), Map.of())
                .get();
        try (Preview preview = Preview.open(planned.source()).get();
                Preview read = Preview.open(reader.source()).get()) {
            Ledger ledger = preview.ledger(planned).get();
            assertThat(ledger.addsUp()).isTrue();
            assertThat(ledger.out()).isEqualTo(3);
            assertThat(ledger.branches()).containsExactly(new Ledger.Branch(3, 2));
            assertThat(read.grid(reader, 2).get().rows().stream().map(r -> r.get(0) + " " + r.get(3)))
                    .containsExactly("1 2", "2 1", "4 2");
        }
        Files.writeString(root.resolve("jobs/job.yaml"), HEAD + yaml("read: visits") + "result: nowhere\n");
        assertThat(ShelfReader.read(root).get().problems())
                .extracting(p -> p.what())
                .contains("There is no line nowhere in this job.");
    }

    /// What a job makes sure of, and what it must not lose, holds for whoever reads it.
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "make_sure: hours <> '5' | 1 row breaks its line 2.",
                "make_sure: hours <> '9' | -",
                "make_sure: hours <> '5'@only_count: true | -",
                "read_as: {village: integer}@strict: true | its line 2 loses 3 values, and is strict: 'Thornmere' in village, 2 rows; 'Alder Quay' in village, 1 row.",
                "read_as: {hours: integer}@strict: true | -"
            })
    void aReaderStopsWhereTheJobWould(String line, String why) throws Exception {
        shelf(yaml("read: visits"));
        Files.writeString(root.resolve("jobs/sure.yaml"), "job: sure\nlines:\n" + yaml("read: visits@@" + line));
        Files.writeString(root.resolve("jobs/between.yaml"), "job: between\nlines:\n" + yaml("read: sure"));
        for (String reading :
                List.of("read: between", "read: visits@@keep_matching: sure@matching: {no: no}", "read: sure")) {
            Files.writeString(root.resolve("jobs/job.yaml"), HEAD + yaml(reading) + TAIL);
            Outcome<JobRun.Report> run = Jobs.run(ShelfReader.read(root).get());
            assertThat(run.problems().stream().map(p -> p.what().replaceFirst(".* would stop: ", "")))
                    .as(reading)
                    .containsExactlyElementsOf(why.strip().equals("-") ? List.of() : List.of(why.strip()));
            assertThat(Files.exists(root.resolve("out.csv"))).isEqualTo(run.isPresent());
            Files.deleteIfExists(root.resolve("out.csv"));
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "read: job ; Jobs read each other in a circle: job → job.",
                "read: visits@@put_under: turning ; Jobs read each other in a circle: job → turning → job.",
                "read: nobody ; There is no dataset or job nobody on this shelf.",
                "read: visits@@go_on_from: later@@first_rows: 2@name: later ; There is no line later above.",
                "read: visits@@go_on_from: known ; There is no line known above.",
                "read: visits@@first_rows: 2@name: known ; There is a line, a dataset or a job known already.",
                "read: visits@@put_under: broken ; The job broken cannot be read: There is no column nothing"
            })
    void whatIsNotThereIsNamed(String lines, String what) throws Exception {
        shelf(yaml(lines));
        Files.writeString(
                root.resolve("jobs/turning.yaml"), "job: turning\nlines:\n  - read: visits\n  - put_under: job\n");
        Files.writeString(
                root.resolve("jobs/broken.yaml"), "job: broken\nlines:\n  - read: visits\n  - drop: [nothing]\n");
        assertThat(Jobs.run(ShelfReader.read(root).get()).problems()).first().satisfies(p -> {
            assertThat(p.what()).startsWith(what);
            assertThat(p.todo()).isNotBlank();
            assertThat(p.where().position().line()).isGreaterThanOrEqualTo(3);
        });
    }

    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @ParameterizedTest
    @MethodSource("engines")
    void everyLanguageComesBackToTheSameTables(FixEngine engine) throws Exception {
        Engines.assumeHere(engine);
        Shelf shelf = shelf(yaml("read: by_village@name: sums@@keep_rows: all_hours > 5@name: much@@go_on_from: sums"
                + "@@put_under: much@@bring_in: [no]@from: known@matching: {village: village}@several: first"
                + "@@leave_out_matching: by_village@matching: {village: village}@@put_under: sums"
                + "@@beside: {key: village, n: there}"));
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        List<JobParity> results = JobParity.check(shelf, planned, List.of(engine), new Stop(), _ -> {})
                .get();
        assertThat(results).allSatisfy(r -> assertThat(r.verdict())
                .as(r.detail() + "\n"
                        + engine.language().job(planned.code(shelf)).value().orElse(""))
                .isInstanceOf(JobParity.Same.class));
    }

    @Test
    void aJobThatBringsInItsOwnTableIsComparedOverTheSameRows() throws Exception {
        StringBuilder many = new StringBuilder("no,village,hours\n");
        for (int i = 1; i <= 2 * JobParity.ROWS; i++) {
            many.append(i).append(",v").append(i % 700).append(",1\n");
        }
        Shelf shelf = shelf(yaml("read: visits@@keep_matching: known@matching: {no: no}@@put_under: visits"));
        Files.writeString(root.resolve("data/in.csv"), many);
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        JobParity.Asked asked = JobParity.asked(shelf, planned).get();
        assertThat(asked.expected()).hasSize(2 * JobParity.ROWS);
        assertThat(JobParity.verdicts(Engines.of("duckdb"), List.of(asked)))
                .containsExactly(new JobParity.Same(2 * JobParity.ROWS));
    }
}
