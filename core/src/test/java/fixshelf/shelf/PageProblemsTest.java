package fixshelf.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/// A broken page says what is wrong, where and what to do, and never hides the others.
class PageProblemsTest {
    private static final String GOOD = """
        ---
        fix: good
        kind: value
        parameters:
          text: {type: text}
        returns: text
        ---
        # Good

        ```sql
        RETURN trim(text);
        ```

        ## Cases

        | text | result |
        |---|---|
        | ' a' | 'a' |
        """;

    record Case(String name, String from, String to, Code code, int line, String what) {}

    @TempDir
    Path root;

    static Stream<Case> pages() {
        return Stream.of(
                new Case("broken YAML", "fix: good", "fix: [good", Code.BROKEN_YAML, 3, "not YAML"),
                new Case(
                        "unknown kind",
                        "kind: value",
                        "kind: valu",
                        Code.BAD_FIELD,
                        3,
                        "no kind of fix that is called valu"),
                new Case("no fields", "---\nfix", "fix", Code.BROKEN_YAML, 1, "begin with its fields"),
                new Case("no body", "```sql", "```text", Code.NO_BODY, 19, "no body"),
                new Case("two bodies", "## Cases", "```sql\ntext\n```\n\n## Cases", Code.TWO_BODIES, 15, "two bodies"),
                new Case("empty body", "RETURN trim(text);", "", Code.NO_BODY, 11, "empty"),
                new Case(
                        "unknown function",
                        "trim(text)",
                        "trimm(text)",
                        Code.UNKNOWN_FUNCTION,
                        11,
                        "no function trimm"),
                new Case("wrong type", "trim(text)", "length(text)", Code.WRONG_TYPE, 11, "gives integer"),
                new Case("unknown field", "kind: value", "knid: value", Code.BAD_FIELD, 3, "no field knid"),
                new Case("unknown type", "{type: text}", "{type: txt}", Code.WRONG_TYPE, 5, "no such type"),
                new Case("too few cells", "| ' a' | 'a' |", "| ' a' |", Code.BAD_CASE, 18, "has 1 cell,"),
                new Case("not a constant", "| ' a' |", "| upper('a') |", Code.BAD_FIELD, 18, "not a constant"),
                new Case("a case of another type", "| ' a' |", "| 3 |", Code.WRONG_TYPE, 18, "This is integer"),
                new Case("no result", "| text | result |", "| text | answer |", Code.BAD_CASE, 16, "No parameter"),
                new Case("name of a function", "fix: good", "fix: trim", Code.NAME_CLASH, 2, "catalogue already"),
                new Case("name of a word", "fix: good", "fix: from", Code.NAME_CLASH, 2, "word of the language"),
                new Case(
                        "SET without RETURN", "RETURN trim(text);", "SET a = text;", Code.SYNTAX, 11, "without RETURN"),
                new Case(
                        "promise",
                        "returns: text",
                        "promises: [fast]\nreturns: text",
                        Code.BAD_FIELD,
                        6,
                        "no promise: fast"));
    }

