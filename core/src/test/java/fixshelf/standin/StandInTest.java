package fixshelf.standin;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.profile.DataLook;
import fixshelf.profile.RowFilter;
import fixshelf.profile.SeenRow;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.Datasets;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// Files that stand in for datasets: how they are written, what is refused, and what jobs do with them.
class StandInTest {
    @TempDir
    Path folder;

    @BeforeEach
    void shelf() throws Exception {
        write("shelf.yaml", "shelf: s\n");
        write(
                "datasets/visits.yaml",
                "dataset: visits\nread: visits.txt\nseparator: \";\"\nencoding: windows-1252\nnull_words: [\"\", n/a]\n");
        write("datasets/menders.yaml", "dataset: menders\nread: menders.csv\n");
        StringBuilder rows = new StringBuilder("no;mender;state;cost\n");
        for (int i = 1; i <= 60; i++) {
            String mender = i % 3 == 0 ? "Renée Ostler" : i % 3 == 1 ? " Maud  Fenn" : "n/a";
            rows.append(String.format("AQ-%03d;%s;%s;%d.50%n", i, mender, i % 4 == 0 ? "waiting" : "\"\"", i * 3));
        }
        Files.write(folder.resolve("visits.txt"), rows.toString().getBytes(Charset.forName("windows-1252")));
        write("menders.csv", "mender,room\nRenée Ostler,\"a \"\"b\"\", c\"\nMaud Fenn,\"two\nlines\"\n");
        write("jobs/waiting.yaml", """
                job: waiting
                title: Those that wait
                lines:
                  - read: visits
                  - keep_rows: "state = 'waiting'"
                  - bring_in: [room]
                    from: menders
                    matching: {mender: mender}
                """);
    }

    private void write(String name, String text) throws Exception {
        Path file = folder.resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
    }

    private Shelf read() {
        Shelf shelf = ShelfReader.read(folder).get();
        assertThat(shelf.problems()).isEmpty();
        return shelf;
    }

    private static DataLook look(Shelf shelf, String name) {
        return DataLook.open(Datasets.open(shelf, name).get(), Long.MAX_VALUE).get();
    }

    private Outcome<StandIn.Made> make(Shelf shelf, Path to, Set<String> kept, String... names) {
        return Staged.with(shelf, List.of(), List.of(names), Long.MAX_VALUE, all -> SharedWord.of(all)
                .then(shared -> SharedWord.named(shared, List.copyOf(kept)))
                .then(words -> StandIn.make(shelf, all, new StandIn.Wanted(words, to, false))));
    }

    private static List<SeenRow> rows(DataLook look) {
        try (look) {
            return look.rows(RowFilter.ALL, 0, 1000).get();
        }
    }

    @Test
    void aStandInIsReadAsTheFileIsAndHasNoneOfItsValues() throws Exception {
        Shelf shelf = read();
        Path to = folder.resolve("out/sent");
        StandIn.Made made =
                make(shelf, to, Set.of("waiting"), "visits", "menders").get();
        assertThat(made.rows()).isEqualTo(62);
        assertThat(made.files())
                .extracting(w -> w.file().getFileName().toString())
                .containsExactly("visits.txt", "menders.csv");
        Path other = Files.createDirectories(folder.resolve("other"));
        Files.writeString(other.resolve("shelf.yaml"), "shelf: o\n");
        Files.createDirectories(other.resolve("datasets"));
        for (StandIn.Written written : made.files()) {
            Files.copy(
                    written.page(),
                    other.resolve("datasets").resolve(written.page().getFileName()));
            Files.copy(written.file(), other.resolve(written.file().getFileName()));
        }
        Shelf theirs = ShelfReader.read(other).get();
        for (String name : List.of("visits", "menders")) {
            List<SeenRow> were = rows(look(shelf, name));
            List<SeenRow> are = rows(look(theirs, name));
            assertThat(are).hasSameSizeAs(were);
            for (int i = 0; i < were.size(); i++) {
                for (int c = 0; c < were.get(i).cells().size(); c++) {
                    String was = were.get(i).cells().get(c);
                    String is = are.get(i).cells().get(c);
                    if (was == null || was.isEmpty() || was.equals("waiting")) {
                        assertThat(is).isEqualTo(was);
                    } else {
                        assertThat(is).isNotEqualTo(was).hasSameSizeAs(was);
                    }
                }
            }
        }
    }

    @Test
    void jobsDoTheSameWithIt() {
        Shelf shelf = read();
        StandIn.Made made = make(shelf, folder.resolve("out/a"), Set.of("waiting"), "visits", "menders")
                .get();
        assertThat(JobsAlike.of(shelf, made, 1000))
                .flatExtracting(JobsAlike.Job::sentences)
                .containsExactly("waiting: all 3 lines do the same with it.");
        // Without the word that the job asks for, and without the other table, it says where it does not.
        StandIn.Made alone =
                make(shelf, folder.resolve("out/b"), Set.of(), "visits").get();
        assertThat(JobsAlike.of(shelf, alone, 1000))
                .flatExtracting(JobsAlike.Job::other)
                .extracting(JobsAlike.Line::number)
                .contains(2);
        StandIn.Made unmatched = make(shelf, folder.resolve("out/c"), Set.of("waiting"), "visits")
                .get();
        assertThat(JobsAlike.of(shelf, unmatched, 1000))
                .flatExtracting(JobsAlike.Job::sentences)
                .anySatisfy(s -> assertThat(s).startsWith("waiting, line 3: ").contains("without a match"));
    }

    @Test
    void onlyWhatManyRowsShareMayStay() {
        Shelf shelf = read();
        List<String> offered = new ArrayList<>();
        Staged.with(shelf, List.of(), List.of("visits"), Long.MAX_VALUE, SharedWord::of)
                .get()
                .forEach(w -> offered.add(w.column() + ": " + w.text() + " " + w.rows()));
        assertThat(offered)
                .containsExactly("no: AQ 60", "mender: Maud  Fenn 20", "mender: Renée Ostler 20", "state: waiting 15");
        Outcome<StandIn.Made> refused = make(shelf, folder.resolve("out"), Set.of("AQ-017"), "visits");
        assertThat(refused.problems()).extracting(p -> p.code()).containsExactly(Code.ARGUMENTS);
        assertThat(refused.problems().getFirst().sentence()).contains("“AQ-017”", "shared");
        assertThat(folder.resolve("out")).doesNotExist();
    }

    @Test
    void nothingIsWrittenOver() throws Exception {
        Shelf shelf = read();
        Path out = folder.resolve("out");
        assertThat(make(shelf, out, Set.of(), "visits").isPresent()).isTrue();
        Set<String> before = names(out);
        assertThat(make(shelf, out, Set.of(), "visits").problems())
                .extracting(p -> p.code())
                .containsExactly(Code.TARGET_EXISTS);
        assertThat(make(shelf, folder, Set.of(), "visits").problems())
                .extracting(p -> p.code())
                .containsExactly(Code.TARGET_IS_SOURCE);
        assertThat(make(shelf, folder.resolve("datasets"), Set.of(), "menders").problems())
                .extracting(p -> p.code())
                .containsExactly(Code.TARGET_NOT_WRITABLE);
        assertThat(names(out)).isEqualTo(before).containsExactlyInAnyOrder("visits.txt", "visits.yaml");
    }

    private static Set<String> names(Path folder) throws Exception {
        Set<String> names = new HashSet<>();
        try (Stream<Path> files = Files.list(folder)) {
            files.forEach(f -> names.add(f.getFileName().toString()));
        }
        return names;
    }
}
