package fixshelf.render.r;

import fixshelf.render.Quoted;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// Values as they are written in R; what R cannot hold exactly is refused.
final class RLiterals {
    private static final Quoted QUOTED = new Quoted('"', "\\u%04x", "\\U%08x");

    private RLiterals() {}

    static String literal(@Nullable Object value, Type type) {
        return switch (value) {
            case null ->
                switch (type) {
                    case Type.Text _ -> "NA_character_";
                    case Type.Int _, Type.Num _, Type.Decimal _ -> "NA_real_";
                    case Type.Bool _, Type.Unknown _ -> "NA";
                    case Type.Date _ -> "as.Date(NA)";
                    case Type.Timestamp _ -> "as.POSIXct(NA, tz = \"UTC\")";
                    case Type.ListOf _, Type.Mapping _ -> "NULL";
                };
            case String text -> quoted(text);
            case Boolean truth -> truth ? "TRUE" : "FALSE";
            case Long number -> whole(number);
            case BigDecimal number -> decimal(number);
            case Double number -> approximate(number);
            case LocalDate day -> "as.Date(\"" + day + "\")";
            case LocalDateTime time -> time(time);
            case List<?> _, Map<?, ?> _ -> throw RWriter.notYetKnown();
            default -> throw new IllegalStateException("no literal for " + value.getClass());
        };
    }

    /// Its own reading fails for the first years.
    private static String time(LocalDateTime time) {
        if (time.getNano() > 0 && Math.abs(time.toEpochSecond(ZoneOffset.UTC)) > 1L << 32) {
            throw RWriter.cannot("it keeps microseconds exactly only from 1834 to 2105.", "Leave the fraction out.");
        }
        return time.getYear() < 1000
                ? "as.POSIXct(" + time.toEpochSecond(ZoneOffset.UTC) + part(time)
                        + ", origin = \"1970-01-01\", tz = \"UTC\")"
                : "as.POSIXct(\"" + Literals.time(time) + "\", tz = \"UTC\")";
    }

    private static String part(LocalDateTime time) {
        return time.getNano() == 0 ? "" : " + " + time.getNano() / 1000 + " / 1e6";
    }

    private static String whole(long number) {
        if (Math.abs(number) >= 1L << 53 || number == Long.MIN_VALUE) {
            throw RWriter.cannot("its whole numbers are exact only below 2^53.", "Keep larger ones as text.");
        }
        return String.valueOf(number);
    }

    /// Up to 15 digits as they are; more of them in base 16, as its own reading of those can be off by one.
    private static String approximate(double number) {
        BigDecimal digits = new BigDecimal(Double.toString(number));
        boolean plain =
                digits.stripTrailingZeros().precision() <= 15 && Math.abs(number) < 1e15 && Math.abs(number) > 1e-5;
        return plain || number == 0 ? digits.toPlainString() : Double.toHexString(number);
    }

    private static String decimal(BigDecimal number) {
        if (number.stripTrailingZeros().precision() > 15) {
            throw RWriter.cannot("it keeps only 15 digits of a decimal number exactly.", "Keep longer ones as text.");
        }
        return number.toPlainString();
    }

    static String quoted(String text) {
        if (text.indexOf('\0') >= 0) {
            throw RWriter.cannot("its texts cannot hold the character U+0000.", "Remove it where data is read.");
        }
        return QUOTED.write(text);
    }
}
