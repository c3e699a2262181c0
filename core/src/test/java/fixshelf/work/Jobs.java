package fixshelf.work;

import fixshelf.plan.Operation;
import fixshelf.problem.Outcome;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Makes a small shelf with one file and one job, for tests.
final class Jobs {
    private Jobs() {}

    static Shelf shelf(Path root, byte[] data, String lines) throws IOException {
        Files.createDirectories(root);
        if (!Files.exists(root.resolve("shelf.yaml"))) {
            PageFiles.initShelf(root, "test");
        }
        Files.write(root.resolve("data/in.csv"), data);
        Files.writeString(root.resolve("jobs/job.yaml"), lines);
        Files.writeString(root.resolve("fixes/tidy.fix.md"), """
            ---
            fix: tidy
            parameters:
              text: {type: text}
              unwanted: {type: text, default: "''"}
            returns: text
            ---
            # Tidy

            ```sql
            RETURN nullif(trim(text), unwanted);
            ```
            """);
        return ShelfReader.read(root).get();
    }

    static Shelf shelf(Path root, String data, String lines) throws IOException {
        return shelf(root, data.getBytes(StandardCharsets.UTF_8), lines);
    }

    /// The rows of a report of the second line of the job, as a preview shows them; none where it gives no such report.
    static List<List<@Nullable Object>> reported(Shelf shelf, String report) {
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        Optional<Operation.Report> given = planned.report(2, report);
        if (given.isEmpty()) {
            return List.of();
        }
        try (Preview preview = Preview.open(planned.source()).get()) {
            preview.look(planned).get();
            List<List<@Nullable Object>> rows = new ArrayList<>();
            for (PreviewRow row : preview.rows(planned, given.get(), 0, 100).get()) {
                List<@Nullable Object> cells = new ArrayList<>();
                row.cells().forEach(c -> cells.add(c.value()));
                rows.add(cells);
            }
            return rows;
        }
    }

    static Outcome<JobRun.Report> run(Shelf shelf) {
        return PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of())
                .then(planned -> JobRun.run(planned, JobRun.Watcher.NONE));
    }
}
