package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.number;
import static fixshelf.language.catalogue.Trees.when;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.DateFunctions;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/// Working days between two days, in whole weeks and what stands at their ends, without going through the days.
final class WorkingDays {
    private static final int DAYS_A_WEEK = 7;
    /// A Monday.
    private static final LocalDate FIRST = LocalDate.of(1, 1, 1);

    private final Set<Long> weekend;
    private final Set<LocalDate> holidays;

    private WorkingDays(Set<Long> weekend, Set<LocalDate> holidays) {
        this.weekend = weekend;
        this.holidays = holidays;
    }

    static Optional<Expr> of(List<Expr> a) {
        Set<LocalDate> holidays = new TreeSet<>();
        Set<Long> weekend = new TreeSet<>(a.size() > 3 ? Set.of() : Set.of(6L, 7L));
        if (a.size() > 2 && !collect(a.get(2), LocalDate.class, holidays)) {
            return Optional.empty();
        }
        if (a.size() > 3 && !collect(a.get(3), Long.class, weekend)) {
            return Optional.empty();
        }
        holidays.removeIf(h -> weekend.contains((long) h.getDayOfWeek().getValue()));
        WorkingDays days = new WorkingDays(weekend, holidays);
        Expr start = a.get(0);
        Expr end = a.get(1);
        Expr backwards = call(Arithmetic.MINUS, number(0), days.between(end, start));
        return Optional.of(new Expr.Case(
                List.of(
                        new Expr.Branch(call(Comparisons.LESS, end, start), backwards),
                        new Expr.Branch(call(Comparisons.AT_LEAST, end, start), days.between(start, end))),
                new Expr.Literal(null, Type.INTEGER),
                Type.INTEGER));
    }

    private static <T> boolean collect(Expr list, Class<T> type, Set<T> into) {
        if (!(list instanceof Expr.Literal(List<?> values, Type _))) {
            return false;
        }
        values.stream().filter(type::isInstance).map(type::cast).forEach(into::add);
        return true;
    }

    private Expr between(Expr start, Expr end) {
        Expr whole = call(Arithmetic.MINUS, weeks(end), weeks(start));
        Expr inWeeks = call(Arithmetic.TIMES, whole, number(DAYS_A_WEEK - weekend.size()));
        Expr ends = call(Arithmetic.MINUS, upTo(end, true), upTo(start, false));
        Expr days = call(Arithmetic.PLUS, inWeeks, ends);
        for (LocalDate holiday : holidays) {
            Expr day = new Expr.Literal(holiday, Type.DATE);
            Expr within =
                    call(Comparisons.AND, call(Comparisons.AT_MOST, start, day), call(Comparisons.AT_LEAST, end, day));
            days = call(Arithmetic.MINUS, days, when(within, number(1), number(0)));
        }
        return days;
    }

    private static Expr weeks(Expr day) {
        Expr days = call(DateFunctions.DAYS_BETWEEN, new Expr.Literal(FIRST, Type.DATE), day);
        return call(Arithmetic.DIV, days, number(DAYS_A_WEEK));
    }

    /// How many working days of its week there are up to a day, with or without itself.
    private Expr upTo(Expr day, boolean with) {
        List<Expr.Branch> branches = new ArrayList<>();
        long count = 0;
        for (long weekday = 1; weekday <= DAYS_A_WEEK; weekday++) {
            long before = count;
            count += weekend.contains(weekday) ? 0 : 1;
            branches.add(new Expr.Branch(
                    call(Comparisons.EQUAL, call(DateFunctions.WEEKDAY, day), number(weekday)),
                    number(with ? count : before)));
        }
        return new Expr.Case(branches, new Expr.Literal(null, Type.INTEGER), Type.INTEGER);
    }
}
