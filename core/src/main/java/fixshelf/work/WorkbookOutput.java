package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.QueuedRows;
import fixshelf.engine.RowSink;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.table.Field;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import fixshelf.type.Visible;
import fixshelf.type.WorkbookText;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.dhatim.fastexcel.Worksheet;
import org.jspecify.annotations.Nullable;

/// Rows as a sheet of a workbook: texts stay texts, also `007`; numbers are numbers, days and moments are such; what
/// is missing is an empty cell, and so is an empty text. What a workbook cannot hold is counted before anything is
/// written, and stops the run: it would be cut, rounded or refused without a word.
final class WorkbookOutput {
    static final int MOST_ROWS = 1_048_576;
    static final int MOST_COLUMNS = 16_384;
    private static final int MOST_LETTERS = 32_767;
    private static final int FLUSH = 1_000;
    private static final int MOST_SHARED = 100_000;
    private static final String DIGITS = "999999999999999";
    private static final double MOST_EXACT = 999_999_999_999_999d;
    private static final int MOST_DIGITS = 15;
    private static final LocalDate FIRST_DAY = LocalDate.of(1900, 3, 1);

    /// In a thousandth of a second.
    private static final int NANOS = 1_000_000;

    private static final String CANNOT_HOLD = "[\\x00-\\x08\\x0B\\x0C\\x0E-\\x1F\\x{FFFE}\\x{FFFF}]";

    private final DuckSession session;
    private final Path target;
    private final List<Field> fields;
    private final String query;
    private final boolean asText;
    private long texts;

    /// @param target the file as it will be called
    /// @param query gives the fields, called by their keys, in order
    /// @param asText whether numbers and days that it cannot hold are written as texts
    WorkbookOutput(DuckSession session, Path target, List<Field> fields, String query, boolean asText) {
        this.session = session;
        this.asText = asText;
        this.target = target;
        this.fields = fields;
        this.query = query;
    }

    /// How many numbers and days became texts.
    long texts() {
        return texts;
    }

