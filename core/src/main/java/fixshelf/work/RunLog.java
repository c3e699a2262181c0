package fixshelf.work;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.shelf.OwnFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/// What ran, when and with what effect: one line of JSON a run, in the shelf's own folder.
public final class RunLog {
    private static final ObjectMapper JSON = new ObjectMapper();

    private RunLog() {}

    private static Path file(Path shelf) {
        return shelf.resolve(".fixshelf/runs.jsonl");
    }

    /// Adds a run; a log that cannot be written does not spoil the run.
    public static void add(Path shelf, PlannedJob job, JobRun.Report report) {
        ObjectNode run = JSON.createObjectNode();
        run.put("job", job.job().name()).put("at", Instant.now().toString()).put("millis", report.millis());
        run.put("source", job.source().file().toString());
        report.files().forEach(f -> run.withArray("files").add(f.toString()));
        report.tables().forEach(t -> run.withArray("tables").add(t));
        report.effects().forEach(e -> line(run.withArray("lines").addObject(), job, e));
        try {
            Files.writeString(
                    OwnFolder.file(shelf, "runs.jsonl"),
                    JSON.writeValueAsString(run) + "\n",
                    StandardOpenOption.CREATE,
                    StandardOpenOption.APPEND);
        } catch (IOException e) {
            System.getLogger(RunLog.class.getName())
                    .log(System.Logger.Level.WARNING, "the run is not in the log: " + e.getMessage());
        }
    }

    private static void line(ObjectNode node, PlannedJob job, LineEffect effect) {
        node.put("line", effect.line())
                .put("rows_before", effect.rowsBefore())
                .put("rows_after", effect.rowsAfter())
                .put("rows_left", effect.left())
                .put("rows_added", effect.added())
                .put("columns_before", effect.columnsBefore())
                .put("columns_after", effect.columnsAfter())
                .put("cells_changed", effect.cellsChanged())
                .put("values_lost", effect.valuesLost());
        if (job.plan().steps().get(effect.line() - 1).line().rest()) {
            node.put("at_rest", true);
        }
        effect.reports().forEach(r -> node.withArray("reports")
                .addObject()
                .put("report", r.name())
                .put("rows", r.rows())
                .put("stops", r.breaks()));
    }

    /// A run to its end.
    public record Last(String job, Instant at) {}

    /// The last run of any job of a shelf.
    public static Optional<Last> last(Path shelf) {
        return lines(shelf).reversed().stream()
                .flatMap(line -> run(line).stream())
                .findFirst();
    }

    /// When a job last ran to its end.
    public static Optional<Instant> lastRun(Path shelf, String job) {
        return lines(shelf).reversed().stream()
                .flatMap(line -> run(line).stream())
                .filter(r -> r.job().equals(job))
                .map(Last::at)
                .findFirst();
    }

    private static List<String> lines(Path shelf) {
        if (!Files.exists(file(shelf))) {
            return List.of();
        }
        try {
            return Files.readAllLines(file(shelf));
        } catch (IOException e) {
            System.getLogger(RunLog.class.getName()).log(System.Logger.Level.DEBUG, "log", e);
            return List.of();
        }
    }

    /// The run of a line; a line that was cut off is none.
    private static Optional<Last> run(String line) {
        try {
            JsonNode run = JSON.readTree(line);
            return Optional.of(new Last(
                    run.path("job").asText(), Instant.parse(run.path("at").asText())));
        } catch (JsonProcessingException | java.time.DateTimeException e) {
            return Optional.empty();
        }
    }
}
