package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.engine.Stop;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.Shelf;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// A whole job as code of each language gives the rows that it gives here.
public class JobParityTest {
    /// Keys that some engines take for the same, names that must be quoted, days that are missing, rows that come
    /// twice.
    private static final String ROWS = """
            key,ORDER,a "b",día,n
            a,1,x,2026-02-07,1
            A,2,x,2026-02-07,2
            a ,3,x,2026-02-07,3
            á,4,x,2026-02-07,4
            a,5,y,,5
            ,6,x,2026-02-07,6
            ,7,x,2026-02-08,7
            a,8,z,2026-02-08,8
            a,9,Z,2026-02-08,9
            a,9,Z,2026-02-08,10
            b,10,"two
            lines",,11
            b,11,'quoted',,12
            %s
            """;

    private static final String LINES = """
            job: job
            lines:
              - read: data/in.csv
              - fix: tidy
                columns: every text column
                with: {unwanted: "'x'"}
              - fix: as_day
                columns: [día]
              - fix: joined
                columns: [key, n]
                with: {other: "key || '-'"}
              %s
            """;

    @TempDir
    Path root;

    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @ParameterizedTest
    @MethodSource("engines")
    void givesTheSameRows(FixEngine engine) throws IOException {
        Engines.assumeHere(engine);
        givesTheSameRowsIn(engine, root);
    }

    /// Also for the engines of other modules.
    public static void givesTheSameRowsIn(FixEngine engine, Path root) throws IOException {
        List<String> wrong = new ArrayList<>();
        List<String> endings = List.of(
                "- drop_repeats: [key]\n    keep: first",
                "- drop_repeats: [key]\n    keep: last\n    by: [día]",
                "- drop_repeats: [key, 'a \"b\"']\n    keep: first\n    by: [día, 'a \"b\"']",
                "- drop_repeats: all columns\n    keep: first\n  - rename: {key: n, n: key}\n  - choose: [key, día]",
                "- drop: [ORDER, 'a \"b\"']",
                // A day under a time becomes a time, whichever of them stands first.
                "- choose: [key, día]\n    name: days\n  - read_as: {día: timestamp}\n    name: times\n  - go_on_from: days\n  - put_under: times",
                "- choose: [key, día]\n    name: days\n  - read_as: {día: timestamp}\n  - put_under: days",
                "- drop_repeats: [día]\n    keep: last\n    by: ['a \"b\"']");
        List<JobParity.Asked> asked = new ArrayList<>();
        for (String ending : endings) {
            Shelf shelf = shelf(root, ending);
            asked.add(JobParity.asked(shelf, planned(shelf)).get());
        }
        List<JobParity.Verdict> verdicts = JobParity.verdicts(engine, asked);
        for (int i = 0; i < endings.size(); i++) {
            JobParity result = new JobParity("job", engine.language(), verdicts.get(i), 0);
            if (!(result.verdict() instanceof JobParity.Same(int rows) && rows > 2)) {
                wrong.add(endings.get(i) + ": " + result.mark() + " " + result.detail());
            }
        }
        assertThat(wrong).isEmpty();
    }

    @ParameterizedTest
    @MethodSource("engines")
    void columnsMayBeCalledAnything(FixEngine engine) throws IOException {
        Engines.assumeHere(engine);
        columnsMayBeCalledAnythingIn(engine, root);
    }

    /// Names that a language cannot hold, which it says.
    private static final Map<String, Set<String>> UNNAMEABLE =
            Map.of("mariadb", Set.of("😀", "end "), "sqlite", Set.of("TRUE"));

