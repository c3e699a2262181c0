package fixshelf.render.sql;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;
import java.util.stream.Collectors;

/// How SQL languages keep numbers, days and times within their ranges, so that nothing stops.
abstract class SqlBounds extends SqlSyntax {
    private static final int MOST_DAYS = 4_000_000;
    private static final int MOST_MONTHS = 120_000;
    private static final long MOST_SECONDS = 400_000_000_000L;

    /// The code of an expression.
    abstract Sql sql(Expr expr);

    /// `first` and `last` of the calendar around a day, so that what falls out of it is null.
    static Sql inCalendar(Sql day) {
        return Sql.caseWhen(Sql.atom(day.at(Sql.OTHER) + " BETWEEN DATE '0001-01-01' AND DATE '9999-12-31'"), day);
    }

    final Sql inCalendarOfTimes(Sql time) {
        String first = time("0001-01-01 00:00:00").text();
        String last = time("9999-12-31 23:59:59.999999").text();
        return Sql.caseWhen(Sql.atom(time.at(Sql.OTHER) + " BETWEEN " + first + " AND " + last), time);
    }

    /// A time and a step after it, which comes from a number that is brought into a range.
    final Sql later(List<Expr> timeAndNumber, Sql step) {
        return known(
                List.of(timeAndNumber.get(1)),
                inCalendarOfTimes(Sql.infix(sql(timeAndNumber.get(0)), "+", step, Sql.OTHER)));
    }

    /// Months, brought into a range that holds every step within the calendar.
    final Sql months(Expr number) {
        return clamped(number, MOST_MONTHS);
    }

    /// Seconds, brought into a range that holds every step within the calendar.
    final Sql seconds(Expr number) {
        return clamped(number, MOST_SECONDS);
    }

    /// Microseconds, brought into a range that holds every step within the calendar.
    final Sql micros(Expr number) {
        return clamped(number, MOST_SECONDS * 1_000_000);
    }

    /// A number of characters: not negative, and null where it is not known.
    final Sql count(Expr number) {
        if (number instanceof Expr.Literal(Long n, Type _)) {
            return Sql.atom(String.valueOf(Math.max(0, Math.min(n, 1_000_000_000))));
        }
        return known(List.of(number), bounded(sql(number), 0));
    }

    /// The number within `least` and a billion.
    Sql bounded(Sql number, long least) {
        return Sql.atom(least() + "(" + greatest() + "(" + number.text() + ", " + least + "), 1000000000)");
    }

    /// A number of days, brought into a range that holds every step within the calendar.
    final Sql days(Expr number) {
        return clamped(number, MOST_DAYS);
    }

    private Sql clamped(Expr number, long most) {
        boolean small = number instanceof Expr.Literal(Long n, Type _) && Math.abs(n) <= most;
        return small
                ? sql(number)
                : Sql.atom(least() + "(" + greatest() + "(" + sql(number).text() + ", -" + most + "), " + most + ")");
    }

    /// The function that gives the least of several values.
    String least() {
        return "least";
    }

    String greatest() {
        return "greatest";
    }

    /// The value where all numbers are known; most engines pass over nulls in `least` and `greatest`.
    Sql known(List<Expr> numbers, Sql value) {
        String known = numbers.stream()
                .filter(e -> !(e instanceof Expr.Literal))
                .map(e -> sql(e).at(Sql.OTHER) + " IS NOT NULL")
                .collect(Collectors.joining(" AND "));
        return known.isEmpty() ? value : Sql.caseWhen(Sql.atom(known), value);
    }
}
