package fixshelf.profile;

import fixshelf.engine.Grid;
import fixshelf.language.tree.Names;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.Shelf;
import fixshelf.type.Column;
import fixshelf.type.Literals;
import fixshelf.work.Datasets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// Counts how often values of one, two or three columns come together.
public final class Counts {
    private Counts() {}

    /// Counts over all rows that were staged. One column goes by how often its values come, and the rare ones of very
    /// many are one row; several go by their values, in the order of their characters. What is missing is last.
    public static Outcome<CountTable> of(DataLook data, CountSpec spec) {
        List<String> names = spec.columns().stream()
                .map(i -> data.file().columns().get(i).name())
                .toList();
        return DataLook.guarded(() -> {
            String columns = spec.columns().stream().map(i -> "s" + i).collect(Collectors.joining(", "));
            if (names.size() == 1) {
                return one(data, spec, names);
            }
            Grid grid = data.session()
                    .query("SELECT " + columns + ", count(*) AS n FROM staged GROUP BY " + columns
                            + " ORDER BY n DESC, " + columns + " LIMIT " + (MOST_COMBINATIONS + 1));
            if (grid.rows().size() > MOST_COMBINATIONS) {
                throw tooMany(names.getFirst(), "more than " + MOST_COMBINATIONS);
            }
            return table(spec, names, grid);
        });
    }

    private static final int MOST_COMBINATIONS = 200_000;

    private static CountTable one(DataLook data, CountSpec spec, List<String> names) {
        String column = "s" + spec.columns().getFirst();
        Grid grid = data.session()
                .query("SELECT CASE WHEN place <= " + CountTable.MOST_ROWS
                        + " OR v IS NULL THEN v ELSE 'and ' || (all_values - "
                        + CountTable.MOST_ROWS + ") || ' other values' END AS v, sum(n)::BIGINT FROM (SELECT " + column
                        + " AS v, count(*) AS n, row_number() OVER (ORDER BY " + column + " IS NULL, n DESC, " + column
                        + ") AS place, count(" + column + ") OVER () AS all_values FROM staged GROUP BY " + column
                        + ") GROUP BY 1 ORDER BY 1 IS NULL, min(place)");
        List<@Nullable String> values = new ArrayList<>();
        grid.rows().forEach(r -> values.add(text(r.getFirst())));
        long[][] counts =
                grid.rows().stream().map(r -> new long[] {count(r, 1)}).toArray(long[][]::new);
        return new CountTable(
                spec, names, List.of(new CountTable.Sheet(Optional.empty(), values, List.of("rows"), counts)));
    }

    private static CountTable table(CountSpec spec, List<String> names, Grid grid) {
        int n = names.size();
        List<List<@Nullable String>> values = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            int column = i;
            Set<@Nullable String> distinct = new LinkedHashSet<>();
            grid.rows().forEach(r -> distinct.add(text(r.get(column))));
            List<@Nullable String> sorted = new ArrayList<>(distinct);
            sorted.sort(BY_VALUE);
            values.add(sorted);
            int most = i == 0 ? CountTable.MOST_ROWS : CountTable.MOST_COLUMNS;
            if (sorted.size() > most) {
                throw tooMany(names.get(i), String.valueOf(sorted.size()));
            }
        }
        List<@Nullable String> thirds = n == 3 ? values.get(2) : List.of("");
        List<CountTable.Sheet> sheets = new ArrayList<>();
        Map<@Nullable String, Integer> row = places(values.get(0));
        Map<@Nullable String, Integer> column = places(values.get(1));
        for (String third : thirds) {
            long[][] counts = new long[values.get(0).size()][values.get(1).size()];
            grid.rows().stream()
                    .filter(r -> n == 2 || Objects.equals(text(r.get(2)), third))
                    .forEach(r -> counts[row.get(text(r.get(0)))][column.get(text(r.get(1)))] = count(r, n));
            Optional<String> of = n == 2
                    ? Optional.empty()
                    : Optional.of(names.get(2) + ": " + new CountTable(spec, names, List.of()).label(2, third));
            sheets.add(new CountTable.Sheet(of, values.get(0), values.get(1), counts));
        }
        return new CountTable(spec, names, sheets);
    }

    private static final Comparator<@Nullable String> BY_VALUE =
            Comparator.nullsLast(Comparator.<String>naturalOrder());

    private static Map<@Nullable String, Integer> places(List<@Nullable String> values) {
        Map<@Nullable String, Integer> places = new HashMap<>();
        IntStream.range(0, values.size()).forEach(i -> places.put(values.get(i), i));
        return places;
    }

    private static @Nullable String text(@Nullable Object value) {
        return value == null ? null : Literals.bare(value);
    }

    private static long count(List<@Nullable Object> row, int at) {
        return (Long) Objects.requireNonNull(row.get(at));
    }

    /// Other words for values, out of two columns of a dataset; a value that comes twice has its first words.
    public static Outcome<Map<String, String>> labels(Shelf shelf, String dataset, String key, String label) {
        return Datasets.open(shelf, dataset).then(file -> {
            List<String> names = file.columns().stream().map(Column::name).toList();
            for (String wanted : List.of(key, label)) {
                if (!names.contains(wanted)) {
                    return Outcome.failed(Problem.about(
                            Code.NO_SUCH_COLUMN,
                            dataset,
                            "The dataset " + dataset + " has no column " + wanted + ".",
                            Names.suggest(wanted, names, "Name one of its columns.")));
                }
            }
            return DataLook.open(file, MOST_COMBINATIONS).then(data -> {
                try (data) {
                    return data.rows(RowFilter.ALL, 0, MOST_COMBINATIONS).map(rows -> {
                        Map<String, String> words = new HashMap<>();
                        for (SeenRow row : rows) {
                            String value = row.cells().get(names.indexOf(key));
                            String word = row.cells().get(names.indexOf(label));
                            if (value != null && word != null) {
                                words.putIfAbsent(value, word);
                            }
                        }
                        return words;
                    });
                }
            });
        });
    }

    private static ProblemException tooMany(String column, String count) {
        return new ProblemException(Problem.about(
                Code.TOO_MANY_VALUES,
                column,
                column + " has " + count + " values, which is too many for a table to be read.",
                "Count a column with fewer values, or put this one alone in the rows: there " + CountTable.MOST_ROWS
                        + " find room."));
    }
}
