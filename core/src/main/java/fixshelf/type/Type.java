package fixshelf.type;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The type of a value. Conversions are explicit; only integer to decimal happens by itself, as nothing is lost.
public sealed interface Type {
    Text TEXT = new Text();
    Int INTEGER = new Int();
    Bool BOOLEAN = new Bool();
    Date DATE = new Date();
    Unknown UNKNOWN = new Unknown();
    Decimal DECIMAL = new Decimal(18, 4);

    /// Unicode text; length counts code points.
    record Text() implements Type {}

    /// A whole number of 64 bits.
    record Int() implements Type {}

    /// An exact number with `precision` digits in all, `scale` of them after the point.
    record Decimal(int precision, int scale) implements Type {
        public Decimal {
            if (precision < 1 || precision > 38 || scale < 0 || scale > precision) {
                throw new IllegalArgumentException("no such decimal: " + precision + ", " + scale);
            }
        }
    }

    /// True or false.
    record Bool() implements Type {}

    /// A day of the Gregorian calendar, also before it was in use, of the years 0001 to 9999.
    record Date() implements Type {}

    /// The type of a bare NULL: fits wherever a value is asked for.
    record Unknown() implements Type {}

    /// The name as it is written on a page.
    default String label() {
        return switch (this) {
            case Text _ -> "text";
            case Int _ -> "integer";
            case Decimal(int precision, int scale) -> "decimal(" + precision + "," + scale + ")";
            case Bool _ -> "boolean";
            case Date _ -> "date";
            case Unknown _ -> "null";
        };
    }

    /// Whether a value of this type may stand where `wanted` is asked for, without any loss.
    default boolean fits(Type wanted) {
        return equals(wanted)
                || this instanceof Unknown
                || this instanceof Int && wanted instanceof Decimal
                || this instanceof Decimal && wanted instanceof Decimal;
    }

    /// The type that holds values of both, if there is one.
    static Optional<Type> common(Type a, Type b) {
        if (a instanceof Decimal x && b instanceof Decimal y) {
            int scale = Math.max(x.scale(), y.scale());
            int whole = Math.max(x.precision() - x.scale(), y.precision() - y.scale());
            return Optional.of(new Decimal(Math.min(38, whole + scale), scale));
        }
        if (a.fits(b)) {
            return Optional.of(b);
        }
        return b.fits(a) ? Optional.of(a) : Optional.empty();
    }

    Pattern DECIMAL_NAME = Pattern.compile("decimal\\s*\\(\\s*(\\d{1,2})\\s*,\\s*(\\d{1,2})\\s*\\)");

    /// Reads a type as it is written on a page; empty if there is no such type.
    static Optional<Type> parse(String name) {
        String wanted = name.strip().toLowerCase(Locale.ROOT);
        Matcher decimal = DECIMAL_NAME.matcher(wanted);
        if (decimal.matches()) {
            int precision = Integer.parseInt(decimal.group(1));
            int scale = Integer.parseInt(decimal.group(2));
            boolean exists = precision >= 1 && precision <= 38 && scale <= precision;
            return exists ? Optional.of(new Decimal(precision, scale)) : Optional.empty();
        }
        return switch (wanted) {
            case "text" -> Optional.of(TEXT);
            case "integer" -> Optional.of(INTEGER);
            case "decimal" -> Optional.of(DECIMAL);
            case "boolean" -> Optional.of(BOOLEAN);
            case "date" -> Optional.of(DATE);
            default -> Optional.empty();
        };
    }
}
