package fixshelf.fetch;

import java.util.regex.Pattern;

/// Whether a query that stands in a page is one statement. Drivers and servers take several at
/// once, of which a later one could end the transaction that may only read.
///
/// Every engine reads quotes, comments and escapes in its own way. So a sign that ends a statement is let through only
/// inside plain quotes, and only in a query without anything that could end or hide them.
final class OneStatement {
    private static final Pattern AMBIGUOUS = Pattern.compile("--|/\\*|[$\\\\#`\\[]");
    private static final Pattern QUOTED = Pattern.compile("'(?:[^']|'')*+'|\"(?:[^\"]|\"\")*+\"");

    private OneStatement() {}

    /// The query without a sign at its end.
    static String trimmed(String query) {
        return query.strip().replaceFirst(";\\s*$", "");
    }

    /// @param query without a sign at its end
    static boolean is(String query) {
        return query.indexOf(';') < 0
                || !AMBIGUOUS.matcher(query).find()
                        && QUOTED.matcher(query).replaceAll("").indexOf(';') < 0;
    }
}
