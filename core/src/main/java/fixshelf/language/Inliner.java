package fixshelf.language;

import fixshelf.type.Type;
import java.util.HashMap;
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
        Map<String, Expr> names = new HashMap<>();
        for (int i = 0; i < arguments.size(); i++) {
            Parameter parameter = fix.parameters().get(i);
            names.put(key(parameter.name()), typed(arguments.get(i), parameter.type()));
        }
        return body(fix.body(), names);
    }

    /// The result of a body in which every `SET` name is replaced by its expression.
    public static Expr body(Body body, Map<String, Expr> given) {
        Map<String, Expr> names = new HashMap<>(given);
        for (Body.Assignment assignment : body.assignments()) {
            names.put(key(assignment.name()), inline(assignment.value(), names));
        }
        return inline(body.result(), names);
    }

    private static Expr typed(Expr argument, Type type) {
        return argument instanceof Expr.Literal(Object value, Type.Unknown _)
                ? new Expr.Literal(value, type)
                : argument;
    }

    static String key(String name) {
        return name.toLowerCase(Locale.ROOT);
    }

    /// Replaces names that are in `names`; others stay.
    public static Expr inline(Expr expr, Map<String, Expr> names) {
        return switch (expr) {
            case Expr.Literal _ -> expr;
            case Expr.Name name -> names.getOrDefault(key(name.name()), name);
            case Expr.FixCall(Definition fix, List<Expr> arguments) -> call(fix, all(arguments, names));
            case Expr.Call call -> simplified(new Expr.Call(call.function(), all(call.arguments(), names)));
            case Expr.Case choice -> choice(choice, names);
        };
    }

    private static List<Expr> all(List<Expr> exprs, Map<String, Expr> names) {
        return exprs.stream().map(e -> inline(e, names)).toList();
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

    /// The fix with everything worked out that is known without data; its calls of other fixes stay.
    public static Definition folded(Definition fix) {
        List<Body.Assignment> assignments = fix.body().assignments().stream()
                .map(a -> new Body.Assignment(a.name(), folded(a.value())))
                .toList();
        Body body = new Body(assignments, folded(fix.body().result()));
        return new Definition(fix.name(), fix.parameters(), fix.returns(), body);
    }

    private static Expr folded(Expr expr) {
        return switch (expr) {
            case Expr.Literal _, Expr.Name _ -> expr;
            case Expr.FixCall(Definition fix, List<Expr> arguments) ->
                new Expr.FixCall(fix, arguments.stream().map(Inliner::folded).toList());
            case Expr.Call call ->
                simplified(new Expr.Call(
                        call.function(),
                        call.arguments().stream().map(Inliner::folded).toList()));
            case Expr.Case(List<Expr.Branch> branches, Expr otherwise, Type type) ->
                new Expr.Case(
                        branches.stream()
                                .map(b -> new Expr.Branch(folded(b.condition()), folded(b.result())))
                                .toList(),
                        folded(otherwise),
                        type);
        };
    }

    private static Expr choice(Expr.Case choice, Map<String, Expr> names) {
        List<Expr.Branch> branches = new java.util.ArrayList<>();
        for (Expr.Branch branch : choice.branches()) {
            Expr condition = inline(branch.condition(), names);
            if (condition instanceof Expr.Literal(Object value, Type _)) {
                if (Boolean.TRUE.equals(value)) {
                    return finished(branches, inline(branch.result(), names), choice.type());
                }
                continue;
            }
            branches.add(new Expr.Branch(condition, inline(branch.result(), names)));
        }
        return finished(branches, inline(choice.otherwise(), names), choice.type());
    }

    private static Expr finished(List<Expr.Branch> branches, Expr otherwise, Type type) {
        return branches.isEmpty() ? typed(otherwise, type) : new Expr.Case(branches, otherwise, type);
    }
}
