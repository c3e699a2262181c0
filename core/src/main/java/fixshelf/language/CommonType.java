package fixshelf.language;

import fixshelf.type.Type;
import java.math.BigDecimal;
import java.util.List;

/// The type that holds some values, without losing a digit of any. A constant whole number asks for no more digits than
/// it has.
final class CommonType {
    private Type type;
    private boolean hasDecimal;

    CommonType() {
        this(Type.UNKNOWN);
    }

    CommonType(Type first) {
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
    static boolean fits(Expr value, Type wanted) {
        return value.type().fits(wanted)
                || wanted instanceof Type.Decimal && tight(value).fits(wanted);
    }

    /// Adds a value; false, and nothing is changed, when no type holds it too.
    boolean add(Expr value) {
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
    Type type() {
        return type instanceof Type.Decimal && !hasDecimal ? Type.INTEGER : type;
    }

    private static Type tight(Expr value) {
        return value instanceof Expr.Literal(Long number, Type _)
                ? new Type.Decimal(BigDecimal.valueOf(number).precision(), 0)
                : value.type();
    }
}
