package fixshelf.work;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/// What people need done to tables, by the numbers of the acceptance list: input, then output.
///
/// A table is written in one line, names first: rows have ` / ` between them, cells `|`. `∅` is missing, `""` an empty
/// text, `·` a blank, `⍽` a no-break space, `¶` a line feed.
final class TableNeeds {
    /// One need.
    ///
    /// @param lines what does it, a line of a page each; ` / ` begins another blank of the same line
    /// @param without the languages that cannot say it, and say so
    record Need(
            String id,
            String given,
            List<String> lines,
            String gives,
            Map<String, String> others,
            Map<String, String> reports,
            List<String> without) {
        /// The same, with another table, which its lines call by its name.
        Need with(String name, String table) {
            Map<String, String> more = new TreeMap<>(others);
            more.put(name, table);
            return new Need(id, given, lines, gives, more, reports, without);
        }

        /// The same, with what a report of its last line holds.
        Need reports(String report, String table) {
            Map<String, String> more = new TreeMap<>(reports);
            more.put(report, table);
            return new Need(id, given, lines, gives, others, more, without);
        }

        Need notIn(String... languages) {
            return new Need(id, given, lines, gives, others, reports, List.of(languages));
        }
    }

    static Need need(String id, String given, String gives, String... lines) {
        return new Need(id, given, List.of(lines), gives, Map.of(), Map.of(), List.of());
    }

    private static final String BLANKS = "a|b / x|∅ / ∅|∅ / ·|\"\" / \"\"|∅ / ∅|y";
    private static final String REPEATS = "key|v / A|w / A|e / B|n / ∅|p / ∅|q";

    static final List<Need> ALL = all();

    private TableNeeds() {}

    private static List<Need> all() {
        List<Need> needs = new ArrayList<>();
        needs.addAll(headings());
        needs.addAll(blanks());
        needs.addAll(rows());
        needs.addAll(repeats());
        needs.addAll(missing());
        needs.addAll(names());
        needs.addAll(types());
        needs.addAll(LookupNeeds.all());
        return needs;
    }

    private static List<Need> headings() {
        String raw = "c1|c2 / summary|∅ / id|amt / 1|9";
        return List.of(
                need("A9", raw, "id|amt / 1|9", "heading_row: 2").reports("above", "c1|c2 / summary|∅"),
                need("A9", "c1|c2|c3 / id|∅|id / 1|2|3", "id|column_2|id_2 / 1|2|3", "heading_row: 1"),
                need("A9", "c1|c2|c3 / id_2|id|id / 1|2|3", "id_2|id|id_3 / 1|2|3", "heading_row: 1"),
                need("F12", "id|amt / 1|9", "column_1|column_2 / id|amt / 1|9", "names_to_row: column_"),
                need("F12", "id|amt / 1|9", "id|amt / 1|9", "names_to_row: c", "heading_row: 1"),
                need(
                        "L8",
                        "c1|c2|c3 / ∅|visits|∅ / room|2024|2025 / mill|3|4",
                        "room|visits 2024|visits 2025 / mill|3|4",
                        "heading_row: 1 / count: 2"),
                need(
                        "L8",
                        "c1|c2|c3 / ∅|visits|∅ / room|2024|2025 / mill|3|4",
                        "room|visits-2024|visits-2025 / mill|3|4",
                        "heading_row: 1 / count: 2 / joiner: '-'"));
    }

