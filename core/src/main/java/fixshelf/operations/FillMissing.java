package fixshelf.operations;

import fixshelf.plan.Absent;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// A value where none is.
final class FillMissing extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");
    static final Blank<String> WITH = Blank.needed("with", ValueKinds.TEXT, "The value that is put there.");

    FillMissing() {
        super(
                "fill_missing",
                "Fill missing {columns} with {with}",
                new Meaning(
                        "Put a value where one is missing: default, replace null, zero for nothing.",
                        "Is what gets the value.",
                        "An empty text is not missing; make_missing makes it so.",
                        "Rows stay as they stand.",
                        "",
                        "The value is read as one of the column's type.",
                        "",
                        "means: for columns of numbers, how many values there are and their mean, before and after.",
                        "The same in all."),
                List.of(COLUMNS, WITH, Absent.BLANK),
                List.of(new TableExample(
                        "Zero for nothing",
                        Table.of("n integer | a", "NULL | NULL", "3 | ''"),
                        "fill_missing: [n]\nwith: 0",
                        Table.of("n integer | a", "0 | NULL", "3 | ''"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Computed> cells = new ArrayList<>();
        for (Field field : given.get(COLUMNS)) {
            Optional<Expr> value = given.constant(given.get(WITH), field.type());
            if (value.isEmpty()) {
                return Given.refused(
                        Code.WRONG_TYPE,
                        given.get(WITH) + " is no " + field.type().label() + ", as " + field.name() + " is.",
                        "Write a value of that type, or name other columns.");
            }
            cells.add(new Computed(field, Formula.call("coalesce", field.value(), value.get())));
        }
        Relation after = given.computed(cells);
        return new Resolution.Done(after, Means.report(given, given.get(COLUMNS), after));
    }
}
