package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.number;
import static fixshelf.language.catalogue.Trees.when;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.TimeFunctions;
import fixshelf.language.tree.Expr;

/// What is counted in parts of a second.
final class TimeParts {
    private static final long A_SECOND = 1_000_000;

    private TimeParts() {}

    /// The second that a time is in, counted from 1970: towards the past also before.
    static Expr epochSecond(Expr time) {
        Expr begun = call(
                Comparisons.AND,
                call(Comparisons.LESS, time, DateEmulations.epoch()),
                call(Comparisons.GREATER, micros(time), number(0)));
        Expr whole = call(TimeFunctions.SECONDS_BETWEEN, DateEmulations.epoch(), time);
        return call(Arithmetic.MINUS, whole, when(begun, number(1), number(0)));
    }

    /// The time so many microseconds after the beginning of 1970.
    static Expr sinceEpoch(Expr micros) {
        return call(TimeFunctions.ADD_MICROSECONDS, DateEmulations.epoch(), micros);
    }

    /// The microseconds from a time to another.
    static Expr between(Expr start, Expr end) {
        Expr seconds = call(Arithmetic.MINUS, epochSecond(end), epochSecond(start));
        Expr more = call(Arithmetic.MINUS, micros(end), micros(start));
        return call(Arithmetic.PLUS, call(Arithmetic.TIMES, seconds, number(A_SECOND)), more);
    }

    private static Expr micros(Expr time) {
        return call(TimeFunctions.MICROSECOND, time);
    }
}
