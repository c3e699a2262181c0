package fixshelf.language.catalogue;

import static fixshelf.language.catalogue.Entry.date;
import static fixshelf.language.catalogue.Entry.define;
import static fixshelf.language.catalogue.Entry.fixed;
import static fixshelf.language.catalogue.Entry.fixedText;
import static fixshelf.language.catalogue.Entry.integer;
import static fixshelf.language.catalogue.Entry.numeric;
import static fixshelf.language.catalogue.Entry.optional;
import static fixshelf.language.catalogue.Entry.text;
import static fixshelf.language.catalogue.Entry.timestamp;

import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Group;
import fixshelf.language.tree.FunctionDef.Result;
import java.util.List;

/// Times of a day to the microsecond, without a zone. Those with a layout are written with the others: see
/// [TimeEmulations].
public final class TimeFunctions {
    private TimeFunctions() {}

    private static final String NOON = "TIMESTAMP '2026-02-07 12:34:56'";
    private static final String PART = "TIMESTAMP '2026-02-07 12:34:56.25'";

    public static final FunctionDef TO_TIMESTAMP = define(
                    Group.DATE, "to_timestamp", text("text"), optional(fixedText("layout")))
            .repeatsLast()
            .gives(Result.TIMESTAMP)
            .about("""
                The time that the text writes in `layout`, or in the first of several layouts that gives one;
                `yyyy-MM-dd HH:mm:ss` when left out. The letters are those of `to_date`, and H or HH (0 to 23), mm, ss;
                S to SSSSSS are so many digits of the fraction of a second; what a layout leaves out is 0. Without a
                layout a fraction of one to six digits may follow. Anything else gives null.\
                """)
            .example("to_timestamp('2026-02-07 12:34:56')", NOON)
            .example("to_timestamp('2026-02-07 12:34:56.250')", PART)
            .example("to_timestamp('2026-02-07 24:00:00')", "NULL")
            .example("to_timestamp('7/2/2026 9:05', 'd/M/yyyy H:mm')", "TIMESTAMP '2026-02-07 09:05:00'")
            .example("to_timestamp('07.02.2026 12:34:56,25', 'dd.MM.yyyy HH:mm:ss,SS')", PART)
            .example("to_timestamp('2026-02-07T12:34:56Z', 'yyyy-MM-dd''T''HH:mm:ss''Z''')", NOON)
            .done();

    public static final FunctionDef FORMAT_TIMESTAMP = define(
                    Group.DATE, "format_timestamp", timestamp("time"), optional(fixedText("layout")))
            .about("""
                The time as text in `layout`. Names are as in `format_date`; S to SSSSSS are so many digits of the fraction
                of a second, which is cut there. Without a layout it is `yyyy-MM-dd HH:mm:ss`, and the fraction where there
                is one, without needless zeros.\
                """)
            .example("format_timestamp(" + NOON + ")", "'2026-02-07 12:34:56'")
            .example("format_timestamp(" + PART + ")", "'2026-02-07 12:34:56.25'")
            .example("format_timestamp(" + PART + ", 'HH:mm:ss.SSS')", "'12:34:56.250'")
            .example("format_timestamp(" + NOON + ", 'd MMM yyyy, HH:mm')", "'7 Feb 2026, 12:34'")
            .example("format_timestamp(TIMESTAMP '0001-01-01 03:00:00', 'H:mm')", "'3:00'")
            .done();

    public static final FunctionDef DATE_OF = define(Group.DATE, "date_of", timestamp("time"))
            .gives(Result.DATE)
            .about("The day, without the time of the day.")
            .example("date_of(" + NOON + ")", "DATE '2026-02-07'")
            .example("date_of(TIMESTAMP '9999-12-31 23:59:59')", "DATE '9999-12-31'")
            .example("date_of(TIMESTAMP '0001-01-01 00:00:00')", "DATE '0001-01-01'")
            .done();

    public static final FunctionDef AT_MIDNIGHT = define(Group.DATE, "at_midnight", date("date"))
            .gives(Result.TIMESTAMP)
            .about("The first second of the day.")
            .example("at_midnight(DATE '2026-02-07')", "TIMESTAMP '2026-02-07 00:00:00'")
            .example("at_midnight(DATE '0001-01-01')", "TIMESTAMP '0001-01-01 00:00:00'")
            .example("at_midnight(DATE '9999-12-31')", "TIMESTAMP '9999-12-31 00:00:00'")
            .done();

    public static final FunctionDef HOUR = part("hour", "The hour, 0 to 23.", "12", "23");
    static final FunctionDef MINUTE = part("minute", "The minute, 0 to 59.", "34", "59");
    static final FunctionDef SECOND = part("second", "The second, 0 to 59, without its fraction.", "56", "58");

