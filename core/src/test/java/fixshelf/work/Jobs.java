package fixshelf.work;

import fixshelf.problem.Outcome;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;

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

    static Outcome<JobRun.Report> run(Shelf shelf) {
        return PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of())
                .then(planned -> JobRun.run(planned, JobRun.Watcher.NONE));
    }
}
