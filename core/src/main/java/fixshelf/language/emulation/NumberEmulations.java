package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.when;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;

/// Numbers put together from simpler calls.
final class NumberEmulations {
    private NumberEmulations() {}

    /// With the nearest whole quotient what is left may be on the other side of zero; then one divisor is too much.
    private static Expr remainder(Expr dividend, Expr divisor, Type.Decimal type) {
        Expr zero = Expr.Literal.integer(0);
        Expr quotient = call(Arithmetic.DIVIDE, dividend, divisor, zero);
        Expr left = call(Arithmetic.MINUS, dividend, call(Arithmetic.TIMES, divisor, quotient));
        Expr size = call(Arithmetic.ABS, divisor);
        Expr below =
                call(Comparisons.AND, call(Comparisons.LESS, left, zero), call(Comparisons.GREATER, dividend, zero));
        Expr above =
                call(Comparisons.AND, call(Comparisons.GREATER, left, zero), call(Comparisons.LESS, dividend, zero));
        return narrowed(
                when(
                        below,
                        narrowed(call(Arithmetic.PLUS, left, size), type),
                        when(above, narrowed(call(Arithmetic.MINUS, left, size), type), narrowed(left, type))),
                type);
    }

    private static Expr narrowed(Expr value, Type.Decimal type) {
        return value.type().equals(type) ? value : Arithmetic.held(value, type);
    }

    static Optional<Expr> of(Expr.Call call) {
        List<Expr> a = call.arguments();
        boolean whole = a.getFirst().type() instanceof Type.Int;
        if (call.type() instanceof Type.Num && !a.isEmpty()) {
            return FloatEmulations.of(call);
        }
        return switch (call.function().name()) {
            case "mod" ->
                call.type() instanceof Type.Decimal type
                        ? Optional.of(remainder(a.get(0), a.get(1), type))
                        : Optional.empty();
            case "floor", "ceil" -> whole ? Optional.of(a.getFirst()) : Optional.empty();
            case "round_to_part" -> {
                Expr times = call(Arithmetic.TIMES, a.get(0), a.get(1));
                Expr nearest = call(Arithmetic.ROUND, times, Expr.Literal.integer(0));
                yield Optional.of(call(Arithmetic.DIVIDE, nearest, a.get(1), a.get(2)));
            }
            default -> Optional.empty();
        };
    }
}
