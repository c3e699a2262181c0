package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Where a job of a stranger can put its outputs: nowhere that its reader has not said.
class OutputPlaceTest {
    @TempDir
    Path folder;

    Path root;

    @BeforeEach
    void makeShelf() throws Exception {
        root = Files.createDirectories(folder.resolve("shelf"));
        for (String name : List.of("fixes", "jobs", "datasets", "data", ".git/hooks")) {
            Files.createDirectories(root.resolve(name));
        }
        Files.writeString(root.resolve("shelf.yaml"), """
                shelf: Place
                environment: dev
                environments:
                  dev: {out: out, away: %s}
                """.formatted(folder.resolve("away")));
        Files.writeString(root.resolve("data/in.csv"), "a,b\n1,2\n");
        Files.writeString(root.resolve("data/other.csv"), "a,b\n3,4\n");
        Files.writeString(root.resolve("datasets/other.yaml"), "dataset: other\nread: data/other.csv\n");
    }

    private Outcome<JobRun.Report> run(List<String> outputs, Map<String, String> set) throws Exception {
        StringBuilder page =
                new StringBuilder("job: j\nparameters: {to: out}\nlines:\n  - read: data/in.csv\noutputs:\n");
        outputs.forEach(o -> page.append("  - write: '").append(o).append("'\n    replace: true\n"));
        Files.writeString(root.resolve("jobs/j.yaml"), page);
        Shelf shelf = ShelfReader.read(root).get();
        return PlannedJob.plan(shelf, shelf.job("j").orElseThrow(), set)
                .then(planned -> JobRun.run(planned, JobRun.Watcher.NONE));
    }

    record Refused(String output, Code code) {}

    static Stream<Refused> refused() {
        return Stream.of(
                new Refused("shelf.yaml", Code.TARGET_NOT_WRITABLE),
                new Refused("fixes/x.csv", Code.TARGET_NOT_WRITABLE),
                new Refused("jobs/x.csv", Code.TARGET_NOT_WRITABLE),
                new Refused(".git/hooks/pre.csv", Code.TARGET_NOT_WRITABLE),
                new Refused(".fixshelf/x.csv", Code.TARGET_NOT_WRITABLE),
                new Refused("out/x.sh", Code.TARGET_NOT_WRITABLE),
                new Refused("out/x", Code.TARGET_NOT_WRITABLE),
                new Refused("../x.csv", Code.TARGET_OUTSIDE),
                new Refused("{away}/x.csv", Code.TARGET_OUTSIDE),
                new Refused("out/../../x.csv", Code.TARGET_OUTSIDE),
                new Refused("data/in.csv", Code.TARGET_IS_SOURCE),
                new Refused("data/other.csv", Code.TARGET_IS_SOURCE));
    }

    @ParameterizedTest
    @MethodSource("refused")
    void isRefusedByName(Refused refused) throws Exception {
        Outcome<JobRun.Report> report = run(List.of(refused.output()), Map.of());
        assertThat(report.problems()).extracting(p -> p.code()).containsExactly(refused.code());
        try (Stream<Path> files = Files.walk(folder)) {
            assertThat(files.filter(f -> f.getFileName().toString().matches("x\\.?.*|pre\\.csv")))
                    .isEmpty();
        }
    }

    @Test
    void linksPipesAndFoldersAreNotReplaced() throws Exception {
        Path aim = Files.writeString(folder.resolve("aim.csv"), "mine");
        Files.createDirectories(root.resolve("out/folder.csv"));
        Files.createSymbolicLink(root.resolve("out/link.csv"), aim);
        Files.createSymbolicLink(root.resolve("linked"), Files.createDirectories(folder.resolve("elsewhere")));
        assertThat(run(List.of("out/link.csv"), Map.of()).problems().getFirst().what())
                .contains("is a link");
        assertThat(run(List.of("out/folder.csv"), Map.of())
                        .problems()
                        .getFirst()
                        .what())
                .contains("is a folder");
        assertThat(run(List.of("linked/x.csv"), Map.of()).problems().getFirst().code())
                .isEqualTo(Code.TARGET_OUTSIDE);
        new ProcessBuilder("mkfifo", root.resolve("out/pipe.csv").toString())
                .start()
                .waitFor();
        assertThat(run(List.of("out/pipe.csv"), Map.of()).problems().getFirst().what())
                .contains("no plain file");
        assertThat(aim).hasContent("mine");
    }

    @Test
    void twoOutputsToOneFileAreRefused() throws Exception {
        assertThat(run(List.of("out/x.csv", "out/./x.csv"), Map.of())
                        .problems()
                        .getFirst()
                        .what())
                .contains("Two outputs");
    }

    @Test
    void theUserMayNameAPlaceForTheRun() throws Exception {
        Path place = folder.resolve("given");
        assertThat(run(List.of("{to}/x.csv"), Map.of("to", place.toString())).isPresent())
                .isTrue();
        assertThat(place.resolve("x.csv")).exists();
    }

    @Test
    void rightsOfAFileThatIsReplacedStay() throws Exception {
        Path file = root.resolve("out/x.csv");
        Files.createDirectories(file.getParent());
        Files.writeString(file, "old");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
        assertThat(run(List.of("out/x.csv"), Map.of()).isPresent()).isTrue();
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                .isEqualTo("rw-------");
        assertThat(file).hasContent("a,b\n1,2");
    }
}
