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
import fixshelf.problem.Problem;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;

/// Other values in columns.
final class SetColumns extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");
    static final Blank<Expr> TO =
            Blank.needed("to", ExpressionKinds.over("it"), "An expression in which it is the value.");

    SetColumns() {
        super(
                "set",
                "Set {columns} to {to}",
                new Meaning(
                        "Give columns other values, worked out of their own: replace, transform.",
                        "As the expression says; a value that becomes missing is counted as lost.",
                        "As the expression says.",
                        "Rows stay as they stand.",
                        "",
                        "it stands for the value, and is of the column's type; the column gets the type of the expression.",
                        "it is the value, also where a column is called so.",
                        "",
                        "The same in all."),
                List.of(COLUMNS, TO),
                List.of(new TableExample(
                        "A sign before",
                        Table.of("a | b", "'x' | NULL"),
                        "set: [a, b]\nto: \"'-' || it\"",
                        Table.of("a | b", "'-x' | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Computed> cells = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        for (Field field : given.get(COLUMNS)) {
            if (!field.type().equals(Type.TEXT)) {
                problems.add(Given.problem(
                        Code.WRONG_TYPE,
                        field.name() + " is " + field.type().label() + ", and set works on texts.",
                        "Use add with the column's own name, or read_as text before."));
                continue;
            }
            Expr value = Formula.renamed(given.get(TO), n -> n.name().equals("it") ? field.value() : n);
            Type type = value.type() instanceof Type.Unknown ? Type.TEXT : value.type();
            cells.add(new Computed(
                    field.typed(type), value.type() instanceof Type.Unknown ? Formula.missing(type) : value));
        }
        return problems.isEmpty() ? new Resolution.Done(given.computed(cells)) : new Resolution.Refused(problems);
    }

    @Override
    public boolean losesValues() {
        return true;
    }
}
