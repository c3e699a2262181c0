package fixshelf.profile;

import java.util.List;
import java.util.Locale;

/// Something odd that was found, with how many rows have it.
///
/// @param column the column's place in the table, from 0; -1 for what is said of rows
/// @param rows how many rows have it; all of them for what is said of a whole column
/// @param detail what it is, where its kind does not say all: a unit, a layout, a list
/// @param values the values that have it, the first [#MOST_VALUES] of them
/// @param places the rows that have it, from 0, where it is said of rows
public record Finding(Oddity oddity, int column, long rows, String detail, List<String> values, List<Long> places) {
    public static final int MOST_VALUES = 5_000;

    public Finding {
        values = List.copyOf(values.subList(0, Math.min(MOST_VALUES, values.size())));
        places = List.copyOf(places);
    }

    static Finding of(Oddity oddity, int column, long rows, String detail, List<String> values) {
        return new Finding(oddity, column, rows, detail, values, List.of());
    }

    /// In words, with the number in front where there is one.
    public String sentence() {
        String number = oddity.isOfWholeColumn() ? "" : String.format(Locale.ROOT, "%,d ", rows);
        return number + (rows == 1 && !oddity.isOfWholeColumn() ? ofOne(words()) : words());
    }

    /// What is said of several rows, said of one.
    private static String ofOne(String words) {
        int end = words.indexOf(' ') < 0 ? words.length() : words.indexOf(' ');
        String verb = words.substring(0, end);
        String one =
                switch (verb) {
                    case "are" -> "is";
                    case "hold", "end", "begin", "count", "repeat", "look", "spell", "say" -> verb + "s";
                    default -> verb;
                };
        return one + words.substring(end);
    }

    private String words() {
        return switch (oddity) {
            case ERROR_CELLS -> oddity.words() + ", as " + detail;
            case UNITS -> "end in " + detail;
            case COMMA_IN_NUMBERS -> "hold a comma: " + detail;
            case MARKS_IN_NUMBERS -> "are numbers with marks, as " + detail;
            case WORDS_FOR_MISSING -> "are " + detail;
            case LAYOUTS -> "laid out as " + detail;
            case NO_DAY -> "are no day" + (rows == 1 ? ": " : ", as ") + detail;
            case NO_NUMBER -> "are no number" + (rows == 1 ? ": " : ", as ") + detail;
            case SERIALS, MIXED -> oddity.words() + ": " + detail;
            case UNLIKE -> "unlike " + detail;
            case NOT_ON_LIST -> "not on " + detail;
            case SPELLINGS, NEAR -> oddity.words() + ", as " + detail;
            case SERIAL_DAYS -> oddity.words() + (detail.isEmpty() ? "" : ": " + detail);
            case NAMES_BELOW -> oddity.words() + ": " + detail;
            case EMPTY_PARTS -> "with empty parts between " + detail;
            case TOTALS, RULERS, LEADING_ZEROS -> oddity.words() + (detail.isEmpty() ? "" : ", as " + detail);
            default -> oddity.words();
        };
    }
}
