package fixshelf.render.sql;

import fixshelf.language.tree.Expr;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.table.Sorted;
import fixshelf.table.Windowed;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/// The one writer of relations as SQL, for all dialects: each relation becomes a named query over those that it is
/// made of. What differs between dialects is asked of the [SqlLanguage].
public final class RelationSql {
    /// How fields and hidden columns are called, and what is carried along.
    ///
    /// @param field the name of a field, not yet quoted
    /// @param place the column with the number of each row in its table, not yet quoted; none where order is not
    /// asked
    ///     for
    /// @param origins whether each row carries the place that it had in the first table, in `o`
    /// @param counts whether each row carries how many of its cells were changed and lost, in `k` and `l`
    /// @param carried columns that go along with the rows, through relations that keep rows as they are
    public record Manner(
            Function<Field, String> field,
            Optional<String> place,
            boolean origins,
            boolean counts,
            List<String> carried) {
        public Manner {
            carried = List.copyOf(carried);
        }

        /// With the names that users see.
        public static Manner named(Optional<String> place) {
            return new Manner(Field::name, place, false, false, List.of());
        }

        /// With names of our own; places are in `p`.
        public static Manner inside(boolean places, boolean origins, boolean counts, List<String> carried) {
            Optional<String> place = places ? Optional.of("p") : Optional.empty();
            return new Manner(Field::key, place, origins, counts, carried);
        }

        private boolean traced() {
            return origins || counts;
        }
    }

    private final SqlLanguage language;
    private final FieldSql fields;
    private final Manner manner;
    private final Function<Relation, String> bases;
    private final List<String> queries = new ArrayList<>();
    private final Map<Relation, String> names = new IdentityHashMap<>();

    /// @param bases the table that a [Relation.Source] or [Relation.Result] is, quoted
    public RelationSql(SqlLanguage language, Manner manner, Function<Relation, String> bases) {
        this.language = language;
        this.fields = new FieldSql(language, manner);
        this.manner = manner;
        this.bases = bases;
    }

    /// As above, where some relations stand in tables already.
    public RelationSql(
            SqlLanguage language, Manner manner, Function<Relation, String> bases, Map<Relation, String> known) {
        this(language, manner, bases);
        names.putAll(known);
    }

    /// The named queries that were written so far, in their order: `name AS (…)`.
    public List<String> queries() {
        return List.copyOf(queries);
    }

    /// Writes a relation, and all that it is made of, and gives the name of the query; `name` is what it is to be
    /// called, and what names of its parts begin with.
    public String write(Relation relation, String name) {
        List<Relation> parts = relation.parts();
        int number = 1;
        for (Relation part : parts) {
            boolean base = part instanceof Relation.Source || part instanceof Relation.Result;
            if (base && !manner.traced()) {
                names.putIfAbsent(part, bases.apply(part));
            } else if (!names.containsKey(part)) {
                String called = part == relation ? name : name + "_" + number++;
                queries.add(called + " AS (\n  " + Sql.indent(select(part), 2) + "\n)");
                names.put(part, called);
            }
        }
        return names.get(relation);
    }

    private String named(String value, String name) {
        return value.equals(name) ? name : value + " AS " + name;
    }

    /// The hidden columns of a row that stays itself.
    private List<String> hidden() {
        List<String> columns = new ArrayList<>();
        manner.place().ifPresent(p -> columns.add(fields.id(p)));
        columns.addAll(manner.origins() ? List.of("o") : List.of());
        columns.addAll(manner.counts() ? List.of("k", "l") : List.of());
        columns.addAll(manner.carried());
        return columns;
    }

    /// The hidden columns of the first table.
    private List<String> begun() {
        List<String> columns = new ArrayList<>();
        manner.place().ifPresent(p -> columns.add(fields.id(p)));
        columns.addAll(manner.origins() ? List.of(place() + " AS o") : List.of());
        columns.addAll(manner.counts() ? List.of("0 AS k", "0 AS l") : List.of());
        columns.addAll(manner.carried());
        return columns;
    }

    /// The hidden columns of a row that stays itself at another place.
    private List<String> moved(String place) {
        List<String> columns = hidden();
        manner.place().ifPresent(p -> columns.set(0, place + " AS " + fields.id(p)));
        return columns;
    }

