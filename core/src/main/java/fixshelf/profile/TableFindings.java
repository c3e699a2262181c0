package fixshelf.profile;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/// What is odd about rows: blank ones, the heading again, rows that begin further right.
final class TableFindings {
    private static final String BLANKS = "' ' || chr(9) || chr(10) || chr(13) || chr(160)";

    private static final double NEARLY_ALL = 0.9;
    private static final int FEWEST = 20;

    /// As many columns are looked at for the value that a shifted row begins with.
    private static final int FURTHEST = 6;

    private final DuckSession session;
    private final List<String> names;

    TableFindings(DuckSession session, List<String> names) {
        this.session = session;
        this.names = names;
    }

    List<Finding> all(List<ColumnTally> tallies) {
        List<Finding> findings = new ArrayList<>();
        add(findings, Oddity.BLANK_ROWS, "", each(i -> isBlank("s" + i), " AND "));
        if (names.size() > 1) {
            String same = each(
                    i -> "(" + isBlank("s" + i) + " OR lower(trim(s" + i + ")) = "
                            + DuckSession.text(names.get(i).strip().toLowerCase(Locale.ROOT)) + ")",
                    " AND ");
            String several =
                    "(" + each(i -> "(CASE WHEN " + isBlank("s" + i) + " THEN 0 ELSE 1 END)", " + ") + ") >= 2";
            add(findings, Oddity.HEADING_AGAIN, "", several + " AND " + same);
            shifted(findings, tallies);
        }
        return findings;
    }

    /// Where nearly all values of the first column are laid out alike, a row is shifted that is blank there, and whose
    /// first value is laid out so.
    private void shifted(List<Finding> findings, List<ColumnTally> tallies) {
        ColumnTally first = tallies.getFirst();
        if (first.manyLayouts || first.filled < FEWEST || first.filled == first.rows) {
            return;
        }
        Optional<String> most = first.layouts.entrySet().stream()
                .filter(e -> e.getValue().rows >= first.filled * NEARLY_ALL
                        && e.getKey().indexOf('9') >= 0)
                .map(Map.Entry::getKey)
                .findFirst();
        if (most.isEmpty()) {
            return;
        }
        int upTo = Math.min(names.size(), FURTHEST);
        StringBuilder condition = new StringBuilder(isBlank("s0")).append(" AND (");
        for (int i = 1; i < upTo; i++) {
            condition
                    .append(i == 1 ? "" : " OR ")
                    .append("(")
                    .append(IntStream.range(1, i)
                            .mapToObj(j -> isBlank("s" + j) + " AND ")
                            .collect(Collectors.joining()))
                    .append("regexp_replace(regexp_replace(trim(s")
                    .append(i)
                    .append("), '[0-9]', '9', 'g'), '\\pL+', 'a', 'g') = ")
                    .append(DuckSession.text(most.get()))
                    .append(")");
        }
        add(findings, Oddity.SHIFTED, "", condition.append(")").toString());
    }

    private String each(IntFunction<String> condition, String between) {
        return IntStream.range(0, names.size()).mapToObj(condition).collect(Collectors.joining(between));
    }

    private static String isBlank(String column) {
        return "coalesce(trim(" + column + ", " + BLANKS + ") = '', true)";
    }

    private void add(List<Finding> findings, Oddity oddity, String detail, String condition) {
        Grid grid = session.query("SELECT rowid, count(*) OVER () FROM staged WHERE " + condition
                + " ORDER BY rowid LIMIT " + Finding.MOST_VALUES);
        if (grid.rows().isEmpty()) {
            return;
        }
        long rows = (Long) Objects.requireNonNull(grid.rows().getFirst().get(1));
        List<Long> places = grid.rows().stream()
                .map(r -> (Long) Objects.requireNonNull(r.getFirst()))
                .toList();
        findings.add(new Finding(oddity, -1, rows, detail, List.of(), places));
    }
}
