package fixshelf.render.pandas;

import java.util.LinkedHashMap;
import java.util.Map;

/// Functions on whole tables that pandas lacks, or has with another meaning of missing, order or ties.
final class PandasTables {
    private PandasTables() {}

    private static final Map<String, String> HELPERS = new LinkedHashMap<>();

    static {
        HELPERS.put("in_order(", """
            def in_order(df, by, last_place=False, backwards=False):
                \"""The places of the rows by columns with directions, missing last, then by place.\"""
                places = list(range(len(df)))
                if last_place:
                    places.reverse()
                for name, descending in reversed(by):
                    values = df[name].tolist()
                    known = [p for p in places if not pd.isna(values[p])]
                    known.sort(key=lambda p: values[p], reverse=descending)
                    places = known + [p for p in places if pd.isna(values[p])]
                return places[::-1] if backwards else places
            """);
        HELPERS.put("group_numbers(", """
            def group_numbers(df, keys):
                \"""A number for each row, the same where all keys are equal; missing equals missing.\"""
                numbers = {}
                columns = [[None if pd.isna(v) else v for v in df[key].tolist()] for key in keys]
                return [numbers.setdefault(row, len(numbers)) for row in zip(*columns)] if keys else [0] * len(df)
            """);
        HELPERS.put("kept_rows(", """
            def kept_rows(df, condition):
                \"""The rows for which a condition is true.\"""
                return df[condition.astype("boolean").fillna(False).astype(bool)].reset_index(drop=True)
            """);
        HELPERS.put("sorted_rows(", """
            def sorted_rows(df, by):
                \"""The rows in order, missing last; equal ones stay as they stand.\"""
                return df.iloc[in_order(df, by)].reset_index(drop=True)
            """);
        HELPERS.put("first_of(", """
            def first_of(df, keys, by, last_place):
                \"""Of the rows with equal keys the first one by an order; those that stay keep their places.\"""
                groups, kept = group_numbers(df, keys), {}
                for place in in_order(df, by, last_place):
                    kept.setdefault(groups[place], place)
                return df.iloc[sorted(kept.values())].reset_index(drop=True)
            """);
        HELPERS.put("aggregate(", """
            def aggregate(how, values, separator=""):
                \"""What is made of the values of a group; missing ones are passed over.\"""
                known = [value for value in values if not pd.isna(value)]
                if how in ("rows", "count", "distinct"):
                    return {"rows": len(values), "count": len(known), "distinct": len(set(known))}[how]
                if not known:
                    return pd.NA
                if how == "sum":
                    total = sum(known)
                    return pd.NA if isinstance(total, int) and not -(2**63) <= total < 2**63 else total
                return separator.join(known) if how == "listed" else min(known) if how == "least" else max(known)
            """);
        HELPERS.put("windowed(", """
            def windowed(df, within, by, backwards, make, dtype):
                \"""A column made part by part; `make` gets the places of a part in order, and gives a value for each.\"""
                parts, groups = {}, group_numbers(df, within)
                for place in in_order(df, by, backwards=backwards):
                    parts.setdefault(groups[place], []).append(place)
                cells = [pd.NA] * len(df)
                for places in parts.values():
                    for place, value in zip(places, make(places)):
                        cells[place] = value
                return pd.Series(cells, index=df.index, dtype=dtype)
            """);
        HELPERS.put("ranked(", """
            def ranked(df, by, gaps):
                \"""Numbers that rows share which are equal in the columns of an order.\"""
                groups = group_numbers(df, [name for name, _ in by])

                def make(places):
                    numbers, seen, last = [], 0, None
                    for count, place in enumerate(places, 1):
                        if groups[place] != last:
                            seen, last = count if gaps else seen + 1, groups[place]
                        numbers.append(seen)
                    return numbers

                return make
            """);
        HELPERS.put("neighbour(", """
            def neighbour(values, steps):
                \"""The values so many rows further on.\"""
                return lambda places: [
                    values[places[i + steps]] if 0 <= i + steps < len(places) else pd.NA for i in range(len(places))
                ]
            """);
        HELPERS.put("last_filled(", """
            def last_filled(values):
                \"""The value of each row, or else the last one before it that is not missing.\"""
                def make(places):
                    filled, last = [], pd.NA
                    for place in places:
                        last = last if pd.isna(values[place]) else values[place]
                        filled.append(last)
                    return filled

                return make
            """);
        HELPERS.put("so_far(", """
            def so_far(how, values):
                \"""The aggregate of the rows up to each.\"""
                return lambda places: [aggregate(how, [values[p] for p in places[: i + 1]]) for i in range(len(places))]
            """);
        HELPERS.put("of_all(", """
            def of_all(how, values):
                \"""The aggregate of all rows of a part, beside each.\"""
                return lambda places: [aggregate(how, [values[p] for p in places])] * len(places)
            """);
        HELPERS.put("grouped(", """
            def grouped(df, keys, measures):
                \"""One row for each group, in the order of their first rows; without keys one row.\"""
                parts = {} if keys else {0: []}
                for place, number in enumerate(group_numbers(df, keys)):
                    parts.setdefault(number, []).append(place)
                result = df[keys].iloc[[places[0] for places in parts.values()] if keys else [0] * 0].reset_index(drop=True)
                columns = {
                    name: pd.Series(
                        [
                            aggregate(how, [1 if of is None else df[of].iat[p] for p in places], separator)
                            for places in parts.values()
                        ],
                        dtype=dtype,
                    )
                    for name, (how, of, separator, dtype) in measures.items()
                }
                return result.assign(**columns) if keys else pd.DataFrame(columns)
            """);
        HELPERS.put("matches(", """
            def matches(left, right, on, missing_meets):
                \"""For each row of the left table the places of the right rows whose keys are equal to its own.\"""
                def keys(df, names):
                    columns = [[None if pd.isna(v) else v for v in df[name].tolist()] for name in names]
                    return [None if None in row and not missing_meets else row for row in zip(*columns)]

                found = {}
                for place, row in enumerate(keys(right, [name for _, name in on])):
                    found.setdefault(row, []).append(place)
                return [[] if row is None else found.get(row, []) for row in keys(left, [name for name, _ in on])]
            """);
        HELPERS.put("joined(", """
            def joined(left, right, on, taken, all_left, missing_meets=False):
                \"""The rows of two tables side by side, by left row, then by right row.\"""
                pairs = []
                for place, found in enumerate(matches(left, right, on, missing_meets)):
                    pairs += [(place, other) for other in found or ([None] if all_left else [])]
                result = left.iloc[[place for place, _ in pairs]].reset_index(drop=True)
                cells = {name: right[name].tolist() for name, _ in taken}
                return result.assign(**{
                    made: pd.Series(
                        [pd.NA if other is None else cells[name][other] for _, other in pairs], dtype=right[name].dtype
                    )
                    for name, made in taken
                })
            """);
        HELPERS.put("rows_with(", """
            def rows_with(left, right, on, wanted, missing_meets=False):
                \"""The left rows that meet any right row, or none.\"""
                found = matches(left, right, on, missing_meets)
                places = [place for place, met in enumerate(found) if bool(met) == wanted]
                return left.iloc[places].reset_index(drop=True)
            """);
        HELPERS.put("unpivoted(", """
            def unpivoted(df, others, sets, names, name, values, keep_missing):
                \"""A row for each set of columns, row by row.\"""
                places = [(p, s) for p in range(len(df)) for s in range(len(sets))]
                if not keep_missing:
                    filled = {c: df[c].notna().tolist() for one in sets for c in one}
                    places = [(p, s) for p, s in places if any(filled[c][p] for c in sets[s])]
                result = df[others].iloc[[p for p, _ in places]].reset_index(drop=True)
                columns = {name: pd.Series([names[s] for _, s in places], dtype="string")}
                for i, made in enumerate(values):
                    cells = {c: df[c].tolist() for c in {one[i] for one in sets}}
                    column = [cells[sets[s][i]][p] for p, s in places]
                    columns[made] = pd.Series(column, dtype=df[sets[0][i]].dtype)
                return result.assign(**columns)
            """);
    }

    /// The functions that a piece of code needs, with those that they need themselves.
    static String needed(String code) {
        StringBuilder all = new StringBuilder();
        Map<String, String> found = new LinkedHashMap<>();
        String seen = code;
        for (boolean more = true; more; ) {
            more = false;
            for (Map.Entry<String, String> helper : HELPERS.entrySet()) {
                if (!found.containsKey(helper.getKey()) && seen.contains(helper.getKey())) {
                    found.put(helper.getKey(), helper.getValue());
                    seen += helper.getValue();
                    more = true;
                }
            }
        }
        HELPERS.keySet().stream().filter(found::containsKey).forEach(n -> all.append("\n\n")
                .append(found.get(n)));
        return all.toString();
    }
}
