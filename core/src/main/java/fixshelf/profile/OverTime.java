package fixshelf.profile;

import fixshelf.problem.Outcome;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.Period;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;

/// The values of a column by the days of another: the mean of numbers, else how many rows are filled.
public final class OverTime {
    private static final int MOST_BARS = 48;

    private final boolean numbers;
    private final Map<String, Optional<Days.Read>> known = new HashMap<>();
    private final Map<String, Layout> layouts = Layout.cache();
    private final Map<LocalDate, Sum> dayFirst = new TreeMap<>();
    private final Map<LocalDate, Sum> monthFirst = new TreeMap<>();
    private long readDayFirst;
    private long readMonthFirst;
    private long without;

    private OverTime(boolean numbers) {
        this.numbers = numbers;
    }

    /// The rows of a day, and what their numbers come to.
    private static final class Sum {
        private long rows;
        private double total;

        void add(double number, long n) {
            rows += n;
            total += number * n;
        }

        void add(Sum other) {
            rows += other.rows;
            total += other.total;
        }
    }

    /// A drawing of a column over the days of another; without bars where no day can be read.
    ///
    /// @param column the column whose values are drawn
    /// @param days the column that says when
    public static Outcome<Drawing> of(DataLook data, ColumnLook column, ColumnLook days) {
        boolean numbers =
                column.readsAs().startsWith("integer") || column.readsAs().startsWith("decimal");
        OverTime over = new OverTime(numbers);
        return DataLook.guarded(() -> {
            data.eachPair(days.index(), column.index(), over::add);
            return over.drawing(column.name(), days.name());
        });
    }

    private void add(String when, String value, long rows) {
        double number = numbers ? ColumnTally.amount(value, layouts) : 1;
        if (value.isBlank() || Double.isNaN(number)) {
            return;
        }
        Optional<Days.Read> read = known.computeIfAbsent(when.strip(), Days::read);
        if (read.isEmpty()) {
            without += rows;
            return;
        }
        LocalDate day = read.get().day();
        Days.Order order = read.get().order();
        readDayFirst += order == Days.Order.DAY_FIRST ? rows : 0;
        readMonthFirst += order == Days.Order.MONTH_FIRST ? rows : 0;
        LocalDate turned = order == Days.Order.EITHER
                ? LocalDate.of(day.getYear(), day.getDayOfMonth(), day.getMonthValue())
                : day;
        dayFirst.computeIfAbsent(day, _ -> new Sum()).add(number, rows);
        monthFirst.computeIfAbsent(turned, _ -> new Sum()).add(number, rows);
    }

    /// A length of time that is one bar.
    private enum Part {
        DAY("day", Period.ofDays(1), day -> day),
        WEEK("week", Period.ofWeeks(1), day -> day.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY))),
        MONTH("month", Period.ofMonths(1), day -> day.withDayOfMonth(1)),
        YEAR("year", Period.ofYears(1), day -> day.withDayOfYear(1)),
        DECADE("ten years", Period.ofYears(10), day -> LocalDate.of(Math.max(1, day.getYear() / 10 * 10), 1, 1));

        private final String words;
        private final Period length;
        private final UnaryOperator<LocalDate> begin;

        Part(String words, Period length, UnaryOperator<LocalDate> begin) {
            this.words = words;
            this.length = length;
            this.begin = begin;
        }

        /// The day on which the part begins that a day is in.
        LocalDate of(LocalDate day) {
            return begin.apply(day);
        }

        LocalDate after(LocalDate part) {
            return of(part.plus(length));
        }

        String shown(LocalDate part) {
            String day = part.toString();
            return this == MONTH ? day.substring(0, 7) : this == YEAR || this == DECADE ? day.substring(0, 4) : day;
        }

        static Part fitting(LocalDate first, LocalDate last) {
            long days = ChronoUnit.DAYS.between(first, last) + 1;
            long months = ChronoUnit.MONTHS.between(first.withDayOfMonth(1), last.withDayOfMonth(1)) + 1;
            return days <= MOST_BARS
                    ? DAY
                    : days <= 7 * (MOST_BARS - 1)
                            ? WEEK
                            : months <= MOST_BARS
                                    ? MONTH
                                    : last.getYear() - first.getYear() < MOST_BARS ? YEAR : DECADE;
        }
    }

    private Drawing drawing(String column, String days) {
        Map<LocalDate, Sum> byDay = readMonthFirst > readDayFirst ? monthFirst : dayFirst;
        String left = without == 0
                ? ""
                : String.format(Locale.ROOT, " (%,d %s no day)", without, without == 1 ? "row has" : "rows have");
        if (byDay.isEmpty()) {
            return new Drawing(column + ", by " + days + left, List.of(), "", "");
        }
        TreeMap<LocalDate, Sum> sorted = new TreeMap<>(byDay);
        Part part = Part.fitting(sorted.firstKey(), sorted.lastKey());
        TreeMap<LocalDate, Sum> parts = new TreeMap<>();
        sorted.forEach((day, sum) ->
                parts.computeIfAbsent(part.of(day), _ -> new Sum()).add(sum));
        List<Drawing.Bar> bars = new ArrayList<>();
        for (LocalDate at = parts.firstKey(); !at.isAfter(parts.lastKey()); at = part.after(at)) {
            Sum sum = parts.getOrDefault(at, new Sum());
            double mean = sum.rows == 0 ? 0 : sum.total / sum.rows;
            String label =
                    String.format(Locale.ROOT, "%s: %,d %s", part.shown(at), sum.rows, sum.rows == 1 ? "row" : "rows")
                            + (numbers && sum.rows > 0 ? String.format(Locale.ROOT, ", mean %,.2f", mean) : "");
            bars.add(new Drawing.Bar(label, numbers ? mean : sum.rows, false));
        }
        return new Drawing(
                column + ", " + (numbers ? "mean" : "filled") + " by " + part.words + " of " + days + left,
                bars,
                part.shown(parts.firstKey()),
                part.shown(parts.lastKey()));
    }
}
