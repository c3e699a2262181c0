package fixshelf.profile;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// Days as they are written: which part is the year, the month, the day.
final class Days {
    private Days() {}

    private static final Map<String, Integer> MONTHS = Map.ofEntries(
            Map.entry("jan", 1),
            Map.entry("feb", 2),
            Map.entry("mar", 3),
            Map.entry("apr", 4),
            Map.entry("may", 5),
            Map.entry("jun", 6),
            Map.entry("jul", 7),
            Map.entry("aug", 8),
            Map.entry("sep", 9),
            Map.entry("oct", 10),
            Map.entry("nov", 11),
            Map.entry("dec", 12));

    /// The order in which day and month stand, where both are numbers and the year is not in front.
    enum Order {
        DAY_FIRST,
        MONTH_FIRST,
        /// Both could be.
        EITHER,
        /// It is written so that there is no doubt.
        CLEAR
    }

    /// A day with the order that it was read in; nothing where it is no day of the calendar.
    record Read(LocalDate day, Order order) {}

    /// What a text that is laid out as a day says.
    static Optional<Read> read(String text) {
        List<Integer> numbers = new ArrayList<>();
        int month = 0;
        int monthAt = -1;
        int i = 0;
        while (i < text.length() && numbers.size() < 3) {
            char c = text.charAt(i);
            int from = i;
            if (c >= '0' && c <= '9') {
                while (i < text.length() && text.charAt(i) >= '0' && text.charAt(i) <= '9') {
                    i++;
                }
                if (i - from > 4) {
                    return Optional.empty();
                }
                numbers.add(Integer.parseInt(text.substring(from, i)));
            } else if (Character.isLetter(c)) {
                while (i < text.length() && Character.isLetter(text.charAt(i))) {
                    i++;
                }
                String word = text.substring(from, Math.min(i, from + 3)).toLowerCase(Locale.ROOT);
                if (MONTHS.containsKey(word) && month == 0) {
                    month = MONTHS.get(word);
                    monthAt = numbers.size();
                }
            } else {
                i++;
            }
            if (month > 0 && numbers.size() == 2) {
                break;
            }
        }
        if (monthAt >= 0 && numbers.size() == 2) {
            return day(year(numbers.get(1)), month, numbers.get(0)).map(d -> new Read(d, Order.CLEAR));
        }
        if (numbers.size() < 3) {
            return Optional.empty();
        }
        int a = numbers.get(0);
        int b = numbers.get(1);
        if (a > 31) {
            return day(a, b, numbers.get(2)).map(d -> new Read(d, Order.CLEAR));
        }
        int c = year(numbers.get(2));
        Optional<LocalDate> dayFirst = day(c, b, a);
        Optional<LocalDate> monthFirst = day(c, a, b);
        if (dayFirst.isPresent()) {
            Order order = monthFirst.isEmpty() ? Order.DAY_FIRST : a == b ? Order.CLEAR : Order.EITHER;
            return Optional.of(new Read(dayFirst.get(), order));
        }
        return monthFirst.map(d -> new Read(d, Order.MONTH_FIRST));
    }

    private static int year(int written) {
        return written < 100 ? written + 2000 : written;
    }

    private static Optional<LocalDate> day(int year, int month, int day) {
        try {
            return year < 1 ? Optional.empty() : Optional.of(LocalDate.of(year, month, day));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }
}
