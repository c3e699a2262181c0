package fixshelf.engine;

import fixshelf.plan.Step;
import fixshelf.render.sql.DuckDbLanguage;
import fixshelf.render.sql.RelationSql;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

/// Relations as DuckDB queries over tables of ours, in which a field is called like its key, and places are in `p`.
/// No name of a user stands beside ours.
public final class Rows {
    private static final DuckDbLanguage DUCKDB = new DuckDbLanguage();

    private Rows() {}

    /// The columns of a table of ours as a user calls them, to be put behind SELECT.
    public static String named(List<Field> fields) {
        return fields.stream()
                .map(f -> f.key() + " AS " + DuckSession.name(f.name()))
                .collect(Collectors.joining(", "));
    }

    public static String keys(List<Field> fields) {
        return fields.stream().map(Field::key).collect(Collectors.joining(", "));
    }

    /// These fields without any value, after others; nothing where there are none.
    public static String missing(List<Field> fields) {
        return fields.stream()
                .map(f -> ", " + DUCKDB.missing(f.type()) + " AS " + f.key())
                .collect(Collectors.joining());
    }

    /// The fields of a source out of a relation with a user's names.
    public static String read(List<Field> fields) {
        return fields.stream()
                .map(f -> DuckSession.name(f.name()) + " AS " + f.key())
                .collect(Collectors.joining(", "));
    }

    /// A query for what a line makes: its fields with `p`, where it came from in `o`, and counts in `k` and `l`.
    public static String traced(Relation relation, Function<Relation, String> bases) {
        RelationSql.Manner manner = RelationSql.Manner.inside(true, true, true, List.of());
        RelationSql sql = new RelationSql(DUCKDB, manner, bases);
        return query(sql, relation, "p, o, k, l, " + keys(relation.shape().fields()), " ORDER BY p");
    }

    /// A query for the rows before a line that have no row after it: their fields with `p`.
    public static String left(Relation before, Relation after, Function<Relation, String> bases) {
        return "SELECT p, " + keys(before.shape().fields()) + " FROM " + bases.apply(before)
                + " AS b WHERE p NOT IN (SELECT o" + " FROM (" + traced(after, bases) + ") WHERE o IS NOT NULL)";
    }

    /// A query for a table beside a line: its fields with `p`.
    public static String beside(Relation relation, Function<Relation, String> bases) {
        return beside(relation, bases, Map.of());
    }

    /// As above; `known` are relations that stand in tables already, with their fields and `p`.
    public static String beside(Relation relation, Function<Relation, String> bases, Map<Relation, String> known) {
        RelationSql.Manner manner = RelationSql.Manner.inside(true, false, false, List.of());
        RelationSql sql = new RelationSql(DUCKDB, manner, bases, known);
        return query(sql, relation, "p, " + keys(relation.shape().fields()), "");
    }

    private static String query(RelationSql sql, Relation relation, String columns, String order) {
        String last = sql.write(relation, "made");
        String with = sql.queries().isEmpty() ? "" : "WITH " + String.join(",\n", sql.queries()) + "\n";
        return with + "SELECT " + columns + " FROM " + last + order;
    }

    /// Several lines as one query, each of which works out rows of rows alone, but the first, which may do anything.
    /// Counts of each line are in columns of its own.
    ///
    /// @param bases the tables that the first line is worked out of, or what reads the source
    /// @param places whether the table before has places, which the query then keeps
    public static String fused(List<Step> steps, Function<Relation, String> bases, boolean places, boolean origins) {
        List<String> queries = new ArrayList<>();
        List<String> carried = new ArrayList<>();
        String from = "";
        for (int i = 0; i < steps.size(); i++) {
            Step step = steps.get(i);
            String base = from;
            boolean first = i == 0;
            RelationSql.Manner manner = RelationSql.Manner.inside(places, first && origins, true, List.copyOf(carried));
            RelationSql sql = new RelationSql(DUCKDB, manner, first ? bases : _ -> base);
            String last = sql.write(step.after(), "line_" + step.number());
            queries.addAll(sql.queries());
            List<String> hidden = new ArrayList<>(places ? List.of("p") : List.of());
            hidden.add("k AS " + changed(step));
            hidden.add("l AS " + lost(step));
            carried.forEach(hidden::add);
            if (first && origins) {
                hidden.add("o");
                carried.add("o");
            }
            carried.add(changed(step));
            carried.add(lost(step));
            from = "(SELECT " + String.join(", ", hidden) + ", " + keys(step.fields()) + " FROM " + last + ")";
        }
        String with = queries.isEmpty() ? "" : "WITH " + String.join(",\n", queries) + "\n";
        return with + "SELECT * FROM " + from + (places ? " ORDER BY p" : "");
    }

