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
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.Future;
import java.util.function.Consumer;
import java.util.function.ObjLongConsumer;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// The rows of a dataset, staged once to be looked at. Not safe for several threads at once, but for [#cancel].
public final class DataLook implements AutoCloseable {
    /// As many rows are looked at first.
    public static final long SAMPLE_ROWS = 50_000;

    private static final int PLACES = 40;
    private static final int FEW_COLUMNS = 64;
    private static final int MOST_TOGETHER = 200;

    /// With very many counts in one query the engine takes longer for each.
    private static final int COUNTED_TOGETHER = 100;
    private static final long MOST_CELLS = 4_000_000;

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
            long asked = most == Long.MAX_VALUE ? most : most + 1;
            source.read(asked, relation -> source.session()
                    .run("CREATE OR REPLACE TABLE staged AS SELECT " + SourceSession.numbered(file)
                            + " FROM (SELECT * FROM " + relation + (most == Long.MAX_VALUE ? "" : " LIMIT " + asked)
                            + ")"));
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

    /// What is worth saying of the rows: where they come from, and how they were read.
    public List<String> notes() {
        return file.notes(careful());
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

    /// Looks at every column, then at the rows. May be stopped.
    ///
    /// @param lists what values are held against
    public Outcome<TableLook> columns(List<KnownList> lists) {
        return guarded(() -> {
            List<List<Long>> filled = filledByPlace();
            List<ColumnTally> tallies = new ArrayList<>();
            List<ColumnLook> looks = new ArrayList<>();
            try (TallyLane lane = new TallyLane()) {
                List<Future<ColumnLook>> coming = new ArrayList<>();
                int width = file.columns().size();
                int together = together(width);
                for (int from = 0; from < width; from += together) {
                    Stop.check();
                    for (ColumnTally tally : tallies(lane, from, Math.min(width, from + together))) {
                        tallies.add(tally);
                        coming.add(lane.then(() -> looked(tally, filled.get(tally.column), lists)));
                    }
                }
                boolean key = false;
                for (int i = 0; i < width; i++) {
                    Stop.check();
                    ColumnLook look = TallyLane.result(coming.get(i));
                    ColumnTally tally = tallies.get(i);
                    // Rows that repeat a value are told of the first column that is nearly a key.
                    Optional<Finding> repeats = key ? Optional.empty() : ColumnFindings.repeats(tally);
                    ColumnLook whole = repeats.map(look::with).orElse(look);
                    looks.add(errors(i).map(whole::withErrors).orElse(whole));
                    key |= repeats.isPresent() || ColumnFindings.isKey(tally);
                }
            }
            List<String> names = file.columns().stream().map(Column::name).toList();
            List<Finding> findings = rows == 0 ? List.of() : new TableFindings(source.session(), names).all(tallies);
            return new TableLook(rows, whole, looks, findings);
        });
    }

    /// The cells of a column that could not be read in the source.
    private Optional<Finding> errors(int column) {
        List<CarefulRows.ErrorCell> cells = careful().map(CarefulRows::errors).orElse(List.of()).stream()
                .filter(e -> e.column() == column && e.row() < rows)
                .toList();
        return cells.isEmpty()
                ? Optional.empty()
                : Optional.of(new Finding(
                        Oddity.ERROR_CELLS,
                        column,
                        cells.size(),
                        cells.getFirst().words(),
                        List.of(),
                        cells.stream().map(CarefulRows.ErrorCell::row).toList()));
    }

    private static ColumnLook looked(ColumnTally tally, List<Long> filled, List<KnownList> lists) {
        ColumnLook look = ColumnFindings.of(tally, filled, lists);
        tally.kept = Optional.empty();
        return look;
    }

    /// How many columns are read at once: one of a table with few columns, whose values the engine
    /// counts; many of a wide one, where the engine would take longer to begin a query than to
    /// answer it.
    private int together(int width) {
        return width <= FEW_COLUMNS || rows > MOST_CELLS
                ? 1
                : Math.clamp(MOST_CELLS / Math.max(1, rows), 1, MOST_TOGETHER);
    }

    private List<ColumnTally> tallies(TallyLane lane, int from, int to) {
        List<ColumnTally> tallies = new ArrayList<>();
        List<Map<String, Long>> counts = new ArrayList<>();
        for (int i = from; i < to; i++) {
            tallies.add(new ColumnTally(i, file.columns().get(i).name(), rows));
            counts.add(new LinkedHashMap<>());
        }
        if (to - from == 1) {
            eachValue(from, (value, n) -> lane.add(tallies.getFirst(), value, n));
            lane.flush(tallies.getFirst());
            return tallies;
        }
        String columns = IntStream.range(from, to).mapToObj(i -> "s" + i).collect(Collectors.joining(", "));
        source.session().each("SELECT " + columns + " FROM staged", row -> {
            for (int i = 0; i < row.size(); i++) {
                if (row.get(i) instanceof String value) {
                    counts.get(i).merge(value, 1L, Long::sum);
                }
            }
        });
        for (int i = 0; i < tallies.size(); i++) {
            ColumnTally tally = tallies.get(i);
            counts.get(i).forEach((value, n) -> lane.add(tally, value, n));
            lane.flush(tally);
        }
        return tallies;
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
        for (int from = 0; from < width; from += COUNTED_TOGETHER) {
            int to = Math.min(width, from + COUNTED_TOGETHER);
            String counts = IntStream.range(from, to)
                    .mapToObj(i -> "count(nullif(s" + i + ", ''))")
                    .collect(Collectors.joining(", "));
            Grid grid = source.session()
                    .query("SELECT " + counts + " FROM staged GROUP BY rowid * " + parts + " // " + rows
                            + " ORDER BY rowid * " + parts + " // " + rows);
            for (List<@Nullable Object> row : grid.rows()) {
                for (int i = from; i < to; i++) {
                    all.get(i).add((Long) Objects.requireNonNull(row.get(i - from)));
                }
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

    /// Gives every value of a column once, with how many rows hold it, in no order.
    public void eachValue(int column, ObjLongConsumer<String> take) {
        source.session()
                .each(
                        "SELECT s" + column + ", count(*) FROM staged WHERE s" + column + " IS NOT NULL GROUP BY 1",
                        row -> take.accept((String) Objects.requireNonNull(row.get(0)), (Long)
                                Objects.requireNonNull(row.get(1))));
    }

    /// Takes two values that stand in one row.
    interface Pairs {
        void take(String first, String second, long rows);
    }

    /// Gives every pair of values of two columns once, with how many rows hold it; rows without one
    /// of them are passed over.
    void eachPair(int first, int second, Pairs take) {
        source.session()
                .each(
                        "SELECT s" + first + " AS a, s" + second + " AS b, count(*) FROM staged WHERE s" + first
                                + " IS NOT NULL AND s" + second + " IS NOT NULL GROUP BY a, b",
                        row -> take.take(
                                (String) Objects.requireNonNull(row.get(0)),
                                (String) Objects.requireNonNull(row.get(1)),
                                (Long) Objects.requireNonNull(row.get(2))));
    }

    /// Gives every row as texts, in order.
    public void eachRow(Consumer<List<@Nullable Object>> take) {
        String columns =
                IntStream.range(0, file.columns().size()).mapToObj(i -> "s" + i).collect(Collectors.joining(", "));
        source.session().each("SELECT " + columns + " FROM staged ORDER BY rowid", take);
    }

    DuckSession session() {
        return source.session();
    }

    SourceSession source() {
        return source;
    }

    /// Does something with the rows of looks; what stops it is a problem.
    public static <T> Outcome<T> guarded(Supplier<T> work) {
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
