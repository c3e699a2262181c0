package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Engines;
import fixshelf.engine.TestServer;
import fixshelf.fetch.Consent;
import fixshelf.fetch.Secrets;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/// Rows that a job leaves out are deleted where they are: only those that were shown, in one transaction, or none.
class DeleteInPlaceTest {
    @TempDir
    Path folder;

    private TestServer server;

    private Shelf shelf(String language, String lines) throws Exception {
        server = TestServer.of(language);
        Secrets.answer("ROOM_PASSWORD", server.password());
        Consent.Place place = Consent.Place.of(server.host());
        Consent.keep(folder, place);
        Consent.keep(folder, place.toWrite());
        Files.createDirectories(folder.resolve("datasets"));
        Files.createDirectories(folder.resolve("jobs"));
        Files.writeString(
                folder.resolve("shelf.yaml"),
                "shelf: Deleted\nenvironment: dev\nenvironments:\n  dev: {table: noted}\n");
        Files.writeString(folder.resolve("datasets/noted.yaml"), """
                dataset: noted
                kind: %s
                read: "%s"
                table: "{table}"
                keep: 7 days
                user: %s
                password_from: ROOM_PASSWORD
                """.formatted(language, server.read(), server.user()));
        Files.writeString(
                folder.resolve("jobs/once.yaml"),
                "format: 2\njob: once\nlines:\n  - read: noted\n" + lines + "outputs: []\n");
        return ShelfReader.read(folder).get();
    }

    private String rows() throws Exception {
        try (Connection connection = Engines.connection(server.engine());
                Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery("SELECT id, item FROM noted ORDER BY id")) {
            List<String> all = new ArrayList<>();
            while (rows.next()) {
                all.add(rows.getString(1) + rows.getString(2));
            }
            return String.join(" ", all);
        }
    }

    private void table(String language, String key) throws Exception {
        shelf(language, "");
        server.run(
                "DROP TABLE IF EXISTS noted",
                "CREATE TABLE noted (id int " + key
                        + ", item varchar(20), cost decimal(9,2), at timestamp NULL, share double precision)",
                "INSERT INTO noted VALUES (1, 'a', 1.50, '2026-03-01 10:00:00', 0.1), (2, '', NULL, NULL, 1e20),"
                        + " (3, 'a', 1.50, NULL, NULL), (4, NULL, 2, NULL, NULL), (5, 'b', 0, NULL, NULL)");
    }

    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb"})
    void whatWasShownGoesAndNothingElse(String language) throws Exception {
        table(language, "PRIMARY KEY");
        Shelf shelf = shelf(language, "  - drop_repeats: [item]\n    keep: first\n  - leave_out_rows: item IS NULL\n");
        DeleteInPlace looked =
                DeleteInPlace.look(shelf, shelf.job("once").orElseThrow()).get();
        assertThat(List.of(looked.before(), looked.stay(), looked.gone())).containsExactly(5L, 3L, 2L);
        assertThat(looked.first()).extracting(r -> r.getFirst()).containsExactly("3", "4");
        assertThat(looked.told().statement()).startsWith("DELETE FROM ").contains("noted", "2 rows");
        assertThat(rows()).as("looked at only").isEqualTo("1a 2 3a 4null 5b");
        // Another sign than what was shown.
        assertThat(looked.delete("0123456789ab").problems()).singleElement().satisfies(p -> assertThat(p.code())
                .isEqualTo(Code.SOURCE_CHANGED));
        // The table changes behind what was shown: the same number of rows, another row.
        server.run("UPDATE noted SET item = 'c' WHERE id = 5");
        Outcome<Long> changed = looked.delete(looked.sign());
        assertThat(changed.problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("not the one that was looked at"));
        assertThat(rows()).isEqualTo("1a 2 3a 4null 5c");
        DeleteInPlace again =
                DeleteInPlace.look(shelf, shelf.job("once").orElseThrow()).get();
        assertThat(again.sign()).isNotEqualTo(looked.sign());
        assertThat(again.delete(again.sign()).get()).isEqualTo(2);
        assertThat(rows()).isEqualTo("1a 2 5c");
        server.run("DROP TABLE noted");
    }

