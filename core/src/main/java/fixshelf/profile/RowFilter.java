package fixshelf.profile;

import fixshelf.engine.DuckSession;
import fixshelf.engine.RowSink;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/// Which rows are looked at: all, those with a finding, those in which a text is found, or both.
///
/// @param finding only rows that have it
/// @param text only rows with a cell that holds this text, capitals or not; empty for all
public record RowFilter(Optional<Finding> finding, String text) {
    public static final RowFilter ALL = new RowFilter(Optional.empty(), "");

    public static RowFilter of(Finding finding) {
        return new RowFilter(Optional.of(finding), "");
    }

    public RowFilter withText(String now) {
        return new RowFilter(finding, now);
    }

    /// Whether the rows that are shown are only some of those that have the finding, as too many values have it.
    public boolean isPart() {
        return finding.stream()
                .anyMatch(f ->
                        f.values().size() == Finding.MOST_VALUES || f.places().size() == Finding.MOST_VALUES);
    }

    void prepare(DuckSession session) {
        if (finding.isPresent() && !finding.get().values().isEmpty()) {
            session.run("CREATE OR REPLACE TABLE looked_for (v VARCHAR)");
            try (RowSink<String> rows = session.append("looked_for")) {
                finding.get().values().forEach(v -> rows.add(List.of(v)));
            }
        }
    }

    String condition(int columns) {
        String found = finding.map(f -> f.oddity().isOfWholeColumn()
                        ? f.oddity() == Oddity.NEVER_FILLED ? "true" : "s" + f.column() + " <> ''"
                        : !f.values().isEmpty()
                                ? "s" + f.column() + " IN (SELECT v FROM looked_for)"
                                : f.places().isEmpty()
                                        ? "true"
                                        : "rowid IN ("
                                                + f.places().stream()
                                                        .map(String::valueOf)
                                                        .collect(Collectors.joining(", "))
                                                + ")")
                .orElse("true");
        if (text.isEmpty()) {
            return found;
        }
        String wanted = DuckSession.text(text.toLowerCase(Locale.ROOT));
        // One text of all cells, as an OR of thousands would be nested too deep; what stands between is in no text.
        return found
                + IntStream.range(0, columns)
                        .mapToObj(i -> "s" + i)
                        .collect(Collectors.joining(
                                ", ", " AND contains(lower(concat_ws(chr(1), ", ")), " + wanted + ")"));
    }
}
