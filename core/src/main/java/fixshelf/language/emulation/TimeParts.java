package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.number;
import static fixshelf.language.catalogue.Trees.text;
import static fixshelf.language.catalogue.Trees.when;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.Conversions;
import fixshelf.language.catalogue.LetterFunctions;
import fixshelf.language.catalogue.TextFunctions;
import fixshelf.language.catalogue.TimeFunctions;
import fixshelf.language.tree.Expr;

/// Fractions of a second. A time is written and read in the standard's order, which every language does to the
/// microsecond; so none is asked what it knows of fractions.
final class TimeParts {
    private static final long A_SECOND = 1_000_000;
    private static final int MICROS = 6;
    private static final int SECONDS = 19;

    private TimeParts() {}

    /// The microseconds of the second.
    static Expr micros(Expr time) {
        Expr digits = LayoutEmulations.micros(call(TimeFunctions.FORMAT_TIMESTAMP, time));
        return call(Conversions.TO_INTEGER, call(TextFunctions.SUBSTRING, digits, number(1), number(MICROS)));
    }

    /// The second that a time is in, counted from 1970: towards the past also before.
    static Expr epochSecond(Expr time) {
        Expr begun = call(
                Comparisons.AND,
                call(Comparisons.LESS, time, DateEmulations.epoch()),
                call(Comparisons.GREATER, micros(time), number(0)));
        Expr whole = call(TimeFunctions.SECONDS_BETWEEN, DateEmulations.epoch(), time);
        return call(Arithmetic.MINUS, whole, when(begun, number(1), number(0)));
    }

    /// The time so many parts of a second after the beginning of 1970.
    ///
    /// @param places how many digits the parts of a second have
    static Expr sinceEpoch(Expr parts, int places) {
        long second = Math.powExact(10L, places);
        return at(DateEmulations.epoch(), seconds(parts, number(second), second), parts, number(second), places);
    }

    /// The time so many microseconds later.
    static Expr later(Expr time, Expr micros) {
        Expr from = call(Arithmetic.PLUS, micros(time), number(A_SECOND));
        return at(time, seconds(micros, from, A_SECOND), micros, from, MICROS);
    }

    /// The microseconds from a time to another.
    static Expr between(Expr start, Expr end) {
        Expr seconds = call(TimeFunctions.SECONDS_BETWEEN, second(start), second(end));
        Expr more = call(Arithmetic.MINUS, micros(end), micros(start));
        return call(Arithmetic.PLUS, call(Arithmetic.TIMES, seconds, number(A_SECOND)), more);
    }

    /// The whole seconds in a number of parts that are counted from so many, where one second is counted too much: so
    /// that the rest is never negative.
    private static Expr seconds(Expr parts, Expr from, long second) {
        Expr rest = call(Arithmetic.PLUS, from, call(Arithmetic.MOD, parts, number(second)));
        Expr carried = call(Arithmetic.MINUS, call(Arithmetic.DIV, rest, number(second)), number(1));
        return call(Arithmetic.PLUS, call(Arithmetic.DIV, parts, number(second)), carried);
    }

    /// So many seconds after the second of a time, with the rest as its fraction.
    private static Expr at(Expr time, Expr seconds, Expr parts, Expr from, int places) {
        Expr second = number(Math.powExact(10L, places));
        Expr rest = call(Arithmetic.MOD, call(Arithmetic.PLUS, from, call(Arithmetic.MOD, parts, second)), second);
        Expr digits = call(LetterFunctions.LPAD, call(Conversions.TO_TEXT, rest), number(places), text("0"));
        Expr begun = whole(call(TimeFunctions.ADD_SECONDS, time, seconds));
        return call(
                TimeFunctions.TO_TIMESTAMP,
                call(TextFunctions.CONCAT, call(TextFunctions.CONCAT, begun, text(".")), digits));
    }

    /// A time without its fraction.
    private static Expr second(Expr time) {
        return call(TimeFunctions.TO_TIMESTAMP, whole(time));
    }

    private static Expr whole(Expr time) {
        return call(TextFunctions.SUBSTRING, call(TimeFunctions.FORMAT_TIMESTAMP, time), number(1), number(SECONDS));
    }
}
