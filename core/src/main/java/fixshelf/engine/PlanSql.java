package fixshelf.engine;

import fixshelf.language.Expr;
import fixshelf.plan.Line;
import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.render.DuckDbLanguage;
import fixshelf.type.Column;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/// Steps as DuckDB queries over a relation that also holds the number of each row in [#ROW].
public final class PlanSql {
    /// The hidden column with the place of a row in the source, from 0.
    public static final String ROW = "fixshelf row";

    private static final DuckDbLanguage DUCKDB = new DuckDbLanguage();

    private PlanSql() {}

    static String column(String name) {
        return DuckSession.name(name);
    }

    private static String expression(Expr expr) {
        Outcome<String> code = DUCKDB.expression(expr);
        if (!code.isPresent()) {
            throw new ProblemException(code.problems().getFirst());
        }
        return code.get();
    }

    /// A step over `from`, with the hidden columns that `carried` names before its own.
    public static String select(Step step, String from, List<String> carried) {
        List<String> columns =
                new ArrayList<>(carried.stream().map(PlanSql::column).toList());
        return switch (step) {
            case Step.Read read -> {
                read.columns().forEach(c -> columns.add(column(c.name())));
                yield "SELECT " + String.join(", ", columns) + " FROM " + from;
            }
            case Step.Compute compute -> {
                Map<String, String> values = values(compute);
                compute.columns().forEach(c -> columns.add(named(c.name(), values)));
                yield "SELECT " + String.join(", ", columns) + " FROM " + from;
            }
            case Step.Project project -> {
                project.kept().forEach(k -> columns.add(column(k.was()) + " AS " + column(k.name())));
                yield "SELECT " + String.join(", ", columns) + " FROM " + from;
            }
            case Step.KeepOne keep -> {
                keep.columns().forEach(c -> columns.add(column(c.name())));
                yield "SELECT " + String.join(", ", columns) + " FROM " + from + " AS kept ANTI JOIN ("
                        + leaving(keep, from) + ") AS gone USING (" + column(ROW) + ")";
            }
        };
    }

    private static String named(String column, Map<String, String> values) {
        String value = values.get(column);
        return value == null ? column(column) : value + " AS " + column(column);
    }

    private static Map<String, String> values(Step.Compute compute) {
        Map<String, String> values = new HashMap<>();
        compute.computed().forEach(c -> values.put(c.column(), expression(c.value())));
        return values;
    }

    /// As [#select] for a computing step, with two more columns that count, for each row, the cells that changed and
    /// the values that were lost.
    public static String selectCounting(
            Step.Compute compute, String from, List<String> carried, String changed, String lost) {
        Map<String, String> values = values(compute);
        List<String> columns =
                new ArrayList<>(carried.stream().map(PlanSql::column).toList());
        columns.add(sum(compute, c -> changed(c, values, isText(compute, c))) + " AS " + column(changed));
        columns.add(sum(compute, c -> lost(c, values, purpose(compute, c))) + " AS " + column(lost));
        compute.columns().forEach(c -> columns.add(named(c.name(), values)));
        return "SELECT " + String.join(", ", columns) + " FROM " + from;
    }

    /// Values of another type are compared as text, so that 12 read from `12` is no change.
    private static String changed(String column, Map<String, String> values, boolean sameType) {
        if (!sameType) {
            return "CAST(CAST((" + values.get(column) + ") AS VARCHAR) IS DISTINCT FROM " + column(column)
                    + " AS USMALLINT)";
        }
        return "CAST((" + values.get(column) + ") IS DISTINCT FROM " + column(column) + " AS USMALLINT)";
    }

    private static String lost(String column, Map<String, String> values, String purpose) {
        return "CAST(" + column(column) + " IS NOT NULL AND (" + values.get(column) + ") IS NULL" + purpose
                + " AS USMALLINT)";
    }

    /// What takes the values out that are made missing on purpose.
    private static String purpose(Step.Compute compute, String column) {
        return compute.computed().stream()
                .filter(c -> c.column().equals(column))
                .flatMap(c -> c.onPurpose().stream())
                .map(condition -> " AND NOT coalesce((" + expression(condition) + "), FALSE)")
                .findFirst()
                .orElse("");
    }

    private static boolean isText(Step.Compute compute, String column) {
        return compute.columns().stream()
                .anyMatch(c -> c.name().equals(column) && c.type().equals(fixshelf.type.Type.TEXT));
    }

    private static String sum(Step.Compute compute, java.util.function.Function<String, String> term) {
        String sum =
                compute.computed().stream().map(c -> term.apply(c.column())).collect(Collectors.joining(" + "));
        return sum.isEmpty() ? "CAST(0 AS USMALLINT)" : "CAST(" + sum + " AS USMALLINT)";
    }

    /// The numbers of the rows that leave. Only rows whose key repeats are put into order: mostly there are few.
    public static String leaving(Step.KeepOne keep, String from) {
        String repeated = keep.keys().stream()
                .map(k -> "r." + column(k) + " IS NOT DISTINCT FROM a." + column(k))
                .collect(Collectors.joining(" AND "));
        String keys = names(keep.keys());
        String place = "row_number() OVER (PARTITION BY " + keys + " ORDER BY " + order(keep) + ")";
        return "SELECT " + column(ROW) + " FROM (SELECT a." + column(ROW) + ", " + place
                + " AS \"fixshelf place\" FROM " + from + " AS a WHERE EXISTS (SELECT 1 FROM (SELECT " + keys + " FROM "
                + from + " GROUP BY " + keys + " HAVING count(*) > 1) AS r WHERE " + repeated
                + ")) WHERE \"fixshelf place\" > 1";
    }

    /// All rows of the groups that have more than one, group by group, each marked whether it stays.
    public static String groups(Step.KeepOne keep, String from, String survivors) {
        String row = column(ROW);
        String over = " OVER (PARTITION BY " + names(keep.keys()) + ")";
        return "SELECT *, " + row + " IN (SELECT " + row + " FROM " + survivors + ") AS \"fixshelf stays\", min(" + row
                + ")" + over
                + " AS \"fixshelf group\", count(*)" + over + " AS \"fixshelf size\" FROM " + from
                + " QUALIFY \"fixshelf size\" > 1";
    }

    /// The one that stays comes first: by the order columns, nulls before all others, then by place in the source.
    private static String order(Step.KeepOne keep) {
        String direction = keep.keep() == Line.Keep.LAST ? " DESC NULLS LAST" : " ASC NULLS FIRST";
        List<String> parts = new ArrayList<>(
                keep.order().stream().map(o -> "a." + column(o) + direction).toList());
        parts.add("a." + column(ROW) + direction);
        return String.join(", ", parts);
    }

    static String names(List<String> names) {
        return names.stream().map(PlanSql::column).collect(Collectors.joining(", "));
    }

    /// The columns of a table as text, for grids and delimited text.
    public static String plainColumns(List<Column> columns) {
        return names(columns.stream().map(Column::name).toList());
    }
}
