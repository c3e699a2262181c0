package fixshelf.shelf;

import fixshelf.plan.ReadOptions;
import java.nio.charset.Charset;
import java.util.Locale;

/// How rows are written as delimited text.
///
/// @param separator between fields; empty for the usual one of the ending
/// @param encoding `utf-8`, `latin-1`, or a name that Java knows
/// @param mark whether the file begins with a byte order mark
/// @param heading whether the names of the columns stand in the first row
/// @param missing what stands for a missing value; empty for nothing
/// @param crlf whether rows end with carriage return and line feed, instead of a line feed
/// @param quoted whether every value is in quotes, not only those that need it
/// @param guarded whether texts that a spreadsheet would take for a formula get an apostrophe in front
public record DelimitedText(
        String separator,
        String encoding,
        boolean mark,
        boolean heading,
        String missing,
        boolean crlf,
        boolean quoted,
        boolean guarded) {
    public static final DelimitedText USUAL = new DelimitedText("", "utf-8", false, true, "", false, false, false);

    /// What stands between fields in a file of that name.
    public String separatorIn(String path) {
        String usual = path.toLowerCase(Locale.ROOT).endsWith(".tsv") ? "\t" : ",";
        return separator.isEmpty() ? usual : separator;
    }

    public DelimitedText separatedBy(String now) {
        return new DelimitedText(now, encoding, mark, heading, missing, crlf, quoted, guarded);
    }

    /// In another encoding, which may be none: its page says so. A mark goes where the encoding has none.
    public DelimitedText in(String now) {
        boolean marks = mark && (!isWritable(now) || hasMark(now));
        return new DelimitedText(separator, now, marks, heading, missing, crlf, quoted, guarded);
    }

    /// Whether there is an encoding of that name in which text can be written; some can only be read.
    public static boolean isWritable(String encoding) {
        return ReadOptions.isEncoding(encoding) && ReadOptions.charset(encoding).canEncode();
    }

    /// Whether a byte order mark can be written in it.
    public static boolean hasMark(String encoding) {
        return ReadOptions.charset(encoding).newEncoder().canEncode('\uFEFF');
    }

    /// Whether texts in it begin with a mark by themselves, as in UTF-16 without a named order.
    private static boolean marksItself(Charset charset) {
        int one = charset.encode("a").remaining();
        return one + one > charset.encode("aa").remaining();
    }

    public Charset charset() {
        return ReadOptions.charset(encoding);
    }

    /// Whether a mark has to be put in front.
    public boolean needsMark() {
        return mark && !marksItself(charset());
    }

    public DelimitedText guarding(boolean now) {
        return new DelimitedText(separator, encoding, mark, heading, missing, crlf, quoted, now);
    }

    public DelimitedText marked(boolean now) {
        return new DelimitedText(separator, encoding, now, heading, missing, crlf, quoted, guarded);
    }

    public DelimitedText headed(boolean now) {
        return new DelimitedText(separator, encoding, mark, now, missing, crlf, quoted, guarded);
    }

    /// With a word for what is missing; empty for nothing.
    public DelimitedText saying(String now) {
        return new DelimitedText(separator, encoding, mark, heading, now, crlf, quoted, guarded);
    }

    /// With rows that end with carriage return and line feed, or with a line feed.
    public DelimitedText ending(boolean now) {
        return new DelimitedText(separator, encoding, mark, heading, missing, now, quoted, guarded);
    }

    public DelimitedText quoting(boolean now) {
        return new DelimitedText(separator, encoding, mark, heading, missing, crlf, now, guarded);
    }

    /// Whether bytes or line ends are other than the engine writes them.
    public boolean isRewritten() {
        return crlf || mark || !encoding.equalsIgnoreCase("utf-8");
    }
}
