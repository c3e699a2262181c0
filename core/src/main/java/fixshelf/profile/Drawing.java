package fixshelf.profile;

import fixshelf.type.Amounts;
import fixshelf.type.Visible;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/// A drawing of bars beside each other, of which the window and files show the same.
///
/// @param title what it shows
/// @param bars from left to right
/// @param from what stands under the first bar
/// @param to what stands under the last bar
public record Drawing(String title, List<Bar> bars, String from, String to) {
    public Drawing {
        bars = List.copyOf(bars);
    }

    /// A bar.
    ///
    /// @param label what it is, for a reader who asks
    /// @param rows how high it is
    /// @param marked whether it is worth looking at
    public record Bar(String label, double rows, boolean marked) {}

    /// The kinds of drawings of a column.
    public enum Kind {
        SPREAD,
        COMMONEST,
        FILLED
    }

    private static final int COMMONEST = 12;

    /// The highest bar; 0 where there is none.
    public double highest() {
        return bars.stream().mapToDouble(Bar::rows).max().orElse(0);
    }

    /// A drawing of a column; one without bars where there is nothing to draw.
    public static Drawing of(ColumnLook column, Kind kind) {
        return switch (kind) {
            case SPREAD -> spread(column);
            case COMMONEST -> commonest(column);
            case FILLED -> filled(column);
        };
    }

    private static Drawing spread(ColumnLook column) {
        List<Bar> bars = new ArrayList<>();
        for (int i = 0; i < column.bins().size(); i++) {
            bars.add(new Bar(
                    String.format(
                            Locale.ROOT,
                            "part %d of %d: %s",
                            i + 1,
                            column.bins().size(),
                            Amounts.of(column.bins().get(i), "row")),
                    column.bins().get(i),
                    false));
        }
        return new Drawing(column.name() + ", from the least to the greatest", bars, column.least(), column.greatest());
    }

    private static Drawing commonest(ColumnLook column) {
        List<Bar> bars = column.commonest().stream()
                .limit(COMMONEST)
                .map(c ->
                        new Bar(Visible.markOddities(c.value()) + ": " + Amounts.of(c.rows(), "row"), c.rows(), false))
                .toList();
        String first = column.commonest().isEmpty()
                ? ""
                : column.commonest().getFirst().value();
        return new Drawing(column.name() + ", the commonest values", bars, Visible.markOddities(first), "");
    }

    /// Parts of the table that are filled much less than the others are marked: a file may have broken there.
    private static Drawing filled(ColumnLook column) {
        List<Long> parts = column.filledByPlace();
        double usual = parts.stream().mapToLong(Long::longValue).max().orElse(0);
        List<Bar> bars = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            bars.add(new Bar(
                    String.format(Locale.ROOT, "part %d of %d: %,d filled", i + 1, parts.size(), parts.get(i)),
                    parts.get(i),
                    parts.get(i) < usual / 2));
        }
        return new Drawing(column.name() + ", filled by place in the table", bars, "first row", "last row");
    }
}