    private static FunctionDef part(String name, String about, String atNoon, String atEnd) {
        return define(Group.DATE, name, timestamp("time"))
                .gives(Result.INTEGER)
                .about(about)
                .example(name + "(" + NOON + ")", atNoon)
                .example(name + "(TIMESTAMP '1969-12-31 23:59:58')", atEnd)
                .example(name + "(TIMESTAMP '0001-01-01 00:00:00')", "0")
                .done();
    }

    public static final FunctionDef ADD_SECONDS = define(
                    Group.DATE, "add_seconds", timestamp("time"), integer("seconds"))
            .gives(Result.TIMESTAMP)
            .about(
                    "So many seconds later, or earlier for a negative number; a fraction stays. Null outside the years 0001 to 9999.")
            .example("add_seconds(" + NOON + ", 4)", "TIMESTAMP '2026-02-07 12:35:00'")
            .example("add_seconds(TIMESTAMP '2024-03-01 00:00:00', -1)", "TIMESTAMP '2024-02-29 23:59:59'")
            .example("add_seconds(TIMESTAMP '9999-12-31 23:59:59', 1)", "NULL")
            .done();

    public static final FunctionDef SECONDS_BETWEEN = define(
                    Group.DATE, "seconds_between", timestamp("start"), timestamp("end"))
            .gives(Result.INTEGER)
            .about("""
                How many whole seconds `end` is after `start`, negative when it is before; what is left of a second does not
                count. Days have 86400 seconds.\
                """)
            .example("seconds_between(TIMESTAMP '2026-02-07 12:00:00', " + NOON + ")", "2096")
            .example("seconds_between(" + NOON + ", " + NOON + ")", "0")
            .example("seconds_between(" + NOON + ", TIMESTAMP '2026-02-06 12:34:56')", "-86400")
            .example("seconds_between(" + PART + ", TIMESTAMP '2026-02-07 12:34:58')", "1")
            .example("seconds_between(TIMESTAMP '2026-02-07 12:34:58', " + PART + ")", "-1")
            .done();

    public static final FunctionDef MICROSECOND = define(Group.DATE, "microsecond", timestamp("time"))
            .gives(Result.INTEGER)
            .about("The fraction of the second in microseconds, 0 to 999999.")
            .example("microsecond(" + PART + ")", "250000")
            .example("microsecond(" + NOON + ")", "0")
            .example("microsecond(TIMESTAMP '1969-12-31 23:59:59.000001')", "1")
            .done();

    public static final FunctionDef ADD_MICROSECONDS = define(
                    Group.DATE, "add_microseconds", timestamp("time"), integer("microseconds"))
            .gives(Result.TIMESTAMP)
            .about("So many microseconds later, or earlier for a negative number. Null outside the years 0001 to 9999.")
            .example("add_microseconds(" + NOON + ", 250000)", PART)
            .example("add_microseconds(" + PART + ", -250001)", "TIMESTAMP '2026-02-07 12:34:55.999999'")
            .example("add_microseconds(TIMESTAMP '9999-12-31 23:59:59', 1000000)", "NULL")
            .done();

    static final FunctionDef MICROSECONDS_BETWEEN = define(
                    Group.DATE, "microseconds_between", timestamp("start"), timestamp("end"))
            .gives(Result.INTEGER)
            .about("How many microseconds `end` is after `start`; negative when it is before.")
            .example("microseconds_between(" + NOON + ", " + PART + ")", "250000")
            .example("microseconds_between(" + PART + ", TIMESTAMP '2026-02-07 12:34:55')", "-1250000")
            .example("microseconds_between(" + PART + ", " + PART + ")", "0")
            .done();

    static final FunctionDef EPOCH_TO_TIMESTAMP = define(Group.DATE, "epoch_to_timestamp", integer("seconds"))
            .gives(Result.TIMESTAMP)
            .about("""
                The time so many seconds after 1970-01-01 00:00:00, in universal time; for milliseconds
                there is `epoch_millis_to_timestamp`; for another zone add its distance. Null outside the years 0001 to 9999.\
                """)
            .example("epoch_to_timestamp(0)", "TIMESTAMP '1970-01-01 00:00:00'")
            .example("epoch_to_timestamp(1770467696)", NOON)
            .example("epoch_to_timestamp(-1)", "TIMESTAMP '1969-12-31 23:59:59'")
            .done();

    private static Entry sinceEpoch(String name, String parts) {
        return define(Group.DATE, name, integer(parts))
                .gives(Result.TIMESTAMP)
                .about("The time so many " + parts
                        + " after 1970-01-01 00:00:00, in universal time. Null outside the years 0001 to 9999.");
    }

    static final FunctionDef EPOCH_MILLIS_TO_TIMESTAMP = sinceEpoch("epoch_millis_to_timestamp", "milliseconds")
            .example("epoch_millis_to_timestamp(1770467696250)", PART)
            .example("epoch_millis_to_timestamp(-1)", "TIMESTAMP '1969-12-31 23:59:59.999'")
            .example("epoch_millis_to_timestamp(-1000)", "TIMESTAMP '1969-12-31 23:59:59'")
            .done();

