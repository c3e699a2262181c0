package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/// One row for each group.
final class GroupRows extends BuiltIn {
    static final Blank<List<Field>> KEYS = Blank.needed("keys", ColumnKinds.COLUMNS, "The columns that make a group.");
    static final Blank<Map<String, ExpressionKinds.Measure>> MEASURES =
            Blank.needed("measures", ExpressionKinds.MEASURES, "New names with aggregates of the rows.");
    static final Blank<String> TOTALS = Blank.usually(
            "totals",
            ValueKinds.choice("none", "all", "each"),
            "none",
            "Rows of totals after the groups: one over all, or also one for each value of the keys before the last.");
    static final Blank<String> TOTALS_IN = Blank.usually(
            "totals_in",
            ColumnKinds.NEW_NAME,
            "total_over",
            "The new column that says over how many keys a row of totals is; 0 for a group.");

    GroupRows() {
        super(
                "group",
                "Make one row for each {keys} with {measures}",
                new Meaning(
                        "One row for each group, with sums, counts and means: aggregate, summarise, totals.",
                        "Missing equals missing in the keys; a row of totals is missing in the keys that it is over. Measures pass missing values over; of no value at all a count is 0, and everything else is missing.",
                        "An empty text is a key of its own.",
                        "Groups stand in the order of their first rows, rows of totals after them, the one over all last.",
                        "",
                        "A sum of decimals has 28 digits and the scale of its values; mean(x, 2) is rounded half away from zero.",
                        "New names must differ from the keys; total_over is there where totals are asked for.",
                        "",
                        "SQLite has no exact decimals: it cannot say sums of decimals, nor means."),
                List.of(KEYS, MEASURES, TOTALS, TOTALS_IN),
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
                                Table.of("g | x integer | all", "'p' | 1 | 'x; y'", "NULL | 0 | 'z'")),
                        new TableExample(
                                "Totals at each level",
                                Table.of("g | h | n integer", "'p' | 'x' | 1", "'q' | NULL | 2", "'p' | 'y' | 4"),
                                "group: [g, h]\nmeasures: {total: sum(n), middle: 'mean(n, 1)'}\ntotals: each",
                                Table.of(
                                        "g | h | total integer | middle decimal(18,1) | total_over integer",
                                        "'p' | 'x' | 1 | 1.0 | 0",
                                        "'q' | NULL | 2 | 2.0 | 0",
                                        "'p' | 'y' | 4 | 4.0 | 0",
                                        "'p' | NULL | 5 | 2.5 | 1",
                                        "'q' | NULL | 2 | 2.0 | 1",
                                        "NULL | NULL | 7 | 2.3 | 2"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> keys = given.get(KEYS);
        Map<String, ExpressionKinds.Measure> measures = given.get(MEASURES);
        String totals = given.get(TOTALS);
        if (totals.equals("none")
                || !(Measures.grouped(given, keys, measures)
                        instanceof Resolution.Done(Relation groups, var _, var _))) {
            return Measures.grouped(given, keys, measures);
        }
        String name = given.get(TOTALS_IN);
        if (groups.shape().find(name).isPresent()) {
            return Given.refused(Code.NAME_CLASH, name + " would be there twice.", "Give totals_in another name.");
        }
        Field level = given.field(name, Type.INTEGER);
        List<Relation> levels = new ArrayList<>(
                List.of(new Relation.Compute(groups, List.of(new Computed(level, Expr.Literal.integer(0))))));
        for (int kept = totals.equals("each") ? keys.size() - 1 : 0; kept >= 0; kept--) {
            Resolution.Done done = (Resolution.Done) Measures.grouped(given, keys.subList(0, kept), measures);
            levels.add(Measures.over(given, done.after(), keys, kept, level));
        }
        return new Resolution.Done(new Relation.Union(levels));
    }
}
