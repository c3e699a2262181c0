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
import fixshelf.problem.Problem;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;

/// The parts of a text in columns of their own.
final class SplitColumn extends BuiltIn {
    static final Blank<Field> COLUMN = Blank.needed("column", ColumnKinds.COLUMN, "The column whose texts are split.");
    static final Blank<List<String>> INTO =
            Blank.needed("into", ColumnKinds.NEW_NAMES, "New columns, one for each part.");
    static final Blank<String> SEPARATOR = Blank.needed("separator", ValueKinds.TEXT, "What stands between the parts.");

    SplitColumn() {
        super(
                "split_column",
                "Split {column} at {separator} into {into}",
                new Meaning(
                        "Split a text into columns at a separator: first and last name, code and number.",
                        "Gives missing parts.",
                        "An empty text has one part, which is empty; a part between two separators is empty.",
                        "Rows stay as they stand.",
                        "",
                        "Texts.",
                        "The new names must be free. The column stays; drop it in a line after.",
                        "more_parts: the rows with more parts than there are names, whose last parts are nowhere.",
                        "Where a language counts separators in another way, it says so."),
                List.of(COLUMN, INTO, SEPARATOR),
                List.of(new TableExample(
                        "Two parts, or fewer",
                        Table.of("a", "'x-1'", "'y'", "NULL", "'-2'"),
                        "split_column: a\ninto: [letter, number]\nseparator: '-'",
                        Table.of(
                                "a | letter | number",
                                "'x-1' | 'x' | '1'",
                                "'y' | 'y' | NULL",
                                "NULL | NULL | NULL",
                                "'-2' | '' | '2'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Field column = given.get(COLUMN);
        String separator = given.get(SEPARATOR);
        if (!column.type().equals(Type.TEXT) || separator.isEmpty()) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    separator.isEmpty()
                            ? "A separator is at least one character."
                            : column.name() + " is " + column.type().label() + ", and only texts are split.",
                    separator.isEmpty() ? "Write the sign between the parts." : "Read it as text before.");
        }
        List<Problem> problems = new ArrayList<>();
        List<Computed> cells = new ArrayList<>();
        Expr sign = Expr.Literal.text(separator);
        for (String name : given.get(INTO)) {
            given.meets(name).ifPresent(problems::add);
            Expr number = Expr.Literal.integer(cells.size() + 1L);
            cells.add(new Computed(
                    given.field(name, Type.TEXT), Formula.call("split_part", column.value(), sign, number)));
        }
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        Expr count = Formula.call("part_count", column.value(), sign);
        Expr more = Formula.call(">", count, Expr.Literal.integer(cells.size()));
        return new Resolution.Done(
                given.computed(cells),
                List.of(new Report("more_parts", new Relation.Keep(given.before(), more), "rows with more parts")));
    }
}