    /// The hidden columns of a row that has a new place, and comes from `origin`.
    private List<String> hidden(String place, String origin) {
        List<String> columns = new ArrayList<>();
        manner.place().ifPresent(p -> columns.add(place + " AS " + fields.id(p)));
        columns.addAll(manner.origins() ? List.of(named(origin, "o")) : List.of());
        columns.addAll(manner.counts() ? List.of("0 AS k", "0 AS l") : List.of());
        return columns;
    }

    private String place() {
        return fields.id(manner.place().orElseThrow(() -> new IllegalStateException("no places are carried")));
    }

    private List<String> ids(List<Field> all) {
        return all.stream().map(fields::id).toList();
    }

    private static String query(List<String> columns, String rest) {
        String line = String.join(", ", columns);
        String list = line.length() <= 100 && line.indexOf('\n') < 0
                ? line
                : columns.stream().map(c -> Sql.indent(c, 2)).collect(Collectors.joining(",\n  "));
        return "SELECT " + list + "\nFROM " + rest;
    }

    private List<String> and(List<String> first, List<String> more) {
        List<String> all = new ArrayList<>(first);
        all.addAll(more);
        return all;
    }

    private String select(Relation relation) {
        return switch (relation) {
            case Relation.Source _, Relation.Result _ ->
                query(and(begun(), ids(relation.shape().fields())), bases.apply(relation));
            case Relation.Compute compute -> compute(compute);
            case Relation.Pick(Relation from, Shape shape) ->
                query(
                        and(
                                hidden(),
                                shape.fields().stream()
                                        .map(f -> named(
                                                fields.id(from.shape()
                                                        .find(f.id())
                                                        .orElseThrow()),
                                                fields.id(f)))
                                        .toList()),
                        names.get(from));
            case Relation.Keep(Relation from, Expr condition) ->
                query(and(hidden(), ids(from.shape().fields())), names.get(from)) + "\nWHERE "
                        + fields.code(condition, from);
            case Relation.Sort(Relation from, List<Sorted> by) ->
                query(
                        and(
                                moved("row_number() OVER (ORDER BY " + order(by, false, false, "sorted.") + ") - 1"),
                                ids(from.shape().fields())),
                        names.get(from) + " sorted");
            case Relation.FirstOf first -> firstOf(first);
            case Relation.Window window -> window(window);
            case Relation.Group group -> group(group);
            case Relation.Join join -> join(join);
            case Relation.Union union -> union(union);
            case Relation.Unpivot unpivot -> unpivot(unpivot);
        };
    }

    private String compute(Relation.Compute compute) {
        Map<Integer, String> values = new HashMap<>();
        compute.cells().forEach(c -> values.put(c.made().id(), fields.code(c.value(), compute.from())));
        List<String> columns = new ArrayList<>(hidden());
        columns.replaceAll(c -> switch (c) {
            case "k" -> counted("k", compute, cell -> changed(cell, compute.from(), values));
            case "l" -> counted("l", compute, cell -> lost(cell, compute.from(), values));
            default -> c;
        });
        for (Field field : compute.shape().fields()) {
            String value = values.get(field.id());
            columns.add(value == null ? fields.id(field) : value + " AS " + fields.id(field));
        }
        return query(columns, names.get(compute.from()));
    }

    private String counted(String name, Relation.Compute compute, Function<Computed, String> term) {
        String sum = compute.cells().stream()
                .filter(c -> compute.from().shape().has(c.made()))
                .map(c -> " + CAST(" + term.apply(c) + " AS INTEGER)")
                .collect(Collectors.joining());
        return sum.isEmpty() ? name : name + sum + " AS " + name;
    }

    /// Values of another type are compared as text, so that 12 read from `12` is no change.
    private String changed(Computed cell, Relation from, Map<Integer, String> values) {
        Field was = from.shape().find(cell.made().id()).orElseThrow();
        String now = "(" + values.get(cell.made().id()) + ")";
        boolean same = was.type().equals(cell.made().type());
        return same
                ? now + " IS DISTINCT FROM " + fields.id(was)
                : "CAST(" + now + " AS VARCHAR) IS DISTINCT FROM CAST(" + fields.id(was) + " AS VARCHAR)";
    }

