package fixshelf.fetch;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.source.SourceFile;
import fixshelf.work.Datasets;
import fixshelf.work.ReadRows;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Properties;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Any other database, by a driver that its user put into the folder beside the settings: a real one, of H2.
class OwnDriverTest {
    private static final String ROWS = "NO|ITEM|DAY|SEEN|COST|SHARE|OK|RAW|LONG";

    @TempDir
    static Path folder;

    private static String address;

    @BeforeAll
    static void make() throws Exception {
        Files.writeString(folder.resolve("shelf.yaml"), "shelf: Own\nenvironment: e\nenvironments:\n  e: {least: 2}\n");
        Files.createDirectories(folder.resolve("datasets"));
        address = "jdbc:h2:" + folder.resolve("rooms");
        Consent.keep(folder, Consent.Place.of(address));
        Properties user = new Properties();
        user.setProperty("user", "keeper");
        user.setProperty("password", "s");
        try (var connection = Drivers.connect(address, user);
                var statement = connection.createStatement()) {
            statement.execute("CREATE TABLE visits (no INT, item VARCHAR(40), \"DAY\" DATE, seen TIMESTAMP(6),"
                    + " cost DECIMAL(9, 2), share DOUBLE PRECISION, ok BOOLEAN, raw VARBINARY(9), long CLOB)");
            statement.execute("INSERT INTO visits VALUES (1, 'lamp', DATE '2026-03-01', TIMESTAMP '2026-03-01"
                    + " 10:11:12.123456', 1.50, 1e-7, TRUE, X'0aff', 'told'), (2, '', NULL, NULL, NULL, 1e20, FALSE,"
                    + " X'', ''), (3, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL)");
            statement.execute("CREATE VIEW \"Odd; name\" AS SELECT no FROM visits WHERE no > 2");
        }
    }

    @AfterAll
    static void takeBack() throws Exception {
        for (Consent.Place place : Consent.of(folder)) {
            Consent.takeBack(folder, place);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = "=>",
            value = {
                "table: VISITS => " + ROWS
                        + " / 1|lamp|2026-03-01|2026-03-01 10:11:12.123456|1.50|0.0000001|true|0aff|told"
                        + " / 2||∅|∅|∅|100000000000000000000|false|| / 3|∅|∅|∅|∅|∅|∅|∅|∅",
                "table: visits => " + ROWS
                        + " / 1|lamp|2026-03-01|2026-03-01 10:11:12.123456|1.50|0.0000001|true|0aff|told"
                        + " / 2||∅|∅|∅|100000000000000000000|false|| / 3|∅|∅|∅|∅|∅|∅|∅|∅",
                "table: 'Odd; name' => NO / 3",
                "query: SELECT no, item FROM visits WHERE no >= {least} ORDER BY no DESC => NO|ITEM / 3|∅ / 2|",
                "query: SELECT no FROM visits WHERE no > 9 => NO / ",
                "table: visit => There is no table visit in it. Nearest: VISITS.",
                "table: '' => There are 2 tables in it, and none of them is named.",
                "query: SELECT nothing FROM visits => The server refuses the query: ",
                "query: DELETE FROM visits => The server refuses the query: ",
                "query: SELECT 1; DROP TABLE visits => The query is more than one statement",
            })
    void itsTablesAndQueriesAreRead(String field, String read) throws Exception {
        Secrets.answer("OWN_PASSWORD", "s");
        Outcome<SourceFile> source = open(field);
        String all = source.isPresent()
                ? ReadRows.of(source).replace("\n", " / ")
                : source.problems().stream()
                        .map(p -> p.what() + " " + p.todo())
                        .findFirst()
                        .orElseThrow();
        assertThat(source.isPresent() ? all : all.replaceFirst("^jdbc:h2:[^ ]*: ", ""))
                .startsWith(read);
        if (source.isPresent()) {
            assertThat(all.stripTrailing()).isEqualTo(read);
        }
        // Nothing was written.
        assertThat(ReadRows.withoutNames(open("query: SELECT count(*) FROM visits")))
                .isEqualTo("3");
    }

    @ParameterizedTest
    @CsvSource(
            delimiterString = "=>",
            value = {
                "wrong => does not let keeper in",
                "s => ",
            })
    void aWrongPasswordIsNamed(String password, String named) throws Exception {
        Secrets.answer("OWN_PASSWORD", password);
        assertThat(open("table: VISITS").problems().stream().map(Problem::what).toList())
                .allSatisfy(p -> assertThat(p).contains(named))
                .hasSize(named == null ? 0 : 1);
    }

    private Outcome<SourceFile> open(String field) throws Exception {
        Files.writeString(
                folder.resolve("datasets/visits.yaml"),
                "dataset: visits\nkind: jdbc\nread: \"" + address + "\"\nuser: keeper\npassword_from: OWN_PASSWORD\n"
                        + field + "\n");
        Shelf shelf = ShelfReader.read(folder).get();
        assertThat(shelf.problems()).isEmpty();
        Copies.forget();
        return Datasets.open(shelf, "visits");
    }
}
