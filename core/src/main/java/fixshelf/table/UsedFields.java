package fixshelf.table;

import fixshelf.language.tree.Expr;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/// Which fields a relation looks at, so that it cannot be worked out without them. Those that it only hands on are none
/// of them.
public final class UsedFields {
    private final Set<String> keys = new HashSet<>();

    private UsedFields() {}

    /// The keys of the fields, of all tables that it is worked out of.
    public static Set<String> of(Relation relation) {
        UsedFields used = new UsedFields();
        relation.parts().forEach(used::add);
        return used.keys;
    }

    private void add(Relation relation) {
        switch (relation) {
            case Relation.Source _, Relation.Result _, Relation.Pick _ -> {}
            case Relation.Compute compute ->
                compute.cells().forEach(c -> {
                    add(c.value());
                    c.onPurpose().ifPresent(this::add);
                    add(c.made());
                });
            case Relation.Keep(var _, Expr condition) -> add(condition);
            case Relation.Sort(var _, List<Sorted> by) -> order(by);
            case Relation.FirstOf first -> {
                first.keys().forEach(this::add);
                order(first.by());
            }
            case Relation.Window window -> {
                window.made().forEach(m -> m.of().ifPresent(this::add));
                window.within().forEach(this::add);
                order(window.by());
            }
            case Relation.Group group -> {
                group.keys().forEach(this::add);
                group.made().forEach(m -> m.of().ifPresent(this::add));
            }
            case Relation.Join join -> {
                join.on().forEach(p -> {
                    add(p.left());
                    add(p.right());
                });
                join.taken().forEach(t -> add(t.field()));
            }
            // Fields stand under each other by their places.
            case Relation.Union(List<Relation> tables) ->
                tables.forEach(t -> t.shape().fields().forEach(this::add));
            case Relation.Unpivot unpivot -> unpivot.sets().forEach(set -> set.forEach(this::add));
        }
    }

    private void order(List<Sorted> by) {
        by.forEach(s -> add(s.field()));
    }

    private void add(Field field) {
        keys.add(field.key());
    }

    private void add(Expr expr) {
        Formula.renamed(expr, name -> {
            keys.add(name.name());
            return name;
        });
    }
}
