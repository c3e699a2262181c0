package fixshelf.operations;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.tree.Expr;
import fixshelf.table.Formula;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;

/// Values of one type read as values of another; what is none becomes missing.
final class Readings {
    private Readings() {}

    /// The value as one of that type; empty where no reading is known.
    ///
    /// @param layout of days and times; the standard one where it is empty
    static Optional<Expr> as(Expr value, Type type, String layout) {
        if (value.type().equals(type)) {
            return Optional.of(value);
        }
        return switch (value.type()) {
            case Type.Text _ -> Optional.ofNullable(ofText(value, type, layout));
            case Type.Int _, Type.Decimal _ -> ofNumber(value, type);
            case Type.Num _ -> ofApproximate(value, type);
            case Type.Bool _
            when type.equals(Type.TEXT) ->
                Optional.of(Formula.when(
                        value,
                        Expr.Literal.text("true"),
                        Formula.when(Formula.not(value), Expr.Literal.text("false"), Formula.missing(Type.TEXT))));
            case Type.Date _ when type.equals(Type.TIMESTAMP) -> Optional.of(Formula.call("at_midnight", value));
            case Type.Timestamp _ when type.equals(Type.DATE) -> Optional.of(Formula.call("date_of", value));
            case Type.Date _
            when type.equals(Type.TEXT) ->
                Optional.of(Formula.call("format_date", value, layout(layout, "yyyy-MM-dd")));
            case Type.Timestamp _ when type.equals(Type.TEXT) -> Optional.of(timed("format_timestamp", value, layout));
            default -> Optional.empty();
        };
    }

    /// Whether a value that can be read loses digits or its time of the day; empty where that cannot be.
    static Optional<Expr> loses(Expr value, Type type) {
        if (value.type().equals(Type.TIMESTAMP) && type.equals(Type.DATE)) {
            return Optional.of(Formula.call("<>", value, Formula.call("at_midnight", Formula.call("date_of", value))));
        }
        if (value.type() instanceof Type.Num && type instanceof Type.Decimal) {
            return Optional.of(Formula.call(
                    "<>", value, Formula.call("approximate", as(value, type, "").orElseThrow())));
        }
        if (!value.type().equals(Type.TEXT) || !(type instanceof Type.Decimal(int _, int scale))) {
            return Optional.empty();
        }
        // Most values have no more digits, which is seen without a pattern.
        Expr point = Formula.call("position", value, Expr.Literal.text("."));
        Expr digits = Formula.call("-", Formula.call("length", value), point);
        Expr longer = Formula.all(List.of(
                Formula.call(">", point, Expr.Literal.integer(0)),
                Formula.call(">", digits, Expr.Literal.integer(scale))));
        Expr more = Formula.call(
                "regexp_like", value, Expr.Literal.text("\\.[0-9]{" + scale + "}[0-9]*[1-9][0-9]*[^0-9]*$"));
        Expr isRead = Formula.isKnown(as(value, type, "").orElseThrow());
        return Optional.of(Formula.when(longer, Formula.all(List.of(more, isRead)), Expr.Literal.truth(false)));
    }

    private static Expr layout(String layout, String usual) {
        return Expr.Literal.text(layout.isEmpty() ? usual : layout);
    }

    /// Without a layout also with the fraction of a second, of any length.
    private static Expr timed(String function, Expr value, String layout) {
        return layout.isEmpty()
                ? Formula.call(function, value)
                : Formula.call(function, value, Expr.Literal.text(layout));
    }

    private static @org.jspecify.annotations.Nullable Expr ofText(Expr value, Type type, String layout) {
        return switch (type) {
            case Type.Int _ -> Formula.call("to_integer", value);
            case Type.Decimal(int _, int scale) ->
                Arithmetic.held(Formula.call("to_decimal", value, Expr.Literal.integer(scale)), type);
            case Type.Num _ -> Formula.call("to_number", value);
            case Type.Bool _ -> {
                Expr lower = Formula.call("lower", Formula.call("trim", value));
                yield Formula.when(
                        Formula.call("=", lower, Expr.Literal.text("true")),
                        Expr.Literal.truth(true),
                        Formula.when(
                                Formula.call("=", lower, Expr.Literal.text("false")),
                                Expr.Literal.truth(false),
                                Formula.missing(Type.BOOLEAN)));
            }
            case Type.Date _ -> Formula.call("to_date", value, layout(layout, "yyyy-MM-dd"));
            case Type.Timestamp _ -> timed("to_timestamp", value, layout);
            case Type.Text _, Type.ListOf _, Type.Mapping _, Type.Unknown _ -> null;
        };
    }

    /// A number is brought to a type exactly, or is missing there.
    private static Optional<Expr> ofNumber(Expr value, Type type) {
        return switch (type) {
            case Type.Text _ -> Optional.of(Formula.call("to_text", value));
            case Type.Decimal(int precision, int scale) -> Optional.of(narrow(value, precision, scale));
            case Type.Int _ -> Optional.of(Formula.call("floor", narrow(value, 18, 0)));
            case Type.Num _ -> Optional.of(Formula.call("approximate", value));
            default -> Optional.empty();
        };
    }

    private static Optional<Expr> ofApproximate(Expr value, Type type) {
        return switch (type) {
            case Type.Decimal(int _, int scale) ->
                Optional.of(Arithmetic.held(Formula.call("round", value, Expr.Literal.integer(scale)), type));
            case Type.Int _ -> {
                Expr whole = Formula.call("floor", value);
                Expr isWhole = Formula.call("=", Formula.call("approximate", whole), value);
                yield Optional.of(Formula.when(isWhole, whole, Formula.missing(Type.INTEGER)));
            }
            default -> Optional.empty();
        };
    }

    private static Expr narrow(Expr value, int precision, int scale) {
        return Formula.call("narrow", value, Expr.Literal.integer(precision), Expr.Literal.integer(scale));
    }
}