    private String lost(Computed cell, Relation from, Map<Integer, String> values) {
        Field was = from.shape().find(cell.made().id()).orElseThrow();
        String purpose = cell.onPurpose()
                .map(p -> " AND NOT coalesce((" + fields.code(p, from) + "), FALSE)")
                .orElse("");
        return "(" + fields.id(was) + " IS NOT NULL AND ("
                + values.get(cell.made().id()) + ") IS NULL" + purpose + ")";
    }

    private String firstOf(Relation.FirstOf first) {
        String place = fields.free("place_in_group", first.shape());
        String over = "row_number() OVER (" + fields.partition(first.keys()) + "ORDER BY "
                + order(first.by(), false, first.lastPlace(), "") + ")";
        List<String> columns = and(hidden(), ids(first.shape().fields()));
        return query(
                        columns,
                        "(SELECT " + String.join(", ", columns) + ",\n    " + over + " AS " + fields.id(place)
                                + "\n  FROM " + names.get(first.from()) + ") placed")
                + "\nWHERE " + fields.id(place) + " = 1";
    }

    private String order(List<Sorted> by, boolean backwards) {
        return order(by, backwards, backwards, "");
    }

    /// By the fields, then by place. Missing comes last in either direction.
    ///
    /// @param table where the place stands, with a point, where the query makes another place of the same name
    private String order(List<Sorted> by, boolean backwards, boolean lastPlace, String table) {
        List<String> parts = new ArrayList<>(fields.orderOnly(by, backwards));
        parts.add(table + place() + (lastPlace ? " DESC" : ""));
        return String.join(", ", parts);
    }

    private String window(Relation.Window window) {
        Relation from = window.from();
        String source = names.get(from);
        String parts = fields.partition(window.within());
        List<String> made = new ArrayList<>();
        List<String> blocks = new ArrayList<>();
        for (Windowed cell : window.made()) {
            String over = "OVER (" + parts + "ORDER BY " + order(window.by(), window.backwards()) + ")";
            String value =
                    switch (cell.kind()) {
                        case NUMBER -> "row_number() " + over;
                        case SHARED_NUMBER -> ranked("rank", parts, window);
                        case DENSE_NUMBER -> ranked("dense_rank", parts, window);
                        case NEIGHBOUR -> {
                            int steps = window.backwards() ? -cell.steps() : cell.steps();
                            String function = steps < 0 ? "lag" : "lead";
                            yield function + "(" + fields.id(cell.of().orElseThrow()) + ", " + Math.abs(steps)
                                    + ") OVER (" + parts + "ORDER BY " + order(window.by(), false) + ")";
                        }
                        case LAST_FILLED -> {
                            String block = fields.free("block_" + (blocks.size() + 1), window.shape());
                            Field of = cell.of().orElseThrow();
                            blocks.add("count(" + fields.id(of) + ") OVER (" + parts + "ORDER BY "
                                    + order(window.by(), window.backwards())
                                    + " ROWS BETWEEN UNBOUNDED PRECEDING AND CURRENT ROW) AS " + fields.id(block));
                            String inside = parts.isEmpty() ? "PARTITION BY " : parts.strip() + ", ";
                            yield language.onlyValue(
                                    fields.id(of), of.type(), "OVER (" + inside + fields.id(block) + ")");
                        }
                        case SO_FAR ->
                            fields.aggregate(
                                    cell.aggregate(),
                                    cell.of(),
                                    call -> call + " OVER (" + parts + "ORDER BY "
                                            + order(window.by(), window.backwards())
                                            + " ROWS BETWEEN UNBOUNDED PRECEDING AND CURRENT ROW)");
                        case OF_ALL ->
                            fields.aggregate(
                                    cell.aggregate(), cell.of(), call -> call + " OVER (" + parts.strip() + ")");
                    };
            made.add(value + " AS " + fields.id(cell.made()));
        }
        List<String> rows = and(hidden(), ids(from.shape().fields()));
        if (!blocks.isEmpty()) {
            source = "(" + Sql.indent(query(and(rows, blocks), source), 2) + ") blocks";
        }
        return query(and(rows, made), source);
    }

    private String ranked(String function, String parts, Relation.Window window) {
        return function + "() OVER (" + parts + "ORDER BY "
                + String.join(", ", fields.orderOnly(window.by(), window.backwards())) + ")";
    }

