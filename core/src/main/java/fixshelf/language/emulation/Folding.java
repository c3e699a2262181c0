package fixshelf.language.emulation;

import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Interner;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// Works out what is known of a fix without any data. Its calls of other fixes stay, and one that stands in it twice
/// gets a name, or every level of calls would double the work of the one below.
public final class Folding {
    private final Definition fix;
    private final Interner interner = new Interner();
    private final Map<Expr, Expr> done = new IdentityHashMap<>();
    private final Map<Expr, Integer> uses = new IdentityHashMap<>();
    private final Map<Expr, Expr> named = new IdentityHashMap<>();
    private final List<Body.Assignment> assignments = new ArrayList<>();
    private final Set<String> taken = new HashSet<>();

    private Folding(Definition fix) {
        this.fix = fix;
    }

    /// The same fix, shorter.
    public static Definition of(Definition fix) {
        return new Folding(fix).definition();
    }

    private Definition definition() {
        fix.parameters().forEach(p -> taken.add(Inliner.key(p.name())));
        fix.body().assignments().forEach(a -> taken.add(Inliner.key(a.name())));
        List<Expr> values = new ArrayList<>();
        fix.body().assignments().forEach(a -> values.add(folded(a.value())));
        values.add(folded(fix.body().result()));
        // Equal parts of all values are one object.
        Set<Expr> parts = Collections.newSetFromMap(new IdentityHashMap<>());
        values.forEach(v -> uses.merge(v, 1, Integer::sum));
        values.forEach(v -> parts.addAll(v.parts()));
        parts.forEach(p -> p.children().forEach(c -> uses.merge(c, 1, Integer::sum)));
        for (Body.Assignment assignment : fix.body().assignments()) {
            Expr value = shared(values.removeFirst());
            assignments.add(new Body.Assignment(assignment.name(), value));
        }
        Expr last = shared(values.removeFirst());
        return new Definition(fix.name(), fix.parameters(), fix.returns(), new Body(assignments, last));
    }

    private Expr folded(Expr expr) {
        Expr before = done.get(expr);
        if (before != null) {
            return before;
        }
        Expr inside = expr.withChildren(this::folded);
        Expr made = inside instanceof Expr.Call call
                ? Inliner.simplified(new Expr.Call(call.function(), call.arguments()))
                : inside;
        Expr one = interner.of(made);
        done.put(expr, one);
        return one;
    }

    /// The expression with names for the calls that are made twice; they are assigned before it.
    private Expr shared(Expr expr) {
        Expr known = named.get(expr);
        if (known != null) {
            return known;
        }
        Expr inside = expr.withChildren(this::shared);
        boolean twice = expr instanceof Expr.FixCall && uses.getOrDefault(expr, 1) > 1;
        Expr made = twice ? assigned(inside) : inside;
        named.put(expr, made);
        return made;
    }

    private Expr assigned(Expr value) {
        String name = "part_" + (taken.size() + 1);
        while (!taken.add(name)) {
            name += "_";
        }
        assignments.add(new Body.Assignment(name, value));
        return new Expr.Name(name, value.type());
    }
}
