package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.engine.Rows;
import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.source.CarefulRows;
import fixshelf.source.SourceFile;
import fixshelf.source.SourceSession;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import fixshelf.type.Visible;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// A source staged once, and the first rows of it after every line of a job.
///
/// Tables of lines are kept as long as the lines before them stay as they are. Other tables that lines bring in are
/// staged whole. Not safe for several threads at once, but for [#cancel].
public final class Preview implements AutoCloseable {
    public static final long STAGED_ROWS = 1_000_000;
    public static final long PREVIEW_ROWS = 50_000;

    private static final int MOST_TABLES = 40;

    private final SourceSession loaded;
    private final SourceFile source;
    private final long previewRows;
    private final long staged;
    private final Map<String, Table> tables = new HashMap<>();
    private final OtherSources others;
    private final String stamp;
    private Sample sample = Sample.FIRST;
    private final ReportTables reports = new ReportTables(this);
    private int nextTable;

    /// The table after a line, and what the line did; each row knows its place before the line.
    ///
    /// @param view whether it is only another look at the table before
    private record Table(String name, LineEffect effect, boolean view) {}

    /// What a grid shows of a line.
    public enum View {
        ALL,
        CHANGED,
        /// Those of the table before that have none after; where repeats are dropped, also those that they repeat.
        LEAVING,
        /// Those that come from no row before.
        ADDED,
        /// Those in which a value was lost.
        LOST
    }

    /// Whether a line that brings in the first table again gets the rows that were looked at, and not all of them.
    private final boolean closed;

    private Preview(SourceSession loaded, SourceFile source, long staged, long previewRows, boolean closed) {
        this.closed = closed;
        this.loaded = loaded;
        this.others = new OtherSources(loaded);
        this.source = source;
        this.stamp = source.stamp();
        this.staged = staged;
        this.previewRows = previewRows;
    }

    /// Stages at most `stagedRows` rows of the source and previews on the first `previewRows` of them.
    public static Outcome<Preview> open(SourceFile source, long stagedRows, long previewRows) {
        return open(source, stagedRows, previewRows, false);
    }

    /// The first rows of the source, as if it had no others.
    static Outcome<Preview> sample(SourceFile source, long rows) {
        return open(source, rows, rows, true);
    }

    private static Outcome<Preview> open(SourceFile source, long stagedRows, long previewRows, boolean closed) {
        SourceSession loaded = SourceSession.open(source, List.of());
        try {
            loaded.read(stagedRows, relation -> loaded.session()
                    .run("CREATE OR REPLACE TABLE staged AS SELECT " + SourceSession.numbered(source)
                            + " FROM (SELECT * FROM " + relation + " LIMIT " + stagedRows + ")"));
            long staged = loaded.session().number("SELECT count(*) FROM staged");
            return Outcome.of(new Preview(loaded, source, staged, previewRows, closed));
        } catch (ProblemException e) {
            loaded.close();
            return Outcome.failed(e.problem());
        }
    }

    public static Outcome<Preview> open(SourceFile source) {
        return open(source, STAGED_ROWS, PREVIEW_ROWS);
    }

    public SourceFile source() {
        return source;
    }

    /// How many rows the preview is based on.
    public long rows() {
        return Math.min(staged, previewRows);
    }

    /// Looks at other rows from now on.
    public void choose(Sample wanted) {
        if (wanted != sample) {
            sample = wanted;
            if (staged > previewRows) {
                forgetAllBut(Set.of());
            }
        }
    }

    public Sample sample() {
        return sample;
    }

    /// Which rows are looked at, in words: `the first 50,000 rows`.
    public String rowsInWords() {
        return sample.words(staged, staged < STAGED_ROWS, previewRows);
    }

    /// How many rows were staged; all of the source when fewer than asked for.
    public long staged() {
        return staged;
    }

    /// Rows that were left out because they do not fit.
    public Optional<CarefulRows> careful() {
        return loaded.careful();
    }

    /// What is worth saying of the file: the extent of a sheet that was used, cells with errors.
    public List<String> notes() {
        return source.notes(careful());
    }

    /// Whether a source is the one that was staged, and its file is as it was.
    public boolean isOf(SourceFile now) {
        return source.equals(now) && stamp.equals(now.stamp());
    }

