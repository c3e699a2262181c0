package fixshelf.language.tree;

import fixshelf.type.Type;
import java.math.BigDecimal;
import java.util.List;

/// The type that holds some values, without losing a digit of any. A constant whole number asks for no more digits than
/// it has.
public final class CommonType {
    private Type type;
    private boolean hasDecimal;
    private boolean onlyWholeConstants = true;

    public CommonType() {
        this(Type.UNKNOWN);
    }

    public CommonType(Type first) {
        type = first;
        hasDecimal = first instanceof Type.Decimal;
    }

    /// The type of all these, or of the first ones where there is none.
    static Type of(List<Expr> values) {
        CommonType common = new CommonType();
        values.forEach(common::add);
        return common.type();
    }

    /// Whether a value may stand where `wanted` is asked for.
    public static boolean fits(Expr value, Type wanted) {
        return value.type().fits(wanted)
                || wanted instanceof Type.Decimal && tight(value).fits(wanted)
                || wanted instanceof Type.Num && isExactly(value);
    }

    /// Adds a value; false, and nothing is changed, when no type holds it too.
    public boolean add(Expr value) {
        boolean whole = isExactly(value) || value.type() instanceof Type.Unknown;
        if (type instanceof Type.Num && whole) {
            return true;
        }
        if (value.type() instanceof Type.Num && onlyWholeConstants && type instanceof Type.Decimal) {
            type = Type.NUMBER;
            return true;
        }
        onlyWholeConstants &= whole;
        boolean known = Type.common(type, tight(value))
                .map(both -> {
                    type = both;
                    return true;
                })
                .orElse(false);
        hasDecimal |= known && value.type() instanceof Type.Decimal;
        return known;
    }

    /// Whole numbers alone make a whole number.
    public Type type() {
        return type instanceof Type.Decimal && !hasDecimal ? Type.INTEGER : type;
    }

    /// A whole constant that a floating-point number holds exactly.
    public static boolean isExactly(Expr value) {
        return value instanceof Expr.Literal(Long number, Type _) && Math.abs(number) <= Type.Num.MOST_WHOLE;
    }

    /// The value where a floating-point number is asked for: a whole constant becomes one.
    public static Expr asNumber(Expr value) {
        return isExactly(value) && value instanceof Expr.Literal(Long number, Type _)
                ? new Expr.Literal(number.doubleValue(), Type.NUMBER)
                : value;
    }

    private static Type tight(Expr value) {
        return value instanceof Expr.Literal(Long number, Type _)
                ? new Type.Decimal(BigDecimal.valueOf(number).precision(), 0)
                : value.type();
    }
}
