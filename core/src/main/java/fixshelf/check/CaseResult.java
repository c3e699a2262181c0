package fixshelf.check;

import fixshelf.engine.Answer;
import fixshelf.shelf.FixPage;
import fixshelf.type.Literals;
import fixshelf.type.Visible;
import java.math.BigDecimal;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/// What came of a case in one language.
///
/// @param index the place of the case on its page, from 0
public record CaseResult(FixPage page, int index, FixPage.Case example, Answer answer) {

    public boolean holds() {
        return answer instanceof Answer.Value(Object value)
                && same(value, example.expected().value());
    }

    /// The same value: null only null, numbers by their size, text code point by code point.
    public static boolean same(@Nullable Object a, @Nullable Object b) {
        boolean finite = !isInfinite(a) && !isInfinite(b);
        if (finite && a instanceof Number x && b instanceof Number y) {
            return new BigDecimal(x.toString()).compareTo(new BigDecimal(y.toString())) == 0;
        }
        return Objects.equals(a, b);
    }

    private static boolean isInfinite(@Nullable Object value) {
        return value instanceof Double number && !Double.isFinite(number);
    }

    public String expected() {
        return shown(example.expected().value());
    }

    public String got() {
        return switch (answer) {
            case Answer.Value(Object value) -> shown(value);
            case Answer.Failed(String why) -> "error: " + why;
            case Answer.NotSaid(String why) -> why;
        };
    }

    /// A value as a literal in which invisible characters can be seen.
    public static String shown(@Nullable Object value) {
        return value instanceof String text ? "'" + Visible.mark(text) + "'" : Literals.print(value);
    }
}
