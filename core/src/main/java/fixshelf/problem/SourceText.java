package fixshelf.problem;

/// A named text that problems can point into: a page, a typed expression, a data file's beginning.
public record SourceText(String name, String text) {

    /// A place in a text. `line` and `column` are 1-based, the column counts code points.
    public record Position(int line, int column) {}

    /// The line and column of an offset; an offset past the end is the end.
    public Position position(int offset) {
        int end = Math.min(offset, text.length());
        int line = 1;
        int lineStart = 0;
        for (int i = 0; i < end; i++) {
            if (text.charAt(i) == '\n') {
                line++;
                lineStart = i + 1;
            }
        }
        return new Position(line, text.codePointCount(lineStart, end) + 1);
    }

    /// The offset at which a line begins, or the end of the text where there is no such line.
    public int offsetOfLine(int line) {
        int offset = 0;
        for (int i = 1; i < line; i++) {
            int next = text.indexOf('\n', offset);
            if (next < 0) {
                return text.length();
            }
            offset = next + 1;
        }
        return offset;
    }

    /// The offset of a 1-based line and a 1-based column counted in UTF-16 units, as parsers report it.
    public int offset(int line, int column) {
        return Math.min(text.length(), offsetOfLine(line) + Math.max(0, column - 1));
    }

    /// The whole line around an offset, without its line end.
    public String lineAt(int offset) {
        int at = Math.min(offset, text.length());
        int start = text.lastIndexOf('\n', at - 1) + 1;
        int end = text.indexOf('\n', at);
        return text.substring(start, end < 0 ? text.length() : end);
    }
}
