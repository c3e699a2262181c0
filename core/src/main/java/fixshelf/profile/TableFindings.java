package fixshelf.profile;

import fixshelf.engine.DuckSession;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// What is odd about rows: blank ones, the heading again, rows that begin further right.
///
/// Only rows that may be odd are looked at whole: those in which the fullest column, or the first,
/// is blank or holds its own name.
final class TableFindings {
    private static final double NEARLY_ALL = 0.9;
    private static final int FEWEST = 20;

    /// As many columns are looked at for the value that a shifted row begins with.
    private static final int FURTHEST = 6;

    private final DuckSession session;
    private final List<String> names;
    private final Map<Oddity, List<Long>> places = new HashMap<>();
    private final Map<Oddity, Long> counts = new HashMap<>();

    TableFindings(DuckSession session, List<String> names) {
        this.session = session;
        this.names = names;
    }

    List<Finding> all(List<ColumnTally> tallies) {
        ColumnTally fullest =
                tallies.stream().max(Comparator.comparingLong(t -> t.filled)).orElseThrow();
        Optional<String> layout = layoutOfFirst(tallies.getFirst());
        String columns = IntStream.range(0, names.size()).mapToObj(i -> "s" + i).collect(Collectors.joining(", "));
        String odd = mayBeOdd(fullest.column) + (layout.isPresent() ? " OR " + isBlank(0) : "");
        session.each(
                "SELECT rowid, " + columns + " FROM staged WHERE " + odd + " ORDER BY rowid", row -> look(row, layout));
        List<Finding> findings = new ArrayList<>();
        new NamesBelow(session, tallies).find().ifPresent(findings::add);
        for (Oddity oddity : List.of(Oddity.BLANK_ROWS, Oddity.HEADING_AGAIN, Oddity.SHIFTED)) {
            if (counts.containsKey(oddity)) {
                findings.add(new Finding(oddity, -1, counts.get(oddity), "", List.of(), places.get(oddity)));
            }
        }
        return findings;
    }

    private String mayBeOdd(int column) {
        String name = DuckSession.text(names.get(column).strip().toLowerCase(Locale.ROOT));
        return isBlank(column) + " OR lower(trim(s" + column + ")) = " + name;
    }

    /// Missing, or without anything but white space of any kind.
    private static String isBlank(int column) {
        return "s" + column + " IS NULL OR NOT regexp_matches(s" + column + ", '[^\\s\\pZ\\x{85}\\v]')";
    }

    /// How nearly all values of the first column are laid out, where that is with digits, so that
    /// one of them in another column is told.
    private static Optional<String> layoutOfFirst(ColumnTally first) {
        if (first.manyLayouts || first.filled < FEWEST || first.filled == first.rows || first.filled * 2 < first.rows) {
            return Optional.empty();
        }
        return first.layouts.entrySet().stream()
                .filter(e -> e.getValue().rows >= first.filled * NEARLY_ALL
                        && e.getKey().indexOf('9') >= 0)
                .map(Map.Entry::getKey)
                .findFirst();
    }

    private void look(List<@Nullable Object> row, Optional<String> layout) {
        int filled = 0;
        boolean heading = true;
        int first = -1;
        for (int i = 0; i < names.size(); i++) {
            Object cell = row.get(i + 1);
            String text = cell == null ? "" : ColumnTally.stripped(cell.toString());
            if (!text.isEmpty()) {
                filled++;
                first = first < 0 ? i : first;
                heading &= text.equalsIgnoreCase(names.get(i).strip());
            }
        }
        long place = (Long) Objects.requireNonNull(row.getFirst());
        if (filled == 0) {
            add(Oddity.BLANK_ROWS, place);
        } else if (heading && filled >= 2) {
            add(Oddity.HEADING_AGAIN, place);
        } else if (first > 0 && first < FURTHEST && layout.isPresent()) {
            String begins = ColumnTally.stripped(String.valueOf(row.get(first + 1)));
            if (Layout.shape(begins).equals(layout.get())) {
                add(Oddity.SHIFTED, place);
            }
        }
    }

    private void add(Oddity oddity, long place) {
        counts.merge(oddity, 1L, Long::sum);
        List<Long> all = places.computeIfAbsent(oddity, _ -> new ArrayList<>());
        if (all.size() < Finding.MOST_VALUES) {
            all.add(place);
        }
    }
}
