package fixshelf.table;

import fixshelf.language.tree.Expr;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.IntSupplier;

/// Relations with fields of new numbers, over other tables: what the lines of another job mean, so that none of its
/// fields is one of ours.
public final class Moved {
    private final IntSupplier ids;
    private final Function<Relation.Result, Relation> results;
    private final Map<Integer, Integer> numbers = new HashMap<>();
    private final Map<Relation, Relation> known = new IdentityHashMap<>();

    /// @param ids gives new numbers
    /// @param results what stands for the results of lines, moved already
    public Moved(IntSupplier ids, Function<Relation.Result, Relation> results) {
        this.ids = ids;
        this.results = results;
    }

    /// The relation; one that is used several times stays one.
    public Relation of(Relation relation) {
        Relation before = known.get(relation);
        if (before != null) {
            return before;
        }
        Relation moved = moved(relation);
        known.put(relation, moved);
        return moved;
    }

    private Relation moved(Relation relation) {
        return switch (relation) {
            case Relation.Source(String name, Shape shape) -> new Relation.Source(name, shape(shape));
            case Relation.Result result -> results.apply(result);
            case Relation.Compute(Relation from, List<Computed> cells, var _) ->
                new Relation.Compute(
                        of(from),
                        cells.stream()
                                .map(c -> new Computed(
                                        field(c.made()),
                                        expr(c.value()),
                                        c.onPurpose().map(this::expr)))
                                .toList());
            case Relation.Pick(Relation from, Shape shape) -> new Relation.Pick(of(from), shape(shape));
            case Relation.Keep(Relation from, Expr condition) -> new Relation.Keep(of(from), expr(condition));
            case Relation.Sort(Relation from, List<Sorted> by) -> new Relation.Sort(of(from), order(by));
            case Relation.FirstOf(Relation from, List<Field> keys, List<Sorted> by, boolean last) ->
                new Relation.FirstOf(of(from), fields(keys), order(by), last);
            case Relation.Window(
                    Relation from,
                    List<Windowed> made,
                    List<Field> within,
                    List<Sorted> by,
                    boolean backwards,
                    var _) ->
                new Relation.Window(
                        of(from),
                        made.stream()
                                .map(w -> new Windowed(
                                        field(w.made()), w.kind(), w.aggregate(), w.of().map(this::field), w.steps()))
                                .toList(),
                        fields(within),
                        order(by),
                        backwards);
            case Relation.Group(Relation from, List<Field> keys, List<Grouped> made) ->
                new Relation.Group(
                        of(from),
                        fields(keys),
                        made.stream()
                                .map(g -> new Grouped(
                                        field(g.made()), g.aggregate(), g.of().map(this::field), g.separator()))
                                .toList());
            case Relation.Join(
                    Relation left,
                    Relation right,
                    List<Relation.Pair> on,
                    Relation.Meeting meeting,
                    List<Relation.Taken> taken,
                    var _) ->
                new Relation.Join(
                        of(left),
                        of(right),
                        on.stream()
                                .map(p -> new Relation.Pair(field(p.left()), field(p.right()), p.missingMeets()))
                                .toList(),
                        meeting,
                        taken.stream()
                                .map(t -> new Relation.Taken(field(t.field()), field(t.made())))
                                .toList());
            case Relation.Union(List<Relation> tables) ->
                new Relation.Union(tables.stream().map(this::of).toList());
            case Relation.Unpivot(
                    Relation from,
                    List<List<Field>> sets,
                    List<String> names,
                    Field name,
                    List<Field> values,
                    boolean keepMissing) ->
                new Relation.Unpivot(
                        of(from),
                        sets.stream().map(this::fields).toList(),
                        names,
                        field(name),
                        fields(values),
                        keepMissing);
        };
    }

    private Field field(Field field) {
        return new Field(numbers.computeIfAbsent(field.id(), _ -> ids.getAsInt()), field.column(), field.declared());
    }

    private List<Field> fields(List<Field> fields) {
        return fields.stream().map(this::field).toList();
    }

    private Shape shape(Shape shape) {
        return new Shape(fields(shape.fields()));
    }

    private List<Sorted> order(List<Sorted> by) {
        return by.stream()
                .map(s -> new Sorted(field(s.field()), s.descending(), s.missingFirst()))
                .toList();
    }

    /// An expression over fields; each name in it is the key of one.
    private Expr expr(Expr expr) {
        return Formula.renamed(expr, n -> {
            boolean key =
                    n.name().startsWith("c") && n.name().substring(1).chars().allMatch(Character::isDigit);
            int id = key ? Integer.parseInt(n.name().substring(1)) : -1;
            Integer moved = numbers.get(id);
            return moved == null ? n : new Expr.Name("c" + moved, n.type());
        });
    }
}
