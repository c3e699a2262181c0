package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.FixEngines;
import fixshelf.plan.TableExample;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.shelf.TableFixPage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What table fixes promise is tried on made-up tables, and the smallest that breaks it is shown; cases that end in a
/// problem are held to its words.
class TablePromisesTest {
    @TempDir
    Path root;

    private static final String CASE = "given\n\n| k | n: integer |\n|---|---|\n| 'ab' | 1 |\n\n"
            + "gives\n\n| k | n: integer |\n|---|---|\n| 'ab' | 1 |\n";

    private TableFixPage page(Shelf shelf) {
        return shelf.tableFix("it").orElseThrow();
    }

    private Shelf shelf(String promises, String lines, String example) throws Exception {
        Files.writeString(root.resolve("shelf.yaml"), "shelf: x\n");
        Files.createDirectories(root.resolve("fixes"));
        Files.writeString(
                root.resolve("fixes/it.fix.md"),
                "---\nformat: 2\nfix: it\nkind: table\nreads: it {key}\nparameters:\n  key: {type: columns, about: K.}\n"
                        + "promises: [" + promises + "]\n---\n# It\n\nWords.\n\n```yaml\n- "
                        + lines.replace("; ", "\n  ").replace(" // ", "\n- ")
                        + "\n```\n\n## Cases\n\n### One\n\nwith\n\n| key |\n|---|\n| k |\n\n" + example);
        return ShelfReader.read(root).get();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "drop_repeats: [\"{key}\"]; keep: first | unique_by key | ",
                "drop_repeats: [\"{key}\"]; keep: first | rows_not_more | ",
                "drop_repeats: [\"{key}\"]; keep: first | rows_once | ",
                "drop_repeats: [\"{key}\"]; keep: first | columns_kept | ",
                "drop_repeats: [\"{key}\"]; keep: first | idempotent | ",
                "drop_repeats: [\"{key}\"]; keep: first | rows_kept | As many rows come out as went in, but of a table with 2 rows come 1: 'a' 0, 'a' 0",
                "trim: [\"{key}\"] | unique_by key | No two rows with the same key, but of a table with 2 rows several have 'a': 'a' 0, 'a' 0",
                "trim: [\"{key}\"] | filled n | Never missing: n, but of a table with 1 row row 1 that comes out has none: 'a' NULL",
                "set: [\"{key}\"]; to: substr(it, 2) | idempotent | Twice is the same as once, but of a table with 1 row the first time gives ",
                "drop: [\"{key}\"] | columns_kept | Every column is still there, but of a table with 0 rows the column k is gone: ",
                "drop: [\"{key}\"] | filled key | Never missing: key: there is no parameter or column key that comes out",
                "put_under: given | rows_not_more | No more rows come out than went in: it takes none of the made-up tables: ",
                "columns_to_rows: [\"{key}\"]; names_in: part; values_in: what | rows_once | Each row comes out once or leaves, none is new: that cannot be said",
                "make_sure_filled: [\"{key}\"] | filled key | "
            })
    void holdOrShowTheSmallestTableThatBreaksThem(String lines, String promise, String broken) throws Exception {
        String trim = lines.startsWith("trim") ? "set: [\"{key}\"]; to: trim(it)" : lines;
        Shelf shelf = shelf('"' + promise + '"', trim, CASE);
        assertThat(page(shelf).problems()).isEmpty();
        TablePromiseResult result = TablePromises.run(shelf, page(shelf)).getFirst();
        String cells = result.broken()
                .map(b -> ": "
                        + String.join(
                                ", ",
                                b.given().rows().stream()
                                        .map(r -> String.join(" ", r))
                                        .toList()))
                .orElse("");
        if (broken == null) {
            assertThat(result.holds()).as(result.sentence()).isTrue();
            assertThat(result.tables()).isPositive();
        } else {
            assertThat(result.sentence() + cells).startsWith(broken.strip());
            assertThat(result.holds()).isFalse();
        }
    }

    @Test
    void areWrittenInKnownWords() throws Exception {
        assertThat(page(shelf("nice, unique_by, rows_kept key", "drop: [n]", CASE))
                        .problems())
                .extracting(Problem::what)
                .containsExactly(
                        "This is no promise of a table fix: nice.",
                        "This is no promise of a table fix: unique_by.",
                        "This is no promise of a table fix: rows_kept key.");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "make_sure_filled: [\"{key}\"] | NULL | breaks it, line 1 | ● same",
                "make_sure_filled: [\"{key}\"] | NULL | twice | ▲ stops",
                "make_sure_filled: [\"{key}\"] | 'a' | breaks it, line 1 | ▲ stops",
                "drop: [\"{key}\", not_there] | 'a' | no column not_there | ● same"
            })
    void casesMayEndInAProblem(String lines, String cell, String words, String mark) throws Exception {
        Shelf shelf = shelf(
                "",
                lines,
                "given\n\n| k | n |\n|---|---|\n| " + cell + " | '1' |\n\nstops\n\n| problem |\n|---|\n| " + words
                        + " |\n");
        assertThat(page(shelf).problems()).isEmpty();
        TableExample example = page(shelf).cases().getFirst();
        assertThat(example.stops()).isEqualTo(words);
        assertThat(OperationExamples.in(
                                FixEngines.ALL.getFirst(),
                                OperationExamples.of(shelf.operation(page(shelf)), shelf.callables())
                                        .get())
                        .getFirst()
                        .mark())
                .isEqualTo(mark);
    }

    /// The heading of what a case gives is held against the columns that come out, and one case that cannot be tried
    /// does not hide the others.
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "k, n | ● same",
                "k, n, more | come out are k, n, not k, n, more.",
                "k | come out are k, n, not k.",
                "n, k | come out are k, n, not n, k.",
                "K, n | come out are k, n, not K, n.",
                "k, n: integer | come out are k, n, not k, n integer.",
                "k: text, n: text | ● same"
            })
    void casesCompareColumns(String heading, String result) throws Exception {
        int width = heading.split(",").length;
        String table = "| " + heading.strip().replace(", ", " | ") + " |\n" + "|---".repeat(width) + "|\n";
        Shelf shelf = shelf(
                "",
                "sort: [\"{key}\"]",
                "given\n\n| k | n |\n|---|---|\n| 'a' | '1' |\n\ngives\n\n" + table
                        + "| 'a' " + (heading.contains("integer") ? "| NULL " : "| '1' ").repeat(width - 1)
                        + "|\n\n### Another\n\ngiven\n\n| n |\n|---|\n| 'a' |\n"
                        + "\ngives\n\n| n |\n|---|\n| 'a' |\n");
        List<JobParity> results = OperationExamples.in(
                FixEngines.ALL.getFirst(),
                OperationExamples.of(shelf.operation(page(shelf)), shelf.callables())
                        .get());
        assertThat(results.getFirst().mark() + " " + results.getFirst().detail())
                .contains(result.strip());
        assertThat(results.getLast().detail()).contains("needs key");
        // On the board of languages the fix does not hold either.
        assertThat(OperationExamples.check(shelf.operation(page(shelf)), shelf.callables(), FixEngines.ALL.getFirst())
                        .isSame())
                .isFalse();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "sort: [\"{key}\"] | ",
                "sort: [\"{key}\", nosuch] | nosuch: There is no column nosuch",
                "sort: [\"{key}\"] // add: {x: uper('a')} | uper: no function uper",
                "sort: [n] | n: There is no column n at this line. Columns of the table that comes in are known through parameters only",
                "nosuch: [\"{key}\"] | nosuch: [\"{key}\"]: There is no fix or operation nosuch",
                // Also below a line that asks the data, and in it.
                "leave_out_blank_columns: {every: true} // sort: [gone] | gone: There is no column gone",
                "heading_row: 1 // sort: [gone] | gone: There is no column gone",
                "leave_out_blank_columns: {every: true} // heading_row: 1 // add: {v: low('a')} | low: no function low",
                // All of them, and what only waits for one says so.
                "sort: [y] // add: {x: uper('a')} // sort: [x] // sort: [z] | y: There is no column y ## uper: no function uper ## x: Line 3 waits for line 2 ## z: There is no column z"
            })
    void linesAreCheckedAsCasesCallThem(String lines, String problem) throws Exception {
        Shelf shelf = shelf("", lines, CASE);
        List<String> found =
                OperationExamples.problemsOfLines(
                                shelf.operation(page(shelf)), page(shelf).source(), shelf.callables())
                        .stream()
                        .map(p -> p.words() + ": " + p.sentence().replaceFirst("^.*?, line \\d+: ", ""))
                        .toList();
        if (problem == null) {
            assertThat(found).isEmpty();
        } else {
            List<String> wanted = List.of(problem.strip().split(" ## "));
            assertThat(found).hasSameSizeAs(wanted);
            for (int i = 0; i < wanted.size(); i++) {
                assertThat(found.get(i)).startsWith(wanted.get(i));
            }
        }
    }

    @ParameterizedTest
    @CsvSource({"unique_by key,", "filled n,", "filled N k,", "'unique_by k, nosuch', nosuch", "filled keys, keys"})
    void promisesSpeakOfColumnsThatComeOut(String promise, String wrong) throws Exception {
        Shelf shelf = shelf("\"" + promise + "\"", "sort: [\"{key}\"]", CASE);
        TableFixPage page = page(shelf);
        List<Problem> found = OperationExamples.problemsOfLines(
                shelf.operation(page), page.source(), page.promises(), shelf.callables());
        assertThat(found.stream().map(p -> p.words() + ": " + p.what()).toList())
                .isEqualTo(
                        wrong == null
                                ? List.of()
                                : List.of(promise + ": Something is promised of " + wrong
                                        + ", which is no parameter, and no column that comes out."));
    }

    /// What is wrong in the tables of a case is said at its cell; the case is left out, and never runs half.
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "given/k,n/'a',1;gives/k,n/'a',1 | ",
                "given/k,n/'a',x;gives/k,n/'a',1 | x: This is not a constant.",
                "given/k,n/'a';gives/k,n/'a',1 | ¦ 'a' ¦: This row has 1 cell, the heading has 2.",
                "given/k,K/'a',1;gives/k,n/'a',1 | K: The column K stands twice.",
                "given/k,/'a',1;gives/k,n/'a',1 | : A column has no name.",
                "given/k,n: integr/'a',1;gives/k,n/'a',1 | n: integr: There is no type integr.",
                "given/k,n: integer/'a','1';gives/k,n/'a',1 | '1': This is text, asked for is integer.",
                "given/k,n/'a',ARRAY[1];gives/k,n/'a',1 | ARRAY[1]: This is not a constant.",
                "given/k,n/'a',1;gives/k,n/'a',1;gives/k,n/'a',2 | ¦ k ¦ n ¦: It is not said which table of the case this is, or there is one already.",
                "given/k,n/'a',1;some words/k,n/'a',1 | ¦ k ¦ n ¦: It is not said which table"
            })
    void casesAreReadWhole(String tables, String problem) throws Exception {
        StringBuilder example = new StringBuilder();
        for (String table : tables.strip().split(";")) {
            String[] parts = table.split("/");
            String[] heading = parts[1].split(",", -1);
            example.append(parts[0])
                    .append("\n\n| ")
                    .append(String.join(" | ", heading))
                    .append(" |\n")
                    .append("|---".repeat(heading.length))
                    .append("|\n| ")
                    .append(parts[2].replace(",", " | "))
                    .append(" |\n\n");
        }
        TableFixPage page = page(shelf("", "sort: [\"{key}\"]", example.toString()));
        if (problem == null) {
            assertThat(page.problems()).isEmpty();
            assertThat(page.cases()).hasSize(1);
        } else {
            assertThat(page.problems()).first().satisfies(p -> assertThat(
                            (p.words().lines().findFirst().orElse("") + ": " + p.what()).replace('|', '¦'))
                    .startsWith(problem.strip()));
            assertThat(page.cases()).isEmpty();
        }
    }
}
