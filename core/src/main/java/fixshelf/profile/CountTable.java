package fixshelf.profile;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Counts of one, two or three columns. What is missing has a row, a column or a table of its own; combinations that
/// never come stand there with 0.
///
/// @param names the names of the columns that are counted
/// @param sheets one table; several where there is a third column
public record CountTable(CountSpec spec, List<String> names, List<Sheet> sheets) {
    /// As many values may stand in the head of a table.
    public static final int MOST_COLUMNS = 60;

    public static final int MOST_ROWS = 2_000;
    private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);

    public CountTable {
        names = List.copyOf(names);
        sheets = List.copyOf(sheets);
    }

    /// A table of counts.
    ///
    /// @param of the value of the third column; empty where there is none
    /// @param rows the values of the first column, null for missing
    /// @param columns the values of the second column; one that is not shown where there is none
    /// @param counts how many rows there are, by row and column
    public record Sheet(
            Optional<String> of, List<@Nullable String> rows, List<@Nullable String> columns, long[][] counts) {
        long row(int row) {
            return Arrays.stream(counts[row]).sum();
        }

        long column(int column) {
            return Arrays.stream(counts).mapToLong(r -> r[column]).sum();
        }

        public long all() {
            return Arrays.stream(counts).flatMapToLong(Arrays::stream).sum();
        }
    }

    /// What is counted by what: `outcome by village`.
    public String title() {
        return switch (names.size()) {
            case 1 -> names.getFirst();
            case 2 -> names.get(1) + " by " + names.getFirst();
            default -> names.get(1) + " by " + names.getFirst() + ", apart for each " + names.get(2);
        };
    }

    /// A value as its row or column is called.
    public String label(int column, @Nullable String value) {
        if (value == null) {
            return "missing";
        }
        String other = spec.labels()
                .getOrDefault(spec.columns().get(column), java.util.Map.of())
                .get(value);
        if (other != null) {
            return other;
        }
        boolean reads = value.isEmpty() || value.equals("missing") || value.equals("all");
        return reads ? "'" + value + "'" : value;
    }

    /// A table with its head, as it is shown: counts and per cents as the blanks say.
    public List<List<String>> shown(Sheet sheet) {
        return names.size() == 1 ? one(sheet, true) : cross(sheet, true);
    }

    /// The same with plain numbers: counts alone, and for one column per cents without a sign.
    public List<List<String>> numbers(Sheet sheet) {
        return names.size() == 1 ? one(sheet, false) : cross(sheet, false);
    }

    private List<List<String>> one(Sheet sheet, boolean formatted) {
        List<List<String>> lines = new ArrayList<>();
        lines.add(List.of(names.getFirst(), "rows", "per cent", "of what is there"));
        long all = sheet.all();
        long known = all;
        for (int i = 0; i < sheet.rows().size(); i++) {
            known -= sheet.rows().get(i) == null ? sheet.row(i) : 0;
        }
        for (int i = 0; i < sheet.rows().size(); i++) {
            long n = sheet.row(i);
            boolean missing = sheet.rows().get(i) == null;
            lines.add(List.of(
                    label(0, sheet.rows().get(i)),
                    count(n, formatted),
                    percent(n, all, formatted),
                    missing ? "" : percent(n, known, formatted)));
        }
        if (spec.totals().ofColumns()) {
            lines.add(List.of(
                    "all", count(all, formatted), percent(all, all, formatted), percent(known, known, formatted)));
        }
        return lines;
    }

    private List<List<String>> cross(Sheet sheet, boolean formatted) {
        List<List<String>> lines = new ArrayList<>();
        List<String> head = new ArrayList<>(List.of(names.getFirst()));
        sheet.columns().forEach(c -> head.add(label(1, c)));
        if (spec.totals().ofRows()) {
            head.add("all");
        }
        lines.add(head);
        for (int r = 0; r < sheet.rows().size(); r++) {
            List<String> line = new ArrayList<>(List.of(label(0, sheet.rows().get(r))));
            for (int c = 0; c < sheet.columns().size(); c++) {
                line.add(cell(sheet.counts()[r][c], base(sheet, r, c), formatted));
            }
            if (spec.totals().ofRows()) {
                line.add(cell(sheet.row(r), spec.base() == CountSpec.Base.ROW ? sheet.row(r) : sheet.all(), formatted));
            }
            lines.add(line);
        }
        if (spec.totals().ofColumns()) {
            List<String> line = new ArrayList<>(List.of("all"));
            for (int c = 0; c < sheet.columns().size(); c++) {
                long n = sheet.column(c);
                line.add(cell(n, spec.base() == CountSpec.Base.COLUMN ? n : sheet.all(), formatted));
            }
            if (spec.totals().ofRows()) {
                line.add(cell(sheet.all(), sheet.all(), formatted));
            }
            lines.add(line);
        }
        return lines;
    }

    private long base(Sheet sheet, int row, int column) {
        return switch (spec.base()) {
            case ROW -> sheet.row(row);
            case COLUMN -> sheet.column(column);
            case ALL -> sheet.all();
        };
    }

    /// How much of its base a cell is, from 0 to 1, for a drawing.
    public double share(Sheet sheet, int row, int column) {
        long of = base(sheet, row, column);
        return of == 0 ? 0 : (double) sheet.counts()[row][column] / of;
    }

    private String cell(long n, long of, boolean formatted) {
        if (!formatted) {
            return String.valueOf(n);
        }
        String percent = percent(n, of, true);
        return switch (spec.show()) {
            case COUNT -> count(n, true);
            case PERCENT -> percent;
            case COUNT_PERCENT -> count(n, true) + (percent.isEmpty() ? "" : " (" + percent + ")");
            case PERCENT_COUNT ->
                percent.isEmpty() ? "(" + count(n, true) + ")" : percent + " (" + count(n, true) + ")";
        };
    }

    private static String count(long n, boolean formatted) {
        return formatted ? String.format(Locale.ROOT, "%,d", n) : String.valueOf(n);
    }

    /// A per cent, rounded by itself; nothing where there is nothing that it could be of.
    private String percent(long n, long of, boolean formatted) {
        return of == 0 ? "" : exact(n, of).toPlainString() + (formatted ? "%" : "");
    }

    private BigDecimal exact(long n, long of) {
        return BigDecimal.valueOf(n)
                .multiply(HUNDRED)
                .divide(BigDecimal.valueOf(of), spec.decimals(), spec.halves().mode());
    }

    /// What is to be said of a table: rows, or columns, whose rounded per cents do not add up to 100.
    public List<String> notes(Sheet sheet) {
        List<String> notes = new ArrayList<>(List.of("Each per cent is rounded by itself."));
        List<String> off = new ArrayList<>();
        if (names.size() == 1) {
            adding(
                    names.getFirst(),
                    java.util.stream.IntStream.range(0, sheet.rows().size())
                            .mapToLong(sheet::row)
                            .toArray(),
                    off);
        } else if (spec.base() == CountSpec.Base.ROW) {
            for (int r = 0; r < sheet.rows().size(); r++) {
                adding(label(0, sheet.rows().get(r)), sheet.counts()[r], off);
            }
        } else if (spec.base() == CountSpec.Base.COLUMN) {
            for (int c = 0; c < sheet.columns().size(); c++) {
                int column = c;
                adding(
                        label(1, sheet.columns().get(c)),
                        Arrays.stream(sheet.counts()).mapToLong(r -> r[column]).toArray(),
                        off);
            }
        } else {
            adding(
                    "the whole table",
                    Arrays.stream(sheet.counts()).flatMapToLong(Arrays::stream).toArray(),
                    off);
        }
        boolean percents = names.size() == 1 || spec.show() != CountSpec.Show.COUNT;
        if (!percents) {
            return List.of();
        }
        if (!off.isEmpty()) {
            String some = off.stream().limit(3).collect(Collectors.joining(", "));
            notes.add(some + (off.size() > 3 ? ", and " + (off.size() - 3) + " more" : "") + ".");
        }
        return notes;
    }

    private void adding(String name, long[] counts, List<String> off) {
        long all = Arrays.stream(counts).sum();
        if (all > 0) {
            BigDecimal sum =
                    Arrays.stream(counts).mapToObj(n -> exact(n, all)).reduce(BigDecimal.ZERO, BigDecimal::add);
            if (sum.compareTo(HUNDRED) != 0) {
                off.add(name + " adds up to " + sum.toPlainString());
            }
        }
    }
}
