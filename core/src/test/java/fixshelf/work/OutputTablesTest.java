package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.TestServer;
import fixshelf.fetch.Consent;
import fixshelf.fetch.Secrets;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/// Rows of a job in a table of a real database: whole or not at all, with every value as it is.
class OutputTablesTest {
    private static final String QUOTE = "\"";

    @TempDir
    Path folder;

    /// A database, and how an output names it.
    private record Database(String engine, String jdbc, String fields) {
        static Database of(String engine, Path folder) throws Exception {
            if (engine.equals("sqlite") || engine.equals("duckdb")) {
                Files.createDirectories(folder.resolve("out"));
                return new Database(
                        engine,
                        "jdbc:" + engine + ":" + folder.resolve("out/rooms." + engine),
                        "write: out/rooms." + engine);
            }
            TestServer server = TestServer.of(engine);
            Secrets.answer("ROOM_PASSWORD", server.password());
            Consent.keep(folder, Consent.Place.of(server.host()).toWrite());
            return new Database(
                    engine,
                    server.jdbc(),
                    "write: \"" + server.read() + "\"\n    user: " + server.user()
                            + "\n    password_from: ROOM_PASSWORD");
        }

        void run(String... statements) throws SQLException {
            try (Connection connection = DriverManager.getConnection(jdbc);
                    Statement statement = connection.createStatement()) {
                for (String each : statements) {
                    statement.execute(engine.equals("mariadb") ? each.replace(QUOTE, "`") : each);
                }
            }
        }

        /// The rows, with their columns by name; `none` where there is no such table.
        String rows(String table) throws SQLException {
            String query = "SELECT * FROM " + QUOTE + table + QUOTE + " ORDER BY 1";
            try (Connection connection = DriverManager.getConnection(jdbc);
                    Statement statement = connection.createStatement();
                    ResultSet rows =
                            statement.executeQuery(engine.equals("mariadb") ? query.replace(QUOTE, "`") : query)) {
                List<String> all = new ArrayList<>();
                while (rows.next()) {
                    List<String> cells = new ArrayList<>();
                    for (int i = 1; i <= rows.getMetaData().getColumnCount(); i++) {
                        String cell = rows.getString(i);
                        cells.add(cell == null ? "∅" : cell.replaceFirst("(:[0-9]{2})\\.0+$", "$1"));
                    }
                    all.add(String.join("|", cells));
                }
                return String.join("\n", all);
            } catch (SQLException e) {
                return "none";
            }
        }
    }

    @BeforeEach
    void write() throws Exception {
        Files.createDirectories(folder.resolve("jobs"));
        Files.writeString(folder.resolve("shelf.yaml"), "shelf: Tables\n");
        Files.writeString(
                folder.resolve("visits.csv"),
                "no,item,cost,day,at,ok,share\n" + "1,\"a,\"\"b\"\"\",12.50,2026-03-01,2026-03-01 18:00:00,true,0.1\n"
                        + "2,\"\",,,,false,\n3,été,-0.05,1999-12-31,1999-12-31 23:59:59.25,,1e-7\n");
    }

    private static final String TYPED = """
              - read_as: {no: integer, cost: "decimal(9,2)", day: date, at: timestamp, ok: boolean, share: number}
            """;

    private Outcome<JobRun.Report> run(Database database, String lines, String table, String... more) throws Exception {
        String outputs = Stream.concat(Stream.of(database.fields() + "\n    table: " + table), Stream.of(more))
                .map(f -> "  - " + f)
                .reduce("", (a, b) -> a + b + "\n");
        Files.writeString(folder.resolve("jobs/sent.yaml"), """
                format: 2
                job: sent
                lines:
                  - read: {file: visits.csv}
                """ + lines.stripTrailing() + "\noutputs:\n" + outputs);
        Shelf shelf = ShelfReader.read(folder).get();
        assertThat(shelf.problems()).isEmpty();
        return PlannedJob.plan(shelf, shelf.job("sent").orElseThrow(), Map.of())
                .then(job -> JobRun.run(job, JobRun.Watcher.NONE));
    }

