package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.Line;
import fixshelf.problem.SourceText;
import fixshelf.shelf.FixOfLines;
import fixshelf.shelf.JobEdits;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.type.Column;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/// Lines that became a table fix, called with the columns that they named, give what they gave: also where a new column
/// is called like one that is gone, or a column like one of another table.
class LinesAsAFixTest {
    @TempDir
    Path root;

    @ParameterizedTest
    @ValueSource(
            strings = {
                "  - count_by: [k, v]\n    into: n\n",
                "  - count_by: [k]\n    into: n\n    totals: all\n  - sort: [{n: descending}, k]\n",
                "  - drop: [n]\n  - add: {n: \"k || v\"}\n  - set: [n]\n    to: upper(it)\n",
                "  - rename: {k: other, v: k}\n  - sort: [k, other]\n  - add: {v: k || other}\n",
                "  - read_as: {n: integer}\n  - group: [k]\n    measures: {n: sum(n), v: min(v)}\n  - keep_rows: n > 1\n",
                "  - bring_in: [n]\n    from: list\n    matching: {k: k}\n    prefix: b_\n  - sort: [b_n, n]\n",
                "  - new_ids: [k]\n    into: number\n    known: numbers\n"
                        + "  - keep_matching: list\n    matching: {v: k}\n  - sort: [number]\n",
                "  - columns_to_rows: [v, n]\n    names_in: n\n    values_in: v\n  - sort: [v]\n",
                "  - set: [K]\n    to: upper(it)\n  - add: {w: k}\n  - drop: [k]\n  - add: {K: w || v}\n  - sort: [k]\n",
                "  - choose: [k, N]\n  - rename: {n: v}\n  - keep_rows: v IS NOT NULL\n",
            })
    void givesTheSameRows(String lines) throws Exception {
        Jobs.shelf(
                root,
                "k,v,n\na,x,3\nb,y,1\na,y,2\n,x,\nc,a,5\n",
                "job: job\nlines:\n  - read: data/in.csv\n" + lines + "outputs:\n  - write: out.parquet\n");
        Files.createDirectories(root.resolve("datasets"));
        Files.writeString(root.resolve("data/list.csv"), "k,n\na,7\nx,8\n");
        Files.writeString(root.resolve("datasets/list.yaml"), "dataset: list\nread: data/list.csv\n");
        Files.writeString(root.resolve("data/numbers.csv"), "k,number\nb,40\n");
        Files.writeString(
                root.resolve("jobs/numbers.yaml"),
                "job: numbers\nlines:\n  - read: data/numbers.csv\n  - read_as: {number: integer}\n"
                        + "outputs:\n  - write: numbers.parquet\n");
        Shelf shelf = ShelfReader.read(root).get();
        JobPage job = shelf.job("job").orElseThrow();
        PlannedJob planned = PlannedJob.plan(shelf, job, Map.of()).get();
        List<Line> all =
                job.lines().stream().skip(1).map(JobPage.PlacedLine::line).toList();
        FixOfLines.Made made = FixOfLines.of(
                "all_lines",
                "All lines",
                "",
                all,
                planned.plan().steps().getFirst().columns().stream()
                        .map(Column::name)
                        .toList(),
                planned.plan().columns().stream().map(Column::name).toList(),
                shelf.callables()::find);
        Files.writeString(root.resolve("fixes/all_lines.fix.md"), made.page());
        String text = JobEdits.callInstead(job, 2, all.size() + 1, made.call());
        Shelf with = ShelfReader.read(root).get();
        assertThat(with.problems()).as(made.page()).isEmpty();
        PlannedJob called = PlannedJob.plan(with, JobPages.read(job.file(), new SourceText("job", text)), Map.of())
                .get();
        assertThat(called.plan().columns())
                .as(made.page() + text)
                .isEqualTo(planned.plan().columns());
        assertThat(rows(called)).as(made.page() + text).isEqualTo(rows(planned));
    }

    private static List<List<String>> rows(PlannedJob job) {
        List<List<String>> rows = new ArrayList<>();
        try (Preview preview = Preview.open(job.source()).get()) {
            preview.look(job).get();
            preview.eachResult(
                    job, row -> rows.add(row.stream().map(String::valueOf).toList()));
        }
        return rows;
    }
}
