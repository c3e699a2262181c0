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
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
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
    static final Blank<Expr> WHERE = Blank.optional(
                    "where",
                    ExpressionKinds.conditionOver("it"),
                    "A condition in which it is the value; or say which values.")
            .leftOutAs("it is one of the values")
            .begun();
    static final Blank<List<String>> VALUES = Blank.optional(
            "values", ValueKinds.TEXTS, "Values that mean nothing: [n/a, \"-\", \"\"]; each is of the columns' type.");

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
                List.of(COLUMNS, WHERE, VALUES, Absent.BLANK),
                List.of(
                        new TableExample(
                                "Question marks",
                                Table.of("a", "'?'", "'x'", "''", "NULL"),
                                "make_missing: [a]\nwhere: it IN ('?', '')",
                                Table.of("a", "NULL", "'x'", "NULL", "NULL")),
                        new TableExample(
                                "The same, and a dash, as values",
                                Table.of("a", "'?'", "'-'", "'x'", "''", "NULL", "'- '"),
                                "make_missing: [a]\nvalues: ['?', '-', '']",
                                Table.of("a", "NULL", "NULL", "'x'", "NULL", "NULL", "'- '")),
                        new TableExample(
                                "Numbers, and what is too large",
                                Table.of("n integer", "0", "7", "99", "NULL"),
                                "make_missing: [n]\nwhere: it > 90\nvalues: [0]",
                                Table.of("n integer", "NULL", "7", "NULL", "NULL")),
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
        if (given.find(WHERE).isEmpty() && given.find(VALUES).isEmpty()) {
            return Given.refused(
                    Code.ARGUMENTS,
                    "make_missing needs where or values.",
                    "Write `values: [n/a, \"-\"]`, or a condition in which `it` is the value: `where: it = ''`.");
        }
        for (Field field : given.get(COLUMNS)) {
            List<Expr> any = new ArrayList<>();
            given.find(WHERE)
                    .map(c -> Formula.renamed(c, n -> n.name().equals("it") ? field.value() : n))
                    .ifPresent(any::add);
            for (String text : given.find(VALUES).orElse(List.of())) {
                Optional<Expr> value = given.constant(text, field.type());
                if (value.isEmpty()) {
                    return Given.refused(
                            Code.WRONG_TYPE,
                            text + " is no " + field.type().label() + ", as " + field.name() + " is.",
                            "Write values of that type, or name other columns.");
                }
                any.add(Formula.call("=", field.value(), value.get()));
            }
            Expr where = Formula.any(any);
            cells.add(new Computed(
                    field, Formula.when(where, Formula.missing(field.type()), field.value()), Optional.of(where)));
        }
        return new Resolution.Done(given.computed(cells));
    }
}