    private static List<Need> blanks() {
        String block = "a|b|c|d / 1|∅|2|3 / 4|∅|5|∅ / ∅|∅|∅|∅ / 6|∅|∅|7 / ∅|∅|8|∅";
        String both = "a|c|d / 1|2|3 / 4|5|∅ / 6|∅|7 / ∅|8|∅";
        String shifted = "a|b|c|d|e|f / ∅|∅|a|b|c|z / a|∅|c|∅|∅|∅ / ∅|a|∅|∅|∅|∅ / ∅|∅|∅|∅|∅|∅";
        return List.of(
                need("F1", BLANKS, "a|b / x|∅ / ∅|y", "leave_out_blank_rows: all columns"),
                need(
                        "F1",
                        BLANKS,
                        "a|b / x|∅ / ·|\"\" / \"\"|∅ / ∅|y",
                        "leave_out_blank_rows: all columns / blank: missing"),
                need("F1", BLANKS, "a|b / x|∅ / ·|\"\" / ∅|y", "leave_out_blank_rows: all columns / blank: empty"),
                need("F1", "a|b / ⍽|x / ·⍽·|∅ / ¶|∅", "a|b / ⍽|x", "leave_out_blank_rows: all columns"),
                need("F2", "a|b|c / 1|∅|∅ / 2|·|∅", "a / 1 / 2", "leave_out_blank_columns: every column"),
                need(
                        "F2",
                        "a|b|c / 1|∅|∅ / 2|·|∅",
                        "a|b / 1|∅ / 2|·",
                        "leave_out_blank_columns: every column / blank: missing"),
                need("F3", block, both, "leave_out_blank_rows: all columns", "leave_out_blank_columns: every column"),
                need("F3", block, both, "leave_out_blank_columns: every column", "leave_out_blank_rows: all columns"),
                need(
                        "F4",
                        "a|b|c / x|1|∅ / x|2|y / x|2|y",
                        "b|c / 1|∅ / 2|y / 2|y",
                        "leave_out_constant_columns: every column"),
                need(
                        "F4",
                        "a|b|c / x|1|∅ / x|2|y / x|2|y",
                        "b / 1 / 2 / 2",
                        "leave_out_constant_columns: every column / missing: is_passed_over"),
                need("F4", "a|b / x|1", "a|b / x|1", "leave_out_constant_columns: every column")
                        .reports("too_few", "a|b / x|1"),
                need("F5", shifted, "a|b|c / a|b|c / a|∅|c / a|∅|∅ / ∅|∅|∅", "align_left: [a, b, c, d, e, f] / keep: 3")
                        .reports("shifted", "a|b|c|d|e|f|shifted_by / ∅|∅|a|b|c|z|2 / ∅|a|∅|∅|∅|∅|1")
                        .reports("cut", "a|b|c|d|e|f|shifted_by / ∅|∅|a|b|c|z|2"),
                need(
                        "F5",
                        shifted,
                        "a|b|c / a|b|c / a|∅|c / a|∅|∅",
                        "align_left: [a, b, c, d, e, f] / keep: 3 / rows_without: leave"),
                need("F5", "a|b|c / ∅|x|y / ∅|∅|z", "a|b|c / x|y|∅ / z|∅|∅", "align_left: [a, b, c]"));
    }

