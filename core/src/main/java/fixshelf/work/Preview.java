package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.engine.PlanSql;
import fixshelf.plan.Plan;
import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.source.CarefulRows;
import fixshelf.source.DelimitedFile;
import fixshelf.type.Visible;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/// A source staged once, and the first rows of it after every line of a job.
///
/// Tables of lines are kept as long as the lines before them stay as they are. Not safe for several threads at once,
/// but for [#cancel].
public final class Preview implements AutoCloseable {
    public static final long STAGED_ROWS = 1_000_000;
    public static final long PREVIEW_ROWS = 50_000;

    private final Loaded loaded;
    private final DelimitedFile source;
    private final long previewRows;
    private final long staged;
    private final Map<String, Table> tables = new HashMap<>();
    private int nextTable;

    /// The table after a line, and what the line did.
    private record Table(String name, LineEffect effect, Optional<String> groups) {}

    /// What a grid shows of a line.
    public enum View {
        ALL,
        CHANGED,
        LEAVING
    }

    private Preview(Loaded loaded, DelimitedFile source, long staged, long previewRows) {
        this.loaded = loaded;
        this.source = source;
        this.staged = staged;
        this.previewRows = previewRows;
    }

    /// Stages at most `stagedRows` rows of the source and previews on the first `previewRows` of them.
    public static Outcome<Preview> open(DelimitedFile source, long stagedRows, long previewRows) {
        Loaded loaded = Loaded.open(source, List.of());
        try {
            loaded.read(stagedRows, relation -> loaded.session()
                    .run("CREATE OR REPLACE TABLE staged AS SELECT * FROM " + relation + " LIMIT " + stagedRows));
            long staged = loaded.session().number("SELECT count(*) FROM staged");
            return Outcome.of(new Preview(loaded, source, staged, previewRows));
        } catch (ProblemException e) {
            loaded.close();
            return Outcome.failed(e.problem());
        }
    }

    public static Outcome<Preview> open(DelimitedFile source) {
        return open(source, STAGED_ROWS, PREVIEW_ROWS);
    }

    public DelimitedFile source() {
        return source;
    }

    /// How many rows the preview is based on.
    public long rows() {
        return Math.min(staged, previewRows);
    }

    /// How many rows were staged; all of the source when fewer than asked for.
    public long staged() {
        return staged;
    }

    /// Rows that were left out because they do not fit.
    public Optional<CarefulRows> careful() {
        return loaded.careful();
    }

