package fixshelf.language.emulation;

import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.Constants;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.Interner;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// Writes the bodies of fixes in place of their calls, and constants in place of parameters.
///
/// What is known already is worked out: a CASE whose condition is a constant keeps only its branch, and a strict
/// function of a null constant is null.
public final class Inliner {
    private Inliner() {}

    /// The result of a fix for these arguments, one for each parameter, without any call of a fix.
    public static Expr call(Definition fix, List<Expr> arguments) {
        return new Walk(Map.of(), new Work()).call(fix, arguments);
    }

    /// The result of a body in which every `SET` name is replaced by its expression.
    public static Expr body(Body body, Map<String, Expr> given) {
        return body(body, given, new Work());
    }

    private static Expr body(Body body, Map<String, Expr> given, Work work) {
        Map<String, Expr> names = new HashMap<>(given);
        for (Body.Assignment assignment : body.assignments()) {
            names.put(key(assignment.name()), new Walk(names, work).inline(assignment.value()));
        }
        return new Walk(names, work).inline(body.result());
    }

    /// What one inlining has made so far: equal parts are one object, and a fix that is called twice with the same
    /// arguments is written out once.
    private static final class Work {
        private final Interner interner = new Interner();
        private final Map<Expr, Expr> calls = new IdentityHashMap<>();
    }

    private static Expr typed(Expr argument, Type type) {
        return argument instanceof Expr.Literal(Object value, Type.Unknown _)
                ? new Expr.Literal(value, type)
                : argument;
    }

    public static String key(String name) {
        return name.toLowerCase(Locale.ROOT);
    }

    /// Replaces names that are in `names`; others stay.
    public static Expr inline(Expr expr, Map<String, Expr> names) {
        return new Walk(names, new Work()).inline(expr);
    }

    /// One pass over expressions in which names mean the same.
    private static final class Walk {
        private final Map<String, Expr> names;
        private final Work work;
        private final Map<Expr, Expr> done = new IdentityHashMap<>();

        Walk(Map<String, Expr> names, Work work) {
            this.names = names;
            this.work = work;
        }

        Expr inline(Expr expr) {
            Expr before = done.get(expr);
            if (before != null) {
                return before;
            }
            Expr made =
                    switch (expr) {
                        case Expr.Literal _ -> work.interner.of(expr);
                        case Expr.Name name -> names.getOrDefault(key(name.name()), work.interner.of(name));
                        case Expr.FixCall(Definition fix, List<Expr> arguments) -> call(fix, all(arguments));
                        case Expr.Call call ->
                            work.interner.of(simplified(new Expr.Call(call.function(), all(call.arguments()))));
                        case Expr.Case choice -> work.interner.of(choice(choice));
                    };
            done.put(expr, made);
            return made;
        }

        private List<Expr> all(List<Expr> exprs) {
            return exprs.stream().map(this::inline).toList();
        }

        Expr call(Definition fix, List<Expr> arguments) {
            List<Expr> given = new ArrayList<>();
            for (int i = 0; i < arguments.size(); i++) {
                Expr typed = typed(arguments.get(i), fix.parameters().get(i).type());
                given.add(work.interner.of(typed));
            }
            Expr asked = work.interner.of(new Expr.FixCall(fix, given));
            Expr before = work.calls.get(asked);
            if (before != null) {
                return before;
            }
            Map<String, Expr> values = new HashMap<>();
            for (int i = 0; i < given.size(); i++) {
                values.put(key(fix.parameters().get(i).name()), given.get(i));
            }
            Expr made = body(fix.body(), values, work);
            work.calls.put(asked, made);
            return made;
        }

        private Expr choice(Expr.Case choice) {
            List<Expr.Branch> branches = new ArrayList<>();
            for (Expr.Branch branch : choice.branches()) {
                Expr condition = inline(branch.condition());
                if (condition instanceof Expr.Literal(Object value, Type _)) {
                    if (Boolean.TRUE.equals(value)) {
                        return finished(branches, inline(branch.result()), choice.type());
                    }
                    continue;
                }
                branches.add(new Expr.Branch(condition, inline(branch.result())));
            }
            return finished(branches, inline(choice.otherwise()), choice.type());
        }
    }

    /// The value of a call that is known without any data: a strict function of a null constant is null.
    public static Expr simplified(Expr.Call call) {
        boolean strict = call.function().nulls() == FunctionDef.Nulls.IF_ANY;
        boolean missing = call.arguments().stream()
                .anyMatch(a -> a instanceof Expr.Literal(Object value, Type _) && value == null);
        if (strict && missing) {
            return new Expr.Literal(null, call.type());
        }
        if (call.function() == Comparisons.NOT && call.argument(0) instanceof Expr.Literal(Boolean value, Type _)) {
            return Expr.Literal.truth(!value);
        }
        return Constants.value(call).<Expr>map(v -> v).orElse(call);
    }

    private static boolean isMissing(Expr expr) {
        return expr instanceof Expr.Literal(Object value, Type _) && value == null;
    }

    /// A choice between nothing and nothing is nothing, of its type: written out, engines would take it for a text.
    private static Expr finished(List<Expr.Branch> branches, Expr otherwise, Type type) {
        if (isMissing(otherwise) && branches.stream().allMatch(b -> isMissing(b.result()))) {
            return new Expr.Literal(null, type);
        }
        return branches.isEmpty() ? typed(otherwise, type) : new Expr.Case(branches, otherwise, type);
    }
}
