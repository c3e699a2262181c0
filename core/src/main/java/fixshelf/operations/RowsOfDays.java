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
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;

/// A row for each day, or each so many days, from one to another.
final class RowsOfDays extends BuiltIn {
    private static final long MOST = 100_000;

    static final Blank<String> FROM = Blank.needed("from", ValueKinds.TEXT, "The first day, 2026-01-31.");
    static final Blank<String> TO =
            Blank.optional("to", ValueKinds.TEXT, "The last day, which comes where a step ends on it.");
    static final Blank<Long> COUNT =
            Blank.optional("count", ValueKinds.whole(1, MOST), "How many rows there are, where no last day is named.");
    static final Blank<Long> STEP =
            Blank.usually("step", ValueKinds.whole(1, MOST), "1", "How many days lie between one row and the next.");
    static final Blank<String> INTO = Blank.usually("into", ColumnKinds.NEW_NAME, "day", "The column of days.");

    RowsOfDays() {
        super(
                "rows_of_days",
                "Begin with a row for each day from {from}",
                new Meaning(
                        "A calendar, in place of the table before: a row for each day, or each week, from one day to another, both included. Date sequence, date range.",
                        "There is none.",
                        "",
                        "From the first day to the last.",
                        "",
                        "Dates, from 0001-01-01 to 9999-12-31.",
                        "",
                        "",
                        "The same in all."),
                List.of(FROM, TO, COUNT, STEP, INTO),
                List.of(
                        new TableExample(
                                "Over the end of February",
                                Table.of("a", "'x'", "'y'"),
                                "rows_of_days: 2024-02-28\nto: 2024-03-01",
                                Table.of("day date", "DATE '2024-02-28'", "DATE '2024-02-29'", "DATE '2024-03-01'")),
                        new TableExample(
                                "Twelve weeks",
                                Table.of("a"),
                                "rows_of_days: 2026-01-05\ncount: 12\nstep: 7\ninto: week_of",
                                Table.of(
                                        "week_of date",
                                        "DATE '2026-01-05'",
                                        "DATE '2026-01-12'",
                                        "DATE '2026-01-19'",
                                        "DATE '2026-01-26'",
                                        "DATE '2026-02-02'",
                                        "DATE '2026-02-09'",
                                        "DATE '2026-02-16'",
                                        "DATE '2026-02-23'",
                                        "DATE '2026-03-02'",
                                        "DATE '2026-03-09'",
                                        "DATE '2026-03-16'",
                                        "DATE '2026-03-23'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Optional<LocalDate> from = day(given, given.get(FROM));
        Optional<LocalDate> to = given.find(TO).flatMap(t -> day(given, t));
        if (from.isEmpty() || given.find(TO).isPresent() && to.isEmpty()) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    given.get(FROM) + given.find(TO).map(t -> " to " + t).orElse("") + " are no two days.",
                    "Write them as 2026-01-31.");
        }
        if (to.isPresent() == given.find(COUNT).isPresent()) {
            return Given.refused(Code.ARGUMENTS, "The days end in one way.", "Write either `to` or `count`.");
        }
        long step = given.get(STEP);
        long count = to.map(t -> Math.floorDiv(ChronoUnit.DAYS.between(from.get(), t), step) + 1)
                .orElseGet(() -> given.find(COUNT).orElseThrow());
        if (count < 1 || count > MOST || from.get().plusDays((count - 1) * step).getYear() > 9999) {
            return Given.refused(
                    Code.BAD_FIELD,
                    count < 1 ? "The last day is before the first." : "That are too many days.",
                    "Name days up to 9999-12-31, of which there are 1 to " + MOST + ".");
        }
        Relation numbers = numbers(given, count);
        Field number = numbers.shape().fields().getFirst();
        Field day = given.field(given.get(INTO), Type.DATE);
        Expr first = given.constant(from.get().toString(), Type.DATE).orElseThrow();
        Expr away = Formula.call("*", number.value(), Expr.Literal.integer(step));
        Relation days =
                new Relation.Compute(numbers, List.of(new Computed(day, Formula.call("add_days", first, away))));
        return new Resolution.Done(new Relation.Pick(days, new Shape(List.of(day))));
    }

    private static Optional<LocalDate> day(Given given, String text) {
        return given.constant(text.strip(), Type.DATE)
                .filter(e -> e instanceof Expr.Literal(LocalDate _, var _))
                .map(e -> (LocalDate) ((Expr.Literal) e).value());
    }

    /// A table with the whole numbers from 0, digit by digit. Of the first digits only those are
    /// kept that any of the numbers has, so that no more than ten times as many rows are made as
    /// there are.
    private static Relation numbers(Given given, long count) {
        int length = String.valueOf(count - 1).length();
        Field beside = given.helper("one_beside", Type.INTEGER);
        Expr one = Expr.Literal.integer(1);
        Relation digits = new Relation.Compute(TypedRows.numbers(given, 0, 10), List.of(new Computed(beside, one)));
        Field digit = digits.shape().fields().getFirst();
        Field number = given.helper("number", Type.INTEGER);
        Field here = given.helper("one_here", Type.INTEGER);
        Relation all =
                new Relation.Compute(digits, List.of(new Computed(number, digit.value()), new Computed(here, one)));
        all = upTo(new Relation.Pick(all, new Shape(List.of(number, here))), number, first(count, length - 1));
        Field last = number;
        for (int behind = length - 2; behind >= 0; behind--) {
            Field longer = given.helper("number", Type.INTEGER);
            Field taken = given.helper("next_digit", Type.INTEGER);
            Relation both = new Relation.Join(
                    all,
                    digits,
                    List.of(new Relation.Pair(here, beside, false)),
                    Relation.Meeting.PAIRS,
                    List.of(new Relation.Taken(digit, taken)));
            Expr value = Formula.call("+", Formula.call("*", last.value(), Expr.Literal.integer(10)), taken.value());
            Relation made = new Relation.Pick(
                    new Relation.Compute(both, List.of(new Computed(longer, value))), new Shape(List.of(longer, here)));
            all = upTo(made, longer, first(count, behind));
            last = longer;
        }
        return all;
    }

    /// The first digits of the greatest number, without so many behind them.
    private static long first(long count, int behind) {
        return (count - 1) / Math.round(Math.pow(10, behind));
    }

    private static Relation upTo(Relation numbers, Field number, long greatest) {
        return new Relation.Keep(numbers, Formula.call("<=", number.value(), Expr.Literal.integer(greatest)));
    }
}
