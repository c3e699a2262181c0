package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.text;
import static fixshelf.language.catalogue.Trees.when;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.FloatFunctions;
import fixshelf.language.catalogue.PatternFunctions;
import fixshelf.language.catalogue.TextFunctions;
import fixshelf.language.catalogue.Trees;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;

/// Floating-point numbers with a look at their size first, where a language would stop or give infinity.
final class FloatEmulations {
    /// Tab to carriage return, and the space.
    private static final String BLANKS = "\t\n\u000B\f\r ";

    private static final int LONGEST = 100;

    private FloatEmulations() {}

    static Optional<Expr> of(Expr.Call call) {
        List<Expr> a = call.arguments();
        return switch (call.function().name()) {
            case "to_number" -> Optional.of(read(a.getFirst()));
            case "+" -> Optional.of(guarded(a, FloatFunctions.PLUS));
            case "-" -> Optional.of(guarded(a, FloatFunctions.MINUS));
            case "*" -> Optional.of(guarded(a, FloatFunctions.TIMES));
            case "/" -> Optional.of(quotient(a));
            default -> Optional.empty();
        };
    }

    private static Expr read(Expr text) {
        Expr bare = call(TextFunctions.TRIM, text, text(BLANKS));
        Expr shape = call(
                PatternFunctions.REGEXP_LIKE,
                bare,
                text("^[+-]?(?:[0-9]+(?:[.][0-9]*)?|[.][0-9]+)(?:[eE][+-]?[0-9]{1,3})?$"));
        Expr brief = call(Comparisons.AT_MOST, call(TextFunctions.LENGTH, text), Trees.number(LONGEST));
        return when(call(Comparisons.AND, brief, shape), call(FloatFunctions.READ, bare));
    }

    private static Expr guarded(List<Expr> a, FunctionDef raw) {
        Expr result = new Expr.Call(raw, a);
        boolean small = raw != FloatFunctions.TIMES;
        return a.stream()
                .filter(x -> !isModerate(x))
                .distinct()
                .map(x -> small ? atMost(x) : call(Comparisons.OR, isZero(x), within(x)))
                .reduce((x, y) -> call(Comparisons.AND, x, y))
                .map(fine -> when(fine, result))
                .orElse(result);
    }

    private static Expr quotient(List<Expr> a) {
        Expr dividend = a.get(0);
        Expr divisor = a.get(1);
        Expr result = new Expr.Call(FloatFunctions.OVER, a);
        if (divisor instanceof Expr.Literal(Double zero, Type _) && zero == 0) {
            return new Expr.Literal(null, Type.NUMBER);
        }
        Optional<Expr> over = isModerate(dividend)
                ? Optional.empty()
                : Optional.of(call(Comparisons.OR, isZero(dividend), within(dividend)));
        Optional<Expr> under = divisor instanceof Expr.Literal && isModerate(divisor)
                ? Optional.empty()
                : Optional.of(within(divisor));
        return over.map(o -> under.map(u -> call(Comparisons.AND, o, u)).orElse(o))
                .or(() -> under)
                .map(fine -> when(fine, result))
                .orElse(result);
    }

    /// Whether the size of an operand is known to be fit for every operation.
    private static boolean isModerate(Expr expr) {
        return switch (expr) {
            case Expr.Literal(Double value, Type _) ->
                value == 0
                        || Math.abs(value) <= FloatFunctions.MOST_OPERAND
                                && Math.abs(value) >= FloatFunctions.LEAST_OPERAND;
            case Expr.Literal literal -> literal.value() == null;
            case Expr.Call call -> call.function() == FloatFunctions.APPROXIMATE;
            case Expr.Name _, Expr.FixCall _, Expr.Case _ -> false;
        };
    }

    private static Expr isZero(Expr number) {
        return call(Comparisons.EQUAL, number, literal(0));
    }

    private static Expr atMost(Expr number) {
        return call(Comparisons.AT_MOST, call(Arithmetic.ABS, number), literal(FloatFunctions.MOST_OPERAND));
    }

    /// Between the smallest and the largest size; not 0.
    private static Expr within(Expr number) {
        Expr size = call(Arithmetic.ABS, number);
        return call(
                Comparisons.AND,
                call(Comparisons.AT_LEAST, size, literal(FloatFunctions.LEAST_OPERAND)),
                atMost(number));
    }

    private static Expr literal(double value) {
        return new Expr.Literal(value, Type.NUMBER);
    }
}