    /// Writes the rows into a sheet, which is finished then.
    void write(Worksheet sheet) {
        wantRoom();
        try {
            for (int c = 0; c < fields.size(); c++) {
                sheet.value(0, c, WorkbookText.write(fields.get(c).name()));
            }
            try (QueuedRows<Object> rows = new QueuedRows<>(() -> new Cells(sheet))) {
                session.each(query, rows::add);
            }
            sheet.finish();
        } catch (IOException | UncheckedIOException e) {
            throw new ProblemException(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    target.toString(),
                    target.getFileName() + " could not be written: " + e.getMessage() + ".",
                    "Look at the room on the disk."));
        }
    }

    /// The cells of a sheet below its heading.
    private final class Cells implements RowSink<Object> {
        private final Worksheet sheet;
        /// Texts that stand in the file once, where all their cells point. What comes later stands in its cell.
        private final Set<String> shared = new HashSet<>();

        private int row;

        private Cells(Worksheet sheet) {
            this.sheet = sheet;
        }

        @Override
        public void add(List<@Nullable Object> cells) {
            row++;
            for (int c = 0; c < cells.size(); c++) {
                if (cells.get(c) instanceof String text) {
                    put(c, text);
                } else {
                    WorkbookOutput.this.put(sheet, row, c, cells.get(c));
                }
            }
            if (row % FLUSH == 0) {
                try {
                    sheet.flush();
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            }
        }

        private void put(int column, String text) {
            if (text.isEmpty()) {
                return;
            }
            String written = WorkbookText.write(text);
            if (isShared(written)) {
                sheet.value(row, column, written);
            } else {
                sheet.inlineString(row, column, written);
            }
        }

        private boolean isShared(String text) {
            if (shared.size() < MOST_SHARED) {
                shared.add(text);
                return true;
            }
            return shared.contains(text) || isReadInWays(text);
        }

        @Override
        public void close() {}
    }

    /// Whether some program leaves out spaces of a text that stands in its cell, or shows how a sign is written there.
    private static boolean isReadInWays(String text) {
        boolean spaced = text.contains("_x");
        for (int i = 0; i < text.length() && !spaced; i++) {
            boolean edge = i == 0 || i == text.length() - 1;
            char sign = text.charAt(i);
            spaced = sign < ' ' || sign == ' ' && (edge || text.charAt(i + 1) == ' ');
        }
        return spaced;
    }

    private void put(Worksheet sheet, int row, int column, @Nullable Object value) {
        switch (value) {
            case null -> {}
            case LocalDate day when asText && day.isBefore(FIRST_DAY) -> text(sheet, row, column, day.toString());
            case LocalDateTime moment
            when asText && (moment.toLocalDate().isBefore(FIRST_DAY) || moment.getNano() % NANOS != 0) ->
                text(sheet, row, column, Literals.time(moment));
            case Long whole
            when asText && Math.abs((double) whole) > MOST_EXACT -> text(sheet, row, column, whole.toString());
            case BigDecimal exact
            when asText && exact.precision() > MOST_DIGITS -> text(sheet, row, column, exact.toPlainString());
            case Boolean truth -> sheet.value(row, column, truth);
            case LocalDate day -> {
                sheet.value(row, column, day);
                sheet.style(row, column).format("yyyy-mm-dd").set();
            }
            case LocalDateTime moment -> {
                sheet.value(row, column, moment);
                String part = moment.getNano() == 0 ? "" : ".000";
                sheet.style(row, column).format("yyyy-mm-dd hh:mm:ss" + part).set();
            }
            case Number number -> sheet.value(row, column, number);
            default -> sheet.value(row, column, value.toString());
        }
    }

    private void text(Worksheet sheet, int row, int column, String written) {
        sheet.value(row, column, written);
        texts++;
    }

    private void wantRoom() {
        List<String> wrong = new ArrayList<>();
        if (fields.size() > MOST_COLUMNS) {
            wrong.add(String.format("%,d columns, and it holds %,d", fields.size(), MOST_COLUMNS));
        }
        long rows = session.number("SELECT count(*) FROM (" + query + ")");
        if (rows >= MOST_ROWS) {
            wrong.add(String.format("%,d rows, and it holds %,d below the heading", rows, MOST_ROWS - 1));
        }
        Pattern cannotHold = Pattern.compile(CANNOT_HOLD);
        fields.stream()
                .map(Field::name)
                .filter(n -> n.length() > MOST_LETTERS || cannotHold.matcher(n).find())
                .forEach(n -> wrong.add("the name of the column " + Visible.markOddities(n)));
        List<String> counts = new ArrayList<>();
        List<String> words = new ArrayList<>();
        boolean fit = textsFit();
        for (Field field : fields) {
            String key = field.key();
            switch (field.type()) {
                case Type.Text _, Type.Unknown _ when fit -> {}
                case Type.Text _, Type.Unknown _ -> {
                    counts.add(tooLong(key));
                    words.add("texts longer than 32,767 characters in " + field.name());
                    counts.add("regexp_matches(" + key + ", " + DuckSession.text(CANNOT_HOLD) + ")");
                    words.add("texts with signs that it cannot hold in " + field.name());
                }
                case Type.Int _, Type.Decimal _, Type.Date _, Type.Timestamp _ when asText -> {}
                case Type.Int _ -> {
                    counts.add(key + " > " + DIGITS + " OR " + key + " < -" + DIGITS);
                    words.add("numbers of more than 15 digits in " + field.name());
                }
                case Type.Decimal(int precision, int scale)
                when precision > 15 -> {
                    counts.add("abs(" + key + ") >= " + decimals(scale));
                    words.add("numbers of more than 15 digits in " + field.name());
                }
                case Type.Date _, Type.Timestamp _ -> {
                    counts.add(key + " < DATE '1900-03-01'");
                    words.add("days before 1900-03-01 in " + field.name());
                    if (field.type() instanceof Type.Timestamp) {
                        counts.add("microsecond(" + key + ") % 1000 <> 0");
                        words.add("times finer than a thousandth of a second in " + field.name());
                    }
                }
                default -> {}
            }
        }
        if (!counts.isEmpty()) {
            String sums = String.join(
                    ", ",
                    counts.stream()
                            .map(c -> "count(*) FILTER (WHERE " + c + ")")
                            .toList());
            List<@Nullable Object> found = session.query("SELECT " + sums + " FROM (" + query + ")")
                    .rows()
                    .getFirst();
            for (int i = 0; i < found.size(); i++) {
                long count = ((Number) Objects.requireNonNull(found.get(i))).longValue();
                if (count > 0) {
                    String of = words.get(i);
                    wrong.add(String.format("%,d %s", count, count == 1 ? of.replaceFirst("s\\b", "") : of));
                }
            }
        }
        if (!wrong.isEmpty()) {
            throw new ProblemException(Problem.about(
                    Code.CANNOT_HOLD,
                    target.toString(),
                    "A workbook cannot hold this: " + String.join("; ", wrong) + ".",
                    "Numbers and days can be texts there, with `cannot_hold: text`; leave out what is too long, or write .csv"
                            + " or .parquet. Nothing was written."));
        }
    }

    /// Whether it holds all texts, asked of each row at once; where it does not, they are counted by column.
    private boolean textsFit() {
        List<String> texts = fields.stream()
                .filter(f -> f.type() instanceof Type.Text || f.type() instanceof Type.Unknown)
                .map(Field::key)
                .toList();
        if (texts.isEmpty()) {
            return true;
        }
        String all = String.join(", ", texts);
        String longest =
                texts.stream().map(k -> "strlen(" + k + ") > " + MOST_LETTERS).collect(Collectors.joining(" OR "));
        return session.number("SELECT count(*) FROM (" + query + ") WHERE " + longest + " OR regexp_matches(concat("
                        + all + "), " + DuckSession.text(CANNOT_HOLD) + ")")
                == 0;
    }

    /// Whether a text is too long; a workbook counts letters beyond the basic plane twice.
    private static String tooLong(String key) {
        return "length(" + key + ") > " + MOST_LETTERS / 2 + " AND length(" + key + ") + length(regexp_replace(" + key
                + ", '[^\\x{10000}-\\x{10FFFF}]', '', 'g')) > " + MOST_LETTERS;
    }

    /// From which on a number with so many decimals has more than 15 digits.
    private static String decimals(int scale) {
        return BigDecimal.ONE.movePointRight(15 - scale).toPlainString();
    }
}
