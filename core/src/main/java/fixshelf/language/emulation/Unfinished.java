package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.isKnown;

import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.ListFunctions;
import fixshelf.language.catalogue.NullFunctions;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Where a replacement that goes on until nothing changes reached its bound: what it gives then is missing, and this
/// tells it from what is missing for another cause.
///
/// @param condition true where the value is missing and a bound was reached
/// @param most the bounds, as they are written
public record Unfinished(Expr condition, List<Long> most) {
    public Unfinished {
        most = List.copyOf(most);
    }

    /// Empty for a value in which there is no such replacement, in no fix that it calls either.
    public static Optional<Unfinished> of(Expr value) {
        if (!repeats(value, Collections.newSetFromMap(new IdentityHashMap<>()))) {
            return Optional.empty();
        }
        Expr written = Inliner.inline(value, Map.of());
        List<Expr.Call> bounded = written.parts().stream()
                .filter(Expr.Call.class::isInstance)
                .map(Expr.Call.class::cast)
                .filter(c -> c.function() == ListFunctions.REPLACE_UNTIL_SAME && isComplete(c))
                .toList();
        Optional<Expr> reached = bounded.stream()
                .map(c -> call(Comparisons.AND, isKnown(c.argument(0)), isMissing(c)))
                .reduce((a, b) -> call(Comparisons.OR, a, b));
        return reached.map(r -> new Unfinished(
                call(Comparisons.AND, isMissing(written), r),
                bounded.stream()
                        .map(c -> (Long) ((Expr.Literal) c.argument(3)).value())
                        .distinct()
                        .toList()));
    }

    /// The fix that tells of its first argument whether a bound is reached with it, and with the others as they are in
    /// `row`; empty for one without such a replacement.
    public static Optional<Definition> asked(Definition fix, List<Expr.Literal> row) {
        List<Expr> arguments = new ArrayList<>(row);
        Parameter first = fix.parameters().getFirst();
        arguments.set(0, new Expr.Name(first.name(), first.type()));
        return of(new Expr.FixCall(fix, arguments))
                .map(u ->
                        new Definition(fix.name(), fix.parameters(), Type.BOOLEAN, new Body(List.of(), u.condition())));
    }

    /// Whether there is such a replacement, before anything is written out. A fix is looked into once, however often it
    /// is called.
    ///
    /// @param seen the fixes that were looked into
    private static boolean repeats(Expr value, Set<Definition> seen) {
        return value.parts().stream().anyMatch(part -> switch (part) {
            case Expr.Call call -> call.function() == ListFunctions.REPLACE_UNTIL_SAME;
            case Expr.FixCall call -> seen.add(call.fix()) && repeats(call.fix().body(), seen);
            case Expr.Literal _, Expr.Name _, Expr.Case _ -> false;
        });
    }

    private static boolean repeats(Body body, Set<Definition> seen) {
        return repeats(body.result(), seen) || body.assignments().stream().anyMatch(a -> repeats(a.value(), seen));
    }

    private static boolean isComplete(Expr.Call call) {
        return call.arguments().stream().skip(1).allMatch(a -> a instanceof Expr.Literal(Object v, var _) && v != null);
    }

    private static Expr isMissing(Expr value) {
        return call(NullFunctions.IS_NULL, value);
    }

    /// What happened, as the end of a sentence: `still changed after 12 times`.
    public String words() {
        String times = String.join(" or ", most.stream().map(String::valueOf).toList());
        return "still changed after " + (times.equals("1") ? "one time" : times + " times");
    }
}