    @ParameterizedTest
    @MethodSource("pages")
    void isNamedAndHidesNothing(Case c) throws Exception {
        assertThat(GOOD).contains(c.from());
        shelf("bad", GOOD.replace(c.from(), c.to()), "good", GOOD);
        Shelf shelf = ShelfReader.read(root).get();
        List<Problem> problems = shelf.problems().stream()
                .filter(p -> p.where().source().name().equals("fixes/bad.fix.md"))
                .toList();
        assertThat(problems).as(c.name()).anySatisfy(p -> {
            assertThat(p.code()).isEqualTo(c.code());
            assertThat(p.where().position().line()).as(p.sentence()).isEqualTo(c.line());
            assertThat(p.what()).contains(c.what());
            assertThat(p.todo()).isNotBlank();
        });
        FixPage good = shelf.fixes().stream()
                .filter(f -> f.file().endsWith("good.fix.md"))
                .findFirst()
                .orElseThrow();
        assertThat(shelf.definition(good).isPresent()).isTrue();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "read: in.csv | separator: ';;;;;;;;;;;' | A separator is one character or up to ten | 2",
                "read: in.csv | separator: \"\\t\" | | 0",
                "read: in.csv | quote: '``' | A quote is one character, or none | 2",
                "read: in.csv | quote: '' | | 0",
                "read: in.csv | encoding: latin-99 | There is no encoding latin-99 here | 2",
                "read: in.csv | encoding: UTF-8 | | 0",
                "read: in.csv | bad_rows: skip | bad_rows is stop or leave_out | 2",
                "read: in.csv | null_words: [a, \"\"] | | 0",
                "read: in.csv | sepparator: ',' | There is no field sepparator | 2",
                "read: in.csv | read: two.csv | stands twice | 2",
                "about: x | separator: ',' | read | 1",
                "read: in.csv | [ | not YAML | 3"
            })
    void aDatasetSaysHowItIsRead(String first, String second, String what, int line) {
        DatasetPage page = DatasetPages.read(
                Path.of("visits.yaml"),
                new SourceText("datasets/visits.yaml", first + "\n" + second + "\n"),
                List.of(""));
        assertThat(page.name()).isEqualTo("visits");
        if (what == null) {
            assertThat(page.problems()).isEmpty();
        } else {
            assertThat(page.problems()).isNotEmpty().first().satisfies(p -> {
                assertThat(p.what()).contains(what);
                assertThat(p.todo()).isNotBlank();
                assertThat(p.where().position().line()).isEqualTo(line);
            });
        }
    }

    @Test
    void aCircleOfCallsIsShownOnEveryPageInIt() throws Exception {
        shelf(
                "a", GOOD.replace("fix: good", "fix: a").replace("trim(text)", "b(text)"),
                "b", GOOD.replace("fix: good", "fix: b").replace("trim(text)", "a(text)"));
        List<Problem> problems = ShelfReader.read(root).get().problems();
        assertThat(problems).hasSize(2).allSatisfy(p -> {
            assertThat(p.code()).isEqualTo(Code.CYCLE);
            assertThat(p.what()).contains("→");
        });
    }

    @Test
    void aPageThatIsNoTextAndTwoOfOneNameAreProblemsOfTheirOwn() throws Exception {
        shelf("good", GOOD, "other", GOOD);
        Files.write(root.resolve("fixes/latin.fix.md"), "caf\u00e9".getBytes(StandardCharsets.ISO_8859_1));
        assertThat(ShelfReader.read(root).get().problems())
                .extracting(Problem::code)
                .containsExactlyInAnyOrder(Code.UNREADABLE_PAGE, Code.NAME_CLASH);
    }

    private void shelf(String one, String first, String two, String second) throws Exception {
        PageFiles.initShelf(root, "test");
        Files.writeString(root.resolve("fixes/" + one + ".fix.md"), first);
        Files.writeString(root.resolve("fixes/" + two + ".fix.md"), second);
    }

    /// What a page names and is not there is told; what a line above is called is there.
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "undone_by good | ",
                "undone_by nosuch | There is no fix nosuch on this shelf.",
                "one_of 'a', 'b' | ",
                "one_of 1, 2 | The fix returns text, and one of these values is integer."
            })
    void promisesNameWhatIsThere(String promise, String problem) throws Exception {
        Files.createDirectories(root.resolve("fixes"));
        Files.writeString(root.resolve("shelf.yaml"), "shelf: test\n");
        Files.writeString(
                root.resolve("fixes/good.fix.md"),
                GOOD.replace("returns: text", "returns: text\npromises: [\"" + promise.strip() + "\"]"));
        List<Problem> problems = ShelfReader.read(root).get().problems();
        assertThat(problems.stream().map(p -> p.words() + ": " + p.what()).toList())
                .isEqualTo(problem == null ? List.of() : List.of(promise.strip() + ": " + problem.strip()));
    }

    @ParameterizedTest
    @CsvSource({"begin, ''", "later, There is no dataset or job later on this shelf."})
    void laterLinesReadWhatStandsAbove(String name, String problem) throws Exception {
        Files.createDirectories(root.resolve("jobs"));
        Files.writeString(root.resolve("shelf.yaml"), "shelf: test\n");
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                "job: job\nlines:\n  - read: {file: a.csv}\n    name: begin\n  - read: " + name
                        + "\n  - first_rows: 1\n    name: later\noutputs:\n  - write: out.csv\n");
        assertThat(ShelfReader.read(root).get().problems())
                .extracting(Problem::what)
                .isEqualTo(problem.isEmpty() ? List.of() : List.of(problem));
    }
}
