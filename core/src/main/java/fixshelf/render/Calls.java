package fixshelf.render;

import fixshelf.language.Definition;
import fixshelf.language.Expr;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// Which fixes a fix calls.
final class Calls {
    private Calls() {}

    /// The fixes that a fix calls, each before those that call it, the fix itself last.
    static List<Definition> neededBy(Definition fix) {
        Map<String, Definition> needed = new LinkedHashMap<>();
        collect(fix, needed);
        return new ArrayList<>(needed.values());
    }

    private static void collect(Definition fix, Map<String, Definition> needed) {
        Set<Definition> called = new LinkedHashSet<>();
        fix.body().assignments().forEach(a -> calls(a.value(), called));
        calls(fix.body().result(), called);
        called.forEach(c -> collect(c, needed));
        needed.putIfAbsent(fix.name(), fix);
    }

    private static void calls(Expr expr, Set<Definition> called) {
        switch (expr) {
            case Expr.Literal _, Expr.Name _ -> {}
            case Expr.Call call -> call.arguments().forEach(a -> calls(a, called));
            case Expr.Case choice -> {
                choice.branches().forEach(b -> calls(b.condition(), called));
                choice.branches().forEach(b -> calls(b.result(), called));
                calls(choice.otherwise(), called);
            }
            case Expr.FixCall(Definition fix, List<Expr> arguments) -> {
                called.add(fix);
                arguments.forEach(a -> calls(a, called));
            }
        }
    }
}
