package fixshelf.engine;

import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.render.sql.DuckDbLanguage;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.duckdb.DuckDBColumnType;
import org.duckdb.DuckDBDataChunkReader;
import org.duckdb.DuckDBReadableVector;
import org.duckdb.DuckDBWritableVector;
import org.jspecify.annotations.Nullable;

/// Another table by its keys, in memory. A line that looks its keys up there works on each row alone, so that rows stay
/// in their order, and in one query with the lines around it; a join of the engine hands them on in another one.
///
/// It stands for a [Relation.Join] that gives each row at most one other: the keys of the other table are different, or
/// only the first row of each is taken, or only the rows are asked for that meet any or none.
public final class Lookup {
    /// A table with more rows is joined by the engine.
    static final int MOST = 300_000;

    /// The reports that a [KeyTally] counts.
    private static final Set<String> REPORTS = Set.of(
            Operation.Report.WITHOUT_MATCH,
            Operation.Report.UNMATCHED_KEYS,
            Operation.Report.AMBIGUOUS,
            Operation.Report.UNUSED);

    private static final DuckDbLanguage DUCKDB = new DuckDbLanguage();

    private final Relation.Join join;
    /// Keys with their numbers: a text, or a list of texts where there are several columns.
    private final Map<Object, Integer> numbers = new HashMap<>();
    /// How many rows have each key.
    private final List<Integer> sizes = new ArrayList<>();
    /// Rows with a missing key, which meet nothing.
    private long keyless;

    private final List<List<byte @Nullable []>> values = new ArrayList<>();
    private final String find;
    private final List<String> takes;

    private Lookup(DuckSession session, Relation.Join join, Iterable<List<@Nullable Object>> rows) {
        this.join = join;
        join.taken().forEach(_ -> values.add(new ArrayList<>()));
        rows.forEach(this::add);
        List<DuckDBColumnType> keys =
                join.on().stream().map(_ -> DuckDBColumnType.VARCHAR).toList();
        this.find = session.function("find", keys, DuckDBColumnType.BIGINT, this::find);
        this.takes = values.stream()
                .map(v -> session.function(
                        "take",
                        List.of(DuckDBColumnType.BIGINT),
                        DuckDBColumnType.VARCHAR,
                        (chunk, out) -> take(v, chunk, out)))
                .toList();
    }

    /// What a line looks up, where it can be done so.
    ///
    /// @param bases the other tables, with their places in `p`
    public static Optional<Lookup> of(DuckSession session, Step step, Function<Relation, String> bases) {
        return joined(step).flatMap(join -> {
            Relation table = table(join);
            String rows = Rows.beside(table, bases);
            if (session.number("SELECT count(*) FROM (" + rows + ")") > MOST) {
                return Optional.empty();
            }
            Stream<Field> wanted = Stream.concat(
                    join.on().stream().map(Relation.Pair::right),
                    join.taken().stream().map(Relation.Taken::field));
            String texts = wanted.map(f -> "CAST(" + f.key() + " AS VARCHAR)").collect(Collectors.joining(", "));
            List<List<@Nullable Object>> read = new ArrayList<>();
            session.each("SELECT " + texts + " FROM (" + rows + ") ORDER BY p", read::add);
            Lookup lookup = new Lookup(session, join, read);
            boolean once = table != join.right()
                    || join.taken().isEmpty() && !pairs(join)
                    || lookup.sizes.stream().allMatch(s -> s == 1);
            return once ? Optional.of(lookup) : Optional.empty();
        });
    }

    private static boolean pairs(Relation.Join join) {
        return join.meeting() == Relation.Meeting.PAIRS || join.meeting() == Relation.Meeting.ALL_LEFT;
    }

