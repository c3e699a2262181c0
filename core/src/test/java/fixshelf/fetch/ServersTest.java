package fixshelf.fetch;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.TestServer;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.source.FileParts;
import fixshelf.source.SourceFile;
import fixshelf.type.Type;
import fixshelf.work.Datasets;
import fixshelf.work.JobRun;
import fixshelf.work.PlannedJob;
import fixshelf.work.ReadRows;
import fixshelf.work.ShelfProblems;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/// Tables of servers, on real ones: all values as texts, missing told from empty, no connection that is not allowed.
class ServersTest {
    @TempDir
    Path folder;

    @BeforeEach
    void write() throws Exception {
        Files.writeString(folder.resolve("shelf.yaml"), "shelf: Servers\n");
        Files.createDirectories(folder.resolve("datasets"));
        Copies.forget();
    }

    @AfterEach
    void takeBack() throws Exception {
        for (Consent.Place place : Consent.of(folder)) {
            Consent.takeBack(folder, place);
        }
    }

    private Shelf shelf(TestServer server, String... fields) throws Exception {
        Secrets.answer("ROOM_PASSWORD", server.password());
        Consent.keep(folder, Consent.Place.of(server.host()));
        return page(
                "kind: " + server.language(),
                "read: \"" + server.read() + "\"",
                "user: " + server.user(),
                "password_from: ROOM_PASSWORD",
                String.join("\n", fields));
    }

    private Shelf page(String... fields) throws Exception {
        Files.writeString(
                folder.resolve("datasets/visits.yaml"), "dataset: visits\n" + String.join("\n", fields) + "\n");
        return ShelfReader.read(folder).get();
    }

    private static Outcome<SourceFile> open(Shelf shelf) {
        assertThat(shelf.problems()).isEmpty();
        return Datasets.open(shelf, "visits");
    }

    /// Statements that make the table, and its rows as they are read.
    static Stream<Map.Entry<String, List<String>>> tables() {
        return Stream.of(Map.entry("postgresql", List.of("""
                        CREATE TABLE "Odd visits" (id int, item text, cost numeric(9,2), at timestamp, ok boolean, raw bytea,
                            f double precision, "d, x" date)""", """
                        INSERT INTO "Odd visits" VALUES
                            (1, 'lamp', 12.50, '2026-03-01 18:00:00', true, '\\x00ff', 0.1, '2026-03-01'),
                            (2, '', NULL, '2026-03-01 18:00:00.123456', false, NULL, 1e20, '0044-03-15 BC'),
                            (3, E'a,"b"\\nc', 0, NULL, NULL, '', 'NaN', NULL), (4, '\\N', -1, NULL, NULL, NULL, 1e-7, NULL)""", """
                        id|item|cost|at|ok|raw|f|d, x
                        1|lamp|12.50|2026-03-01 18:00:00|true|00ff|0.1|2026-03-01
                        2||∅|2026-03-01 18:00:00.123456|false|∅|100000000000000000000|0044-03-15 BC
                        3|a,"b"¶c|0.00|∅|∅||NaN|∅
                        4|\\N|-1.00|∅|∅|∅|0.0000001|∅""")), Map.entry("mariadb", List.of("""
                        CREATE TABLE `Odd visits` (id int, item text, cost decimal(9,2), at datetime(6), ok boolean, raw blob,
                            f double, `d, x` date)""", """
                        INSERT IGNORE INTO `Odd visits` VALUES
                            (1, 'lamp', 12.50, '2026-03-01 18:00:00', true, x'00ff', 0.1, '2026-03-01'),
                            (2, '', NULL, '2026-03-01 18:00:00.123456', false, NULL, 1e20, '0000-00-00'),
                            (3, 'a,"b"\\nc', 0, NULL, NULL, '', -0.0, NULL), (4, '\\\\N', -1, NULL, NULL, NULL, 1e-7, NULL)""", """
                        id|item|cost|at|ok|raw|f|d, x
                        1|lamp|12.50|2026-03-01 18:00:00|1|00ff|0.1|2026-03-01
                        2||∅|2026-03-01 18:00:00.123456|0|∅|100000000000000000000|0000-00-00
                        3|a,"b"¶c|0.00|∅|∅||0|∅
                        4|\\N|-1.00|∅|∅|∅|0.0000001|∅""")));
    }

