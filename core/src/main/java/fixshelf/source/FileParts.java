package fixshelf.source;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/// The tables that a file holds, where it may hold several: those on the pages of a PDF or of a
/// page of the web, the sheets and named tables of
/// a workbook, the tables of a database. Each comes with its first rows, to be chosen by sight.
public final class FileParts {
    /// As many rows of a table are shown.
    public static final int SHOWN_ROWS = 7;

    /// Further rows are not counted.
    private static final int MOST_COUNTED = 20_000;
    private static final int MOST_PARTS = 200;

    private final Path file;
    private final ReadOptions options;
    private final List<Part> parts = new ArrayList<>();

    private FileParts(Path file, ReadOptions options) {
        this.file = file;
        this.options = options;
    }

    /// A table of a file.
    ///
    /// @param title which one it is, as `page 2, table 1`
    /// @param size how many rows and columns it has, in words; or why it cannot be read
    /// @param options what reads it
    /// @param first its names and first rows
    public record Part(
            String title, String size, ReadOptions options, List<String> names, List<List<@Nullable String>> first) {
        public Part {
            names = List.copyOf(names);
            first = List.copyOf(first);
        }

        /// The same, read so.
        public Part reading(ReadOptions other) {
            return new Part(title, size, other, names, first);
        }

        /// Whether there is anything to read.
        public boolean isReadable() {
            return !names.isEmpty();
        }
    }

    /// Whether files of this form may hold several tables.
    public static boolean hasSeveral(ReadOptions options) {
        return options.form()
                .map(f -> f instanceof ReadOptions.Form.Pdf
                        || f instanceof ReadOptions.Form.Html
                        || f instanceof ReadOptions.Form.Workbook
                        || f instanceof ReadOptions.Form.Database)
                .orElse(false);
    }

    /// The tables of a file; one that cannot be read is a problem. Other kinds of files are one table.
    ///
    /// @param options how it is read; what they say of a table, a sheet or pages is left aside
    public static Outcome<List<Part>> of(Path file, ReadOptions options) {
        FileParts found = new FileParts(file, options);
        try {
            switch (options.form().orElse(new ReadOptions.Form.Delimited())) {
                case ReadOptions.Form.Pdf _ -> found.ofPdf();
                case ReadOptions.Form.Html _ ->
                    found.ofPage(
                            new PageTables(
                                    HtmlRecords.page(file), file.getFileName().toString()),
                            ReadOptions.Form.Html::new);
                case ReadOptions.Form.Workbook form -> found.ofWorkbook(form);
                case ReadOptions.Form.Database form -> found.ofDatabase(form);
                default -> {}
            }
            return Outcome.of(found.parts);
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        } catch (IOException e) {
            return Outcome.failed(SourceFile.unreadable(file, e));
        }
    }

    private void ofPdf() throws IOException {
        List<PdfRecords.Found> tables = PdfRecords.tables(file, "");
        boolean several = tables.size() > 1 && tables.stream().allMatch(t -> t.number() == 1);
        if (several) {
            try {
                ReadOptions all = options.withForm(new ReadOptions.Form.Pdf("", 0));
                read("all pages together", all, () -> new PdfRecords(file, all, tables));
            } catch (ProblemException e) {
                // Tables that are not equally wide are none together.
                parts.clear();
            }
        }
        for (PdfRecords.Found table : tables.stream().limit(MOST_PARTS).toList()) {
            ReadOptions one = options.withForm(new ReadOptions.Form.Pdf(String.valueOf(table.page()), table.number()));
            add(
                    "page " + table.page() + ", table " + table.number(),
                    one,
                    () -> new PdfRecords(file, one, List.of(table)));
        }
    }

