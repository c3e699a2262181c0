package fixshelf.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.demo.DemoShelf;
import fixshelf.plan.TableExample;
import fixshelf.work.JobParity;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.Node;
import javafx.scene.control.TableView;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/// Tables in the window, by keys alone: a table fix is written, a cell is followed, every row is accounted for.
class TablesTest extends WindowTest {
    private void focus(String accessible) throws Exception {
        on(() -> lookup(".text-field").stream()
                .filter(n -> accessible.equals(n.getAccessibleText()))
                .findFirst()
                .ifPresent(Node::requestFocus));
    }

    @Test
    @Tag("proof")
    void rowsGoIntoATableOfADatabase() throws Exception {
        Path demo = DemoShelf.create(Files.createTempDirectory("tables"), 60);
        Path page = demo.resolve("jobs/loans.yaml");
        Files.writeString(
                page,
                "format: 2\njob: loans\nlines:\n  - read: tool_loans\noutputs:\n  - write: out/loans.sqlite\n    table: loans\n");
        open(demo);
        press(KeyCode.CONTROL, KeyCode.DIGIT3);
        on(() -> frame.jobsPlace().show(page));
        settle();
        assertThat(labels()).contains("as table");
        assertThat(buttons()).contains("loans");
        press(KeyCode.CONTROL, KeyCode.R);
        settle();
        assertThat(labels()).anyMatch(l -> l.startsWith("Wrote out/loans.sqlite"));
        press(KeyCode.CONTROL, KeyCode.R);
        settle();
        assertThat(labels()).anyMatch(l -> l.startsWith("There is a table loans of loans.sqlite already"));
        on(() -> button("only if it is not there").fire());
        settle();
        assertThat(jobText(page)).contains("    table: loans\n    mode: replace\n");
        press(KeyCode.CONTROL, KeyCode.R);
        settle();
        assertThat(labels()).anyMatch(l -> l.startsWith("Wrote out/loans.sqlite"));
        on(() -> button("instead of what is there").fire());
        settle();
        press(KeyCode.CONTROL, KeyCode.R);
        settle();
        assertThat(labels()).anyMatch(l -> l.startsWith("Wrote out/loans.sqlite"));
        assertThat(jobText(page)).contains("mode: append");
        on(() -> button("another file …").fire());
        press(KeyCode.ENTER);
        settle();
        assertThat(jobText(page)).endsWith("    mode: append\n  - write: \"{out}/loans-2.parquet\"\n");
        // Rows of a database can be deleted where they are, those of a text cannot.
        assertThat(deletes()).isTrue();
        on(() -> frame.jobsPlace().show(folder.resolve("jobs/visits_clean.yaml")));
        settle();
        assertThat(deletes()).isFalse();
    }

    /// What an edit breaks in the lines of a job that is not open is told in the bar, with the way to the line.
    @Test
    void whatAnEditBreaksElsewhereIsToldAndFound() throws Exception {
        Path demo = DemoShelf.create(Files.createTempDirectory("tables"), 60);
        open(demo);
        assertThat(buttons()).noneMatch(b -> b.contains("problem"));
        Path page = demo.resolve("jobs/visits_with_rooms.yaml");
        on(() -> frame.workbench().orElseThrow().edit(page, jobText(page).replace("outcome, mender]", "outcome]")));
        settle();
        on(() -> button("▲ 2 problems").fire());
        assertThat(labels()).anyMatch(l -> l.contains("There is no column mender"));
        on(() -> button("jobs/visits_with_rooms.yaml, line 15").fire());
        settle();
        assertThat(lookup(".job-line.chosen"))
                .extracting(Node::getAccessibleText)
                .singleElement()
                .asString()
                .startsWith("Line 5: ");
    }

    private boolean deletes() {
        return frame.jobsPlace().commands().stream()
                .filter(c -> c.text().equals("Which rows would be deleted from the table"))
                .anyMatch(c -> c.enabled().getAsBoolean());
    }

