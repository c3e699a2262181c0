package fixshelf.language.pattern;

import fixshelf.language.pattern.Regex.Range;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// A general category of Unicode, as a pattern names it: `\p{L}`.
///
/// Languages that know the categories write the name, the others the ranges of this Java's Unicode version. They can
/// disagree only on characters that were assigned later than the older of the two versions.
public enum UnicodeClass {
    L(Character::isLetter),
    LU(Character.UPPERCASE_LETTER),
    LL(Character.LOWERCASE_LETTER),
    LT(Character.TITLECASE_LETTER),
    LM(Character.MODIFIER_LETTER),
    LO(Character.OTHER_LETTER),
    M(Character.NON_SPACING_MARK, Character.ENCLOSING_MARK, Character.COMBINING_SPACING_MARK),
    MN(Character.NON_SPACING_MARK),
    MC(Character.COMBINING_SPACING_MARK),
    ME(Character.ENCLOSING_MARK),
    N(Character.DECIMAL_DIGIT_NUMBER, Character.LETTER_NUMBER, Character.OTHER_NUMBER),
    ND(Character.DECIMAL_DIGIT_NUMBER),
    NL(Character.LETTER_NUMBER),
    NO(Character.OTHER_NUMBER),
    P(
            Character.CONNECTOR_PUNCTUATION,
            Character.DASH_PUNCTUATION,
            Character.START_PUNCTUATION,
            Character.END_PUNCTUATION,
            Character.INITIAL_QUOTE_PUNCTUATION,
            Character.FINAL_QUOTE_PUNCTUATION,
            Character.OTHER_PUNCTUATION),
    PC(Character.CONNECTOR_PUNCTUATION),
    PD(Character.DASH_PUNCTUATION),
    PS(Character.START_PUNCTUATION),
    PE(Character.END_PUNCTUATION),
    PI(Character.INITIAL_QUOTE_PUNCTUATION),
    PF(Character.FINAL_QUOTE_PUNCTUATION),
    PO(Character.OTHER_PUNCTUATION),
    S(Character.MATH_SYMBOL, Character.CURRENCY_SYMBOL, Character.MODIFIER_SYMBOL, Character.OTHER_SYMBOL),
    SM(Character.MATH_SYMBOL),
    SC(Character.CURRENCY_SYMBOL),
    SK(Character.MODIFIER_SYMBOL),
    SO(Character.OTHER_SYMBOL),
    Z(Character.SPACE_SEPARATOR, Character.LINE_SEPARATOR, Character.PARAGRAPH_SEPARATOR),
    ZS(Character.SPACE_SEPARATOR),
    ZL(Character.LINE_SEPARATOR),
    ZP(Character.PARAGRAPH_SEPARATOR),
    CC(Character.CONTROL),
    CF(Character.FORMAT);

    private final IntPredicate member;
    private volatile @Nullable List<Range> ranges;

    UnicodeClass(IntPredicate member) {
        this.member = member;
    }

    UnicodeClass(int... types) {
        this(c -> IntStream.of(types).anyMatch(t -> t == Character.getType(c)));
    }

    private static List<Range> all(IntPredicate member) {
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
        return List.copyOf(found);
    }

    /// The name inside `\p{…}`.
    public String label() {
        return name().charAt(0) + name().substring(1).toLowerCase(java.util.Locale.ROOT);
    }

    /// Its code points, found when they are first asked for.
    public List<Range> ranges() {
        List<Range> known = ranges;
        if (known == null) {
            known = all(member);
            ranges = known;
        }
        return known;
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
