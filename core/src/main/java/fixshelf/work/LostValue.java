package fixshelf.work;

import fixshelf.type.Visible;
import java.util.List;
import java.util.stream.Collectors;

/// A value of a column that a line made missing, as text, and in how many rows.
public record LostValue(String column, String value, long rows) {
    /// The values in one sentence: `'?' in outcome, 3 rows; 'x' in outcome, 1 row`.
    public static String list(List<LostValue> values) {
        return values.stream().map(LostValue::words).collect(Collectors.joining("; "));
    }

    private String words() {
        String shown = value.length() > 60 ? value.substring(0, 59) + "…" : value;
        return "'" + Visible.markOddities(shown) + "' in " + column + ", " + String.format("%,d ", rows)
                + (rows == 1 ? "row" : "rows");
    }
}