    /// The join that a line is, where nothing else is told of it than what can be counted; a table fix may also change
    /// cells.
    private static Optional<Relation.Join> joined(Step step) {
        Relation after = step.after() instanceof Relation.Pick pick ? pick.from() : step.after();
        return after instanceof Relation.Join join
                        && Lineage.isByRow(join.left())
                        && step.replaced().isEmpty()
                        && !Rows.countsAnew(step)
                        && join.right().parts().stream().noneMatch(Relation.Result.class::isInstance)
                        && join.on().stream().noneMatch(p -> p.left().type().equals(Type.NUMBER))
                        && step.reports().stream().allMatch(r -> r.dear() || REPORTS.contains(r.name()))
                ? Optional.of(join)
                : Optional.empty();
    }

    /// The other table, also where only the first row of each key is taken.
    private static Relation table(Relation.Join join) {
        List<Field> keys = join.on().stream().map(Relation.Pair::right).toList();
        return join.right() instanceof Relation.FirstOf(Relation from, var by, var order, boolean last)
                        && by.equals(keys)
                        && order.isEmpty()
                        && !last
                ? from
                : join.right();
    }

    private void add(List<@Nullable Object> row) {
        List<@Nullable String> key = new ArrayList<>();
        for (int i = 0; i < join.on().size(); i++) {
            key.add((String) row.get(i));
            if (key.getLast() == null && !join.on().get(i).missingMeets()) {
                keyless++;
                return;
            }
        }
        Integer known = numbers.putIfAbsent(key(key), sizes.size());
        if (known != null) {
            sizes.set(known, sizes.get(known) + 1);
            return;
        }
        sizes.add(1);
        for (int i = 0; i < values.size(); i++) {
            String value = (String) row.get(join.on().size() + i);
            values.get(i).add(value == null ? null : value.getBytes(StandardCharsets.UTF_8));
        }
    }

    private static Object key(List<@Nullable String> key) {
        return key.size() == 1 && key.getFirst() != null ? key.getFirst() : key;
    }

    private void find(DuckDBDataChunkReader chunk, DuckDBWritableVector out) {
        long count = chunk.rowCount();
        @Nullable String[] key = new String[join.on().size()];
        DuckDBReadableVector[] columns = new DuckDBReadableVector[key.length];
        Arrays.setAll(columns, chunk::vector);
        for (long row = 0; row < count; row++) {
            boolean meets = true;
            for (int i = 0; i < key.length; i++) {
                key[i] = columns[i].isNull(row) ? null : columns[i].getString(row);
                meets &= key[i] != null || join.on().get(i).missingMeets();
            }
            Integer number = meets ? numbers.get(key(Arrays.asList(key))) : null;
            out.setLong(row, number == null ? KeyTally.unmatched(key) : number);
        }
    }

    private static void take(List<byte @Nullable []> values, DuckDBDataChunkReader chunk, DuckDBWritableVector out) {
        byte[][] taken = new byte[(int) chunk.rowCount()][];
        DuckDBReadableVector numbers = chunk.vector(0);
        for (int row = 0; row < taken.length; row++) {
            long number = numbers.getLong(row);
            taken[row] = number < 0 ? null : values.get((int) number);
        }
        out.setStringUtf8Batch(0, taken);
    }

    Relation.Join join() {
        return join;
    }

    /// The number of the key that a row meets, as SQL over the fields of the left side; a negative one where it meets
    /// none.
    String number() {
        return join.on().stream()
                .map(p -> p.left().type().equals(Type.TEXT)
                        ? p.left().key()
                        : "CAST(" + p.left().key() + " AS VARCHAR)")
                .collect(Collectors.joining(", ", find + "(", ")"));
    }

    /// The values that the row with a number brings, as SQL.
    List<String> taken(String number) {
        List<String> columns = new ArrayList<>();
        for (int i = 0; i < takes.size(); i++) {
            Field made = join.taken().get(i).made();
            String text = takes.get(i) + "(" + number + ")";
            columns.add((made.type().equals(Type.TEXT) ? text : DUCKDB.cast(text, made.type())) + " AS " + made.key());
        }
        return columns;
    }

    KeyTally tally() {
        return new KeyTally(sizes, keyless);
    }
}
