package fixshelf.language.catalogue;

import static fixshelf.language.catalogue.Entry.define;
import static fixshelf.language.catalogue.Entry.fixed;
import static fixshelf.language.catalogue.Entry.integer;
import static fixshelf.language.catalogue.Entry.numeric;
import static fixshelf.language.catalogue.Entry.real;

import fixshelf.language.tree.CommonType;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Group;
import fixshelf.language.tree.FunctionDef.Result;
import fixshelf.type.Type;
import java.util.List;

/// Whole and exact numbers. A whole number beyond 64 bits is null in every language; engines would stop, wrap
/// around or change the type. Exact numbers keep all their digits; what could have more than
/// [fixshelf.language.tree.Digits#MOST] is refused when it is written.
public final class Arithmetic {
    private Arithmetic() {}

    public static final FunctionDef PLUS =
            operator("+", "The sum.", Result.SUM, "2 + 3", "5", "9223372036854775807 + 1");
    public static final FunctionDef MINUS =
            operator("-", "The difference.", Result.SUM, "2 - 3", "-1", "-9223372036854775807 - 2");
    public static final FunctionDef TIMES =
            operator("*", "The product.", Result.PRODUCT, "4 * -3", "-12", "9223372036854775807 * 2");

    private static FunctionDef operator(
            String sign, String about, Result gives, String call, String result, String beyond) {
        return define(Group.NUMBER, sign, real("left"), real("right"))
                .gives(gives)
                .about(about + " Whole numbers: null beyond 64 bits. Exact numbers: with all digits. Floating-point"
                        + " numbers: as for `/`, null where a side is beyond 1e150 in size"
                        + (sign.equals("*") ? " or closer to 0 than 1e-150 without being 0." : "."))
                .example(call, result)
                .example(beyond, "NULL")
                .example("NULL " + sign + " 1", "NULL")
                .example("1.50 " + sign + " 0.5", sign.equals("+") ? "2.0" : sign.equals("-") ? "1.0" : "0.75")
                .example("1.5e0 " + sign + " 2", sign.equals("+") ? "3.5e0" : sign.equals("-") ? "-5e-1" : "3e0")
                .example("1e200 " + sign + " 1e0", "NULL")
                .done();
    }

    public static final FunctionDef DIV = define(Group.NUMBER, "div", integer("dividend"), integer("divisor"))
            .gives(Result.INTEGER)
            .about("The whole part of the quotient, towards zero. Null for a divisor of 0, and beyond 64 bits.")
            .example("div(7, 2)", "3")
            .example("div(-7, 2)", "-3")
            .example("div(7, 0)", "NULL")
            .done();

    public static final FunctionDef MOD = define(Group.NUMBER, "mod", numeric("dividend"), numeric("divisor"))
            .gives(Result.SAME)
            .about(
                    "What is left over by a division to the whole part, as by `div`: it has the sign of the dividend. Null"
                            + " for a divisor of 0, and for exact numbers where the whole part has more than 18 digits.")
            .example("mod(7, 2)", "1")
            .example("mod(-7, 2)", "-1")
            .example("mod(7, 0)", "NULL")
            .done();

    public static final FunctionDef ABS = define(Group.NUMBER, "abs", real("number"))
            .gives(Result.SAME)
            .about("Without its sign. Null where a whole number would be beyond 64 bits.")
            .example("abs(-7)", "7")
            .example("abs(-1.50)", "1.50")
            .example("abs(-1.5e0)", "1.5e0")
            .example("abs(0)", "0")
            .done();

    public static final FunctionDef ROUND = define(Group.NUMBER, "round", real("number"), fixed(integer("scale")))
            .gives(Result.DECIMAL)
            .about("""
                With `scale` digits after the point, half away from zero, as `decimal(18, scale)`; null when it does
                not fit. Of a floating-point number the shortest digits are rounded that mean it, so that 2.675e0 is
                2.68; null from 1e15 on.\
                """)
            .example("round(2.675, 2)", "2.68")
            .example("round(-2.5, 0)", "-3")
            .example("round(7, 2)", "7.00")
            .example("round(12345678901234567.5, 3)", "NULL")
            .example("round(2.675e0, 2)", "2.68")
            .example("round(1e15, 0)", "NULL")
            .done();

    public static final FunctionDef FLOOR = whole("floor", "The largest whole number that is not larger.", "1", "-2");
    static final FunctionDef CEIL = whole("ceil", "The smallest whole number that is not smaller.", "2", "-1");

    private static FunctionDef whole(String name, String about, String positive, String negative) {
        return define(Group.NUMBER, name, real("number"))
                .gives(Result.INTEGER)
                .about(about + " Null beyond 64 bits; of a floating-point number from 2^53 on.")
                .example(name + "(1.5)", positive)
                .example(name + "(-1.5)", negative)
                .example(name + "(3)", "3")
                .example(name + "(-1.5e0)", negative)
                .example(name + "(9007199254740992e0)", "NULL")
                .done();
    }