    /// Computes what is not known yet and tells what every line did.
    public Outcome<List<LineEffect>> look(PlannedJob job) {
        return guarded(() -> {
            if (others.forgetReplaced(job)) {
                forgetAllBut(Set.of());
            }
            List<LineEffect> effects = new ArrayList<>();
            Set<String> used = new LinkedHashSet<>();
            for (int line = 1; line <= job.plan().steps().size(); line++) {
                Table table = table(job, line);
                used.add(table.name());
                effects.add(
                        line == 1
                                ? table.effect()
                                : table.effect().of(job.plan().steps().get(line - 1)));
            }
            forget(used);
            return effects;
        });
    }

    /// The watched figures after each line, from the first; none at lines that are not watched.
    public Outcome<List<List<Figure>>> figures(PlannedJob job) {
        return guarded(() -> Figure.of(job.plan(), figures -> loaded.session()
                .query("SELECT * EXCLUDE (p) FROM (" + Rows.beside(figures, bases(job)) + ") ORDER BY p LIMIT "
                        + Figure.MOST_GROUPS)
                .rows()));
    }

    private void forget(Set<String> used) {
        if (tables.size() >= MOST_TABLES) {
            forgetAllBut(used);
        }
    }

    private void forgetAllBut(Set<String> used) {
        List<Table> old =
                tables.values().stream().filter(t -> !used.contains(t.name())).toList();
        // Views first, as they look at tables.
        old.stream().filter(Table::view).forEach(t -> loaded.session().run("DROP VIEW " + t.name()));
        old.stream().filter(t -> !t.view()).forEach(t -> loaded.session().run("DROP TABLE " + t.name()));
        tables.values().removeAll(old);
    }

    /// The tables that a line is worked out of.
    Function<Relation, String> bases(PlannedJob job) {
        return relation -> switch (relation) {
            case Relation.Result(int line, var _) -> table(job, line).name();
            case Relation.Source other when other == job.plan().read() -> first(other);
            case Relation.Source other -> staged(job, other);
            default -> throw new IllegalStateException("no table: " + relation);
        };
    }

    /// Another source, staged whole when it is first asked for.
    private String staged(PlannedJob job, Relation.Source other) {
        if (closed && other.name().equals(job.plan().read().name())) {
            return first(other);
        }
        others.stage(job, other);
        return Rows.other(other);
    }

    private Table table(PlannedJob job, int line) {
        if (line == 1) {
            String key = job.plan().readsJob()
                    ? Rows.traced(job.plan().steps().getFirst().after(), bases(job))
                    : "source";
            Table known = tables.get(key);
            if (known == null) {
                known = first(job);
                tables.put(key, known);
            }
            return known;
        }
        Step step = job.plan().steps().get(line - 1);
        Step last = job.plan().before(line);
        String query = Rows.traced(step.after(), bases(job));
        String names = TableKey.beside(step, last, bases(job));
        Table known = tables.get(query + names);
        if (known == null) {
            known = next(job, line, query);
            tables.put(query + names, known);
        }
        return known;
    }

    /// The rows of the table that is read.
    private String first(Relation.Source read) {
        List<String> columns = new ArrayList<>(List.of("rowid AS p", "rowid AS o", "0 AS k", "0 AS l"));
        for (int i = 0; i < read.shape().fields().size(); i++) {
            columns.add("s" + i + " AS " + read.shape().fields().get(i).key());
        }
        return "(SELECT " + String.join(", ", columns) + " FROM " + sample.of("staged", staged, previewRows) + ")";
    }

    private Table first(PlannedJob job) {
        Step step = job.plan().steps().getFirst();
        boolean over = job.plan().readsJob();
        boolean view = staged <= previewRows && !over;
        String name = "line_" + nextTable++;
        String read = over
                ? Rows.traced(step.after(), bases(job))
                : "SELECT * FROM " + first(job.plan().read());
        loaded.session().run((view ? "CREATE VIEW " : "CREATE TABLE ") + name + " AS " + read);
        long bad = loaded.careful().map(CarefulRows::badCount).orElse(0L);
        long rows = over ? loaded.session().number("SELECT count(*) FROM " + name) : rows();
        long lost = job.plan().readsTyped() ? CellCounts.lost(loaded.session(), name) : 0;
        int columns = step.fields().size();
        return new Table(name, LineEffect.reading(rows + bad, rows, columns, lost), view);
    }

