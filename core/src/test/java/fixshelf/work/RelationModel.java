package fixshelf.work;

import fixshelf.check.TreeMeaning;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Expr;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Sorted;
import fixshelf.table.Windowed;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// What relations mean, in plain Java over lists of rows: as it is written down, without any thought of speed. It holds
/// the engine of previews and runs, so that this is not judge in its own case.
final class RelationModel {
    private final Function<Relation, List<Row>> tables;

    /// @param tables the rows of sources and of results of lines
    RelationModel(Function<Relation, List<Row>> tables) {
        this.tables = tables;
    }

    /// A row: its cells by the keys of their fields, and the place in the first table that it comes from; -1 for none.
    record Row(Map<String, @Nullable Object> cells, int origin) {
        @Nullable
        Object get(Field field) {
            return cells.get(field.key());
        }

        Row with(Map<String, @Nullable Object> more) {
            Map<String, @Nullable Object> all = new HashMap<>(cells);
            all.putAll(more);
            return new Row(all, origin);
        }
    }

    /// The rows in order; the first table gives each row its place as its origin.
    List<Row> rows(Relation relation) {
        return switch (relation) {
            case Relation.Source _, Relation.Result _ -> {
                List<Row> table = tables.apply(relation);
                yield IntStream.range(0, table.size())
                        .mapToObj(i -> new Row(table.get(i).cells(), i))
                        .toList();
            }
            case Relation.Compute(Relation from, List<Computed> cells, var _) ->
                rows(from).stream().map(r -> computed(r, cells)).toList();
            case Relation.Pick(Relation from, var _) -> rows(from);
            case Relation.Keep(Relation from, Expr condition) ->
                rows(from).stream()
                        .filter(r -> Boolean.TRUE.equals(value(condition, r)))
                        .toList();
            case Relation.Sort(Relation from, List<Sorted> by) -> {
                List<Row> rows = rows(from);
                yield order(rows, by, false, false).stream().map(rows::get).toList();
            }
            case Relation.FirstOf first -> firstOf(first);
            case Relation.Window window -> window(window);
            case Relation.Group group -> group(group);
            case Relation.Join join -> join(join);
            case Relation.Union(List<Relation> parts) -> union(parts);
            case Relation.Unpivot unpivot -> unpivot(unpivot);
        };
    }

    private static @Nullable Object value(Expr expr, Row row) {
        return TreeMeaning.of(Inliner.inline(expr, Map.of()), row.cells());
    }

    private static Row computed(Row row, List<Computed> cells) {
        Map<String, @Nullable Object> made = new HashMap<>();
        cells.forEach(c -> made.put(c.made().key(), value(c.value(), row)));
        return row.with(made);
    }

    /// The places of the rows in an order.
    private static List<Integer> order(List<Row> rows, List<Sorted> by, boolean lastPlace, boolean backwards) {
        Comparator<Integer> order = (a, b) -> 0;
        for (Sorted sorted : by) {
            Comparator<Integer> known = Comparator.comparing(i -> rows.get(i).get(sorted.field()) == null);
            Comparator<Integer> values = (a, b) -> {
                Object left = rows.get(a).get(sorted.field());
                Object right = rows.get(b).get(sorted.field());
                return left == null || right == null ? 0 : TreeMeaning.compared(left, right);
            };
            order = order.thenComparing(known).thenComparing(sorted.descending() ? values.reversed() : values);
        }
        Comparator<Integer> places = Comparator.naturalOrder();
        List<Integer> all =
                new ArrayList<>(IntStream.range(0, rows.size()).boxed().toList());
        all.sort(order.thenComparing(lastPlace ? places.reversed() : places));
        if (backwards) {
            Collections.reverse(all);
        }
        return all;
    }

    private static List<@Nullable Object> key(Row row, List<Field> keys) {
        List<@Nullable Object> key = new ArrayList<>();
        keys.forEach(k -> key.add(row.get(k) instanceof BigDecimal n ? n.stripTrailingZeros() : row.get(k)));
        return key;
    }

    private List<Row> firstOf(Relation.FirstOf first) {
        List<Row> rows = rows(first.from());
        Map<List<@Nullable Object>, Integer> stay = new HashMap<>();
        order(rows, first.by(), first.lastPlace(), false)
                .forEach(i -> stay.putIfAbsent(key(rows.get(i), first.keys()), i));
        return stay.values().stream().sorted().map(rows::get).toList();
    }

    private List<Row> window(Relation.Window window) {
        List<Row> rows = rows(window.from());
        Map<List<@Nullable Object>, List<Integer>> parts = new LinkedHashMap<>();
        order(rows, window.by(), false, window.backwards())
                .forEach(i -> parts.computeIfAbsent(key(rows.get(i), window.within()), _ -> new ArrayList<>())
                        .add(i));
        List<Row> made = new ArrayList<>(rows);
        for (List<Integer> part : parts.values()) {
            for (Windowed cell : window.made()) {
                for (int n = 0; n < part.size(); n++) {
                    Map<String, @Nullable Object> one = new HashMap<>();
                    one.put(cell.made().key(), windowed(cell, rows, part, n, window));
                    made.set(part.get(n), made.get(part.get(n)).with(one));
                }
            }
        }
        return made;
    }

