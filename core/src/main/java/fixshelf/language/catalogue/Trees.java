package fixshelf.language.catalogue;

import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import java.util.List;

/// Short ways to write a tree of calls.
public final class Trees {
    private Trees() {}

    public static Expr call(FunctionDef function, Expr... arguments) {
        return new Expr.Call(function, List.of(arguments));
    }

    public static Expr text(String text) {
        return Expr.Literal.text(text);
    }

    public static Expr number(long number) {
        return Expr.Literal.integer(number);
    }

    /// `then` where the condition is true, null elsewhere.
    public static Expr when(Expr condition, Expr then) {
        return new Expr.Case(
                List.of(new Expr.Branch(condition, then)), new Expr.Literal(null, then.type()), then.type());
    }

    /// `then` where the condition is true, `otherwise` elsewhere.
    public static Expr when(Expr condition, Expr then, Expr otherwise) {
        return new Expr.Case(List.of(new Expr.Branch(condition, then)), otherwise, then.type());
    }

    public static Expr isKnown(Expr value) {
        return call(Comparisons.NOT, call(NullFunctions.IS_NULL, value));
    }
}
