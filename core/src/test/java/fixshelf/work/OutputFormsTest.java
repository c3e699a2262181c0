package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.DuckSession;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Outcome;
import fixshelf.shelf.JobEdits;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.source.CarefulRows;
import fixshelf.source.SourceFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What is written as the ending of an output says, and what a workbook cannot hold.
class OutputFormsTest {
    @TempDir
    Path root;

    private static final String DATA =
            "no,day,at,cost,n,ok,t\n007,2026-03-01,2026-03-01 10:12:00.5,1234567890123456.50,3,true,a|b\n"
                    + "\"1,5\",,,,,,\"\"\n=1+1,1900-03-01,2026-12-31 23:59:59,-0.05,-9,false,\"say \"\"x\"\"\"\n";
    private static final String TYPED =
            "  - read_as: {day: date, at: timestamp, cost: \"decimal(18,2)\", n: integer, ok: boolean}\n";

    private Outcome<JobRun.Report> run(String data, String lines, String output) throws Exception {
        Shelf shelf = Jobs.shelf(
                root,
                data,
                "job: job\nlines:\n  - read: {file: data/in.csv}\n" + lines + "outputs:\n  - write: " + output + "\n");
        return Jobs.run(shelf);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                "out.json; [#{\"no\":\"007\",\"day\":\"2026-03-01\",\"at\":\"2026-03-01 10:12:00.5\",\"cost\":1234567890123456.50,\"n\":3,\"ok\":true,\"t\":\"a|b\"},#{\"no\":\"1,5\",\"day\":null,\"at\":null,\"cost\":null,\"n\":null,\"ok\":null,\"t\":\"\"},#{\"no\":\"=1+1\",\"day\":\"1900-03-01\",\"at\":\"2026-12-31 23:59:59\",\"cost\":-0.05,\"n\":-9,\"ok\":false,\"t\":\"say \\\"x\\\"\"}#]",
                "out.jsonl; {\"no\":\"007\",\"day\":\"2026-03-01\",\"at\":\"2026-03-01 10:12:00.5\",\"cost\":1234567890123456.50,\"n\":3,\"ok\":true,\"t\":\"a|b\"}#{\"no\":\"1,5\",\"day\":null,\"at\":null,\"cost\":null,\"n\":null,\"ok\":null,\"t\":\"\"}#{\"no\":\"=1+1\",\"day\":\"1900-03-01\",\"at\":\"2026-12-31 23:59:59\",\"cost\":-0.05,\"n\":-9,\"ok\":false,\"t\":\"say \\\"x\\\"\"}",
                "out.csv; no,day,at,cost,n,ok,t#007,2026-03-01,2026-03-01 10:12:00.5,1234567890123456.50,3,true,a|b#\"1,5\",,,,,,\"\"#=1+1,1900-03-01,2026-12-31 23:59:59,-0.05,-9,false,\"say \"\"x\"\"\""
            })
    void areTexts(String output, String written) throws Exception {
        assertThat(run(DATA, TYPED, output).problems()).isEmpty();
        assertThat(Files.readString(root.resolve(output)).strip().replace("\n", "#"))
                .isEqualTo(written);
    }

    /// Texts beyond the first hundred thousand different ones stand in their cells, and are what they were.
    @Test
    void soAreMoreTextsThanAreSharedInAWorkbook() throws Exception {
        List<String> odd = List.of(
                " edge", "edge ", "a  b", "\"a\nb\"", "w_x000D_", "=1+1", "<&>", "\uD834\uDD1E", "e\u0301", "\u00A0x");
        StringBuilder data = new StringBuilder("a\n");
        for (int i = 0; i < 100_001; i++) {
            data.append('t').append(i).append('\n');
        }
        odd.forEach(t -> data.append(t).append('\n'));
        data.append("t3\nlast\n");
        assertThat(run(data.toString(), "", "out.xlsx").problems()).isEmpty();
        Set<String> read = new HashSet<>();
        SourceFile written = SourceFile.open(root.resolve("out.xlsx"), ReadOptions.of("out.xlsx"))
                .get();
        try (DuckSession session = DuckSession.open(List.of(written.file()), Optional.empty())) {
            CarefulRows.read(written, session, "t").get();
            session.each("SELECT * FROM t", row -> read.add(String.valueOf(row.getFirst())));
        }
        assertThat(read).hasSize(100_001 + odd.size() + 1).contains("t0", "t100000", "last", "a\nb");
        assertThat(read)
                .containsAll(odd.stream().filter(t -> !t.startsWith("\"")).toList());
    }

    /// A workbook that was written is read again: texts stay texts, numbers are their digits, days are days; an empty
    /// text is missing then.
    @Test
    void aWorkbookIsReadAgain() throws Exception {
        for (String lines : new String[] {TYPED, TYPED + "  - sort: [{no: descending}]\n"}) {
            Outcome<JobRun.Report> run =
                    run(DATA.replace("1234567890123456.50", "1.50"), lines, "out[1].xlsx\n    replace: true");
            assertThat(run.problems()).isEmpty();
            assertThat(run.get().rows()).isEqualTo(3);
            SourceFile written = SourceFile.open(root.resolve("out[1].xlsx"), ReadOptions.of("out[1].xlsx"))
                    .get();
            try (Preview preview = Preview.open(written).get()) {
                assertThat(preview.firstRows(9).stream().map(r -> String.join(" ", r)))
                        .containsExactlyInAnyOrder(
                                "007 2026-03-01 2026-03-01 10:12:00.500 1.5 3 true a|b",
                                "1,5 ∅ ∅ ∅ ∅ ∅ ∅",
                                "=1+1 1900-03-01 2026-12-31 23:59:59 -0.05 -9 false say \"x\"");
                assertThat(preview.notes()).containsExactly("Sheet out_1_, A1:G4 is used.");
            }
        }
    }

    /// Texts come back as they were, whatever they look like there.
    @Test
    void textsComeBackOutOfAWorkbook() throws Exception {
        List<String> texts = List.of(
                " lead",
                "trail ",
                "a\rb",
                "a\r\nb",
                "a\nb",
                "\t",
                "_x000D_",
                "_x005F_",
                "_x0041_b_xd83d_",
                "<&>\"']]>",
                "=1+1",
                "007",
                "1e5",
                "true",
                "#N/A",
                "\uFEFFx",
                "e\u0301",
                "😀",
                "\u2028",
                "x".repeat(32_767));
        String data = "t\n"
                + texts.stream()
                        .map(t -> '"' + t.replace("\"", "\"\"") + "\"\n")
                        .collect(java.util.stream.Collectors.joining());
        assertThat(run(data, "", "out.xlsx").problems()).isEmpty();
        SourceFile written = SourceFile.open(
                        root.resolve("out.xlsx"), ReadOptions.of("out.xlsx").withNullWords(List.of()))
                .get();
        try (DuckSession session = DuckSession.open(List.of(written.file()), Optional.empty())) {
            CarefulRows.read(written, session, "t").get();
            assertThat(session.query("SELECT * FROM t").rows().stream().map(r -> r.getFirst()))
                    .containsExactlyElementsOf(texts);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                "0.12345678901234567; n: \"decimal(18,17)\"; 1 number of more than 15 digits in n",
                "EMOJI; n: text; 1 text longer than 32,767 characters in n",
                "1000000000000000; n: integer; 1 number of more than 15 digits in n",
                "1900-02-28; n: date; 1 day before 1900-03-01 in n",
                "12345678901234.56; n: \"decimal(18,2)\"; 1 number of more than 15 digits in n",
                "a\u0001b; n: text; 1 text with signs that it cannot hold in n",
                "LONG; n: text; 1 text longer than 32,767 characters in n"
            })
    void whatAWorkbookCannotHoldStopsTheRun(String value, String type, String what) throws Exception {
        String data = "n\n" + value.replace("LONG", "x".repeat(32_768)).replace("EMOJI", "😀".repeat(16_384)) + "\n";
        Outcome<JobRun.Report> run = run(data, "  - read_as: {" + type + "}\n", "out.xlsx");
        assertThat(run.problems())
                .extracting(p -> p.what())
                .containsExactly("A workbook cannot hold this: " + what + ".");
        assertThat(root.resolve("out.xlsx")).doesNotExist();
        assertThat(root.toFile().list()).noneMatch(n -> n.contains("fixshelf-part"));
    }

    private String sheet(String name) {
        ReadOptions options =
                ReadOptions.of("out.xlsx").withForm(new ReadOptions.Form.Workbook(name, "", false, false));
        return ReadRows.of(SourceFile.open(root.resolve("out.xlsx"), options));
    }

    @Test
    void severalOutputsAreSheetsOfOneWorkbook() throws Exception {
        String lines = """
                  - read_as: {n: integer}
                    name: numbers
                  - keep_rows: n > 1
                  - sort: [{n: descending}]
                """;
        String outputs =
                "out.xlsx%1$s\n    sheet: Kept\n  - write: out.xlsx%1$s\n    sheet: All of it\n    of: {line: numbers}\n";
        String data = "n,t\n1,a\n2,b\n3,c\nx,d\n";
        Outcome<JobRun.Report> run = run(data, lines, outputs.formatted(""));
        assertThat(run.problems()).isEmpty();
        assertThat(sheet("Kept")).isEqualTo("n|t\n3|c\n2|b");
        assertThat(sheet("All of it")).isEqualTo("n|t\n1|a\n2|b\n3|c\n∅|d");
        // The first sheet is that of the first output, whichever was written first.
        assertThat(sheet("")).startsWith("n|t\n3|c");
        assertThat(run(data, lines, outputs.formatted("")).problems())
                .allMatch(p -> p.what().contains("There is a file out.xlsx already."))
                .isNotEmpty();
        assertThat(run(data, lines, outputs.formatted("\n    replace: true")).problems())
                .isEmpty();
        assertThat(run(
                                data,
                                lines,
                                "out.xlsx\n    replace: true\n  - write: out.xlsx\n    replace: true\n    sheet: OUT\n")
                        .problems())
                .extracting(p -> p.what())
                .containsExactly("Two outputs of this job go to sheet OUT of out.xlsx.");
        assertThat(sheet("Kept")).isEqualTo("n|t\n3|c\n2|b");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "out.csv¶    sheet: a               ; Only a workbook has sheet.",
                "out.xlsx¶    sheet: a/b            ; A sheet cannot be called so: a/b.",
                "out.xlsx¶    sheet: \"'a\"          ; A sheet cannot be called so: 'a.",
                "out.xlsx¶    sheet: abcdefghijklmnopqrstuvwxyz-123456 ; A sheet cannot be called so",
                "out.xlsx¶    cannot_hold: cut      ; cannot_hold is stop or text.",
            })
    void whatIsNoSheetIsSaid(String output, String what) throws Exception {
        Shelf shelf = Jobs.shelf(
                root,
                "n\n1\n",
                "job: job\nlines:\n  - read: {file: data/in.csv}\noutputs:\n  - write: " + output.replace("¶", "\n")
                        + "\n");
        assertThat(shelf.problems()).first().matches(p -> p.what().contains(what));
    }

    /// Delimited text has its options, alone and with a table in between; each is said on the page of the job.
    @ParameterizedTest
    @CsvSource(
            delimiterString = "=>",
            quoteCharacter = '~',
            value = {
                "~~ => a,b¶\"x;é\"\"q\",¶=1+1,¶,-5¶",
                "separator: \";\" => a;b¶\"x;é\"\"q\";¶=1+1;¶;-5¶",
                "separator: \"|\"¶heading: false¶missing: NA => \"x;é\"\"q\"|NA¶=1+1|NA¶NA|-5¶",
                "quotes: always => \"a\",\"b\"¶\"x;é\"\"q\",¶\"=1+1\",¶,\"-5\"¶",
                "formulas: guarded => a,b¶\"x;é\"\"q\",¶'=1+1,¶,-5¶",
                "line_end: crlf => a,b␍¶\"x;é\"\"q\",␍¶=1+1,␍¶,-5␍¶",
                "byte_order_mark: true => ⎕a,b¶\"x;é\"\"q\",¶=1+1,¶,-5¶",
                "encoding: windows-1252¶line_end: crlf => a,b␍¶\"x;é\"\"q\",␍¶=1+1,␍¶,-5␍¶",
                "encoding: utf-16le¶byte_order_mark: true => ⎕a,b¶\"x;é\"\"q\",¶=1+1,¶,-5¶",
                "encoding: utf-16¶byte_order_mark: true => a,b¶\"x;é\"\"q\",¶=1+1,¶,-5¶",
                "encoding: latin-1 => a,b¶\"x;é\"\"q\",¶=1+1,¶,-5¶",
                "encoding: windows-1252¶byte_order_mark: true => There is no byte order mark in windows-1252.",
                "encoding: x-jisautodetect => Text in x-jisautodetect can only be read.",
                "encoding: us-ascii => 1 character of out.csv cannot be written as us-ascii: é",
                "separator: ab => A separator is one character, and no quote or line end.",
                "encoding: klingon => There is no encoding klingon.",
                "missing: 'a,b' => What stands for missing has no separator in it.",
                "missing: 'a\"' => What stands for missing has no quote and no line end.",
            })
    void delimitedTextIsWrittenAsItsOutputSays(String fields, String expected) throws Exception {
        String data = "a,b\n\"x;é\"\"q\",\n=1+1,\n,-5\n";
        for (String lines : List.of("", "  - sort: [b]\n  - sort: [{a: descending}]\n")) {
            Files.deleteIfExists(root.resolve("out.csv"));
            String page = "out.csv\n"
                    + (fields.isBlank() ? "" : "    " + fields.strip().replace("¶", "\n    ") + "\n");
            Outcome<JobRun.Report> run = run(data, lines, page.strip());
            if (!expected.endsWith("¶")) {
                assertThat(run.problems()).extracting(p -> p.what()).contains(expected.strip());
                assertThat(Files.exists(root.resolve("out.csv"))).isFalse();
                continue;
            }
            String encoding = fields.replaceFirst("(?s).*encoding: ([a-z0-9-]+).*|.*", "$1");
            String read = new String(
                    Files.readAllBytes(root.resolve("out.csv")),
                    ReadOptions.charset(encoding.isEmpty() ? "utf-8" : encoding));
            assertThat(read.replace("\uFEFF", "⎕").replace("\r", "␍").replace("\n", "¶"))
                    .isEqualTo(expected.strip());
            // What was written comes back the same through an edit of the page.
            JobPage job = ShelfReader.read(root).get().job("job").orElseThrow();
            assertThat(JobEdits.written(job.outputs().getFirst(), "").lines().count())
                    .isEqualTo(1 + (fields.isBlank() ? 0 : fields.strip().split("¶").length));
        }
    }

    /// The rows that a line lets leave are an output like its reports, as they stood before it.
    @ParameterizedTest
    @CsvSource(
            delimiterString = "=>",
            value = {
                "- keep_rows: n > '1' => 1,a / ,d",
                "- leave_out_rows: n > '1' => 2,b / 2,c",
                "- drop_repeats: [n]¶    keep: last => 2,b",
                "- first_rows: 1 => 2,b / 2,c / ,d",
                "- join: list¶    matching: {n: k} => 1,a / ,d",
                "- leave_out_matching: list¶    matching: {n: k} => 2,b / 2,c",
                "- leave_out_blank_rows: [n] => ,d",
                "- columns_to_rows: [n]¶    names_in: w¶    values_in: v => ,d",
                "- sort: [n] => Line 2 gives no report left.",
                "- group: [n]¶    measures: {c: count_rows()} => Line 2 gives no report left.",
            })
    void whatLeavesALineIsAnOutput(String line, String left) throws Exception {
        Files.createDirectories(root.resolve("data"));
        Files.createDirectories(root.resolve("datasets"));
        Files.writeString(root.resolve("data/list.csv"), "k,v\n2,x\n2,y\n");
        Files.writeString(root.resolve("datasets/list.yaml"), "dataset: list\nread: data/list.csv\n");
        // Also where rows pass without a table between, and where the line before is not the one above.
        for (String before : List.of("", "  - sort: [t]\n")) {
            Files.deleteIfExists(root.resolve("out.csv"));
            Files.deleteIfExists(root.resolve("left.csv"));
            Outcome<JobRun.Report> run = run(
                    "n,t\n1,a\n2,b\n2,c\n,d\n",
                    before + "  " + line.strip().replace("¶", "\n") + "\n",
                    "out.csv\n  - write: left.csv\n    of: {line: " + (before.isEmpty() ? 2 : 3) + ", report: left}");
            String came = run.isPresent()
                    ? Files.readAllLines(root.resolve("left.csv")).stream()
                            .skip(1)
                            .collect(java.util.stream.Collectors.joining(" / "))
                    : run.problems().getFirst().what().replace("Line 3", "Line 2");
            assertThat(came).isEqualTo(left.strip());
        }
    }

    @Test
    void whatAWorkbookCannotHoldIsATextWhereThatIsSaid() throws Exception {
        String data = """
                n,d,day,at
                1000000000000000,12345678901234.56,1900-02-28,1899-12-31 10:00:00
                5,1.50,2026-03-01,2026-03-01 10:00:00.000001
                """;
        Outcome<JobRun.Report> run = run(
                data,
                "  - read_as: {n: integer, d: \"decimal(18,2)\", day: date, at: timestamp}\n",
                "out.xlsx\n    cannot_hold: text");
        assertThat(run.problems()).isEmpty();
        assertThat(run.get().notes())
                .containsExactly("5 values are texts in out.xlsx, as a workbook cannot hold them.");
        assertThat(sheet(""))
                .isEqualTo("n|d|day|at\n1000000000000000|12345678901234.56|1900-02-28|1899-12-31 10:00:00\n"
                        + "5|1.5|2026-03-01|2026-03-01 10:00:00.000001");
    }

    /// The view gives, over the table that it says it reads, what the run gives.
    @Test
    void aDefinitionIsAView() throws Exception {
        String lines = "  - read_as: {n: integer}\n  - keep_rows: n > 1\n  - sort: [{n: descending}]\n";
        Outcome<JobRun.Report> run = run(
                "n,t\n1,a\n2,b\n3,c\n",
                lines,
                "out.csv\n  - write: out.sql\n  - write: sub/out.sql\n    language: sqlite");
        assertThat(run.problems()).isEmpty();
        assertThat(run.get().notes())
                .first()
                .isEqualTo("out.sql holds a definition and no rows: whoever gets it needs the tables that it reads.");
        assertThat(root.resolve("out.csv")).content().isEqualTo("n,t\n3,c\n2,b\n");
        String view = Files.readString(root.resolve("out.sql"));
        assertThat(view).startsWith("-- job: job\n-- Reads the table in,").contains("\nCREATE VIEW job AS\n");
        try (fixshelf.engine.DuckSession session = fixshelf.engine.DuckSession.open()) {
            session.run(
                    "CREATE TABLE \"in\" AS SELECT * FROM (VALUES (0, '1', 'a'), (1, '2', 'b'), (2, '3', 'c')) t(row_no, n, t)");
            session.run(view);
            assertThat(session.query("SELECT * FROM job").rows().toString()).isEqualTo("[[3, c], [2, b]]");
        }
        assertThat(root.resolve("sub/out.sql")).content().contains("CREATE VIEW job AS");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "out.csv¶    language: sqlite ; Only a definition has a language.",
                "out.sql¶    of: {line: '1'}  ; A definition is of the whole job.",
                "out.sql¶    language: pandas ; There is no view in pandas.",
                "out.sql¶    language: oracle ; Line 2",
            })
    void whatIsNoDefinitionIsSaid(String output, String what) throws Exception {
        Outcome<JobRun.Report> run = run("n\n1\n", "  - keep_rows: n = ''\n", output.replace("¶", "\n"));
        assertThat(run.problems()).first().matches(p -> p.what().contains(what), what);
        assertThat(root.resolve("out.sql")).doesNotExist();
    }
}