    /// The tables of a page of the web.
    ///
    /// @param form reads the table of a number, from 1
    public static Outcome<List<Part>> of(
            PageTables page, ReadOptions options, Function<String, ReadOptions.Form> form) {
        FileParts found = new FileParts(Path.of("page"), options);
        try {
            found.ofPage(page, form);
            return Outcome.of(found.parts);
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        } catch (IOException e) {
            throw new UncheckedIOException("a page that was read is not read again", e);
        }
    }

    private void ofPage(PageTables page, Function<String, ReadOptions.Form> form) throws IOException {
        if (page.count() == 0) {
            // Says that there is none.
            page.rows("");
        }
        for (int i = 1; i <= Math.min(MOST_PARTS, page.count()); i++) {
            String number = String.valueOf(i);
            ReadOptions one = options.withForm(form.apply(number));
            String title = page.title(i);
            add(
                    "table " + number + (title.isEmpty() ? "" : ", " + title),
                    one,
                    () -> new HtmlRecords(page, one, number));
        }
    }

    private void ofWorkbook(ReadOptions.Form.Workbook form) throws IOException {
        for (String sheet : WorkbookRecords.sheets(file)) {
            add("sheet " + sheet, options.withForm(block(form, sheet, "")));
        }
        for (WorkbookParts.Table table : WorkbookParts.read(file).tables()) {
            add(
                    "table " + table.name() + ", " + table.block() + " of " + table.sheet(),
                    options.withForm(block(form, "", table.name())));
        }
    }

    private static ReadOptions.Form.Workbook block(ReadOptions.Form.Workbook form, String sheet, String block) {
        return new ReadOptions.Form.Workbook(sheet, block, form.errorsAsText(), form.serials());
    }

    private void ofDatabase(ReadOptions.Form.Database form) throws IOException {
        for (String table : new DatabaseFile(file, form).tables()) {
            add("table " + table, options.withForm(new ReadOptions.Form.Database(form.engine(), table, "")));
        }
    }

    /// Opens the rows of a part.
    private interface Opening {
        Records open() throws IOException;
    }

    private void add(String title, ReadOptions of) throws IOException {
        add(title, of, () -> SourceFile.records(file, of));
    }

    /// A part that cannot be read says why.
    private void add(String title, ReadOptions of, Opening opening) throws IOException {
        try {
            read(title, of, opening);
        } catch (ProblemException e) {
            parts.add(new Part(title, e.problem().what(), of, List.of(), List.of()));
        }
    }

    /// Reads the first rows of a part, and counts the others.
    private void read(String title, ReadOptions of, Opening opening) throws IOException {
        Optional<String> wider = Optional.empty();
        try (Records records = opening.open()) {
            List<List<@Nullable String>> first = new ArrayList<>();
            int rows = 0;
            int wrong = 0;
            Optional<Records.Row> row = records.next();
            for (; row.isPresent() && rows < MOST_COUNTED; row = records.next()) {
                rows++;
                wrong += row.get().wrong().isEmpty() ? 0 : 1;
                if (first.size() < SHOWN_ROWS) {
                    first.add(row.get().cells());
                }
            }
            parts.add(new Part(
                    title, size(rows, row.isPresent(), records.names().size(), wrong), of, records.names(), first));
            if (row.isEmpty() && records instanceof WorkbookRecords sheet) {
                wider = sheet.wider();
            }
        }
        if (wider.isPresent() && of.form().orElseThrow() instanceof ReadOptions.Form.Workbook form) {
            add(title + ", all that is used, " + wider.get(), of.withForm(block(form, form.sheet(), wider.get())));
        }
    }

    private static String size(int rows, boolean more, int columns, int wrong) {
        if (columns == 0) {
            return "nothing in it";
        }
        return String.format(
                        "%s%,d %s of %d %s",
                        more ? "more than " : "",
                        rows,
                        rows == 1 ? "row" : "rows",
                        columns,
                        columns == 1 ? "column" : "columns")
                + (wrong == 0 ? "" : wrong == 1 ? "; 1 row does not fit" : "; " + wrong + " rows do not fit");
    }
}
