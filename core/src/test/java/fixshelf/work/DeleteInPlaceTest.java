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
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
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

    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb"})
    void rowsWithoutAKeyGoByTheirOwnAddressOrNotAtAll(String language) throws Exception {
        table(language, "");
        server.run(
                "INSERT INTO noted VALUES (1, 'a', 1.50, '2026-03-01 10:00:00', 0.1), (1, 'a', 1.50, '2026-03-01 10:00:00', 0.1)");
        Shelf shelf = shelf(language, "  - drop_repeats: every column\n    keep: first\n");
        Outcome<DeleteInPlace> looked =
                DeleteInPlace.look(shelf, shelf.job("once").orElseThrow());
        if (language.equals("mariadb")) {
            assertThat(looked.problems()).singleElement().satisfies(p -> assertThat(p.what())
                    .contains("no primary key"));
            return;
        }
        assertThat(looked.get().gone()).isEqualTo(2);
        assertThat(looked.get().delete(looked.get().sign()).get()).isEqualTo(2);
        assertThat(rows()).isEqualTo("1a 2 3a 4null 5b");
    }
}
