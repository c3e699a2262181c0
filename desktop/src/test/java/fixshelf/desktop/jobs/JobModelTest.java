package fixshelf.desktop.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.demo.DemoShelf;
import fixshelf.desktop.jobs.JobModel.Look;
import fixshelf.desktop.jobs.JobModel.Sight;
import fixshelf.desktop.parts.PagedRows;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.TestScreen;
import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.JobRun;
import fixshelf.work.LineEffect;
import fixshelf.work.Preview.View;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What the window knows of a job, without a window.
class JobModelTest {
    @TempDir
    Path folder;

    private final TestScreen screen = new TestScreen();
    private final Background background = new Background(screen);
    private final JobModel model = new JobModel(background);
    private Shelf shelf;

    @BeforeEach
    void make() throws Exception {
        DemoShelf.create(folder, 300);
        shelf = ShelfReader.read(folder).get();
    }

    @AfterEach
    void close() {
        background.close();
    }

    private Look look(String job) {
        List<Outcome<Look>> found = new ArrayList<>();
        model.look(shelf, shelf.job(job).orElseThrow(), found::add);
        screen.settle(background);
        assertThat(found).hasSize(1);
        return found.getFirst().get();
    }

    private PagedRows rows(Look look, int line, Sight sight) {
        List<Outcome<PagedRows>> found = new ArrayList<>();
        model.rows(look, line, sight, found::add);
        screen.settle(background);
        return found.getFirst().get();
    }

    @Test
    void everyLineTellsWhatItDoesAndRowsComePageByPage() {
        Look look = look("visits_clean");
        assertThat(look.effects()).hasSameSizeAs(look.planned().plan().steps());
        assertThat(look.total()).isEqualTo(look.rows());
        PagedRows all = rows(look, 1, Sight.of(View.ALL));
        assertThat(all).hasSize((int) look.rows());
        // The page of a row is asked for when the row is looked at.
        assertThat(all.get(250).number()).isZero();
        screen.settle(background);
        assertThat(all.get(250).number()).isEqualTo(251);
    }

    @ParameterizedTest
    @CsvSource({"CHANGED", "LEAVING", "ADDED", "LOST"})
    void aViewHasAsManyRowsAsTheLineSays(View view) {
        Look look = look("visits_clean");
        for (LineEffect effect : look.effects().subList(1, look.effects().size())) {
            boolean none =
                    switch (view) {
                        case CHANGED -> effect.cellsChanged() == 0;
                        case LEAVING -> effect.rowsGone() == 0;
                        case ADDED -> effect.added() == 0;
                        case LOST -> effect.valuesLost() == 0;
                        case ALL -> false;
                    };
            assertThat(rows(look, effect.line(), Sight.of(view)).isEmpty())
                    .as("line " + effect.line())
                    .isEqualTo(none);
        }
    }

    @Test
    void anOlderLookIsDroppedForANewerOne() {
        List<String> heard = new ArrayList<>();
        model.look(shelf, shelf.job("visits_clean").orElseThrow(), o -> heard.add("visits"));
        model.look(shelf, shelf.job("hours_by_month").orElseThrow(), o -> heard.add("hours"));
        screen.settle(background);
        assertThat(heard).containsExactly("hours");
    }

    /// Of another source than the one that was looked at, no rows are left over.
    @Test
    void jobsOfDifferentSourcesFollowEachOther() {
        assertThat(look("visits_clean").rows()).isGreaterThanOrEqualTo(300);
        Look hours = look("hours_by_month");
        assertThat(rows(hours, 1, Sight.of(View.ALL))).hasSize((int) hours.rows());
        assertThat(look("visits_clean").rows()).isGreaterThanOrEqualTo(300);
    }

    /// A file that was replaced on disk, the one that is read or one that is brought in, is seen at the next look.
    @ParameterizedTest
    @CsvSource({"data/one.csv, 3, 1", "data/two.csv, 2, 2", "datasets/two.yaml, 2, 0"})
    void filesThatWereReplacedAreReadAnew(String replaced, long read, long kept) throws Exception {
        Files.writeString(folder.resolve("data/one.csv"), "k\na\nb\n");
        Files.writeString(folder.resolve("data/two.csv"), "k\na\n");
        Files.writeString(folder.resolve("datasets/two.yaml"), "dataset: two\nread: data/two.csv\n");
        Files.writeString(
                folder.resolve("jobs/both.yaml"),
                "format: 2\njob: both\nlines:\n  - read: {file: data/one.csv}\n  - keep_matching: two\n    matching: {k: k}\n");
        shelf = ShelfReader.read(folder).get();
        assertThat(look("both").effects()).extracting(LineEffect::rowsAfter).containsExactly(2L, 1L);
        Files.writeString(
                folder.resolve(replaced),
                replaced.startsWith("data/") ? "k\na\nb\nc\n" : "dataset: two\nread: data/two.csv\nnull_words: [a]\n");
        shelf = ShelfReader.read(folder).get();
        assertThat(look("both").effects()).extracting(LineEffect::rowsAfter).containsExactly(read, kept);
    }

    @Test
    void aJobThatCannotBeReadSaysWhy() throws Exception {
        Files.writeString(
                folder.resolve("jobs/away.yaml"), "format: 2\njob: away\nlines:\n  - read: {file: data/no.csv}\n");
        shelf = ShelfReader.read(folder).get();
        List<Outcome<Look>> found = new ArrayList<>();
        model.look(shelf, shelf.job("away").orElseThrow(), found::add);
        screen.settle(background);
        assertThat(found.getFirst().problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("no.csv"));
        assertThat(background.faultProperty().get()).isEmpty();
    }

    @Test
    void aRunTellsItsStagesAndWhatItWrote() {
        List<String> stages = new ArrayList<>();
        List<Outcome<JobRun.Report>> reports = new ArrayList<>();
        model.run(shelf, shelf.job("village_figures").orElseThrow(), (words, _) -> stages.add(words), reports::add);
        screen.settle(background);
        assertThat(reports.getFirst().get().files()).singleElement().satisfies(f -> assertThat(f)
                .exists());
        assertThat(stages).anyMatch(s -> s.startsWith("Reading ")).anyMatch(s -> s.startsWith("Writing "));
    }
}