    @ParameterizedTest
    @MethodSource("tables")
    void everyValueIsReadAsItStands(Map.Entry<String, List<String>> made) throws Exception {
        TestServer server = TestServer.of(made.getKey());
        String table = made.getKey().equals("mariadb") ? "`Odd visits`" : "\"Odd visits\"";
        server.run(
                "DROP TABLE IF EXISTS " + table,
                made.getValue().get(0),
                made.getValue().get(1));
        boolean schemas = made.getKey().equals("postgresql");
        if (schemas) {
            // Of two that are called so, one that stands in no schema of its own is meant by its name alone.
            server.run(
                    "DROP SCHEMA IF EXISTS a_room CASCADE",
                    "CREATE SCHEMA a_room",
                    "CREATE TABLE a_room.\"Odd visits\" (x int)",
                    "CREATE TABLE a_room.twice (x int)",
                    "DROP SCHEMA IF EXISTS b_room CASCADE",
                    "CREATE SCHEMA b_room",
                    "CREATE TABLE b_room.twice (y int)");
            assertThat(ReadRows.of(open(shelf(server, "table: a_room.Odd visits"))))
                    .isEqualTo("x\n");
            assertThat(ReadRows.of(open(shelf(server, "table: b_room.TWICE")))).isEqualTo("y\n");
            assertThat(open(shelf(server, "table: twice")).problems())
                    .singleElement()
                    .satisfies(
                            p -> assertThat(p.sentence())
                                    .contains(
                                            "There are 2 tables in it that are called twice. Write which: a_room.twice, b_room.twice."));
        }
        Outcome<SourceFile> source = open(shelf(server, "table: odd VISITS"));
        assertThat(ReadRows.of(source)).isEqualTo(made.getValue().get(2));
        // A copy that was made before says the same types.
        String truth = made.getKey().equals("mariadb") ? "integer" : "boolean";
        assertThat(source.get().declared())
                .isEqualTo(open(shelf(server, "table: odd VISITS")).get().declared())
                .extracting(Type::label)
                .containsExactly("integer", "text", "decimal(9,2)", "timestamp", truth, "text", "number", "date");
        // Among the tables that can be chosen by sight it stands as it is read.
        Shelf unnamed = shelf(server, "keep: 12 hours");
        ReadOptions options = unnamed.dataset("visits").orElseThrow().options();
        FileParts.Part part = Datasets.parts(unnamed, options).get().stream()
                .filter(p -> p.title().equals("table Odd visits"))
                .findFirst()
                .orElseThrow();
        assertThat(part.size()).isEqualTo("8 columns");
        assertThat(part.names()).containsExactly("id", "item", "cost", "at", "ok", "raw", "f", "d, x");
        assertThat(part.first()).extracting(List::getFirst).containsExactly("1", "2", "3", "4");
        assertThat(part.options().form())
                .contains(((ReadOptions.Form.Server) options.form().orElseThrow()).of("Odd visits"));
        if (made.getKey().equals("mariadb")) {
            // A query is in the server's own language, in which such quotes hold a text.
            assertThat(ReadRows.withoutNames(open(shelf(server, "query: 'SELECT \"x\" AS x'"))))
                    .isEqualTo("x");
        }
        // One column, whose rows may be missing: none of them is a blank line that is lost.
        Shelf one = shelf(server, "query: 'SELECT item FROM " + table + " WHERE id < 3 UNION ALL SELECT NULL;'");
        assertThat(ReadRows.withoutNames(open(one))).isEqualTo("lamp\n\n∅");
        server.run("DROP TABLE " + table);
        if (schemas) {
            server.run("DROP SCHEMA a_room CASCADE", "DROP SCHEMA b_room CASCADE");
        }
    }

