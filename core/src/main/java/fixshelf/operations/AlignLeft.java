package fixshelf.operations;

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
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Values moved to the left over missing ones.
final class AlignLeft extends BuiltIn {
    private static final int MOST = 100;

    static final Blank<List<Field>> COLUMNS =
            Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns, from left to right.");
    static final Blank<Long> KEEP = Blank.optional(
            "keep", ValueKinds.whole(1, MOST), "How many of these columns stay; all of them, if nothing is said.");
    static final Blank<String> BLANK = Blank.usually(
            "rows_without", ValueKinds.choice("stay", "leave"), "stay", "What happens to rows without any value.");

    AlignLeft() {
        super(
                "align_left",
                "Move the values of {columns} to the left",
                new Meaning(
                        "Rows that begin too far right: shift them to the left, so that the first value stands in the first column.",
                        "The missing values at the left of a row go; those between values stay, and the row is filled with missing ones at its right.",
                        "An empty text is a value; make_missing makes it missing.",
                        "Rows stay as they stand.",
                        "",
                        "The columns have one type.",
                        "",
                        "shifted: the rows that were moved, and by how many columns. cut: the rows with values that have no column left.",
                        "The same in all."),
                List.of(COLUMNS, KEEP, BLANK),
                List.of(
                        new TableExample(
                                "Two columns stay",
                                Table.of(
                                        "a | b | c",
                                        "NULL | 'x' | 'y'",
                                        "'x' | NULL | 'z'",
                                        "NULL | NULL | 'x'",
                                        "NULL | NULL | NULL"),
                                "align_left: [a, b, c]\nkeep: 2",
                                Table.of("a | b", "'x' | 'y'", "'x' | NULL", "'x' | NULL", "NULL | NULL")),
                        new TableExample(
                                "Rows without a value leave",
                                Table.of("a | b", "NULL | '1'", "NULL | NULL"),
                                "align_left: [a, b]\nrows_without: leave",
                                Table.of("a | b", "'1' | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = given.get(COLUMNS);
        Type type = columns.getFirst().type();
        Optional<Field> other =
                columns.stream().filter(c -> !c.type().equals(type)).findFirst();
        if (other.isPresent() || columns.size() > MOST) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    other.map(o -> columns.getFirst().name() + " is " + type.label() + ", and " + o.name() + " is "
                                    + o.type().label() + ".")
                            .orElse("These are " + columns.size() + " columns, and at most " + MOST + " are moved."),
                    "Give them one type with read_as before, or name fewer columns.");
        }
        int keep = (int) Math.min(given.find(KEEP).orElse((long) columns.size()), columns.size());
        Field shift = given.helper("shifted_by", Type.INTEGER);
        Relation counted = given.computed(List.of(new Computed(shift, first(columns))));
        List<Computed> cells = new ArrayList<>();
        for (int i = 0; i < keep; i++) {
            cells.add(new Computed(
                    columns.get(i), moved(columns, i, shift, type), Optional.of(Expr.Literal.truth(true))));
        }
        boolean leave = given.get(BLANK).equals("leave");
        Relation kept = leave ? new Relation.Keep(counted, Formula.isKnown(shift.value())) : counted;
        List<Field> gone = new ArrayList<>(columns.subList(keep, columns.size()));
        gone.add(shift);
        return new Resolution.Done(
                Given.without(new Relation.Compute(kept, cells), gone),
                List.of(
                        new Report(
                                "shifted",
                                new Relation.Keep(counted, Formula.call(">", shift.value(), Expr.Literal.integer(0))),
                                "rows that were moved"),
                        new Report(
                                "cut",
                                new Relation.Keep(counted, cut(columns, keep, shift)),
                                "rows with values that have no column left")));
    }

    /// The place of the first value, from 0.
    private static Expr first(List<Field> columns) {
        List<Expr.Branch> branches = new ArrayList<>();
        for (Field column : columns) {
            branches.add(new Expr.Branch(Formula.isKnown(column.value()), Expr.Literal.integer(branches.size())));
        }
        return new Expr.Case(branches, Formula.missing(Type.INTEGER), Type.INTEGER);
    }

    private static Expr moved(List<Field> columns, int to, Field shift, Type type) {
        List<Expr.Branch> branches = new ArrayList<>();
        for (int by = 0; to + by < columns.size(); by++) {
            branches.add(new Expr.Branch(
                    Formula.call("=", shift.value(), Expr.Literal.integer(by)),
                    columns.get(to + by).value()));
        }
        return new Expr.Case(branches, Formula.missing(type), type);
    }

    /// Whether a value stands where no column is left after the row was moved.
    private static Expr cut(List<Field> columns, int keep, Field shift) {
        List<Expr> any = new ArrayList<>();
        for (int i = keep; i < columns.size(); i++) {
            any.add(Formula.all(List.of(
                    Formula.isKnown(columns.get(i).value()),
                    Formula.call("<=", shift.value(), Expr.Literal.integer(i - keep)))));
        }
        return Formula.any(any);
    }
}
