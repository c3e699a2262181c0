package fixshelf.work;

import static fixshelf.work.TrialRows.compared;
import static fixshelf.work.TrialRows.grouped;
import static fixshelf.work.TrialRows.inOrder;
import static fixshelf.work.TrialRows.listed;
import static fixshelf.work.TrialRows.row;
import static fixshelf.work.TrialRows.values;
import static fixshelf.work.TrialRows.written;

import fixshelf.work.TrialRows.By;
import fixshelf.work.TrialRows.Row;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// Operations with made-up tables, and what comes out of them by their documentation alone, row by row.
final class OperationTrials {
    static final List<String> COLUMNS = List.of("id", "g", "h", "n", "m", "t", "d");
    private static final List<@Nullable String> KEYS = Arrays.asList("a", "b", "B", "", null, "é", "a ");
    private static final List<@Nullable String> LISTS = Arrays.asList(null, "", "p", "p;q", ";p;;q;p", "q;p", "r");

    /// A line, the columns that come out of it, and its rows.
    record Trial(String line, List<String> columns, List<Row> rows) {
        /// One that keeps all columns, and adds some.
        static Trial of(String line, List<String> more, List<Row> result) {
            List<String> columns = new ArrayList<>(COLUMNS);
            columns.addAll(more);
            return new Trial(line, columns, result);
        }
    }

    private final Random random;
    final List<Row> rows;
    final List<Row> list;
    final List<Trial> trials = new ArrayList<>();

    OperationTrials(int count) {
        random = new Random(count);
        rows = IntStream.range(0, count).mapToObj(this::made).toList();
        list = IntStream.range(0, random.nextInt(9))
                .mapToObj(_ -> row("k", any(KEYS), "w", any(Arrays.asList("1", "2", null, ""))))
                .toList();
        ordered();
        repeats();
        numbered();
        neighbours();
        groups();
        joined();
        trials.addAll(new ReshapingTrials(rows).trials);
    }

    private Row made(int i) {
        return row(
                "id",
                (long) (i * 7 % 41),
                "g",
                any(KEYS),
                "h",
                any(Arrays.asList("x", "y", null)),
                "n",
                any(Arrays.asList(null, 0L, 1L, 1L, 2L, -3L, 1_000_000_000_000L)),
                "m",
                any(Arrays.asList(null, "1.50", "0.00", "-2.25", "1234567.89", "0.01")) instanceof String s
                        ? new BigDecimal(s)
                        : null,
                "t",
                any(LISTS),
                "d",
                any(Arrays.asList(null, "2026-02-07", "2024-02-29", "1999-12-31")) instanceof String s
                        ? LocalDate.parse(s)
                        : null);
    }

    private <T extends @Nullable Object> T any(List<T> choices) {
        return choices.get(random.nextInt(choices.size()));
    }

    private List<By> order() {
        List<String> names = new ArrayList<>(COLUMNS);
        Collections.shuffle(names, random);
        return names.subList(0, 1 + random.nextInt(3)).stream()
                .map(n -> new By(n, random.nextBoolean()))
                .toList();
    }

    private List<String> keys() {
        return any(List.of(List.of("g"), List.of("h"), List.of("g", "h"), List.of("h", "n")));
    }

    private void trial(String line, List<String> more, List<Row> result) {
        trials.add(Trial.of(line, more, result));
    }

    /// What is worked out of the rows of each group, in an order, beside each row.
    private List<Row> beside(List<String> within, List<By> by, Function<List<Row>, List<UnaryOperator<Row>>> change) {
        Map<Object, Row> changed = new LinkedHashMap<>();
        for (List<Row> group : grouped(rows, within).values()) {
            List<Row> sorted = inOrder(group, by, false);
            List<UnaryOperator<Row>> changes = change.apply(sorted);
            for (int i = 0; i < sorted.size(); i++) {
                changed.put(
                        System.identityHashCode(sorted.get(i)), changes.get(i).apply(sorted.get(i)));
            }
        }
        return rows.stream()
                .map(r -> Objects.requireNonNull(changed.get(System.identityHashCode(r))))
                .toList();
    }

    private static String options(List<String> within, List<By> by) {
        return (within.isEmpty() ? "" : "\n    within: " + within) + (by.isEmpty() ? "" : "\n    by: " + written(by));
    }

    // The operations.