    /// The table that the job reads, and no other that holds the same, whatever is called so elsewhere.
    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb"})
    void rowsGoFromTheTableThatIsRead(String language) throws Exception {
        table(language, "PRIMARY KEY");
        server.run(
                "DROP TABLE IF EXISTS other",
                "CREATE TABLE other (id int PRIMARY KEY, item varchar(20), cost decimal(9,2), at timestamp NULL, share double precision)",
                "INSERT INTO other SELECT * FROM noted");
        Shelf shelf = shelf(language, "  - keep_rows: item = 'a'\n");
        Files.writeString(
                folder.resolve("jobs/once.yaml"),
                Files.readString(folder.resolve("jobs/once.yaml"))
                        .replace("job: once\n", "job: once\nparameters:\n  table: other\n"));
        shelf = ShelfReader.read(folder).get();
        assertThat(shelf.problems()).isEmpty();
        DeleteInPlace looked =
                DeleteInPlace.look(shelf, shelf.job("once").orElseThrow()).get();
        assertThat(looked.told().statement()).contains("other");
        assertThat(looked.delete(looked.sign()).get()).isEqualTo(3);
        assertThat(rows()).isEqualTo("1a 2 3a 4null 5b");
        server.run("DROP TABLE other", "DROP TABLE noted");
    }

    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb"})
    void whatWouldHappenBesideIsNamedAndARefusalTakesAllBack(String language) throws Exception {
        table(language, "PRIMARY KEY");
        server.run(
                "DROP TABLE IF EXISTS held",
                "CREATE TABLE held (x int, FOREIGN KEY (x) REFERENCES noted (id))",
                "INSERT INTO held VALUES (5)");
        Shelf shelf = shelf(language, "  - keep_rows: item = 'a'\n");
        DeleteInPlace looked =
                DeleteInPlace.look(shelf, shelf.job("once").orElseThrow()).get();
        assertThat(looked.told().named()).anyMatch(n -> n.contains("held refers to it"));
        assertThat(looked.delete(looked.sign()).isPresent()).isFalse();
        assertThat(rows()).isEqualTo("1a 2 3a 4null 5b");
        server.run("DROP TABLE held", "DROP TABLE noted");
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = "=>",
            value = {
                "  - set: [item] & to: upper(it) => This line changes cells",
                "  - keep_rows: id <> '1' & # & - set: [id] & to: CASE WHEN it = '3' THEN '1' ELSE it END => This line changes cells",
                "  - choose: [id] => changes or leaves out columns",
                "  - group: [item] & measures: {n: count_rows()} => merges them"
            })
    void linesThatDoMoreAreRefused(String lines, String what) throws Exception {
        table("postgresql", "");
        Shelf shelf = shelf(
                "postgresql",
                "  - "
                        + lines.strip()
                                .replaceFirst("^- ", "")
                                .replace(" & # & ", "\n  ")
                                .replace(" & ", "\n    ") + "\n");
        assertThat(DeleteInPlace.look(shelf, shelf.job("once").orElseThrow()).problems())
                .isNotEmpty()
                .first()
                .satisfies(p -> assertThat(p.what()).contains(what));
    }

    /// Rows that are the same in everything: some of them go, by their own address, or all do and some come back.
    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb"})
    void rowsWithoutAKeyGo(String language) throws Exception {
        table(language, "");
        server.run(
                "INSERT INTO noted VALUES (1, 'a', 1.50, '2026-03-01 10:00:00', 0.1), (1, 'a', 1.50, '2026-03-01 10:00:00', 0.1),"
                        + " (6, 'd ', 1, NULL, 0.30000000000000004), (6, 'd', 1, NULL, 0.3), (6, 'D', 1, NULL, 0.3),"
                        + " (6, 'D', 1, NULL, 0.3)");
        Shelf shelf =
                shelf(language, "  - drop_repeats: every column\n    keep: first\n  - leave_out_rows: id = '5'\n");
        DeleteInPlace looked =
                DeleteInPlace.look(shelf, shelf.job("once").orElseThrow()).get();
        assertThat(looked.gone()).isEqualTo(4);
        assertThat(looked.delete(looked.sign()).get()).isEqualTo(4);
        assertThat(rows().split(" "))
                .as("in any order where they have the same key")
                .containsExactlyInAnyOrder("1a", "2", "3a", "4null", "6d", "", "6d", "6D");
        server.run("DROP TABLE noted");
    }

