package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Field;
import fixshelf.table.Sorted;
import fixshelf.table.Windowed;
import java.util.List;
import java.util.Map;

/// A running total.
final class Running extends BuiltIn {
    static final Blank<Map<String, ExpressionKinds.Measure>> MEASURES = Blank.needed(
            "measures", ExpressionKinds.MEASURES, "New names with sum(x), count(x), count_rows(), min(x) or max(x).");
    static final Blank<List<Field>> WITHIN =
            Blank.optional("within", ColumnKinds.COLUMNS, "Anew for each group of rows that are equal in these.");
    static final Blank<List<Sorted>> BY =
            Blank.optional("by", ColumnKinds.ORDER, "The order of the rows; their places, if there is none.");

    Running() {
        super(
                "running",
                "Keep {measures} so far",
                new Meaning(
                        "A running total: sum, count, least or greatest of the rows up to this one, cumulative.",
                        "Is passed over; of no value at all a count is 0, and everything else is missing.",
                        "Is a value.",
                        "Rows stay as they stand; counted in the order, or else by place.",
                        "By place.",
                        "A sum of decimals has 28 digits and the scale of its values.",
                        "The new names must be free.",
                        "",
                        "SQLite has no exact decimals: it cannot say sums of decimals, nor means."),
                List.of(MEASURES, WITHIN, BY),
                List.of(new TableExample(
                        "Sum so far",
                        Table.of("n integer", "2", "NULL", "5"),
                        "running: {total: sum(n)}",
                        Table.of("n integer | total integer", "2 | 2", "NULL | 2", "5 | 7"))));
    }

    @Override
    public Resolution resolve(Given given) {
        return Measures.windowed(
                given,
                given.get(MEASURES),
                Windowed.Kind.SO_FAR,
                given.find(WITHIN).orElse(List.of()),
                given.find(BY).orElse(List.of()));
    }
}
