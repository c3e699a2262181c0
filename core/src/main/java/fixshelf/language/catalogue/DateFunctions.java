package fixshelf.language.catalogue;

import static fixshelf.language.catalogue.Entry.date;
import static fixshelf.language.catalogue.Entry.define;
import static fixshelf.language.catalogue.Entry.fixed;
import static fixshelf.language.catalogue.Entry.fixedText;
import static fixshelf.language.catalogue.Entry.integer;
import static fixshelf.language.catalogue.Entry.list;
import static fixshelf.language.catalogue.Entry.optional;
import static fixshelf.language.catalogue.Entry.text;

import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Group;
import fixshelf.language.tree.FunctionDef.Result;
import java.util.List;

/// Days of the calendar. Those with a layout are written with the others: see [fixshelf.language.emulation.Emulations].
public final class DateFunctions {
    private DateFunctions() {}

    public static final FunctionDef TO_DATE = define(Group.DATE, "to_date", text("text"), optional(fixedText("layout")))
            .repeatsLast()
            .gives(Result.DATE)
            .about("""
                The day that the text writes in `layout`, or in the first of several layouts that gives one;
                `yyyy-MM-dd` when left out. Letters are those of Unicode's date patterns: yyyy, M or MM, MMM (Jan)
                or MMMM (January), d or dd; words stand in `'…'`. Month names are English, or of the language
                whose two letters stand before the layout, as in `fr: d MMMM yyyy` (da, de, en, es, fr, it, nl, pl, pt,
                sv); written `Jan`, `jan` or `JAN`, without a point. The whole text must be so, and the day a real one of the years 0001 to 9999; anything else
                gives null.\
                """)
            .example("to_date('2026-02-07')", "DATE '2026-02-07'")
            .example("to_date('2026-02-30')", "NULL")
            .example("to_date('07/02/2026', 'dd/MM/yyyy')", "DATE '2026-02-07'")
            .example("to_date('7 Feb 2026', 'yyyy-MM-dd', 'd MMM yyyy')", "DATE '2026-02-07'")
            .example("to_date('2026-2-7', 'yyyy-MM-dd')", "NULL")
            .example("to_date('7 août 2026', 'd MMMM yyyy', 'fr: d MMMM yyyy')", "DATE '2026-08-07'")
            .done();

    public static final FunctionDef FORMAT_DATE = define(
                    Group.DATE, "format_date", date("date"), optional(fixedText("layout")))
            .about("""
                The day as text in `layout`; `yyyy-MM-dd` when left out. The letters are those of `to_date`, and EEE
                (Sat) or EEEE (Saturday). Names are English, or of the language before the layout, as in `de: EEEE, d. MMMM`;
                never those of the machine.\
                """)
            .example("format_date(DATE '2026-02-07')", "'2026-02-07'")
            .example("format_date(DATE '2026-02-07', 'd/M/yyyy')", "'7/2/2026'")
            .example("format_date(DATE '2026-02-07', 'EEEE, d MMMM yyyy')", "'Saturday, 7 February 2026'")
            .example("format_date(DATE '2026-11-30', 'yyyyMMdd')", "'20261130'")
            .example("format_date(DATE '2026-02-07', 'de: EEEE, d. MMMM yyyy')", "'Samstag, 7. Februar 2026'")
            .done();

    public static final FunctionDef YEAR = part("year", "The year.", "2026", "2024");
    public static final FunctionDef MONTH = part("month", "The month, 1 to 12.", "2", "2");
    public static final FunctionDef DAY = part("day", "The day of the month, 1 to 31.", "7", "29");
    public static final FunctionDef WEEKDAY =
            part("weekday", "The day of the week, Monday 1 to Sunday 7 (ISO 8601).", "6", "4");

    private static FunctionDef part(String name, String about, String value, String inLeapYear) {
        return define(Group.DATE, name, date("date"))
                .gives(Result.INTEGER)
                .about(about)
                .example(name + "(DATE '2026-02-07')", value)
                .example(name + "(DATE '2024-02-29')", inLeapYear)
                .example(name + "(DATE '0001-01-01')", "1")
                .done();
    }

    public static final FunctionDef ADD_DAYS = define(Group.DATE, "add_days", date("date"), integer("days"))
            .gives(Result.DATE)
            .about("So many days later, or earlier for a negative number. Null outside the years 0001 to 9999.")
            .example("add_days(DATE '2024-02-28', 2)", "DATE '2024-03-01'")
            .example("add_days(DATE '2026-01-01', -1)", "DATE '2025-12-31'")
            .example("add_days(DATE '9999-12-31', 1)", "NULL")
            .done();

