package fixshelf.render;

/// Words of a page as they stand in a comment or a description of code. A page may come from anybody, so nothing in it
/// may end the comment: whatever begins a new line anywhere, and whatever cannot be seen, becomes a space.
public final class Comments {
    private Comments() {}

    /// The words on one line, without signs that cannot be seen.
    public static String words(String text) {
        StringBuilder out = new StringBuilder();
        text.codePoints().forEach(c -> out.appendCodePoint(isPlain(c) ? c : ' '));
        return out.toString().replaceAll(" +", " ").strip();
    }

    private static boolean isPlain(int c) {
        return switch (Character.getType(c)) {
            case Character.CONTROL,
                    Character.FORMAT,
                    Character.SURROGATE,
                    Character.PRIVATE_USE,
                    Character.UNASSIGNED,
                    Character.LINE_SEPARATOR,
                    Character.PARAGRAPH_SEPARATOR -> false;
            default -> true;
        };
    }

    /// A line of its own, with its end: `-- words`. Some tools cut SQL at every semicolon, so none stands in it.
    ///
    /// @param sign how a comment begins in the language
    public static String line(String sign, String text) {
        String words = words(text);
        // Spark takes a backslash at the end for a comment that goes on.
        String whole = words.endsWith("\\") ? words + "." : words;
        return sign + " " + (sign.equals("--") ? whole.replace(';', ',') : whole) + "\n";
    }

    /// A description of a Python function or module. A quotation mark at its end would be taken for a part of the
    /// marks that close it.
    public static String docstring(String text) {
        String words = words(text).replace("\\", "\\\\").replace("\"\"\"", "'''");
        return "\"\"\"" + words + (words.endsWith("\"") ? " " : "") + "\"\"\"";
    }
}
