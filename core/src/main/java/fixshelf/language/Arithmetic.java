package fixshelf.language;

import static fixshelf.language.Entry.define;
import static fixshelf.language.Entry.integer;

import fixshelf.language.FunctionDef.Group;
import fixshelf.language.FunctionDef.Result;
import fixshelf.type.Type;
import java.util.List;
import java.util.Set;

/// Whole numbers. What is beyond 64 bits is null in every language; engines would stop, wrap around or change the type.
public final class Arithmetic {
    private Arithmetic() {}

    static final FunctionDef PLUS = operator("+", "The sum.", "2 + 3", "5", "9223372036854775807 + 1");
    static final FunctionDef MINUS = operator("-", "The difference.", "2 - 3", "-1", "-9223372036854775807 - 2");
    static final FunctionDef TIMES = operator("*", "The product.", "4 * -3", "-12", "9223372036854775807 * 2");

    private static FunctionDef operator(String sign, String about, String call, String result, String beyond) {
        return define(Group.NUMBER, sign, integer("left"), integer("right"))
                .gives(Result.INTEGER)
                .about(about + " Null beyond 64 bits.")
                .example(call, result)
                .example(beyond, "NULL")
                .example("NULL " + sign + " 1", "NULL")
                .done();
    }

    static final List<FunctionDef> ALL = List.of(PLUS, MINUS, TIMES);

    private static final Set<String> SMALL =
            Set.of("length", "position", "year", "month", "day", "weekday", "days_between");
    private static final long SMALL_NUMBER = 1L << 40;

    /// Whether a sum or difference of such expressions cannot come near 64 bits, so that nothing needs to be watched.
    public static boolean isSmall(Expr expr) {
        return switch (expr) {
            case Expr.Literal(Long number, Type _) -> Math.abs(number) < SMALL_NUMBER && number != Long.MIN_VALUE;
            case Expr.Literal _, Expr.Name _, Expr.Case _, Expr.FixCall _ -> false;
            case Expr.Call call ->
                SMALL.contains(call.function().name())
                        || (call.function() == PLUS || call.function() == MINUS)
                                && call.arguments().stream().allMatch(Arithmetic::isSmall);
        };
    }
}
