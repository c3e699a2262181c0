package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Follows rows of the source through the lines of a job.
public final class RowPaths {
    private final Preview preview;
    private final PlannedJob job;
    private final DuckSession session;

    public RowPaths(Preview preview, PlannedJob job) {
        this.preview = preview;
        this.job = job;
        this.session = preview.session();
    }

    /// The places, from 1, of the rows of the source that hold this text in any column, or in the named one.
    public Outcome<List<Long>> rowsWith(String column, String text, int most) {
        List<Field> fields = job.plan().steps().getFirst().fields();
        String any = fields.stream()
                .filter(f -> column.isEmpty() || f.name().equalsIgnoreCase(column))
                .map(f -> "CAST(" + f.key() + " AS VARCHAR) = " + DuckSession.text(text))
                .collect(Collectors.joining(" OR "));
        return Preview.guarded(() -> session
                .query("SELECT p + 1 FROM " + preview.tableOf(job, 1) + " WHERE " + (any.isEmpty() ? "false" : any)
                        + " ORDER BY p LIMIT " + most)
                .rows()
                .stream()
                .map(r -> ((Number) Objects.requireNonNull(r.getFirst())).longValue())
                .toList());
    }

    /// What became of a row of the source, by its place from 1, line by line until it is gone.
    public Outcome<RowPath> path(long row) {
        return Preview.guarded(() -> {
            List<RowPath.Stop> stops = new ArrayList<>();
            List<Long> places = List.of(row - 1);
            for (int line : job.plan().path().subList(1, job.plan().path().size())) {
                Step step = job.plan().steps().get(line - 1);
                RowPath.Stop stop = stop(step, places);
                stops.add(stop);
                places = stop.places().stream().map(p -> p - 1).toList();
                if (stop.isGone()) {
                    break;
                }
            }
            return new RowPath(row, stops);
        });
    }

    /// What a line makes of rows, by their places before it, from 0.
    RowPath.Stop stop(Step step, List<Long> places) {
        String after = preview.tableOf(job, step.number());
        String before = preview.tableOf(job, job.plan().before(step.number()).number());
        String some = places.stream().map(String::valueOf).collect(Collectors.joining(", "));
        boolean merged = step.rows() == Lineage.Rows.MERGED;
        String from = merged
                ? " FROM " + after + " n JOIN " + before + " b ON " + sameGroup(step)
                : " FROM " + after + " n JOIN " + before + " b ON n.o = b.p";
        List<Field> replaced = merged
                ? List.of()
                : step.replaced().stream()
                        .filter(f ->
                                job.plan().before(step.number()).after().shape().has(f))
                        .toList();
        String cells =
                replaced.stream().map(f -> ", b." + f.key() + ", n." + f.key()).collect(Collectors.joining());
        Grid grid = session.query(
                "SELECT DISTINCT n.p + 1" + cells + from + " AND b.p IN (" + some + ") ORDER BY 1 LIMIT 20");
        List<RowPath.Change> changes = new ArrayList<>();
        for (List<@Nullable Object> found : grid.rows()) {
            for (int i = 0; i < replaced.size(); i++) {
                Object was = found.get(1 + 2 * i);
                Object now = found.get(2 + 2 * i);
                if (!String.valueOf(was).equals(String.valueOf(now))) {
                    changes.add(new RowPath.Change(replaced.get(i).name(), was, now));
                }
            }
        }
        List<Long> now = grid.rows().stream()
                .map(r -> ((Number) Objects.requireNonNull(r.getFirst())).longValue())
                .distinct()
                .toList();
        return new RowPath.Stop(step, now, merged, changes);
    }

    /// The rows before a line, by their places from 1, that became one of its rows.
    List<Long> rowsOfGroup(Step step, long place) {
        String after = preview.tableOf(job, step.number());
        String before = preview.tableOf(job, job.plan().before(step.number()).number());
        return session
                .query("SELECT b.p + 1 FROM " + before + " b JOIN " + after + " n ON " + sameGroup(step)
                        + " WHERE n.p = " + place + " ORDER BY 1")
                .rows()
                .stream()
                .map(r -> ((Number) Objects.requireNonNull(r.getFirst())).longValue())
                .toList();
    }

    /// Where a row before and a group afterwards have the same keys.
    String sameGroup(Step step) {
        List<Field> before = job.plan().before(step.number()).fields();
        return step.after().parts().stream()
                .filter(Relation.Group.class::isInstance)
                .flatMap(g -> ((Relation.Group) g).keys().stream())
                .filter(k -> before.stream().anyMatch(b -> b.id() == k.id()))
                .filter(k -> step.after().shape().has(k))
                .map(k -> "n." + k.key() + " IS NOT DISTINCT FROM b." + k.key())
                .reduce((a, b) -> a + " AND " + b)
                .orElse("true");
    }
}
