package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.shelf.Shelf;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// A cell is followed back to its place in the file, and its row on to the end.
class CellLivesTest {
    private static final String DATA = "no,village,hours\n1, Thornmere,2\n2,Alder Quay,x\n1,Thornmere ,4\n";

    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                // The line, the row by its place, which rows keep, and the column; where it stands in the file; the
                // stages.
                "2 ; 1 ; village ; in.csv, row 1, field 2 ; 1 ' Thornmere' read | 2 'Thornmere' ⇐ ' Thornmere' | 3 the row leaves",
                "3 ; 3 ; hours ; in.csv, row 3, field 3 ; 1 '4' read | 2 '4' not one of its columns | 3 '4' the row stays | 4 the row stays | 5 the row stays | 6 the row is merged into row 3",
                "4 ; 2 ; hours ; in.csv, row 2, field 3 ; 1 'x' read | 2 'x' not one of its columns | 3 'x' the row stays | 4 ∅ ⇐ 'x' | 5 the row stays | 6 the row is merged into row 2",
                "5 ; 3 ; name ; in.csv, row 3, field 2 ; 1 'Thornmere ' read | 2 'Thornmere' ⇐ 'Thornmere ' | 3 'Thornmere' the row stays | 4 'Thornmere' not one of its columns | 5 'Thornmere' was called village | 6 the row is merged into row 3",
                "6 ; 3 ; n ; ; 6 '1' made of row 3 at line 5"
            })
    void isFollowed(int line, long row, String column, String file, String stages) throws Exception {
        Shelf shelf = Jobs.shelf(
                root,
                DATA,
                "job: job\nlines:\n  - read: data/in.csv\n  - tidy: [village]\n  - drop_repeats: [no]\n    keep: last\n"
                        + "  - read_as: {hours: integer}\n  - rename: {village: name}\n"
                        + "  - group: [name]\n    measures: {n: count_rows()}\n");
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            CellLife life = CellLives.of(preview, planned, line, row, column).get();
            assertThat(life.file()).isEqualTo(file == null ? "" : file);
            assertThat(life.stages().stream().map(CellLivesTest::said).collect(Collectors.joining(" | ")))
                    .isEqualTo(stages);
        }
    }

    /// It goes on in the job that is read, and through columns that became rows or were copied.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "3 ; 2 ; copy ; in.csv, row 2, field 2 ; tidied 1 'Alder Quay' read | tidied 2 'Alder Quay' as it was | tidied 3 'Alder Quay' was called village | 2 'Alder Quay' the row stays | 3 'Alder Quay' out of the column name",
                "2 ; 3 ; value ; in.csv, row 3, field 3 ; tidied 1 '4' read | tidied 2 '4' not one of its columns | tidied 3 '4' the row stays | 2 '4' out of the column hours"
            })
    void goesOnInTheJobThatIsRead(int line, long row, String column, String file, String stages) throws Exception {
        Jobs.shelf(
                root,
                DATA,
                "job: job\nlines:\n  - read: tidied\n  - columns_to_rows: [hours]\n    names_in: what\n    values_in: value\n"
                        + "  - add: {copy: name}\n");
        Files.writeString(
                root.resolve("jobs/tidied.yaml"),
                "job: tidied\nlines:\n  - read: {file: data/in.csv}\n  - tidy: [village]\n  - rename: {village: name}\n");
        Shelf shelf = fixshelf.shelf.ShelfReader.read(root).get();
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            CellLife life = CellLives.of(preview, planned, line, row, column).get();
            assertThat(life.stages().stream().map(CellLivesTest::said).collect(Collectors.joining(" | ")))
                    .startsWith(stages);
            assertThat(life.file()).isEqualTo(file);
        }
    }

    /// A cell that was brought in is followed to its row in the other table: a dataset, another job, or a line of this
    /// one; so is a row that was put below.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                // What the lines are, the row and the column; where it stands in a file; the stages.
                "bring_in: [fee]@@from: fees@@matching: {village: place} ; 3 ; fee ; fees.csv, row 2, field 2 ; 3 '7' out of fees, row 2, fee",
                "bring_in: [fee]@@from: fees@@matching: {village: place} ; 2 ; fee ; fees.csv, row 3, field 2 ; 3 '8' out of fees, row 3, fee",
                "bring_in: [fee]@@from: fees@@matching: {village: place}@@several: first ; 2 ; fee ; fees.csv, row 2, field 2 ; 3 '7' out of fees, row 2, fee",
                "bring_in: [fee]@@from: fees@@matching: {village: place} ; 3 ; hours ; in.csv, row 2, field 3 ; 1 'x' read | 2 'x' not one of its columns | 3 'x' the row stays",
                "bring_in: [fee]@@from: raised@@matching: {village: place} ; 2 ; fee ; fees.csv, row 3, field 2 ; raised 1 '8' read | raised 2 '8' the row stays | raised 3 '9' ⇐ '8' | 3 '9' out of raised, row 3",
                "bring_in: [n]@@from: counted@@matching: {village: village} ; 1 ; n ; ; 2 '2' made of 2 rows: 1, 3 at line 1 | 4 '2' out of line 2, row 1",
                "put_under: list ; 4 ; village ; list.csv, row 1, field 1 ; 3 'Moss' the row came out of list, row 1, village",
                "put_under: list ; 2 ; village ; in.csv, row 2, field 2 ; 1 'Alder Quay' read | 2 'Alder Quay' as it was | 3 'Alder Quay' the row stays",
                "join: list@@matching: {village: village}@@keep: all ; 4 ; kind ; list.csv, row 1, field 2 ; 3 'far' the row came out of list, row 1, kind"
            })
    void goesOnInWhatWasBroughtIn(String line, long row, String column, String file, String stages) throws Exception {
        boolean counts = line.contains("counted");
        Jobs.shelf(
                root,
                counts ? DATA.replace(" T", "T").replace("e ,", "e,") : DATA,
                "job: job\nlines:\n  - read: {file: data/in.csv}\n    name: all\n"
                        + (counts
                                ? "  - count_by: [village]\n    into: n\n    name: counted\n  - go_on_from: all\n"
                                : "  - tidy: [village]\n")
                        + "  - " + line.strip().replace("@@", "\n    ") + "\n");
        Files.writeString(root.resolve("data/fees.csv"), "place,fee\nThornmere,7\nAlder Quay,7\nThornmere,8\n");
        Files.writeString(root.resolve("data/list.csv"), "village,kind\nMoss,far\n");
        Files.writeString(root.resolve("datasets/fees.yaml"), "dataset: fees\nread: data/fees.csv\n");
        Files.writeString(root.resolve("datasets/list.yaml"), "dataset: list\nread: data/list.csv\n");
        Files.writeString(
                root.resolve("jobs/raised.yaml"),
                "job: raised\nlines:\n  - read: fees\n  - keep_rows: fee <> '1'\n  - set: fee\n    to: CASE fee WHEN '8' THEN '9' ELSE fee END\n");
        Shelf shelf = fixshelf.shelf.ShelfReader.read(root).get();
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        // However few rows are looked at here, those of another job are there.
        long looked = line.contains("raised") ? 1 : 100;
        try (Preview preview = Preview.open(planned.source(), looked, looked).get()) {
            CellLife life = CellLives.of(preview, planned, counts ? 4 : 3, row, column.strip())
                    .get();
            assertThat(life.stages().stream().map(CellLivesTest::said).collect(Collectors.joining(" | ")))
                    .isEqualTo(stages);
            assertThat(life.file()).isEqualTo(file == null ? "" : file);
        }
    }

    private static String said(CellLife.Stage stage) {
        String value = stage.hasValue() ? " " + shown(stage.value()) : "";
        String was = stage.changed() ? " ⇐ " + shown(stage.was()) : "";
        return (stage.job().isEmpty() ? "" : stage.job() + " ")
                + stage.line()
                + value
                + was
                + (stage.words().isEmpty() ? "" : " " + stage.words());
    }

    private static String shown(Object value) {
        return value == null ? "∅" : "'" + value + "'";
    }
}
