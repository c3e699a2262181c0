package fixshelf.work;

import static fixshelf.work.TrialRows.grouped;
import static fixshelf.work.TrialRows.listed;
import static fixshelf.work.TrialRows.row;
import static fixshelf.work.TrialRows.values;

import fixshelf.work.OperationTrials.Trial;
import fixshelf.work.TrialRows.Row;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// As [OperationTrials], of operations that turn columns into rows, rows into columns, and change values.
final class ReshapingTrials {
    final List<Trial> trials = new ArrayList<>();
    private final List<Row> rows;

    ReshapingTrials(List<Row> rows) {
        this.rows = rows;
        reshaped();
        texts();
    }

    private void trial(String line, List<String> more, List<Row> result) {
        trials.add(Trial.of(line, more, result));
    }

    private void reshaped() {
        for (boolean keep : List.of(true, false)) {
            trials.add(new Trial(
                    "columns_to_rows: [g, h]\n    names_in: what\n    values_in: is\n    missing: "
                            + (keep ? "keep" : "drop"),
                    List.of("id", "n", "m", "t", "d", "what", "is"),
                    rows.stream()
                            .flatMap(r -> Stream.of("g", "h")
                                    .filter(c -> keep || r.get(c) != null)
                                    .map(c -> r.with("what", c).with("is", r.get(c))))
                            .toList()));
            trial(
                    "list_to_rows: t\n    separator: ';'\n    number_in: z\n    missing: " + (keep ? "keep" : "drop"),
                    List.of("z"),
                    rows.stream()
                            .flatMap(r -> {
                                if (r.get("t") == null) {
                                    return keep ? Stream.of(r.with("z", 1L)) : Stream.of();
                                }
                                List<String> parts = parts(r);
                                return IntStream.range(0, parts.size())
                                        .mapToObj(i -> r.with("t", parts.get(i)).with("z", i + 1L));
                            })
                            .toList());
        }
        trials.add(new Trial(
                "rows_to_columns: h\n    values: [x, y, z]\n    keys: [g]\n    measure: {q: count_rows()}",
                List.of("g", "x", "y", "z"),
                grouped(rows, List.of("g")).entrySet().stream()
                        .map(e -> {
                            Row row = row("g", e.getKey().getFirst());
                            Stream.of("x", "y", "z")
                                    .forEach(v -> row.put(
                                            v,
                                            e.getValue().stream()
                                                    .filter(r -> v.equals(r.get("h")))
                                                    .count()));
                            return row;
                        })
                        .toList()));
        for (boolean distinct : List.of(true, false)) {
            trials.add(new Trial(
                    "rows_to_list: [g]\n    of: t\n    separator: '+'\n    distinct: " + distinct,
                    List.of("g", "t"),
                    grouped(rows, List.of("g")).entrySet().stream()
                            .map(e -> row(
                                    "g",
                                    e.getKey().getFirst(),
                                    "t",
                                    listed(
                                            (distinct
                                                            ? values(e.getValue(), "t")
                                                                    .distinct()
                                                            : values(e.getValue(), "t"))
                                                    .map(String.class::cast)
                                                    .toList(),
                                            "+")))
                            .toList()));
        }
        for (boolean leave : List.of(true, false)) {
            trials.add(new Trial(
                    "align_left: [g, h, t]\n    keep: 2\n    rows_without: " + (leave ? "leave" : "stay"),
                    List.of("id", "g", "h", "n", "m", "d"),
                    rows.stream()
                            .filter(r -> !leave || r.get("g") != null || r.get("h") != null || r.get("t") != null)
                            .map(r -> {
                                List<@Nullable Object> cells = new ArrayList<>(r.of(List.of("g", "h", "t")));
                                while (!cells.isEmpty() && cells.getFirst() == null) {
                                    cells.removeFirst();
                                }
                                return r.with("g", cells.isEmpty() ? null : cells.getFirst())
                                        .with("h", cells.size() < 2 ? null : cells.get(1));
                            })
                            .toList()));
        }
    }

    private static List<String> parts(Row row) {
        return List.of(String.valueOf(row.get("t")).split(";", -1));
    }

    private void texts() {
        for (boolean counts : List.of(true, false)) {
            trial(
                    "join_columns: [g, h, t]\n    into: z\n    separator: '-'\n    empty: "
                            + (counts ? "counts" : "is_passed_over"),
                    List.of("z"),
                    rows.stream()
                            .map(r -> r.with(
                                    "z",
                                    listed(
                                            r.of(List.of("g", "h", "t")).stream()
                                                    .filter(Objects::nonNull)
                                                    .map(String.class::cast)
                                                    .filter(s -> counts || !s.isEmpty())
                                                    .toList(),
                                            "-")))
                            .toList());
        }
        trial(
                "split_column: t\n    into: [p, q]\n    separator: ';'",
                List.of("p", "q"),
                rows.stream()
                        .map(r -> r.with("p", r.get("t") == null ? null : parts(r).getFirst())
                                .with("q", r.get("t") == null || parts(r).size() < 2 ? null : parts(r).get(1)))
                        .toList());
        Map<String, String> pairs = Map.of("a", "AA", "", "none", "é", "e");
        for (String others : List.of("stay", "become_missing", "become")) {
            trial(
                    "by_mapping: [g]\n    pairs: {a: AA, '': none, é: e}\n    others: " + others
                            + (others.equals("become") ? "\n    otherwise: O" : ""),
                    List.of(),
                    rows.stream()
                            .map(r -> r.with(
                                    "g",
                                    r.get("g") == null
                                            ? null
                                            : pairs.getOrDefault(
                                                    String.valueOf(r.get("g")),
                                                    others.equals("become")
                                                            ? "O"
                                                            : others.equals("stay")
                                                                    ? String.valueOf(r.get("g"))
                                                                    : null)))
                            .toList());
        }
        trial(
                "fill_missing: [m]\n    with: '7'",
                List.of(),
                rows.stream()
                        .map(r -> r.with("m", r.get("m") == null ? new BigDecimal("7.00") : r.get("m")))
                        .toList());
        trial(
                "scale: [n]\n    way: divided\n    by: 1000",
                List.of(),
                rows.stream()
                        .map(r -> r.with(
                                "n",
                                r.get("n") instanceof Long n
                                        ? BigDecimal.valueOf(n)
                                                .divide(BigDecimal.valueOf(1000), 2, RoundingMode.HALF_UP)
                                        : null))
                        .toList());
        trial(
                "set: [t]\n    to: nullif(it, 'p')",
                List.of(),
                rows.stream()
                        .map(r -> r.with("t", "p".equals(r.get("t")) ? null : r.get("t")))
                        .toList());
    }
}
