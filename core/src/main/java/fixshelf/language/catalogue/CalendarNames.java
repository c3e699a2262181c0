package fixshelf.language.catalogue;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;

/// What months and weekdays are called in a language, in full and in short, from January and from Monday.
///
/// They come with the program instead of from the machine, so that a layout means the same everywhere and next year.
/// Source: the Unicode CLDR; points after shortened names are left out.
public record CalendarNames(
        List<String> months, List<String> shortMonths, List<String> weekdays, List<String> shortWeekdays) {
    private static final Map<String, CalendarNames> ALL = read();

    static final CalendarNames ENGLISH = Objects.requireNonNull(ALL.get("en"));

    /// The names of a language by its two letters in ISO 639; empty where there are none.
    static Optional<CalendarNames> find(String language) {
        return Optional.ofNullable(ALL.get(language));
    }

    static List<String> languages() {
        return List.copyOf(ALL.keySet());
    }

    /// The names that a field takes; empty for a field of digits.
    public List<String> of(DateLayout.Field field) {
        return switch (field) {
            case MONTH_NAME -> months;
            case MONTH_SHORT -> shortMonths;
            case WEEKDAY_NAME -> weekdays;
            case WEEKDAY_SHORT -> shortWeekdays;
            case YEAR, MONTH, MONTH_TWO, DAY, DAY_TWO, HOUR, HOUR_TWO, MINUTE_TWO, SECOND_TWO -> List.of();
            case TENTHS, HUNDREDTHS, MILLIS, FOUR_PLACES, FIVE_PLACES, MICROS -> List.of();
        };
    }

    /// The ways in which a name may be written: as it is, in small letters, in capitals, with a first capital.
    public static List<String> writings(String name) {
        String small = name.toLowerCase(Locale.ROOT);
        String first = small.substring(0, 1).toUpperCase(Locale.ROOT) + small.substring(1);
        return List.of(name, small, name.toUpperCase(Locale.ROOT), first).stream()
                .distinct()
                .toList();
    }

    private static Map<String, CalendarNames> read() {
        Map<String, Map<String, List<String>>> byLanguage = new HashMap<>();
        try (InputStream file = CalendarNames.class.getResourceAsStream("calendar-names.txt")) {
            String text = new String(Objects.requireNonNull(file).readAllBytes(), StandardCharsets.UTF_8);
            text.lines().filter(l -> !l.startsWith("#")).forEach(line -> {
                List<String> words = new ArrayList<>(List.of(line.split(" ")));
                byLanguage
                        .computeIfAbsent(words.get(0), _ -> new HashMap<>())
                        .put(words.get(1), List.copyOf(words.subList(2, words.size())));
            });
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        Map<String, CalendarNames> all = new TreeMap<>();
        byLanguage.forEach((language, names) -> all.put(
                language, new CalendarNames(names.get("MMMM"), names.get("MMM"), names.get("EEEE"), names.get("EEE"))));
        return all;
    }
}
