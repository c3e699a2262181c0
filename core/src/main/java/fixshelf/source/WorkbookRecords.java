package fixshelf.source;

import fixshelf.language.tree.Names;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.type.WorkbookText;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ExcelReaderException;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Sheet;
import org.dhatim.fastexcel.reader.SheetVisibility;
import org.jspecify.annotations.Nullable;

/// The rows of a sheet of a workbook, or of a block of its cells, as texts: what was worked out by formulas, numbers as
/// the shortest digits that read back the same, days as `2026-03-01`. A cell with an error is missing, and is listed.
///
/// Blank rows at the top and at the end are no rows; one in the middle is a row of missing cells. Columns go from the
/// first to the last that is used in the heading and the first rows; a value right of them later does not fit.
final class WorkbookRecords implements Records {
    private static final int LOOKED_AT = 500;
    private static final int MOST_ERRORS = 20;
    /// How many digits a floating-point number always keeps.
    private static final int EXACT = 15;
    private static final int MOST_DIGITS = 96;
    private static final Pattern ERROR = Pattern.compile("#(NULL!|DIV/0!|VALUE!|REF!|NAME\\?|NUM!|N/A|[A-Z_]+!)");

    private final Path file;
    private final ReadOptions options;
    private final ReadOptions.Form.Workbook form;
    private final ReadableWorkbook workbook;
    private final Stream<org.dhatim.fastexcel.reader.Row> stream;
    private final Iterator<org.dhatim.fastexcel.reader.Row> rows;
    private final String sheet;
    private final Optional<CellBlock> block;
    private final Deque<Seen> waiting = new ArrayDeque<>();
    private final List<String> names = new ArrayList<>();
    private final List<String> errors = new ArrayList<>();
    /// The cells of the row that is being read which hold an error, by the columns of the sheet.
    private final List<Broken> ofRow = new ArrayList<>();

    private final Map<Format, SerialDay.Shown> formats = new HashMap<>();
    private long errorCount;
    private int first = Integer.MAX_VALUE;
    private int last = -1;
    private int lastRow;
    private int firstRow;
    /// The columns that are used in any of the rows that were read, also where they do not fit.
    private int usedFirst = Integer.MAX_VALUE;

    private int usedLast = -1;

    /// A row as it is read: cells by the number of their column, from 0.
    private record Seen(int number, List<@Nullable String> cells, List<Broken> errors) {
        boolean isBlank() {
            for (@Nullable String cell : cells) {
                if (cell != null && !cell.isEmpty()) {
                    return false;
                }
            }
            return true;
        }

        int lastUsed() {
            for (int i = cells.size() - 1; i >= 0; i--) {
                if (cells.get(i) != null) {
                    return i;
                }
            }
            return -1;
        }

        int firstUsed() {
            for (int i = 0; i < cells.size(); i++) {
                if (cells.get(i) != null) {
                    return i;
                }
            }
            return Integer.MAX_VALUE;
        }
    }

    WorkbookRecords(Path file, ReadOptions options, ReadOptions.Form.Workbook form) throws IOException {
        this.file = file;
        this.options = options;
        this.form = form;
        WorkbookParts parts = WorkbookParts.read(file);
        try {
            this.workbook = new ReadableWorkbook(file.toFile(), new ReadingOptions(true, false));
        } catch (ExcelReaderException | IOException e) {
            throw broken(file);
        }
        try {
            Optional<WorkbookParts.Table> table = parts.table(form.block());
            Sheet chosen = sheet(table.map(WorkbookParts.Table::sheet).orElse(form.sheet()));
            this.sheet = chosen.getName();
            this.block = block(table, parts);
            this.stream = chosen.openStream();
            this.rows = stream.iterator();
            begin();
        } catch (ExcelReaderException e) {
            workbook.close();
            throw broken(file);
        } catch (IOException | ProblemException e) {
            workbook.close();
            throw e;
        }
    }

    static ProblemException broken(Path file) {
        return new ProblemException(Problem.about(
                Code.FILE_BROKEN,
                file.toString(),
                file.getFileName() + " is no whole workbook: it begins like one and cannot be read.",
                "Ask for it again, or open it and save it again as .xlsx."));
    }

    /// The names of the sheets that are shown.
    static List<String> sheets(Path file) throws IOException {
        WorkbookParts.read(file);
        try (ReadableWorkbook workbook = new ReadableWorkbook(file.toFile(), new ReadingOptions(true, false))) {
            return workbook.getSheets()
                    .filter(s -> s.getVisibility() == SheetVisibility.VISIBLE)
                    .map(Sheet::getName)
                    .toList();
        } catch (ExcelReaderException e) {
            throw broken(file);
        }
    }

    /// The sheet that is read.
    String sheet() {
        return sheet;
    }

    /// The block of all cells that are used, once all were read, where it is wider than what is read; else empty.
    Optional<String> wider() {
        return block.isEmpty() && (usedFirst < first || usedLast > last)
                ? Optional.of(CellBlock.column(usedFirst) + firstRow + ":" + CellBlock.column(usedLast)
                        + Math.max(firstRow, lastRow))
                : Optional.empty();
    }

