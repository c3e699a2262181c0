package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Field;
import java.util.List;
import java.util.Map;

/// One row for each group.
final class GroupRows extends BuiltIn {
    static final Blank<List<Field>> KEYS = Blank.needed("keys", ColumnKinds.COLUMNS, "The columns that make a group.");
    static final Blank<Map<String, ExpressionKinds.Measure>> MEASURES =
            Blank.needed("measures", ExpressionKinds.MEASURES, "New names with aggregates of the rows.");

    GroupRows() {
        super(
                "group",
                "Make one row for each {keys} with {measures}",
                new Meaning(
                        "One row for each group, with sums, counts and means: aggregate, summarise, totals.",
                        "Missing equals missing in the keys. Measures pass missing values over; of no value at all a count is 0, and everything else is missing.",
                        "An empty text is a key of its own.",
                        "Groups stand in the order of their first rows.",
                        "",
                        "A sum of decimals has 28 digits and the scale of its values; mean(x, 2) is rounded half away from zero.",
                        "New names must differ from the keys.",
                        "",
                        "SQLite has no exact decimals: it cannot say sums of decimals, nor means."),
                List.of(KEYS, MEASURES),
                List.of(
                        new TableExample(
                                "Counts, sums and means",
                                Table.of("g | n integer", "'p' | 1", "'q' | NULL", "'p' | 4"),
                                "group: [g]\nmeasures: {visits: count_rows(), known: count(n), total: sum(n), middle: 'mean(n, 1)'}",
                                Table.of(
                                        "g | visits integer | known integer | total integer | middle decimal(18,1)",
                                        "'p' | 2 | 2 | 5 | 2.5",
                                        "'q' | 1 | 0 | NULL | NULL")),
                        new TableExample(
                                "Some rows only, and a list",
                                Table.of("g | a", "'p' | 'x'", "'p' | 'y'", "NULL | 'z'"),
                                "group: [g]\nmeasures: {x: count_rows() FILTER (WHERE a = 'x'), all: \"listagg(a, '; ')\"}",
                                Table.of("g | x integer | all", "'p' | 1 | 'x; y'", "NULL | 0 | 'z'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        return Measures.grouped(given, given.get(KEYS), given.get(MEASURES));
    }
}