    private String group(Relation.Group group) {
        String least = manner.place().isEmpty() ? "" : "min(" + place() + ")";
        List<String> columns = new ArrayList<>(hidden(
                group.keys().isEmpty() && !least.isEmpty() ? "coalesce(" + least + ", 0)" : least, "NULL::BIGINT"));
        for (Field key : group.keys()) {
            columns.add(
                    fields.key(key).equals(fields.id(key))
                            ? fields.id(key)
                            : "min(" + fields.id(key) + ") AS " + fields.id(key));
        }
        for (Grouped made : group.made()) {
            String value = made.aggregate() == Aggregate.LISTED
                    ? language.listed(fields.id(made.of().orElseThrow()), made.separator(), place())
                    : fields.aggregate(made.aggregate(), made.of(), call -> call);
            columns.add(value + " AS " + fields.id(made.made()));
        }
        String keys = group.keys().stream().map(fields::key).collect(Collectors.joining(", "));
        return query(columns, names.get(group.from())) + (keys.isEmpty() ? "" : "\nGROUP BY " + keys);
    }

    private String join(Relation.Join join) {
        if (join.meeting() == Relation.Meeting.WITH || join.meeting() == Relation.Meeting.WITHOUT) {
            return rowsThatMeet(join);
        }
        Shape left = join.left().shape();
        String rightPlace = fields.free("right_place", left, join.shape());
        List<String> right = new ArrayList<>(List.of(place() + " AS " + fields.id(rightPlace)));
        join.taken().forEach(t -> right.add(named(fields.id(t.field()), fields.id(t.made()))));
        List<String> meets = new ArrayList<>();
        for (int i = 0; i < join.on().size(); i++) {
            Relation.Pair pair = join.on().get(i);
            String key = fields.free("key_" + (i + 1), left, join.shape());
            right.add(fields.id(pair.right()) + " AS " + fields.id(key));
            meets.add(meets(pair, new Expr.Name(key, pair.right().type())));
        }
        String other = "(SELECT " + String.join(", ", right) + " FROM " + names.get(join.right()) + ") other";
        String kind = join.meeting() == Relation.Meeting.PAIRS ? "JOIN " : "LEFT JOIN ";
        List<String> columns = new ArrayList<>(
                hidden("row_number() OVER (ORDER BY mine." + place() + ", " + fields.id(rightPlace) + ") - 1", "o"));
        columns.addAll(ids(left.fields()));
        join.taken().forEach(t -> columns.add(fields.id(t.made())));
        return query(
                columns, names.get(join.left()) + " mine\n" + kind + other + "\n  ON " + String.join(" AND ", meets));
    }

    /// A join with the different keys of the other table. With EXISTS, MariaDB would remember answers under keys as its
    /// own order of letters has them.
    private String rowsThatMeet(Relation.Join join) {
        Shape left = join.left().shape();
        String met = fields.free("met", left);
        List<String> right = new ArrayList<>();
        List<String> meets = new ArrayList<>();
        for (int i = 0; i < join.on().size(); i++) {
            Relation.Pair pair = join.on().get(i);
            String key = fields.free("key_" + (i + 1), left);
            right.add(fields.key(pair.right()) + " AS " + fields.id(key));
            meets.add(meets(pair, new Expr.Name(key, pair.right().type())));
        }
        right.add("1 AS " + fields.id(met));
        boolean with = join.meeting() == Relation.Meeting.WITH;
        String other = "(SELECT DISTINCT " + String.join(", ", right) + " FROM " + names.get(join.right()) + ") other";
        return query(
                        and(hidden(), ids(left.fields())),
                        names.get(join.left()) + " mine\n" + (with ? "JOIN " : "LEFT JOIN ") + other + "\n  ON "
                                + String.join(" AND ", meets))
                + (with ? "" : "\nWHERE " + fields.id(met) + " IS NULL");
    }

    /// Both sides are written so that only equal values meet: with one of them as it is, MariaDB looks it up by the
    /// order of letters that its column has.
    private String meets(Relation.Pair pair, Expr.Name right) {
        String mine = fields.key(pair.left());
        String other = language.grouped(right).text();
        return pair.missingMeets() ? language.sameOrMissing(mine, other) : mine + " = " + other;
    }