    /// Whether the counts of a line do not add up from its parts: a cell is given values twice, or rows come from other
    /// tables too. They are then made out of the tables before and after it, by [#counted].
    public static boolean countsAnew(Step step) {
        List<Relation> parts = step.after().rowsFrom();
        Shape begun = parts.getLast().shape();
        List<Integer> given = parts.stream()
                .filter(Relation.Compute.class::isInstance)
                .map(Relation.Compute.class::cast)
                .flatMap(p -> p.cells().stream()
                        .map(Computed::made)
                        .filter(f -> p.from().shape().has(f))
                        .map(Field::id)
                        .distinct())
                .toList();
        // A cell that the line itself has made is new, and no changed one.
        boolean fresh = given.stream().anyMatch(id -> begun.find(id).isEmpty());
        boolean twice = given.stream().distinct().count() < given.size();
        boolean gone =
                given.stream().anyMatch(id -> step.after().shape().find(id).isEmpty());
        return !given.isEmpty()
                && step.rows() != Lineage.Rows.MERGED
                && (twice || gone || fresh || step.rows() == Lineage.Rows.ANY);
    }

    /// A statement that puts the counts of a line into its table: how many cells of a row are others than those of the
    /// row that it comes from, and how many of those that were lost are still missing.
    ///
    /// @param before the fields before the line
    /// @param table with the place before in `o`
    /// @param place the column by which a row of it is known
    /// @param rows those before, with their places in `p`
    /// @param changed the column with the changed cells
    /// @param lost the column with the values that its parts lost
    public static String counted(
            Step step, List<Field> before, String table, String place, String rows, String changed, String lost) {
        List<String> others = new ArrayList<>();
        List<String> gone = new ArrayList<>();
        for (Field field : step.replaced()) {
            Optional<Field> was =
                    before.stream().filter(b -> b.id() == field.id()).findFirst();
            was.ifPresent(w -> {
                String now = "n." + field.key();
                String then = "b." + field.key();
                boolean same = w.type().equals(field.type());
                others.add(
                        same
                                ? "(" + now + " IS DISTINCT FROM " + then + ")::INTEGER"
                                : "(CAST(" + now + " AS VARCHAR) IS DISTINCT FROM CAST(" + then
                                        + " AS VARCHAR))::INTEGER");
                gone.add("(" + then + " IS NOT NULL AND " + now + " IS NULL)::INTEGER");
            });
        }
        if (others.isEmpty()) {
            return "UPDATE " + table + " SET " + changed + " = 0, " + lost + " = 0";
        }
        String sums = "CASE WHEN b.p IS NULL THEN 0 ELSE " + String.join(" + ", others)
                + " END AS k, CASE WHEN b.p IS NULL THEN 0 ELSE " + String.join(" + ", gone) + " END AS l";
        return "UPDATE " + table + " SET " + changed + " = x.k, " + lost + " = least(" + table + "." + lost
                + ", x.l) FROM (SELECT n."
                + place + " AS q, " + sums + " FROM " + table + " n LEFT JOIN " + rows
                + " b ON n.o = b.p) x WHERE x.q = " + table + "." + place;
    }

    /// The column with the cells that a line changed, in each row.
    public static String changed(Step step) {
        return "k" + step.number();
    }

    public static String lost(Step step) {
        return "l" + step.number();
    }

    /// The name of the table with the rows of another source.
    public static String table(String source) {
        return DuckSession.name("source " + source);
    }

    /// The rows of another source, with its fields of this line.
    public static String other(Relation.Source source) {
        StringBuilder columns = new StringBuilder("p");
        for (int i = 0; i < source.shape().fields().size(); i++) {
            columns.append(", s")
                    .append(i)
                    .append(" AS ")
                    .append(source.shape().fields().get(i).key());
        }
        return "(SELECT " + columns + " FROM " + table(source.name()) + ")";
    }

    /// The numbers of the rows that leave. Only rows whose key repeats are put into order: mostly there are few.
    ///
    /// @param table of ours, with its rows in order
    public static String leaving(Relation.FirstOf first, String table) {
        String numbered = "(SELECT rowid AS p, * FROM " + table + ")";
        List<Field> keys = first.keys();
        String repeated = keys.stream()
                .map(k -> "r." + k.key() + " IS NOT DISTINCT FROM a." + k.key())
                .collect(Collectors.joining(" AND "));
        String order = first.by().stream()
                .map(s -> "a." + s.field().key() + (s.descending() ? " DESC" : "") + " NULLS LAST, ")
                .collect(Collectors.joining());
        String place = "row_number() OVER (PARTITION BY " + keys(keys) + " ORDER BY " + order + "a.p"
                + (first.lastPlace() ? " DESC" : "") + ")";
        return "SELECT p FROM (SELECT a.p, " + place + " AS g FROM " + numbered
                + " AS a WHERE EXISTS (SELECT 1 FROM (SELECT " + keys(keys) + " FROM " + numbered + " GROUP BY "
                + keys(keys) + " HAVING count(*) > 1) AS r WHERE " + repeated + ")) WHERE g > 1";
    }
}