    private void ordered() {
        for (boolean missingFirst : List.of(true, false)) {
            List<By> by = order();
            trial(
                    "sort: " + written(by) + "\n    missing: " + (missingFirst ? "first" : "last"),
                    List.of(),
                    inOrder(rows, by, missingFirst));
        }
        trial("first_rows: 5", List.of(), rows.stream().limit(5).toList());
        trial("skip_rows: 5", List.of(), rows.stream().skip(5).toList());
        Function<Row, @Nullable Boolean> condition = r -> r.get("n") instanceof Long n ? (Boolean) (n > 0) : null;
        trial("keep_rows: n > 0", List.of(), kept(r -> Boolean.TRUE.equals(condition.apply(r))));
        trial("leave_out_rows: n > 0", List.of(), kept(r -> !Boolean.TRUE.equals(condition.apply(r))));
        trial(
                "leave_out_blank_rows: [g, t]\n    blank: missing",
                List.of(),
                kept(r -> r.get("g") != null || r.get("t") != null));
        trial("leave_out_blank_rows: [g, t]", List.of(), kept(r -> filled(r.get("g")) || filled(r.get("t"))));
    }

    private static boolean filled(@Nullable Object value) {
        return value != null && !value.toString().isBlank();
    }

    private List<Row> kept(Function<Row, Boolean> condition) {
        return rows.stream().filter(condition::apply).toList();
    }

    private void repeats() {
        for (String keep : List.of("first", "last", "fullest")) {
            for (List<By> by : List.of(List.<By>of(), order())) {
                for (boolean missingRepeats : List.of(true, false)) {
                    List<String> keys = keys();
                    Map<List<@Nullable Object>, List<Row>> groups = grouped(rows, keys);
                    trial(
                            "drop_repeats: " + keys + "\n    keep: " + keep + "\n    missing: "
                                    + (missingRepeats ? "equals_missing" : "never_repeats") + options(List.of(), by),
                            List.of(),
                            kept(r -> {
                                List<Row> group = Objects.requireNonNull(groups.get(r.of(keys)));
                                boolean apart = !missingRepeats && r.of(keys).contains(null);
                                return apart || stays(group, keep, by) == r;
                            }));
                }
            }
        }
        for (String mark : List.of("flag", "size", "number")) {
            List<String> keys = keys();
            trial(
                    "mark_repeats: " + keys + "\n    into: z\n    mark: " + mark,
                    List.of("z"),
                    beside(keys, List.of(), group -> IntStream.range(0, group.size())
                            .<UnaryOperator<Row>>mapToObj(i -> r -> r.with(
                                    "z",
                                    switch (mark) {
                                        case "flag" -> group.size() > 1;
                                        case "size" -> (long) group.size();
                                        default -> i + 1L;
                                    }))
                            .toList()));
        }
    }

    private static Row stays(List<Row> group, String keep, List<By> by) {
        if (keep.equals("last")) {
            List<Row> turned = new ArrayList<>(group);
            Collections.reverse(turned);
            return inOrder(
                            turned,
                            by.stream()
                                    .map(b -> new By(b.column(), !b.descending()))
                                    .toList(),
                            false)
                    .getFirst();
        }
        List<Row> sorted = inOrder(group, by, false);
        return keep.equals("first")
                ? sorted.getFirst()
                : sorted.stream()
                        .min(Comparator.comparingLong(
                                r -> r.values().stream().filter(Objects::isNull).count()))
                        .orElseThrow();
    }

    private void numbered() {
        for (String ties : List.of("apart", "shared", "no_gaps")) {
            List<String> within = any(List.of(List.of(), List.of("g")));
            List<By> by = List.of(new By("n", random.nextBoolean()), new By("h", false));
            trial(
                    "number_rows: z\n    ties: " + ties + "\n    from: 3" + options(within, by),
                    List.of("z"),
                    beside(within, by, group -> {
                        List<UnaryOperator<Row>> numbers = new ArrayList<>();
                        long shared = 3;
                        long noGaps = 3;
                        for (int i = 0; i < group.size(); i++) {
                            boolean tie = i > 0
                                    && group.get(i)
                                            .of(List.of("n", "h"))
                                            .equals(group.get(i - 1).of(List.of("n", "h")));
                            shared = tie ? shared : i + 3L;
                            noGaps += tie || i == 0 ? 0 : 1;
                            long number = ties.equals("apart") ? i + 3L : ties.equals("shared") ? shared : noGaps;
                            numbers.add(r -> r.with("z", number));
                        }
                        return numbers;
                    }));
        }
        List<String> keys = any(List.of(List.of("g"), List.of("g", "h")));
        Map<List<@Nullable Object>, Long> numbers = new LinkedHashMap<>();
        trial(
                "new_ids: " + keys + "\n    into: z\n    first: 100",
                List.of("z"),
                rows.stream()
                        .map(r -> r.with(
                                "z",
                                r.of(keys).contains(null)
                                        ? null
                                        : numbers.computeIfAbsent(r.of(keys), _ -> 100L + numbers.size())))
                        .toList());
    }