    /// What is put back is refused: all that was deleted before it is there again.
    @Test
    void withoutAKeyARefusalTakesAllBackToo() throws Exception {
        table("mariadb", "");
        server.run(
                "INSERT INTO noted (id, item) VALUES (7, 'd'), (7, 'd')",
                "CREATE TRIGGER no_more BEFORE INSERT ON noted FOR EACH ROW SIGNAL SQLSTATE '45000'"
                        + " SET MESSAGE_TEXT = 'no more rows'");
        Shelf shelf = shelf("mariadb", "  - drop_repeats: every column\n    keep: first\n");
        DeleteInPlace looked =
                DeleteInPlace.look(shelf, shelf.job("once").orElseThrow()).get();
        assertThat(looked.told().named()).containsExactly("the trigger no_more");
        assertThat(looked.delete(looked.sign()).problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("no more rows"));
        assertThat(rows()).isEqualTo("1a 2 3a 4null 5b 7d 7d");
        server.run("DROP TABLE noted");
    }

    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb"})
    void viewsAreNamedAndNoneIsDeletedFrom(String language) throws Exception {
        table(language, "PRIMARY KEY");
        server.run("DROP VIEW IF EXISTS looked", "CREATE VIEW looked AS SELECT * FROM noted");
        Shelf shelf = shelf(language, "  - keep_rows: item = 'a'\n");
        assertThat(DeleteInPlace.look(shelf, shelf.job("once").orElseThrow())
                        .get()
                        .told()
                        .named())
                .containsExactly("the view looked looks at it");
        Files.writeString(
                folder.resolve("datasets/noted.yaml"),
                Files.readString(folder.resolve("datasets/noted.yaml")).replace("{table}", "looked"));
        shelf = ShelfReader.read(folder).get();
        assertThat(DeleteInPlace.look(shelf, shelf.job("once").orElseThrow()).problems())
                .singleElement()
                .satisfies(p -> assertThat(p.what()).contains("It is a view"));
        server.run("DROP VIEW looked", "DROP TABLE noted");
    }

    /// Databases that are files: by the address of a row, by the key where there is none, and what
    /// refers to a row holds.
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "sqlite | CREATE TABLE noted (id INTEGER PRIMARY KEY, item TEXT, n NUMERIC)         | leave_out_rows: item = 'a' | 1 3 | rowid",
                "sqlite | CREATE TABLE noted (id TEXT, item TEXT, n NUMERIC)                        | leave_out_rows: item = 'a' | 1 3 | rowid",
                "sqlite | CREATE TABLE noted (id INT, item TEXT, n NUMERIC, PRIMARY KEY (id)) WITHOUT ROWID | leave_out_rows: item = 'a' | 1 3 | \"id\"",
                "sqlite | CREATE TABLE noted (id INT, item TEXT, rowid NUMERIC)                     | leave_out_rows: item = 'a' | 1 3 | _rowid_",
                "sqlite | CREATE TABLE noted (id INT, item TEXT, n NUMERIC)                         | drop_repeats: [item]#    keep: last | 1 | rowid",
                "duckdb | CREATE TABLE noted (id INT, item TEXT, n DECIMAL(9,2))                    | leave_out_rows: item = 'a' | 1 3 | rowid",
                "duckdb | CREATE TABLE noted (id INT, item TEXT, n DECIMAL(9,2))                    | drop_repeats: [item]#    keep: last | 1 | rowid",
            })
    void rowsOfAFileGo(String engine, String create, String line, String gone, String by) throws Exception {
        Path file = folder.resolve("rooms." + engine);
        String url = "jdbc:" + engine + ":" + file;
        try (Connection connection = DriverManager.getConnection(url);
                Statement statement = connection.createStatement()) {
            statement.execute(create);
            statement.execute(
                    "INSERT INTO noted VALUES (1, 'a', 1.5), (2, NULL, NULL), (3, 'a', 2), (4, 'b', 12.25), (5, '', 0)");
            statement.execute("CREATE VIEW seen AS SELECT * FROM noted");
        }
        Files.createDirectories(folder.resolve("datasets"));
        Files.createDirectories(folder.resolve("jobs"));
        Files.writeString(folder.resolve("shelf.yaml"), "shelf: Deleted\n");
        Files.writeString(
                folder.resolve("datasets/noted.yaml"),
                "dataset: noted\nkind: " + engine + "\nread: rooms." + engine + "\ntable: noted\n");
        Files.writeString(
                folder.resolve("jobs/once.yaml"),
                "format: 2\njob: once\nlines:\n  - read: noted\n  - "
                        + line.strip().replace("#", "\n") + "\noutputs: []\n");
        Shelf shelf = ShelfReader.read(folder).get();
        DeleteInPlace looked =
                DeleteInPlace.look(shelf, shelf.job("once").orElseThrow()).get();
        assertThat(looked.told().statement()).startsWith("DELETE FROM \"noted\" WHERE " + by + " IN ");
        assertThat(looked.told().named()).containsExactly("the view seen looks at it");
        assertThat(ids(url)).isEqualTo("1 2 3 4 5");
        long count = gone.strip().split(" ").length;
        assertThat(looked.delete(looked.sign()).get()).isEqualTo(count);
        assertThat(ids(url)).isEqualTo("1 2 3 4 5".replaceAll("[" + gone.strip().replace(" ", "") + "] ", ""));
        assertThat(looked.delete(looked.sign()).problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("not the one that was looked at"));
    }

    private static String ids(String url) throws Exception {
        try (Connection connection = DriverManager.getConnection(url);
                Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery("SELECT id FROM noted ORDER BY id")) {
            List<String> all = new ArrayList<>();
            while (rows.next()) {
                all.add(rows.getString(1));
            }
            return String.join(" ", all);
        }
    }
}
