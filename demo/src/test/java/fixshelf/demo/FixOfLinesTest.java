package fixshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.Line;
import fixshelf.problem.Outcome;
import fixshelf.problem.SourceText;
import fixshelf.shelf.FixOfLines;
import fixshelf.shelf.JobEdits;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.type.Column;
import fixshelf.work.JobRun;
import fixshelf.work.PlannedJob;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/// A job whose lines became a table fix writes what it wrote before.
class FixOfLinesTest {
    @TempDir
    Path folder;

    @ParameterizedTest
    @ValueSource(
            strings = {
                "bench_board",
                "hours_by_month",
                "outcomes_by_month",
                "store_by_group",
                "thornmere_report",
                "village_figures",
                "visits_clean",
                "visits_with_rooms"
            })
    void givesTheSameRows(String name) throws Exception {
        Path root = DemoShelf.create(folder.resolve("demo"), 200);
        Shelf shelf = ShelfReader.read(root).get();
        Path page = shelf.job(name).orElseThrow().file();
        // Outputs of lines that are inside of the fix afterwards are gone with them.
        Files.writeString(
                page,
                Files.readString(page).replaceAll("(?m)^  - write: \\S+\\n    replace: true\\n    of: .*\\n", ""));
        shelf = ShelfReader.read(root).get();
        JobPage job = shelf.job(name).orElseThrow();
        String before = written(shelf, job);
        PlannedJob planned = PlannedJob.plan(shelf, job, Map.of()).get();
        List<Line> lines =
                job.lines().stream().skip(1).map(JobPage.PlacedLine::line).toList();
        FixOfLines.Made made = FixOfLines.of(
                "all_lines",
                "All lines",
                job.lines().getFirst().line().name(),
                lines,
                planned.plan().source().stream().map(Column::name).toList(),
                planned.plan().columns().stream().map(Column::name).toList(),
                shelf.callables()::find);
        Files.writeString(root.resolve("fixes/tables/all_lines.fix.md"), made.page());
        JobPage called = job;
        String text = JobEdits.insertLine(job, job.lines().size(), made.call());
        for (int line = job.lines().size() - 1; line > 0; line--) {
            called = JobPages.read(job.file(), new SourceText(job.source().name(), text));
            text = JobEdits.removeLine(called, line);
        }
        Files.writeString(job.file(), text);
        Shelf changed = ShelfReader.read(root).get();
        assertThat(changed.problems()).as(made.page() + text).isEmpty();
        assertThat(written(changed, changed.job(name).orElseThrow()))
                .as(made.page() + text)
                .isEqualTo(before);
    }

    /// All rows that come out, as text.
    private static String written(Shelf shelf, JobPage job) {
        Outcome<PlannedJob> plan = PlannedJob.plan(shelf, job, Map.of());
        assertThat(plan.problems()).as(job.source().text()).isEmpty();
        PlannedJob planned = plan.get();
        JobRun.Report report = JobRun.run(planned, JobRun.Watcher.NONE).get();
        try {
            Path file = report.files().getFirst();
            return file.toString().endsWith(".csv")
                    ? Files.readString(file)
                    : planned.plan().columns() + " " + report.rows();
        } catch (java.io.IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }
}
