package fixshelf.profile;

import fixshelf.profile.ColumnTally.Counted;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// Texts that are lists of parts.
final class Lists {
    private static final char[] SEPARATORS = {',', ';', '|'};
    private static final int LONGEST_PART = 30;

    /// At least that share of the rows has several parts.
    private static final double SHARE = 0.1;

    private Lists() {}

    /// What stands between the parts, where a good part of the rows has several, and the same parts come again and
    /// again.
    static Optional<Character> separator(List<Counted> values, long rows) {
        for (char separator : SEPARATORS) {
            if (isList(values, rows, separator)) {
                return Optional.of(separator);
            }
        }
        return Optional.empty();
    }

    private static boolean isList(List<Counted> values, long rows, char separator) {
        long several = 0;
        long parts = 0;
        Set<String> distinct = new HashSet<>();
        for (Counted counted : values) {
            String value = counted.value();
            if (value.indexOf(separator) >= 0) {
                several += counted.rows();
            }
            for (String part : value.split(String.valueOf(separator == '|' ? "\\|" : separator), -1)) {
                if (part.length() > LONGEST_PART) {
                    return false;
                }
                parts++;
                distinct.add(ColumnTally.stripped(part));
            }
        }
        return several >= rows * SHARE && several > 1 && distinct.size() * 2L <= parts;
    }

    /// Whether a separator leads, trails, or stands doubled.
    static boolean hasEmptyPart(String value, char separator) {
        String text = ColumnTally.stripped(value);
        if (text.indexOf(separator) < 0) {
            return false;
        }
        boolean parted = true;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == separator) {
                if (parted) {
                    return true;
                }
                parted = true;
            } else if (!Characters.isBlank(c)) {
                parted = false;
            }
        }
        return parted;
    }
}