    /// Also for the engines of other modules.
    public static void columnsMayBeCalledAnythingIn(FixEngine engine, Path root) throws IOException {
        Set<String> refused = UNNAMEABLE.getOrDefault(engine.language().id(), Set.of());
        List<String> names = Stream.of(
                        "user",
                        "current_date",
                        "select",
                        "Select",
                        "with space",
                        " ",
                        "end ",
                        "a\\b",
                        "tick`",
                        "quote\"",
                        "it's",
                        "$x{y}",
                        "%d",
                        "列",
                        "n\u00A0b",
                        ".x",
                        "1",
                        "df",
                        "row_no",
                        "line_2",
                        "survivor",
                        "placed",
                        "x".repeat(60),
                        "a;b--",
                        "[k]",
                        "😀",
                        "TRUE",
                        "é",
                        "e\u0301")
                .filter(n -> !refused.contains(n))
                .toList();
        for (String name : refused) {
            Shelf one = Jobs.shelf(
                    root, "n," + name + "\n1,2\n", "job: job\nlines:\n  - read: data/in.csv\n  - drop: [n]\n");
            assertThat(JobParity.check(one, planned(one), List.of(engine), new Stop(), _ -> {})
                            .get())
                    .singleElement()
                    .satisfies(r -> assertThat(r.verdict()).as(name).isInstanceOf(JobParity.CannotSay.class));
        }
        StringBuilder data = new StringBuilder(String.join(
                ",",
                names.stream().map(n -> '"' + n.replace("\"", "\"\"") + '"').toList()));
        for (int row = 0; row < 4; row++) {
            data.append('\n');
            for (int i = 0; i < names.size(); i++) {
                data.append(i == 0 ? "" : ",").append(' ').append((i + row / 2) % 5);
            }
        }
        Shelf shelf = Jobs.shelf(root, data.append('\n').toString(), """
                job: job
                lines:
                  - read: data/in.csv
                  - fix: tidy
                    columns: every text column
                  - rename: {user: now, df: user}
                  - fix: tidy
                    columns: [now, user, "quote\\"", "列"]
                    with: {unwanted: "\\"with space\\""}
                  - drop_repeats: [select, Select, "it's", "%d"]
                    keep: last
                    by: ["a\\\\b", "tick`"]
                """.replace("\\\"", "\\\""));
        assertThat(JobParity.check(shelf, planned(shelf), List.of(engine), new Stop(), _ -> {})
                        .get())
                .singleElement()
                .satisfies(r -> assertThat(r.verdict()).as(r.detail()).isInstanceOf(JobParity.Same.class));
    }

    @Test
    void everyLanguageNamesTheLinesThatItCannotSay() throws IOException {
        Shelf shelf = shelf(root, "- drop_repeats: [key]\n    keep: first\n    by: ['a \"b\"']");
        Map<String, String> refused = Map.of(
                "tsql",
                "Line 5, Drop rows that repeat key, keeping the first by \"a \"\"b\"\"\": Transact-SQL cannot say it: its"
                        + " order of text is not by code point.",
                "oracle",
                "Line 4, Joined in key, n, other = key || '-': Oracle SQL cannot say it: it has no empty text");
        for (Language language : Languages.ALL) {
            Outcome<String> code = language.job(planned(shelf).code(shelf));
            String why = refused.getOrDefault(language.id(), "");
            assertThat(code.isPresent()).as(language.title()).isEqualTo(why.isEmpty());
            assertThat(String.join(
                            "\n", code.problems().stream().map(Problem::what).toList()))
                    .startsWith(why);
        }
    }

    @Test
    void whatALanguageCannotHoldIsNamed() throws IOException {
        String longName = "a".repeat(200);
        Jobs.shelf(root, (longName + ",n\nx,1\n").getBytes(StandardCharsets.UTF_8), """
                job: job
                lines:
                  - read: data/in.csv
                  - drop_repeats: [n]
                    keep: first
                """);
        Shelf shelf = fixshelf.shelf.ShelfReader.read(root).get();
        assertThat(Languages.find("postgresql")
                        .orElseThrow()
                        .job(planned(shelf).code(shelf))
                        .problems())
                .extracting(Problem::what)
                .singleElement()
                .asString()
                .contains("the name aaaaaaaaaaaaaaaaaaaa… is too long");
        for (String language : List.of("duckdb", "sqlite", "pandas", "r")) {
            assertThat(verdict(shelf, language)).as(language).isEqualTo(new JobParity.Same(1));
        }
        Jobs.shelf(root, "a,n\nx\0y,1\n".getBytes(StandardCharsets.UTF_8), """
                job: job
                lines:
                  - read: data/in.csv
                  - choose: [a]
                """);
        shelf = fixshelf.shelf.ShelfReader.read(root).get();
        assertThat(verdict(shelf, "pandas")).isEqualTo(new JobParity.Same(1));
        for (String language : List.of("postgresql", "sqlite", "r")) {
            assertThat(verdict(shelf, language).toString()).as(language).contains("CannotSay", "U+0000");
        }
        Jobs.shelf(root, "a,n\n9007199254740993,1\n".getBytes(StandardCharsets.UTF_8), """
                job: job
                lines:
                  - read: data/in.csv
                  - fix: number
                    columns: [a]
                """);
        Files.writeString(
                root.resolve("fixes/number.fix.md"),
                joined("to_integer(text)")
                        .replace("joined", "number")
                        .replace("returns: text", "returns: integer")
                        .replace("  other: {type: text}\n", ""));
        shelf = fixshelf.shelf.ShelfReader.read(root).get();
        assertThat(verdict(shelf, "r").toString()).contains("CannotSay", "only below 2^53");
        assertThat(verdict(shelf, "sqlite")).isEqualTo(new JobParity.Same(1));
    }

