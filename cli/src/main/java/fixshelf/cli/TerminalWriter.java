package fixshelf.cli;

import java.io.FilterWriter;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.Writer;

/// Lets through what a terminal shows, and no sign that a terminal obeys: words of a page may come from anybody.
/// Control characters, and those that turn the direction of writing, become `�`.
final class TerminalWriter extends FilterWriter {
    private TerminalWriter(Writer out) {
        super(out);
    }

    static PrintWriter over(Writer out) {
        return new PrintWriter(new TerminalWriter(out), true);
    }

    @Override
    public void write(int c) throws IOException {
        out.write(shown((char) c));
    }

    @Override
    public void write(char[] text, int from, int length) throws IOException {
        char[] shown = new char[length];
        for (int i = 0; i < length; i++) {
            shown[i] = shown(text[from + i]);
        }
        out.write(shown, 0, length);
    }

    @Override
    public void write(String text, int from, int length) throws IOException {
        write(text.toCharArray(), from, length);
    }

    private static char shown(char c) {
        boolean obeyed = Character.isISOControl(c) && c != '\n' && c != '\t' && c != '\r'
                || c >= '\u202A' && c <= '\u202E'
                || c >= '\u2066' && c <= '\u2069';
        return obeyed ? '\uFFFD' : c;
    }
}
