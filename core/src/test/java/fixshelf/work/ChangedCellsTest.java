package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// A changed cell is one whose value is another than in the row that it comes from, however often a line gave it
/// values; a lost one held a value and is missing now. Margin, views and run say the same.
class ChangedCellsTest {
    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            quoteCharacter = '`',
            value = {
                // The lines of the fix, cells changed, values lost, changes that the parts made
                "`- set: ['{v}']\n  to: upper(it)`, 3, 0, 3",
                "`- set: ['{v}']\n  to: upper(it)\n- set: ['{v}']\n  to: lower(it)`, 1, 0, 7",
                "`- set: ['{v}']\n  to: upper(it)\n- set: ['{v}']\n  to: it || '!'`, 4, 0, 7",
                "`- set: ['{v}']\n  to: upper(it)\n- sort: ['{v}']`, 3, 0, 3",
                "`- set: ['{v}']\n  to: NULLIF(it, 'x')`, 2, 2, 2",
                "`- set: ['{v}']\n  to: NULLIF(it, 'x')\n- fill_missing: ['{v}']\n  with: z`, 3, 0, 5",
                "`- set: ['{v}']\n  to: NULLIF(it, 'x')\n- sort: ['{v}']`, 2, 2, 2",
                "`- put_under: list\n- set: ['{v}']\n  to: upper(it)`, 3, 0, 5",
                "`- set: ['{v}']\n  to: upper(it)\n- keep_rows: v <> 'X'`, 1, 0, 1",
                "`- set: ['{v}', '{n}']\n  to: it || '!'\n- drop: ['{v}']`, 5, 0, 9",
                "`- set: ['{v}']\n  to: upper(it)\n- drop: ['{v}']`, 0, 0, 3",
                "`- number_rows: nr\n  from: 9`, 0, 0, 5",
                "`- columns_to_rows: ['{n}']\n  names_in: name\n  values_in: value\n- set: ['{v}']\n  to: upper(it)`, 3, 0, 3",
            })
    void areThoseThatDiffer(String lines, long changed, long lost, long changes) throws Exception {
        // What lines below it change is not its own.
        Jobs.shelf(
                root,
                "v,n\nx,1\nY,2\nx,3\nq,4\n,5\n",
                "job: job\nlines:\n  - read: data/in.csv\n  - lines: {v: v, n: n}\n  - add: {w: \"'w'\"}\n"
                        + "  - set: every column\n    to: NULLIF(it, it)\noutputs:\n  - write: out.parquet\n");
        Files.createDirectories(root.resolve("datasets"));
        Files.writeString(root.resolve("data/list.csv"), "v,n\na,7\nx,8\n");
        Files.writeString(root.resolve("datasets/list.yaml"), "dataset: list\nread: data/list.csv\n");
        Files.writeString(
                root.resolve("fixes/lines.fix.md"),
                "---\nformat: 2\nfix: lines\nkind: table\nreads: some lines\nparameters:\n  v: {type: column}\n"
                        + "  n: {type: column}\n---\n# Lines\n\n```yaml\n" + lines + "\n```\n");
        Shelf shelf = ShelfReader.read(root).get();
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            LineEffect shown = preview.look(planned).get().get(1);
            assertThat(List.of(shown.cellsChanged(), shown.valuesLost())).isEqualTo(List.of(changed, lost));
            assertThat(shown.changes()).isEqualTo(changes);
            List<LostValue> values = preview.lost(planned, 2, 10).get();
            assertThat(values.stream().mapToLong(LostValue::rows).sum()).isEqualTo(lost);
        }
        LineEffect run =
                JobRun.run(planned, JobRun.Watcher.NONE).get().effects().get(1);
        assertThat(List.of(run.cellsChanged(), run.valuesLost())).isEqualTo(List.of(changed, lost));
    }
}
