package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.shelf.Shelf;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// The rows that are looked at, where there are more: the first ones, or as many from the whole file, each with its own
/// number and what it is in a run of all rows.
class SampleTest {
    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource({
        "FIRST, 10, 4, '1 2 3 4', the first 4 rows",
        "SPREAD, 10, 4, '1 4 6 9', '4 rows spread over 10'",
        "SPREAD, 8, 4, '1 3 5 7', '4 rows spread over 8'",
        "SPREAD, 4, 4, '1 2 3 4', all 4 rows",
        "SPREAD, 3, 4, '1 2 3', all 3 rows",
        "SPREAD, 7, 6, '1 3 4 5 6 7', '6 rows spread over 7'",
        "SPREAD, 5, 2, '1 4', '2 rows spread over 5'",
    })
    void rowsAreAsInTheWholeFile(Sample sample, int rows, long looked, String numbers, String words) throws Exception {
        Shelf shelf = Jobs.shelf(
                root,
                "n\n" + IntStream.rangeClosed(1, rows).mapToObj(n -> n + "\n").collect(Collectors.joining()),
                "job: job\nlines:\n  - read: {file: data/in.csv}\n  - set: [n]\n    to: it || '.'\n");
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source(), 1000, looked).get()) {
            assertThat(preview.look(planned).get().getLast().rowsAfter()).isEqualTo(Math.min(rows, looked));
            preview.choose(sample);
            preview.look(planned).get();
            List<PreviewRow> seen =
                    preview.rows(planned, 2, Preview.View.ALL, 0, 100).get();
            assertThat(seen.stream().map(r -> r.number() + "").collect(Collectors.joining(" ")))
                    .isEqualTo(numbers);
            assertThat(seen.stream()
                            .map(r -> String.valueOf(r.cells().getFirst().value()))
                            .collect(Collectors.joining(" ")))
                    .isEqualTo(numbers.replaceAll("(\\d+)", "$1."));
            assertThat(preview.rowsInWords()).isEqualTo(words);
        }
    }
}
