package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Field;
import fixshelf.table.Windowed;
import java.util.List;
import java.util.Map;

/// A figure of the whole group beside each row.
final class OverGroup extends BuiltIn {
    static final Blank<Map<String, ExpressionKinds.Measure>> MEASURES = Blank.needed(
            "measures", ExpressionKinds.MEASURES, "New names with sum(x), count(x), count_rows(), min(x) or max(x).");
    static final Blank<List<Field>> WITHIN =
            Blank.optional("within", ColumnKinds.COLUMNS, "Anew for each group of rows that are equal in these.");

    OverGroup() {
        super(
                "over_group",
                "Beside each row, {measures} of its group",
                new Meaning(
                        "A figure of the whole group beside each row: total, share, count over.",
                        "Is passed over; of no value at all a count is 0, and everything else is missing.",
                        "Is a value.",
                        "Rows stay as they stand.",
                        "By place.",
                        "A sum of decimals has 28 digits and the scale of its values.",
                        "The new names must be free.",
                        "",
                        "SQLite has no exact decimals: it cannot say sums of decimals, nor means."),
                List.of(MEASURES, WITHIN),
                List.of(new TableExample(
                        "Sum of the group",
                        Table.of("g | n integer", "'p' | 1", "'q' | 5", "'p' | 3"),
                        "over_group: {total: sum(n)}\nwithin: [g]",
                        Table.of("g | n integer | total integer", "'p' | 1 | 4", "'q' | 5 | 5", "'p' | 3 | 4"))));
    }

    @Override
    public Resolution resolve(Given given) {
        return Measures.windowed(
                given,
                given.get(MEASURES),
                Windowed.Kind.OF_ALL,
                given.find(WITHIN).orElse(List.of()),
                List.of());
    }
}
