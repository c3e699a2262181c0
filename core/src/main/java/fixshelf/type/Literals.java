package fixshelf.type;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.ResolverStyle;
import java.time.temporal.ChronoField;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Writes values as SQL literals, so that edge spaces and invisible characters can always be seen.
public final class Literals {
    private Literals() {}

    /// `'it''s'`, `U&'a\0009b'` where something cannot be seen, `42`, `1.5e0`, `DATE '2026-02-07'`, `TRUE`, `NULL`,
    /// `ARRAY['a', 'b']`, `MAP['a', 1]`.
    public static String print(@Nullable Object value) {
        return switch (value) {
            case null -> "NULL";
            case String text -> text(text);
            case BigDecimal number -> number.toPlainString();
            case Double number -> approximate(number);
            case LocalDate day -> "DATE '" + day + "'";
            case LocalDateTime time -> "TIMESTAMP '" + time(time) + "'";
            case List<?> list -> list.stream().map(Literals::print).collect(Collectors.joining(", ", "ARRAY[", "]"));
            case Map<?, ?> pairs ->
                pairs.entrySet().stream()
                        .map(e -> print(e.getKey()) + ", " + print(e.getValue()))
                        .collect(Collectors.joining(", ", "MAP[", "]"));
            case Boolean truth -> truth ? "TRUE" : "FALSE";
            default -> value.toString();
        };
    }

    /// A value as it stands in a file of text, without quotes: `12.50`, `1e-07`, `2026-02-07 10:12:00`, a text as it
    /// is. So it is shown, too.
    public static String bare(Object value) {
        return switch (value) {
            case LocalDateTime time -> time(time);
            case BigDecimal number -> number.toPlainString();
            case Double number when number == 0 -> number.toString();
            case Double number -> shortest(number);
            default -> value.toString();
        };
    }

    /// The shortest digits that mean a number, with a power of ten of at least two digits where it is very small or
    /// large: as DuckDB writes it.
    private static String shortest(double number) {
        BigDecimal digits = new BigDecimal(Double.toString(number)).stripTrailingZeros();
        int exponent = digits.precision() - digits.scale() - 1;
        if (exponent >= SMALLEST_PLAIN && exponent < LARGEST_PLAIN) {
            return digits.scale() <= 0 ? digits.toBigInteger() + ".0" : digits.toPlainString();
        }
        return digits.scaleByPowerOfTen(-exponent).toPlainString()
                + String.format(Locale.ROOT, "e%s%02d", exponent < 0 ? "-" : "+", Math.abs(exponent));
    }

    private static final int SMALLEST_PLAIN = -4;
    private static final int LARGEST_PLAIN = 16;

    /// The shortest digits that mean this number, with an exponent, by which it is known as one: `1.5e0`.
    private static String approximate(double number) {
        BigDecimal shortest = new BigDecimal(Double.toString(number)).stripTrailingZeros();
        int exponent = shortest.signum() == 0 ? 0 : shortest.precision() - shortest.scale() - 1;
        return shortest.scaleByPowerOfTen(-exponent).toPlainString() + "e" + exponent;
    }

    private static final DateTimeFormatter TIME = new DateTimeFormatterBuilder()
            .appendPattern("uuuu-MM-dd HH:mm:ss")
            .appendFraction(ChronoField.NANO_OF_SECOND, 0, 6, true)
            .toFormatter(Locale.ROOT)
            .withResolverStyle(ResolverStyle.STRICT);

    /// A timestamp as `2026-02-07 10:12:00`, or `2026-02-07 10:12:00.25`: of a fraction all digits that are not
    /// needless zeros, up to the microsecond.
    public static String time(LocalDateTime time) {
        return TIME.format(time);
    }

    /// The time that such a text writes, with one to six digits of a fraction.
    ///
    /// @throws java.time.format.DateTimeParseException where it writes none
    public static LocalDateTime time(String text) {
        return LocalDateTime.parse(text, TIME);
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
