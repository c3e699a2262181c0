package fixshelf.type;

import java.util.Locale;

/// Makes the characters visible that a reader would overlook.
public final class Visible {
    private Visible() {}

    /// Replaces space by `·`, tab by `→`, line feed by `¶`, carriage return by `␍`, no-break space by `⍽`, and any
    /// other blank, control or format character by its code point, as `‹200B›`.
    public static String mark(String text) {
        StringBuilder out = new StringBuilder(text.length() + 8);
        text.codePoints().forEach(c -> {
            switch (c) {
                case ' ' -> out.append('·');
                case '\t' -> out.append('→');
                case '\n' -> out.append('¶');
                case '\r' -> out.append('␍');
                case 0xA0 -> out.append('⍽');
                // Marks that stand in the text itself are told apart by their numbers.
                case '·', '→', '¶', '␍', '⍽', '‹' -> out.append(String.format(Locale.ROOT, "‹%02X›", c));
                default -> {
                    if (isInvisible(c)) {
                        out.append('‹')
                                .append(String.format(Locale.ROOT, "%02X", c))
                                .append('›');
                    } else {
                        out.appendCodePoint(c);
                    }
                }
            }
        });
        return out.toString();
    }

    /// As [#mark], but single spaces between other characters stay as they are: only odd ones are marked.
    public static String markOddities(String text) {
        String marked = mark(text);
        StringBuilder out = new StringBuilder(marked.length());
        for (int i = 0; i < marked.length(); i++) {
            boolean single = marked.charAt(i) == '·' && isInner(marked, i);
            out.append(single ? ' ' : marked.charAt(i));
        }
        return out.toString();
    }

    private static boolean isInner(String marked, int i) {
        return i > 0
                && i < marked.length() - 1
                && !isBlankMark(marked.charAt(i - 1))
                && !isBlankMark(marked.charAt(i + 1));
    }

    private static boolean isBlankMark(char c) {
        return "·→¶␍⍽".indexOf(c) >= 0;
    }

    /// Whether a code point leaves no ink: blanks, controls, formats, lone surrogates, private use.
    public static boolean isInvisible(int c) {
        if (c < 0x80) {
            return c <= ' ' || c == 0x7F;
        }
        return switch (Character.getType(c)) {
            case Character.SPACE_SEPARATOR,
                    Character.LINE_SEPARATOR,
                    Character.PARAGRAPH_SEPARATOR,
                    Character.CONTROL,
                    Character.FORMAT,
                    Character.SURROGATE,
                    Character.PRIVATE_USE -> true;
            default -> false;
        };
    }
}
