package fixshelf.profile;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/// Whether a value was odd, and whether what was made of it is rid of that.
final class Cure {
    private static final int FIRST_YEAR = 1990;
    private static final int LAST_YEAR = 2060;

    private final Finding finding;
    private final Set<String> odd;
    private final Set<String> oddAnyhow = new HashSet<>();
    private final Map<String, Layout> known = Layout.cache();
    private final String usual;

    Cure(ColumnLook column, Finding finding) {
        this.finding = finding;
        this.odd = new HashSet<>(finding.values());
        column.findings().stream()
                .filter(f -> f.oddity() != Oddity.REPEATS && !f.oddity().isOfWholeColumn())
                .forEach(f -> oddAnyhow.addAll(f.values()));
        this.usual = column.commonest().stream()
                .map(ColumnLook.Common::value)
                .filter(v -> !odd.contains(v))
                .findFirst()
                .orElse("");
    }

    /// Whether a fix that changes single values can help.
    static boolean isKnown(Oddity oddity) {
        return oddity.isOfCharacters()
                || switch (oddity) {
                    case WORDS_FOR_MISSING,
                            COMMA_IN_NUMBERS,
                            MARKS_IN_NUMBERS,
                            UNITS,
                            SERIAL_DAYS,
                            SERIALS,
                            LAYOUTS,
                            UNLIKE,
                            EMPTY_PARTS,
                            SPELLINGS -> true;
                    default -> false;
                };
    }

    boolean isOdd(String value) {
        return odd.contains(value)
                || finding.oddity().isOfCharacters() && Characters.odd(value).contains(finding.oddity());
    }

    /// Whether there is something odd about a value, whatever it is, so that a change of it is no harm.
    boolean isOddAnyhow(String value) {
        return oddAnyhow.contains(value)
                || !value.isEmpty() && !Characters.odd(value).isEmpty();
    }

    /// Whether a value that had odd characters has none any more, and still says the same.
    boolean isCleaned(String value, @Nullable Object result) {
        return isOddAnyhow(value)
                && result instanceof String text
                && !text.isEmpty()
                && Characters.odd(text).isEmpty()
                && keeps(value, text);
    }

    boolean isRid(String value, @Nullable Object result) {
        Oddity oddity = finding.oddity();
        if (oddity == Oddity.WORDS_FOR_MISSING) {
            return result == null;
        }
        if (oddity == Oddity.BLANK_TEXTS) {
            return result == null || result.equals("");
        }
        if (result == null || result.equals("")) {
            return false;
        }
        if (oddity.isOfCharacters()) {
            return result instanceof String text && !Characters.odd(text).contains(oddity) && keeps(value, text);
        }
        return switch (oddity) {
            case COMMA_IN_NUMBERS -> isNumber(result) && isThousand(value, result);
            case MARKS_IN_NUMBERS, UNITS -> isNumber(result);
            case SERIAL_DAYS, SERIALS -> isDay(result);
            case LAYOUTS -> result instanceof LocalDate || result instanceof LocalDateTime || isLike(result);
            case UNLIKE -> isLike(result);
            case EMPTY_PARTS ->
                result instanceof String text
                        && !Lists.hasEmptyPart(text, finding.detail().charAt(0));
            case SPELLINGS ->
                result instanceof String text
                        && !odd.contains(text)
                        && Spellings.fold(text).equals(Spellings.fold(value));
            default -> false;
        };
    }

    /// Whether the letters and digits are still there: a fix that empties a value, or makes another of it, is no cure
    /// for its blanks.
    private static boolean keeps(String value, String result) {
        return inked(result).equals(inked(value))
                || Characters.odd(value).contains(Oddity.MARKUP)
                || Characters.odd(value).contains(Oddity.WRONG_ENCODING);
    }

    private static String inked(String text) {
        StringBuilder out = new StringBuilder();
        text.codePoints().filter(Character::isLetterOrDigit).forEach(out::appendCodePoint);
        return out.toString();
    }

    private boolean isNumber(Object result) {
        return result instanceof Number
                || result instanceof String text
                        && (Layout.of(text, known).kind() == Layout.Kind.WHOLE
                                || Layout.of(text, known).kind() == Layout.Kind.DECIMAL);
    }

    /// What has commas between thousands keeps all its digits.
    private static boolean isThousand(String value, Object result) {
        String bare = ColumnTally.stripped(value).replace(",", "");
        boolean thousands = ColumnTally.stripped(value).matches("[-+]?[0-9]{1,3}(,[0-9]{3})+(\\.[0-9]+)?");
        return !thousands || isSame(bare, result);
    }

    private static boolean isDay(Object result) {
        int year = result instanceof LocalDate day
                ? day.getYear()
                : result instanceof LocalDateTime time ? time.getYear() : 0;
        if (result instanceof String text) {
            year = Days.read(text).map(r -> r.day().getYear()).orElse(0);
        }
        return year >= FIRST_YEAR && year <= LAST_YEAR;
    }

    private boolean isLike(Object result) {
        return result instanceof String text && Layout.shape(text).equals(Layout.shape(ColumnTally.stripped(usual)));
    }

    /// Whether the result says what the value said: the same text, number, or day.
    static boolean isSame(String value, Object result) {
        if (result.toString().equals(value)) {
            return true;
        }
        if (!(result instanceof Number)) {
            return false;
        }
        try {
            return new BigDecimal(value).compareTo(new BigDecimal(result.toString())) == 0;
        } catch (NumberFormatException e) {
            return false;
        }
    }
}
