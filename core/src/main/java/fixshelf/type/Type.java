package fixshelf.type;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The type of a value. Conversions are explicit; only integer to decimal happens by itself, as nothing is lost.
/// Numbers to `number` never do, but for whole constants.
public sealed interface Type {
    Text TEXT = new Text();
    Int INTEGER = new Int();
    Num NUMBER = new Num();
    Bool BOOLEAN = new Bool();
    Date DATE = new Date();
    Timestamp TIMESTAMP = new Timestamp();
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

        /// Holds every whole number of 64 bits.
        static final Decimal OF_INTEGER = new Decimal(19, 0);

        private static Optional<Decimal> of(Type type) {
            return switch (type) {
                case Decimal decimal -> Optional.of(decimal);
                case Int _ -> Optional.of(OF_INTEGER);
                default -> Optional.empty();
            };
        }

        /// With room for the digits of both, on both sides of the point.
        private Optional<Type> common(Decimal other) {
            int most = Math.max(scale, other.scale);
            int whole = Math.max(precision - scale, other.precision - other.scale);
            return whole + most > 38 ? Optional.empty() : Optional.of(new Decimal(Math.max(1, whole + most), most));
        }
    }

    /// A binary floating-point number of 64 bits (IEEE 754), as measuring instruments give; finite, never NaN.
    record Num() implements Type {
        /// The largest whole number up to which each has its own.
        public static final long MOST_WHOLE = 1L << 53;
    }

    /// True or false.
    record Bool() implements Type {}

    /// A day of the Gregorian calendar, also before it was in use, of the years 0001 to 9999.
    record Date() implements Type {}

    /// A day and a time of that day to the microsecond, without a time zone, of the years 0001 to 9999.
    record Timestamp() implements Type {}

    /// Several values of one type in an order; only known when code is written, as a parameter or a constant.
    record ListOf(Type element) implements Type {}

    /// For each of some values another one; only known when code is written, as a parameter or a constant.
    record Mapping(Type from, Type to) implements Type {}

    /// The type of a bare NULL: fits wherever a value is asked for.
    record Unknown() implements Type {}

    /// The name as it is written on a page.
    default String label() {
        return switch (this) {
            case Text _ -> "text";
            case Int _ -> "integer";
            case Decimal(int precision, int scale) -> "decimal(" + precision + "," + scale + ")";
            case Num _ -> "number";
            case Bool _ -> "boolean";
            case Date _ -> "date";
            case Timestamp _ -> "timestamp";
            case ListOf(Type element) -> "list of " + element.label();
            case Mapping(Type from, Type to) -> "mapping of " + from.label() + " to " + to.label();
            case Unknown _ -> "null";
        };
    }

    /// Whether a value of this type may stand where `wanted` is asked for, without any loss.
    default boolean fits(Type wanted) {
        return switch (this) {
            case Unknown _ -> true;
            case Int _ -> equals(wanted) || wanted instanceof Decimal && Decimal.OF_INTEGER.fits(wanted);
            case Decimal(int precision, int scale) ->
                wanted instanceof Decimal(int wantedPrecision, int wantedScale)
                        && scale <= wantedScale
                        && precision - scale <= wantedPrecision - wantedScale;
            case ListOf(Type element) -> wanted instanceof ListOf(Type other) && element.fits(other);
            case Mapping(Type from, Type to) ->
                wanted instanceof Mapping(Type otherFrom, Type otherTo) && from.fits(otherFrom) && to.fits(otherTo);
            case Text _, Num _, Bool _, Date _, Timestamp _ -> equals(wanted);
        };
    }

    /// Whether it is a whole or an exact number.
    default boolean isNumeric() {
        return this instanceof Int || this instanceof Decimal;
    }

    /// Whether its value must be known when code is written.
    default boolean isFixed() {
        return this instanceof ListOf || this instanceof Mapping;
    }

    /// The type that holds values of both, if there is one.
    static Optional<Type> common(Type a, Type b) {
        if (a instanceof Decimal || b instanceof Decimal) {
            return Decimal.of(a).flatMap(x -> Decimal.of(b).flatMap(x::common)).or(() -> fitting(a, b));
        }
        return fitting(a, b);
    }

    /// The type that columns get which become one: a day beside a time becomes a time at midnight.
    static Optional<Type> together(Type a, Type b) {
        boolean isTime = a.equals(DATE) && b.equals(TIMESTAMP) || a.equals(TIMESTAMP) && b.equals(DATE);
        return isTime ? Optional.of(TIMESTAMP) : common(a, b);
    }

    private static Optional<Type> fitting(Type a, Type b) {
        if (a.fits(b)) {
            return Optional.of(b);
        }
        return b.fits(a) ? Optional.of(a) : Optional.empty();
    }

    Pattern DECIMAL_NAME = Pattern.compile("decimal\\s*\\(\\s*(\\d{1,2})\\s*,\\s*(\\d{1,2})\\s*\\)");

    Pattern LIST_NAME = Pattern.compile("list\\s+of\\s+(.+)");
    Pattern MAPPING_NAME = Pattern.compile("mapping\\s+of\\s+(.+?)\\s+to\\s+(.+)");

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
        Matcher list = LIST_NAME.matcher(wanted);
        if (list.matches()) {
            return parse(list.group(1)).filter(t -> !t.isFixed()).map(ListOf::new);
        }
        Matcher mapping = MAPPING_NAME.matcher(wanted);
        if (mapping.matches()) {
            Optional<Type> to = parse(mapping.group(2)).filter(t -> !t.isFixed());
            return parse(mapping.group(1)).filter(t -> !t.isFixed()).flatMap(from -> to.map(t -> new Mapping(from, t)));
        }
        return switch (wanted) {
            case "text" -> Optional.of(TEXT);
            case "integer" -> Optional.of(INTEGER);
            case "decimal" -> Optional.of(DECIMAL);
            case "number" -> Optional.of(NUMBER);
            case "boolean" -> Optional.of(BOOLEAN);
            case "date" -> Optional.of(DATE);
            case "timestamp" -> Optional.of(TIMESTAMP);
            default -> Optional.empty();
        };
    }
}