    /// `{name}` in a query is a value of the shelf, or of a loader's call with its type; it stands
    /// beside the query, and nothing in it can be read as code.
    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb"})
    void aQueryTakesValues(String language) throws Exception {
        TestServer server = TestServer.of(language);
        server.run(
                "DROP TABLE IF EXISTS taken",
                "CREATE TABLE taken (id int, item varchar(40), at date, cost decimal(9,2))",
                "INSERT INTO taken VALUES (1, 'lamp', '2026-03-01', 1.50), (2, 'it''s \" ; --', '2026-03-02', 2.50),"
                        + " (3, NULL, '2026-03-03', 3.50)");
        Files.writeString(folder.resolve("shelf.yaml"), """
                shelf: Servers
                environment: here
                environments:
                  here: {item: "it's \\" ; --", least: 2}
                """);
        Shelf asked = shelf(server, "query: SELECT id, cost FROM taken WHERE item = {item} AND id >= {least}");
        assertThat(ReadRows.of(open(asked))).isEqualTo("id|cost\n2|2.50");
        assertThat(open(shelf(server, "query: SELECT id FROM taken WHERE item = '{item}'"))
                        .problems())
                .extracting(Problem::what)
                .containsExactly("The query has 0 places for 1 values ({item}).");
        Files.createDirectories(folder.resolve("fixes"));
        Files.writeString(folder.resolve("fixes/taken_since.fix.md"), """
                ---
                format: 2
                fix: taken_since
                kind: loader
                reads: read what was taken since {day} for less than {most}
                parameters:
                  day: {type: date}
                  most: {type: "decimal(9,2)"}
                ---
                # Taken since

                ```yaml
                - read:
                    kind: %s
                    file: "%s"
                    user: %s
                    password_from: ROOM_PASSWORD
                    query: SELECT id, at FROM taken WHERE at >= {day} AND cost < {most} ORDER BY id
                ```
                """.formatted(
                        server.language(), server.read(), server.user()));
        Files.writeString(
                folder.resolve("datasets/since.yaml"),
                "dataset: since\nload: taken_since\nwith: {day: 2026-03-02, most: 3}\n");
        Shelf loaded = ShelfReader.read(folder).get();
        assertThat(loaded.problems()).isEmpty();
        assertThat(ReadRows.of(Datasets.open(loaded, "since"))).isEqualTo("id|at\n2|2026-03-02");
        server.run("DROP TABLE taken");
    }

    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb"})
    void aCopyIsKeptAsLongAsItsPageSays(String language) throws Exception {
        TestServer server = TestServer.of(language);
        server.run("DROP TABLE IF EXISTS kept", "CREATE TABLE kept (x int)", "INSERT INTO kept VALUES (1)");
        Shelf kept = shelf(server, "table: kept", "keep: 2 hours");
        assertThat(ReadRows.withoutNames(open(kept))).isEqualTo("1");
        server.run("INSERT INTO kept VALUES (2)");
        Copies.forget();
        assertThat(ReadRows.withoutNames(open(kept))).isEqualTo("1");
        assertThat(open(kept).get().notes(java.util.Optional.empty()).getFirst())
                .startsWith("Table kept of ")
                .endsWith(", read just now.");
        Shelf live = shelf(server, "table: kept");
        assertThat(ReadRows.withoutNames(open(live))).isEqualTo("1\n2");
        server.run("INSERT INTO kept VALUES (3)");
        // As often as the lines of a job are looked at; a run and an opening of the shelf ask anew.
        assertThat(ReadRows.withoutNames(open(live))).isEqualTo("1\n2");
        Copies.forget();
        assertThat(ReadRows.withoutNames(open(live))).isEqualTo("1\n2\n3");
        server.run("DROP TABLE kept");
        Copies.forget();
        Outcome<SourceFile> gone = open(live);
        assertThat(gone.problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("no table kept"));
        try (Stream<Path> copies = Files.list(folder.resolve(".fixshelf/copies"))) {
            assertThat(copies.map(f -> f.getFileName().toString())).noneMatch(f -> f.endsWith(".new"));
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = "=>",
            value = {
                "table: nothing => NO_SUCH => no table nothing",
                "table: asket => NO_SUCH => asked",
                "query: SELECT no_such FROM asked => NO_SUCH => no_such",
                "query: DELETE FROM asked => NO_SUCH => ",
                "query: 'SELECT 1 AS a) AS b; DELETE FROM asked; --' => NO_SUCH => ",
                "query: 'SELECT 1; SELECT 2' => NO_SUCH => ",
                "query: 'SELECT (1' => NO_SUCH => ",
                "user: nobody_here => NO_PASSWORD => nobody_here",
            })
    void whatTheServerRefusesIsNamed(String field, Code code, String named) throws Exception {
        for (String language : List.of("postgresql", "mariadb")) {
            TestServer server = TestServer.of(language);
            server.run("DROP TABLE IF EXISTS asked", "CREATE TABLE asked (x int)", "INSERT INTO asked VALUES (1)");
            Shelf shelf = field.startsWith("user")
                    ? page(
                            "kind: " + language,
                            "read: \"" + server.read() + "\"",
                            field,
                            "password_from: ROOM_PASSWORD",
                            "table: asked")
                    : shelf(server, field);
            Consent.keep(folder, Consent.Place.of(server.host()));
            Outcome<SourceFile> source = open(shelf);
            assertThat(source.isPresent()).as(language).isFalse();
            Problem problem = source.problems().getFirst();
            assertThat(problem.code()).as(language + ": " + problem).isEqualTo(code);
            assertThat(problem.what() + problem.todo()).contains(named == null ? "" : named);
            assertThat(problem.what()).doesNotContain(server.password()).doesNotContain("\n");
            assertThat(ReadRows.withoutNames(open(shelf(server, "query: SELECT count(*) AS n FROM asked"))))
                    .isEqualTo("1");
            server.run("DROP TABLE asked");
        }
    }

    @Test
    void aPasswordThatLetsNobodyInIsAskedForAgain() throws Exception {
        for (String language : List.of("postgresql", "mariadb")) {
            TestServer server = TestServer.of(language);
            server.run("DROP TABLE IF EXISTS asked", "CREATE TABLE asked (x int)", "INSERT INTO asked VALUES (1)");
            Shelf shelf = shelf(server, "table: asked");
            Consent.keep(folder, Consent.Place.of(server.host()));
            Secrets.answer("ROOM_PASSWORD", "of another door");
            for (String said : List.of("The server does not let", "There is no password for")) {
                Problem problem = open(shelf).problems().getFirst();
                assertThat(problem.what()).contains(said).doesNotContain("of another door");
                assertThat(Secrets.askedBy(problem)).contains("ROOM_PASSWORD");
            }
            Secrets.answer("ROOM_PASSWORD", server.password());
            assertThat(ReadRows.withoutNames(open(shelf))).isEqualTo("1");
            server.run("DROP TABLE asked");
        }
    }

    /// A page can come from a stranger: what stands in its query must not do more than read, whatever the driver makes
    /// of it. Each would delete a row, or write a file, where it was put into other text as it is.
    static Stream<String> attempts() {
        return Stream.of(
                "DELETE FROM asked",
                "SELECT 1 AS y) AS x; COMMIT; DELETE FROM asked; COMMIT; SELECT * FROM (SELECT 1 AS z",
                "SELECT ';' AS y) AS x; COMMIT; DELETE FROM asked; COMMIT; SELECT * FROM (SELECT ';' AS z",
                "SELECT 1 AS y -- '\n) AS x; COMMIT; DELETE FROM asked; COMMIT; SELECT * FROM (SELECT 1 AS z -- '",
                "SELECT 1 AS y /* ' */) AS x; COMMIT; DELETE FROM asked; COMMIT; SELECT * FROM (SELECT 1 /* ' */ AS z",
                "SELECT $a$'$a$ AS y) AS x; COMMIT; DELETE FROM asked; COMMIT; SELECT * FROM (SELECT $a$'$a$ AS z",
                "SELECT E'\\'' AS y) AS x; COMMIT; DELETE FROM asked; COMMIT; SELECT * FROM (SELECT E'\\'' AS z",
                "SELECT 1 AS y); COMMIT; DELETE FROM asked; COMMIT; SELECT (2",
                "COMMIT; DELETE FROM asked; COMMIT; SELECT 1 AS y",
                "SELECT 1 AS y INTO OUTFILE '/tmp/fixshelf-attempt'",
                "SELECT 1 AS y INTO fixshelf_attempt",
                "WITH gone AS (DELETE FROM asked RETURNING x) SELECT x FROM gone");
    }

    @ParameterizedTest
    @MethodSource("attempts")
    void aQueryDoesNoMoreThanRead(String query) throws Exception {
        for (String language : List.of("postgresql", "mariadb")) {
            TestServer server = TestServer.of(language);
            server.run("DROP TABLE IF EXISTS asked", "CREATE TABLE asked (x int)", "INSERT INTO asked VALUES (1)");
            Outcome<SourceFile> source = open(shelf(server, "query: |-\n  " + query.replace("\n", "\n  ")));
            assertThat(source.isPresent()).as(language).isFalse();
            assertThat(ReadRows.withoutNames(open(shelf(server, "query: SELECT count(*) AS n FROM asked"))))
                    .as(language)
                    .isEqualTo("1");
            server.run("DROP TABLE asked");
        }
    }

    /// A text may hold what ends a statement elsewhere, and a query may end in it.
    @ParameterizedTest
    @ValueSource(
            strings = {"SELECT ';' AS y;", "SELECT 'it''s; so' AS y", "SELECT 1 AS y -- no end\n", "SELECT 2 AS y ;\n"})
    void aQueryMayHoldWhatEndsOne(String query) throws Exception {
        for (String language : List.of("postgresql", "mariadb")) {
            Outcome<SourceFile> source = open(shelf(
                    TestServer.of(language), "query: |-\n  " + query.strip().replace("\n", "\n  ")));
            assertThat(source.problems()).as(language).isEmpty();
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb"})
    void aQueryThatTakesTooLongIsEnded(String language) throws Exception {
        TestServer server = TestServer.of(language);
        String sleep = language.equals("mariadb") ? "SELECT sleep(20) AS x" : "SELECT pg_sleep(20)::text AS x";
        Outcome<SourceFile> source = open(shelf(server, "seconds: 1", "query: " + sleep));
        assertThat(source.problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("longer than 1 seconds"));
    }

    @Test
    void nothingIsReadFromAPlaceThatIsNotAllowed() throws Exception {
        try (ServerSocket listening = new ServerSocket(0)) {
            String place = "127.0.0.1:" + listening.getLocalPort();
            Shelf shelf = page("kind: postgresql", "read: postgresql://" + place + "/rooms", "table: x");
            assertThat(open(shelf).problems()).singleElement().satisfies(p -> {
                assertThat(p.code()).isEqualTo(Code.NOT_ALLOWED);
                assertThat(p.todo()).contains("fixshelf allow --read " + place);
            });
            assertThat(Datasets.asked(shelf)).containsExactly(Consent.Place.of(place));
            assertThat(Datasets.parts(
                                    shelf, shelf.dataset("visits").orElseThrow().options())
                            .problems())
                    .extracting(Problem::code)
                    .containsExactly(Code.NOT_ALLOWED);
            listening.setSoTimeout(50);
            assertThat(org.assertj.core.api.Assertions.catchThrowable(listening::accept))
                    .as("nobody connected")
                    .isInstanceOf(java.net.SocketTimeoutException.class);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "postgresql; postgresql://h/db?socketFactory=x; no address",
                "postgresql; postgresql://h:5432; no address",
                "postgresql; mariadb://h/db; no address",
                "postgresql; postgresql://u:secret@h/db; password in an address",
                "mariadb; mariadb://h/db?password=secret; password in an address",
                "jdbc; jdbc:postgresql://h/db; belongs to kind postgresql",
                "jdbc; jdbc:nowhere:x; no driver",
                "jdbc; nowhere:x; no address of a driver"
            })
    void anAddressIsOnlyNames(String kind, String address, String what) throws Exception {
        Shelf shelf = page("kind: " + kind, "read: \"" + address + "\"", "table: x");
        Consent.forNow(Consent.Place.of("jdbc:nowhere:x"));
        assertThat(open(shelf).problems())
                .singleElement()
                .satisfies(p -> assertThat(p.what()).contains(what).doesNotContain("secret"));
    }

    @Test
    void checkingAsksNobody() throws Exception {
        try (ServerSocket listening = new ServerSocket(0)) {
            String place = "127.0.0.1:" + listening.getLocalPort();
            Consent.keep(folder, Consent.Place.of(place));
            page("kind: postgresql", "read: postgresql://" + place + "/rooms", "table: x");
            Files.writeString(folder.resolve("a.csv"), "part\nAQ\n");
            Files.createDirectories(folder.resolve("jobs"));
            Files.writeString(
                    folder.resolve("jobs/brought.yaml"),
                    "format: 2\njob: brought\nlines:\n  - read: {file: a.csv}\n  - bring_in: [rate]\n    from: visits\n"
                            + "    matching: {part: part}\n");
            ShelfProblems.Found found =
                    ShelfProblems.of(ShelfReader.read(folder).get());
            assertThat(found.problems()).isEmpty();
            assertThat(found.passed()).containsExactly("brought brings in what is elsewhere");
            listening.setSoTimeout(50);
            assertThat(org.assertj.core.api.Assertions.catchThrowable(listening::accept))
                    .as("nobody connected")
                    .isInstanceOf(java.net.SocketTimeoutException.class);
        }
    }

    @Test
    void aServerThatIsAwayIsNamed() throws Exception {
        int port;
        try (ServerSocket free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        for (String kind : List.of("postgresql", "mariadb")) {
            Consent.keep(folder, Consent.Place.of("127.0.0.1:" + port));
            Shelf shelf = page("kind: " + kind, "read: " + kind + "://127.0.0.1:" + port + "/rooms", "table: x");
            assertThat(open(shelf).problems()).singleElement().satisfies(p -> assertThat(p.what())
                    .contains("rooms at 127.0.0.1:" + port)
                    .contains("does not answer"));
        }
    }

    @Test
    void aJobReadsAServerAndATableThatIsTypedIn() throws Exception {
        TestServer server = TestServer.of("postgresql");
        server.run(
                "DROP TABLE IF EXISTS lines",
                "CREATE TABLE lines (part text, n int)",
                "INSERT INTO lines VALUES ('AQ', 2), ('ZZ', 1)");
        shelf(server, "table: lines");
        Files.writeString(folder.resolve("datasets/rates.yaml"), """
                dataset: rates
                columns: {part: text, rate: "decimal(9,2)"}
                values: [[AQ, 4.20], [BQ, ∅], ["", 3]]
                """);
        Files.createDirectories(folder.resolve("jobs"));
        Files.writeString(folder.resolve("jobs/rated.yaml"), """
                format: 2
                job: rated
                lines:
                  - read: visits
                  - bring_in: [rate]
                    from: rates
                    matching: {part: part}
                outputs:
                  - write: out/rated.csv
                """);
        Shelf shelf = ShelfReader.read(folder).get();
        assertThat(shelf.problems()).isEmpty();
        PlannedJob job = PlannedJob.plan(shelf, shelf.job("rated").orElseThrow(), Map.of())
                .get();
        assertThat(JobRun.run(job, JobRun.Watcher.NONE).problems()).isEmpty();
        assertThat(folder.resolve("out/rated.csv")).hasContent("part,n,rate\nAQ,2,4.20\nZZ,1,\n");
        server.run("DROP TABLE lines");
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = "=>",
            value = {
                "columns: [a] => needs columns and values",
                "columns: [a, A] & values: [[1, 2]] => two columns A",
                "columns: [a, b] & values: [[1]] => Row 1 has 1 value, and there are 2 columns",
                "columns: {a: integer} & values: [[1], [x]] => Row 2, a: x is no integer",
                "columns: {a: date} & values: [[2026-02-30]] => Row 1, a: 2026-02-30 is no date",
                "columns: {a: 'decimal(4,1)'} & values: [[1.25], [∅]] => Row 1, a: 1.25 is no decimal(4,1)",
                "columns: {a: colour} & values: [[x]] => no type colour",
                "columns: [a] & values: [[x]] & encoding: utf-8 => has no encoding",
            })
    void whatIsTypedWrongIsNamed(String fields, String what) throws Exception {
        Shelf shelf = page("kind: typed", fields.replace(" & ", "\n"));
        assertThat(shelf.problems().stream().map(Problem::what)).anyMatch(p -> p.contains(what));
    }
}
