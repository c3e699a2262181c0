package fixshelf.desktop.workbench;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.demo.DemoShelf;
import fixshelf.problem.Outcome;
import fixshelf.shelf.FixPage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// The shelf with its drafts, without a window.
class WorkbenchTest {
    @TempDir
    Path folder;

    private final TestScreen screen = new TestScreen();
    private final Background background = new Background(screen);
    private Workbench workbench;
    private FixPage page;

    @BeforeEach
    void make() throws Exception {
        DemoShelf.create(folder, 60);
        workbench = Workbench.open(folder, background).get();
        page = workbench.shelf().fix("capital_first").orElseThrow();
    }

    @AfterEach
    void close() {
        workbench.close();
    }

    private static String of(FixPage page, String returns) {
        return page.source().text().replaceFirst("(?s)```sql.*?```", "```sql\nRETURN " + returns + ";\n```");
    }

    @Test
    void aDraftIsOnTheShelfAndNotOnTheDiskUntilItIsKept() throws Exception {
        String before = Files.readString(page.file());
        workbench.edit(page.file(), of(page, "upper(text)"));
        assertThat(workbench.isDraft(page.file())).isTrue();
        assertThat(workbench.shelf().fix("capital_first").orElseThrow().bodyText())
                .contains("upper(text)");
        assertThat(Files.readString(page.file())).isEqualTo(before);
        assertThat(workbench.keep(page.file()).problems()).isEmpty();
        assertThat(workbench.isDraft(page.file())).isFalse();
        assertThat(Files.readString(page.file())).contains("upper(text)");
    }

    @Test
    void undoAndRedoGoThroughWhatWasTypedAndSurviveAnotherOpening() {
        workbench.edit(page.file(), of(page, "upper(text)"));
        workbench.edit(page.file(), of(page, "lower(text)"));
        workbench.undo(page.file());
        assertThat(body()).contains("upper(text)");
        workbench.redo(page.file());
        assertThat(body()).contains("lower(text)");
        workbench.undo(page.file());
        workbench.undo(page.file());
        assertThat(workbench.canUndo(page.file())).isFalse();
        assertThat(workbench.isDraft(page.file())).isFalse();
        workbench.edit(page.file(), of(page, "upper(text)"));
        workbench.close();
        workbench = Workbench.open(folder, new Background(screen)).get();
        assertThat(workbench.isDraft(page.file())).isTrue();
        workbench.undo(page.file());
        assertThat(workbench.isDraft(page.file())).isFalse();
    }

    private String body() {
        return workbench.shelf().fix("capital_first").orElseThrow().bodyText();
    }

    private void checked() {
        workbench.check(0);
        screen.settle(background);
    }

    /// Every change runs the cases again; those of pages that did not change stay.
    @Test
    void casesFollowTheDrafts() {
        checked();
        int all = workbench.resultsProperty().get().size();
        assertThat(workbench.resultsProperty().get()).allMatch(r -> r.holds());
        workbench.edit(page.file(), of(page, "'x'"));
        checked();
        assertThat(workbench.resultsProperty().get()).hasSize(all).anyMatch(r -> !r.holds());
        workbench.undo(page.file());
        checked();
        assertThat(workbench.resultsProperty().get()).allMatch(r -> r.holds());
    }

    @Test
    void aPageThatAnotherProgramChangedIsNotWrittenOver() throws Exception {
        workbench.edit(page.file(), of(page, "upper(text)"));
        Files.writeString(page.file(), of(page, "lower(text)"));
        Outcome<Path> kept = workbench.keep(page.file());
        assertThat(kept.isPresent()).isFalse();
        assertThat(workbench.isChangedElsewhere(page.file())).isTrue();
        assertThat(Files.readString(page.file())).contains("lower(text)");
    }

    @Test
    void aDraftWithAProblemNamesIt() {
        workbench.edit(page.file(), of(page, "uper(text)"));
        checked();
        assertThat(workbench.problemsProperty().get())
                .anyMatch(p -> p.sentence().contains("uper"));
        workbench.undo(page.file());
        checked();
        assertThat(workbench.problemsProperty().get()).isEmpty();
    }

    @Test
    void anotherNameFollowsToWhoNamesIt() {
        List<Outcome<List<String>>> done = new ArrayList<>();
        workbench.rename(page.file(), "first_letter_large", done::add);
        screen.settle(background);
        assertThat(done.getFirst().problems()).isEmpty();
        assertThat(workbench.shelf().fix("capital_first")).isEmpty();
        assertThat(workbench.shelf().usersOf("first_letter_large")).contains("village_figures");
        assertThat(background.faultProperty().get()).isEmpty();
    }
}
