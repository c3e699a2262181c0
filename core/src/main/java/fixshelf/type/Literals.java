package fixshelf.type;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/// Writes values as SQL literals, so that edge spaces and invisible characters can always be seen.
public final class Literals {
    private Literals() {}

    /// `'it''s'`, `U&'a\0009b'` where something cannot be seen, `42`, `DATE '2026-02-07'`, `TRUE`, `NULL`.
    public static String print(@Nullable Object value) {
        return switch (value) {
            case null -> "NULL";
            case String text -> text(text);
            case BigDecimal number -> number.toPlainString();
            case LocalDate day -> "DATE '" + day + "'";
            case Boolean truth -> truth ? "TRUE" : "FALSE";
            default -> value.toString();
        };
    }

    private static String text(String text) {
        boolean plain = text.codePoints().noneMatch(Literals::needsEscape);
        if (plain) {
            return "'" + text.replace("'", "''") + "'";
        }
        StringBuilder out = new StringBuilder("U&'");
        text.codePoints().forEach(c -> {
            if (c == '\\') {
                out.append("\\\\");
            } else if (c == '\'') {
                out.append("''");
            } else if (!needsEscape(c)) {
                out.appendCodePoint(c);
            } else {
                for (char unit : Character.toChars(c)) {
                    out.append(String.format(Locale.ROOT, "\\%04X", (int) unit));
                }
            }
        });
        return out.append('\'').toString();
    }

    private static boolean needsEscape(int c) {
        return c != ' ' && (Visible.isInvisible(c) || !Character.isDefined(c));
    }
}
