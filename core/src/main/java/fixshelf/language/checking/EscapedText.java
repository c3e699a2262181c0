package fixshelf.language.checking;

import java.util.Optional;

/// Text in which characters stand as their Unicode numbers: `U&'a\0009'` with four hexadecimal digits,
/// `U&'\+01F600'` with six, `\\` for a backslash (SQL standard, Unicode character string literal).
final class EscapedText {
    private EscapedText() {}

    /// Why a text, with `U&'` and `'`, cannot be read; empty when it can.
    static Optional<String> problemWith(String written) {
        String inside = inside(written);
        for (int at = inside.indexOf('\\'); at >= 0; ) {
            int end = end(inside, at);
            if (end < 0) {
                return Optional.of("After a backslash in U&'…' stand four hexadecimal digits, or + and six.");
            }
            int code = code(inside, at, end);
            if (code == 0 || code > Character.MAX_CODE_POINT) {
                return Optional.of("There is no such character: " + inside.substring(at, end) + ".");
            }
            at = inside.indexOf('\\', end);
        }
        boolean halves = read(written).codePoints().anyMatch(c -> c >= 0xD800 && c <= 0xDFFF);
        return halves ? Optional.of("Half of a pair of surrogates is no character.") : Optional.empty();
    }

    /// The text that a literal without problems means.
    static String read(String written) {
        String inside = inside(written);
        StringBuilder out = new StringBuilder();
        for (int at = 0; at < inside.length(); ) {
            char c = inside.charAt(at);
            int end = c == '\\' ? end(inside, at) : at + 1;
            if (c == '\\') {
                out.appendCodePoint(code(inside, at, end));
            } else {
                out.append(c);
            }
            at = end;
        }
        return out.toString();
    }

    private static String inside(String written) {
        return written.substring(written.indexOf('\'') + 1, written.length() - 1)
                .replace("''", "'");
    }

    /// Where the escape at that place ends; -1 when it is none.
    private static int end(String text, int at) {
        if (text.startsWith("\\", at + 1)) {
            return at + 2;
        }
        boolean far = text.startsWith("+", at + 1);
        int from = at + (far ? 2 : 1);
        int to = from + (far ? 6 : 4);
        boolean digits = to <= text.length()
                && text.substring(from, to).chars().allMatch(c -> c < 128 && Character.digit(c, 16) >= 0);
        return digits ? to : -1;
    }

    private static int code(String text, int at, int end) {
        String escape = text.substring(at + 1, end);
        return escape.equals("\\") ? '\\' : Integer.parseInt(escape.startsWith("+") ? escape.substring(1) : escape, 16);
    }
}
