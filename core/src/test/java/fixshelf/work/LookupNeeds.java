package fixshelf.work;

import static fixshelf.work.TableNeeds.need;

import fixshelf.work.TableNeeds.Need;
import java.util.List;
import java.util.stream.Stream;

/// What people need done with several tables, and with the shape of one, written as in [TableNeeds].
final class LookupNeeds {
    private static final String VISITS = "room|item|cost / mill|lamp|5 / barn|kettle|7 / mill|lamp|5 / mill|chair|∅";

    private LookupNeeds() {}

    static List<Need> all() {
        return Stream.concat(lookups().stream(), shapes().stream()).toList();
    }

    private static List<Need> lookups() {
        String left = "a|n / x|1 / y|2 / ∅|3 / x|4";
        String right = "k|v / x|10 / z|30 / ∅|50";
        return List.of(
                need("K1", "a / a / b / ∅", "a / x / b / ∅", "by_mapping: [a] / pairs: {a: x}")
                        .reports("unmatched", "a / b"),
                need(
                        "K1",
                        "a / a / b / ∅",
                        "a / x / ∅ / ∅",
                        "by_mapping: [a] / pairs: {a: x} / others: become_missing"),
                need(
                        "K1",
                        "a / a / b / ∅",
                        "a / x / other / ∅",
                        "by_mapping: [a] / pairs: {a: x} / others: become / otherwise: other"),
                need("K2", "a / x / q", "a / 10 / q", "by_mapping: [a] / pairs: {in: list, from: k, to: v}")
                        .with("list", right),
                need("K2", "a / x / q", "a / 10 / q", "by_mapping: [a] / pairs: {in: list, from: k, to: v}")
                        .with("list", "k|v / x|10 / x|10 / ∅|7"),
                need(
                        "K3",
                        "a|b|c / x|p|x / z|q|z",
                        "a|b|c / 1|7|x / 2|q|z",
                        "by_mappings: {a: {x: '1', z: '2'}, b: {p: '7'}}"),
                need("K6", left, "a|n|v / x|1|10 / x|4|10", "join: list / matching: {a: k}")
                        .with("list", right),
                need(
                                "K6",
                                left,
                                "a|n|v / x|1|10 / y|2|∅ / ∅|3|∅ / x|4|10",
                                "join: list / matching: {a: k} / keep: all_here")
                        .with("list", right),
                need(
                                "K6",
                                left,
                                "a|n|v / x|1|10 / x|4|10 / z|∅|30 / ∅|∅|50",
                                "join: list / matching: {a: k} / keep: all_there")
                        .with("list", right),
                need(
                                "K6",
                                left,
                                "a|n|v / x|1|10 / y|2|∅ / ∅|3|∅ / x|4|10 / z|∅|30 / ∅|∅|50",
                                "join: list / matching: {a: k} / keep: all")
                        .with("list", right),
                need("K6", left, "a|n / x|1 / x|4", "keep_matching: list / matching: {a: k}")
                        .with("list", right),
                need("K6", left, "a|n / y|2 / ∅|3", "leave_out_matching: list / matching: {a: k}")
                        .with("list", right),
                need(
                                "K7",
                                "p|q|n / ab|c|1 / a|bc|2",
                                "p|q|n|v / ab|c|1|∅ / a|bc|2|7",
                                "bring_in: [v] / from: list / matching: {p: k, q: l}")
                        .with("list", "k|l|v / a|bc|7"),
                need(
                                "K8",
                                "a / mill· / Barn / mill",
                                "a|v / mill·|∅ / Barn|∅ / mill|1",
                                "bring_in: [v] / from: list / matching: {a: k}")
                        .with("list", "k|v / mill|1 / barn|2")
                        .reports(
                                "near_misses",
                                "a|k_there|differ_in|rows / mill·|mill|white·space|1 / Barn|barn|capitals|1")
                        .reports("unmatched_keys", "a|rows / mill·|1 / Barn|1"),
                need(
                                "K8",
                                "a / mill· / Barn",
                                "a|v / mill·|1 / Barn|2",
                                "bring_in: [v] / from: list / matching: {a: k} / compare: folded")
                        .with("list", "k|v / mill|1 / barn|2"),
                need("K9", "a / x / y", "a|v / x|1 / x|2 / y|∅", "bring_in: [v] / from: list / matching: {a: k}")
                        .with("list", "k|v / x|1 / x|2")
                        .reports("ambiguous", "a / x"),
                need(
                                "K9",
                                "a / x / y",
                                "a|v / x|1 / y|∅",
                                "bring_in: [v] / from: list / matching: {a: k} / several: first")
                        .with("list", "k|v / x|1 / x|2"),
                need(
                                "K10",
                                "a|v / x|0",
                                "a|v|list_v / x|0|10",
                                "bring_in: [v] / from: list / matching: {a: k} / prefix: list_")
                        .with("list", right),
                need(
                                "K12",
                                left,
                                "a|n|v / x|1|10 / x|4|10",
                                "bring_in: [v] / from: list / matching: {a: k} / without_match: leave")
                        .with("list", right)
                        .reports("unused", "k|v / z|30 / ∅|50"),
                need("K14", "a / q / p / ∅ / q", "a|id / q|1 / p|2 / ∅|∅ / q|1", "new_ids: [a]")
                        .reports("numbers", "a|id / q|1 / p|2"),
                need("K14", "a / q / p / ∅ / q", "a|id / q|4 / p|9 / ∅|∅ / q|4", "new_ids: [a] / known: before")
                        .with("before", "a|id / p|9 / q|4"));
    }