    private static List<Need> rows() {
        String list = "item|amount / i1|5 / i2|6 / G|11 / ∅|---- / i3|1 / H|1 / ∅|--";
        return List.of(
                need("F6", "a|b|c / 1|2|3", "c|a / 3|1", "choose: [c, a]"),
                need("F6", "a|b|c / 1|2|3", "a / 1", "choose: [a, gone] / if_absent: pass_over"),
                need("F6", "a|b|c / 1|2|3", "a|c / 1|3", "drop: [b]"),
                need("F6", "a|b|c / 1|2|3", "b / 2", "drop: {all_but: [b]}"),
                need("F7", "n / 1 / 3 / ∅", "n / 3", "read_as: {n: integer}", "keep_rows: n > 2")
                        .reports("unknown", "n / ∅"),
                need("F7", "n / 1 / 3 / ∅", "n / 1 / ∅", "read_as: {n: integer}", "leave_out_rows: n > 2")
                        .reports("unknown", "n / ∅"),
                need("H6", "a / x / ∅ / \"\"", "a / x / \"\"", "keep_rows: a IS NOT NULL"),
                need("C20", "a / =x / x", "a / =x", "keep_rows: a = '=x'"),
                need("F7", "a / x / y / z", "a / x / z", "keep_rows: a IN ('x', 'z')"),
                need("F8", "a / x / y / x", "a|nr / x|0 / y|1 / x|2", "number_rows: nr / from: 0"),
                need("F8", "a / x / y / x", "a|nr / x|1 / y|1 / x|2", "number_rows: nr / within: [a]"),
                need(
                        "F8",
                        "a|n / x|5 / y|2 / z|5",
                        "a|n|nr / x|5|8 / y|2|7 / z|5|9",
                        "number_rows: nr / by: [n] / from: 7"),
                need(
                        "F8",
                        "a|n / x|5 / y|2 / z|5 / w|9",
                        "a|n|nr / x|5|2 / y|2|1 / z|5|2 / w|9|4",
                        "number_rows: nr / by: [n] / ties: shared"),
                need(
                        "F8",
                        "a|n / x|5 / y|2 / z|5 / w|9",
                        "a|n|nr / x|5|2 / y|2|1 / z|5|2 / w|9|3",
                        "number_rows: nr / by: [n] / ties: no_gaps"),
                need("F9", "a / 1 / 2 / 3", "a|then / 1|2 / 2|3 / 3|∅", "from_row: next / of: [a] / into: [then]"),
                need(
                        "F9",
                        "a / 1 / 2 / 3",
                        "a|was / 1|∅ / 2|∅ / 3|1",
                        "from_row: previous / of: [a] / into: [was] / steps: 2"),
                need(
                        "F9",
                        "g|a / p|1 / q|2 / p|3",
                        "g|a|then / p|1|3 / q|2|∅ / p|3|∅",
                        "from_row: next / of: [a] / into: [then] / within: [g]"),
                need(
                        "F9",
                        "a|d / x|3 / y|1 / z|2",
                        "a|d|then / x|3|∅ / y|1|z / z|2|x",
                        "from_row: next / of: [a] / into: [then] / by: [d]"),
                need("F10", "a / ∅ / ∅ / G / ∅ / H / ∅", "a / G / G / G / H / H / ∅", "carry: up / columns: [a]"),
                need("F10", "a / ∅ / G / ∅ / \"\" / ∅", "a / ∅ / G / G / \"\" / \"\"", "carry: down / columns: [a]"),
                need(
                        "F10",
                        "g|a / p|x / p|∅ / q|∅ / q|y / p|∅",
                        "g|a / p|x / p|x / q|∅ / q|y / p|x",
                        "carry: down / columns: [a] / within: [g]"),
                need(
                        "F10",
                        "g|a / p|x / p|∅ / q|∅ / q|y / p|∅",
                        "g|a / p|x / p|x / q|∅ / q|y / p|∅",
                        "carry: down / columns: [a] / within: [g] / groups: runs"),
                need(
                        "F11",
                        list,
                        "item|amount|group / i1|5|G / i2|6|G / i3|1|H",
                        "from_row: next / of: [amount] / into: [below]",
                        "add: {group: \"CASE WHEN regexp_like(below, '^-{2,}$') THEN item END\"}",
                        "carry: up / columns: [group]",
                        "leave_out_rows: \"regexp_like(amount, '^-{2,}$') OR coalesce(regexp_like(below, '^-{2,}$'), FALSE)\"",
                        "drop: [below]"),
                need("F13", "k|v / a|1 / b|2", "column|a|b / v|1|2", "turn_table: column / names_from: k"),
                need("F13", "k|v / a|1 / b|2", "column|row_1|row_2 / k|a|b / v|1|2", "turn_table: column"),
                need("F14", "a|b / 1|2", "a|b|c / 1|2|∅ / 3|∅|4", "put_under: more")
                        .with("more", "c|a / 4|3")
                        .reports("differences", "column|is / b|only here / c|only there"),
                need("F14", "a|b / 1|2", "a|b / 1|2 / 1|2", "put_under: more").with("more", "b|a / 2|1"),
                need("F15", "a|b / 1|2", "a|both|b / 1|12|2", "add: {both: a || b} / before: b"),
                need("E23", "a|b / x·|y·", "a|b / x|y·", "set: [a] / to: trim(it)"),
                need("E23", "a|b / x·|y·", "a|b / x|y", "set: every text column / to: trim(it)"),
                need("M10", "a|b|c / x·|y·|z·", "a|b|c / x|y·|z", "set: {all_but: [b]} / to: trim(it)"),
                need("F18", "a / b / ∅ / a / \"\"", "a / \"\" / a / b / ∅", "sort: [a]"),
                need("F18", "a / b / ∅ / a", "a / ∅ / b / a", "sort: [{a: descending}] / missing: first"),
                need("F18", "a|n / B|1 / a|2 / b|3 / A|4", "a|n / A|4 / B|1 / a|2 / b|3", "sort: [a]"),
                need(
                                "F17",
                                "n / 1500 / ∅ / -5",
                                "n / 1.50 / ∅ / -0.01",
                                "read_as: {n: integer}",
                                "scale: [n] / way: divided / by: 1000")
                        .notIn("sqlite"),
                need("C11", "k|t / 1|a,b / 2|∅ / 3|", "k|t / 1|a / 1|b / 3|\"\"", "list_to_rows: t / separator: ','"),
                need(
                        "D7",
                        "a / x",
                        "day / 2026-02-27 / 2026-03-01 / 2026-03-03",
                        "rows_of_days: 2026-02-27 / count: 3 / step: 2"),
                need("J12", "a / x", "day / 2026-02-28 / 2026-03-01", "rows_of_days: 2026-02-28 / to: 2026-03-01"));
    }

