package fixshelf.profile;

import java.util.HashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// How a value is laid out: every digit as `9`, every run of letters as `a`, all other characters as they are. Two
/// values of one layout are read in one way.
///
/// @param text the layout itself
/// @param kind what values of this layout are
/// @param unit whether letters or a sign of a currency stand beside the digits
public record Layout(String text, Kind kind, boolean unit) {
    /// What values of a layout are.
    public enum Kind {
        WHOLE,
        DECIMAL,
        /// Thousands apart by commas: a reader that stops at the comma reads 12 for 12,345.
        COMMA,
        /// A number with another mark: a currency, a unit, parentheses, a sign behind it, other
        /// signs between thousands.
        MARKED,
        DAY,
        TIME,
        TEXT
    }

    private static final int LONGEST = 40;
    private static final Pattern WHOLE = Pattern.compile("[-+]?9+");
    private static final Pattern DECIMAL = Pattern.compile("[-+]?(9+\\.9*|\\.9+)");
    private static final Pattern COMMA = Pattern.compile("[-+]?9{1,3}(,999)+(\\.9+)?|[-+]?9+,9+");
    private static final String SIGNS = "[£$€¥%°]";
    private static final String BLANKS = "[ \u00A0\u2009\u202F]*";
    private static final Pattern MARKED = Pattern.compile("[(]?[-+\u2212]?" + BLANKS + SIGNS + "?" + BLANKS
            + "[-+\u2212]?(9+([.,]9*)?|9{1,3}([,.'\u2019 \u00A0\u2009\u202F]999)+([.,]9+)?)" + BLANKS + "(" + SIGNS
            + "|a\\.?)?" + BLANKS + "[-+)]?");
    private static final String DATE =
            "9999[-/.]99?[-/.]99?|99?[-/. ]99?[-/. ]9999|99?[-/.]99?[-/.]99|99?(a)?[-/. ]+a[.,]?[-/. ]+(9999|99)|a[.]? 99?(a)?,? 9999|a,? 99? a 9999";
    private static final Pattern DAY = Pattern.compile(DATE);
    private static final Pattern TIME =
            Pattern.compile("(" + DATE + ")(T|a|,? +)99?[:.]99([:.]99([.,]9+)?)? ?(a|[-+]99:?99)?");

    /// The layout of a text; one of [Kind#TEXT] for what is long or has no digit.
    ///
    /// @param known those that were met before, of one [#cache]
    public static Layout of(String text, Map<String, Layout> known) {
        String shape = shape(text);
        Layout layout = known.get(shape);
        if (layout == null) {
            layout = new Layout(shape);
            known.put(shape, layout);
        }
        return layout;
    }

    private Layout(String shape) {
        this(shape, kind(shape), hasUnit(shape));
    }

    static String shape(String text) {
        StringBuilder out = new StringBuilder(Math.min(text.length(), LONGEST));
        boolean letters = false;
        for (int i = 0; i < text.length() && out.length() < LONGEST; i++) {
            char c = text.charAt(i);
            boolean letter = c < 0x80 ? (c | 32) >= 'a' && (c | 32) <= 'z' : isLetter(c);
            if (letter) {
                if (!letters) {
                    out.append('a');
                }
            } else {
                out.append(c >= '0' && c <= '9' ? '9' : c);
            }
            letters = letter;
        }
        return out.toString();
    }

    private static boolean isLetter(char c) {
        return Character.isLetter(c) || Character.isSurrogate(c);
    }

    /// Whether there is nothing but digits and single blanks.
    boolean isDigits() {
        return text.chars().allMatch(c -> c == '9' || c == ' ');
    }

    private static boolean hasUnit(String shape) {
        return shape.indexOf('a') >= 0;
    }

    private static Kind kind(String shape) {
        if (shape.indexOf('9') < 0 || shape.length() >= LONGEST) {
            return Kind.TEXT;
        }
        if (WHOLE.matcher(shape).matches()) {
            return Kind.WHOLE;
        }
        if (DECIMAL.matcher(shape).matches()) {
            return Kind.DECIMAL;
        }
        if (COMMA.matcher(shape).matches()) {
            return Kind.COMMA;
        }
        if (DAY.matcher(shape).matches()) {
            return Kind.DAY;
        }
        Matcher time = TIME.matcher(shape);
        if (time.matches()) {
            return Kind.TIME;
        }
        return MARKED.matcher(shape).matches() ? Kind.MARKED : Kind.TEXT;
    }

    /// Where layouts that were met are kept, for [#of].
    public static Map<String, Layout> cache() {
        return new HashMap<>();
    }
}
