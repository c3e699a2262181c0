package fixshelf.profile;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.KeptCounts;
import fixshelf.type.Visible;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// Counts that a dataset keeps, held against its rows as they are.
public final class CountsChecked {
    private static final int MOST_VALUES = 100_000;

    private CountsChecked() {}

    /// Counts of these columns, to be kept.
    public static Outcome<KeptCounts> of(DataLook data, List<String> columns) {
        return places(data, columns).isPresent()
                ? DataLook.guarded(() -> new KeptCounts(columns, rows(data, columns, KeptCounts.MOST_ROWS + 1)))
                : Outcome.failed(Problem.about(
                        Code.NO_SUCH_COLUMN,
                        String.join(", ", columns),
                        "Not all of these are columns.",
                        "Name columns of the dataset."));
    }

    /// What is other than what the page keeps, a sentence each; none where all is as it was.
    public static Outcome<List<String>> differences(DataLook data, DatasetPage page) {
        return DataLook.guarded(() -> {
            List<String> all = new ArrayList<>();
            page.counts().forEach(kept -> all.addAll(differences(data, kept)));
            return all;
        });
    }

    private static List<String> differences(DataLook data, KeptCounts kept) {
        if (places(data, kept.columns()).isEmpty()) {
            return List.of("There is no longer each of the columns " + String.join(", ", kept.columns()) + ".");
        }
        Map<List<@Nullable String>, Long> was = counts(kept.rows());
        List<KeptCounts.Row> found = rows(data, kept.columns(), MOST_VALUES);
        if (found.size() == MOST_VALUES) {
            return List.of(String.format(
                    "%s: %,d different values or more now, %,d before.",
                    String.join(", ", kept.columns()), MOST_VALUES, was.size()));
        }
        Map<List<@Nullable String>, Long> is = counts(found);
        Set<List<@Nullable String>> values = new LinkedHashSet<>(was.keySet());
        values.addAll(is.keySet());
        List<String> all = new ArrayList<>();
        for (List<@Nullable String> value : values) {
            long before = Objects.requireNonNullElse(was.get(value), 0L);
            long now = Objects.requireNonNullElse(is.get(value), 0L);
            if (before != now) {
                all.add(words(kept.columns(), value)
                        + (was.containsKey(value)
                                ? String.format(": %,d → %,d", before, now)
                                : String.format(": not there before, %,d now", now)));
            }
        }
        return all;
    }

    private static String words(List<String> columns, List<@Nullable String> values) {
        return IntStream.range(0, columns.size())
                .mapToObj(i -> columns.get(i) + " "
                        + Optional.ofNullable(values.get(i))
                                .map(v -> v.isEmpty() ? "(empty)" : Visible.markOddities(v))
                                .orElse("∅"))
                .collect(Collectors.joining(", "));
    }

    private static Map<List<@Nullable String>, Long> counts(List<KeptCounts.Row> rows) {
        Map<List<@Nullable String>, Long> counts = new LinkedHashMap<>();
        rows.forEach(r -> counts.put(r.values(), r.count()));
        return counts;
    }

    private static Optional<List<Integer>> places(DataLook data, List<String> columns) {
        List<String> names = data.file().columns().stream().map(c -> c.name()).toList();
        List<Integer> places = columns.stream().map(names::indexOf).toList();
        return places.contains(-1) ? Optional.empty() : Optional.of(places);
    }

    /// The commonest first.
    private static List<KeptCounts.Row> rows(DataLook data, List<String> columns, int most) {
        String keys =
                places(data, columns).orElseThrow().stream().map(i -> "s" + i).collect(Collectors.joining(", "));
        List<KeptCounts.Row> rows = new ArrayList<>();
        data.session()
                .each(
                        "SELECT " + keys + ", count(*) FROM staged GROUP BY " + keys + " ORDER BY count(*) DESC, "
                                + keys + " LIMIT " + most,
                        r -> {
                            List<@Nullable String> values = new ArrayList<>();
                            r.subList(0, columns.size()).forEach(v -> values.add((String) v));
                            rows.add(new KeptCounts.Row(
                                    Collections.unmodifiableList(values), (Long) Objects.requireNonNull(r.getLast())));
                        });
        return rows;
    }
}