    private Sheet sheet(String name) {
        List<Sheet> all = workbook.getSheets().toList();
        List<Sheet> shown = all.stream()
                .filter(s -> s.getVisibility() == SheetVisibility.VISIBLE)
                .toList();
        if (name.isEmpty()) {
            return shown.stream().findFirst().or(() -> all.stream().findFirst()).orElseThrow(() -> broken(file));
        }
        List<String> names = all.stream().map(Sheet::getName).toList();
        return all.stream()
                .filter(s -> s.getName().equalsIgnoreCase(name))
                .findFirst()
                .orElseThrow(() -> new ProblemException(Problem.about(
                        Code.NO_SUCH,
                        file.toString(),
                        "There is no sheet " + name + " in " + file.getFileName() + ".",
                        Names.suggest(name, names, "Its sheets: " + String.join(", ", names) + "."))));
    }

    private Optional<CellBlock> block(Optional<WorkbookParts.Table> table, WorkbookParts parts) {
        if (form.block().isEmpty()) {
            return Optional.empty();
        }
        Optional<CellBlock> found =
                table.isPresent() ? CellBlock.parse(table.get().block()) : CellBlock.parse(form.block());
        if (found.isEmpty()) {
            List<String> tables =
                    parts.tables().stream().map(WorkbookParts.Table::name).toList();
            throw new ProblemException(Problem.about(
                    Code.NO_SUCH,
                    file.toString(),
                    form.block() + " is no block of cells, and no table of that name is in " + file.getFileName() + ".",
                    Names.suggest(
                            form.block(),
                            tables,
                            tables.isEmpty()
                                    ? "Write it as B4:F40."
                                    : "Write it as B4:F40, or name a table: " + String.join(", ", tables) + ".")));
        }
        return found;
    }

    /// Looks at the first rows for the columns that are used.
    private void begin() throws IOException {
        List<Seen> some = new ArrayList<>();
        while (some.size() < LOOKED_AT && rows.hasNext()) {
            Optional<Seen> seen = read();
            if (seen.isEmpty()) {
                break;
            }
            if (!some.isEmpty() || !seen.get().isBlank()) {
                some.add(seen.get());
            }
        }
        waiting.addAll(some);
        if (block.isPresent()) {
            first = block.get().firstColumn();
            last = block.get().lastColumn();
        } else {
            some.forEach(s -> {
                first = Math.min(first, s.firstUsed());
                last = Math.max(last, s.lastUsed());
            });
        }
        firstRow = waiting.isEmpty() ? 0 : waiting.peekFirst().number();
        if (last < first) {
            return;
        }
        if (options.heading() && !waiting.isEmpty()) {
            List<@Nullable String> cells = fitted(waiting.removeFirst());
            cells.forEach(c -> names.add(c == null ? "" : c));
        } else {
            names.addAll(Collections.nCopies(last - first + 1, ""));
        }
        lastRow = firstRow + (options.heading() ? 0 : -1);
    }

    private List<@Nullable String> fitted(Seen row) {
        if (first == 0 && row.cells().size() == last + 1) {
            return row.cells();
        }
        List<@Nullable String> cells = new ArrayList<>(last - first + 1);
        for (int i = first; i <= last; i++) {
            cells.add(i < row.cells().size() ? row.cells().get(i) : null);
        }
        return cells;
    }

    /// The next row of the sheet inside the block.
    private Optional<Seen> read() {
        try {
            while (rows.hasNext()) {
                org.dhatim.fastexcel.reader.Row row = rows.next();
                int number = row.getRowNum();
                if (block.isPresent() && number > block.get().lastRow()) {
                    return Optional.empty();
                }
                if (block.isEmpty() || number >= block.get().firstRow()) {
                    Seen seen = seen(row);
                    if (!seen.isBlank()) {
                        usedFirst = Math.min(usedFirst, seen.firstUsed());
                        usedLast = Math.max(usedLast, seen.lastUsed());
                    }
                    return Optional.of(seen);
                }
            }
            return Optional.empty();
        } catch (ExcelReaderException e) {
            throw broken(file);
        }
    }

    private Seen seen(org.dhatim.fastexcel.reader.Row row) {
        List<@Nullable String> cells = new ArrayList<>();
        for (Cell cell : row) {
            if (cell != null && cell.getType() != CellType.EMPTY) {
                int at = cell.getColumnIndex();
                while (cells.size() < at) {
                    cells.add(null);
                }
                boolean inside = block.isEmpty()
                        || at >= block.get().firstColumn() && at <= block.get().lastColumn();
                cells.add(inside ? text(cell) : null);
            }
        }
        List<Broken> broken = ofRow.isEmpty() ? List.of() : List.copyOf(ofRow);
        ofRow.clear();
        return new Seen(row.getRowNum(), cells, broken);
    }

