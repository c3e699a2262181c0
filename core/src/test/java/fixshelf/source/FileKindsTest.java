package fixshelf.source;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.DuckSession;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form;
import fixshelf.problem.Outcome;
import fixshelf.type.Column;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Files that are no delimited text, read as rows of texts; and those that cannot be.
class FileKindsTest {
    @TempDir
    Path root;

    /// Heading, rows and notes, as `a,b|1,2|∅,3 // note`, or the problem.
    private String read(Path file, Optional<Form> form, boolean heading) {
        ReadOptions options = ReadOptions.of(file.toString()).withShape(",", "\"", "utf-8", heading);
        Outcome<SourceFile> opened =
                SourceFile.open(file, form.map(options::withForm).orElse(options));
        if (!opened.isPresent()) {
            return opened.problems().getFirst().sentence();
        }
        try (DuckSession session = DuckSession.open(List.of(file), Optional.empty())) {
            Outcome<CarefulRows> rows = CarefulRows.read(opened.get(), session, "t");
            if (!rows.isPresent()) {
                return rows.problems().getFirst().sentence();
            }
            String text = opened.get().columns().stream().map(Column::name).collect(Collectors.joining(","))
                    + session.query("SELECT * FROM t").rows().stream()
                            .map(r -> "|"
                                    + r.stream()
                                            .map(v -> v == null ? "∅" : v.toString())
                                            .collect(Collectors.joining(",")))
                            .collect(Collectors.joining());
            String bad = rows.get().bad().stream()
                    .map(b -> " ▲ " + b.line() + " " + b.why())
                    .collect(Collectors.joining());
            String notes = rows.get().notes().isEmpty()
                    ? ""
                    : " // " + String.join(" ", rows.get().notes());
            return text + bad + notes;
        } catch (fixshelf.problem.ProblemException e) {
            return e.problem().sentence();
        }
    }

    private Path file(String name, byte[] bytes) throws Exception {
        return Files.write(root.resolve(name), bytes);
    }

    private Path file(String name, String text) throws Exception {
        return file(name, text.getBytes(StandardCharsets.UTF_8));
    }

    private static final Map<String, String> SHEETS = new LinkedHashMap<>();

    static {
        SHEETS.put(
                "Mending",
                Packages.row(2, "B no", "C day", "D kilos", "E done")
                        + Packages.row(3, "B AQ-1", "C =45000@1", "D =1.1000000000000001", "E ?true")
                        + Packages.row(5, "B 007", "C =45000.75@2", "D =1e-7", "E !#DIV/0!")
                        + Packages.row(6, "B ", "C =0.5@3", "D =12345678901234567", "E ~")
                        + Packages.row(7, "B n/a", "C =59@1", "D =61@1", "E =60@1")
                        + Packages.row(9, "C =1.25@3", "D =2.5@4")
                        + Packages.row(11, "B "));
        SHEETS.put("Other rooms", Packages.row(1, "A a", "C c") + Packages.row(2, "A =1", "B x", "C =3", "D far"));
        SHEETS.put("Nothing", "");
    }

