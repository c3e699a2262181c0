package fixshelf.operations;

import fixshelf.plan.Absent;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Field;
import java.util.List;

/// All but some columns.
final class Drop extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");

    Drop() {
        super(
                "drop",
                "Leave out {columns}",
                new Meaning(
                        "Remove columns that are not wanted: delete, leave out.",
                        "",
                        "",
                        "Rows stay as they stand.",
                        "",
                        "Types stay.",
                        "",
                        "",
                        "The same in all."),
                List.of(COLUMNS, Absent.BLANK),
                List.of(new TableExample(
                        "Without one", Table.of("a | b", "'1' | '2'"), "drop: [a]", Table.of("b", "'2'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        return new Resolution.Done(Given.without(given.before(), given.get(COLUMNS)));
    }
}