    private @Nullable String text(Cell cell) {
        Object value = cell.getValue();
        if (cell.getType() == CellType.FORMULA && value == null) {
            return error(cell, "a formula without a stored value");
        }
        if (value instanceof BigDecimal number) {
            return form.serials()
                    ? digits(number)
                    : SerialDay.text(number, shown(cell), workbook.isDate1904()).orElseGet(() -> digits(number));
        }
        if (value instanceof Boolean truth) {
            return truth.toString();
        }
        String text = value == null ? "" : WorkbookText.read(value.toString());
        boolean error = cell.getType() == CellType.ERROR
                || cell.getType() == CellType.FORMULA && ERROR.matcher(text).matches();
        if (error) {
            return error(cell, text.isEmpty() ? String.valueOf(cell.getRawValue()) : text);
        }
        return options.nullWords().contains(text) ? null : text;
    }

    /// What the format of a cell makes of its number; a workbook has few formats.
    private SerialDay.Shown shown(Cell cell) {
        Integer id = cell.getDataFormatId();
        String format = cell.getDataFormatString();
        return id == null && format == null
                ? SerialDay.Shown.NUMBER
                : formats.computeIfAbsent(
                        new Format(id, format), _ -> SerialDay.shown(format == null ? "" : format, id));
    }

    private record Format(@Nullable Integer id, @Nullable String text) {}

    private @Nullable String error(Cell cell, String what) {
        errorCount++;
        if (errors.size() < MOST_ERRORS) {
            errors.add(cell.getAddress() + " " + what);
        }
        if (form.errorsAsText()) {
            return what;
        }
        ofRow.add(new Broken(cell.getColumnIndex(), cell.getAddress() + " " + what));
        return null;
    }

    /// The shortest digits that read back the same; without a power of ten, unless they were more than a hundred.
    static String digits(BigDecimal number) {
        // Two numbers of at most 15 digits never mean the same floating-point number, so that these are the shortest.
        BigDecimal shortest = number.precision() <= EXACT && Math.abs(number.scale()) < 300 - EXACT
                ? number
                : new BigDecimal(Double.toString(number.doubleValue()));
        if (shortest.signum() == 0) {
            return "0";
        }
        BigDecimal bare = shortest.stripTrailingZeros();
        boolean isLong = Math.max(bare.precision() - bare.scale(), bare.scale()) > MOST_DIGITS;
        return isLong ? bare.toString().toLowerCase(Locale.ROOT) : bare.toPlainString();
    }

    @Override
    public List<String> names() {
        return names;
    }

    private int blanks;
    private @Nullable Seen after;

    @Override
    public Optional<Row> next() {
        if (names.isEmpty()) {
            return Optional.empty();
        }
        if (after == null) {
            Optional<Seen> found = nextUsed();
            if (found.isEmpty()) {
                return Optional.empty();
            }
            after = found.get();
            blanks = Math.max(0, after.number() - lastRow - 1);
        }
        if (blanks > 0) {
            blanks--;
            lastRow++;
            return Optional.of(new Row(lastRow, new ArrayList<>(Collections.nCopies(names.size(), null))));
        }
        Seen row = after;
        after = null;
        lastRow = row.number();
        int beyond = row.lastUsed();
        String wrong = block.isEmpty() && beyond > last
                ? "it has a value right of the last column, in " + CellBlock.column(beyond) + row.number()
                : block.isEmpty() && row.firstUsed() < first
                        ? "it has a value left of the first column, in " + CellBlock.column(row.firstUsed())
                                + row.number()
                        : "";
        List<Broken> broken = row.errors().isEmpty()
                ? List.of()
                : row.errors().stream()
                        .filter(e -> e.column() >= first && e.column() <= last)
                        .map(e -> new Broken(e.column() - first, e.words()))
                        .toList();
        return Optional.of(new Row(row.number(), fitted(row), wrong, broken));
    }

    /// The next row that is not blank.
    private Optional<Seen> nextUsed() {
        while (true) {
            Optional<Seen> row = waiting.isEmpty() ? read() : Optional.of(waiting.removeFirst());
            if (row.isEmpty() || !row.get().isBlank()) {
                return row;
            }
        }
    }

    @Override
    public List<String> notes(boolean whole) {
        List<String> notes = new ArrayList<>();
        if (last >= first) {
            String extent =
                    CellBlock.column(first) + firstRow + ":" + CellBlock.column(last) + Math.max(firstRow, lastRow);
            notes.add("Sheet " + sheet + ", " + extent + (whole ? " is used." : " was looked at."));
        }
        if (errorCount > 0) {
            notes.add((errorCount == 1 ? "1 cell holds an error: " : errorCount + " cells hold an error: ")
                    + String.join(", ", errors) + (errorCount > errors.size() ? " …" : "") + ".");
        }
        return notes;
    }

    @Override
    public void close() throws IOException {
        stream.close();
        workbook.close();
    }
}
