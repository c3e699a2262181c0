package fixshelf.operations;

import fixshelf.plan.Absent;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.problem.Problem;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

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
                        "The columns have one type, and it has that type; they get the type of the expression.",
                        "it is the value, also where a column is called so.",
                        "",
                        "The same in all."),
                List.of(COLUMNS, TO, Absent.BLANK),
                List.of(
                        new TableExample(
                                "A sign before",
                                Table.of("a | b", "'x' | NULL"),
                                "set: [a, b]\nto: \"'-' || it\"",
                                Table.of("a | b", "'-x' | NULL")),
                        new TableExample(
                                "Numbers",
                                Table.of("n integer", "7", "-2", "NULL"),
                                "set: [n]\nto: greatest(it, 0)",
                                Table.of("n integer", "7", "0", "NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Computed> cells = new ArrayList<>();
        Optional<Problem> mixed = mixed(given.get(COLUMNS));
        if (mixed.isPresent()) {
            return new Resolution.Refused(List.of(mixed.get()));
        }
        for (Field field : given.get(COLUMNS)) {
            Expr value = Formula.renamed(given.get(TO), n -> n.name().equals("it") ? field.value() : n);
            Type type = value.type() instanceof Type.Unknown ? field.type() : value.type();
            cells.add(new Computed(
                    field.typed(type), value.type() instanceof Type.Unknown ? Formula.missing(type) : value));
        }
        return new Resolution.Done(given.computed(cells));
    }

    @Override
    public boolean losesValues() {
        return true;
    }
}
