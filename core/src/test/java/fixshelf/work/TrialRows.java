package fixshelf.work;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// Small tables as lists of rows, with what operations compare: orders, groups, values that are there.
final class TrialRows {
    private TrialRows() {}

    /// A row by the names of its columns.
    static final class Row extends LinkedHashMap<String, @Nullable Object> {
        Row() {}

        Row(Row other) {
            super(other);
        }

        Row with(String column, @Nullable Object value) {
            Row row = new Row(this);
            row.put(column, value);
            return row;
        }

        List<@Nullable Object> of(List<String> columns) {
            List<@Nullable Object> values = new ArrayList<>();
            columns.forEach(c -> values.add(get(c)));
            return values;
        }
    }

    /// A column of an order.
    record By(String column, boolean descending) {
        String written() {
            return "{" + column + ": " + (descending ? "descending" : "ascending") + "}";
        }
    }

    static Row row(@Nullable Object... cells) {
        Row row = new Row();
        for (int i = 0; i < cells.length; i += 2) {
            row.put(String.valueOf(cells[i]), cells[i + 1]);
        }
        return row;
    }

    @SuppressWarnings({"unchecked", "rawtypes"})
    static int compared(@Nullable Object a, @Nullable Object b, boolean descending, boolean missingFirst) {
        if (a == null || b == null) {
            int missing = a == b ? 0 : a == null ? 1 : -1;
            return missingFirst ? -missing : missing;
        }
        int order = a instanceof String s
                ? Arrays.compare(
                        s.codePoints().toArray(), ((String) b).codePoints().toArray())
                : ((Comparable) a).compareTo(b);
        return descending ? -order : order;
    }

    static List<Row> inOrder(Collection<Row> some, List<By> by, boolean missingFirst) {
        List<Row> sorted = new ArrayList<>(some);
        Comparator<Row> all = by.stream()
                .<Comparator<Row>>map(
                        b -> (x, y) -> compared(x.get(b.column()), y.get(b.column()), b.descending(), missingFirst))
                .reduce(Comparator::thenComparing)
                .orElse((_, _) -> 0);
        sorted.sort(all);
        return sorted;
    }

    static Map<List<@Nullable Object>, List<Row>> grouped(List<Row> some, List<String> keys) {
        Map<List<@Nullable Object>, List<Row>> groups = new LinkedHashMap<>();
        some.forEach(
                r -> groups.computeIfAbsent(r.of(keys), _ -> new ArrayList<>()).add(r));
        return groups;
    }

    static String written(List<By> by) {
        return by.stream().map(By::written).toList().toString();
    }

    static Stream<Object> values(List<Row> group, String column) {
        return group.stream().map(r -> r.get(column)).filter(Objects::nonNull).map(Object.class::cast);
    }

    static String text(List<String> columns, List<Row> some) {
        StringBuilder text = new StringBuilder(String.join(",", columns)).append('\n');
        for (Row row : some) {
            List<String> cells = new ArrayList<>();
            row.of(columns).forEach(v -> cells.add(v == null ? "" : "\"" + v + "\""));
            text.append(String.join(",", cells)).append('\n');
        }
        return text.toString();
    }

    /// The texts with a separator between; missing of none.
    static @Nullable String listed(List<String> texts, String separator) {
        return texts.isEmpty() ? null : String.join(separator, texts);
    }
}