    /// Computes what is not known yet and tells what every line did.
    public Outcome<List<LineEffect>> look(Plan plan) {
        try {
            List<LineEffect> effects = new ArrayList<>();
            Set<String> used = new LinkedHashSet<>();
            for (int line = 1; line <= plan.steps().size(); line++) {
                String key = key(plan, line);
                used.add(key);
                effects.add(table(plan, line).effect());
            }
            forget(used);
            return Outcome.of(effects);
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    private void forget(Set<String> used) {
        List<String> old =
                tables.keySet().stream().filter(k -> !used.contains(k)).toList();
        if (tables.size() < 40) {
            return;
        }
        for (String key : old) {
            Table table = tables.remove(key);
            loaded.session().run("DROP TABLE " + table.name());
            table.groups().ifPresent(g -> loaded.session().run("DROP TABLE " + g));
        }
    }

    /// The lines up to this one, as the queries that they are; what counts as lost belongs to them.
    private static String key(Plan plan, int line) {
        StringBuilder key = new StringBuilder("read");
        for (int i = 1; i < line; i++) {
            List<String> row = List.of(PlanSql.ROW);
            key.append('\n')
                    .append(
                            plan.steps().get(i) instanceof Step.Compute compute
                                    ? PlanSql.selectCounting(compute, "before", row, "changed", "lost")
                                    : PlanSql.select(plan.steps().get(i), "before", row));
        }
        return key.toString();
    }

    private Table table(Plan plan, int line) {
        String key = key(plan, line);
        Table known = tables.get(key);
        if (known != null) {
            return withNumber(known, line);
        }
        Table made = line == 1 ? first(plan) : next(plan, line, table(plan, line - 1));
        tables.put(key, made);
        return made;
    }

    private static Table withNumber(Table table, int line) {
        LineEffect e = table.effect();
        LineEffect same = new LineEffect(
                line,
                e.rowsBefore(),
                e.rowsAfter(),
                e.columnsBefore(),
                e.columnsAfter(),
                e.cellsChanged(),
                e.valuesLost(),
                e.repeats());
        return new Table(table.name(), same, table.groups());
    }

    private Table first(Plan plan) {
        String name = "line_" + nextTable++;
        loaded.session()
                .run("CREATE TABLE " + name + " AS SELECT rowid AS " + DuckSession.name(PlanSql.ROW)
                        + ", * FROM staged LIMIT " + previewRows);
        int columns = plan.read().columns().size();
        long bad = loaded.careful().map(CarefulRows::badCount).orElse(0L);
        return new Table(
                name,
                new LineEffect(1, rows() + bad, rows(), columns, columns, 0, 0, Optional.empty()),
                Optional.empty());
    }

    private Table next(Plan plan, int line, Table before) {
        Step step = plan.steps().get(line - 1);
        String name = "line_" + nextTable++;
        DuckSession session = loaded.session();
        long rows = before.effect().rowsAfter();
        int columnsBefore = plan.steps().get(line - 2).columns().size();
        int columns = step.columns().size();
        return switch (step) {
            case Step.Compute compute -> {
                List<String> row = List.of(PlanSql.ROW);
                session.run("CREATE TABLE " + name + " AS "
                        + PlanSql.selectCounting(compute, before.name(), row, "fixshelf changed", "fixshelf lost"));
                Grid counts = session.query(
                        "SELECT coalesce(sum(\"fixshelf changed\"), 0)::BIGINT, coalesce(sum(\"fixshelf lost\"),"
                                + " 0)::BIGINT FROM "
                                + name);
                long changed = (Long) java.util.Objects.requireNonNull(
                        counts.rows().getFirst().get(0));
                long lost = (Long) java.util.Objects.requireNonNull(
                        counts.rows().getFirst().get(1));
                yield new Table(
                        name,
                        new LineEffect(line, rows, rows, columnsBefore, columns, changed, lost, Optional.empty()),
                        Optional.empty());
            }
            case Step.Project project -> {
                session.run(
                        "CREATE TABLE " + name + " AS " + PlanSql.select(project, before.name(), List.of(PlanSql.ROW)));
                yield new Table(
                        name,
                        new LineEffect(line, rows, rows, columnsBefore, columns, 0, 0, Optional.empty()),
                        Optional.empty());
            }
            case Step.KeepOne keep -> repeats(keep, name, line, before);
            case Step.Read _ -> throw new IllegalStateException("only the first line reads");
        };
    }

    private Table repeats(Step.KeepOne keep, String name, int line, Table before) {
        DuckSession session = loaded.session();
        session.run("CREATE TABLE " + name + " AS " + PlanSql.select(keep, before.name(), List.of(PlanSql.ROW))
                + " ORDER BY " + DuckSession.name(PlanSql.ROW));
        String groups = name + "_groups";
        session.run("CREATE TABLE " + groups + " AS " + PlanSql.groups(keep, before.name(), name));
        Grid sizes = session.query(
                "SELECT count(DISTINCT \"fixshelf group\"), coalesce(max(\"fixshelf size\"), 0) FROM " + groups);
        long count =
                (Long) java.util.Objects.requireNonNull(sizes.rows().getFirst().get(0));
        long largest =
                (Long) java.util.Objects.requireNonNull(sizes.rows().getFirst().get(1));
        long after = session.number("SELECT count(*) FROM " + name);
        int columns = keep.columns().size();
        LineEffect effect = new LineEffect(
                line,
                before.effect().rowsAfter(),
                after,
                columns,
                columns,
                0,
                0,
                Optional.of(new LineEffect.Repeats(count, largest)));
        return new Table(name, effect, Optional.of(groups));
    }

    /// The values that a line made missing, the commonest first; at most `most` of them.
    public Outcome<List<LostValue>> lost(Plan plan, int line, int most) {
        if (!(plan.steps().get(line - 1) instanceof Step.Compute compute)
                || compute.computed().isEmpty()) {
            return Outcome.of(List.of());
        }
        return guarded(() -> {
            String both = " FROM " + table(plan, line).name() + " n JOIN "
                    + table(plan, line - 1).name() + " o USING (" + DuckSession.name(PlanSql.ROW) + ") WHERE ";
            String each = compute.computed().stream()
                    .map(c -> lost(c.column(), both))
                    .collect(Collectors.joining(" UNION ALL "));
            Grid grid = loaded.session()
                    .query("SELECT c, v, count(*) FROM (" + each + ") GROUP BY c, v ORDER BY 3 DESC, c, v LIMIT "
                            + most);
            return grid.rows().stream()
                    .map(r -> new LostValue((String) r.get(0), (String) r.get(1), (Long) r.get(2)))
                    .toList();
        });
    }

    private static String lost(String column, String both) {
        String name = DuckSession.name(column);
        return "SELECT " + DuckSession.text(column) + " AS c, CAST(o." + name + " AS VARCHAR) AS v" + both + "o." + name
                + " IS NOT NULL AND n." + name + " IS NULL AND n.\"fixshelf lost\" > 0";
    }

    /// The first rows of the source as texts; what is missing is `∅`.
    public List<List<String>> firstRows(int most) {
        return loaded.session().query("SELECT * FROM staged LIMIT " + most).rows().stream()
                .map(row -> row.stream()
                        .map(v -> v == null ? "∅" : Visible.markOddities(String.valueOf(v)))
                        .toList())
                .toList();
    }

    /// How many rows a view of a line has.
    public Outcome<Long> count(Plan plan, int line, View view) {
        return guarded(() -> loaded.session().number("SELECT count(*) FROM (" + query(plan, line, view) + ")"));
    }

    /// Some rows of a view of a line, from `offset`, counted from 0.
    public Outcome<List<PreviewRow>> rows(Plan plan, int line, View view, long offset, int limit) {
        return guarded(() -> {
            Grid grid = loaded.session().query(query(plan, line, view) + " LIMIT " + limit + " OFFSET " + offset);
            return PreviewRow.of(grid, plan.steps().get(line - 1).columns());
        });
    }

    private <T> Outcome<T> guarded(java.util.function.Supplier<T> work) {
        try {
            return Outcome.of(work.get());
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    private String query(Plan plan, int line, View view) {
        Table table = table(plan, line);
        Step step = plan.steps().get(line - 1);
        String order = " ORDER BY n." + DuckSession.name(PlanSql.ROW);
        if (step instanceof Step.KeepOne && view != View.ALL) {
            return "SELECT * FROM " + table.groups().orElseThrow() + " ORDER BY \"fixshelf group\", "
                    + DuckSession.name(PlanSql.ROW);
        }
        if (step instanceof Step.Compute compute && !compute.computed().isEmpty()) {
            String was = compute.computed().stream()
                    .map(c -> ", o." + DuckSession.name(c.column()) + " AS "
                            + DuckSession.name(PreviewRow.WAS + c.column()))
                    .collect(Collectors.joining());
            String only = view == View.CHANGED
                    ? " WHERE n.\"fixshelf changed\" > 0"
                    : view == View.LEAVING ? " WHERE n.\"fixshelf lost\" > 0" : "";
            return "SELECT n.*" + was + " FROM " + table.name() + " n JOIN "
                    + table(plan, line - 1).name() + " o USING (" + DuckSession.name(PlanSql.ROW) + ")" + only + order;
        }
        return "SELECT * FROM " + table.name() + " n" + (view == View.ALL ? "" : " WHERE false") + order;
    }

    /// The commonest values of a column after a line that a value fix would change are found with this query; it is
    /// given the table of the line.
    public Outcome<Grid> query(Plan plan, int line, java.util.function.Function<String, String> sql) {
        return guarded(() -> loaded.session().query(sql.apply(table(plan, line).name())));
    }

    /// Counts all rows of the source, however many there are; may take a while.
    public static Outcome<Long> countAll(DelimitedFile source) {
        Loaded counting = Loaded.open(source, List.of());
        try (counting) {
            long[] count = new long[1];
            counting.read(
                    Long.MAX_VALUE,
                    relation -> count[0] = counting.session().number("SELECT count(*) FROM " + relation));
            return Outcome.of(count[0]);
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    /// Stops what is being computed; the preview cannot be used any more.
    public void cancel() {
        loaded.session().cancel();
    }

    @Override
    public void close() {
        loaded.close();
    }
}
