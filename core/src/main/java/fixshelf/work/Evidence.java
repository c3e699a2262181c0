package fixshelf.work;

import fixshelf.engine.Grid;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/// What a fix does to a column of a dataset: each value with every intermediate value and how often it occurs, those
/// that change first, the commonest first among them.
///
/// @param names the first parameter, the names of every `SET`, then `result`
public record Evidence(List<String> names, List<Sample> samples, long values, long changed, long lost) {
    private static final int MOST = 200;

    /// A value, what became of it step by step, and how many rows hold it.
    public record Sample(List<@Nullable Object> values, long rows) {
        public boolean changed() {
            return !Objects.equals(values.getFirst(), values.getLast());
        }
    }

    /// Looks at the staged rows of a preview. `arguments` are for the parameters after the first, in order.
    public static Outcome<Evidence> look(Preview preview, String column, Definition fix, List<Expr.Literal> arguments) {
        Language duckdb = Languages.find("duckdb").orElseThrow();
        Map<String, Expr> names = new HashMap<>();
        List<Parameter> parameters = fix.parameters();
        Expr value = new Expr.Name(column, parameters.getFirst().type());
        names.put(parameters.getFirst().name().toLowerCase(Locale.ROOT), value);
        for (int i = 1; i < parameters.size(); i++) {
            names.put(parameters.get(i).name().toLowerCase(Locale.ROOT), arguments.get(i - 1));
        }
        List<String> labels = new ArrayList<>(List.of(parameters.getFirst().name()));
        List<Expr> exprs = new ArrayList<>(List.of(value));
        for (Body.Assignment assignment : fix.body().assignments()) {
            Expr inlined = Inliner.inline(assignment.value(), names);
            names.put(assignment.name().toLowerCase(Locale.ROOT), inlined);
            labels.add(assignment.name());
            exprs.add(inlined);
        }
        labels.add("result");
        exprs.add(Inliner.inline(fix.body().result(), names));
        List<String> code = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        for (Expr expr : exprs) {
            Outcome<String> one = duckdb.expression(expr);
            problems.addAll(one.problems());
            code.add(one.value().orElse("NULL"));
        }
        if (!problems.isEmpty()) {
            return Outcome.failed(problems);
        }
        return preview.query(table -> samples(table, code)).map(grid -> of(labels, grid));
    }

    private static String samples(String table, List<String> code) {
        List<String> columns = new ArrayList<>();
        for (int i = 0; i < code.size(); i++) {
            columns.add(code.get(i) + " AS v" + i);
        }
        String last = "v" + (code.size() - 1);
        String changes = "CAST(" + last + " AS VARCHAR) IS DISTINCT FROM CAST(v0 AS VARCHAR)";
        String grouped = "SELECT " + String.join(", ", columns) + ", count(*) AS n FROM " + table + " GROUP BY ALL";
        return "SELECT *, coalesce(sum(n) FILTER (WHERE v0 IS NOT NULL) OVER (), 0)::BIGINT, coalesce(sum(n) FILTER"
                + " (WHERE "
                + changes + ") OVER (), 0)::BIGINT, coalesce(sum(n) FILTER (WHERE v0 IS NOT NULL AND " + last
                + " IS NULL) OVER (), 0)::BIGINT FROM (" + grouped + ") ORDER BY (" + changes
                + ") DESC, n DESC, v0 LIMIT " + MOST;
    }

    private static Evidence of(List<String> labels, Grid grid) {
        int width = labels.size();
        List<Sample> samples = grid.rows().stream()
                .map(r -> new Sample(new ArrayList<>(r.subList(0, width)), (Long) Objects.requireNonNull(r.get(width))))
                .toList();
        if (grid.rows().isEmpty()) {
            return new Evidence(labels, samples, 0, 0, 0);
        }
        List<@Nullable Object> first = grid.rows().getFirst();
        return new Evidence(
                labels, samples, number(first, width + 1), number(first, width + 2), number(first, width + 3));
    }

    private static long number(List<@Nullable Object> row, int index) {
        return ((Number) Objects.requireNonNull(row.get(index))).longValue();
    }
}
