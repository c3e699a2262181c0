package fixshelf.source;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form.Places;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;

/// Where columns seem to begin in lines of text: behind blanks that stand one under the other in every line.
public final class FixedPlaces {
    private static final int LOOKED_AT = 400;
    private static final int FEWEST_LINES = 3;
    private static final int MOST_SIGNS = 20_000;

    private FixedPlaces() {}

    /// The first lines of a file as they are, also with the form feeds that part pages.
    public static List<String> lines(Path file, ReadOptions options) throws IOException {
        List<String> lines = new ArrayList<>();
        try (BufferedReader in = new BufferedReader(SourceFile.reader(file, options))) {
            for (String line = in.readLine(); line != null && lines.size() < LOOKED_AT; line = in.readLine()) {
                lines.add(line.replace("\uFEFF", ""));
            }
        }
        return lines;
    }

    /// The places where columns begin, from 1; only the first where the lines have no columns.
    public static List<Integer> propose(List<String> lines) {
        List<int[]> looked = lines.stream()
                .filter(l -> !l.isBlank() && l.length() < MOST_SIGNS)
                .limit(LOOKED_AT)
                .map(l -> l.codePoints().toArray())
                .toList();
        if (looked.size() < FEWEST_LINES) {
            return List.of(1);
        }
        BitSet filled = new BitSet();
        for (int[] line : looked) {
            for (int i = 0; i < line.length; i++) {
                if (!isBlank(line[i])) {
                    filled.set(i);
                }
            }
        }
        List<Integer> starts = new ArrayList<>(List.of(1));
        int first = filled.nextSetBit(0);
        for (int gap = filled.nextClearBit(Math.max(0, first)); gap < filled.length(); ) {
            int next = filled.nextSetBit(gap);
            // One blank in every line, as in days with a time, sets nothing apart; where it fills up a field it does.
            if (next - gap > 1 || isWide(looked, gap)) {
                starts.add(next + 1);
            }
            gap = filled.nextClearBit(next);
        }
        return starts;
    }

    /// Whether a line has two blanks or more about a place that is blank in all.
    private static boolean isWide(List<int[]> lines, int at) {
        return lines.stream()
                .anyMatch(l ->
                        at < l.length && (at > 0 && isBlank(l[at - 1]) || at + 1 < l.length && isBlank(l[at + 1])));
    }

    private static boolean isBlank(int sign) {
        return sign == ' ' || sign == '\t' || sign == 0xA0;
    }

    /// How a file of plain text is read, if its lines have columns or pages; `options` say in which encoding it is.
    static Optional<ReadOptions.Form> form(String text, boolean whole) {
        List<String> lines = new ArrayList<>(text.lines().limit(LOOKED_AT).toList());
        if (!whole && lines.size() > 1 && lines.size() < LOOKED_AT) {
            lines.removeLast();
        }
        if (lines.stream().noneMatch(l -> l.startsWith("\f"))) {
            List<Integer> starts =
                    propose(lines.stream().map(l -> l.replace("\uFEFF", "")).toList());
            return starts.size() > 1 ? Optional.of(new Places(starts)) : Optional.empty();
        }
        Printed printed = Printed.of(lines);
        return Optional.of(new Places(
                propose(printed.body()),
                printed.heads().areThere() ? Places.Pages.LEAVE_OUT_HEADS : Places.Pages.KEEP_HEADS));
    }

    /// Which of these lines, from 0, holds the names of columns, if any does: of pages whose heads
    /// are left out the last line of the first head, else the first one.
    public static int heading(List<String> lines, Places form) {
        return form.pages() == Places.Pages.LEAVE_OUT_HEADS ? Printed.of(lines).heading() : 0;
    }

    /// The pages that some lines make, and what repeats on them.
    private record Printed(PageHeads heads, List<List<PageHeads.OfPage>> pages) {
        static Printed of(List<String> lines) {
            String text = String.join("\n", lines);
            try {
                List<List<PageHeads.OfPage>> pages = new ArrayList<>();
                PageHeads.Reading reading = new PageHeads.Reading(new BufferedReader(new StringReader(text)));
                for (List<PageHeads.OfPage> page = reading.page(); !page.isEmpty(); page = reading.page()) {
                    pages.add(page);
                }
                return new Printed(PageHeads.find(new BufferedReader(new StringReader(text))), pages);
            } catch (IOException e) {
                throw new IllegalStateException("a text in memory cannot fail", e);
            }
        }

        /// The lines that are not on nearly every page.
        List<String> body() {
            return pages.stream()
                    .flatMap(List::stream)
                    .filter(l -> !heads.has(l))
                    .map(PageHeads.OfPage::text)
                    .toList();
        }

        int heading() {
            return pages.stream()
                    .limit(1)
                    .flatMap(List::stream)
                    .filter(heads::isHead)
                    .mapToInt(PageHeads.OfPage::line)
                    .max()
                    .orElse(0);
        }
    }

    /// A line, cut before each of the places but the first. Blanks at the ends of a piece go, unless it is the whole
    /// line.
    public static List<String> cut(String text, List<Integer> starts) {
        int length = text.codePointCount(0, text.length());
        List<String> fields = new ArrayList<>();
        for (int i = 0; i < starts.size(); i++) {
            int from = Math.min(length, starts.get(i) - 1);
            int to = i + 1 < starts.size() ? Math.clamp(starts.get(i + 1) - 1L, from, length) : length;
            String field = text.substring(text.offsetByCodePoints(0, from), text.offsetByCodePoints(0, to));
            fields.add(starts.size() == 1 ? field : field.strip());
        }
        return fields;
    }
}
