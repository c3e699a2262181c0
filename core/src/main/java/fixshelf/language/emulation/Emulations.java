package fixshelf.language.emulation;

import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.util.Optional;
import java.util.stream.IntStream;

/// Calls that are written with simpler ones, as a tree, so that every language says them in its own way and none can
/// differ.
public final class Emulations {
    private Emulations() {}

    /// Whether a day or time is read or written in a layout that is not known yet, so that no language can do it.
    public static boolean lacksLayout(Expr.Call call) {
        return LayoutEmulations.FUNCTIONS.contains(call.function())
                && call.arguments().stream().skip(1).anyMatch(a -> !(a instanceof Expr.Literal));
    }

    /// Whether an argument that has to be known is not: with it, the call would be written in simpler ones.
    public static boolean lacksConstant(Expr.Call call) {
        return IntStream.range(0, call.arguments().size())
                .anyMatch(i -> call.function().slot(i).fixed() && !(call.argument(i) instanceof Expr.Literal));
    }

    /// The call in simpler ones; empty for a call that a language says itself, and for one whose fixed arguments are
    /// not known yet. A constant that the function does not take is a problem, as in no language
    /// there is a form for it.
    public static Optional<Expr> of(Expr.Call call) {
        Optional<Expr> simpler =
                switch (call.function().group()) {
                    case TEXT -> TextEmulations.of(call);
                    case DATE -> DateEmulations.of(call);
                    case LIST -> ListEmulations.of(call);
                    case NUMBER -> NumberEmulations.of(call);
                    case CONVERSION -> FloatEmulations.of(call);
                    case COMPARISON -> Comparisons.emulated(call);
                    case PATTERN, NULL -> Optional.empty();
                };
        if (simpler.isEmpty()) {
            ConstantArguments.problemWith(call.function(), call.arguments()).ifPresent(r -> {
                throw new ProblemException(
                        Problem.about(r.code(), call.function().name(), r.what(), r.todo()));
            });
        }
        return simpler;
    }
}