    private static Problem only(Outcome<?> failed) {
        assertThat(failed.isPresent()).isFalse();
        return failed.problems().getFirst();
    }

    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb", "sqlite", "duckdb"})
    void everyValueArrivesAndATableComesWholeOrNotAtAll(String engine) throws Exception {
        Database database = Database.of(engine, folder);
        database.run("DROP TABLE IF EXISTS \"Odd sent\"");
        Outcome<JobRun.Report> first = run(database, TYPED, "Odd sent");
        assertThat(first.problems()).isEmpty();
        String flags = engine.equals("postgresql") ? "t,f" : engine.equals("duckdb") ? "true,false" : "1,0";
        String yes = flags.split(",")[0];
        String no = flags.split(",")[1];
        String small = engine.equals("duckdb") || engine.equals("sqlite") ? "1.0E-7" : "1e-07";
        String rows = database.rows("Odd sent");
        assertThat(rows.replaceAll("(:[0-9]{2}[.]?[0-9]*?)[.]?0{4,6}[|]", "$1|")
                        .replace("1.0e-07", "1e-07")
                        .replace("0.0000001", "1e-07")
                        .replace("1e-7", "1e-07")
                        .replace("1.0E-7", "1e-07"))
                .as(small)
                .isEqualTo("1|a,\"b\"|12.50|2026-03-01|2026-03-01 18:00:00|" + yes + "|0.1\n2||∅|∅|∅|" + no + "|∅\n"
                        + "3|été|-0.05|1999-12-31|1999-12-31 23:59:59.25|∅|1e-07");
        // It is there now.
        Problem again = only(run(database, TYPED, "Odd sent"));
        assertThat(again.code()).isEqualTo(Code.TARGET_EXISTS);
        assertThat(again.what()).contains("There is a table Odd sent of");
        String kept = "  - choose: [item]\n";
        // Behind what is there: the same columns in any order, fewer of them, none that is not there.
        String fewer = TYPED + "  - choose: [item, no]\n";
        assertThat(run(database, fewer, "Odd sent\n    mode: append").problems())
                .isEmpty();
        assertThat(database.rows("Odd sent").lines()).hasSize(6).anyMatch(r -> r.startsWith("1|a,\"b\"|∅|∅"));
        Problem other = only(run(database, kept + "  - rename: {item: itme}\n", "Odd sent\n    mode: append"));
        assertThat(other.what() + other.todo()).contains("no column itme", "item");
        // Another in its place, and a file beside it.
        assertThat(run(database, kept, "Odd sent\n    mode: replace", "write: out/beside.csv")
                        .problems())
                .isEmpty();
        assertThat(database.rows("Odd sent")).isEqualTo("\na,\"b\"\nété");
        assertThat(folder.resolve("out/beside.csv")).exists();
        // What stops after the rows were sent leaves everything as it was.
        Problem stopped = only(
                run(database, TYPED + "  - choose: [no]\n", "Odd sent\n    mode: replace", "write: out/beside.csv"));
        assertThat(stopped.code()).isEqualTo(Code.TARGET_EXISTS);
        assertThat(database.rows("Odd sent")).isEqualTo("\na,\"b\"\nété");
        database.run("DROP TABLE \"Odd sent\"");
        try (Stream<Path> left = Files.walk(folder)) {
            assertThat(left.map(f -> f.getFileName().toString())).noneMatch(n -> n.contains("fixshelf-part"));
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = "=>",
            value = {
                "postgresql => item varchar(3) => 1 value of item cannot be held as varchar(3): a,\"b\"",
                "mariadb => item varchar(3) => 1 value of item cannot be held as varchar(3): a,\"b\"",
                "postgresql => item text NOT NULL, needed int NOT NULL => needs a value in needed",
                "mariadb => item text, needed int NOT NULL => needs a value in needed",
                "postgresql => item integer => item is text, and in table held",
                "sqlite => item integer => item is text, and in table held",
                "duckdb => item integer => item is text, and in table held",
                "mariadb => item longtext) ENGINE=MyISAM -- => knows no transactions",
            })
    void whatAColumnCannotHoldIsCountedBefore(String engine, String columns, String what) throws Exception {
        Database database = Database.of(engine, folder);
        database.run(
                "DROP TABLE IF EXISTS held",
                "CREATE TABLE held (" + columns + "\n)".repeat(columns.endsWith("--") ? 0 : 1));
        Problem problem = only(run(database, "  - choose: [item]\n", "held\n    mode: append"));
        assertThat(problem.what()).contains(what);
        assertThat(database.rows("held")).isEmpty();
        database.run("DROP TABLE held");
    }

    @ParameterizedTest
    @CsvSource({
        "postgresql, no, smallint, 40000",
        "mariadb, no, int, 3000000000",
        "mariadb, no, 'decimal(3,1)', 100",
        "postgresql, no, 'numeric(3,1)', 99.96",
        "postgresql, at, timestamp(3), 2026-01-01 10:00:00.1234",
        "mariadb, at, datetime(2), 2026-01-01 10:00:00.125"
    })
    void numbersAreHeldToTheirColumn(String engine, String column, String type, String value) throws Exception {
        Database database = Database.of(engine, folder);
        database.run("DROP TABLE IF EXISTS held", "CREATE TABLE held (" + column + " " + type + ")");
        String ours = value.contains(":") ? "timestamp" : value.contains(".") ? "decimal(9,2)" : "integer";
        String lines = "  - choose: [" + column + "]\n  - read_as: {" + column + ": \"" + ours + "\"}\n";
        assertThat(run(database, lines, "held\n    mode: append").problems()).isEmpty();
        Files.writeString(folder.resolve("visits.csv"), column + "\n\"\"\n" + value + "\n");
        assertThat(only(run(database, lines, "held\n    mode: append")).what())
                .contains("1 value of " + column + " cannot be held as "
                        + type.replaceFirst("^int$", "int").replace(",", ", "))
                .contains(value);
        assertThat(database.rows("held").lines()).hasSize(3);
        database.run("DROP TABLE held");
    }

    @Test
    void aTableThatIsReadIsNotWritten() throws Exception {
        Database database = Database.of("postgresql", folder);
        database.run("DROP TABLE IF EXISTS own", "CREATE TABLE own (item text)", "INSERT INTO own VALUES ('kept')");
        Files.createDirectories(folder.resolve("datasets"));
        String read = database.fields().replace("write:", "read:").replace("\n    ", "\n");
        Files.writeString(
                folder.resolve("datasets/own.yaml"),
                "dataset: own\nkind: postgresql\n" + read + "\ntable: public.own\n");
        Problem problem = only(run(database, "  - choose: [item]\n", "own\n    mode: replace"));
        assertThat(problem.code()).isEqualTo(Code.TARGET_IS_SOURCE);
        assertThat(database.rows("own")).isEqualTo("kept");
        database.run("DROP TABLE own");
    }

    @Test
    void noServerIsWrittenToBeforeItsUserAllowedIt() throws Exception {
        Database database = Database.of("postgresql", folder);
        Consent.Place place = Consent.of(folder).getFirst();
        Consent.takeBack(folder, place);
        // Reading is not writing.
        Consent.keep(folder, Consent.Place.of(place.name()));
        Problem problem = only(run(database, "", "unasked"));
        assertThat(problem.code()).isEqualTo(Code.NOT_ALLOWED_TO_WRITE);
        assertThat(problem.todo()).contains("fixshelf allow --write " + place.name());
        assertThat(database.rows("unasked")).isEqualTo("none");
        Consent.takeBack(folder, place);
    }

    @Test
    void aDatabaseThatAnotherProgramChangesIsLeftAlone() throws Exception {
        Database database = Database.of("sqlite", folder);
        database.run("CREATE TABLE other (x)");
        Files.writeString(folder.resolve("out/rooms.sqlite-journal"), "");
        assertThat(only(run(database, "", "sent")).what()).contains("Another program has rooms.sqlite open");
        Files.delete(folder.resolve("out/rooms.sqlite-journal"));
        Database signs = new Database("sqlite", "", "write: \"out/a?b.sqlite\"");
        assertThat(only(run(signs, "", "sent")).what()).contains("one of the signs ? ; # %");
        assertThat(run(database, "", "sent", database.fields() + "\n    table: second")
                        .problems())
                .isEmpty();
        assertThat(database.rows("other")).isEmpty();
        assertThat(database.rows("second").lines()).hasSize(3);
        try (Stream<Path> left = Files.list(folder.resolve("out"))) {
            assertThat(left.map(f -> f.getFileName().toString())).noneMatch(n -> n.contains("fixshelf-part"));
        }
        Files.writeString(folder.resolve("out/rooms.sqlite"), "no database");
        assertThat(only(run(database, "", "third")).what()).contains("cannot be written");
        assertThat(folder.resolve("out/rooms.sqlite")).hasContent("no database");
    }
}
