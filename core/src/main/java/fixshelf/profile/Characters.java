package fixshelf.profile;

import fixshelf.type.Visible;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.EnumSet;
import java.util.Set;
import java.util.regex.Pattern;

/// What the characters of a text have about them that a reader overlooks.
final class Characters {
    private Characters() {}

    private static final Pattern MARKUP =
            Pattern.compile("&[A-Za-z]{2,8};|&#[0-9]{1,7};|&#[xX][0-9A-Fa-f]{1,6};|</?[A-Za-z][A-Za-z0-9]*[^<>]*>");

    private static final Charset WINDOWS = Charset.forName("windows-1252");

    /// Whether a text is UTF-8 that was read as Windows-1252: its bytes there are whole characters of UTF-8.
    private static boolean isReadTwice(String text) {
        try {
            ByteBuffer bytes = WINDOWS.newEncoder().encode(CharBuffer.wrap(text));
            StandardCharsets.UTF_8.newDecoder().decode(bytes);
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }

    /// Whether a character is a blank of any kind: white space, and every space that Unicode knows.
    static boolean isBlank(int c) {
        return c <= ' ' ? c == ' ' || c >= '\t' && c <= '\r' : c >= 0x80 && isRareBlank(c);
    }

    private static boolean isRareBlank(int c) {
        return c == 0x85
                || switch (Character.getType(c)) {
                    case Character.SPACE_SEPARATOR, Character.LINE_SEPARATOR, Character.PARAGRAPH_SEPARATOR -> true;
                    default -> false;
                };
    }

    /// Whether there is nothing in a text but blanks; the empty text has none.
    static boolean isBlank(String text) {
        return !text.isEmpty() && text.codePoints().allMatch(Characters::isBlank);
    }

    /// What is odd about the characters of a text that is not empty.
    static Set<Oddity> odd(String text) {
        Set<Oddity> odd = EnumSet.noneOf(Oddity.class);
        int length = text.length();
        boolean plain = true;
        int previous = -1;
        for (int i = 0; i < length; i++) {
            char c = text.charAt(i);
            if (c > '~' || c < ' ' || c == '&' || c == '<') {
                plain = false;
                break;
            }
            if (c == ' ' && previous == ' ') {
                odd.add(Oddity.DOUBLED_SPACES);
            }
            previous = c;
        }
        if (!plain) {
            odd.clear();
            rare(text, odd);
        }
        if (length > 0) {
            boolean edge = isBlank(text.codePointAt(0)) || isBlank(text.codePointBefore(length));
            if (edge && isBlank(text)) {
                odd.clear();
                odd.add(Oddity.BLANK_TEXTS);
            } else if (edge) {
                odd.add(Oddity.EDGE_SPACES);
            }
        }
        return odd;
    }

    private static void rare(String text, Set<Oddity> odd) {
        int previous = -1;
        boolean markup = false;
        boolean latin = false;
        for (int i = 0; i < text.length(); ) {
            int c = text.codePointAt(i);
            i += Character.charCount(c);
            if (c == ' ') {
                if (previous == ' ') {
                    odd.add(Oddity.DOUBLED_SPACES);
                }
            } else if (c == '&' || c == '<') {
                markup = true;
            } else if (c < ' ' || c > '~') {
                latin |= c >= 0xC2 && c <= 0xF4;
                if (c >= '\t' && c <= '\r' || c == 0x85 || c == 0x2028 || c == 0x2029) {
                    odd.add(Oddity.LINE_BREAKS);
                } else if (isBlank(c)) {
                    odd.add(Oddity.OTHER_SPACES);
                } else if (c == 0xFFFD) {
                    odd.add(Oddity.WRONG_ENCODING);
                } else if (Visible.isInvisible(c)) {
                    odd.add(Oddity.INVISIBLE);
                }
            }
            previous = c;
        }
        if (markup && MARKUP.matcher(text).find()) {
            odd.add(Oddity.MARKUP);
        }
        if (latin && isReadTwice(text)) {
            odd.add(Oddity.WRONG_ENCODING);
        }
    }
}
