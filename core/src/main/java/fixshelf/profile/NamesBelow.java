package fixshelf.profile;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.plan.Line;
import fixshelf.plan.Written;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// A row near the top that may hold the names of columns: below a title, below notes, or below the names of groups.
/// Nothing but texts stand in it, in columns that hold numbers or days elsewhere.
final class NamesBelow {
    private static final int FIRST_ROWS = 12;
    private static final int MOST_SHOWN = 3;
    private static final String NO_NAME = "(?i)column_[0-9]+(_[0-9]+)?";

    private final DuckSession session;
    private final List<ColumnTally> tallies;
    private final Map<String, Layout> known = Layout.cache();

    NamesBelow(DuckSession session, List<ColumnTally> tallies) {
        this.session = session;
        this.tallies = tallies;
    }

    Optional<Finding> find() {
        Set<Integer> typed = new HashSet<>();
        tallies.stream().filter(NamesBelow::isTyped).forEach(t -> typed.add(t.column));
        // Where columns have names already, one text among numbers is no sign.
        int least = isUnnamed() ? 1 : 2;
        if (typed.size() < least) {
            return Optional.empty();
        }
        List<List<String>> rows = firstRows();
        for (int place = 0; place < rows.size(); place++) {
            List<String> row = rows.get(place);
            List<String> texts = row.stream().filter(t -> !t.isEmpty()).toList();
            long inTyped = typed.stream().filter(c -> !row.get(c).isEmpty()).count();
            if (texts.size() >= 2
                    && texts.size() * 2 >= row.size()
                    && inTyped >= least
                    && inTyped * 2 >= typed.size()
                    && texts.stream().allMatch(this::isName)) {
                return Optional.of(found(rows, place, texts));
            }
        }
        return Optional.empty();
    }

    /// The line that takes the names out of the rows, where columns have none yet.
    static Optional<Line> line(TableLook table, Finding finding) {
        long unnamed =
                table.columns().stream().filter(c -> c.name().matches(NO_NAME)).count();
        if (unnamed * 2 < table.columns().size()) {
            return Optional.empty();
        }
        long last = finding.places().getLast() + 1;
        long first = finding.places().getFirst() + 1;
        Line line = Line.of("heading_row", "row", Written.word(String.valueOf(first)));
        return Optional.of(
                first == last ? line : line.with("count", Optional.of(Written.word(String.valueOf(last - first + 1)))));
    }

    private Finding found(List<List<String>> rows, int place, List<String> texts) {
        // The row above may hold the names of groups.
        boolean groups = place > 0
                && rows.get(place - 1).stream().filter(t -> !t.isEmpty()).count() >= 2;
        List<Long> places = groups ? List.of(place - 1L, (long) place) : List.of((long) place);
        String shown = texts.stream().limit(MOST_SHOWN).collect(Collectors.joining(", "))
                + (texts.size() > MOST_SHOWN ? ", …" : "");
        return new Finding(Oddity.NAMES_BELOW, -1, places.size(), shown, List.of(), places);
    }

    private boolean isUnnamed() {
        return tallies.stream().filter(t -> t.name.matches(NO_NAME)).count() * 2 >= tallies.size();
    }

    /// Whether at least half of its values are numbers or days.
    private static boolean isTyped(ColumnTally tally) {
        long texts = Optional.ofNullable(tally.kinds.get(Layout.Kind.TEXT))
                .map(g -> g.rows)
                .orElse(0L);
        return tally.filled >= 2 && texts > 0 && texts * 2 <= tally.filled;
    }

    private boolean isName(String text) {
        return Layout.of(text, known).kind() == Layout.Kind.TEXT && !ColumnTally.saysNoValue(text);
    }

    private List<List<String>> firstRows() {
        String columns =
                IntStream.range(0, tallies.size()).mapToObj(i -> "s" + i).collect(Collectors.joining(", "));
        Grid grid = session.query("SELECT " + columns + " FROM staged ORDER BY rowid LIMIT " + FIRST_ROWS);
        List<List<String>> rows = new ArrayList<>();
        for (List<@Nullable Object> row : grid.rows()) {
            rows.add(row.stream()
                    .map(c -> c == null ? "" : ColumnTally.stripped(c.toString()))
                    .toList());
        }
        return rows;
    }
}