    private Table next(PlannedJob job, int line, String query) {
        Step step = job.plan().steps().get(line - 1);
        Step last = job.plan().before(line);
        Table before = table(job, last.number());
        long rowsBefore = before.effect().rowsAfter();
        DuckSession session = loaded.session();
        String name = "line_" + nextTable++;
        Guards.hold(step, rowsBefore, job.where(line), session, bases(job));
        boolean view = Lineage.isOfColumns(step.after());
        long changes = 0;
        if (view) {
            session.run("CREATE VIEW " + name + " AS SELECT p, p AS o, 0 AS k, 0 AS l, " + Rows.keys(step.fields())
                    + " FROM " + before.name());
        } else {
            session.run("CREATE TABLE " + name + " AS " + query);
            changes = CellCounts.settled(session, step, last.fields(), name, before.name());
        }
        Grid counts = session.query("SELECT count(*), coalesce(sum(k), 0)::BIGINT, coalesce(sum(l), 0)::BIGINT, "
                + "count(DISTINCT o), count(*) - count(o) FROM " + name);
        long rows = number(counts, 0);
        boolean merged = step.rows() == Lineage.Rows.MERGED;
        return new Table(
                name,
                new LineEffect(
                        line,
                        rowsBefore,
                        rows,
                        merged ? 0 : rowsBefore - number(counts, 3),
                        merged ? 0 : number(counts, 4),
                        step.rows(),
                        StepColumns.of(last, step),
                        number(counts, 1),
                        changes,
                        number(counts, 2),
                        repeats(step, before.name()),
                        reports.counted(job, step, name, number(counts, 1)),
                        step.goesOn()),
                view);
    }

    private static long number(Grid grid, int column) {
        return ((Number) Objects.requireNonNull(grid.rows().getFirst().get(column))).longValue();
    }

    private Optional<LineEffect.Repeats> repeats(Step step, String before) {
        return step.dropped().map(first -> {
            Grid sizes = loaded.session()
                    .query("SELECT count(*), coalesce(max(n), 0) FROM (SELECT count(*) AS n FROM " + before
                            + " GROUP BY " + Rows.keys(first.keys()) + " HAVING n > 1)");
            return new LineEffect.Repeats(number(sizes, 0), number(sizes, 1));
        });
    }

    /// The values that a line made missing, the commonest first; at most `most` of them.
    public Outcome<List<LostValue>> lost(PlannedJob job, int line, int most) {
        List<Field> replaced =
                line == 1 ? List.of() : job.plan().steps().get(line - 1).replaced();
        if (replaced.isEmpty()) {
            return Outcome.of(List.of());
        }
        return guarded(() -> {
            String before = table(job, job.plan().before(line).number()).name();
            Grid grid = loaded.session()
                    .query(ViewQuery.lost(
                                    job.plan(), line, replaced, table(job, line).name(), before) + " LIMIT " + most);
            return grid.rows().stream()
                    .map(r -> new LostValue((String) r.get(0), (String) r.get(1), (Long) r.get(2)))
                    .toList();
        });
    }

    /// What became of every row that was looked at.
    public Outcome<Ledger> ledger(PlannedJob job) {
        return guarded(() -> Ledgers.of(this, job));
    }

    /// The table that holds the rows after a line.
    String tableOf(PlannedJob job, int line) {
        return table(job, line).name();
    }

    /// Keeps some rows of a relation beside a line in a table.
    void keep(PlannedJob job, Relation relation, String table, int most) {
        loaded.session()
                .run("CREATE OR REPLACE TABLE " + table + " AS SELECT * FROM (" + Rows.beside(relation, bases(job))
                        + ") ORDER BY p LIMIT " + most);
    }

    DuckSession session() {
        return loaded.session();
    }

    /// The first rows of the source as texts; what is missing is `∅`.
    public List<List<String>> firstRows(int most) {
        return loaded.session().query("SELECT * FROM staged LIMIT " + most).rows().stream()
                .map(row -> row.stream()
                        .map(v -> v == null ? "∅" : Visible.markOddities(String.valueOf(v)))
                        .toList())
                .toList();
    }

    /// The line whose table the rows of a view stand in: the one before it where they leave, or repeat.
    public static int lineOf(PlannedJob job, int line, View view) {
        if (line == 1) {
            return 1;
        }
        Step step = job.plan().steps().get(line - 1);
        return view == View.LEAVING && ViewQuery.rowsLeave(step)
                ? job.plan().before(line).number()
                : line;
    }

    /// The columns that a view of a line has.
    public static List<Field> fields(PlannedJob job, int line, View view) {
        return job.plan().steps().get(lineOf(job, line, view) - 1).fields();
    }

