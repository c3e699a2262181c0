package fixshelf.source;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// A block of cells: rows from 1, columns from 0.
record CellBlock(int firstRow, int firstColumn, int lastRow, int lastColumn) {
    private static final Pattern BLOCK =
            Pattern.compile("\\$?([A-Z]{1,3})\\$?([0-9]{1,7}):\\$?([A-Z]{1,3})\\$?([0-9]{1,7})");

    /// Reads `B4:F40`, its corners in any order; empty where it is none.
    static Optional<CellBlock> parse(String written) {
        Matcher found = BLOCK.matcher(written.strip().toUpperCase(Locale.ROOT));
        if (!found.matches()) {
            return Optional.empty();
        }
        int top = Integer.parseInt(found.group(2));
        int bottom = Integer.parseInt(found.group(4));
        int left = column(found.group(1));
        int right = column(found.group(3));
        return top == 0 || bottom == 0
                ? Optional.empty()
                : Optional.of(new CellBlock(
                        Math.min(top, bottom), Math.min(left, right), Math.max(top, bottom), Math.max(left, right)));
    }

    private static int column(String letters) {
        int number = 0;
        for (char c : letters.toCharArray()) {
            number = number * 26 + c - 'A' + 1;
        }
        return number - 1;
    }

    /// The letters of a column, from 0.
    static String column(int number) {
        StringBuilder letters = new StringBuilder();
        for (int n = number + 1; n > 0; n = (n - 1) / 26) {
            letters.insert(0, (char) ('A' + (n - 1) % 26));
        }
        return letters.toString();
    }
}
