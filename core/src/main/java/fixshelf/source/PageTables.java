package fixshelf.source;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jspecify.annotations.Nullable;

/// The tables of a page of the web: those that hold no other.
public final class PageTables {
    public static final int MOST_COLUMNS = 16_384;
    private static final int SHOWN = 12;

    private final List<Element> tables;
    private final String shown;

    /// @param shown what the page is called in problems
    public PageTables(Document page, String shown) {
        this.tables = page.select("table").stream()
                .filter(t -> t.select("table").size() == 1)
                .toList();
        this.shown = shown;
    }

    int count() {
        return tables.size();
    }

    /// The caption of a table, or the heading before it; empty where it has none.
    ///
    /// @param number on the page, from 1
    String title(int number) {
        return title(tables.get(number - 1));
    }

    /// The cells of the table that is wanted, row by row; null for one in which nothing stands. Rows may be of
    /// different widths.
    ///
    /// @param wanted its number on the page, from 1, or words of its caption; empty for the only one
    public List<List<@Nullable String>> rows(String wanted) {
        return rows(chosen(wanted));
    }

    private Element chosen(String wanted) {
        if (tables.isEmpty()) {
            throw problem(
                    Code.NO_SUCH,
                    "There is no table on the page.",
                    "Look at it in a browser: a table that a script makes is not in the page itself.");
        }
        if (wanted.isEmpty() && tables.size() == 1) {
            return tables.getFirst();
        }
        if (wanted.matches("[0-9]{1,4}")) {
            int number = Integer.parseInt(wanted);
            if (number >= 1 && number <= tables.size()) {
                return tables.get(number - 1);
            }
        }
        List<Element> named = wanted.isEmpty()
                ? List.of()
                : tables.stream()
                        .filter(t -> title(t).toLowerCase(Locale.ROOT).contains(wanted.toLowerCase(Locale.ROOT)))
                        .toList();
        if (named.size() == 1) {
            return named.getFirst();
        }
        throw problem(
                Code.NO_SUCH,
                wanted.isEmpty()
                        ? "There are " + tables.size() + " tables on the page, and none of them is named."
                        : named.isEmpty()
                                ? "There is no table " + wanted + " on the page."
                                : named.size() + " tables of the page are called so.",
                "Write `table:` and a number, or words of a caption: " + listed() + ".");
    }

    /// Each with its number, what it is called, and how large it is.
    private String listed() {
        List<String> all = new ArrayList<>();
        for (int i = 0; i < Math.min(SHOWN, tables.size()); i++) {
            List<List<@Nullable String>> rows = rows(tables.get(i));
            String title = title(tables.get(i));
            String begins = rows.isEmpty()
                    ? "empty"
                    : String.join(
                            " | ",
                            rows.getFirst().stream()
                                    .limit(4)
                                    .map(c -> c == null ? "∅" : c)
                                    .toList());
            all.add((i + 1) + " (" + (title.isEmpty() ? "" : title + "; ") + begins + "; " + rows.size() + " rows)");
        }
        return String.join(", ", all) + (tables.size() > SHOWN ? ", …" : "");
    }

    /// Its caption, or the heading before it.
    private static String title(Element table) {
        Element caption = table.selectFirst("> caption");
        if (caption != null) {
            return caption.text();
        }
        Element before = table.previousElementSibling();
        return before != null && before.normalName().matches("h[1-6]") ? before.text() : "";
    }

    /// The cells of a table. One that reaches over several columns or rows stands in each of them.
    private static List<List<@Nullable String>> rows(Element table) {
        List<List<@Nullable String>> rows = new ArrayList<>();
        List<int[]> reaching = new ArrayList<>();
        List<@Nullable String> texts = new ArrayList<>();
        for (Element line : table.select("> thead > tr, > tbody > tr, > tfoot > tr, > tr")) {
            List<@Nullable String> row = new ArrayList<>();
            List<Element> cells = line.select("> td, > th");
            int next = 0;
            for (int column = 0; column < MOST_COLUMNS; column++) {
                if (column < reaching.size() && reaching.get(column)[0] > 0) {
                    reaching.get(column)[0]--;
                    row.add(texts.get(column));
                } else if (next < cells.size()) {
                    Element cell = cells.get(next++);
                    String text = text(cell);
                    int wide = span(cell, "colspan", 1_000);
                    int high = span(cell, "rowspan", 65_534);
                    for (int i = 0; i < wide; i++) {
                        while (reaching.size() <= column + i) {
                            reaching.add(new int[] {0});
                            texts.add(null);
                        }
                        reaching.get(column + i)[0] = high - 1;
                        texts.set(column + i, text);
                        row.add(text);
                    }
                    column += wide - 1;
                } else if (column >= reaching.size()
                        || reaching.subList(column, reaching.size()).stream().noneMatch(r -> r[0] > 0)) {
                    break;
                } else {
                    row.add(null);
                }
            }
            rows.add(row);
        }
        return rows;
    }

    private static int span(Element cell, String name, int most) {
        String written = cell.attr(name).strip();
        return written.matches("[1-9][0-9]{0,5}") ? Math.min(most, Integer.parseInt(written)) : 1;
    }

    /// As it is read, with line breaks where the page has them; nothing where nothing stands.
    private static @Nullable String text(Element cell) {
        String text = cell.wholeText().contains("\n") || !cell.select("br").isEmpty()
                ? String.join(
                        "\n",
                        broken(cell)
                                .lines()
                                .map(l -> l.strip().replaceAll("[ \\t]+", " "))
                                .filter(l -> !l.isEmpty())
                                .toList())
                : cell.text();
        return text.isEmpty() ? null : text;
    }

    private static String broken(Element cell) {
        Element copy = cell.clone();
        copy.select("br").forEach(b -> b.replaceWith(new org.jsoup.nodes.TextNode("\u2028")));
        return copy.text().replace('\u2028', '\n');
    }

    private ProblemException problem(Code code, String what, String todo) {
        return new ProblemException(Problem.about(code, shown, shown + ": " + what, todo));
    }
}
