package fixshelf.operations;

import fixshelf.plan.Absent;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.problem.Code;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import java.util.List;

/// Some columns, in an order.
final class Choose extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");

    Choose() {
        super(
                "choose",
                "Keep only {columns}",
                new Meaning(
                        "Keep some columns and their order: select, reorder, move columns.",
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
                        "Two, turned around",
                        Table.of("a | b | c", "'1' | '2' | '3'"),
                        "choose: [c, a]",
                        Table.of("c | a", "'3' | '1'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        if (given.get(COLUMNS).isEmpty()) {
            return Given.refused(
                    Code.NO_SUCH_COLUMN,
                    "None of these columns is there.",
                    "Name one that is there, or leave out the line.");
        }
        return new Resolution.Done(new Relation.Pick(given.before(), new Shape(given.get(COLUMNS))));
    }
}
