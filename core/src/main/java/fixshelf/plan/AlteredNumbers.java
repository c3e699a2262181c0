package fixshelf.plan;

import fixshelf.language.tree.Expr;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What a line does to texts that are numbers without being asked: a minus sign, a decimal point or comma, or leading
/// zeros are gone afterwards.
public final class AlteredNumbers {
    private static final String NAME = "altered_numbers";

    /// At most three signs around digits, points and commas, and a word for a unit.
    private static final String NUMBER = "^[^A-Za-z0-9]{0,3}[0-9][0-9.,]*[^0-9]{0,12}$";

    private static final String MINUS_BEFORE = "^[^0-9]*[-(−]|[0-9] ?-$";
    private static final String ANY_MINUS = "[-(−]";
    private static final String ONE_POINT = "^[^.,]*[0-9]\\.[0-9]+[^0-9.,]*$";
    private static final String SHORT_COMMA = "^[^.,]*[0-9],[0-9]{1,2}[^0-9.,]*$";
    private static final String POINT_OR_COMMA = "[.,]";
    private static final String LEADING_ZERO = "^0[0-9]+$";

    private AlteredNumbers() {}

    /// A report of a line that gives texts other values, row by row; empty for all others.
    static Optional<Operation.Report> of(Relation before, Relation after, Context.Ids ids) {
        if (!(after instanceof Relation.Compute compute) || compute.from() != before) {
            return Optional.empty();
        }
        List<Computed> texts = new ArrayList<>();
        List<Computed> cells = new ArrayList<>();
        List<List<Field>> sets = new ArrayList<>();
        List<String> names = new ArrayList<>();
        for (Computed cell : compute.cells()) {
            Optional<Field> was =
                    before.shape().find(cell.made().id()).filter(f -> f.type().equals(Type.TEXT));
            Optional<Expr> now = text(cell.value());
            if (was.isPresent() && now.isPresent()) {
                Field text = new Field(ids.next(), "was", Type.TEXT);
                Field made = new Field(ids.next(), "now", Type.TEXT);
                Field altered = new Field(ids.next(), "altered", Type.BOOLEAN);
                texts.add(new Computed(text, was.get().value()));
                texts.add(new Computed(made, now.get()));
                cells.add(new Computed(altered, altered(text.value(), made.value())));
                sets.add(List.of(text, made, altered));
                names.add(was.get().name());
            }
        }
        return cells.isEmpty()
                ? Optional.empty()
                : Optional.of(new Operation.Report(
                        NAME,
                        values(new Relation.Compute(before, texts), cells, sets, names, ids),
                        "values that lose a sign, a point or leading zeros",
                        false,
                        true));
    }

    /// Whether a report is one of these.
    public static boolean isReport(Operation.Report report) {
        return report.name().equals(NAME);
    }

    /// The cells of a report that say what is altered, over those that hold what was and what is, pair by pair: where
    /// the tables before and after a line are there, these need not be worked out again.
    public static Relation.Compute told(Relation report) {
        return report.parts().stream()
                .filter(p -> p instanceof Relation.Compute compute && compute.from() instanceof Relation.Compute)
                .map(Relation.Compute.class::cast)
                .findFirst()
                .orElseThrow();
    }

    /// @param texts what was and what is, beside each other
    private static Relation values(
            Relation texts, List<Computed> cells, List<List<Field>> sets, List<String> names, Context.Ids ids) {
        Expr any = Formula.any(sets.stream().<Expr>map(s -> s.getLast().value()).toList());
        Field column = new Field(ids.next(), "column", Type.TEXT);
        Field was = new Field(ids.next(), "was", Type.TEXT);
        Field now = new Field(ids.next(), "now", Type.TEXT);
        Field altered = new Field(ids.next(), "altered", Type.BOOLEAN);
        Relation rows = new Relation.Keep(new Relation.Compute(texts, cells), any);
        Relation all = new Relation.Unpivot(rows, sets, names, column, List.of(was, now, altered), true);
        return new Relation.Pick(new Relation.Keep(all, altered.value()), new Shape(List.of(column, was, now)));
    }

    private static Optional<Expr> text(Expr value) {
        return switch (value.type()) {
            case Type.Text _ -> Optional.of(value);
            case Type.Int _, Type.Decimal _ -> Optional.of(Formula.call("to_text", value));
            default -> Optional.empty();
        };
    }

    private static Expr altered(Expr was, Expr now) {
        Expr plain = Formula.call("trim", was);
        Expr point = Formula.any(List.of(matches(plain, ONE_POINT), matches(plain, SHORT_COMMA)));
        Expr gone = Formula.any(List.of(
                Formula.all(List.of(matches(plain, MINUS_BEFORE), Formula.not(matches(now, ANY_MINUS)))),
                Formula.all(List.of(point, Formula.not(matches(now, POINT_OR_COMMA)))),
                Formula.all(List.of(
                        matches(plain, LEADING_ZERO),
                        Formula.not(Formula.call("starts_with", now, Expr.Literal.text("0")))))));
        Expr differs = Formula.call("<>", was, now);
        Expr no = Expr.Literal.truth(false);
        return Formula.when(differs, Formula.when(matches(plain, NUMBER), gone, no), no);
    }

    private static Expr matches(Expr text, String pattern) {
        return Formula.call("regexp_like", text, Expr.Literal.text(pattern));
    }
}
