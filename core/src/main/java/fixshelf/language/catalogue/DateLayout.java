package fixshelf.language.catalogue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// How a day is written: the letters of Unicode's date patterns (UTS #35, part 4) that name a year, month, day or
/// weekday, an hour (0 to 23), minute, second or fraction of one, and signs that stand for themselves. Words stand in
/// `'…'`. Names are English, or of the language whose two letters and a colon stand before the layout, as `fr:`.
public record DateLayout(CalendarNames names, List<Part> parts) {
    private static final Pattern LANGUAGE = Pattern.compile("((?!([a-z])\\2)[a-z]{2}): *(.*)", Pattern.DOTALL);

    private static final String KNOWN =
            "Known: yyyy, M, MM, MMM, MMMM, d, dd, EEE, EEEE, H, HH, mm, ss, S to SSSSSS; words stand in '…'.";

    public DateLayout {
        parts = List.copyOf(parts);
    }

    /// A part of a layout.
    public sealed interface Part {
        /// Text that stands as it is.
        record Plain(String text) implements Part {}

        /// A field.
        record Value(Field field) implements Part {}
    }

    /// What a field says, and the fewest and most digits that it takes; 0 for a name.
    public enum Field {
        YEAR("yyyy", 4, 4),
        MONTH("M", 1, 2),
        MONTH_TWO("MM", 2, 2),
        MONTH_SHORT("MMM", 0, 0),
        MONTH_NAME("MMMM", 0, 0),
        DAY("d", 1, 2),
        DAY_TWO("dd", 2, 2),
        WEEKDAY_SHORT("EEE", 0, 0),
        WEEKDAY_NAME("EEEE", 0, 0),
        HOUR("H", 1, 2),
        HOUR_TWO("HH", 2, 2),
        MINUTE_TWO("mm", 2, 2),
        SECOND_TWO("ss", 2, 2),
        TENTHS("S", 1, 1),
        HUNDREDTHS("SS", 2, 2),
        MILLIS("SSS", 3, 3),
        FOUR_PLACES("SSSS", 4, 4),
        FIVE_PLACES("SSSSS", 5, 5),
        MICROS("SSSSSS", 6, 6);

        private final String letters;
        public final int fewest;
        public final int most;

        Field(String letters, int fewest, int most) {
            this.letters = letters;
            this.fewest = fewest;
            this.most = most;
        }

        public boolean isMonth() {
            return this == MONTH || this == MONTH_TWO || this == MONTH_SHORT || this == MONTH_NAME;
        }

        boolean isDay() {
            return this == DAY || this == DAY_TWO;
        }

        boolean isWeekday() {
            return this == WEEKDAY_SHORT || this == WEEKDAY_NAME;
        }

        boolean isTime() {
            return this == HOUR || this == HOUR_TWO || this == MINUTE_TWO || this == SECOND_TWO || isFraction();
        }

        /// Whether it is a fraction of a second.
        public boolean isFraction() {
            return kind() == 'S';
        }

        /// What it is a field of: the letter that it is written with.
        public char kind() {
            return letters.charAt(0);
        }

        /// Whether it is written in digits.
        public boolean isDigits() {
            return this == YEAR || this == MONTH || this == MONTH_TWO || isDay() || isTime();
        }
    }

    /// What a layout is for.
    public enum Use {
        READ_DATE,
        WRITE_DATE,
        READ_TIME,
        WRITE_TIME;

        boolean isReading() {
            return this == READ_DATE || this == READ_TIME;
        }

        boolean isTimed() {
            return this == READ_TIME || this == WRITE_TIME;
        }
    }

    /// Why a layout will not do; empty when it will.
    public static Optional<String> problemWith(String layout, Use use) {
        Matcher named = LANGUAGE.matcher(layout);
        if (named.matches() && CalendarNames.find(named.group(1)).isEmpty()) {
            return Optional.of("The names of months in " + named.group(1) + " are not known. Known: "
                    + String.join(", ", CalendarNames.languages()) + ".");
        }
        List<Part> parts = new ArrayList<>();
        Optional<String> problem = parse(named.matches() ? named.group(3) : layout, parts);
        return problem.isPresent() ? problem : problemWith(parts, use);
    }

