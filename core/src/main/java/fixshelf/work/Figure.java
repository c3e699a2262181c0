package fixshelf.work;

import java.math.BigDecimal;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// A watched figure after a line.
///
/// @param value missing where there is none, such as the sum of no value
/// @param before what it was after the line before; none at the first line that tells it
public record Figure(String name, @Nullable Object value, Optional<Object> before) {
    /// `cost 41,204.10`, or with what a line changed: `cost 41,204.10 → 41,216.50 (+12.40)`.
    public String sentence() {
        String now = shown(value);
        if (before.isEmpty() || Objects.equals(now, shown(before.get()))) {
            return name + " " + now;
        }
        return name + " " + shown(before.get()) + " → " + now + difference();
    }

    public boolean isChanged() {
        return before.isPresent() && !Objects.equals(shown(value), shown(before.get()));
    }

    private String difference() {
        if (!(value instanceof Number now) || !(before.orElseThrow() instanceof Number was)) {
            return "";
        }
        BigDecimal by = new BigDecimal(now.toString()).subtract(new BigDecimal(was.toString()));
        return " (" + (by.signum() > 0 ? "+" : "") + shown(by) + ")";
    }

    private static String shown(@Nullable Object value) {
        return switch (value) {
            case null -> "∅";
            case BigDecimal number -> String.format("%,." + Math.max(0, number.scale()) + "f", number);
            case Long number -> String.format("%,d", number);
            default -> value.toString();
        };
    }
}