    /// How many rows a view of a line has.
    public Outcome<Long> count(PlannedJob job, int line, View view) {
        return guarded(() -> loaded.session().number("SELECT count(*) FROM (" + query(job, line, view) + ")"));
    }

    /// Some rows of a view of a line, from `offset`, counted from 0.
    public Outcome<List<PreviewRow>> rows(PlannedJob job, int line, View view, long offset, int limit) {
        return guarded(() -> {
            Grid grid = loaded.session().query(query(job, line, view) + " LIMIT " + limit + " OFFSET " + offset);
            return PreviewRow.of(grid, fields(job, line, view));
        });
    }

    /// How many rows a report of a line has.
    public Outcome<Long> count(PlannedJob job, Operation.Report report) {
        return guarded(() -> loaded.session().number("SELECT count(*) FROM (" + reports.query(job, report) + ")"));
    }

    /// Some rows of a report of a line, from `offset`, counted from 0.
    public Outcome<List<PreviewRow>> rows(PlannedJob job, Operation.Report report, long offset, int limit) {
        return guarded(() -> {
            String query = reports.query(job, report);
            Grid grid = loaded.session()
                    .query("SELECT * FROM (" + query + ") ORDER BY p LIMIT " + limit + " OFFSET " + offset);
            return PreviewRow.of(grid, report.relation().shape().fields());
        });
    }

    static <T> Outcome<T> guarded(Supplier<T> work) {
        try {
            return Outcome.of(work.get());
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    private String query(PlannedJob job, int line, View view) {
        int before = line == 1 ? 1 : job.plan().before(line).number();
        return ViewQuery.of(
                job.plan(),
                line,
                view,
                table(job, line).name(),
                table(job, before).name());
    }

    /// All rows after a line, in order.
    Outcome<Grid> grid(PlannedJob job, int line) {
        return guarded(() -> loaded.session()
                .query("SELECT " + Rows.named(job.plan().steps().get(line - 1).fields()) + " FROM "
                        + table(job, line).name() + " AS ours ORDER BY ours.p"));
    }

    /// Every row of the result of a job, in order, with its values as texts.
    void eachResult(PlannedJob job, Consumer<List<@Nullable String>> row) {
        int line = job.plan().resultLine();
        String texts = fields(job, line, View.ALL).stream()
                .map(f -> "CAST(" + f.key() + " AS VARCHAR)")
                .collect(Collectors.joining(", "));
        loaded.session()
                .each("SELECT " + texts + " FROM " + table(job, line).name() + " AS ours ORDER BY ours.p", r -> {
                    List<@Nullable String> cells = new ArrayList<>();
                    r.forEach(v -> cells.add((String) v));
                    row.accept(cells);
                });
    }

    /// All rows of a table that is worked out of the lines of a job, in order.
    Outcome<List<List<@Nullable Object>>> rows(PlannedJob job, Relation about) {
        String keys = Rows.keys(about.shape().fields());
        return guarded(() -> loaded.session()
                .query("SELECT " + keys + " FROM (" + Rows.beside(about, bases(job)) + ") ORDER BY p")
                .rows());
    }

    /// All rows of the table that is read, in order, as texts.
    Outcome<Grid> read(PlannedJob job) {
        Relation.Source read = job.plan().read();
        return guarded(() -> loaded.session()
                .query("SELECT " + Rows.named(read.shape().fields()) + " FROM " + first(read)
                        + " AS ours ORDER BY ours.p"));
    }

    /// All rows of another source that a job brings in, in order, as texts.
    Outcome<Grid> other(PlannedJob job, Relation.Source other) {
        return guarded(() -> loaded.session()
                .query("SELECT " + Rows.named(other.shape().fields()) + " FROM " + staged(job, other)
                        + " AS ours ORDER BY ours.p"));
    }

    /// A query over the first rows of the source, with its own names.
    public Outcome<Grid> query(Function<String, String> sql) {
        StringBuilder columns = new StringBuilder();
        for (int i = 0; i < source.columns().size(); i++) {
            columns.append(i == 0 ? "" : ", ")
                    .append('s')
                    .append(i)
                    .append(" AS ")
                    .append(DuckSession.name(source.columns().get(i).name()));
        }
        return guarded(() -> loaded.session()
                .query(sql.apply("(SELECT " + columns + " FROM " + sample.of("staged", staged, previewRows) + ")")));
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
