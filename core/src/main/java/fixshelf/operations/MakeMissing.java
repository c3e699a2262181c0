package fixshelf.operations;

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
                        "The columns have one type, and it has that type.",
                        "it is the value, also where a column is called so.",
                        "Values made missing here are not counted as lost.",
                        "The same in all."),
                List.of(COLUMNS, WHERE),
                List.of(
                        new TableExample(
                                "Question marks",
                                Table.of("a", "'?'", "'x'", "''", "NULL"),
                                "make_missing: [a]\nwhere: it IN ('?', '')",
                                Table.of("a", "NULL", "'x'", "NULL", "NULL")),
                        new TableExample(
                                "Days that mean never",
                                Table.of("d date", "DATE '9999-12-31'", "DATE '2026-02-07'"),
                                "make_missing: [d]\nwhere: it > DATE '2100-01-01'",
                                Table.of("d date", "NULL", "DATE '2026-02-07'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Computed> cells = new ArrayList<>();
        Optional<Problem> mixed = mixed(given.get(COLUMNS));
        if (mixed.isPresent()) {
            return new Resolution.Refused(List.of(mixed.get()));
        }
        for (Field field : given.get(COLUMNS)) {
            Expr where = Formula.renamed(given.get(WHERE), n -> n.name().equals("it") ? field.value() : n);
            cells.add(new Computed(
                    field, Formula.when(where, Formula.missing(field.type()), field.value()), Optional.of(where)));
        }
        return new Resolution.Done(given.computed(cells));
    }
}
