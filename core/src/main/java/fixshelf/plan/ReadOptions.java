package fixshelf.plan;

import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.util.List;

/// How delimited text is read. All values are read as text.
///
/// @param path the file, relative to the shelf or absolute; may hold `{name}` of a parameter or of the environment
/// @param separator one character
/// @param quote one character, or empty for none; a quote inside quotes is written twice
/// @param encoding `latin-1`, or a name that Java knows, such as `utf-8` or `windows-1252`
/// @param heading whether the first row holds the names
/// @param nullWords values that mean missing; the empty text stands for a field that is empty and not quoted
/// @param leaveOutBadRows whether rows of another shape are left out and listed, instead of stopping a run
public record ReadOptions(
        String path,
        char separator,
        String quote,
        String encoding,
        boolean heading,
        List<String> nullWords,
        boolean leaveOutBadRows) {

    /// The common encodings, for completion; every other that Java knows can be named too.
    public static final List<String> ENCODINGS =
            List.of("utf-8", "windows-1252", "latin-1", "utf-16", "utf-16le", "utf-16be");

    /// Whether there is an encoding of that name.
    public static boolean isEncoding(String name) {
        try {
            return name.equals("latin-1") || Charset.isSupported(name);
        } catch (IllegalCharsetNameException e) {
            return false;
        }
    }

    /// The encoding of the file.
    public Charset charset() {
        return encoding.equals("latin-1") ? StandardCharsets.ISO_8859_1 : Charset.forName(encoding);
    }

    public ReadOptions {
        nullWords = List.copyOf(nullWords);
    }

    /// Comma, double quotes, UTF-8, a heading, empty means missing.
    public static ReadOptions of(String path) {
        return new ReadOptions(path, ',', "\"", "utf-8", true, List.of(""), false);
    }

    public ReadOptions withPath(String other) {
        return new ReadOptions(other, separator, quote, encoding, heading, nullWords, leaveOutBadRows);
    }

    public ReadOptions withShape(char newSeparator, String newQuote, String newEncoding, boolean newHeading) {
        return new ReadOptions(path, newSeparator, newQuote, newEncoding, newHeading, nullWords, leaveOutBadRows);
    }

    public ReadOptions withNullWords(List<String> words) {
        return new ReadOptions(path, separator, quote, encoding, heading, words, leaveOutBadRows);
    }

    public ReadOptions withLeaveOutBadRows(boolean leaveOut) {
        return new ReadOptions(path, separator, quote, encoding, heading, nullWords, leaveOut);
    }
}