    private String union(Relation.Union union) {
        List<Field> shown = union.shape().fields();
        String part = fields.free("part", union.shape());
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < union.tables().size(); i++) {
            Relation one = union.tables().get(i);
            List<String> columns = new ArrayList<>(List.of(i + " AS " + fields.id(part), place()));
            if (manner.origins()) {
                columns.add(i == 0 ? "o" : "NULL::BIGINT AS o");
            }
            for (int c = 0; c < shown.size(); c++) {
                columns.add(named(fields.id(one.shape().fields().get(c)), fields.id(shown.get(c))));
            }
            parts.add("SELECT " + String.join(", ", columns) + " FROM " + names.get(one));
        }
        return query(
                and(
                        hidden("row_number() OVER (ORDER BY " + fields.id(part) + ", parts." + place() + ") - 1", "o"),
                        ids(shown)),
                "(" + String.join("\n  UNION ALL ", parts) + ") parts");
    }

    private String unpivot(Relation.Unpivot unpivot) {
        List<Field> shown = unpivot.shape().fields();
        List<Field> others =
                shown.subList(0, shown.size() - 1 - unpivot.values().size());
        String set = fields.free("set_no", unpivot.shape(), unpivot.from().shape());
        if (!language.sharesQueries()) {
            return unpivotInOneReading(unpivot, others, set);
        }
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < unpivot.sets().size(); i++) {
            List<Field> values = unpivot.sets().get(i);
            List<String> columns = new ArrayList<>(List.of(i + " AS " + fields.id(set), place()));
            if (manner.origins()) {
                columns.add("o");
            }
            columns.addAll(ids(others));
            columns.add(fields.code(Expr.Literal.text(unpivot.names().get(i))) + " AS " + fields.id(unpivot.name()));
            for (int v = 0; v < values.size(); v++) {
                columns.add(fields.id(values.get(v)) + " AS "
                        + fields.id(unpivot.values().get(v)));
            }
            String filled =
                    values.stream().map(f -> fields.id(f) + " IS NOT NULL").collect(Collectors.joining(" OR "));
            parts.add("SELECT " + String.join(", ", columns) + " FROM " + names.get(unpivot.from())
                    + (unpivot.keepMissing() ? "" : " WHERE " + filled));
        }
        return query(
                and(
                        hidden("row_number() OVER (ORDER BY sets." + place() + ", " + fields.id(set) + ") - 1", "o"),
                        ids(shown)),
                "(" + String.join("\n  UNION ALL ", parts) + ") sets");
    }

    /// The same with each row beside the numbers of the sets, for a language that works out a named
    /// query anew wherever it is read.
    private String unpivotInOneReading(Relation.Unpivot unpivot, List<Field> others, String set) {
        String number = fields.id(set);
        List<String> columns = new ArrayList<>(List.of(number, place()));
        if (manner.origins()) {
            columns.add("o");
        }
        columns.addAll(ids(others));
        columns.add(chosen(
                number,
                unpivot.names().stream()
                        .map(n -> fields.code(Expr.Literal.text(n)))
                        .toList(),
                unpivot.name()));
        for (int v = 0; v < unpivot.values().size(); v++) {
            int at = v;
            columns.add(chosen(
                    number,
                    unpivot.sets().stream().map(s -> fields.id(s.get(at))).toList(),
                    unpivot.values().get(v)));
        }
        String numbers = IntStream.range(0, unpivot.sets().size())
                .mapToObj(i -> "SELECT " + i + " AS " + number)
                .collect(Collectors.joining(" UNION ALL "));
        String filled = unpivot.values().stream()
                .map(f -> fields.id(f) + " IS NOT NULL")
                .collect(Collectors.joining(" OR "));
        return query(
                and(
                        hidden("row_number() OVER (ORDER BY sets." + place() + ", " + number + ") - 1", "o"),
                        ids(unpivot.shape().fields())),
                "(SELECT " + String.join(", ", columns) + " FROM " + names.get(unpivot.from())
                        + "\n  CROSS JOIN (" + numbers + ") numbers) sets"
                        + (unpivot.keepMissing() ? "" : "\n  WHERE " + filled));
    }

    private String chosen(String number, List<String> values, Field made) {
        return IntStream.range(0, values.size())
                .mapToObj(i -> " WHEN " + i + " THEN " + values.get(i))
                .collect(Collectors.joining("", "CASE " + number, " END AS " + fields.id(made)));
    }
}