    private static List<Need> shapes() {
        String wide = "key|i1|i2 / k1|4|0 / k2|∅|∅ / k3|1|∅";
        return List.of(
                need(
                        "L1",
                        "key|i1|i2|i3 / k|1|2|3",
                        "key|item|value / k|i1|1 / k|i2|2 / k|i3|3",
                        "columns_to_rows: [i1, i2, i3] / names_in: item / values_in: value"),
                need(
                                "L2",
                                wide,
                                "key|item|value / k1|i1|4 / k1|i2|0 / k3|i1|1",
                                "columns_to_rows: {all_but: [key]} / names_in: item / values_in: value")
                        .reports("vanished", wide.substring(0, 9) + " / k2|∅|∅"),
                need(
                        "L2",
                        wide,
                        "key|item|value / k1|i1|4 / k1|i2|0 / k2|i1|∅ / k2|i2|∅ / k3|i1|1 / k3|i2|∅",
                        "columns_to_rows: {all_but: [key]} / names_in: item / values_in: value / missing: keep"),
                need(
                        "L4",
                        wide,
                        wide,
                        "columns_to_rows: {all_but: [key]} / names_in: item / values_in: value / missing: keep",
                        "rows_to_columns: item / values: [i1, i2] / keys: [key] / value: value"),
                need(
                        "L5",
                        VISITS,
                        "room|item|rows|total / mill|lamp|2|10 / barn|kettle|1|7 / mill|chair|1|∅",
                        "read_as: {cost: integer}",
                        "group: [room, item] / measures: {rows: count_rows(), total: sum(cost)}"),
                need(
                        "L5",
                        "k|n / ∅|1 / a|2 / ∅|3",
                        "k|least|most|known / ∅|1|3|2 / a|2|2|1",
                        "read_as: {n: integer}",
                        "group: [k] / measures: {least: min(n), most: max(n), known: count(n)}"),
                need(
                        "L5",
                        "k|v / a|x / a|x / a|y / a|∅ / b|∅",
                        "k|different / a|2 / b|0",
                        "group: [k] / measures: {different: count(DISTINCT v)}"),
                need(
                        "L7",
                        "k|v / 1|b / 2|c / 1|a / 1|∅",
                        "k|v / 1|b,a / 2|c",
                        "rows_to_list: [k] / of: v / separator: ','"),
                need(
                        "L7",
                        "k|v / 1|b / 2|c / 1|a / 1|b",
                        "k|v / 1|a+b / 2|c",
                        "rows_to_list: [k] / of: v / separator: '+' / distinct: true / by: [v]"),
                need(
                        "L7",
                        "k|t / 1|a;;b / 2|∅",
                        "k|t|nth / 1|a|1 / 1|\"\"|2 / 1|b|3 / 2|∅|1",
                        "list_to_rows: t / separator: ';' / number_in: nth / missing: keep"),
                need(
                                "B7",
                                "a / a / a / b / ∅",
                                "a|rows|share|share_of_known / a|2|50.0|66.7 / b|1|25.0|33.3 / ∅|1|25.0|∅",
                                "count_by: [a] / share: both")
                        .notIn("sqlite"),
                need(
                        "B8",
                        "a|b / p|x / q|y",
                        "a|b|rows / p|x|1 / p|y|0 / q|x|0 / q|y|1",
                        "count_by: [a, b] / combinations: every"),
                need("B9", "a / p / q / p", "a|rows|total_over / p|2|0 / q|1|0 / ∅|3|1", "count_by: [a] / totals: all"),
                need(
                                "B15",
                                "k|v / 1|a / 2|c / 4|d",
                                "k|what|column|was|now / 2|changed|v|b|c / 4|added|∅|∅|∅ / 3|removed|∅|∅|∅",
                                "compare_with: before / keys: [k]")
                        .with("before", "k|v / 1|a / 2|b / 3|c"),
                need(
                        "M1",
                        "k|n / a|1 / a|2 / b|5",
                        "k|n|so_far / a|1|1 / a|2|3 / b|5|5",
                        "read_as: {n: integer}",
                        "running: {so_far: sum(n)} / within: [k]"),
                need(
                        "N11",
                        "k|n / a|1 / a|2 / b|5",
                        "k|n|of_all / a|1|3 / a|2|3 / b|5|5",
                        "read_as: {n: integer}",
                        "over_group: {of_all: sum(n)} / within: [k]"),
                need(
                        "L1",
                        "k|cost_24|cost_25 / a|1|2",
                        "k|year|cost / a|24|1 / a|25|2",
                        "headings_to_rows: [cost_24, cost_25] / pattern: '([a-z]+)_([0-9]+)' / parts: [what, year] / stays: what"),
                need("E13", "t / a;b;a", "t / A;B;A", "set_parts: [t] / separator: ';' / to: upper(it)"));
    }
}
