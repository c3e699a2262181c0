package fixshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Engines;
import fixshelf.export.Export;
import fixshelf.language.Lexer;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.render.Languages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.PlannedJob;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/// The whole shelf saved in a language runs there, without Fix Shelf, and its cases hold.
class ExportTest {

    @TempDir
    static Path folder;

    static Shelf shelf;

    @BeforeAll
    static void make() throws Exception {
        Path root = DemoShelf.create(folder.resolve("demo"), 50);
        // Names that mean something in one language or another, of fixes and of their parameters.
        List<String> words = AWKWARD.lines()
                .flatMap(l -> Stream.of(l.split(" ")))
                .filter(w -> !Lexer.KEYWORDS.contains(w.toLowerCase(Locale.ROOT)))
                .toList();
        for (int i = 0; i < words.size(); i++) {
            String other = words.get((i + 1) % words.size());
            String page = PAGE.formatted(words.get(i), words.get((i + 7) % words.size()), other);
            Files.writeString(root.resolve("fixes/" + words.get(i) + ".fix.md"), page);
        }
        shelf = ShelfReader.read(root).get();
        assertThat(shelf.problems()).isEmpty();
    }

    private static final String AWKWARD = """
            select where order group user table column index key values default check
            class def lambda import pass None self pd re date datetime Decimal str
            function if repeat_ next break T c df mutate library str_c
            results rows names text integer number current_date now localtime age md5 date_""";

    private static final String PAGE = """
            ---
            fix: %1$s
            parameters:
              %2$s: {type: text}
              %3$s: {type: date, default: "DATE '2026-02-07'"}
            returns: text
            ---
            # Awkward

            ```sql
            SET part = regexp_replace(%2$s, '[ \t]+', ' ');
            RETURN CASE WHEN part = '' THEN format_date(%3$s, 'd/M/yyyy') ELSE initcap(part) || U&'\\00A0''\\005C' END;
            ```

            ## Cases

            | %2$s | %3$s | result |
            |---|---|---|
            | 'a  B' | | U&'A B\\00A0''\\005C' |
            | '' | DATE '0999-12-31' | '31/12/0999' |
            | NULL | | NULL |
            """;

    private static Export.Wanted wanted(boolean replace) {
        return new Export.Wanted(true, replace, PlannedJob.codes(shelf, new ArrayList<>()));
    }

    private static Path exported(String language) {
        Path to = folder.resolve(language);
        Outcome<Export.Report> report =
                Export.write(shelf, Languages.find(language).orElseThrow(), to, wanted(false));
        assertThat(report.problems()).isEmpty();
        return to;
    }

    @Test
    void pytestIsGreen() throws Exception {
        Engines.assumeHere(Engines.of("pandas"));
        Path to = exported("pandas");
        String python = Engines.program(Engines.of("pandas"));
        assertThat(run(to, python, "-m", "pytest", "-q", "test_fixes.py"))
                .contains(" passed")
                .doesNotContain("failed");
    }

    @Test
    void testthatIsGreen() throws Exception {
        Engines.assumeHere(Engines.of("r"));
        Path to = exported("r");
        String said = run(
                to,
                Engines.program(Engines.of("r")),
                "-e",
                "testthat::test_file('test-fixes.R', stop_on_failure = TRUE)");
        assertThat(said).contains("FAIL 0").containsPattern("PASS [1-9][0-9]");
    }

    @Test
    void checksOfDuckDbFindNothing() throws Exception {
        Path to = exported("duckdb");
        try (DuckSession session = DuckSession.open()) {
            session.run(Files.readString(to.resolve("fixes.sql")));
            for (String query : queries(to)) {
                assertThat(session.query(query).rows()).isEmpty();
            }
        }
        Path source = shelf.root().resolve("data/visits-alder-quay.csv");
        try (DuckSession session = DuckSession.open(List.of(source), Optional.empty())) {
            session.run("CREATE TABLE visits_alder_quay AS SELECT row_number() OVER () AS row_no, * FROM read_csv('"
                    + source + "', delim = ';', all_varchar = true)");
            String job = Files.readString(to.resolve("jobs/visits_clean.sql"));
            assertThat(session.query(job).rows().size())
                    .isBetween(2, (int) session.number("SELECT count(*) - 1 FROM visits_alder_quay"));
        }
    }

    @Test
    void checksOfSqliteFindNothing() throws Exception {
        Path to = exported("sqlite");
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite::memory:")) {
            assertThat(failing(connection, to)).isEmpty();
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb"})
    void checksOfServersFindNothing(String language) throws Exception {
        Engines.assumeHere(Engines.of(language));
        Path to = exported(language);
        try (Connection connection = Engines.connection(Engines.of(language))) {
            connection.setAutoCommit(false);
            for (String statement : Files.readString(to.resolve("fixes.sql")).split(";\n")) {
                if (!statement.isBlank()) {
                    try (Statement one = connection.createStatement()) {
                        one.execute(statement);
                    }
                }
            }
            assertThat(failing(connection, to)).isEmpty();
            connection.rollback();
        }
    }

    @Test
    void checksOfSparkFindNothing() throws Exception {
        Engines.assumeHere(Engines.of("spark"));
        Path to = exported("spark");
        for (String statement : Files.readString(to.resolve("fixes.sql")).split(";\n")) {
            if (!statement.isBlank()) {
                Engines.sparkRows(statement);
            }
        }
        for (String query : queries(to)) {
            assertThat(Engines.sparkRows(query)).isEmpty();
        }
    }

    @Test
    void aFileThatWasChangedByHandIsNotReplacedUnseen() throws Exception {
        Path to = exported("duckdb");
        Path file = to.resolve("fixes.sql");
        assertThat(Export.write(shelf, Languages.find("duckdb").orElseThrow(), to, wanted(false))
                        .isPresent())
                .isTrue();
        Files.writeString(file, Files.readString(file).replace("trim", "ltrim"));
        String mine = Files.readString(file);
        Outcome<Export.Report> again =
                Export.write(shelf, Languages.find("duckdb").orElseThrow(), to, wanted(false));
        assertThat(again.problems()).extracting(p -> p.code()).containsExactly(Code.DIVERGED);
        assertThat(file).hasContent(mine);
        Export.write(shelf, Languages.find("duckdb").orElseThrow(), to, wanted(true));
        assertThat(Files.readString(file)).isNotEqualTo(mine);
    }

    private static List<String> failing(Connection connection, Path to) throws Exception {
        List<String> failing = new ArrayList<>();
        for (String query : queries(to)) {
            try (Statement statement = connection.createStatement();
                    ResultSet rows = statement.executeQuery(query)) {
                while (rows.next()) {
                    failing.add(rows.getString(1) + " " + rows.getInt(2));
                }
            }
        }
        return failing;
    }

    /// The queries of the checks, one for each fix.
    private static List<String> queries(Path to) throws Exception {
        List<String> queries =
                List.of(Files.readString(to.resolve("checks.sql")).split(";\n"));
        assertThat(queries).hasSizeGreaterThan(40);
        return queries;
    }

    private static String run(Path folder, String... command) throws Exception {
        Process process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        String said = new String(process.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(process.waitFor(120, TimeUnit.SECONDS)).isTrue();
        assertThat(process.exitValue()).as(said).isZero();
        return said;
    }
}
