package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.number;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.DateFunctions;
import fixshelf.language.catalogue.TimeFunctions;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;

/// Days and times counted from others, and those that a spreadsheet stores as numbers.
final class DateEmulations {
    private static final LocalDate BEFORE_1900 = LocalDate.of(1899, 12, 31);
    private static final LocalDate BASE_1904 = LocalDate.of(1904, 1, 1);
    private static final long LAST_1900 = 2_958_465;
    private static final long LAST_1904 = 2_957_003;
    private static final long SECONDS_A_DAY = 86_400;
    private static final LocalDateTime EPOCH = LocalDateTime.of(1970, 1, 1, 0, 0);

    private DateEmulations() {}

    static Optional<Expr> of(Expr.Call call) {
        List<Expr> a = call.arguments();
        return switch (call.function().name()) {
            case "to_date", "to_timestamp", "format_date", "format_timestamp" -> LayoutEmulations.of(call);
            case "serial_to_date" -> base(a).map(b -> fromSerial(a.getFirst(), b));
            case "serial_to_timestamp" -> base(a).map(b -> timeFromSerial(a.getFirst(), b));
            case "epoch_to_timestamp" -> Optional.of(call(TimeFunctions.ADD_SECONDS, epoch(), a.getFirst()));
            case "epoch_millis_to_timestamp" -> Optional.of(TimeParts.sinceEpoch(millis(a.getFirst())));
            case "epoch_micros_to_timestamp" -> Optional.of(TimeParts.sinceEpoch(a.getFirst()));
            case "timestamp_to_epoch" -> Optional.of(TimeParts.epochSecond(a.getFirst()));
            case "microseconds_between" -> Optional.of(TimeParts.between(a.getFirst(), a.get(1)));
            case "to_zone" -> zone(a).map(z -> z.local(a.getFirst()));
            case "from_zone" -> zone(a).map(z -> z.universal(a.getFirst()));
            case "last_day" -> Optional.of(lastDay(a.getFirst()));
            case "working_days" -> WorkingDays.of(a);
            default -> Optional.empty();
        };
    }

    private static Expr millis(Expr number) {
        return call(Arithmetic.TIMES, number, number(1000));
    }

    static Expr epoch() {
        return new Expr.Literal(EPOCH, Type.TIMESTAMP);
    }

    private static Expr lastDay(Expr date) {
        Expr month = call(DateFunctions.MONTH, date);
        Expr year = call(DateFunctions.YEAR, date);
        Expr leap = call(
                Comparisons.AND,
                call(Comparisons.EQUAL, call(Arithmetic.MOD, year, number(4)), number(0)),
                call(
                        Comparisons.OR,
                        call(Comparisons.NOT_EQUAL, call(Arithmetic.MOD, year, number(100)), number(0)),
                        call(Comparisons.EQUAL, call(Arithmetic.MOD, year, number(400)), number(0))));
        Expr february = call(Comparisons.EQUAL, month, number(2));
        Expr brief = call(Comparisons.IN, month, number(4), number(6), number(9), number(11));
        Expr days = new Expr.Case(
                List.of(
                        new Expr.Branch(call(Comparisons.AND, february, leap), number(29)),
                        new Expr.Branch(february, number(28)),
                        new Expr.Branch(brief, number(30))),
                number(31),
                Type.INTEGER);
        return call(DateFunctions.ADD_DAYS, date, call(Arithmetic.MINUS, days, call(DateFunctions.DAY, date)));
    }

    private static Optional<Zones> zone(List<Expr> arguments) {
        return arguments.get(1) instanceof Expr.Literal(String name, Type _) ? Zones.of(name) : Optional.empty();
    }

    /// The base year of serial numbers; empty when it is not known yet.
    private static Optional<Long> base(List<Expr> arguments) {
        if (arguments.size() < 2) {
            return Optional.of(1900L);
        }
        return arguments.get(1) instanceof Expr.Literal(Long base, Type _) ? Optional.of(base) : Optional.empty();
    }

    /// Seconds are counted from the day, so that one too many at the end of a day is the next day.
    private static Expr timeFromSerial(Expr serial, long base) {
        if (!(serial.type() instanceof Type.Decimal)) {
            return call(TimeFunctions.AT_MIDNIGHT, fromSerial(serial, base));
        }
        Expr whole = call(Arithmetic.FLOOR, serial);
        Expr part = call(Arithmetic.MINUS, serial, whole);
        Expr seconds = call(
                Arithmetic.FLOOR,
                call(
                        Arithmetic.PLUS,
                        call(Arithmetic.TIMES, part, number(SECONDS_A_DAY)),
                        new Expr.Literal(new java.math.BigDecimal("0.5"), new Type.Decimal(1, 1))));
        return call(TimeFunctions.ADD_SECONDS, call(TimeFunctions.AT_MIDNIGHT, fromSerial(whole, base)), seconds);
    }

    private static Expr fromSerial(Expr serial, long base) {
        List<Expr.Branch> branches = base == 1904
                ? List.of(counted(serial, 0, LAST_1904, BASE_1904))
                : List.of(
                        counted(serial, 1, 59, BEFORE_1900), counted(serial, 61, LAST_1900, BEFORE_1900.minusDays(1)));
        return new Expr.Case(branches, new Expr.Literal(null, Type.DATE), Type.DATE);
    }

    private static Expr.Branch counted(Expr serial, long first, long last, LocalDate from) {
        Expr within = call(
                Comparisons.AND,
                call(Comparisons.AT_LEAST, serial, number(first)),
                call(Comparisons.AT_MOST, serial, number(last)));
        return new Expr.Branch(within, call(DateFunctions.ADD_DAYS, new Expr.Literal(from, Type.DATE), serial));
    }
}
