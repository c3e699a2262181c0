package fixshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import fixshelf.engine.DuckSession;
import fixshelf.engine.Engines;
import fixshelf.export.Export;
import fixshelf.export.Receipt;
import fixshelf.language.tree.Lexer;
import fixshelf.operations.Operations;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.type.Literals;
import fixshelf.work.PlannedJob;
import fixshelf.work.TableFixCode;
import java.io.IOException;
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
import org.junit.jupiter.api.Tag;
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
            // Lines would call an operation; such a word is the name of a parameter only.
            if (Operations.find(words.get(i)).isEmpty()) {
                String page = PAGE.formatted(words.get(i), words.get((i + 7) % words.size()), other);
                Files.writeString(root.resolve("fixes/" + words.get(i) + ".fix.md"), page);
            }
        }
        for (int i = 0; i < NASTY.size(); i++) {
            nasty(root, i, NASTY.get(i));
        }
        shelf = ShelfReader.read(root).get();
        assertThat(shelf.problems()).isEmpty();
    }

    /// Texts that end a comment, a text, a name or a statement in one language or another, or look like code.
    private static final List<String> NASTY = List.of(
            "\n__import__('os').abort()",
            "\nDROP TABLE visits;",
            "\rDROP TABLE visits;",
            "\u2028DROP TABLE visits;",
            "\u0085stop('x')",
            "\u000Cstop('x')",
            "\"",
            "\"\"\"",
            "'''",
            "ends with \"",
            "ends with \\",
            "ends with '",
            "\\\"\"\"\nimport os",
            "*/ DROP TABLE visits; /*",
            "-- ; DROP",
            "# stop",
            "'); DROP TABLE visits; --",
            "$$; DROP TABLE visits; $$",
            "$1",
            "${jndi:x}",
            "{0}",
            "{text}",
            "%s %d %",
            "\\1\\0\\n",
            "`; DROP TABLE visits; `",
            "[x]; ]]",
            "a\u202Eb",
            "\u200B",
            // At the start of a text R's stringi takes it away.
            "a\uFEFFb",
            "\u001B[2J",
            "\t",
            "<script>alert(1)</script>",
            "| a | b |",
            "&amp;",
            "=1+1",
            "😀",
            "e\u0301",
            "NULL",
            "DELIMITER //",
            "\\");

    private static final ObjectMapper JSON = new ObjectMapper();

    /// A fix with the text in each place of its page, and a job that reads a column of that name.
    private static void nasty(Path root, int i, String text) throws Exception {
        String quoted = JSON.writeValueAsString(text).replace("\u0085", "\\u0085");
        String literal = Literals.print(text);
        String fallback = JSON.writeValueAsString(literal);
        String both = Literals.print("x" + text + text).replace("|", "\\|");
        Files.writeString(
                root.resolve("fixes/nasty_" + i + ".fix.md"), """
                ---
                fix: nasty_%1$d
                reads: %2$s
                parameters:
                  text: {type: text, about: %2$s}
                  other: {type: text, default: %3$s, about: %2$s}
                returns: text
                tags: [%2$s]
                ---
                # Nasty

                Words %4$s

                ```sql
                RETURN text || %5$s || other;
                ```

                ## Cases

                | text | other | result |
                |---|---|---|
                | 'x' | | %6$s |
                """.formatted(i, quoted, fallback, text, literal, both));
        Files.writeString(root.resolve("data/nasty_" + i + ".csv"), "\"" + text.replace("\"", "\"\"") + "\",b\nx,y\n");
        Files.writeString(root.resolve("datasets/nasty_data_" + i + ".yaml"), """
                dataset: nasty_data_%1$d
                about: %2$s
                read: data/nasty_%1$d.csv
                """.formatted(i, quoted));
        Files.writeString(root.resolve("jobs/nasty_job_" + i + ".yaml"), """
                job: nasty_job_%1$d
                title: %2$s
                about: %2$s
                lines:
                  - dataset: nasty_data_%1$d
                  - fix: nasty_%1$d
                    columns: [b]
                    with: {other: %3$s}
                    reason: %2$s
                """.formatted(i, quoted, fallback));
    }

    @Test
    @Tag("proof")
    void nothingOnAPageIsCodeOfALanguage() throws Exception {
        for (Language language : Languages.ALL) {
            Path to = exported(language.id());
            try (Stream<Path> files = Files.walk(to)) {
                // A column's name may have line breaks, between its marks; so the queries of jobs are parsed below.
                for (Path file : files.filter(
                                f -> Files.isRegularFile(f) && !f.getParent().endsWith("jobs"))
                        .toList()) {
                    List<String> lines =
                            Files.readString(file).lines().map(String::strip).toList();
                    assertThat(lines)
                            .as(file.toString())
                            .noneMatch(l ->
                                    l.startsWith("DROP") || l.startsWith("__import__") || l.startsWith("stop('x')"))
                            .noneMatch(l -> l.chars().anyMatch(c -> c == 0x1B || c == 0x202E));
                }
            }
        }
        try (DuckSession session = DuckSession.open();
                Stream<Path> files = Files.list(folder.resolve("duckdb/jobs"))) {
            for (Path file : files.toList()) {
                String tree = "json_serialize_sql(" + DuckSession.text(Files.readString(file)) + ")";
                String counted =
                        "SELECT json_extract_string(t, '$.error'), json_array_length(t, '$.statements') FROM (SELECT "
                                + tree + " AS t)";
                assertThat(session.query(counted).rows().toString())
                        .as(file.toString())
                        .isEqualTo("[[false, " + (1 + checks(file)) + "]]");
            }
        }
        Engines.assumeHere(Engines.of("pandas"));
        Engines.assumeHere(Engines.of("r"));
        run(folder.resolve("pandas"), Engines.program(Engines.of("pandas")), "-m", "compileall", "-q", ".");
        String said = run(
                folder.resolve("r"),
                Engines.program(Engines.of("r")),
                "-e",
                "for (f in list.files('.', '[.]R$', recursive = TRUE)) parse(f, encoding = 'UTF-8'); cat('read')");
        assertThat(said).endsWith("read");
    }

    @Test
    void namesThatWouldBeCodeAreRefused(@TempDir Path other) throws Exception {
        Files.writeString(other.resolve("shelf.yaml"), "shelf: Names\n");
        for (String kind : List.of("fixes", "jobs", "datasets")) {
            Files.createDirectories(other.resolve(kind));
        }
        List<String> names =
                List.of("../../../x", "x\ny", "a b", "a;b", "a'b", "x = __import__('os')", "ﬁx", "1x", "a".repeat(64));
        for (int i = 0; i < names.size(); i++) {
            String quoted = JSON.writeValueAsString(names.get(i));
            Files.writeString(other.resolve("jobs/j" + i + ".yaml"), "job: " + quoted + "\nlines:\n  - read: x.csv\n");
            Files.writeString(other.resolve("datasets/d" + i + ".yaml"), "dataset: " + quoted + "\nread: x.csv\n");
            Files.writeString(other.resolve("fixes/f" + i + ".fix.md"), """
                    ---
                    fix: f%d
                    parameters:
                      %s: {type: text}
                    ---
                    # F

                    ```sql
                    SET "%s" = 'a';
                    RETURN 'b';
                    ```
                    """.formatted(
                            i, quoted, names.get(i).replace("\"", "\"\"")));
        }
        List<String> refused = ShelfReader.read(other).get().problems().stream()
                .filter(p -> p.code() == Code.BAD_FIELD)
                .map(p -> p.where().source().name())
                .toList();
        for (int i = 0; i < names.size(); i++) {
            assertThat(refused)
                    .as(names.get(i))
                    .contains("jobs/j" + i + ".yaml", "datasets/d" + i + ".yaml", "fixes/f" + i + ".fix.md");
        }
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
        return new Export.Wanted(
                true,
                0,
                replace,
                PlannedJob.codes(shelf, new ArrayList<>()),
                TableFixCode.all(shelf, new ArrayList<>()));
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
        receipt("pandas", Files.readString(to.resolve("receipt-here.json")));
        // A function that was changed by hand is no function of the shelf.
        Path file = to.resolve("fixes.py");
        Files.writeString(file, Files.readString(file) + "# mine\n");
        run(to, python, "-m", "pytest", "-q", "test_fixes.py", "-k", "squeeze_spaces");
        Receipt other = Receipt.read("", Files.readString(to.resolve("receipt-here.json")))
                .get();
        assertThat(other.objections(shelf))
                .contains(
                        "It is of other functions than the shelf gives now: export again, and run the checks there.",
                        "amount: 0 of its 8 cases ran.")
                .noneMatch(o -> o.startsWith("squeeze_spaces"));
    }

    @Test
    @Tag("proof")
    void testthatIsGreen() throws Exception {
        Engines.assumeHere(Engines.of("r"));
        Path to = exported("r");
        String said = run(
                to,
                Engines.program(Engines.of("r")),
                "-e",
                "testthat::test_file('test-fixes.R', stop_on_failure = TRUE)");
        assertThat(said).contains("FAIL 0").containsPattern("PASS [1-9][0-9]");
        run(to, Engines.program(Engines.of("r")), "receipt.R");
        receipt("r", Files.readString(to.resolve("receipt-here.json")));
    }

    @Test
    @Tag("proof")
    void checksOfDuckDbFindNothing() throws Exception {
        Path to = exported("duckdb");
        try (DuckSession session = DuckSession.open()) {
            session.run(Files.readString(to.resolve("fixes.sql")));
            for (String query : queries(to)) {
                assertThat(session.query(query).rows()).isEmpty();
            }
            String receipt = Files.readString(to.resolve("receipt.sql"));
            receipt(
                    "duckdb",
                    String.valueOf(session.query(receipt).rows().getFirst().getFirst()));
            // Where a function is another one, its cases fail.
            session.run("CREATE OR REPLACE MACRO squeeze_spaces(text, keep_ends := false) AS text");
            Receipt broken = Receipt.read(
                            "",
                            "receipt\n\""
                                    + session.query(receipt)
                                            .rows()
                                            .getFirst()
                                            .getFirst()
                                            .toString()
                                            .replace("\"", "\"\"")
                                    + "\"\n")
                    .get();
            assertThat(broken.failing()).containsKey("squeeze_spaces");
            assertThat(broken.objections(shelf))
                    .anyMatch(o -> o.startsWith("squeeze_spaces: ") && o.endsWith(" cases fail there."));
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
            receipt("sqlite", receipt(connection, to));
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
            receipt(language, receipt(connection, to));
            connection.rollback();
        }
    }

    @Tag("proof")
    @Test
    void checksOfSparkFindNothing() throws Exception {
        Engines.assumeHere(Engines.of("spark"));
        Path to = exported("spark");
        for (String statement : Files.readString(to.resolve("fixes.sql")).split(";\n")) {
            if (!statement.isBlank()) {
                Engines.sparkRows(statement);
            }
        }
        // All checks are in the one query of the receipt, which says how many of each fix fail.
        String receipt = Files.readString(to.resolve("receipt.sql")).strip();
        receipt(
                "spark",
                Engines.sparkRows(receipt.substring(0, receipt.length() - 1)).toString());
    }

    /// What an engine wrote proves the shelf as it is.
    private static void receipt(String language, String text) {
        Receipt receipt = Receipt.read(language, text).get();
        assertThat(receipt.language()).isEqualTo(language);
        assertThat(receipt.objections(shelf)).as(language).isEmpty();
        assertThat(receipt.caseCount()).as(language).isGreaterThan(150);
        assertThat(receipt.engine()).as(language).containsPattern("[0-9]");
        assertThat(receipt.at()).as(language).startsWith("20");
    }

    private static String receipt(Connection connection, Path to) throws Exception {
        List<String> statements =
                List.of(Files.readString(to.resolve("receipt.sql")).split(";\n"));
        try (Statement statement = connection.createStatement()) {
            for (String before : statements.subList(0, statements.size() - 1)) {
                statement.execute(before);
            }
            try (ResultSet rows = statement.executeQuery(statements.getLast())) {
                rows.next();
                return rows.getString(1);
            }
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

    /// What a job makes sure of stands behind it, each check as a query of its own.
    private static long checks(Path file) throws IOException {
        return Files.readString(file)
                .lines()
                .filter(l -> l.startsWith("-- What breaks line "))
                .count();
    }
}
