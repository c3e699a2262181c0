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
import fixshelf.problem.Problem;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;

/// Numbers in another unit.
final class Scale extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");
    static final Blank<String> WAY =
            Blank.needed("way", ValueKinds.choice("divided", "multiplied"), "Divided or multiplied.");
    static final Blank<Long> BY =
            Blank.needed("by", ValueKinds.whole(1, 1_000_000_000_000L), "The number by which, as 1000.");
    static final Blank<Long> PLACES = Blank.usually(
            "places", ValueKinds.whole(0, 12), "2", "How many digits after the point a divided number has.");

    Scale() {
        super(
                "scale",
                "Scale {columns}, {way} by {by}",
                new Meaning(
                        "Bring numbers into another unit: thousands, millions, pence to pounds, per cent.",
                        "Stays missing.",
                        "",
                        "Rows stay as they stand.",
                        "A divided number is rounded half away from zero.",
                        "A divided number is a decimal with these places, unless it is floating; a multiplied one keeps its type, and is lost where it does not fit.",
                        "",
                        "",
                        "SQLite has no exact decimals: it cannot say a division, nor decimals."),
                List.of(COLUMNS, WAY, BY, PLACES, Absent.BLANK),
                List.of(
                        new TableExample(
                                "Thousands",
                                Table.of("n integer | a", "1500 | 'x'", "NULL | 'y'", "-5 | 'z'"),
                                "scale: [n]\nway: divided\nby: 1000",
                                Table.of("n decimal(18,2) | a", "1.50 | 'x'", "NULL | 'y'", "-0.01 | 'z'")),
                        new TableExample(
                                "Hours to minutes",
                                Table.of("n integer", "3", "NULL"),
                                "scale: [n]\nway: multiplied\nby: 60",
                                Table.of("n integer", "180", "NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        boolean divided = given.get(WAY).equals("divided");
        List<Computed> cells = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        for (Field field : given.get(COLUMNS)) {
            if (!field.type().isNumeric() && !field.type().equals(Type.NUMBER)) {
                problems.add(Given.problem(
                        Code.WRONG_TYPE,
                        field.name() + " is " + field.type().label() + ", and only numbers are scaled.",
                        "Read it as a number before."));
                continue;
            }
            Expr value = divided ? divided(field, given) : multiplied(field, given);
            cells.add(new Computed(field.typed(value.type()), value));
        }
        return problems.isEmpty() ? new Resolution.Done(given.computed(cells)) : new Resolution.Refused(problems);
    }

    private static Expr divided(Field field, Given given) {
        return field.type().equals(Type.NUMBER)
                ? Formula.call("/", field.value(), by(field, given))
                : Formula.call("divide", field.value(), by(field, given), Expr.Literal.integer(given.get(PLACES)));
    }

    private static Expr multiplied(Field field, Given given) {
        Expr product = Formula.call("*", field.value(), by(field, given));
        return field.type() instanceof Type.Decimal(int precision, int scale)
                ? Formula.call("narrow", product, Expr.Literal.integer(precision), Expr.Literal.integer(scale))
                : product;
    }

    private static Expr by(Field field, Given given) {
        return field.type().equals(Type.NUMBER)
                ? new Expr.Literal((double) given.get(BY), Type.NUMBER)
                : Expr.Literal.integer(given.get(BY));
    }

    @Override
    public boolean losesValues() {
        return true;
    }
}
