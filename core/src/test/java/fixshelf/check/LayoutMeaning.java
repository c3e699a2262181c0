package fixshelf.check;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.TextStyle;
import java.time.temporal.ChronoField;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAccessor;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// Days and times read and written in a layout, in plain Java.
final class LayoutMeaning {
    private static final Pattern PARTS = Pattern.compile("'([^']*)'|([A-Za-z])\\2*|[^A-Za-z']");

    private final Locale locale;
    private final String layout;

    private LayoutMeaning(String written) {
        boolean named = written.matches("[a-z][a-z]: .*") && written.charAt(0) != written.charAt(1);
        locale = named ? Locale.of(written.substring(0, 2)) : Locale.ENGLISH;
        layout = named ? written.substring(3).stripLeading() : written;
    }

    /// A day, or a time where `day` is not said, by the first layout that gives one.
    static @Nullable Object read(String text, List<String> layouts, boolean day) {
        for (String layout : layouts) {
            LocalDateTime time = new LayoutMeaning(layout).read(text);
            if (time != null) {
                return day ? time.toLocalDate() : time;
            }
        }
        return null;
    }

    static String write(LocalDateTime time, String layout) {
        LayoutMeaning meaning = new LayoutMeaning(layout);
        Matcher part = PARTS.matcher(meaning.layout);
        StringBuilder out = new StringBuilder();
        while (part.find()) {
            out.append(meaning.written(part, time));
        }
        return out.toString();
    }

    private String written(Matcher part, LocalDateTime time) {
        if (part.group(1) != null) {
            return part.group(1).isEmpty() ? "'" : part.group(1);
        }
        return switch (part.group()) {
            case "yyyy" -> String.format("%04d", time.getYear());
            case "M" -> "" + time.getMonthValue();
            case "MMM", "MMMM" -> name(time.getMonthValue(), part.group().length());
            case "d" -> "" + time.getDayOfMonth();
            case "EEE" -> time.getDayOfWeek().getDisplayName(TextStyle.SHORT, locale);
            case "EEEE" -> time.getDayOfWeek().getDisplayName(TextStyle.FULL, locale);
            case "H" -> "" + time.getHour();
            case "S", "SS", "SSS", "SSSS", "SSSSS", "SSSSSS" ->
                String.format("%06d", time.getNano() / 1000)
                        .substring(0, part.group().length());
            case "MM", "dd", "HH", "mm", "ss" ->
                String.format("%02d", time.get(field(part.group().charAt(0))));
            default -> part.group();
        };
    }

    private static ChronoField field(char letter) {
        return switch (letter) {
            case 'M' -> ChronoField.MONTH_OF_YEAR;
            case 'd' -> ChronoField.DAY_OF_MONTH;
            case 'H' -> ChronoField.HOUR_OF_DAY;
            case 'm' -> ChronoField.MINUTE_OF_HOUR;
            default -> ChronoField.SECOND_OF_MINUTE;
        };
    }

    private String name(int month, int letters) {
        TemporalAccessor of = java.time.Month.of(month);
        return ((java.time.Month) of).getDisplayName(letters == 3 ? TextStyle.SHORT : TextStyle.FULL, locale);
    }

    private @Nullable LocalDateTime read(String text) {
        Matcher part = PARTS.matcher(layout);
        StringBuilder pattern = new StringBuilder();
        List<String> fields = new ArrayList<>();
        while (part.find()) {
            String letters = part.group();
            if (part.group(1) != null) {
                pattern.append(Pattern.quote(part.group(1).isEmpty() ? "'" : part.group(1)));
            } else if (part.group(2) == null) {
                pattern.append(Pattern.quote(letters));
            } else {
                fields.add(letters);
                boolean names = letters.startsWith("MMM");
                pattern.append('(')
                        .append(
                                names
                                        ? names(letters.length())
                                        : letters.length() == 1 ? "[0-9]{1,2}" : "[0-9]{" + letters.length() + "}")
                        .append(')');
            }
        }
        Matcher found = Pattern.compile(pattern.toString()).matcher(text);
        if (!found.matches()) {
            return null;
        }
        Map<Character, Integer> values = new HashMap<>();
        for (int i = 0; i < fields.size(); i++) {
            String said = found.group(i + 1);
            String letters = fields.get(i);
            values.put(
                    letters.charAt(0),
                    letters.startsWith("MMM")
                            ? month(said, letters.length())
                            : Integer.parseInt(letters.charAt(0) == 'S' ? (said + "00000").substring(0, 6) : said));
        }
        return Meaning.timeInCalendar(() -> LocalDate.of(values.get('y'), values.get('M'), values.get('d'))
                .atTime(values.getOrDefault('H', 0), values.getOrDefault('m', 0), values.getOrDefault('s', 0))
                .plus(values.getOrDefault('S', 0), ChronoUnit.MICROS));
    }

    private String names(int letters) {
        return IntStream.rangeClosed(1, 12)
                .mapToObj(m -> name(m, letters))
                .flatMap(n -> List.of(n, n.toLowerCase(locale), n.toUpperCase(locale)).stream())
                .map(Pattern::quote)
                .collect(Collectors.joining("|"));
    }

    private int month(String said, int letters) {
        return IntStream.rangeClosed(1, 12)
                .filter(m -> name(m, letters).equalsIgnoreCase(said))
                .findFirst()
                .orElseThrow();
    }
}