    private void neighbours() {
        for (boolean next : List.of(true, false)) {
            for (int steps : List.of(1, 3)) {
                List<String> within = any(List.of(List.of(), List.of("g")));
                List<By> by = any(List.of(List.of(), order()));
                trial(
                        "from_row: " + (next ? "next" : "previous") + "\n    of: [n, t]\n    into: [p, q]\n    steps: "
                                + steps + options(within, by),
                        List.of("p", "q"),
                        beside(within, by, group -> IntStream.range(0, group.size())
                                .<UnaryOperator<Row>>mapToObj(i -> {
                                    int other = next ? i + steps : i - steps;
                                    Row from = other >= 0 && other < group.size() ? group.get(other) : new Row();
                                    return r -> r.with("p", from.get("n")).with("q", from.get("t"));
                                })
                                .toList()));
            }
        }
        for (boolean down : List.of(true, false)) {
            List<String> within = any(List.of(List.of(), List.of("g")));
            List<By> by = any(List.of(List.of(), List.of(new By("d", true), new By("h", false))));
            trial(
                    "carry: " + (down ? "down" : "up") + "\n    columns: [n, t]" + options(within, by),
                    List.of(),
                    beside(within, by, group -> carried(group, down, List.of("n", "t"))));
        }
    }

    private static List<UnaryOperator<Row>> carried(List<Row> group, boolean down, List<String> columns) {
        List<UnaryOperator<Row>> changes = new ArrayList<>();
        for (int i = 0; i < group.size(); i++) {
            UnaryOperator<Row> change = r -> r;
            for (String column : columns) {
                List<Row> looked = down ? group.subList(0, i + 1).reversed() : group.subList(i, group.size());
                @Nullable
                Object value = looked.stream()
                        .map(r -> r.get(column))
                        .filter(Objects::nonNull)
                        .findFirst()
                        .orElse(null);
                UnaryOperator<Row> before = change;
                change = r -> before.apply(r).with(column, value);
            }
            changes.add(change);
        }
        return changes;
    }

    private static final String MEASURES =
            "{a: sum(n), b: sum(m), c: count_rows(), e: count(t), f: min(t), i: max(d), j: min(m)}";
    private static final List<String> MEASURED = List.of("a", "b", "c", "e", "f", "i", "j");

    private static Row measured(Row row, List<Row> group) {
        return row.with(
                        "a",
                        values(group, "n")
                                .map(Long.class::cast)
                                .reduce(Long::sum)
                                .orElse(null))
                .with(
                        "b",
                        values(group, "m")
                                .map(BigDecimal.class::cast)
                                .reduce(BigDecimal::add)
                                .orElse(null))
                .with("c", (long) group.size())
                .with("e", values(group, "t").count())
                .with(
                        "f",
                        values(group, "t")
                                .min((x, y) -> compared(x, y, false, false))
                                .orElse(null))
                .with(
                        "i",
                        values(group, "d")
                                .max((x, y) -> compared(x, y, false, false))
                                .orElse(null))
                .with(
                        "j",
                        values(group, "m")
                                .min((x, y) -> compared(x, y, false, false))
                                .orElse(null));
    }

