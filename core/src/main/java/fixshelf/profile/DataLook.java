package fixshelf.profile;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.engine.Stop;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.source.CarefulRows;
import fixshelf.source.SourceFile;
import fixshelf.source.SourceSession;
import fixshelf.type.Column;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// The rows of a dataset, staged once to be looked at. Not safe for several threads at once, but for [#cancel].
public final class DataLook implements AutoCloseable {
    /// As many rows are looked at first.
    public static final long SAMPLE_ROWS = 50_000;

    private static final int PLACES = 40;

    private final SourceSession source;
    private final SourceFile file;
    private final long rows;
    private final boolean whole;

    private DataLook(SourceSession source, SourceFile file, long rows, boolean whole) {
        this.source = source;
        this.file = file;
        this.rows = rows;
        this.whole = whole;
    }

    /// Stages at most that many rows; a file that cannot be read is a problem. Rows that do not fit are left out, and
    /// are told by [#careful].
    public static Outcome<DataLook> open(SourceFile file, long most) {
        SourceSession source = SourceSession.open(file, List.of());
        try {
            String columns = IntStream.range(0, file.columns().size())
                    .mapToObj(i -> DuckSession.name(file.columns().get(i).name()) + " AS s" + i)
                    .collect(Collectors.joining(", "));
            long asked = most == Long.MAX_VALUE ? most : most + 1;
            source.read(asked, relation -> source.session()
                    .run("CREATE OR REPLACE TABLE staged AS SELECT " + columns + " FROM (SELECT * FROM " + relation
                            + (most == Long.MAX_VALUE ? "" : " LIMIT " + asked) + ")"));
            long rows = source.session().number("SELECT count(*) FROM staged");
            boolean whole = rows <= most;
            if (!whole) {
                source.session().run("DELETE FROM staged WHERE rowid >= " + most);
            }
            return Outcome.of(new DataLook(source, file, Math.min(rows, most), whole));
        } catch (ProblemException e) {
            source.close();
            return Outcome.failed(e.problem());
        }
    }

    public SourceFile file() {
        return file;
    }

    /// How many rows were staged.
    public long rows() {
        return rows;
    }

    /// Whether these are all rows of the source.
    public boolean isWhole() {
        return whole;
    }

    /// Rows that were left out because they do not fit.
    public Optional<CarefulRows> careful() {
        return source.careful();
    }

    /// Looks at every column, and tells each as it is known; then at the rows.
    ///
    /// @param lists what values are held against
    public Outcome<TableLook> columns(List<KnownList> lists, Consumer<ColumnLook> known) {
        return guarded(() -> {
            List<List<Long>> filled = filledByPlace();
            List<ColumnTally> tallies = new ArrayList<>();
            List<ColumnLook> looks = new ArrayList<>();
            boolean key = false;
            for (int i = 0; i < file.columns().size(); i++) {
                Stop.check();
                ColumnTally tally = tally(i);
                ColumnLook look = ColumnFindings.of(tally, filled.get(i), lists);
                Optional<Finding> repeats = key ? Optional.empty() : ColumnFindings.repeats(tally);
                if (repeats.isPresent()) {
                    look = look.with(repeats.get());
                }
                key |= repeats.isPresent() || ColumnFindings.isKey(tally);
                tally.kept = Optional.empty();
                tallies.add(tally);
                looks.add(look);
                known.accept(look);
            }
            List<String> names = file.columns().stream().map(Column::name).toList();
            List<Finding> findings = rows == 0 ? List.of() : new TableFindings(source.session(), names).all(tallies);
            return new TableLook(rows, whole, looks, findings);
        });
    }

    private ColumnTally tally(int i) {
        ColumnTally tally = new ColumnTally(i, file.columns().get(i).name(), rows);
        source.session()
                .each(
                        "SELECT s" + i + ", count(*) FROM staged WHERE s" + i + " IS NOT NULL GROUP BY 1",
                        row -> tally.add((String) Objects.requireNonNull(row.get(0)), (Long)
                                Objects.requireNonNull(row.get(1))));
        return tally;
    }

    /// How many rows of each column are filled in each of equal parts of the table.
    private List<List<Long>> filledByPlace() {
        int width = file.columns().size();
        List<List<Long>> all = new ArrayList<>();
        for (int i = 0; i < width; i++) {
            all.add(new ArrayList<>());
        }
        if (rows == 0) {
            return all;
        }
        long parts = Math.min(PLACES, rows);
        String counts = IntStream.range(0, width)
                .mapToObj(i -> "count(*) FILTER (s" + i + " <> '')")
                .collect(Collectors.joining(", "));
        Grid grid = source.session()
                .query("SELECT " + counts + " FROM staged GROUP BY rowid * " + parts + " // " + rows
                        + " ORDER BY rowid * " + parts + " // " + rows);
        for (List<@Nullable Object> row : grid.rows()) {
            for (int i = 0; i < width; i++) {
                all.get(i).add((Long) Objects.requireNonNull(row.get(i)));
            }
        }
        return all;
    }

    /// The distinct values of a column with how many rows hold them, the commonest first; at most `most` of them.
    public Outcome<List<ColumnLook.Common>> values(int column, int most) {
        return guarded(() -> source
                .session()
                .query("SELECT s" + column + ", count(*) AS n FROM staged WHERE s" + column
                        + " IS NOT NULL GROUP BY 1 ORDER BY n DESC, 1 LIMIT " + most)
                .rows()
                .stream()
                .map(r -> new ColumnLook.Common(
                        (String) Objects.requireNonNull(r.get(0)), (Long) Objects.requireNonNull(r.get(1))))
                .toList());
    }

    /// Rows of the table as texts, from `offset`, counted from 0.
    public Outcome<List<SeenRow>> rows(RowFilter filter, long offset, int limit) {
        return guarded(() -> {
            filter.prepare(source.session());
            String columns = IntStream.range(0, file.columns().size())
                    .mapToObj(i -> "s" + i)
                    .collect(Collectors.joining(", "));
            return source
                    .session()
                    .query("SELECT rowid, " + columns + " FROM staged WHERE "
                            + filter.condition(file.columns().size()) + " ORDER BY rowid LIMIT " + limit + " OFFSET "
                            + offset)
                    .rows()
                    .stream()
                    .map(SeenRow::of)
                    .toList();
        });
    }

    /// How many rows a filter lets through.
    public Outcome<Long> count(RowFilter filter) {
        return guarded(() -> {
            filter.prepare(source.session());
            return source.session()
                    .number("SELECT count(*) FROM staged WHERE "
                            + filter.condition(file.columns().size()));
        });
    }

    DuckSession session() {
        return source.session();
    }

    SourceSession source() {
        return source;
    }

    static <T> Outcome<T> guarded(Supplier<T> work) {
        try {
            return Outcome.of(work.get());
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    /// Stops what is being looked at; it cannot be used any more.
    public void cancel() {
        source.session().cancel();
    }

    @Override
    public void close() {
        source.close();
    }
}
