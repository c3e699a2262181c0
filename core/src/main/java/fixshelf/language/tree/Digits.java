package fixshelf.language.tree;

import fixshelf.type.Type;
import java.math.BigDecimal;
import java.util.List;

/// How many digits the result of a sum or a product can have, so that none is ever lost.
public final class Digits {
    /// The most that every language with exact numbers holds in a product.
    public static final int MOST = 37;

    private static final int OF_INTEGER = 19;

    private Digits() {}

    static Type sum(List<Expr> arguments) {
        if (areWhole(arguments)) {
            return Type.INTEGER;
        }
        if (isApproximate(arguments)) {
            return Type.NUMBER;
        }
        int scale = Math.max(scale(arguments.get(0)), scale(arguments.get(1)));
        int whole = Math.max(whole(arguments.get(0)), whole(arguments.get(1)));
        return decimal(whole + 1 + scale, scale);
    }

    static Type product(List<Expr> arguments) {
        if (areWhole(arguments)) {
            return Type.INTEGER;
        }
        if (isApproximate(arguments)) {
            return Type.NUMBER;
        }
        int scale = scale(arguments.get(0)) + scale(arguments.get(1));
        return decimal(whole(arguments.get(0)) + whole(arguments.get(1)) + scale, scale);
    }

    private static Type decimal(int precision, int scale) {
        return new Type.Decimal(Math.clamp(precision, 1, 38), Math.min(scale, 38));
    }

    /// Whether the result may have more digits than can be held.
    public static boolean tooMany(Type result) {
        return result instanceof Type.Decimal(int precision, int _) && precision > MOST;
    }

    private static boolean areWhole(List<Expr> arguments) {
        return arguments.stream().noneMatch(a -> a.type() instanceof Type.Decimal || a.type() instanceof Type.Num);
    }

    /// Whether one is a floating-point number.
    public static boolean isApproximate(List<Expr> arguments) {
        return arguments.stream().anyMatch(a -> a.type() instanceof Type.Num);
    }

    /// Digits after the point.
    static int scale(Expr expr) {
        return expr.type() instanceof Type.Decimal(int _, int scale) ? scale : 0;
    }

    /// Digits before the point.
    static int whole(Expr expr) {
        return switch (expr) {
            case Expr.Literal(Long number, Type _) -> BigDecimal.valueOf(number).precision();
            default -> expr.type() instanceof Type.Decimal(int precision, int scale) ? precision - scale : OF_INTEGER;
        };
    }
}
