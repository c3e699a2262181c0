package fixshelf.operations;

import fixshelf.language.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.problem.Code;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Values that mean nothing.
final class MakeMissing extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");
    static final Blank<Expr> WHERE =
            Blank.needed("where", ExpressionKinds.conditionOver("it"), "A condition in which it is the value.");

    MakeMissing() {
        super(
                "make_missing",
                "Make {columns} missing where {where}",
                new Meaning(
                        "Turn values that mean nothing into missing ones: placeholders, zeros, question marks.",
                        "Stays missing; a condition that is unknown leaves the value.",
                        "Is a value like others: it = '' makes it missing.",
                        "Rows stay as they stand.",
                        "",
                        "Texts; it is the value.",
                        "it is the value, also where a column is called so.",
                        "Values made missing here are not counted as lost.",
                        "The same in all."),
                List.of(COLUMNS, WHERE),
                List.of(new TableExample(
                        "Question marks",
                        Table.of("a", "'?'", "'x'", "''", "NULL"),
                        "make_missing: [a]\nwhere: it IN ('?', '')",
                        Table.of("a", "NULL", "'x'", "NULL", "NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Computed> cells = new ArrayList<>();
        for (Field field : given.get(COLUMNS)) {
            if (!field.type().equals(Type.TEXT)) {
                return Given.refused(
                        Code.WRONG_TYPE,
                        field.name() + " is " + field.type().label() + ", and make_missing works on texts.",
                        "Put the line before the one that gives the type.");
            }
            Expr where = Formula.renamed(given.get(WHERE), n -> n.name().equals("it") ? field.value() : n);
            cells.add(new Computed(
                    field, Formula.when(where, Formula.missing(field.type()), field.value()), Optional.of(where)));
        }
        return new Resolution.Done(given.computed(cells));
    }
}
