package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.fetch.Consent;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// A job that is not allowed a place names all that it would use, so that its user is asked once;
/// what only a run writes to is no reason to stop before.
class PlacesOfAJobTest {
    @TempDir
    Path root;

    @TempDir
    Path outside;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "read: near                                                        |             |",
                "read: one                                                         |             | one",
                "read: one@@bring_in: [k]@from: two@matching: {k: k}@prefix: b_    |             | one two",
                "read: near@@put_under: two                                |             | two",
                "read: other                                                       |             | one three",
                "read: one@@put_under: other                               |             | one three",
                "read: one@@bring_in: [k]@from: two@matching: {k: k}@prefix: b_    | one         | two",
                "read: near                                                        | >server     |",
                "read: one                                                         | >server     | one >127.0.0.1:1",
            })
    void allAreAskedForAtOnce(String lines, String more, String asked) throws IOException {
        Jobs.shelf(root, "k\n1\n", "job: job\nlines:\n  - read: {file: data/in.csv}\n");
        for (String name : List.of("one", "two", "three")) {
            Files.createDirectories(outside.resolve(name));
            Files.writeString(outside.resolve(name + "/rows.csv"), "k\n1\n");
            Files.writeString(
                    root.resolve("datasets/" + name + ".yaml"),
                    "dataset: " + name + "\nread: " + outside.resolve(name + "/rows.csv") + "\n");
        }
        Files.writeString(root.resolve("datasets/near.yaml"), "dataset: near\nread: data/in.csv\n");
        Files.writeString(
                root.resolve("jobs/other.yaml"),
                "format: 2\njob: other\nlines:\n  - read: one\n  - put_under: three\n");
        boolean server = ">server".equals(more);
        Files.writeString(
                root.resolve("jobs/job.yaml"),
                "format: 2\njob: job\nlines:\n  - "
                        + lines.strip().replace("@@", "\n  - ").replace("@", "\n    ")
                        + (server
                                ? "\noutputs:\n  - write: \"postgresql://127.0.0.1:1/rooms\"\n    table: t\n"
                                : "\n"));
        if (more != null && !server) {
            Consent.forNow(Consent.Place.of(outside.resolve(more) + "/"));
        }
        Shelf shelf = ShelfReader.read(root).get();
        List<String> named =
                Consent.askedBy(PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of())
                                .problems())
                        .stream()
                        .map(p -> (p.written() ? ">" : "") + Path.of(p.name()).getFileName())
                        .toList();
        assertThat(String.join(" ", named)).isEqualTo(asked == null ? "" : asked.strip());
    }
}
