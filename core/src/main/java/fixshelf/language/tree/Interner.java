package fixshelf.language.tree;

import fixshelf.type.Type;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// Keeps one object of each expression, so that a part which stands in several places is the same object in all of
/// them, and a tree that would be endless when written out is as large as its different parts.
public final class Interner {
    private final Map<Key, Expr> known = new HashMap<>();

    /// An object that is equal only to itself.
    private record Same(Object object) {
        @Override
        public boolean equals(@Nullable Object other) {
            return other instanceof Same(Object another) && another == object;
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(object);
        }
    }

    /// What a node is, over children that are objects of this interner already.
    private record Key(Object kind, Type type, List<Same> children) {}

    public Expr of(Expr expr) {
        Object kind =
                switch (expr) {
                    case Expr.Literal literal -> literal;
                    case Expr.Name name -> name;
                    case Expr.Call call -> new Same(call.function());
                    case Expr.FixCall call -> new Same(call.fix());
                    case Expr.Case _ -> "CASE";
                };
        List<Same> children = expr.children().stream().map(Same::new).toList();
        return known.computeIfAbsent(new Key(kind, expr.type(), children), _ -> expr);
    }
}