    public static final FunctionDef DIVIDE = define(
                    Group.NUMBER, "divide", numeric("dividend"), numeric("divisor"), fixed(integer("scale")))
            .gives(Result.DECIMAL)
            .about("""
                The quotient with `scale` digits after the point, half away from zero, as `decimal(18, scale)`. Null
                for a divisor of 0, and when it does not fit.\
                """)
            .example("divide(1, 3, 4)", "0.3333")
            .example("divide(2.5, 1000, 2)", "0.00")
            .example("divide(-1, 8, 2)", "-0.13")
            .example("divide(1, 0, 2)", "NULL")
            .done();

    public static final FunctionDef ROUND_TO_PART = define(
                    Group.NUMBER, "round_to_part", numeric("number"), fixed(integer("parts")), fixed(integer("scale")))
            .gives(Result.DECIMAL)
            .about("""
                To the nearest whole multiple of 1/`parts`, half away from zero, then with `scale` digits after the
                point: halves with 2, quarters with 4. `parts` is 1 to 1000.\
                """)
            .example("round_to_part(1.3, 2, 1)", "1.5")
            .example("round_to_part(1.2, 2, 1)", "1.0")
            .example("round_to_part(-0.25, 2, 1)", "-0.5")
            .example("round_to_part(0.7, 3, 2)", "0.67")
            .done();

    public static final FunctionDef NARROW = define(
                    Group.NUMBER,
                    "narrow",
                    numeric("number"),
                    fixed(integer("precision")),
                    fixed(integer("digits_after")))
            .gives(Result.NARROWED)
            .about("""
                The same number as `decimal(precision, digits_after)`; also written `CAST(number AS decimal(12,2))`. Null
                where that type cannot hold it exactly: no digit is ever cut or rounded. To round, write `round` inside.
                An argument of a fix that asks for a decimal is brought to its type like this.\
                """)
            .example("narrow(12.50, 4, 1)", "12.5")
            .example("narrow(12.55, 4, 1)", "NULL")
            .example("narrow(-1234.0, 5, 2)", "NULL")
            .example("narrow(-123.0, 5, 2)", "-123.00")
            .example("CAST(round(0.126, 2) AS decimal(3,2))", "0.13")
            .done();

    /// The value where `wanted` is asked for: a number is brought to a decimal type that might not hold it, and is null
    /// where it does not.
    public static Expr held(Expr value, Type wanted) {
        boolean narrows = wanted instanceof Type.Decimal && value.type().isNumeric() && !CommonType.fits(value, wanted);
        return narrows && wanted instanceof Type.Decimal(int precision, int scale)
                ? new Expr.Call(NARROW, List.of(value, Expr.Literal.integer(precision), Expr.Literal.integer(scale)))
                : value;
    }

    static final List<FunctionDef> ALL =
            List.of(PLUS, MINUS, TIMES, DIV, MOD, ABS, ROUND, FLOOR, CEIL, DIVIDE, ROUND_TO_PART, NARROW);

    private static final double SMALL = 1L << 50;

    /// Whether a sum or difference of such expressions cannot come near 64 bits, so that nothing needs to be watched.
    public static boolean isSmall(Expr expr) {
        return most(expr, DEEPEST) < SMALL;
    }

    /// Further down nothing is looked at: parts may be used many times, and each time the way would be gone again.
    private static final int DEEPEST = 8;

    /// The largest distance from zero that the value can have.
    private static double most(Expr expr, int depth) {
        if (depth == 0) {
            return Double.POSITIVE_INFINITY;
        }
        return switch (expr) {
            case Expr.Literal(Long number, Type _) -> Math.abs((double) number);
            case Expr.Literal _, Expr.Name _, Expr.FixCall _ -> Double.POSITIVE_INFINITY;
            case Expr.Case choice ->
                Math.max(
                        choice.branches().stream()
                                .mapToDouble(b -> most(b.result(), depth - 1))
                                .max()
                                .orElse(0),
                        choice.otherwise() instanceof Expr.Literal(Object value, Type _) && value == null
                                ? 0
                                : most(choice.otherwise(), depth - 1));
            case Expr.Call call -> most(call, depth - 1);
        };
    }

    private static double most(Expr.Call call, int depth) {
        List<Expr> a = call.arguments();
        return switch (call.function().name()) {
            case "length", "position", "part_count" -> Integer.MAX_VALUE;
            case "year", "month", "day", "weekday", "week", "hour", "minute", "second" -> 9_999;
            case "microsecond" -> 999_999;
            case "days_between" -> 4e6;
            case "+", "-" -> most(a.get(0), depth) + most(a.get(1), depth);
            case "*" -> most(a.get(0), depth) * most(a.get(1), depth);
            case "div" -> a.get(1) instanceof Expr.Literal ? most(a.get(0), depth) : Double.POSITIVE_INFINITY;
            case "mod" -> most(a.get(1), depth);
            default -> Double.POSITIVE_INFINITY;
        };
    }
}
