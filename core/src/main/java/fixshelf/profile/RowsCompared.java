package fixshelf.profile;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.source.SourceFile;
import fixshelf.type.Column;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// Two tables held against each other, row by row, by a key: rows that only one has, and cells that differ.
///
/// @param both rows whose key is in both, once in each
/// @param onlyHere rows whose key is only in the first table
/// @param onlyThere rows whose key is only in the second table
/// @param keyless rows of either without a whole key; they are compared with nothing
/// @param repeated rows of either whose key comes several times in one of them; they are compared with nothing
/// @param byColumn how many cells differ in each column that both have, by text
/// @param byValue how many of these differ by value too: 11.4 and 11.40 do not
/// @param cells the first cells that differ
public record RowsCompared(
        List<String> keys,
        long both,
        long onlyHere,
        long onlyThere,
        long keyless,
        long repeated,
        Map<String, Long> byColumn,
        Map<String, Long> byValue,
        List<Cell> cells) {
    public static final int MOST_CELLS = 2_000;

    public RowsCompared {
        keys = List.copyOf(keys);
        cells = List.copyOf(cells);
    }

    /// A cell that differs.
    ///
    /// @param key the values of the key
    /// @param here the value in the first table, null for missing
    /// @param why what the difference is, where it can be told: by blanks, by capitals, not by value
    public record Cell(
            List<@Nullable String> key,
            String column,
            @Nullable String here,
            @Nullable String there,
            String why) {}

    /// The first cells that differ as lines with a heading; what is missing is `∅`.
    ///
    /// @param here what the first table is called
    public List<List<String>> lines(String here, String there) {
        List<List<String>> lines = new ArrayList<>();
        List<String> heading = new ArrayList<>(keys);
        heading.addAll(List.of("column", here, there, "why"));
        lines.add(heading);
        for (Cell cell : cells) {
            List<String> line = new ArrayList<>();
            cell.key().forEach(k -> line.add(shown(k)));
            line.addAll(List.of(cell.column(), shown(cell.here()), shown(cell.there()), cell.why()));
            lines.add(line);
        }
        return lines;
    }

    private static String shown(@Nullable String value) {
        return value == null ? "∅" : value;
    }

    /// All cells that differ.
    public long differing() {
        return byColumn.values().stream().mapToLong(Long::longValue).sum();
    }

    private static final String OTHER = "other_table";

    /// What stands for the key where rows are compared by their place.
    public static final String ROW = "row";

    /// Holds the rows of one table against those of a file, by columns of these names. Both need the key; without any,
    /// rows are compared by their place: the first with the first.
    public static Outcome<RowsCompared> of(DataLook here, SourceFile there, List<String> keys) {
        return DataLook.guarded(() -> {
            List<Integer> keysHere = places(here.file().columns(), keys, here.file());
            List<Integer> keysThere = places(there.columns(), keys, there);
            here.source().bring(there, OTHER);
            return new Comparing(here, there, keys, keysHere, keysThere).all();
        });
    }

    private static List<Integer> places(List<Column> columns, List<String> keys, SourceFile file) {
        List<Integer> places = new ArrayList<>();
        for (String key : keys) {
            places.add(place(columns, key)
                    .orElseThrow(() -> new ProblemException(Problem.about(
                            Code.NO_SUCH_COLUMN,
                            key,
                            file.file().getFileName() + " has no column " + key + ".",
                            fixshelf.language.tree.Names.suggest(
                                    key, columns.stream().map(Column::name).toList(), "Name a column of both.")))));
        }
        return places;
    }

    private static Optional<Integer> place(List<Column> columns, String name) {
        return IntStream.range(0, columns.size())
                .filter(i -> columns.get(i).name().strip().equalsIgnoreCase(name.strip()))
                .boxed()
                .findFirst();
    }

    /// One comparison, while it is worked out.
    private record Comparing(
            DataLook here, SourceFile there, List<String> keys, List<Integer> keysHere, List<Integer> keysThere) {
        RowsCompared all() {
            DuckSession session = here.session();
            session.run("CREATE OR REPLACE TABLE keys_here AS " + counted("staged", keysHere));
            session.run("CREATE OR REPLACE TABLE keys_there AS " + counted(OTHER, keysThere));
            String on = IntStream.range(0, Math.max(1, keys.size()))
                    .mapToObj(i -> "h.k" + i + " = t.k" + i)
                    .collect(Collectors.joining(" AND "));
            String once = "FROM keys_here h JOIN keys_there t ON " + on + " WHERE h.n = 1 AND t.n = 1";
            long both = session.number("SELECT count(*) " + once);
            long onlyHere =
                    session.number("SELECT coalesce(sum(h.n), 0) FROM keys_here h ANTI JOIN keys_there t ON " + on);
            long onlyThere =
                    session.number("SELECT coalesce(sum(h.n), 0) FROM keys_there h ANTI JOIN keys_here t ON " + on);
            long repeated = session.number("SELECT coalesce(sum(h.n + t.n), 0) FROM keys_here h JOIN keys_there t ON "
                    + on + " WHERE h.n > 1 OR t.n > 1");
            long keyless = session.number("SELECT count(*) FROM staged WHERE " + isMissing(keysHere))
                    + session.number("SELECT count(*) FROM " + OTHER + " WHERE " + isMissing(keysThere));
            session.run("CREATE OR REPLACE TABLE pairs AS SELECT h.p AS h, t.p AS t " + once);
            Map<String, Long> byColumn = new LinkedHashMap<>();
            Map<String, Long> byValue = new LinkedHashMap<>();
            List<Cell> cells = new ArrayList<>();
            for (int i = 0; i < here.file().columns().size(); i++) {
                Optional<Integer> other =
                        place(there.columns(), here.file().columns().get(i).name());
                if (!keysHere.contains(i) && other.isPresent()) {
                    compare(i, other.get(), byColumn, byValue, cells);
                }
            }
            return new RowsCompared(
                    keys.isEmpty() ? List.of(ROW) : keys,
                    both,
                    onlyHere,
                    onlyThere,
                    keyless,
                    repeated,
                    byColumn,
                    byValue,
                    cells);
        }

        private static String counted(String table, List<Integer> keys) {
            if (keys.isEmpty()) {
                return table.equals(OTHER)
                        ? "SELECT p AS k0, 1 AS n, p FROM " + OTHER
                        : "SELECT rowid AS k0, 1 AS n, rowid AS p FROM staged";
            }
            String columns = IntStream.range(0, keys.size())
                    .mapToObj(i -> "s" + keys.get(i) + " AS k" + i)
                    .collect(Collectors.joining(", "));
            String place = table.equals(OTHER) ? "p" : "rowid";
            return "SELECT " + columns + ", count(*) AS n, min(" + place + ") AS p FROM " + table + " WHERE NOT ("
                    + isMissing(keys) + ") GROUP BY "
                    + keys.stream().map(k -> "s" + k).collect(Collectors.joining(", "));
        }

        private static String isMissing(List<Integer> keys) {
            return keys.isEmpty()
                    ? "false"
                    : keys.stream().map(k -> "s" + k + " IS NULL").collect(Collectors.joining(" OR "));
        }

        private void compare(
                int column, int other, Map<String, Long> byColumn, Map<String, Long> byValue, List<Cell> cells) {
            String name = here.file().columns().get(column).name();
            String from = " FROM pairs JOIN staged h ON h.rowid = pairs.h JOIN " + OTHER
                    + " t ON t.p = pairs.t WHERE h.s" + column + " IS DISTINCT FROM t.s" + other;
            String value = "TRY_CAST(%1$s AS DECIMAL(38, 10)) IS NOT NULL AND TRY_CAST(%1$s AS DECIMAL(38, 10)) = "
                    + "TRY_CAST(%2$s AS DECIMAL(38, 10))";
            String same = String.format(Locale.ROOT, value, "h.s" + column, "t.s" + other);
            Grid counts =
                    here.session().query("SELECT count(*), count(*) FILTER (NOT coalesce(" + same + ", false))" + from);
            long differ = (Long) Objects.requireNonNull(counts.rows().getFirst().get(0));
            byColumn.put(name, differ);
            byValue.put(
                    name, (Long) Objects.requireNonNull(counts.rows().getFirst().get(1)));
            if (differ == 0 || cells.size() >= MOST_CELLS) {
                return;
            }
            String keyCells = keys.isEmpty()
                    ? "CAST(h.rowid + 1 AS VARCHAR), "
                    : keysHere.stream().map(k -> "h.s" + k + ", ").collect(Collectors.joining());
            int width = Math.max(1, keys.size());
            Grid grid = here.session()
                    .query("SELECT " + keyCells + "h.s" + column + ", t.s" + other + ", coalesce(" + same + ", false)"
                            + from + " ORDER BY pairs.h LIMIT " + (MOST_CELLS - cells.size()));
            for (List<@Nullable Object> row : grid.rows()) {
                List<@Nullable String> key = new ArrayList<>();
                row.subList(0, width).forEach(k -> key.add((String) k));
                String a = (String) row.get(width);
                String b = (String) row.get(width + 1);
                cells.add(new Cell(
                        key, name, a, b, Boolean.TRUE.equals(row.getLast()) ? "the same by value" : why(a, b)));
            }
        }
    }

    /// What the difference of two texts is, where it is a small one.
    static String why(@Nullable String a, @Nullable String b) {
        if (a == null || b == null) {
            return "";
        }
        if (ColumnTally.stripped(a).equals(ColumnTally.stripped(b))) {
            return "blanks at an end";
        }
        if (Spellings.tidied(a).equals(Spellings.tidied(b))) {
            return "blanks";
        }
        if (Spellings.tidied(a).equalsIgnoreCase(Spellings.tidied(b))) {
            return "capitals";
        }
        if (Spellings.fold(a).equals(Spellings.fold(b))) {
            return "accents";
        }
        Optional<Days.Read> first = Days.read(a);
        Optional<Days.Read> second = Days.read(b);
        if (first.isPresent() && second.isPresent()) {
            var x = first.get().day();
            var y = second.get().day();
            if (x.equals(y)) {
                return "the same day";
            }
            if (x.getYear() == y.getYear()
                    && x.getMonthValue() == y.getDayOfMonth()
                    && x.getDayOfMonth() == y.getMonthValue()) {
                return "day and month changed places?";
            }
        }
        return "";
    }
}
