package fixshelf.source;

import java.io.BufferedReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/// Lines that stand at the head or at the foot of nearly every printed page, but for their numbers.
///
/// @param pages how many pages there are
/// @param head what stands on each of the first lines of a page, by their numbers from 0
/// @param foot the same of the last lines, counted from the end
record PageHeads(int pages, Map<Integer, String> head, Map<Integer, String> foot) {
    private static final int MOST_LINES = 8;
    private static final int FEWEST_PAGES = 2;

    PageHeads {
        head = new TreeMap<>(head);
        foot = new TreeMap<>(foot);
    }

    /// A line of a page, with the numbers of both.
    ///
    /// @param fromEnd its place from the end of the page, from 0
    record OfPage(int page, int line, int fromEnd, String text) {}

    /// Gives the lines of a page, one page after another.
    static final class Reading {
        private final BufferedReader in;
        private Optional<String> next;
        private int page;

        Reading(BufferedReader in) throws IOException {
            this.in = in;
            this.next = Optional.ofNullable(in.readLine());
        }

        /// The lines of the next page; none at the end. Blank lines at its end count for none.
        List<OfPage> page() throws IOException {
            List<String> lines = new ArrayList<>();
            while (next.isPresent() && (lines.isEmpty() || !next.get().startsWith("\f"))) {
                lines.add(next.get().replace("\f", ""));
                next = Optional.ofNullable(in.readLine());
            }
            page += lines.isEmpty() ? 0 : 1;
            int filled = lines.size();
            while (filled > 0 && lines.get(filled - 1).isBlank()) {
                filled--;
            }
            List<OfPage> all = new ArrayList<>();
            for (int i = 0; i < lines.size(); i++) {
                all.add(new OfPage(page, i, filled - 1 - i, lines.get(i)));
            }
            return all;
        }
    }

    /// Reads the whole text for them.
    static PageHeads find(BufferedReader in) throws IOException {
        Map<Integer, Map<String, Integer>> heads = new HashMap<>();
        Map<Integer, Map<String, Integer>> feet = new HashMap<>();
        Reading reading = new Reading(in);
        int pages = 0;
        for (List<OfPage> page = reading.page(); !page.isEmpty(); page = reading.page()) {
            pages++;
            for (OfPage line : page) {
                if (line.text().isBlank()) {
                    continue;
                }
                if (line.line() < MOST_LINES) {
                    count(heads, line.line(), line.text());
                }
                if (line.fromEnd() >= 0 && line.fromEnd() < MOST_LINES) {
                    count(feet, line.fromEnd(), line.text());
                }
            }
        }
        return new PageHeads(pages, usual(heads, pages), usual(feet, pages));
    }

    private static void count(Map<Integer, Map<String, Integer>> counts, int line, String text) {
        counts.computeIfAbsent(line, _ -> new HashMap<>()).merge(shape(text), 1, Integer::sum);
    }

    /// The text without what differs from page to page: its numbers, and how wide they are.
    private static String shape(String text) {
        return text.strip().replaceAll("[0-9]+", "0").replaceAll("\\s+", " ");
    }

    /// Those that four pages of five have, or all of the first two or three.
    private static Map<Integer, String> usual(Map<Integer, Map<String, Integer>> counts, int pages) {
        Map<Integer, String> usual = new TreeMap<>();
        if (pages >= FEWEST_PAGES) {
            counts.forEach((line, texts) -> texts.forEach((text, n) -> {
                if (n * 5 >= pages * 4) {
                    usual.put(line, text);
                }
            }));
        }
        return usual;
    }

    /// What there is to say of them; empty where there are none.
    String note(boolean leftOut, int lines, boolean whole) {
        if (head.isEmpty() && foot.isEmpty()) {
            return "";
        }
        if (leftOut) {
            return String.format(
                    "%,d lines that stand at the head or the foot of nearly every one of %,d pages were left out%s.",
                    lines, pages, whole ? "" : " so far");
        }
        return String.format(
                "On nearly every one of %,d pages %d %s at the head and %d at the foot stand; `page_heads: leave_out` leaves"
                        + " them out.",
                pages, head.size(), head.size() == 1 ? "line" : "lines", foot.size());
    }

    boolean has(OfPage line) {
        String shape = shape(line.text());
        return !shape.isEmpty()
                && (shape.equals(head.get(line.line()))
                        || line.fromEnd() >= 0 && shape.equals(foot.get(line.fromEnd())));
    }

    /// Whether it could hold the names of columns: a line of the head, and no ruler.
    boolean isHead(OfPage line) {
        return shape(line.text()).equals(head.get(line.line()))
                && line.text().codePoints().anyMatch(Character::isLetter);
    }

    boolean areThere() {
        return !head.isEmpty() || !foot.isEmpty();
    }
}
