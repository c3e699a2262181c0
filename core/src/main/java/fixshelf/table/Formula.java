package fixshelf.table;

import fixshelf.language.catalogue.Functions;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;

/// Short ways to write expressions over fields.
public final class Formula {
    private Formula() {}

    /// A call of a catalogue function or operator.
    public static Expr call(String function, Expr... arguments) {
        return new Expr.Call(Functions.find(function).orElseThrow(), List.of(arguments));
    }

    public static Expr isMissing(Expr value) {
        return call("IS NULL", value);
    }

    public static Expr isKnown(Expr value) {
        return not(isMissing(value));
    }

    public static Expr not(Expr condition) {
        return call("NOT", condition);
    }

    /// All of them; true of none.
    public static Expr all(List<Expr> conditions) {
        return conditions.stream().reduce((a, b) -> call("AND", a, b)).orElse(Expr.Literal.truth(true));
    }

    /// Any of them; false of none.
    public static Expr any(List<Expr> conditions) {
        return conditions.stream().reduce((a, b) -> call("OR", a, b)).orElse(Expr.Literal.truth(false));
    }

    /// `then` where the condition is true, `otherwise` elsewhere, also where it is unknown.
    public static Expr when(Expr condition, Expr then, Expr otherwise) {
        Type type = then.type() instanceof Type.Unknown ? otherwise.type() : then.type();
        return new Expr.Case(List.of(new Expr.Branch(condition, then)), typed(otherwise, type), type);
    }

    /// A missing value of that type.
    public static Expr missing(Type type) {
        return new Expr.Literal(null, type);
    }

    private static Expr typed(Expr value, Type type) {
        return value instanceof Expr.Literal(Object known, Type.Unknown _) && known == null ? missing(type) : value;
    }

    /// The same expression with other things in place of some names; a part that is shared stays shared.
    public static Expr renamed(Expr expr, Function<Expr.Name, Expr> names) {
        return renamed(expr, names, new IdentityHashMap<>());
    }

    private static Expr renamed(Expr expr, Function<Expr.Name, Expr> names, Map<Expr, Expr> known) {
        Expr before = known.get(expr);
        if (before != null) {
            return before;
        }
        Expr after = expr instanceof Expr.Name name
                ? names.apply(name)
                : expr.withChildren(child -> renamed(child, names, known));
        known.put(expr, after);
        return after;
    }
}