    private static List<Need> repeats() {
        String dated = "k|d|v / a|2|x / a|3|y / a|3|z / b|1|∅";
        return List.of(
                need("G1", "a|b / 1|x / 1|x / 2|y", "a|b / 1|x / 2|y", "drop_repeats: all columns / keep: first"),
                need("G2", REPEATS, "key|v / A|w / B|n / ∅|p", "drop_repeats: [key] / keep: first")
                        .reports("repeats", "key|v / A|w / A|e / ∅|p / ∅|q"),
                need("G2", REPEATS, "key|v / A|e / B|n / ∅|q", "drop_repeats: [key] / keep: last"),
                need(
                        "G8",
                        REPEATS,
                        "key|v / A|w / B|n / ∅|p / ∅|q",
                        "drop_repeats: [key] / keep: first / missing: never_repeats"),
                need("G8", "a / X / x· / y", "a / X / y", "drop_repeats: [a] / keep: first / compare: folded"),
                need("G3", dated, "k|d|v / a|3|z / b|1|∅", "drop_repeats: [k] / keep: last / by: [d]"),
                need("G3", dated, "k|d|v / a|3|y / b|1|∅", "drop_repeats: [k] / keep: first / by: [{d: descending}]"),
                need(
                        "G3",
                        "k|a|b / 1|∅|∅ / 1|x|∅ / 1|x|y / 1|p|q",
                        "k|a|b / 1|x|y",
                        "drop_repeats: [k] / keep: fullest"),
                need("G4", REPEATS, "key|rows / A|2 / ∅|2 / B|1", "count_by: [key]"),
                need(
                        "B6",
                        "k / k1 / k1 / k2",
                        "k|again / k1|true / k1|true / k2|false",
                        "mark_repeats: [k] / into: again"),
                need(
                        "B6",
                        "k / k1 / k1 / k2",
                        "k|again / k1|false / k1|true / k2|false",
                        "mark_repeats: [k] / into: again / mark: later"),
                need(
                        "B6",
                        "k / k1 / k1 / k2",
                        "k|of / k1|2 / k1|2 / k2|1",
                        "mark_repeats: [k] / into: of / mark: size"),
                need(
                        "G5",
                        "k|v / a|1 / a|2 / b|3",
                        "k|v / a|2",
                        "mark_repeats: [k] / into: nth / mark: number",
                        "keep_rows: nth > 1",
                        "drop: [nth]"),
                need(
                        "G10",
                        "k / a / a / b",
                        "k|was|nr / a|1|1 / b|3|2",
                        "number_rows: was",
                        "drop_repeats: [k] / keep: first",
                        "number_rows: nr"));
    }

