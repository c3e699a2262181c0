package fixshelf.shelf;

/// How rows are written as delimited text.
///
/// @param separator between fields; empty for the usual one of the ending
/// @param encoding `utf-8`, or a name that Java knows
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

    public DelimitedText separatedBy(String now) {
        return new DelimitedText(now, encoding, mark, heading, missing, crlf, quoted, guarded);
    }

    public DelimitedText in(String now) {
        return new DelimitedText(separator, now, mark, heading, missing, crlf, quoted, guarded);
    }

    public DelimitedText guarding(boolean now) {
        return new DelimitedText(separator, encoding, mark, heading, missing, crlf, quoted, now);
    }

    /// Whether bytes or line ends are other than the engine writes them.
    public boolean isRewritten() {
        return crlf || mark || !encoding.equalsIgnoreCase("utf-8");
    }
}
