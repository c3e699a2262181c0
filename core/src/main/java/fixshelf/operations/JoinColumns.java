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
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/// Several columns in one.
final class JoinColumns extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");
    static final Blank<String> INTO = Blank.needed("into", ColumnKinds.NEW_NAME, "The new column.");
    static final Blank<String> SEPARATOR = Blank.usually("separator", ValueKinds.TEXT, " ", "What stands between.");

    static final Blank<String> EMPTY = Blank.usually(
            "empty",
            ValueKinds.choice("counts", "is_passed_over"),
            "counts",
            "Whether an empty text gets its separator, or is passed over as if it were missing.");

    JoinColumns() {
        super(
                "join_columns",
                "Join {columns} into {into} with {separator} between",
                new Meaning(
                        "Put texts of several columns together: concatenate, combine, full name.",
                        "Is passed over, with its separator; missing when all are.",
                        "Is a text, and gets its separator, unless it is passed over.",
                        "Rows stay as they stand.",
                        "",
                        "Texts.",
                        "The new name must be free.",
                        "",
                        "The same in all."),
                List.of(COLUMNS, INTO, SEPARATOR, EMPTY),
                List.of(
                        new TableExample(
                                "Empty is passed over",
                                Table.of("a | b | c", "'x' | '' | 'y'", "'' | NULL | ''"),
                                "join_columns: [a, b, c]\ninto: all\nempty: is_passed_over",
                                Table.of("a | b | c | all", "'x' | '' | 'y' | 'x y'", "'' | NULL | '' | NULL")),
                        new TableExample(
                                "Missing is passed over",
                                Table.of("a | b", "'x' | 'y'", "'x' | NULL", "NULL | NULL"),
                                "join_columns: [a, b]\ninto: both\nseparator: ', '",
                                Table.of(
                                        "a | b | both",
                                        "'x' | 'y' | 'x, y'",
                                        "'x' | NULL | 'x'",
                                        "NULL | NULL | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Optional<Problem> meets = given.meets(given.get(INTO));
        Optional<Field> other = given.get(COLUMNS).stream()
                .filter(c -> !c.type().equals(Type.TEXT))
                .findFirst();
        if (meets.isPresent()) {
            return new Resolution.Refused(List.of(meets.get()));
        }
        if (other.isPresent()) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    other.get().name() + " is " + other.get().type().label() + ", and only texts are joined.",
                    "Read it as text before.");
        }
        Expr[] parts = Stream.concat(
                        Stream.<Expr>of(Expr.Literal.text(given.get(SEPARATOR))),
                        given.get(COLUMNS).stream()
                                .map(f -> given.get(EMPTY).equals("counts")
                                        ? f.value()
                                        : Formula.call("nullif", f.value(), Expr.Literal.text(""))))
                .toArray(Expr[]::new);
        return new Resolution.Done(given.computed(
                List.of(new Computed(given.field(given.get(INTO), Type.TEXT), Formula.call("concat_ws", parts)))));
    }
}
