package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.shelf.Shelf;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// A watched figure follows its column through names and lines, and says by how much a line changes it.
class WatchTest {
    @TempDir
    Path root;

    @Test
    void figuresAreToldAfterEveryLine() throws Exception {
        Shelf shelf = Jobs.shelf(root, "k,cost\na,1000.50\nb,\nb,200\nc,3.25\n", """
                job: job
                lines:
                  - read: {file: data/in.csv}
                  - read_as: {cost: "decimal(9,2)"}
                  - watch: {spent: sum(cost), rows: count_rows()}
                  - rename: {cost: price}
                    name: read
                  - leave_out_rows: k = 'c'
                  - set: [price]
                    to: it * 2
                  - read_as: {price: "decimal(12,2)"}
                    name: doubled
                  - go_on_from: read
                  - rows_of_days: 2026-01-01
                    count: 2
                  - go_on_from: doubled
                  - group: [k]
                    measures: {n: count_rows()}
                outputs:
                  - write: out.csv
                """);
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            List<List<String>> seen = preview.figures(planned).get().stream()
                    .map(l -> l.stream().map(Figure::sentence).toList())
                    .toList();
            assertThat(seen)
                    .containsExactly(
                            List.of(),
                            List.of(),
                            List.of("spent 1,203.75", "rows 4"),
                            List.of("spent 1,203.75", "rows 4"),
                            List.of("spent 1,203.75 → 1,200.50 (-3.25)", "rows 4 → 3 (-1)"),
                            List.of("spent 1,200.50 → 2,401.00 (+1,200.50)", "rows 3"),
                            List.of("spent 2,401.00", "rows 3"),
                            // Branches: what was before is what it was where they begin.
                            List.of("spent 1,203.75", "rows 4"),
                            List.of("rows 4 → 2 (-2)"),
                            List.of("spent 2,401.00", "rows 3"),
                            List.of("rows 3 → 2 (-1)"));
        }
        assertThat(Jobs.run(shelf).problems()).isEmpty();
        assertThat(root.resolve("out.csv")).hasContent("k,n\na,1\nb,2\n");
    }

    @Test
    void figuresOfGroupsTellWhichGroupALineChanges() throws Exception {
        Shelf shelf = Jobs.shelf(root, "k,cost\na,1000.50\nb,\nb,200\nc,3.25\n,7\nd,1\n", """
                job: job
                lines:
                  - read: {file: data/in.csv}
                  - read_as: {cost: "decimal(9,2)"}
                  - watch: {spent: sum(cost)}
                    within: [k]
                  - rename: {k: room}
                  - leave_out_rows: room = 'c'
                  - set: [cost]
                    to: CASE WHEN room = 'b' THEN it * 2 ELSE it END
                  - set: [room]
                    to: coalesce(it, 'none')
                  - drop: [room]
                """);
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            assertThat(preview.figures(planned).get().stream()
                            .map(l -> l.stream().map(Figure::sentence).toList())
                            .toList())
                    .containsExactly(
                            List.of(),
                            List.of(),
                            List.of("spent by k: a 1,000.50; b 200.00; c 3.25; ∅ 7.00; 1 more"),
                            List.of("spent by room: 5 as before"),
                            List.of("spent by room: c 3.25 → gone; 4 as before"),
                            List.of("spent by room: b 200.00 → 400.00 (+200.00); 3 as before"),
                            List.of("spent by room: none new, 7.00; ∅ 7.00 → gone; 3 as before"),
                            List.of());
        }
    }
}