    private void groups() {
        for (List<String> within : List.of(List.<String>of(), List.of("g"), List.of("g", "h"))) {
            for (List<By> by : List.of(List.<By>of(), order())) {
                trial(
                        "running: " + MEASURES + options(within, by),
                        MEASURED,
                        beside(within, by, group -> IntStream.range(0, group.size())
                                .<UnaryOperator<Row>>mapToObj(i -> r -> measured(r, group.subList(0, i + 1)))
                                .toList()));
            }
            trial(
                    "over_group: " + MEASURES + options(within, List.of()),
                    MEASURED,
                    beside(within, List.of(), group -> Collections.nCopies(group.size(), r -> measured(r, group))));
        }
        for (List<String> keys : List.of(List.of("g"), List.of("g", "h"))) {
            List<Row> made = new ArrayList<>();
            grouped(rows, keys).forEach((key, group) -> {
                Row row = new Row();
                IntStream.range(0, keys.size()).forEach(i -> row.put(keys.get(i), key.get(i)));
                List<BigDecimal> numbers = values(group, "n")
                        .map(n -> BigDecimal.valueOf((Long) n))
                        .toList();
                made.add(measured(row, group)
                        .with("x", values(group, "t").distinct().count())
                        .with(
                                "y",
                                numbers.isEmpty()
                                        ? null
                                        : numbers.stream()
                                                .reduce(BigDecimal::add)
                                                .orElseThrow()
                                                .divide(BigDecimal.valueOf(numbers.size()), 2, RoundingMode.HALF_UP))
                        .with(
                                "l",
                                listed(
                                        values(group, "t")
                                                .map(String.class::cast)
                                                .toList(),
                                        "; ")));
            });
            List<String> columns = new ArrayList<>(keys);
            columns.addAll(MEASURED);
            columns.addAll(List.of("x", "y", "l"));
            trials.add(new Trial(
                    "group: " + keys + "\n    measures: " + MEASURES.replace("}", "")
                            + ", x: count(DISTINCT t), y: 'mean(n, 2)', l: \"listagg(t, '; ')\"}",
                    columns,
                    made));
            List<Row> counted = new ArrayList<>(made.stream()
                    .map(r -> {
                        Row row = new Row();
                        keys.forEach(k -> row.put(k, r.get(k)));
                        row.put("rows", r.get("c"));
                        row.put(
                                "share",
                                BigDecimal.valueOf((Long) Objects.requireNonNull(r.get("c")) * 100)
                                        .divide(BigDecimal.valueOf(rows.size()), 1, RoundingMode.HALF_UP));
                        return row;
                    })
                    .toList());
            counted.sort((x, y) -> compared(x.get("rows"), y.get("rows"), true, false));
            List<String> shown = new ArrayList<>(keys);
            shown.addAll(List.of("rows", "share"));
            trials.add(new Trial("count_by: " + keys + "\n    share: all", shown, counted));
        }
    }

    private void joined() {
        for (boolean stay : List.of(true, false)) {
            for (boolean all : List.of(true, false)) {
                trial(
                        "bring_in: [w]\n    from: list\n    matching: {g: k}\n    several: " + (all ? "all" : "first")
                                + "\n    without_match: " + (stay ? "stay" : "leave"),
                        List.of("w"),
                        rows.stream()
                                .flatMap(r -> {
                                    List<Row> found = matches(r).stream()
                                            .limit(all ? 99 : 1)
                                            .toList();
                                    return found.isEmpty()
                                            ? stay ? Stream.of(r.with("w", null)) : Stream.of()
                                            : found.stream().map(l -> r.with("w", l.get("w")));
                                })
                                .toList());
            }
        }
        trial("keep_matching: list\n    matching: {g: k}", List.of(), kept(r -> !matches(r)
                .isEmpty()));
        trial("leave_out_matching: list\n    matching: {g: k}", List.of(), kept(r -> matches(r)
                .isEmpty()));
        for (String keep : List.of("matches", "all_here", "all_there", "all")) {
            List<Row> result = new ArrayList<>();
            for (Row r : rows) {
                matches(r).forEach(l -> result.add(r.with("l_w", l.get("w"))));
                if (matches(r).isEmpty() && (keep.equals("all_here") || keep.equals("all"))) {
                    result.add(r.with("l_w", null));
                }
            }
            if (keep.equals("all_there") || keep.equals("all")) {
                list.stream()
                        .filter(l -> rows.stream().noneMatch(r -> matches(r).contains(l)))
                        .forEach(l -> result.add(row("g", l.get("k"), "l_w", l.get("w"))));
            }
            trial("join: list\n    matching: {g: k}\n    prefix: l_\n    keep: " + keep, List.of("l_w"), result);
        }
    }

    private List<Row> matches(Row row) {
        return list.stream()
                .filter(l -> row.get("g") != null && Objects.equals(l.get("k"), row.get("g")))
                .toList();
    }
}
