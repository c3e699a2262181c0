package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.language.pattern.RegexParser;
import fixshelf.problem.Outcome;
import fixshelf.problem.Span;
import fixshelf.render.JavaPatterns;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Where a pattern matches in the values of a column.
///
/// @param samples distinct values, those that match first, the commonest first among them
/// @param matching how many of the looked-at rows match
/// @param rows how many rows hold a value
public record Matches(List<Sample> samples, long matching, long rows) {
    private static final int MOST = 2_000;
    private static final int SHOWN = 200;

    /// A value, how many rows hold it, where it matches, in UTF-16 offsets, and what was looked for in the first
    /// match: its first group, or all of it where there is none.
    public record Sample(String value, long rows, List<Span> matches, Optional<String> found) {}

    /// Looks at the commonest values of a column in the rows of a preview.
    public static Outcome<Matches> look(Preview preview, String column, String pattern) {
        return RegexParser.parse(pattern).map(JavaPatterns::of).then(compiled -> preview.query(
                        table -> "SELECT " + DuckSession.name(column) + " AS v, count(*) AS n FROM " + table
                                + " WHERE v IS NOT NULL GROUP BY v ORDER BY n DESC, v LIMIT " + MOST)
                .map(grid -> of(grid, compiled)));
    }

    private static Matches of(Grid grid, Pattern pattern) {
        List<Sample> hits = new ArrayList<>();
        List<Sample> others = new ArrayList<>();
        long matching = 0;
        long rows = 0;
        for (List<?> row : grid.rows()) {
            String value = String.valueOf(row.get(0));
            long count = ((Number) Objects.requireNonNull(row.get(1))).longValue();
            List<Span> spans = new ArrayList<>();
            Optional<String> found = Optional.empty();
            for (Matcher matcher = pattern.matcher(value); matcher.find(); ) {
                spans.add(new Span(matcher.start(), matcher.end()));
                String wanted = matcher.groupCount() > 0 ? matcher.group(1) : matcher.group();
                found = found.or(() -> Optional.ofNullable(wanted));
            }
            rows += count;
            matching += spans.isEmpty() ? 0 : count;
            (spans.isEmpty() ? others : hits).add(new Sample(value, count, spans, found));
        }
        List<Sample> samples = new ArrayList<>(hits);
        samples.addAll(others);
        return new Matches(samples.subList(0, Math.min(SHOWN, samples.size())), matching, rows);
    }
}
