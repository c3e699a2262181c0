package fixshelf.language;

import static fixshelf.language.Trees.call;

import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;

/// Numbers put together from simpler calls.
final class NumberEmulations {
    private NumberEmulations() {}

    static Optional<Expr> of(Expr.Call call) {
        List<Expr> a = call.arguments();
        boolean whole = a.getFirst().type() instanceof Type.Int;
        if (call.type() instanceof Type.Num && !a.isEmpty()) {
            return FloatEmulations.of(call);
        }
        return switch (call.function().name()) {
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
