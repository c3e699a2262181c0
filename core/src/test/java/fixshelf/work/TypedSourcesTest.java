package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Problem;
import fixshelf.shelf.DatasetPages;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.type.Column;
import java.nio.file.Files;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/// Datasets whose columns have types: those that their source declares, or that their page says.
class TypedSourcesTest extends LoaderShelf {
    private static final String VALUES = """
            SELECT 7::tinyint AS i, 9223372036854775807 AS big, 18446744073709551615::ubigint AS most, 1.50::decimal(9,2) AS dec,
              0.1::double AS dbl, 0.1::float AS flt, true AS yes, DATE '2026-02-07' AS day,
              TIMESTAMP '2026-02-07 10:12:00.5' AS at, TIMESTAMPTZ '2026-02-07 10:12:00+02' AS zoned, 'x' AS txt, [1, 2] AS list,
              NULL::integer AS none""";

    @BeforeEach
    void sources() throws Exception {
        run(
                "jdbc:duckdb:" + folder.resolve("data/t.duckdb"),
                "CREATE TABLE t AS " + VALUES,
                "COPY t TO '" + folder.resolve("data/t.parquet") + "' (FORMAT parquet)",
                "COPY (SELECT 'a' AS x) TO '" + folder.resolve("data/texts.parquet") + "' (FORMAT parquet)");
        run(
                "jdbc:sqlite:" + folder.resolve("data/t.sqlite"),
                "CREATE TABLE t (i INTEGER, r REAL, t TEXT, d DECIMAL(9,2), day DATE)",
                "INSERT INTO t VALUES (1, 0.5, 'a', 1.5, '2026-02-07'), ('abc', 1e300, 'b', 2, NULL)");
        write("data/t.csv", "i,d,day,t\n1,2.50,2026-02-07,a\n2,x,,b\n");
    }

    private static void run(String url, String... statements) throws SQLException {
        try (Connection connection = DriverManager.getConnection(url);
                Statement statement = connection.createStatement()) {
            for (String sql : statements) {
                statement.execute(sql);
            }
        }
    }

    private void job(String name, String lines) throws Exception {
        write("jobs/" + name + ".yaml", "job: " + name + "\nlines:\n" + lines.indent(2));
    }

    private static final String ENGINE = "i integer, big integer, most decimal(20,0), dec decimal(9,2), dbl number,"
            + " flt number, yes boolean, day date, at timestamp, zoned text, txt text, list text, none integer";

