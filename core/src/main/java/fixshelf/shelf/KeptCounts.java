package fixshelf.shelf;

import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// How often values of columns came together, kept in the page of a dataset: whenever it is looked at, it is told what
/// is other than that.
///
/// @param columns one, two or three of them
/// @param rows the values that came, each combination once
public record KeptCounts(List<String> columns, List<Row> rows) {
    /// More are read by nobody, and would make a page of data.
    public static final int MOST_ROWS = 1_000;

    /// What stands for a missing value in a page.
    private static final String MISSING = "∅";

    private static final int MOST_COLUMNS = 3;

    public KeptCounts {
        columns = List.copyOf(columns);
        rows = List.copyOf(rows);
    }

    /// The values of the columns, and how many rows have them.
    public record Row(List<@Nullable String> values, long count) {}

    /// Whether they can be kept: there are not too many, and no value is what stands for a missing one.
    public Optional<Problem> objection() {
        if (rows.size() > MOST_ROWS) {
            return Optional.of(Problem.about(
                    Code.ARGUMENTS,
                    String.join(", ", columns),
                    String.format("%,d values are more than the %,d that a page keeps.", rows.size(), MOST_ROWS),
                    "Count a column with fewer values."));
        }
        return rows.stream().anyMatch(r -> r.values().contains(MISSING))
                ? Optional.of(Problem.about(
                        Code.ARGUMENTS,
                        String.join(", ", columns),
                        "The sign " + MISSING + " is among the values, and a page writes what is missing so.",
                        "Count another column."))
                : Optional.empty();
    }

    static Optional<KeptCounts> read(Yaml.Fields fields) {
        fields.allow(Set.of("of", "rows"));
        List<String> columns = fields.texts("of");
        if (columns.isEmpty() || columns.size() > MOST_COLUMNS || new HashSet<>(columns).size() < columns.size()) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.span(),
                    "Counts are of one to three columns, each once.",
                    "Write `of: [village]`.");
            return Optional.empty();
        }
        List<Row> rows = new ArrayList<>();
        Set<List<@Nullable String>> seen = new HashSet<>();
        Written written = fields.written("rows").orElse(new Written.Items(List.of()));
        for (Written item : written instanceof Written.Items(List<Written> items) ? items : List.<Written>of(written)) {
            List<String> cells = item.texts().orElse(List.of());
            boolean whole =
                    cells.size() == columns.size() + 1 && cells.getLast().matches("[0-9]{1,18}");
            @Nullable
            String[] values = cells.stream()
                    .limit(columns.size())
                    .map(c -> c.equals(MISSING) ? null : c)
                    .toArray(String[]::new);
            if (!whole || !seen.add(Arrays.asList(values))) {
                fields.report(
                        Code.BAD_FIELD,
                        fields.spanOfField("rows"),
                        whole
                                ? "Row " + (rows.size() + 1) + " says values that were counted in a row above."
                                : "Row " + (rows.size() + 1)
                                        + " needs a value for each column, and how often they came.",
                        "Write `[Alder Quay, 410]`, and " + MISSING + " for what is missing.");
                return Optional.empty();
            }
            rows.add(new Row(Arrays.asList(values), Long.parseLong(cells.getLast())));
        }
        return Optional.of(new KeptCounts(columns, rows));
    }

    /// The page of a dataset with these counts, instead of others of the same columns.
    public static Outcome<String> keep(DatasetPage page, KeptCounts counts) {
        Optional<Problem> objection = counts.objection();
        if (objection.isPresent()) {
            return Outcome.failed(objection.get());
        }
        List<KeptCounts> all = new ArrayList<>(page.counts());
        all.removeIf(c -> c.columns().equals(counts.columns()));
        all.add(counts);
        return Outcome.of(FrontEdits.setTopField(page.source().text(), "counts", written(all)));
    }

    /// Keeps them in the page on disk, and gives the shelf with it; nothing is written where
    /// another program has changed the page.
    public static Outcome<Shelf> write(Shelf shelf, DatasetPage page, KeptCounts counts) {
        return keep(page, counts).then(text -> {
            try {
                if (!Files.readString(page.file()).equals(page.source().text())) {
                    return Outcome.failed(Problem.about(
                            Code.DIVERGED,
                            page.source().name(),
                            "Another program has changed this page since it was read here, so it was not written.",
                            "Open the shelf again, then keep the counts."));
                }
            } catch (IOException e) {
                return Outcome.failed(Problem.about(
                        Code.UNREADABLE_PAGE,
                        page.source().name(),
                        "This page cannot be read any more.",
                        "Look at it."));
            }
            DatasetPage kept = DatasetPages.read(
                    page.file(),
                    new SourceText(page.source().name(), text),
                    shelf.settings().nullWords());
            return kept.problems().stream().anyMatch(Problem::isError)
                    ? Outcome.failed(kept.problems())
                    : PageFiles.write(page.file(), text).map(_ -> shelf.with(kept));
        });
    }

    private static String written(List<KeptCounts> all) {
        return all.stream()
                .map(c -> "\n  - of: " + YamlText.list(c.columns()) + "\n    rows:"
                        + (c.rows().isEmpty() ? " []" : "")
                        + c.rows().stream().map(KeptCounts::written).collect(Collectors.joining()))
                .collect(Collectors.joining());
    }

    private static String written(Row row) {
        List<String> cells = new ArrayList<>();
        row.values().forEach(v -> cells.add(v == null ? MISSING : v));
        return "\n      - " + YamlText.list(cells).replaceFirst("]$", ", " + row.count() + "]");
    }
}
