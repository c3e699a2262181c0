package fixshelf.language.pattern;

import fixshelf.type.Literals;
import java.util.stream.Collectors;

/// A pattern said in plain words: what stands before, what is looked for, what stands after. Signs are literal.
///
/// @param before text that stands right before, empty for none
/// @param after text that stands right after, empty for none
public record PatternHelp(String before, Inside inside, String after) {

    /// What is looked for.
    public enum Inside {
        ANYTHING("anything"),
        DIGITS("digits"),
        LETTERS("letters"),
        NO_SPACES("anything without spaces"),
        ELEMENT("a whole element between commas");

        private final String words;

        Inside(String words) {
            this.words = words;
        }

        @Override
        public String toString() {
            return words;
        }
    }

    /// The pattern; group 1 is what is looked for when something stands around it.
    public String pattern() {
        if (inside == Inside.ELEMENT) {
            return "(^|,)" + escaped(before) + set() + escaped(after) + "(,|$)";
        }
        return isBare() ? set() : escaped(before) + "(" + set() + ")" + escaped(after);
    }

    private boolean isBare() {
        return before.isEmpty() && after.isEmpty();
    }

    private String set() {
        return switch (inside) {
            case ANYTHING -> after.isEmpty() ? ".+" : "[^" + inSet(after.codePointAt(0)) + "]*";
            case DIGITS -> "[0-9]+";
            case LETTERS -> "[A-Za-zÀ-ÖØ-öø-ɏ]+";
            case NO_SPACES -> "[^ ]+";
            case ELEMENT -> "[^,]*";
        };
    }

    private static String inSet(int c) {
        return ("\\[]^-".indexOf(c) >= 0 ? "\\" : "") + Character.toString(c);
    }

    /// The text as a pattern that matches exactly it.
    public static String escaped(String text) {
        return text.codePoints()
                .mapToObj(c -> ("\\.[]{}()*+?^$|".indexOf(c) >= 0 ? "\\" : "") + Character.toString(c))
                .collect(Collectors.joining());
    }

    /// The call that gives what is looked for in `parameter`. Where plain functions can say it, no pattern is used,
    /// so that every language can.
    public String extraction(String parameter) {
        boolean plain = inside == Inside.ANYTHING && !before.isEmpty() && !after.isEmpty();
        if (plain) {
            return "text_between(" + parameter + ", " + Literals.print(before) + ", " + Literals.print(after) + ")";
        }
        String group = isBare() || inside == Inside.ELEMENT ? "" : ", 1";
        return "regexp_extract(" + parameter + ", " + Literals.print(pattern()) + group + ")";
    }
}
