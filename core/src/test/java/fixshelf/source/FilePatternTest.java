package fixshelf.source;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.type.Column;
import fixshelf.work.JobRun;
import fixshelf.work.PlannedJob;
import fixshelf.work.Preview;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Several files of a folder are one table: in the order of their names, put together by the names of columns.
class FilePatternTest {
    @TempDir
    Path folder;

    @BeforeEach
    void write() throws Exception {
        Files.createDirectories(folder.resolve("data"));
        Files.writeString(folder.resolve("shelf.yaml"), "shelf: Several\n");
        Files.writeString(folder.resolve("data/visits-b.csv"), "no,Item ,cost\n3,lamp,\n4,\"a,b\",5\n");
        Files.writeString(folder.resolve("data/visits-a.csv"), "no,item\n1,kettle\n2,chair\n");
        Files.writeString(folder.resolve("data/other.csv"), "x\n1\n");
        try (OutputStream out = new GZIPOutputStream(Files.newOutputStream(folder.resolve("data/visits-c.csv")))) {
            out.write("cost,no\n7,5\n".getBytes(java.nio.charset.StandardCharsets.UTF_8));
        }
    }

    private Shelf shelf(String job) throws Exception {
        Files.createDirectories(folder.resolve("datasets"));
        Files.createDirectories(folder.resolve("jobs"));
        Files.writeString(
                folder.resolve("datasets/visits.yaml"),
                "dataset: visits\nread: data/visits-?.csv\nnull_words: [\"\"]\n");
        Files.writeString(folder.resolve("jobs/all.yaml"), "format: 2\njob: all\nlines:\n  - read: visits\n" + job);
        return ShelfReader.read(folder).get();
    }

    private static Outcome<PlannedJob> plan(Shelf shelf) {
        return PlannedJob.plan(shelf, shelf.job("all").orElseThrow(), Map.of());
    }

    @Test
    void rowsOfAllFilesWithTheNameOfTheirs() throws Exception {
        Shelf shelf = shelf("outputs:\n  - write: out/all.csv\n");
        PlannedJob job = plan(shelf).get();
        assertThat(job.source().columns().stream().map(Column::name)).containsExactly("file", "no", "item", "cost");
        try (Preview preview = Preview.open(job.source()).get()) {
            assertThat(preview.firstRows(9))
                    .containsExactly(
                            List.of("visits-a.csv", "1", "kettle", "∅"),
                            List.of("visits-a.csv", "2", "chair", "∅"),
                            List.of("visits-b.csv", "3", "lamp", "∅"),
                            List.of("visits-b.csv", "4", "a,b", "5"),
                            List.of("visits-c.csv", "5", "∅", "7"));
            assertThat(preview.notes())
                    .containsExactly(
                            "visits-a.csv has no cost.",
                            "visits-b.csv writes Item  for item.",
                            "visits-c.csv has no item.");
        }
        assertThat(JobRun.run(job, JobRun.Watcher.NONE).problems()).isEmpty();
        assertThat(folder.resolve("out/all.csv")).content().startsWith("file,no,item,cost\nvisits-a.csv,1,kettle,");
        // The next file belongs to it without any other word.
        Files.writeString(folder.resolve("data/visits-d.csv"), "no,file\n9,mine\n");
        assertThat(plan(shelf).get().source().columns().stream().map(Column::name))
                .containsExactly("file_2", "no", "item", "cost", "file");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            data/visits-?.csv | data/visits-x.csv | TARGET_IS_SOURCE
            data/visits-?.csv | data/visits-all.csv | ''
            data/*.csv | data/clean.csv | TARGET_IS_SOURCE
            data/*.csv | out/clean.csv | ''
            data/nothing*.csv | out/clean.csv | FILE_MISSING
            """)
    void anOutputDoesNotBecomeASource(String pattern, String output, String code) throws Exception {
        Shelf shelf = shelf("outputs:\n  - write: " + output + "\n");
        Files.writeString(folder.resolve("datasets/visits.yaml"), "dataset: visits\nread: \"" + pattern + "\"\n");
        List<Problem> problems = plan(ShelfReader.read(shelf.root()).get())
                .then(job -> JobRun.run(job, JobRun.Watcher.NONE))
                .problems();
        assertThat(problems.stream()
                        .map(Problem::code)
                        .map(Code::name)
                        .findFirst()
                        .orElse(""))
                .isEqualTo(code);
    }

    @Test
    void aRowThatDoesNotFitIsNamedWithItsFile() throws Exception {
        Files.writeString(folder.resolve("data/visits-b.csv"), "no,item\n3,lamp,9\n");
        Shelf shelf = shelf("outputs:\n  - write: out/all.csv\n");
        assertThat(JobRun.run(plan(shelf).get(), JobRun.Watcher.NONE)
                        .problems()
                        .getFirst()
                        .sentence())
                .contains("line 2", "in visits-b.csv");
        assertThat(folder.resolve("out/all.csv")).doesNotExist();
    }

    @Test
    void twoColumnsThatAreOneNameAreAProblem() throws Exception {
        Files.writeString(folder.resolve("data/visits-b.csv"), "no,cost,cost \n3,1,2\n");
        assertThat(plan(shelf("outputs: []\n")).problems().getFirst().sentence())
                .contains("visits-b.csv has the columns 'cost' and 'cost '");
    }

    @Test
    void aFileCalledLikeAPatternIsAFile() throws Exception {
        Path odd = folder.resolve("data/visits-?.csv");
        Files.writeString(odd, "a\n1\n");
        assertThat(SourceFile.open(odd, ReadOptions.of("")).get().isPattern()).isFalse();
        // Other signs of patterns have no meaning.
        Files.writeString(folder.resolve("data/[v]1.csv"), "a\n1\n");
        assertThat(SourceFile.open(folder.resolve("data/[v]*.csv"), ReadOptions.of(""))
                        .get()
                        .files())
                .containsExactly(folder.resolve("data/[v]1.csv"));
    }
}
