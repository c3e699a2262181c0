package fixshelf.language;

import fixshelf.language.Regex.Range;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntPredicate;

/// A general category of Unicode, as a pattern names it: `\p{L}`.
///
/// Languages that know the categories write the name, the others the ranges of this Java's Unicode version. They can
/// disagree only on characters that were assigned later than the older of the two versions.
public enum UnicodeClass {
    L(Character::isLetter),
    LU(c -> Character.getType(c) == Character.UPPERCASE_LETTER),
    LL(c -> Character.getType(c) == Character.LOWERCASE_LETTER),
    M(c -> isOneOf(c, Character.NON_SPACING_MARK, Character.ENCLOSING_MARK, Character.COMBINING_SPACING_MARK)),
    N(c -> isOneOf(c, Character.DECIMAL_DIGIT_NUMBER, Character.LETTER_NUMBER, Character.OTHER_NUMBER)),
    ND(c -> Character.getType(c) == Character.DECIMAL_DIGIT_NUMBER),
    P(c -> isOneOf(
            c,
            Character.CONNECTOR_PUNCTUATION,
            Character.DASH_PUNCTUATION,
            Character.START_PUNCTUATION,
            Character.END_PUNCTUATION,
            Character.INITIAL_QUOTE_PUNCTUATION,
            Character.FINAL_QUOTE_PUNCTUATION,
            Character.OTHER_PUNCTUATION)),
    Z(c -> isOneOf(c, Character.SPACE_SEPARATOR, Character.LINE_SEPARATOR, Character.PARAGRAPH_SEPARATOR));

    private final List<Range> ranges;

    UnicodeClass(IntPredicate member) {
        List<Range> found = new ArrayList<>();
        int first = -1;
        for (int c = 0; c <= Character.MAX_CODE_POINT + 1; c++) {
            boolean in = c <= Character.MAX_CODE_POINT && member.test(c);
            if (in && first < 0) {
                first = c;
            } else if (!in && first >= 0) {
                found.add(new Range(first, c - 1));
                first = -1;
            }
        }
        ranges = List.copyOf(found);
    }

    private static boolean isOneOf(int c, byte... types) {
        for (byte type : types) {
            if (Character.getType(c) == type) {
                return true;
            }
        }
        return false;
    }

    /// The name inside `\p{…}`.
    public String label() {
        return name().charAt(0) + name().substring(1).toLowerCase(java.util.Locale.ROOT);
    }

    /// Its code points.
    public List<Range> ranges() {
        return ranges;
    }

    static Optional<UnicodeClass> find(String label) {
        for (UnicodeClass candidate : values()) {
            if (candidate.label().equals(label)) {
                return Optional.of(candidate);
            }
        }
        return Optional.empty();
    }
}