    public static final FunctionDef DAYS_BETWEEN = define(Group.DATE, "days_between", date("start"), date("end"))
            .gives(Result.INTEGER)
            .about("How many days `end` is after `start`; negative when it is before.")
            .example("days_between(DATE '2024-02-28', DATE '2024-03-01')", "2")
            .example("days_between(DATE '2026-02-07', DATE '2026-02-07')", "0")
            .example("days_between(DATE '2026-03-01', DATE '2026-02-28')", "-1")
            .done();

    public static final FunctionDef SERIAL_TO_DATE = define(
                    Group.DATE, "serial_to_date", integer("serial"), optional(fixed(integer("base"))))
            .gives(Result.DATE)
            .about("""
                The day that a spreadsheet stores as a number. With base 1900, which it is when left out, 1 is
                1900-01-01, and 60, a 29 February that never was, gives null; with base 1904, 0 is 1904-01-01. Null
                for other numbers, and beyond the year 9999.\
                """)
            .example("serial_to_date(1)", "DATE '1900-01-01'")
            .example("serial_to_date(60)", "NULL")
            .example("serial_to_date(61)", "DATE '1900-03-01'")
            .example("serial_to_date(46060)", "DATE '2026-02-07'")
            .example("serial_to_date(0, 1904)", "DATE '1904-01-01'")
            .done();

    static final FunctionDef WEEK = define(Group.DATE, "week", date("date"))
            .gives(Result.INTEGER)
            .about("The number of the week, 1 to 53: weeks begin on Monday, week 1 has the first Thursday (ISO 8601).")
            .example("week(DATE '2026-02-07')", "6")
            .example("week(DATE '2021-01-03')", "53")
            .example("week(DATE '2024-12-30')", "1")
            .done();

    public static final FunctionDef ADD_MONTHS = define(Group.DATE, "add_months", date("date"), integer("months"))
            .gives(Result.DATE)
            .about("""
                The same day so many months later, or earlier for a negative number; the last day of the month where it
                has not so many. Null outside the years 0001 to 9999.\
                """)
            .example("add_months(DATE '2024-01-31', 1)", "DATE '2024-02-29'")
            .example("add_months(DATE '2026-02-07', -14)", "DATE '2024-12-07'")
            .example("add_months(DATE '9999-12-01', 1)", "NULL")
            .done();

    static final FunctionDef LAST_DAY = define(Group.DATE, "last_day", date("date"))
            .gives(Result.DATE)
            .about("The last day of the month.")
            .example("last_day(DATE '2024-02-07')", "DATE '2024-02-29'")
            .example("last_day(DATE '2100-02-01')", "DATE '2100-02-28'")
            .example("last_day(DATE '9999-12-31')", "DATE '9999-12-31'")
            .done();

    static final FunctionDef WORKING_DAYS = define(
                    Group.DATE,
                    "working_days",
                    date("start"),
                    date("end"),
                    optional(list("holidays")),
                    optional(list("weekend")))
            .gives(Result.INTEGER)
            .about("""
                How many working days there are from `start` to `end`, both counted: days that are neither in
                `weekend` (numbers as of `weekday`; 6 and 7 when left out) nor in `holidays`. A holiday counts once,
                also when it is listed twice, and not at all on a weekend. The negative number of the same days when
                `end` is before `start`.\
                """)
            .example("working_days(DATE '2026-02-06', DATE '2026-02-09')", "2")
            .example("working_days(DATE '2026-02-06', DATE '2026-02-09', ARRAY[DATE '2026-02-09'])", "1")
            .example("working_days(DATE '2026-02-07', DATE '2026-02-07')", "0")
            .example("working_days(DATE '2026-02-09', DATE '2026-02-06')", "-2")
            .example("working_days(DATE '2026-02-06', DATE '2026-02-09', ARRAY[DATE '2026-02-07'], ARRAY[5])", "2")
            .done();

    static final List<FunctionDef> ALL = List.of(
            TO_DATE,
            FORMAT_DATE,
            YEAR,
            MONTH,
            DAY,
            WEEKDAY,
            WEEK,
            ADD_DAYS,
            ADD_MONTHS,
            LAST_DAY,
            DAYS_BETWEEN,
            WORKING_DAYS,
            SERIAL_TO_DATE);
}
