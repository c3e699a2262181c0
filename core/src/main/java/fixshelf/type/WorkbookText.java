package fixshelf.type;

import java.util.regex.Pattern;

/// Texts in the cells of a workbook. A sign that XML cannot hold, or would change, is written there as `_x000D_`, so
/// that a text that looks like this has its first underscore written so too (ECMA-376, part 1, 22.4.2.4, ST_Xstring).
public final class WorkbookText {
    private static final Pattern ESCAPE = Pattern.compile("_x([0-9A-Fa-f]{4})_");

    private WorkbookText() {}

    /// A text out of what stands in a cell.
    public static String read(String cell) {
        return cell.contains("_x")
                ? ESCAPE.matcher(cell)
                        .replaceAll(m -> java.util.regex.Matcher.quoteReplacement(
                                String.valueOf((char) Integer.parseInt(m.group(1), 16))))
                : cell;
    }

    /// What stands in a cell for a text.
    public static String write(String text) {
        return text.contains("_x") ? ESCAPE.matcher(text).replaceAll("_x005F_x$1_") : text;
    }
}
