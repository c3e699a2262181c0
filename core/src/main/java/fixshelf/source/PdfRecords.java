package fixshelf.source;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import java.util.logging.Level;
import java.util.logging.Logger;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.io.IOUtils;
import org.apache.pdfbox.io.RandomAccessReadBufferedFile;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.encryption.InvalidPasswordException;
import org.jspecify.annotations.Nullable;
import technology.tabula.ObjectExtractor;
import technology.tabula.Page;
import technology.tabula.RectangularTextContainer;
import technology.tabula.Table;
import technology.tabula.extractors.BasicExtractionAlgorithm;
import technology.tabula.extractors.SpreadsheetExtractionAlgorithm;

/// Tables of a PDF: by the lines that rule them, or by the gaps between their columns where a page
/// has no lines. Those of several pages are one table, if they are equally wide; a heading that
/// stands again on a later page is no row.
final class PdfRecords implements Records {
    private static final String FONTS = "pdfbox.fontcache";

    /// What the library says of fonts while it reads is nothing that a user could do something about. Kept, so that it
    /// stays quiet.
    private static final List<Logger> QUIET =
            List.of(Logger.getLogger("org.apache.pdfbox"), Logger.getLogger("org.apache.fontbox"));

    static {
        QUIET.forEach(l -> l.setLevel(Level.OFF));
        // Its list of fonts would otherwise be kept in the home of the user.
        if (System.getProperty(FONTS) == null) {
            System.setProperty(FONTS, System.getProperty("java.io.tmpdir"));
        }
    }

    private static final int MOST_PAGES = 5_000;
    private static final int SHOWN = 12;

    private final List<List<@Nullable String>> rows = new ArrayList<>();
    private final List<Integer> pages = new ArrayList<>();
    private final List<String> names;
    private final int width;
    private final List<String> nullWords;
    private final List<String> notes = new ArrayList<>();
    private int at;

    PdfRecords(Path file, ReadOptions options, ReadOptions.Form.Pdf form) throws IOException {
        this(file, options, chosen(file, tables(file, form.pages()), form.table()));
    }

    /// The rows of tables that were found before.
    PdfRecords(Path file, ReadOptions options, List<Found> found) {
        this.nullWords = options.nullWords();
        for (Found one : found) {
            add(file, one, options.heading());
        }
        width = rows.stream().mapToInt(List::size).max().orElse(0);
        if (options.heading() && !rows.isEmpty()) {
            List<@Nullable String> first = rows.removeFirst();
            pages.removeFirst();
            names = new ArrayList<>();
            for (int i = 0; i < width; i++) {
                String name = i < first.size() ? first.get(i) : null;
                names.add(name == null ? "" : name);
            }
        } else {
            names = java.util.Collections.nCopies(width, "");
        }
    }

    /// A table as it was found.
    ///
    /// @param number on its page, from 1
    record Found(int page, int number, List<List<@Nullable String>> rows) {
        String shown() {
            String begins = rows.stream()
                    .flatMap(r -> r.stream())
                    .filter(java.util.Objects::nonNull)
                    .limit(4)
                    .reduce((a, b) -> a + " | " + b)
                    .orElse("");
            return "page " + page + " table " + number + " (" + begins + "; " + rows.size() + " rows)";
        }
    }

    /// All tables of these pages.
    static List<Found> tables(Path file, String wanted) throws IOException {
        List<Found> all = new ArrayList<>();
        boolean text = false;
        try (PDDocument document = Loader.loadPDF(
                        new RandomAccessReadBufferedFile(file.toFile()), IOUtils.createTempFileOnlyStreamCache());
                ObjectExtractor extractor = new ObjectExtractor(document)) {
            for (int number : numbers(file, wanted, document.getNumberOfPages())) {
                Page page = extractor.extract(number);
                boolean written = !page.getText().isEmpty();
                text |= written;
                List<Table> tables = new ArrayList<>();
                if (written) {
                    SpreadsheetExtractionAlgorithm ruled = new SpreadsheetExtractionAlgorithm();
                    if (ruled.isTabular(page)) {
                        ruled.extract(page).stream()
                                .filter(t -> t.getColCount() > 1 && t.getRowCount() > 1)
                                .forEach(tables::add);
                    }
                    if (tables.isEmpty()) {
                        tables.addAll(new BasicExtractionAlgorithm().extract(page));
                    }
                }
                int[] count = {0};
                for (Table table : tables) {
                    List<List<@Nullable String>> rows = rows(table);
                    if (rows.size() > 1) {
                        all.add(new Found(number, ++count[0], rows));
                    }
                }
            }
        } catch (InvalidPasswordException e) {
            throw problem(
                    file,
                    "can be read with a password only.",
                    "Save a copy without one, in a reader that asks for it.");
        } catch (IOException | IllegalArgumentException | IndexOutOfBoundsException | NullPointerException e) {
            throw problem(file, "is no PDF that can be read, or is cut off or broken.", "Ask for it again.");
        }
        if (!text) {
            throw problem(
                    file,
                    "holds pictures of text, as scanners make them, and no text.",
                    "Ask for the original, or have its text recognised first.");
        }
        if (all.isEmpty()) {
            throw problem(file, "has no table on these pages.", "Name other pages.");
        }
        return all;
    }