    private static Optional<String> problemWith(List<Part> parts, Use use) {
        List<Field> fields = fields(parts);
        if (!use.isTimed() && fields.stream().anyMatch(Field::isTime)) {
            return Optional.of("A day has no hours: H, mm, ss and S are for to_timestamp and format_timestamp.");
        }
        if (!use.isReading()) {
            return Optional.empty();
        }
        boolean whole = fields.stream().map(Field::kind).distinct().count() == fields.size()
                && fields.contains(Field.YEAR)
                && fields.stream().anyMatch(Field::isMonth)
                && fields.stream().anyMatch(Field::isDay);
        if (!whole || fields.stream().anyMatch(Field::isWeekday)) {
            String hours =
                    use.isTimed() ? "may have one hour, minute, second and fraction of a second" : "nothing else";
            return Optional.of("To be read, a layout has one year, one month and one day, and " + hours + ".");
        }
        if (fields.stream().anyMatch(Field::isFraction) && !fields.contains(Field.SECOND_TWO)) {
            return Optional.of("A fraction of a second, S, needs its second, ss.");
        }
        for (int i = 0; i + 1 < parts.size(); i++) {
            boolean open = parts.get(i) instanceof Part.Value(Field a) && (!a.isDigits() || a.fewest < a.most);
            if (open && parts.get(i + 1) instanceof Part.Value) {
                return Optional.of(
                        "Where a field of open length ends is not clear: put a sign after it, or use dd, MM.");
            }
        }
        return Optional.empty();
    }

    private static List<Field> fields(List<Part> parts) {
        List<Field> fields = new ArrayList<>();
        for (Part part : parts) {
            if (part instanceof Part.Value(Field field)) {
                fields.add(field);
            }
        }
        return fields;
    }

    /// Reads a layout that has no problem.
    public static DateLayout of(String layout) {
        Matcher named = LANGUAGE.matcher(layout);
        List<Part> parts = new ArrayList<>();
        Optional<String> problem = parse(named.matches() ? named.group(3) : layout, parts);
        if (problem.isPresent()) {
            throw new IllegalArgumentException(problem.get());
        }
        CalendarNames names =
                named.matches() ? CalendarNames.find(named.group(1)).orElseThrow() : CalendarNames.ENGLISH;
        return new DateLayout(names, parts);
    }

    private static Optional<String> parse(String layout, List<Part> parts) {
        int at = 0;
        while (at < layout.length()) {
            char c = layout.charAt(at);
            if (c == '\'') {
                int end = layout.indexOf('\'', at + 1);
                if (end < 0) {
                    return Optional.of("A word in the layout is not closed with '.");
                }
                parts.add(new Part.Plain(end == at + 1 ? "'" : layout.substring(at + 1, end)));
                at = end + 1;
            } else if (c < 128 && Character.isLetter(c)) {
                int end = at;
                while (end < layout.length() && layout.charAt(end) == c) {
                    end++;
                }
                String letters = layout.substring(at, end);
                Optional<Field> field = field(letters);
                if (field.isEmpty()) {
                    String hint = letters.equals("yy") ? "A year of two digits is a guess. " : "";
                    return Optional.of(hint + "A layout has no " + letters + ". " + KNOWN);
                }
                parts.add(new Part.Value(field.get()));
                at = end;
            } else {
                parts.add(new Part.Plain(layout.substring(at, at + Character.charCount(layout.codePointAt(at)))));
                at += Character.charCount(layout.codePointAt(at));
            }
        }
        return parts.isEmpty() ? Optional.of("The layout is empty. " + KNOWN) : Optional.empty();
    }

    private static Optional<Field> field(String letters) {
        for (Field field : Field.values()) {
            if (field.letters.equals(letters)) {
                return Optional.of(field);
            }
        }
        return Optional.empty();
    }
}
