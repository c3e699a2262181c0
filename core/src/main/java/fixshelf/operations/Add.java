package fixshelf.operations;

import fixshelf.language.tree.Expr;
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
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/// New columns out of each row.
final class Add extends BuiltIn {
    static final Blank<Map<String, Expr>> COLUMNS =
            Blank.needed("columns", ExpressionKinds.NEW_COLUMNS, "New names with expressions over the columns before.");
    static final Blank<Field> BEFORE = Blank.optional(
            "before", ColumnKinds.COLUMN, "The column before which they stand; at the end where none is named.");

    Add() {
        super(
                "add",
                "Add {columns}",
                new Meaning(
                        "New columns, each worked out of its row: compute, derive, a constant column.",
                        "As the expression says.",
                        "As the expression says.",
                        "Rows stay as they stand.",
                        "",
                        "That of the expression.",
                        "A name that is there already is a problem; set gives a column other values.",
                        "",
                        "The same in all."),
                List.of(COLUMNS, BEFORE),
                List.of(
                        new TableExample(
                                "Before a column",
                                Table.of("a | b", "'x' | 'y'"),
                                "add: {both: a || b, none: \"''\"}\nbefore: b",
                                Table.of("a | both | none | b", "'x' | 'xy' | '' | 'y'")),
                        new TableExample(
                                "Two at once",
                                Table.of("n integer", "2", "NULL"),
                                "add: {twice: n * 2, known: n IS NOT NULL}",
                                Table.of(
                                        "n integer | twice integer | known boolean",
                                        "2 | 4 | TRUE",
                                        "NULL | NULL | FALSE"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Problem> problems = new ArrayList<>();
        List<Computed> cells = new ArrayList<>();
        given.get(COLUMNS).forEach((name, value) -> {
            given.meets(name).ifPresent(problems::add);
            Type type = value.type() instanceof Type.Unknown ? Type.TEXT : value.type();
            Expr typed = value.type() instanceof Type.Unknown ? Formula.missing(type) : value;
            if (type.isFixed()) {
                problems.add(Given.problem(
                        Code.WRONG_TYPE, name + " would be a " + type.label() + ".", "A column holds single values."));
            }
            cells.add(new Computed(given.field(name, type), typed));
        });
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        Relation added = given.computed(cells);
        return new Resolution.Done(
                given.find(BEFORE).map(b -> moved(added, cells.size(), b)).orElse(added));
    }

    /// The last columns of a table before another.
    private static Relation moved(Relation table, int count, Field before) {
        List<Field> fields = table.shape().fields();
        List<Field> shown = new ArrayList<>(fields.subList(0, fields.size() - count));
        int at = shown.stream().map(Field::id).toList().indexOf(before.id());
        shown.addAll(at, fields.subList(fields.size() - count, fields.size()));
        return new Relation.Pick(table, new Shape(shown));
    }
}