    /// The columns that a job finds, and its first row.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "read: data/t.parquet¶types: declared; ENGINE; 7, 9223372036854775807, ∅, 1.50, 0.1, 0.1, true, 2026-02-07, 2026-02-07 10:12:00.5, 2026-02-07 08:12:00+00, x, [1, 2], ∅",
                "read: data/t*.parquet¶types: declared; file text, ALL; t.parquet, 7",
                "read: data/t.duckdb¶kind: duckdb¶types: declared; ENGINE; 7, 9223372036854775807, ∅, 1.50, 0.1, 0.1, true, 2026-02-07, 2026-02-07 10:12:00.5, 2026-02-07 08:12:00+00, x, [1, 2], ∅",
                "read: data/t.sqlite¶kind: sqlite¶types: declared; i integer, r number, t text, d text, day text; 1, 0.5, a, 1.5, 2026-02-07",
                "read: data/t.sqlite¶kind: sqlite; i text, r text, t text, d text, day text; 1, 0.5, a, 1.5, 2026-02-07",
                "read: data/t.csv¶types: {i: integer, d: 'decimal(9,2)', day: date}; i integer, d decimal(9,2), day date, t text; 1, 2.50, 2026-02-07, a",
                "columns: {n: integer, d: 'decimal(9,2)', day: date, w: text}¶values: [[1, 2.5, 2026-02-07, a]]; n integer, d decimal(9,2), day date, w text; 1, 2.50, 2026-02-07, a",
                "columns: {n: integer}¶values: [[1]]¶types: texts; n text; 1",
                "columns: [n]¶values: [[1]]; n text; 1",
            })
    void haveTheTypesOfTheirSource(String page, String types, String row) throws Exception {
        dataset(page.replace("¶", "\n") + (page.contains("types: d") || page.contains("{i") ? "\nstrict: false" : ""));
        job("j", "- read: d\n- keep_rows: true");
        Shelf shelf = read();
        assertThat(shelf.problems()).isEmpty();
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("j").orElseThrow(), Map.of()).get();
        String columns = planned.plan().columns().stream()
                .map(c -> c.name() + " " + c.type().label())
                .collect(Collectors.joining(", "));
        if (types.endsWith("ALL")) {
            // Files that say no type of a column, or another, say none together.
            assertThat(columns).startsWith("file text, i integer, big").endsWith("none integer, x text");
        } else {
            assertThat(columns).isEqualTo(types.equals("ENGINE") ? ENGINE : types);
            try (Preview preview = Preview.open(planned.source()).get()) {
                assertThat(preview.rows(planned, 2, Preview.View.ALL, 0, 1).get().getFirst().cells().stream()
                                .map(c -> c.value() == null ? "∅" : fixshelf.type.Literals.bare(c.value()))
                                .collect(Collectors.joining(", ")))
                        .isEqualTo(row);
            }
        }
    }

    @Test
    void stopWhereAValueIsNoneOfItsType() throws Exception {
        dataset("read: data/t.sqlite\nkind: sqlite\ntypes: declared");
        job("j", "- read: d");
        Shelf strict = read();
        PlannedJob job =
                PlannedJob.plan(strict, strict.job("j").orElseThrow(), Map.of()).get();
        assertThat(words(JobRun.run(job, JobRun.Watcher.NONE).problems()))
                .contains("d, which j reads, would stop: 1 value of it is none of the type of the column")
                .contains("makes them missing): 'abc' in i, 1 row.");
        try (Preview preview = Preview.open(job.source()).get()) {
            assertThat(ReadNotes.of(strict, preview, job))
                    .containsExactly(
                            "d: 1 value is not of the type of the column, so that a run stops: 'abc' in i, 1 row.");
        }
        dataset("read: data/t.sqlite\nkind: sqlite\ntypes: declared\nstrict: false");
        assertThat(result("j")).isEqualTo("[[1, 0.5, a, 1.5, 2026-02-07], [null, 1.0E300, b, 2, null]]");
        // As a line of the job itself it counts what it loses, as any other.
        job("line", "- read: {file: data/t.sqlite, kind: sqlite}\n- read_declared: [i, r]");
        Shelf shelf = read();
        PlannedJob line = PlannedJob.plan(shelf, shelf.job("line").orElseThrow(), Map.of())
                .get();
        try (Preview preview = Preview.open(line.source()).get()) {
            assertThat(preview.look(line).get().getLast().margin()).isEqualTo("1 cell, 1 lost");
        }
    }

    /// A run over columns with types gives what a line that reads them as these gives, and tells the same losses.
    @ParameterizedTest
    @ValueSource(
            strings = {
                "- keep_rows: i > 1",
                "- set: [d]\n  to: it * 2\n- sort: [i]",
                "- drop_repeats: [i]\n  keep: last",
                "- group: [i]\n  measures: {total: sum(d)}",
                "- add: {late: day > DATE '2026-02-08'}\n- make_sure: i IS NOT NULL\n  only_count: true",
                "- leave_out_rows: d IS NULL\n- number_rows: no",
                "- bring_in: [w]\n  from: words\n  matching: {i: n}",
                "- put_under: d\n- fill_missing: [d]\n  with: 0"
            })
    void runAsIfALineReadThem(String lines) throws Exception {
        StringBuilder rows = new StringBuilder("i,d,day,t\n");
        for (int i = 0; i < 40; i++) {
            rows.append(i % 7 == 6 ? "x" : i % 5)
                    .append(',')
                    .append(i % 9 == 8 ? "" : i + ".50")
                    .append(",2026-02-")
                    .append(i % 4 == 3 ? "31" : "1" + i % 9)
                    .append(",a\n");
        }
        write("data/t.csv", rows.toString());
        write(
                "datasets/words.yaml",
                "dataset: words\ncolumns: {n: integer, w: text}\nvalues: [[1, one], [3, three]]\n");
        String types = "{i: integer, d: 'decimal(9,2)', day: date}";
        dataset("read: data/t.csv\ntypes: " + types + "\nstrict: false");
        write("datasets/plain.yaml", "dataset: plain\nread: data/t.csv\n");
        Files.createDirectories(folder.resolve("out"));
        String first = written("typed", "- read: d\n" + lines, "a");
        String losses = first.replaceFirst("(?s).* lost ", "");
        assertThat(losses).isEqualTo("15");
        // More than one output is written out of a table.
        assertThat(written("twice", "- read: d\n" + lines, "b, c")).isEqualTo(first);
        assertThat(written("line", "- read: plain\n- read_as: " + types + "\n" + lines, "e"))
                .isEqualTo(first);
        assertThat(result("typed")).isEqualTo(result("line"));
    }

    /// A Parquet file whose values all have types of ours is read without texts between; what comes of it is the same.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                "SELECT i::smallint AS i, (i * 1.25)::decimal(9,2) AS dec, (i * 0.1)::float AS flt, -(i * 0.1)::double AS dbl, i % 2 = 0 AS yes,"
                        + " DATE '0001-01-01' + i::integer AS day, TIMESTAMP '9999-12-31 23:59:59.999990' + INTERVAL (i) MICROSECOND AS at,"
                        + " CASE WHEN i > 3 THEN 'a' || i END AS txt, NULL::integer AS none FROM range(9) t(i); 0",
                "SELECT i, CASE i WHEN 2 THEN 'nan'::double WHEN 3 THEN 'inf'::double ELSE i END AS dbl FROM range(9) t(i); 2",
                "SELECT i, CASE WHEN i = 2 THEN DATE '12026-01-01' WHEN i = 3 THEN 'infinity'::date END AS day FROM range(9) t(i); 2",
                "SELECT i, CASE WHEN i = 2 THEN TIMESTAMP '12026-01-01 00:00:00' END AS at FROM range(9) t(i); 1",
                "SELECT i, (i * 1.5)::decimal(30,3) AS dec, i::ubigint AS u FROM range(9) t(i); 0"
            })
    void areTheSameReadWithoutTextsBetween(String query, int lost) throws Exception {
        run("jdbc:duckdb:", "COPY (" + query + ") TO '" + folder.resolve("data/v.parquet") + "' (FORMAT parquet)");
        dataset("read: data/v.parquet\ntypes: declared\nstrict: false");
        Files.createDirectories(folder.resolve("out"));
        String lines = "- keep_rows: i < 8\n- add: {twice: i * 2}";
        String typed = written("typed", "- read: d\n" + lines, "a");
        assertThat(typed).endsWith(" lost " + lost);
        assertThat(written("twice", "- read: d\n" + lines, "b, c")).isEqualTo(typed);
        assertThat(written("line", "- read: {file: data/v.parquet}\n- read_declared: every text column\n" + lines, "e"))
                .isEqualTo(typed);
    }

    /// What a run writes, the rows after each line, and how many values were lost as they were read.
    private String written(String name, String lines, String outputs) throws Exception {
        StringBuilder page = new StringBuilder("job: " + name + "\nlines:\n" + lines.indent(2) + "outputs:\n");
        for (String output : outputs.split(", ")) {
            page.append("  - write: out/").append(output).append(".csv\n");
        }
        write("jobs/" + name + ".yaml", page.toString());
        Shelf shelf = read();
        JobRun.Report report = PlannedJob.plan(shelf, shelf.job(name).orElseThrow(), Map.of())
                .then(planned -> JobRun.run(planned, JobRun.Watcher.NONE))
                .get();
        List<LineEffect> effects = report.effects();
        boolean asLine = lines.contains("- read_as") || lines.contains("- read_declared");
        return Files.readString(folder.resolve("out/" + outputs.substring(0, 1) + ".csv"))
                + effects.stream().skip(asLine ? 2 : 1).map(LineEffect::margin).toList() + " lost "
                + effects.get(asLine ? 1 : 0).valuesLost();
    }

    @Test
    void meetOtherTypedTablesInJoinsAndAreToldFromJobsOfTheirName() throws Exception {
        dataset("read: data/t.csv\ntypes: {i: integer}");
        write(
                "datasets/words.yaml",
                "dataset: words\ncolumns: {n: integer, w: text}\nvalues: [[1, one], [3, three]]\n");
        job("d", "- read: d\n- bring_in: [w]\n  from: words\n  matching: {i: n}\n- choose: [i, w]");
        assertThat(result("d")).isEqualTo("[[1, one], [2, null]]");
        job("mapped", "- read: d\n- by_mapping: [t]\n  mapping: {in: words, from: w, to: n}");
        assertThat(read().problems()).isEmpty();
        // Where it is looked at, and copied, it is what stands in its file.
        assertThat(rows("d")).isEqualTo("i|d|day|t\n1|2.50|2026-02-07|a\n2|x|∅|b");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "read: data/t.csv¶types: declared; The source declares no types",
                "read: data/texts.parquet¶types: declared; ",
                "read: data/t.csv¶types: guessed; types is texts or declared.",
                "read: data/t.csv¶types: {i: whole}; There is no type whole for the column i.",
                "read: data/t.csv¶types: {no: integer}; There is no column no at this line.",
                "read: data/t.csv¶strict: false; Texts lose nothing, so that reading them cannot be strict.",
                "read: data/t.csv¶types: {day: list of text}; There is no type list of text for the column day.",
                "load: visits_of¶with: {room: quay}¶types: declared; There is no field types here.",
                "columns: {n: integer}¶values: [[1]]¶types: {m: integer}; There is no column m at this line."
            })
    void whatIsWrongIsSaidOnce(String page, String problem) throws Exception {
        dataset(page.replace("¶", "\n"));
        Shelf shelf = read();
        List<Problem> problems = ShelfProblems.of(shelf).problems();
        String said = words(problems);
        assertThat(said).contains(problem == null ? "" : problem);
        assertThat(problems).hasSize(problem == null ? 0 : 1);
    }

    /// What is written of a source that declares types has them; a stand-in has those that jobs find.
    @Test
    void areWrittenIntoPages() throws Exception {
        SourceFile file = SourceFile.open(
                        folder.resolve("data/t.sqlite"),
                        DatasetPages.options(Map.of("read", "data/t.sqlite", "kind", "sqlite"))
                                .get())
                .get();
        assertThat(file.isTyped()).isTrue();
        dataset(DatasetPages.writeDeclared("d", file.options()).replaceFirst("dataset: d\n", "") + "strict: false");
        job("j", "- read: d\n- keep_rows: i = 1 AND r < 1e0");
        Shelf shelf = read();
        assertThat(shelf.problems()).isEmpty();
        assertThat(Datasets.typed(shelf, "d"))
                .extracting(c -> c.type().label())
                .containsExactly("integer", "number", "text", "text", "text");
        String page = DatasetPages.write("s", ReadOptions.of("s.csv"), Datasets.typed(shelf, "d"));
        write("datasets/s.yaml", page);
        write("s.csv", "i,r,t,d,day\n3,0.25,z,1,\n");
        assertThat(Datasets.typed(read(), "s").stream().map(Column::type).toList())
                .isEqualTo(Datasets.typed(shelf, "d").stream().map(Column::type).toList());
    }
}
