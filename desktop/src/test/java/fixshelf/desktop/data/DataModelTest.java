package fixshelf.desktop.data;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.demo.DemoShelf;
import fixshelf.desktop.data.DataModel.Seen;
import fixshelf.desktop.parts.PagedRows;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.TestScreen;
import fixshelf.problem.Outcome;
import fixshelf.profile.ColumnLook;
import fixshelf.profile.CountSpec;
import fixshelf.profile.CountTable;
import fixshelf.profile.Finding;
import fixshelf.profile.Oddity;
import fixshelf.profile.RowFilter;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// What the window knows of a dataset, without a window.
class DataModelTest {
    private static final int MANY = 60_000;

    @TempDir
    Path folder;

    private final TestScreen screen = new TestScreen();
    private final Background background = new Background(screen);
    private final DataModel model = new DataModel(background);
    private Shelf shelf;

    @BeforeEach
    void make() throws Exception {
        DemoShelf.create(folder, 300);
        StringBuilder rows = new StringBuilder("k,n\n");
        for (int i = 0; i < MANY; i++) {
            rows.append(i).append(i < MANY - 10 ? ",7" : ", 7").append(i % 3).append('\n');
        }
        Files.writeString(folder.resolve("data/many.csv"), rows);
        Files.writeString(folder.resolve("datasets/many.yaml"), "dataset: many\nread: data/many.csv\n");
        shelf = ShelfReader.read(folder).get();
    }

    @AfterEach
    void close() {
        background.close();
    }

    private List<Seen> look(String dataset) {
        List<Seen> seen = new ArrayList<>();
        model.look(shelf, dataset, found -> seen.add(found.get()));
        screen.settle(background);
        return seen;
    }

    /// First the beginning of a large file, then all of it, then what would help; what is odd at its end is found.
    @Test
    void whatIsKnownComesInSteps() {
        List<Seen> seen = look("many");
        assertThat(seen).extracting(s -> s.table().whole()).containsExactly(false, true, true);
        assertThat(seen).extracting(s -> s.table().rows()).containsExactly(50_000L, (long) MANY, (long) MANY);
        assertThat(seen).extracting(Seen::tried).containsExactly(false, false, true);
        assertThat(seen.getFirst().toLookAt()).isZero();
        assertThat(seen.getLast().table().all()).singleElement().satisfies(f -> assertThat(f.rows())
                .isEqualTo(10));
        assertThat(seen.getLast().remedies()).hasSize(1);
        // A second look finds all of it known.
        assertThat(look("many")).singleElement().satisfies(s -> assertThat(s.tried())
                .isTrue());
    }

    @Test
    void aFileThatChangedIsLookedAtAnew() throws Exception {
        assertThat(look("menders").getLast().table().rows()).isPositive();
        Path file = folder.resolve("data/menders.csv");
        List<String> lines = Files.readAllLines(file);
        Files.write(file, lines.subList(0, 3));
        assertThat(look("menders").getLast().table().rows()).isEqualTo(2);
    }

    @Test
    void theRowsOfAFindingAreThoseThatItCounts() {
        Seen seen = look("visits_alder_quay").getLast();
        for (Finding finding : seen.table().all()) {
            List<Outcome<PagedRows>> rows = new ArrayList<>();
            model.rows(seen.file(), RowFilter.of(finding), rows::add);
            screen.settle(background);
            // Of values that repeat, the rows that they repeat are shown too.
            boolean repeats = finding.oddity() == Oddity.REPEATS;
            assertThat(rows.getFirst().get().size())
                    .as(finding.toString())
                    .isBetween((int) finding.rows(), (int) finding.rows() * (repeats ? 2 : 1));
        }
    }

    @Test
    void countsAddUpToTheRows() {
        Seen seen = look("visits_alder_quay").getLast();
        List<String> names =
                seen.table().columns().stream().map(ColumnLook::name).toList();
        List<Outcome<CountTable>> found = new ArrayList<>();
        model.counts(
                seen.file(), CountSpec.of(List.of(names.indexOf("outcome"), names.indexOf("village"))), found::add);
        screen.settle(background);
        assertThat(found.getFirst().get().sheets()).singleElement().satisfies(s -> assertThat(s.all())
                .isEqualTo(seen.table().rows()));
    }

    /// Another dataset was staged since: its rows are not given for those of the one before.
    @Test
    void rowsOfADatasetThatIsNotStagedAnyMoreAreNotThoseOfAnother() {
        Seen menders = look("menders").getLast();
        look("item_groups");
        List<Outcome<PagedRows>> rows = new ArrayList<>();
        model.rows(menders.file(), RowFilter.ALL, rows::add);
        screen.settle(background);
        assertThat(rows).isEmpty();
    }

    @Test
    void sizesAreListedWithoutReadingRows() {
        model.list(shelf, () -> {});
        screen.settle(background);
        assertThat(model.sizeOf("many")).endsWith("kB");
        assertThat(model.sizeOf("fuse_prices")).isEqualTo("not read yet");
        assertThat(model.sizeOf("nothing")).isEmpty();
    }
}