    @Test
    @Tag("proof")
    void aLoaderIsWrittenTriedAndKept() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("tables"), 60));
        press(KeyCode.CONTROL, KeyCode.ALT, KeyCode.N);
        settle();
        Path page = folder.resolve("fixes/loaders/new_loader.fix.md");
        assertThat(labels()).contains("Lines").anyMatch(l -> l.contains("new_loader needs name."));
        focus("name");
        robot.write("menders");
        press(KeyCode.ENTER);
        settle();
        // Its first line reads, and stays first; another goes over what it read.
        assertThat(labels()).contains("11 rows");
        focus("Add a line");
        robot.write("keep only the first");
        settle();
        press(KeyCode.ENTER);
        settle();
        assertThat(text(page)).contains("- read: {file: \"{data}/{name}.csv\"}\n- first_rows: \"1\"\n");
        press(KeyCode.CONTROL, KeyCode.K);
        settle();
        press(KeyCode.CONTROL, KeyCode.S);
        settle();
        assertThat(page)
                .content()
                .contains("### Called with arguments of your own")
                .contains("'Ottoline Fenn'");
        assertThat(labels()).contains("● Called with arguments of your own");
    }

    @Tag("proof")
    @Test
    void aTableFixIsWrittenTriedAndKept() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("tables"), 60));
        press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.N);
        settle();
        Path page = folder.resolve("fixes/tables/new_table_fix.fix.md");
        assertThat(labels()).contains("Lines", "● Two rows with one key");
        // A line is added by words for what it does, after the chosen one.
        focus("Add a line");
        robot.write("keep only the first");
        settle();
        press(KeyCode.ENTER);
        settle();
        assertThat(text(page)).contains("- drop_repeats: [\"{keys}\"]\n  keep: first\n- first_rows: \"1\"\n");
        // The rows in view become a case, which holds, as it says what the fix does.
        press(KeyCode.CONTROL, KeyCode.K);
        settle();
        assertThat(text(page)).contains("### Rows of ");
        settle();
        var fix = frame.workbench().orElseThrow().table(page).orElseThrow();
        assertThat(fix.problems()).isEmpty();
        assertThat(fix.cases()).extracting(TableExample::title).hasSize(2);
        assertThat(frame.workbench().orElseThrow().resultsOf(fix)).hasSize(2).allSatisfy(r -> assertThat(r.verdict())
                .isInstanceOf(JobParity.Same.class));
        // A promise that does not hold is shown with the smallest table that breaks it, which becomes a case.
        type("#more-table-promise", "filled keys");
        assertThat(labels())
                .contains("▲ Never missing: keys, but of a table with 1 row row 1 that comes out has none", "NULL");
        press(KeyCode.CONTROL, KeyCode.B);
        settle();
        assertThat(text(page)).contains("### Never missing: keys");
        type("#more-table-promise", "unique_by keys");
        assertThat(labels()).anyMatch(t -> t.startsWith("● No two rows with the same keys, on "));
        // Its words are edited in place, and kept also while they are being typed.
        assertThat(page).doesNotExist();
        focus("How a line says it");
        press(KeyCode.CONTROL, KeyCode.A);
        robot.write("keep one of {keys}");
        press(KeyCode.CONTROL, KeyCode.S);
        settle();
        assertThat(text(page)).contains("reads: \"keep one of {keys}\"\n");
        assertThat(Files.readString(page)).isEqualTo(text(page));
        // Back on the shelf it stands in the catalogue, and is found by typing.
        press(KeyCode.ESCAPE);
        settle();
        assertThat(labels()).contains("new_table_fix(keys)");
    }

    private String text(Path page) {
        return frame.workbench()
                .orElseThrow()
                .table(page)
                .orElseThrow()
                .source()
                .text();
    }

    @Test
    void aCellIsFollowedAndEveryRowIsAccountedFor() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("tables"), 300));
        press(KeyCode.CONTROL, KeyCode.DIGIT3);
        settle();
        on(() -> frame.jobsPlace().show(folder.resolve("jobs/visits_clean.yaml")));
        settle();
        on(() -> lookup(".table-view").stream().findFirst().ifPresent(n -> {
            n.requestFocus();
            ((TableView<?>) n).getSelectionModel().clearAndSelect(0);
        }));
        press(KeyCode.ENTER);
        settle();
        assertThat(labels()).contains("The life of a cell", "line 1");
        press(KeyCode.RIGHT);
        settle();
        assertThat(labels()).anyMatch(l -> l.contains("of row 1 as of line"));
        press(KeyCode.ESCAPE);
        settle();
        press(KeyCode.CONTROL, KeyCode.L);
        settle();
        assertThat(labels()).contains("Where the rows went", "rows come out, which adds up");
        press(KeyCode.ESCAPE);
        settle();
        assertThat(labels()).doesNotContain("Where the rows went");
    }

    /// Names are typed into the heads of the rows, one after another, and become one line below the chosen one.
    @Tag("proof")
    @Test
    void columnsAreNamedOneAfterAnotherByKeys() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("tables"), 60));
        press(KeyCode.CONTROL, KeyCode.DIGIT3);
        on(() -> frame.jobsPlace().show(folder.resolve("jobs/tablet_visits_clean.yaml")));
        settle();
        press(KeyCode.F2);
        robot.write("visit");
        press(KeyCode.ENTER);
        press(KeyCode.TAB);
        robot.write("came at");
        press(KeyCode.SHIFT, KeyCode.ENTER);
        robot.write("item");
        press(KeyCode.ENTER);
        press(KeyCode.ENTER);
        robot.write("nowhere");
        press(KeyCode.ESCAPE);
        settle();
        assertThat(jobText(folder.resolve("jobs/tablet_visits_clean.yaml")))
                .contains("rename: {visit_no: visit, visit_item: item, at: came at}");
        assertThat(labels()).contains("3 names", "visit", "item", "came at");
    }
}
