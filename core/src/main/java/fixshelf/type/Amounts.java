package fixshelf.type;

import java.util.Locale;

/// Numbers with what they count, as people write them.
public final class Amounts {
    private Amounts() {}

    /// `1 row`, `12,408 rows`; words that take an s.
    public static String of(long count, String one) {
        return of(count, one, one + "s");
    }

    /// `1 match`, `2 matches`.
    public static String of(long count, String one, String many) {
        return String.format(Locale.ROOT, "%,d %s", count, count == 1 ? one : many);
    }

    /// `the first row`, `the first 12,408 rows`.
    public static String first(long count, String one) {
        return count == 1 ? "the first " + one : "the first " + of(count, one);
    }

    /// `the only row`, `all 12,408 rows`.
    public static String all(long count, String one) {
        return count == 1 ? "the only " + one : "all " + of(count, one);
    }
}
