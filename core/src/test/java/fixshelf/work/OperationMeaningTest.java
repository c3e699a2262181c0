package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Grid;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.type.Column;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/// What operations do with made-up tables, worked out from their documentation alone: neither the relations that they
/// become nor any engine has a part in it.
class OperationMeaningTest {
    @TempDir
    Path root;

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 40})
    void isWhatTheirDocumentationSays(int count) throws Exception {
        OperationTrials made = new OperationTrials(count);
        assertThat(made.trials).hasSizeGreaterThan(60);
        hold(made);
    }

    /// By a preview, each line on a branch of its own.
    private void hold(OperationTrials made) throws Exception {
        for (String folder : List.of("data", "datasets", "jobs")) {
            Files.createDirectories(root.resolve(folder));
        }
        Files.writeString(root.resolve("shelf.yaml"), "shelf: meaning\n");
        Files.writeString(root.resolve("data/in.csv"), TrialRows.text(OperationTrials.COLUMNS, made.rows));
        Files.writeString(root.resolve("data/list.csv"), TrialRows.text(List.of("k", "w"), made.list));
        Files.writeString(
                root.resolve("datasets/list.yaml"), "dataset: list\nread: data/list.csv\nnull_words: [\"\"]\n");
        StringBuilder job = new StringBuilder("job: job\nlines:\n  - read: {file: data/in.csv, null_words: [\"\"]}\n"
                + "  - read_as: {id: integer, n: integer, m: \"decimal(9,2)\", d: date}\n    name: begin\n");
        made.trials.forEach(
                t -> job.append("  - go_on_from: begin\n  - ").append(t.line()).append('\n'));
        Files.writeString(root.resolve("jobs/job.yaml"), job.append("outputs:\n  - write: out.csv\n"));
        Shelf shelf = ShelfReader.read(root).get();
        var planned = PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of());
        assertThat(planned.problems()).isEmpty();
        try (Preview preview = Preview.open(planned.get().source()).get()) {
            for (int i = 0; i < made.trials.size(); i++) {
                OperationTrials.Trial trial = made.trials.get(i);
                Grid grid = preview.grid(planned.get(), 4 + 2 * i).get();
                assertThat(grid.columns())
                        .as(trial.line())
                        .extracting(Column::name)
                        .containsExactlyElementsOf(trial.columns());
                assertThat(grid.rows())
                        .as(trial.line())
                        .containsExactlyElementsOf(trial.rows().stream()
                                .map(r -> r.of(trial.columns()))
                                .toList());
            }
        }
    }
}