    private static final Map<String, String> TABLE = Map.of(
            "xl/worksheets/_rels/sheet2.xml.rels",
            "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship Id=\"rId1\""
                    + " Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/table\""
                    + " Target=\"../tables/table1.xml\"/></Relationships>",
            "xl/tables/table1.xml",
            "<table xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\" id=\"1\" displayName=\"Rooms\" ref=\"A1:C2\"/>");

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                // sheet; block; errors as text; serials; heading; what is read
                "; ; false; false; true; no,day,kilos,done|AQ-1,2023-03-15,1.1,true|∅,∅,∅,∅|007,2023-03-15 18:00:00,0.0000001,∅|∅,12:00:00,12345678901234568,∅|n/a,1900-02-28,1900-03-01,60|∅,∅,∅,∅|∅,30:00:00,2.5,∅ // Sheet Mending, B2:E9 is used. 2 cells hold an error: E5 #DIV/0!, E6 a formula without a stored value.",
                "mending; ; true; true; true; no,day,kilos,done|AQ-1,45000,1.1,true|∅,∅,∅,∅|007,45000.75,0.0000001,#DIV/0!|∅,0.5,12345678901234568,a formula without a stored value|n/a,59,61,60|∅,∅,∅,∅|∅,1.25,2.5,∅ // Sheet Mending, B2:E9 is used. 2 cells hold an error: E5 #DIV/0!, E6 a formula without a stored value.",
                "Mending; $C$3:d6; false; false; false; column_1,column_2|2023-03-15,1.1|∅,∅|2023-03-15 18:00:00,0.0000001|12:00:00,12345678901234568 // Sheet Mending, C3:D6 is used.",
                "Other rooms; ; false; false; true; a,column_2,c,column_4|1,x,3,far // Sheet Other rooms, A1:D2 is used.",
                "; rooms; false; false; true; a,column_2,c|1,x,3 // Sheet Other rooms, A1:C2 is used.",
                "Nothing; ; false; false; true; There is no row to read in w.xlsx. Name another file, sheet or block.",
                "Mendin; ; false; false; true; There is no sheet Mendin in w.xlsx. Nearest: Mending.",
                "; Roms; false; false; true; Roms is no block of cells, and no table of that name is in w.xlsx. Nearest: Rooms."
            })
    void workbooks(String sheet, String block, boolean errors, boolean serials, boolean heading, String read)
            throws Exception {
        Path file = file("w.xlsx", Packages.workbook(SHEETS, TABLE));
        Form form = new Form.Workbook(
                sheet == null ? "" : sheet.strip(), block == null ? "" : block.strip(), errors, serials);
        assertThat(read(file, Optional.of(form), heading)).isEqualTo(read);
    }

    @Test
    void aWorkbookIsKnownByItsBytesAndItsRowsMustFit() throws Exception {
        String rows = Packages.row(1, "A a", "B b");
        for (int i = 2; i < 600; i++) {
            rows += Packages.row(i, "A =" + i);
        }
        Path file =
                file("w.csv", Packages.workbook(Map.of("S", rows + Packages.row(600, "A =600", "D beyond")), Map.of()));
        assertThat(read(file, Optional.empty(), true))
                .startsWith("a,b|2,∅|3,∅|")
                .endsWith("|599,∅ ▲ 600 it has a value right of the last column, in D600 // Sheet S, A1:B600 is used.");
    }

    /// Names that lead to the list of rows, and behind an arrow the column whose list gives rows.
    private static Form.Json json(String rows) {
        String[] parts = rows.split(">", 2);
        return new Form.Json(parts[0], parts.length > 1 ? parts[1] : "");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                "[{\"a\":1,\"b\":{\"c\":\"x\",\"d\":null}},{\"b\":{\"c\":\"\"},\"e\":[1,{\"f\":2}],\"a\":1.50}]; ; a,b_c,b_d,e|1,x,∅,∅|1.50,,∅,[1,{\"f\":2}]",
                "{\"a\":1}@{\"a\":true,\"b\":1e400}@; ; a,b|1,∅|true,1e400",
                "{\"n\":0,\"report\":{\"x\":[],\"visits\":[{\"a\":1},{\"a\":2}],\"z\":1}}; report.visits; a|1|2",
                "[1,\"x\",null]; ; value|1|x|∅",
                "{\"a\":1}; ; a|1",
                "[{\"a\":1,@\"a\":2}]; ; Two values of one row would stand in a. Give one of them another name in the file.",
                "[{\"a\":{\"b\":1},\"a_b\":2}]; ; Two values of one row would stand in a_b. Give one of them another name in the file.",
                "[{\"no\":1,\"parts\":[{\"p\":\"AQ\",\"n\":2.50},{\"p\":\"BQ\"}],\"at\":\"x\"},{\"no\":2,\"parts\":[]},{\"no\":3}]; >parts; no,at,parts_p,parts_n|1,x,AQ,2.50|1,x,BQ,∅|2,∅,∅,∅|3,∅,∅,∅",
                "{\"r\":[{\"no\":1,\"tags\":[\"a\",null,[2.50,{\"x\":1e400}]]},{\"no\":2,\"tags\":\"b\"}]}; r>tags; no,tags|1,a|1,∅|1,[2.50,{\"x\":1e400}]|2,b",
                "[{\"parts_p\":1,\"parts\":[{\"p\":2}]}]; >parts; Two values of one row would stand in parts_p. Give one of them another name in the file.",
                "[]; ; There is no row to read in j.json. Name another file, sheet or block.",
                "{\"report\":{\"visit\":[]}}; report.visits; There is no visits of report.visits in the file. Nearest: visit.",
                "{\"report\":[1]}; report.visits; There is no object in which to find visits of report.visits. Look at its names.",
                "[{\"a\":1},@{\"a\":; ; j.json is no JSON from line 2, column 6 on: it ends in the middle of a value. Ask for the file again: it is cut off.",
                "[{\"a\":1},@nonsense]; ; j.json is no JSON from line 2, column 10 on: Unrecognized token 'nonsense': was expecting (JSON String, Number, Array, Object or token 'null', 'true' or 'false'). Mend it there, or read it as another kind of file."
            })
    void json(String text, String rows, String read) throws Exception {
        Path file = file("j.json", text.replace('@', '\n'));
        assertThat(read(file, Optional.of(json(rows == null ? "" : rows.strip())), true))
                .isEqualTo(read);
        assertThat(SourceKind.form(file)).isEqualTo(json(""));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                "no  room      h@1   Alder Quay2@22  Thorn😀ere  13@333@; 1 5 15; true; no,room,h|1,Alder Quay,2|22,Thorn😀ere,13|333,∅,∅",
                "page 1@@ line two; 1; false; column_1|page 1|∅| line two",
                "ab; 1 2 3; false; column_1,column_2,column_3|a,b,∅"
            })
    void places(String text, String places, boolean heading, String read) throws Exception {
        List<Integer> starts = java.util.Arrays.stream(places.strip().split(" "))
                .map(Integer::valueOf)
                .toList();
        assertThat(read(file("p.txt", text.replace('@', '\n')), Optional.of(new Form.Places(starts)), heading))
                .isEqualTo(read);
    }

    /// Pages of a print: two columns say where a line stood; what is on nearly every page can go, and the last line of
    /// the first head holds the names.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                "Store  page 1@no n@a  1@b  2@^Store  page 2@no n@c  3@; 1 4; KEEP_HEADS; false;"
                        + " page,line,column_3,column_4|1,1,Sto,re  page 1|1,2,no,n|1,3,a,1|1,4,b,2|2,1,Sto,re  page 2|2,2,no,n|2,3,c,3 // On nearly every one of 2 pages 2 lines at the head and 0 at the foot stand",
                "Store  page 1@no n@a  1@b  2@^Store  page 2@no n@c  3@; 1 4; LEAVE_OUT_HEADS; true;"
                        + " page,line,no,n|1,3,a,1|1,4,b,2|2,3,c,3 // 4 lines that stand at the head or the foot of nearly every one of 2 pages were left out.",
                "a  1@  - 1 -@^b  2@c  3@  - 2 -@@^d  4@  - 3 -@; 1 4; LEAVE_OUT_HEADS; false;"
                        + " page,line,column_3,column_4|1,1,a,1|2,1,b,2|2,2,c,3|2,4,∅,∅|3,1,d,4 // 3 lines that stand at the head or the foot of nearly every one of 3 pages were left out.",
                "a  1@b  2@; 1 4; LEAVE_OUT_HEADS; false; page,line,column_3,column_4|1,1,a,1|1,2,b,2",
                "one page@two@; 1; KEEP_HEADS; false; page,line,column_3|1,1,one page|1,2,two"
            })
    void pages(String text, String places, Form.Places.Pages pages, boolean heading, String read) throws Exception {
        List<Integer> starts = java.util.Arrays.stream(places.strip().split(" "))
                .map(Integer::valueOf)
                .toList();
        Path file = file("p.txt", text.replace('@', '\n').replace('^', '\f'));
        assertThat(read(file, Optional.of(new Form.Places(starts, pages)), heading))
                .startsWith(read.strip());
    }

    /// Where columns begin in lines of text, as a file is read that no page describes.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                "AQ-1  Alder Quay   lamp     12.50@AQ-2  Thornmere    toaster   7.00@AQ-3  Upper Sallow radio    31.25; 1 7 20 29",
                "no  room@1   Alder Quay@22  Thornmere; 1 5",
                "  1  a@ 12  b@123  c; 1 6",
                "a,b c@1,2 3@4,5 6@7,8 9; delimited",
                "a b@c d@e f; 1",
                "a b@c d@e f@a b@c d@e f@a b@c d@e f@a b@c d@e f; 1",
                "2026-02-01 10:00@2026-02-02 11:30@2026-02-03 09:15@2026-02-04 10:00; 1",
                "One sentence of some length stands here,@and another one below it, shorter@than the first, with a third one.; 1",
                "Thorn😀ere  1@Alder Quay 2@Sallow     3; 1 12",
                "a  b@c  d; 1",
            })
    void placesAreProposedFromBlanks(String text, String places) throws Exception {
        Path file = file("p.txt", text.replace('@', '\n') + "\n");
        Optional<Form> form = DelimitedShape.detect(file, "p.txt", List.of()).form();
        String found = form.filter(Form.Places.class::isInstance)
                .map(f ->
                        ((Form.Places) f).starts().stream().map(String::valueOf).collect(Collectors.joining(" ")))
                .orElse("");
        assertThat(found)
                .isEqualTo(places.strip().equals("delimited") || places.strip().equals("1") ? "" : places.strip());
    }

    @Test
    void parquetAndPackedTextAreKnownByTheirBytes() throws Exception {
        Path parquet = root.resolve("rows.data");
        try (DuckSession session = DuckSession.open(List.of(parquet), Optional.empty())) {
            session.run("COPY (SELECT 1.50::DECIMAL(5,2) AS a, DATE '2026-03-01' AS \"b c\", NULL::VARCHAR AS d) TO "
                    + DuckSession.text(parquet.toString()) + " (FORMAT PARQUET)");
        }
        assertThat(read(parquet, Optional.empty(), true)).isEqualTo("a,b c,d|1.50,2026-03-01,∅");
        byte[] whole = Files.readAllBytes(parquet);
        assertThat(read(file("cut.parquet", java.util.Arrays.copyOf(whole, whole.length / 2)), Optional.empty(), true))
                .startsWith("cut.parquet is no whole Parquet file");
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream out = new GZIPOutputStream(packed)) {
            out.write("a,b\n1,x\n".getBytes(StandardCharsets.UTF_8));
        }
        assertThat(read(file("a.csv.gz", packed.toByteArray()), Optional.empty(), true))
                .isEqualTo("a,b|1,x");
        assertThat(read(
                        file("cut.csv.gz", java.util.Arrays.copyOf(packed.toByteArray(), packed.size() - 12)),
                        Optional.empty(),
                        true))
                .isEqualTo("cut.csv.gz is compressed (gzip), and cut off or broken. Ask for it again.");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '~',
            value = {
                "sqlite; ; ; There are 2 tables in db.file, and none of them is named. Write `table:` and one of Odd \"name, visits.",
                "sqlite; VISITS; ; no,cost,at,b|1,1.5,2026-03-01,0aff|9007199254740993,0.0000001,,∅|∅,∅,∅,∅",
                "sqlite; odd \"name; ; x|y",
                "sqlite; visit; ; There is no table visit in db.file. Nearest: visits.",
                "sqlite; ; SELECT count(*) AS n, max(at) FROM visits; n,max(at)|3,2026-03-01",
                "sqlite; ; DELETE FROM visits; The query cannot be run in db.file: ",
                // Values stand beside the query, in the place of their names, and are no part of its text.
                "sqlite; ; SELECT no FROM visits WHERE no > {=least:integer:1} AND at <> {=at:text:it%27s+%7D}; no|9007199254740993",
                "sqlite; ; SELECT no FROM visits WHERE at = {=at:date:2026-03-01}; no|1",
                "duckdb; ; SELECT no FROM visits WHERE cost < {=cost:decimal:1.5} OR \"at\" = {=at:date:2026-03-01} ORDER BY no DESC; no|2|1",
                "duckdb; ; SELECT no, '{odd}' AS o FROM visits WHERE no = 1; no,o|1,{odd}",
                "sqlite; ; SELECT '{=at:text:x}' AS v; The query has 0 places for 1 values ({at}). ",
                "duckdb; ; ; no,cost,at,b|1,1.50,2026-03-01,0aff|2,-0.10,∅,∅",
                "duckdb; ; SELECT no * 2 AS n FROM visits ORDER BY n DESC; n|4|2",
                "duckdb; ; SELECT * FROM read_text('/etc/hostname'); The query cannot be run in db.file: "
            })
    void databasesThatAreFiles(String engine, String table, String query, String read) throws Exception {
        Path file = root.resolve("db.file");
        boolean sqlite = engine.equals("sqlite");
        try (var connection = java.sql.DriverManager.getConnection("jdbc:" + engine + ":" + file);
                var statement = connection.createStatement()) {
            if (sqlite) {
                statement.execute("CREATE TABLE visits (no INTEGER, cost REAL, at TEXT, b BLOB)");
                statement.execute("INSERT INTO visits VALUES (1, 1.5, '2026-03-01', x'0aff'),"
                        + " (9007199254740993, 1e-7, '', NULL), (NULL, NULL, NULL, NULL)");
                statement.execute("CREATE TABLE \"Odd \"\"name\" (x)");
                statement.execute("INSERT INTO \"Odd \"\"name\" VALUES ('y')");
            } else {
                statement.execute(
                        "CREATE TABLE visits AS SELECT 1 AS no, 1.50::DECIMAL(5,2) AS cost, DATE '2026-03-01' AS at,"
                                + " 'x'::BLOB AS b");
                statement.execute("UPDATE visits SET b = '\\x0A\\xFF'::BLOB");
                statement.execute("INSERT INTO visits VALUES (2, -0.1, NULL, NULL)");
            }
        }
        Form form = new Form.Database(engine, table == null ? "" : table.strip(), query == null ? "" : query.strip());
        byte[] before = Files.readAllBytes(file);
        assertThat(read(file, Optional.of(form), true)).startsWith(read);
        assertThat(Files.readAllBytes(file)).isEqualTo(before);
        assertThat(SourceKind.form(file)).isEqualTo(new Form.Database(engine, "", ""));
    }

    /// What a name holds is no setting: behind `?` SQLite would take it for one, and load code for a query that asks.
    @ParameterizedTest
    @CsvSource({
        "sqlite, x.db?enable_load_extension=true",
        "duckdb, x.db;allow_unsigned_extensions=true",
        "sqlite, a#b.db",
        "sqlite, a%3Fb.db"
    })
    void theNameOfAFileIsNoSettingOfIt(String engine, String name) throws Exception {
        Path plain = root.resolve("x.db");
        try (var connection = java.sql.DriverManager.getConnection("jdbc:" + engine + ":" + plain);
                var statement = connection.createStatement()) {
            statement.execute("CREATE TABLE t (a INTEGER)");
        }
        Path file = Files.copy(plain, root.resolve(name));
        assertThat(read(file, Optional.of(new Form.Database(engine, "", "SELECT load_extension('x')")), true))
                .startsWith(name + " is not opened as a database: there is one of the signs ? ; # % in its path.");
        assertThat(read(plain, Optional.of(new Form.Database(engine, "", "SELECT load_extension('x')")), true))
                .startsWith("The query cannot be run in x.db: ");
    }

    @Test
    void signsThatAreWrittenByTheirNumbersAreRead() throws Exception {
        Path file = file(
                "w.xlsx",
                Packages.workbook(
                        Map.of("S", Packages.row(1, "A a_x000D_") + Packages.row(2, "A _x005F_x0041__x2028_ _xZZ_")),
                        Map.of()));
        assertThat(read(file, Optional.empty(), true)).startsWith("a\r|_x0041_\u2028 _xZZ_ //");
    }

    /// Whether a blank row at the top is written into the file or left out of it, the first that is used is the
    /// heading.
    @Test
    void blankRowsAtTheTopOfABlockAreNoRows() throws Exception {
        for (String blank : List.of("", "<row r=\"3\"/>", "<row r=\"3\"><c r=\"A3\" s=\"1\"/></row>")) {
            Path file = file(
                    "b" + blank.length() + ".xlsx",
                    Packages.workbook(
                            Map.of("S", blank + Packages.row(4, "A a", "B b") + Packages.row(6, "A 1")), Map.of()));
            assertThat(read(file, Optional.of(new Form.Workbook("", "A3:B9", false, false)), true))
                    .isEqualTo("a,b|∅,∅|1,∅ // Sheet S, A4:B6 is used.");
        }
    }

    @Test
    void aTableIsNoWiderThanTheWidestSheet() throws Exception {
        String wide = java.util.stream.IntStream.range(0, 16_385)
                .mapToObj(i -> "\"c" + i + "\":1")
                .collect(Collectors.joining(","));
        assertThat(read(file("wide.json", "[{" + wide + "}]"), Optional.empty(), true))
                .startsWith("wide.json has more than 16,384 columns");
        assertThat(read(file("a[1].parquet", "PAR1...."), Optional.empty(), true))
                .startsWith("a[1].parquet cannot be read:");
    }

    /// Looked at once, unless it changed.
    @Test
    void namesAreThoseOfTheFileAsItIs() throws Exception {
        Path file = file("j.json", "[{\"a\":1}]");
        assertThat(read(file, Optional.empty(), true)).isEqualTo("a|1");
        assertThat(read(file, Optional.of(json("x")), true)).startsWith("There is no object");
        file("j.json", "[{\"b\":1,\"c\":2}]");
        assertThat(read(file, Optional.empty(), true)).isEqualTo("b,c|1,2");
    }

    @Test
    void whatIsNoWorkbookIsNamed() throws Exception {
        byte[] whole = Packages.workbook(SHEETS, Map.of());
        Map<String, byte[]> files = Map.of(
                "zip", Packages.workbook(Map.of(), Map.of("xl/workbook.xml", "")),
                "cut", java.util.Arrays.copyOf(whole, whole.length / 2),
                "old", new byte[] {(byte) 0xD0, (byte) 0xCF, 0x11, (byte) 0xE0, 0, 0, 0, 0},
                "bomb", Packages.workbook(Map.of("S", " ".repeat(260 << 20)), Map.of()));
        Map<String, String> said = files.entrySet().stream().collect(Collectors.toMap(Map.Entry::getKey, e -> {
            try {
                return read(file(e.getKey() + ".xlsx", e.getValue()), Optional.empty(), true);
            } catch (Exception wrong) {
                return wrong.toString();
            }
        }));
        assertThat(said.get("cut")).startsWith("cut.xlsx is no whole workbook");
        assertThat(said.get("old")).startsWith("old.xlsx is an old or an encrypted workbook.");
        assertThat(said.get("bomb")).startsWith("bomb.xlsx would unpack to 260 MB");
        assertThat(said.get("zip")).startsWith("zip.xlsx is no whole workbook");
    }
}