    private static List<Integer> numbers(Path file, String written, int count) {
        TreeSet<Integer> numbers = new TreeSet<>();
        if (written.isEmpty()) {
            if (count > MOST_PAGES) {
                throw problem(file, "has more than 5,000 pages.", "Write `pages:` and those that are meant.");
            }
            for (int i = 1; i <= count; i++) {
                numbers.add(i);
            }
        }
        for (String part : written.isEmpty() ? new String[0] : written.split(",")) {
            String[] ends = part.strip().split("-");
            int last = Integer.parseInt(ends[ends.length - 1]);
            if (last > count) {
                throw problem(
                        file,
                        "has " + count + (count == 1 ? " page" : " pages") + ", and no page " + last + ".",
                        "Write other `pages:`.");
            }
            for (int i = Integer.parseInt(ends[0]); i <= last; i++) {
                numbers.add(i);
            }
        }
        return List.copyOf(numbers);
    }

    @SuppressWarnings("rawtypes")
    private static List<List<@Nullable String>> rows(Table table) {
        List<List<@Nullable String>> rows = new ArrayList<>();
        for (List<RectangularTextContainer> line : table.getRows()) {
            List<@Nullable String> row = new ArrayList<>();
            for (RectangularTextContainer cell : line) {
                String text = cell.getText() == null
                        ? ""
                        : cell.getText().replace("\r", "\n").strip();
                row.add(text.isEmpty() ? null : text);
            }
            if (row.stream().anyMatch(java.util.Objects::nonNull)) {
                rows.add(row);
            }
        }
        return rows;
    }

    private static List<Found> chosen(Path file, List<Found> found, int number) {
        List<Found> of = number == 0
                ? found
                : found.stream().filter(f -> f.number() == number).toList();
        boolean several = number == 0 && found.stream().anyMatch(f -> f.number() > 1);
        if (several || of.isEmpty()) {
            throw new ProblemException(Problem.about(
                    Code.NO_SUCH,
                    file.toString(),
                    of.isEmpty()
                            ? "There is no table " + number + " in " + file.getFileName() + "."
                            : "There are several tables on a page of " + file.getFileName()
                                    + ", and none of them is named.",
                    "Write `pages:` and `table:`: "
                            + String.join(
                                    ", ",
                                    found.stream()
                                            .limit(SHOWN)
                                            .map(Found::shown)
                                            .toList())
                            + (found.size() > SHOWN ? ", …" : "") + "."));
        }
        return of;
    }

    private void add(Path file, Found found, boolean heading) {
        List<List<@Nullable String>> more = found.rows();
        if (!rows.isEmpty()) {
            int wide = rows.stream().mapToInt(List::size).max().orElse(0);
            int other = more.stream().mapToInt(List::size).max().orElse(0);
            if (wide != other) {
                throw problem(
                        file,
                        "has tables of different width: " + wide + " columns before, " + other + " on page "
                                + found.page() + ".",
                        "Name pages whose tables belong together.");
            }
            if (heading && more.getFirst().equals(rows.getFirst())) {
                more = more.subList(1, more.size());
                notes.add("The heading stands again on page " + found.page() + ".");
            }
        }
        rows.addAll(more);
        more.forEach(_ -> pages.add(found.page()));
    }

    @Override
    public List<String> names() {
        return names;
    }

    @Override
    public Optional<Row> next() {
        if (at >= rows.size()) {
            return Optional.empty();
        }
        List<@Nullable String> cells = Records.cells(rows.get(at++), width, nullWords);
        return Optional.of(new Row(at, cells));
    }

    @Override
    public List<String> notes(boolean whole) {
        List<String> all = new ArrayList<>();
        if (!pages.isEmpty()) {
            int first = pages.getFirst();
            int last = pages.getLast();
            all.add(first == last ? "Read from page " + first + "." : "Read from pages " + first + " to " + last + ".");
        }
        all.addAll(notes);
        return all;
    }

    @Override
    public void close() {
        // All of it is in memory: a table of a PDF is no larger than what people print.
    }

    private static ProblemException problem(Path file, String what, String todo) {
        return new ProblemException(
                Problem.about(Code.FILE_BROKEN, file.toString(), file.getFileName() + " " + what, todo));
    }
}