    private static @Nullable Object windowed(
            Windowed cell, List<Row> rows, List<Integer> part, int n, Relation.Window window) {
        List<Field> order = window.by().stream().map(Sorted::field).toList();
        Function<Integer, @Nullable Object> value =
                i -> cell.of().map(f -> rows.get(part.get(i)).get(f)).orElse(null);
        return switch (cell.kind()) {
            case NUMBER -> n + 1L;
            case SHARED_NUMBER -> {
                int first = n;
                while (first > 0
                        && key(rows.get(part.get(first - 1)), order).equals(key(rows.get(part.get(n)), order))) {
                    first--;
                }
                yield first + 1L;
            }
            case DENSE_NUMBER ->
                part.subList(0, n + 1).stream()
                        .map(i -> key(rows.get(i), order))
                        .distinct()
                        .count();
            case NEIGHBOUR -> {
                int wanted = n + cell.steps();
                yield wanted < 0 || wanted >= part.size() ? null : value.apply(wanted);
            }
            case LAST_FILLED -> {
                @Nullable Object found = null;
                for (int i = n; i >= 0 && found == null; i--) {
                    found = value.apply(i);
                }
                yield found;
            }
            case SO_FAR -> aggregate(cell.aggregate(), cell.of(), "", rows, part.subList(0, n + 1));
            case OF_ALL -> aggregate(cell.aggregate(), cell.of(), "", rows, part);
        };
    }

    private static @Nullable Object aggregate(
            Aggregate aggregate, Optional<Field> of, String separator, List<Row> rows, List<Integer> part) {
        List<Object> known = new ArrayList<>();
        of.ifPresent(f -> part.stream()
                .map(i -> rows.get(i).get(f))
                .filter(Objects::nonNull)
                .forEach(known::add));
        return switch (aggregate) {
            case ROWS -> (long) part.size();
            case COUNT -> (long) known.size();
            case DISTINCT -> known.stream().distinct().count();
            case SUM -> known.isEmpty() ? null : sum(known);
            case LEAST -> known.stream().min(TreeMeaning::compared).orElse(null);
            case GREATEST -> known.stream().max(TreeMeaning::compared).orElse(null);
            case LISTED ->
                known.isEmpty()
                        ? null
                        : String.join(
                                separator, known.stream().map(Object::toString).toList());
        };
    }

    private static Object sum(List<Object> values) {
        BigDecimal sum =
                values.stream().map(v -> new BigDecimal(v.toString())).reduce(BigDecimal.ZERO, BigDecimal::add);
        return values.getFirst() instanceof Long ? (Object) sum.longValueExact() : sum;
    }

    private List<Row> group(Relation.Group group) {
        List<Row> rows = rows(group.from());
        Map<List<@Nullable Object>, List<Integer>> parts = new LinkedHashMap<>();
        if (group.keys().isEmpty()) {
            parts.put(List.of(), new ArrayList<>());
        }
        for (int i = 0; i < rows.size(); i++) {
            parts.computeIfAbsent(key(rows.get(i), group.keys()), _ -> new ArrayList<>())
                    .add(i);
        }
        List<Row> made = new ArrayList<>();
        for (List<Integer> part : parts.values()) {
            Map<String, @Nullable Object> cells = new HashMap<>();
            group.keys()
                    .forEach(k -> cells.put(k.key(), rows.get(part.getFirst()).get(k)));
            for (Grouped cell : group.made()) {
                cells.put(cell.made().key(), aggregate(cell.aggregate(), cell.of(), cell.separator(), rows, part));
            }
            made.add(new Row(cells, -1));
        }
        return made;
    }

    private List<Row> join(Relation.Join join) {
        List<Row> right = rows(join.right());
        List<Row> made = new ArrayList<>();
        for (Row row : rows(join.left())) {
            List<Row> met = right.stream()
                    .filter(r -> join.on().stream().allMatch(p -> meets(row.get(p.left()), r.get(p.right()), p)))
                    .toList();
            switch (join.meeting()) {
                case WITH -> made.addAll(met.isEmpty() ? List.of() : List.of(row));
                case WITHOUT -> made.addAll(met.isEmpty() ? List.of(row) : List.of());
                case PAIRS, ALL_LEFT -> {
                    met.forEach(r -> made.add(row.with(taken(join, r))));
                    if (met.isEmpty() && join.meeting() == Relation.Meeting.ALL_LEFT) {
                        made.add(row.with(taken(join, new Row(Map.of(), -1))));
                    }
                }
            }
        }
        return made;
    }

    private static boolean meets(@Nullable Object left, @Nullable Object right, Relation.Pair pair) {
        return left == null || right == null
                ? pair.missingMeets() && left == right
                : TreeMeaning.compared(left, right) == 0;
    }

    private static Map<String, @Nullable Object> taken(Relation.Join join, Row right) {
        Map<String, @Nullable Object> cells = new HashMap<>();
        join.taken().forEach(t -> cells.put(t.made().key(), right.get(t.field())));
        return cells;
    }

    private List<Row> union(List<Relation> parts) {
        List<Field> fields = parts.getFirst().shape().fields();
        List<Row> made = new ArrayList<>(rows(parts.getFirst()));
        for (Relation part : parts.subList(1, parts.size())) {
            for (Row row : rows(part)) {
                Map<String, @Nullable Object> cells = new HashMap<>();
                for (int i = 0; i < fields.size(); i++) {
                    cells.put(fields.get(i).key(), row.get(part.shape().fields().get(i)));
                }
                made.add(new Row(cells, -1));
            }
        }
        return made;
    }

    private List<Row> unpivot(Relation.Unpivot unpivot) {
        List<Row> made = new ArrayList<>();
        for (Row row : rows(unpivot.from())) {
            for (int s = 0; s < unpivot.sets().size(); s++) {
                Map<String, @Nullable Object> cells = new HashMap<>();
                cells.put(unpivot.name().key(), unpivot.names().get(s));
                boolean filled = false;
                for (int v = 0; v < unpivot.values().size(); v++) {
                    Object value = row.get(unpivot.sets().get(s).get(v));
                    filled |= value != null;
                    cells.put(unpivot.values().get(v).key(), value);
                }
                if (filled || unpivot.keepMissing()) {
                    made.add(row.with(cells));
                }
            }
        }
        return made;
    }
}
