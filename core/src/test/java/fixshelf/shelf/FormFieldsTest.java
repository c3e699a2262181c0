package fixshelf.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.operations.Operations;
import fixshelf.plan.Blank;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What a page says of the file that it reads: the same in a dataset and in the first line of a job, also when it is
/// written again.
class FormFieldsTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                // fields | kind, or the problem | what the card offers beside them
                "heading: false | - | separator quote encoding null_words bad_rows kind",
                "null_words: [x, y] | - | separator quote encoding heading bad_rows kind",
                "separator: ';' | delimited | quote encoding heading null_words bad_rows kind",
                "kind: workbook | workbook | heading null_words bad_rows sheet block cell_errors dates",
                "sheet: A, heading: false, null_words: [n/a] | workbook | bad_rows kind block cell_errors dates",
                "block: B4:F40, cell_errors: text, dates: serials | workbook | heading null_words bad_rows kind sheet",
                "rows: a.b | json | kind each",
                "rows: a.b, each: parts | json | kind",
                "kind: pdf, pages: 2-3, table: 1 | pdf | heading null_words bad_rows",
                "kind: html, table: prices | html | heading null_words bad_rows",
                "kind: web, table: prices, seconds: 5, keep: 7 days | web | heading",
                "kind: postgresql, table: visits, user: u, password_from: P | postgresql | query seconds keep",
                "kind: mariadb, query: SELECT 1, keep: 90 minutes | mariadb | table user password_from seconds",
                "kind: parquet | parquet | ",
                "kind: sqlite, table: visits | sqlite | query",
                "kind: duckdb, query: SELECT 1 | duckdb | table",
                "places: [1, 9] | places | encoding heading null_words bad_rows kind page_heads",
                "kind: nice | There is no kind of file nice here. | ",
                "kind: json, sheet: A | A file of kind json has no sheet. | ",
                "kind: json, null_words: [x] | A file of kind json has no null_words. | ",
                "kind: parquet, separator: ';' | A file of kind parquet has no separator. | ",
                "sheet: A, encoding: utf-8 | A file of kind workbook has no encoding. | ",
                "table: visits | Which kind of database is it? | ",
                "kind: sqlite, table: a, query: SELECT 1 | A table and a query cannot both be read. | ",
                "places: [1, 1] | Places are numbers from 1 on, each greater than the one before, and 1 is not. | ",
                "kind: pdf, pages: 0 | `pages` are numbers from 1. | ",
                "kind: pdf, table: x | A table of a PDF is the number that it has on its page, from 1. | ",
                "kind: web, keep: a while | `keep` says how long a copy is good. | ",
                "kind: mariadb, seconds: 0 | `seconds` is a whole number from 1 to 99999. | ",
                "kind: mariadb, password_from: my secret | `password_from` is the name of a variable of the system, and no password. | ",
                "sheet: A, cell_errors: keep | cell_errors is missing or text. | ",
                "sheet: A, dates: days | dates is dates or serials. | "
            })
    void sayWhatKindOfFileItIs(String fields, String kind, String beside) {
        String[] each = fields.strip().split(", (?=[a-z_]+: )");
        DatasetPage page = dataset("read: data/f\n" + String.join("\n", each) + "\n");
        JobPage job = JobPages.read(
                Path.of("j.yaml"),
                new SourceText("j", "job: j\nlines:\n  - read: {file: data/f, " + String.join(", ", each) + "}\n"));
        String said = page.problems().stream()
                .map(Problem::what)
                .findFirst()
                .orElseGet(() -> page.options().form().map(Form::word).orElse("-"));
        assertThat(said).isEqualTo(kind.strip());
        if (kind.strip().contains(" ")) {
            assertThat(job.problems()).extracting(Problem::what).containsExactly(kind.strip());
            return;
        }
        assertThat(job.problems()).isEmpty();
        ReadOptions line =
                LineFields.options(job.lines().getFirst().line(), page.options().nullWords());
        assertThat(line).isEqualTo(page.options());
        assertThat(dataset(DatasetPages.write("d", page.options())).options()).isEqualTo(written(page.options()));
        assertThat(Operations.find("read_file")
                        .orElseThrow()
                        .blanksBeside(job.lines().getFirst().line())
                        .stream()
                        .map(Blank::name)
                        .filter(b -> job.lines().getFirst().line().written(b).isEmpty())
                        .collect(Collectors.joining(" ")))
                .isEqualTo(beside == null ? "" : beside.strip());
    }

    /// Whoever names a table need not say of which kind, where the name of the place does.
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "data/a.sqlite | sqlite",
                "data/A.SQLITE3 | sqlite",
                "data/a.duckdb | duckdb",
                "data/report.pdf | pdf",
                "https://prices.example/a | web",
                "postgresql://host/base | postgresql",
                "mariadb://host/base | mariadb",
                "data/a.db | Which kind of database is it?"
            })
    void thePlaceOfATableSaysItsKind(String path, String kind) {
        DatasetPage page = dataset("read: " + path + "\ntable: 1\n");
        JobPage job = JobPages.read(
                Path.of("j.yaml"), new SourceText("j", "job: j\nlines:\n  - read: {file: '" + path + "', table: 1}\n"));
        if (kind.contains(" ")) {
            assertThat(page.problems()).extracting(Problem::what).containsExactly(kind);
            assertThat(job.problems()).extracting(Problem::what).containsExactly(kind);
            return;
        }
        assertThat(page.problems()).isEmpty();
        assertThat(page.options().form().map(Form::word)).contains(kind);
        assertThat(LineFields.options(
                        job.lines().getFirst().line(), page.options().nullWords()))
                .isEqualTo(page.options());
    }

    /// Delimited text is written with all that is known of it.
    private static ReadOptions written(ReadOptions options) {
        boolean other =
                options.form().filter(f -> !(f instanceof Form.Delimited)).isPresent();
        return other ? options : options.withForm(new Form.Delimited());
    }

    private static DatasetPage dataset(String text) {
        return DatasetPages.read(Path.of("d.yaml"), new SourceText("d", text), List.of(""));
    }
}
