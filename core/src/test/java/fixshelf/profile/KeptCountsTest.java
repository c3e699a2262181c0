package fixshelf.profile;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Code;
import fixshelf.shelf.KeptCounts;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.Datasets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Counts that are kept in the page of a dataset, and what is told when the data is other.
class KeptCountsTest {
    private static final String PAGE = "dataset: d\n# a word of the author\nread: d.csv\nabout: Rooms.\n";

    @TempDir
    Path folder;

    @BeforeEach
    void shelf() throws Exception {
        Files.createDirectories(folder.resolve("datasets"));
        Files.writeString(folder.resolve("shelf.yaml"), "shelf: s\nnull_words: [\"-\"]\n");
        page(PAGE);
    }

    private void page(String text) throws Exception {
        Files.writeString(folder.resolve("datasets/d.yaml"), text);
    }

    private void rows(String... rows) throws Exception {
        Files.writeString(folder.resolve("d.csv"), "room,kind\n" + String.join("\n", rows) + "\n");
    }

    private Shelf read() {
        return ShelfReader.read(folder).get();
    }

    private List<String> differences() {
        Shelf shelf = read();
        assertThat(shelf.problems()).isEmpty();
        try (DataLook data =
                DataLook.open(Datasets.open(shelf, "d").get(), Long.MAX_VALUE).get()) {
            return CountsChecked.differences(data, shelf.dataset("d").orElseThrow())
                    .get();
        }
    }

    private fixshelf.problem.Outcome<Shelf> keep(String... columns) {
        Shelf shelf = read();
        try (DataLook data =
                DataLook.open(Datasets.open(shelf, "d").get(), Long.MAX_VALUE).get()) {
            return CountsChecked.of(data, List.of(columns))
                    .then(c -> KeptCounts.write(shelf, shelf.dataset("d").orElseThrow(), c));
        }
    }

    @Test
    void whatIsOtherIsNamedWithBothNumbers() throws Exception {
        rows("quay,a", "quay,a", "quay,b", "-,a", "\"\",b");
        assertThat(differences()).isEmpty();
        assertThat(keep("room").isPresent()).isTrue();
        assertThat(keep("room", "kind").isPresent()).isTrue();
        assertThat(folder.resolve("datasets/d.yaml"))
                .content()
                .startsWith(PAGE)
                .contains("  - of: [room]\n    rows:\n      - [quay, 3]\n")
                .contains("[\"∅\", a, 1]");
        assertThat(differences()).isEmpty();
        rows("quay,a", "mere,a", "quay,b", "\"\",b");
        assertThat(differences())
                .containsExactlyInAnyOrder(
                        "room quay: 3 → 2",
                        "room ∅: 1 → 0",
                        "room mere: not there before, 1 now",
                        "room quay, kind a: 2 → 1",
                        "room ∅, kind a: 1 → 0",
                        "room mere, kind a: not there before, 1 now");
        // Kept again they stand instead of the others; the rest of the page stays.
        keep("room");
        assertThat(differences()).hasSize(3).allMatch(d -> d.contains(", kind "));
        Files.writeString(folder.resolve("d.csv"), "Room,kind\nquay,a\n");
        assertThat(differences()).contains("There is no longer each of the columns room.");
    }

    /// Whatever the page looks like, the rest of it stays, and nothing is written that cannot be read.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "counts:¶  - of: room¶¶    # those of quay¶    rows:¶¶      - [quay, 9]¶# behind¶about: Rooms. ; counts:¶  - of: [room]¶    rows:¶      - [quay, 1]¶# behind¶about: Rooms.",
                "counts: [{of: room, rows: [[quay, 9]]}]¶about: Rooms. ; counts:¶  - of: [room]¶    rows:¶      - [quay, 1]¶about: Rooms.",
                "counts:¶- of: room¶  rows: [[quay, 9]]¶¶about: Rooms. ; counts:¶  - of: [room]¶    rows:¶      - [quay, 1]¶¶about: Rooms.",
            })
    void theRestOfThePageStays(String before, String after) throws Exception {
        for (String end : List.of("\n", "\r\n")) {
            String begins = "dataset: d" + end + "read: d.csv" + end;
            page(begins + before.replace("¶", end) + end);
            rows("quay,a");
            assertThat(keep("room").problems()).isEmpty();
            assertThat(folder.resolve("datasets/d.yaml")).content().isEqualTo(begins + after.replace("¶", end) + end);
        }
    }

    @Test
    void anyValueIsReadAsItWasKept() throws Exception {
        rows(
                "\"a, b]\",1",
                "\"x: y # z\",2",
                "007,3",
                "yes,4",
                "\" blank \",5",
                "\"two\nlines\",6",
                "\"it's \"\"so\"\"\",7",
                "~,8",
                "null,9");
        assertThat(keep("room", "kind").isPresent()).isTrue();
        assertThat(differences()).isEmpty();
    }

    @Test
    void whatAPageCannotHoldIsRefused() throws Exception {
        rows("∅,a");
        assertThat(keep("room").problems().getFirst().what()).contains("The sign ∅ is among the values");
        String[] many = new String[KeptCounts.MOST_ROWS + 1];
        for (int i = 0; i < many.length; i++) {
            many[i] = i + ",a";
        }
        rows(many);
        assertThat(keep("room").problems().getFirst().what()).contains("1,001 values are more than the 1,000");
        Shelf before = read();
        page(PAGE + "# changed by another program\n");
        try (DataLook data =
                DataLook.open(Datasets.open(before, "d").get(), Long.MAX_VALUE).get()) {
            assertThat(KeptCounts.write(
                                    before,
                                    before.dataset("d").orElseThrow(),
                                    CountsChecked.of(data, List.of("kind")).get())
                            .problems()
                            .getFirst()
                            .code())
                    .isEqualTo(Code.DIVERGED);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "[{of: [a, a], rows: []}]         ; Counts are of one to three columns",
                "[{rows: [[b, 1]]}]               ; Counts are of one to three columns",
                "[{of: a, rows: [[b]]}]           ; Row 1 needs a value for each column",
                "[{of: a, rows: [[b, -1]]}]       ; Row 1 needs a value for each column",
                "[{of: a, rows: [[b, 1], [b, 2]]}] ; Row 2 says values that were counted in a row above.",
                "[{of: a, rows: many}]            ; Row 1 needs a value for each column",
                "[{of: a, row: []}]               ; row",
            })
    void whatIsWrongInAPageIsSaid(String counts, String problem) throws Exception {
        page(PAGE + "counts: " + counts + "\n");
        assertThat(read().problems()).isNotEmpty();
        assertThat(read().problems().getFirst().what()).contains(problem);
    }
}
