package fixshelf.profile;

import java.math.RoundingMode;
import java.util.List;
import java.util.Map;

/// What is counted, and how it is shown.
///
/// @param columns the places of one, two or three columns: rows, columns, a table for each value of the third
/// @param base what a per cent is of; for one column always all rows
/// @param decimals digits after the point of a per cent, 0 to 6
/// @param halves how a half is rounded
/// @param show counts, per cents, or both
/// @param totals which totals stand there
/// @param labels other words for values, by the place of their column
public record CountSpec(
        List<Integer> columns,
        Base base,
        int decimals,
        Halves halves,
        Show show,
        Totals totals,
        Map<Integer, Map<String, String>> labels) {
    public CountSpec {
        columns = List.copyOf(columns);
        labels = Map.copyOf(labels);
        if (columns.isEmpty() || columns.size() > 3 || decimals < 0 || decimals > 6) {
            throw new IllegalArgumentException("one to three columns, and 0 to 6 decimals");
        }
    }

    /// What a per cent is of.
    public enum Base {
        ROW("the row"),
        COLUMN("the column"),
        ALL("all rows");

        private final String words;

        Base(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /// Where a half goes.
    public enum Halves {
        AWAY("away from zero", RoundingMode.HALF_UP),
        EVEN("to the even digit", RoundingMode.HALF_EVEN);

        private final String words;
        private final RoundingMode mode;

        Halves(String words, RoundingMode mode) {
            this.words = words;
            this.mode = mode;
        }

        public String words() {
            return words;
        }

        RoundingMode mode() {
            return mode;
        }
    }

    /// What stands in a cell.
    public enum Show {
        COUNT("the count"),
        PERCENT("the per cent"),
        COUNT_PERCENT("count (per cent)"),
        PERCENT_COUNT("per cent (count)");

        private final String words;

        Show(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /// Which totals stand at the edges: over each row, over each column, over both.
    public enum Totals {
        NONE("none"),
        ROWS("of the rows"),
        COLUMNS("of the columns"),
        BOTH("both ways");

        private final String words;

        Totals(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        boolean ofRows() {
            return this == ROWS || this == BOTH;
        }

        boolean ofColumns() {
            return this == COLUMNS || this == BOTH;
        }
    }

    /// As it usually is: one decimal, halves away from zero, totals both ways.
    public static CountSpec of(List<Integer> columns) {
        boolean one = columns.size() == 1;
        return new CountSpec(
                columns,
                one ? Base.ALL : Base.ROW,
                1,
                Halves.AWAY,
                one ? Show.COUNT : Show.PERCENT_COUNT,
                Totals.BOTH,
                Map.of());
    }

    public CountSpec withColumns(List<Integer> now) {
        return new CountSpec(now, base, decimals, halves, show, totals, labels);
    }

    public CountSpec withBase(Base now) {
        return new CountSpec(columns, now, decimals, halves, show, totals, labels);
    }

    public CountSpec withDecimals(int now) {
        return new CountSpec(columns, base, now, halves, show, totals, labels);
    }

    public CountSpec withHalves(Halves now) {
        return new CountSpec(columns, base, decimals, now, show, totals, labels);
    }

    public CountSpec withShow(Show now) {
        return new CountSpec(columns, base, decimals, halves, now, totals, labels);
    }

    public CountSpec withTotals(Totals now) {
        return new CountSpec(columns, base, decimals, halves, show, now, labels);
    }

    public CountSpec withLabels(Map<Integer, Map<String, String>> now) {
        return new CountSpec(columns, base, decimals, halves, show, totals, now);
    }
}