    private static List<Need> missing() {
        return List.of(
                need(
                        "H3",
                        "k / a / a / b",
                        "k|n / a|2 / b|∅",
                        "count_by: [k] / into: n",
                        "make_missing: [n] / where: it < 2"),
                need(
                        "L5",
                        "k / a / a",
                        "k|rows|known|different|big / a|2|2|1|6000000000",
                        "group: [k] / measures: {rows: count_rows(), known: count(k), different: count(DISTINCT k)}",
                        "add: {big: rows * 3000000000}"),
                need("H2", "a|n / ∅|1 / \"\"|∅", "a|n / none|1 / \"\"|∅", "fill_missing: [a] / with: none"),
                need("H2", "n / 1 / ∅ / 2", "n / 1 / 0 / 2", "read_as: {n: integer}", "fill_missing: [n] / with: 0")
                        .reports("means", "column|when|values|mean / n|before|2|1.5000 / n|after|3|1.0000"),
                need(
                        "H2",
                        "d / 2026-03-01 / ∅",
                        "d / 2026-03-01 / 2026-01-01",
                        "read_as: {d: date}",
                        "fill_missing: [d] / with: 2026-01-01"),
                need(
                        "H3",
                        "a / n/a / - / \"\" / x / N/A",
                        "a / ∅ / ∅ / ∅ / x / N/A",
                        "make_missing: [a] / values: [n/a, '-', '']"),
                need(
                        "H3",
                        "n / 1 / 999 / ∅",
                        "n / 1 / ∅ / ∅",
                        "read_as: {n: integer}",
                        "make_missing: [n] / values: [999]"),
                need(
                        "H7",
                        "a|b|c / A|∅|C / ∅|∅|∅ / ∅|\"\"|x",
                        "all / A·C / ∅ / ·x",
                        "join_columns: [a, b, c] / into: all",
                        "choose: [all]"),
                need(
                        "E18",
                        "a|b|c / A|∅|C / \"\"|∅|\"\" / ∅|\"\"|x",
                        "all / A·C / ∅ / x",
                        "join_columns: [a, b, c] / into: all / empty: is_passed_over",
                        "choose: [all]"),
                need(
                        "H8",
                        "a|b / 1|∅ / 2|3",
                        "a|b|c / 1|∅|∅ / 2|3|5",
                        "read_as: {a: integer, b: integer}",
                        "add: {c: a + b}"),
                need("F16", "n / 7 / 1,2 / 07 / x", "n / 7 / ∅ / 7 / ∅", "read_as: {n: integer}"),
                need(
                                "H2",
                                "g|n / p|1 / p|∅ / p|2 / q|∅",
                                "g|n / p|1.0 / p|1.5 / p|2.0 / q|∅",
                                "read_as: {n: integer}",
                                "fill_with_mean: [n] / within: [g] / places: 1")
                        .notIn("sqlite"));
    }

    private static List<Need> names() {
        return List.of(
                need(
                        "I1",
                        "Start Day? (y/n)|Share %|No #|Ärger|2nd / 1|2|3|4|5",
                        "start_day_y_n|share_percent|no_number|arger|_2nd / 1|2|3|4|5",
                        "name_columns: snake_case"),
                need(
                        "I2",
                        "a b|A-B|a_b_2| / 1|2|3|4",
                        "a_b|a_b_3|a_b_2|column_4 / 1|2|3|4",
                        "name_columns: snake_case"),
                need("I3", "ShipTo|unit_cost / 1|2", "Ship To|Unit Cost / 1|2", "name_columns: title"),
                need("I4", "a|b / 1|2", "b|a / 1|2", "rename: {a: b, b: a}"),
                need("I4", "a|b / 1|2", "x|b / 1|2", "rename: {a: x, gone: y} / if_absent: pass_over"),
                need("I4", "a|b / 1|2", "room|b / 1|2", "rename_by_list: names / old: was / new: is")
                        .with("names", "was|is / a|room"),
                need("I10", "Day (1)|b / 1|2", "day_1|b / 1|2", "name_columns: snake_case")
                        .reports("names", "was|is_now / Day (1)|day_1"));
    }

    private static List<Need> types() {
        return List.of(
                need(
                        "J2",
                        "t / 2026-03-01 23:59:59 / ∅",
                        "t / 2026-03-01 / ∅",
                        "read_as: {t: timestamp}",
                        "read_as: {t: date}"),
                need("J8", "n / 00751 / 12", "n / 751 / 12", "read_as: {n: integer}")
                        .reports("altered_numbers", "column|was|now / n|00751|751"),
                need(
                        "F16",
                        "d / 05/02/2026 / 31/02/2026",
                        "d / 2026-02-05 / ∅",
                        "read_as: {d: date} / layout: dd/MM/yyyy"),
                need("F16", "n / 1.005 / -2 / 3.1", "n / 1.01 / -2.00 / 3.10", "read_as: {n: 'decimal(6,2)'}")
                        .reports("rounded", "n / 1.005")
                        .notIn("sqlite"),
                need(
                        "D6",
                        "p|c|d / AQ|7|2026-03-02",
                        "p|c|d|address / AQ|7|2026-03-02|AQ7-2026/3/2",
                        "read_as: {d: date}",
                        "add: {address: \"p || c || '-' || format_date(d, 'yyyy') || '/' || format_date(d, 'M') || '/' || format_date(d, 'd')\"}"));
    }
}