    static final FunctionDef EPOCH_MICROS_TO_TIMESTAMP = sinceEpoch("epoch_micros_to_timestamp", "microseconds")
            .example("epoch_micros_to_timestamp(1770467696250000)", PART)
            .example("epoch_micros_to_timestamp(-1)", "TIMESTAMP '1969-12-31 23:59:59.999999'")
            .example("epoch_micros_to_timestamp(0)", "TIMESTAMP '1970-01-01 00:00:00'")
            .done();

    static final FunctionDef TIMESTAMP_TO_EPOCH = define(Group.DATE, "timestamp_to_epoch", timestamp("time"))
            .gives(Result.INTEGER)
            .about("""
                The seconds from 1970-01-01 00:00:00 to the second that the time is in, where it is universal time; the
                fraction is cut, also before 1970.\
                """)
            .example("timestamp_to_epoch(" + NOON + ")", "1770467696")
            .example("timestamp_to_epoch(TIMESTAMP '1970-01-01 00:00:00')", "0")
            .example("timestamp_to_epoch(TIMESTAMP '1969-12-31 23:59:59.5')", "-1")
            .example("timestamp_to_epoch(TIMESTAMP '1969-12-31 00:00:00')", "-86400")
            .done();

    public static final FunctionDef SERIAL_TO_TIMESTAMP = define(
                    Group.DATE, "serial_to_timestamp", numeric("serial"), optional(fixed(integer("base"))))
            .gives(Result.TIMESTAMP)
            .about("""
                The time that a spreadsheet stores as a number: whole days as `serial_to_date`, the fraction as a part
                of the day, to the nearest second.\
                """)
            .example("serial_to_timestamp(46060.5)", "TIMESTAMP '2026-02-07 12:00:00'")
            .example("serial_to_timestamp(60.25)", "NULL")
            .example("serial_to_timestamp(0.75, 1904)", "TIMESTAMP '1904-01-01 18:00:00'")
            .done();

    public static final FunctionDef TO_ZONE = define(Group.DATE, "to_zone", timestamp("time"), fixedText("zone"))
            .gives(Result.TIMESTAMP)
            .about("""
                What clocks in a zone show at a universal time: `zone` is a name of the time zone database, or a distance as
                `+02:00`. The rule for summer time that is in force today is used; null in years before it began, and
                outside the years 0001 to 9999.\
                """)
            .example("to_zone(TIMESTAMP '2026-02-07 12:34:56', 'Europe/Dublin')", NOON)
            .example("to_zone(TIMESTAMP '2026-03-29 01:00:00', 'Europe/Dublin')", "TIMESTAMP '2026-03-29 02:00:00'")
            .example("to_zone(TIMESTAMP '2026-02-07 12:34:56', '-03:30')", "TIMESTAMP '2026-02-07 09:04:56'")
            .example("to_zone(TIMESTAMP '1971-02-07 12:34:56', 'Europe/Dublin')", "NULL")
            .done();

    public static final FunctionDef FROM_ZONE = define(Group.DATE, "from_zone", timestamp("time"), fixedText("zone"))
            .gives(Result.TIMESTAMP)
            .about("""
                The universal time of what a clock in a zone shows, as for `to_zone`. Where clocks are put back, a time comes
                twice, and the earlier one is meant; where they are put forward, the times between are none, and null.\
                """)
            .example("from_zone(TIMESTAMP '2026-07-01 12:00:00', 'Europe/Dublin')", "TIMESTAMP '2026-07-01 11:00:00'")
            .example("from_zone(TIMESTAMP '2026-10-25 01:30:00', 'Europe/Dublin')", "TIMESTAMP '2026-10-25 00:30:00'")
            .example("from_zone(TIMESTAMP '2026-03-29 01:30:00', 'Europe/Dublin')", "NULL")
            .example("from_zone(TIMESTAMP '2026-02-07 12:34:56', '+05:45')", "TIMESTAMP '2026-02-07 06:49:56'")
            .done();

    static final List<FunctionDef> ALL = List.of(
            TO_TIMESTAMP,
            FORMAT_TIMESTAMP,
            DATE_OF,
            AT_MIDNIGHT,
            HOUR,
            MINUTE,
            SECOND,
            ADD_SECONDS,
            SECONDS_BETWEEN,
            MICROSECOND,
            ADD_MICROSECONDS,
            MICROSECONDS_BETWEEN,
            EPOCH_TO_TIMESTAMP,
            EPOCH_MILLIS_TO_TIMESTAMP,
            EPOCH_MICROS_TO_TIMESTAMP,
            TIMESTAMP_TO_EPOCH,
            SERIAL_TO_TIMESTAMP,
            TO_ZONE,
            FROM_ZONE);
}
