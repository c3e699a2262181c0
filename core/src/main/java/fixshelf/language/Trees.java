package fixshelf.language;

import java.util.List;

/// Short ways to write a tree of calls.
final class Trees {
    private Trees() {}

    static Expr call(FunctionDef function, Expr... arguments) {
        return new Expr.Call(function, List.of(arguments));
    }

    static Expr text(String text) {
        return Expr.Literal.text(text);
    }

    static Expr number(long number) {
        return Expr.Literal.integer(number);
    }

    /// `then` where the condition is true, null elsewhere.
    static Expr when(Expr condition, Expr then) {
        return new Expr.Case(
                List.of(new Expr.Branch(condition, then)), new Expr.Literal(null, then.type()), then.type());
    }

    /// `then` where the condition is true, `otherwise` elsewhere.
    static Expr when(Expr condition, Expr then, Expr otherwise) {
        return new Expr.Case(List.of(new Expr.Branch(condition, then)), otherwise, then.type());
    }

    static Expr isKnown(Expr value) {
        return call(Comparisons.NOT, call(NullFunctions.IS_NULL, value));
    }
}
