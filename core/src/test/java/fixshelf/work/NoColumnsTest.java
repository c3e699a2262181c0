package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Problem;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.Shelf;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// F3: where everything is blank, nothing is left, in either order, and that is no problem; it is no output.
class NoColumnsTest {
    @TempDir
    Path root;

    private static final String ROWS = "leave_out_blank_rows: every column";
    private static final String COLUMNS = "leave_out_blank_columns: every column";

    @ParameterizedTest
    @CsvSource({
        ROWS + "," + COLUMNS + ", 0, 0",
        COLUMNS + "," + ROWS + ", 0, 0",
        COLUMNS + "," + COLUMNS + ", 0, 0",
        COLUMNS + ", add: {x: 1 + 1}, 0, 1",
        "skip_rows: 2," + COLUMNS + ", 0, 0"
    })
    void areLeftOfABlankTable(String first, String second, int rows, int columns) throws Exception {
        Shelf shelf = Jobs.shelf(
                root,
                "a,b\n,\n\"  \",\n",
                "job: job\nlines:\n  - read: {file: data/in.csv}\n  - " + first + "\n  - " + second
                        + "\noutputs:\n  - write: out.csv\n");
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            LineEffect last = preview.look(planned).get().getLast();
            assertThat(List.of(last.rowsAfter(), (long)
                            planned.plan().last().fields().size()))
                    .containsExactly((long) rows, (long) columns);
            assertThat(preview.rows(planned, 3, Preview.View.ALL, 0, 10).get()).isEmpty();
        }
        List<String> run = JobRun.run(planned, JobRun.Watcher.NONE).problems().stream()
                .map(Problem::what)
                .toList();
        assertThat(run)
                .isEqualTo(
                        columns > 0
                                ? List.of()
                                : List.of("There is no column for out.csv, and a table without columns is no output."));
        assertThat(Files.exists(root.resolve("out.csv"))).isEqualTo(columns > 0);
        // SQL has no such table, a data frame may be one.
        JobCode code = planned.code(shelf);
        for (Language language : Languages.ALL) {
            boolean frame = List.of("pandas", "r").contains(language.id());
            assertThat(language.job(code).isPresent()).as(language.id()).isEqualTo(frame);
        }
    }
}