    /// What came of the job in a language that is here; of one that is not, the test is skipped.
    private static JobParity.Verdict verdict(Shelf shelf, String language) {
        Engines.assumeHere(Engines.of(language));
        return JobParity.check(shelf, planned(shelf), List.of(Engines.of(language)), new Stop(), _ -> {})
                .get()
                .getFirst()
                .verdict();
    }

    @Test
    void aDifferenceIsShownWithItsCell() throws IOException {
        Shelf shelf = shelf(root, "- drop: [n]");
        FixEngine other = new AlteredEngine(Engines.of("duckdb"));
        assertThat(JobParity.check(shelf, planned(shelf), List.of(other), new Stop(), _ -> {})
                        .get())
                .singleElement()
                .satisfies(r -> assertThat(r.detail()).isEqualTo("key of row 1 is 'other', not 'aa-'"));
    }

    @Test
    void theCodeCanBeRead() throws IOException {
        Shelf shelf = shelf(root, "- drop_repeats: [key]\n    keep: last\n    by: [día]");
        assertThat(Languages.find("postgresql")
                        .orElseThrow()
                        .job(planned(shelf).code(shelf))
                        .get())
                .startsWith("""
                        -- job: job
                        -- Reads the table in, whose columns are text, and row_no numbers its rows as they stand in the source.
                        WITH
                        -- 2.""")
                .endsWith("""
                        FROM line_5
                        ORDER BY row_no;
                        """);
        assertThat(FixEngines.ALL).hasSize(Languages.ALL.size());
    }

    @Test
    void aDataFrameLanguageCallsFixesByName() throws IOException {
        Shelf shelf = shelf(root, "- rename: {n: key, key: n}");
        JobCode job = planned(shelf).code(shelf);
        JobCode same = new JobCode("tidy", job.about(), job.sources(), job.lines());
        assertThat(Languages.find("pandas").orElseThrow().job(same).get())
                .contains("def tidy(text: pd.Series, unwanted=\"\")", "def tidy_job(df: pd.DataFrame) -> pd.DataFrame:")
                .contains("\"key\": tidy(df[\"key\"], unwanted=\"x\"),")
                .contains("\"n\": joined(df[\"n\"], other=df[\"key\"] + pd.Series(\"-\"");
        // What a new column is made from is the old one, though R makes one after the other.
        assertThat(Languages.find("r").orElseThrow().job(same).get())
                .contains("tidy_job <- function(df) {")
                .contains(
                        "`fixshelf new 0` = joined(key, other = str_c(key, \"-\"))",
                        "n = joined(n, other = str_c(key, \"-\"))")
                .contains("df <- mutate(df, key = `fixshelf new 0`, `fixshelf new 0` = NULL)");
    }

    private static PlannedJob planned(Shelf shelf) {
        return PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
    }

    private static Shelf shelf(Path root, String ending) throws IOException {
        String many = "m,12,m,2026-02-09,13\n".repeat(30);
        Jobs.shelf(root, ROWS.formatted(many).getBytes(StandardCharsets.UTF_8), LINES.formatted(ending));
        Files.writeString(root.resolve("fixes/joined.fix.md"), joined("text || other"));
        Files.writeString(root.resolve("fixes/as_day.fix.md"), """
            ---
            fix: as_day
            parameters:
              text: {type: text}
            returns: date
            ---
            # Day

            ```sql
            RETURN to_date(text);
            ```
            """);
        return fixshelf.shelf.ShelfReader.read(root).get();
    }

    private static String joined(String body) {
        return """
            ---
            fix: joined
            parameters:
              text: {type: text}
              other: {type: text}
            returns: text
            ---
            # Joined

            ```sql
            RETURN %s;
            ```
            """.formatted(body);
    }
}
