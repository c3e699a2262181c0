package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Aggregate;
import fixshelf.table.Field;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Sorted;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;

/// How often each value comes.
final class CountBy extends BuiltIn {
    static final Blank<List<Field>> KEYS =
            Blank.needed("keys", ColumnKinds.COLUMNS, "The columns whose values are counted.");
    static final Blank<String> INTO = Blank.usually("into", ColumnKinds.NEW_NAME, "rows", "The new column.");

    CountBy() {
        super(
                "count_by",
                "Count rows by {keys} in {into}",
                new Meaning(
                        "How many rows have each value: frequencies, tally, distinct values.",
                        "Is a group of its own.",
                        "Is a group of its own.",
                        "The most frequent first.",
                        "Groups of the same size stand in the order of their first rows.",
                        "Gives a whole number.",
                        "The new name must differ from the keys.",
                        "",
                        "The same in all."),
                List.of(KEYS, INTO),
                List.of(new TableExample(
                        "Missing is counted",
                        Table.of("a", "'x'", "NULL", "'y'", "NULL"),
                        "count_by: [a]",
                        Table.of("a | rows integer", "NULL | 2", "'x' | 1", "'y' | 1"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Field rows = given.field(given.get(INTO), Type.INTEGER);
        Relation counted = new Relation.Group(
                given.before(), given.get(KEYS), List.of(new Grouped(rows, Aggregate.ROWS, Optional.empty())));
        return new Resolution.Done(new Relation.Sort(counted, List.of(new Sorted(rows, true, false))));
    }
}
