package fixshelf.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.demo.DemoShelf;
import fixshelf.desktop.shelf.WritingPlace;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.shelf.FixPage;
import fixshelf.work.Preview;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ListView;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/// The story that the window is for, told in the real window: write a fix, see it work on real rows, add a case, use
/// it in a job on a file, run the job, copy the fix in another language.
class StoryTest extends WindowTest {
    @Tag("proof")
    @Test
    void aFixIsWrittenTriedUsedRunAndCopied() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("story"), 900));
        // A new fix, by keyboard.
        press(KeyCode.CONTROL, KeyCode.N);
        settle();
        WritingPlace writing = frame.shelfPlace().writing();
        on(() -> writing.body().code().replaceText("RETURN trimm(upper(text));"));
        settle();
        assertThat(labels()).anyMatch(t -> t.contains("line 1: no function trimm. Nearest: trim"));
        on(() -> writing.body().code().replaceText("SET loud = upper(text);\nRETURN trim(loud);"));
        settle();
        FixPage page = frame.workbench().orElseThrow().shelf().fix("new_fix").orElseThrow();
        assertThat(page.bodyText()).contains("SET loud");
        // It works on real rows, with the intermediate value.
        assertThat(labels()).anyMatch(t -> t.matches("· [\\d,]+ of [\\d,]+ values change.*"));
        // A case that fails shows what came; mended, it holds.
        on(() -> button("+ case").fire());
        settle();
        type("#case-1-0", "' tea'");
        type("#case-1-1", "'tea'");
        settle();
        assertThat(text("#case-state-1")).contains("fails");
        assertThat(text("#case-got-1")).contains("'TEA'");
        type("#case-1-1", "'TEA'");
        settle();
        assertThat(text("#case-state-1")).contains("holds");
        // Undo and redo, then keep: only now the page is on disk.
        assertThat(page.file()).doesNotExist();
        press(KeyCode.CONTROL, KeyCode.ENTER);
        settle();
        assertThat(page.file()).content().contains("| ' tea' | 'TEA' |");
        // A file of one's own begins a job; the fix is used in it and the job is run.
        Path mine = Files.writeString(folder.resolve("mine.txt"), "No;Item\n1; kettle\n2;radio\n2;radio \n");
        on(() -> frame.read(mine));
        settle();
        assertThat(labels()).contains("3 rows");
        on(() -> {
            Node add = lookup(".text-field").stream()
                    .filter(n -> "Add a line".equals(n.getAccessibleText()))
                    .findFirst()
                    .orElseThrow();
            add.requestFocus();
            ((TextField) add).setText("new fix");
        });
        settle();
        press(KeyCode.ENTER);
        settle();
        assertThat(labels()).contains("3 cells");
        on(() -> button("a file, .parquet or .csv").fire());
        press(KeyCode.ENTER);
        settle();
        press(KeyCode.CONTROL, KeyCode.R);
        settle();
        assertThat(labels()).anyMatch(t -> t.startsWith("Wrote out/mine.parquet · 3 rows"));
        assertThat(folder.resolve("out/mine.parquet")).exists();
        // The same fix in another language.
        press(KeyCode.CONTROL, KeyCode.DIGIT4);
        settle();
        on(() -> {
            frame.languagesPlace().show("new_fix");
            frame.languagesPlace().choose("pandas");
        });
        settle();
        press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.C);
        settle();
        String[] copied = new String[1];
        on(() -> copied[0] = Clipboard.getSystemClipboard().getString());
        assertThat(copied[0])
                .contains("def new_fix(text: pd.Series) -> pd.Series:")
                .contains("loud = ");
    }

    @Tag("proof")
    @Test
    void theShelfIsProvenAndSavedInALanguage() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("story"), 300));
        press(KeyCode.CONTROL, KeyCode.DIGIT4);
        on(() -> {
            frame.languagesPlace().show("capital_first");
            frame.languagesPlace().choose("sqlite");
        });
        settle();
        // SQLite is inside the process, so it is always run.
        assertThat(labels()).contains("● same").anyMatch(t -> t.startsWith("run on 3."));
        assertThat(labels()).anyMatch(t -> t.startsWith("= in "));
        on(() -> frame.languagesPlace().save(folder.resolve("as sqlite")));
        settle();
        assertThat(labels())
                .anyMatch(t -> t.startsWith("Wrote fixes.sql, checks.sql, receipt.sql, hours_by_month.sql")
                        && t.contains("Left out")
                        && t.contains("amount")
                        && t.contains("visits_clean"));
        assertThat(folder.resolve("as sqlite/checks.sql")).content().contains("capital_first");
        // A whole job, line by line, and the rows that come out of it.
        on(() -> frame.languagesPlace().showJob("thornmere_report"));
        settle();
        assertThat(labels())
                .contains("As SQLite, the whole job", "○ cannot say 1 line")
                .anyMatch(t -> t.startsWith("Line 9, Read parts_cost as an amount: SQLite cannot say it"))
                .anyMatch(t -> t.matches("9[0-9] of the first 100 rows come out, all the same"));
        // The board of the whole shelf; a cell leads to the fix in that language.
        on(() -> frame.languagesPlace().showWholeShelf());
        settle();
        on(() -> lookup(".board-cell").stream()
                .filter(n -> String.valueOf(n.getAccessibleText()).startsWith("newest_of_each in SQLite: ● same"))
                .map(Button.class::cast)
                .findFirst()
                .orElseThrow()
                .fire());
        assertThat(labels()).anyMatch(t -> t.startsWith("newest_of_each in SQLite: ● same. "));
        on(() -> lookup(".board-cell").stream()
                .filter(n -> String.valueOf(n.getAccessibleText()).startsWith("amount in SQLite: ○ cannot say it"))
                .map(Button.class::cast)
                .findFirst()
                .orElseThrow()
                .fire());
        settle();
        assertThat(labels()).contains("As SQLite, a function").anyMatch(t -> t.startsWith("SQLite cannot say it: "));
    }

    @Tag("proof")
    @Test
    void aValueThatBreaksAPromiseBecomesACase() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("story"), 300));
        write("capital_first");
        int before = fix("capital_first").cases().size();
        type("#more-promise", "matches '^[^a]*$'");
        assertThat(labels()).anyMatch(t -> t.startsWith("▲ Always matches '^[^a]*$', but '·a' gives '·a'"));
        assertThat(fix("capital_first").promises()).hasSize(3);
        press(KeyCode.CONTROL, KeyCode.B);
        settle();
        assertThat(fix("capital_first").cases()).hasSize(before + 1);
        assertThat(fix("capital_first").cases().getLast().cells()).containsExactly("' a'", "' a'");
        // The same value is not added twice.
        press(KeyCode.CONTROL, KeyCode.B);
        settle();
        assertThat(fix("capital_first").cases()).hasSize(before + 1);
        type("#more-promise", "always_good");
        assertThat(labels()).anyMatch(t -> t.contains("This is no promise: always_good."));
    }

    @Tag("proof")
    @Test
    void aPatternIsBuiltFromWordsAndARowBecomesACase() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("story"), 300));
        press(KeyCode.CONTROL, KeyCode.N);
        settle();
        press(KeyCode.CONTROL, KeyCode.H);
        settle();
        WritingPlace writing = frame.shelfPlace().writing();
        on(() -> ((ComboBox<?>) frame.scene().lookup("#evidence-dataset"))
                .getSelectionModel()
                .select(datasets().indexOf("visits_alder_quay")));
        settle();
        on(() -> {
            ((ComboBox<?>) frame.scene().lookup("#evidence-column"))
                    .getSelectionModel()
                    .select(0);
            ((TextField) frame.scene().lookup("#pattern-before")).setText("AQ-");
        });
        settle();
        assertThat(labels()).contains("pattern AQ-(.+)").anyMatch(t -> t.matches("300 of 300 values of visit_no .*"));
        on(() -> {
            writing.body().code().clear();
            button("Use it in the body").fire();
        });
        settle();
        assertThat(writing.body().code().getText()).isEqualTo("regexp_extract(text, 'AQ-(.+)', 1)");
        on(() -> {
            ListView<?> rows = (ListView<?>) frame.scene().lookup("#pattern-rows");
            rows.getSelectionModel().select(0);
            button("Wanted: make a case").fire();
        });
        settle();
        FixPage page = frame.workbench().orElseThrow().shelf().fix("new_fix").orElseThrow();
        assertThat(page.cases().getLast().cells().getFirst()).startsWith("'AQ-");
        assertThat(text("#case-state-1")).contains("holds");
    }

    @Tag("proof")
    @Test
    void aBlankIsEditedInPlaceAndUndoSurvivesARestart() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("story"), 900));
        showCleaned();
        on(() -> button("last").fire());
        settle();
        press(KeyCode.UP);
        press(KeyCode.ENTER);
        settle();
        on(() -> lookup(".inline-edit").forEach(n -> {
            ((TextField) n).setText("first");
            ((TextField) n).getOnAction().handle(null);
        }));
        settle();
        Path job = folder.resolve("jobs/visits_clean.yaml");
        assertThat(frame.workbench()
                        .orElseThrow()
                        .job(job)
                        .orElseThrow()
                        .source()
                        .text())
                .contains("keep: first");
        assertThat(job).content().contains("keep: last");
        on(() -> frame.open(folder));
        settle();
        Workbench again = frame.workbench().orElseThrow();
        assertThat(again.isDraft(job)).isTrue();
        assertThat(again.job(job).orElseThrow().source().text()).contains("keep: first");
        on(() -> again.undo(job));
        assertThat(again.job(job).orElseThrow().source().text()).contains("keep: last");
        assertThat(again.isDraft(job)).isFalse();
        everythingAnOutputHasIsABlank(job);
    }

    /// Issue of outputs: all options of delimited text, and a table of a database or a server, without the page.
    private void everythingAnOutputHasIsABlank(Path job) throws Exception {
        showCleaned();
        String usual = jobText(job);
        fill("{out}/visits_clean.parquet", "out/visits.csv");
        on(() -> button("more …").fire());
        for (String blank : List.of(
                "commas",
                "formulas as they are",
                "names in the first row",
                "quotes where needed",
                "rows ending with LF",
                "no byte order mark")) {
            on(() -> button(blank).requestFocus());
            press(KeyCode.SPACE);
            settle();
        }
        // Who is at a blank stays there: once more, and it is as it was.
        press(KeyCode.SPACE);
        press(KeyCode.SPACE);
        settle();
        fill("nothing for missing", "NA");
        fill("utf-8", "latin-1");
        assertThat(jobText(job))
                .contains("out/visits.csv", "separator: \";\"", "formulas: guarded", "heading: false", "quotes: always")
                .contains("line_end: crlf", "missing: NA", "encoding: latin-1")
                .doesNotContain("byte_order_mark");
        fill("out/visits.csv", "mariadb://db.example/rooms");
        fill("visits_clean", "visits");
        fill("the usual user", "mender");
        fill("no password", "ROOMS_PASSWORD");
        on(() -> button("only if it is not there").fire());
        settle();
        assertThat(jobText(job))
                .contains("table: visits\n", "mode: replace", "user: mender", "password_from: ROOMS_PASSWORD")
                .doesNotContain("separator");
        fill("mariadb://db.example/rooms", "{out}/visits_clean.parquet");
        on(() -> button("only if it is not there").fire());
        settle();
        assertThat(jobText(job)).isEqualTo(usual);
    }

    private void fill(String blank, String text) throws Exception {
        on(() -> button(blank).fire());
        on(() -> lookup(".inline-edit").forEach(n -> {
            ((TextField) n).setText(text);
            ((TextField) n).getOnAction().handle(null);
        }));
        settle();
    }

    /// K1, E20: what a line loses is listed with its counts; a strict line stops the run and says what.
    @Test
    @Tag("proof")
    void lostValuesAreListedAndCanStopTheRun() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("story"), 900));
        showCleaned();
        on(() -> frame.jobsPlace().choose(3, Preview.View.LOST));
        settle();
        assertThat(labels()).contains("No value is lost at this line.");
        // What the fix no longer says of itself counts as lost at once.
        Path wanted = folder.resolve("fixes/missing/words_to_missing.fix.md");
        on(() -> {
            Workbench workbench = frame.workbench().orElseThrow();
            String text = workbench.fix(wanted).orElseThrow().source().text();
            workbench.edit(wanted, text.replaceAll("(?m)^makes_missing: .*\n", ""));
        });
        showCleaned();
        on(() -> frame.jobsPlace().choose(3, Preview.View.LOST));
        settle();
        assertThat(sentences()).anyMatch(t -> t.matches("Lost: '\\?' in weight_kg, \\d+ rows\\. A lost value "));
        assertThat(lookup(".changed-cell"))
                .as("the rows that lose it are there")
                .isNotEmpty();
        on(() -> button("becomes missing").requestFocus());
        press(KeyCode.SPACE);
        settle();
        Path job = folder.resolve("jobs/visits_clean.yaml");
        assertThat(jobText(job)).contains("strict: true");
        assertThat(labels()).anyMatch(t -> t.matches("▲ A run stops here: \\d+ values are lost\\."));
        press(KeyCode.CONTROL, KeyCode.R);
        settle();
        assertThat(labels()).anyMatch(t -> t.startsWith("Line 3 would lose") && t.contains("'?' in weight_kg"));
        assertThat(folder.resolve("out/visits_clean.parquet")).doesNotExist();
        // The sentence has a blank for it now, which takes it back.
        fill("stops the run", "becomes missing");
        assertThat(jobText(job)).doesNotContain("strict");
        press(KeyCode.CONTROL, KeyCode.R);
        settle();
        assertThat(folder.resolve("out/visits_clean.parquet")).exists();
    }

    @Test
    void aFolderWithoutAShelfAndABrokenFileHaveWords() throws Exception {
        open(Files.createTempDirectory("nothing"));
        assertThat(labels()).anyMatch(t -> t.contains("There is no shelf in this folder"));
        Path fresh = Files.createTempDirectory("fresh").resolve("shelf");
        on(() -> frame.create(fresh));
        settle();
        assertThat(labels()).anyMatch(t -> t.equals("tidy_spaces(text) → text"));
        Path empty = Files.createFile(fresh.resolve("empty.csv"));
        on(() -> frame.read(empty));
        settle();
        assertThat(labels()).anyMatch(t -> t.contains("is empty or no file"));
    }

    /// Rows of the job before that come late are not those of this one; all that it wants to read
    /// is allowed in one press.
    @Test
    void aJobThatAsksForPlacesShowsNoRowsOfAnotherUntilItMay() throws Exception {
        Path outside = Files.createTempDirectory("outside");
        Path shelf = DemoShelf.create(Files.createTempDirectory("story"), 300);
        for (String name : List.of("one", "two")) {
            Files.createDirectories(outside.resolve(name));
            Files.writeString(outside.resolve(name + "/rows.csv"), "k\n" + name + "\n");
            Files.writeString(
                    shelf.resolve("datasets/far_" + name + ".yaml"),
                    "dataset: far_" + name + "\nread: " + outside.resolve(name + "/rows.csv") + "\n");
        }
        Files.writeString(
                shelf.resolve("jobs/far.yaml"),
                "format: 2\njob: far\ntitle: Far\nlines:\n  - read: far_one\n  - put_under: far_two\n");
        open(shelf);
        press(KeyCode.CONTROL, KeyCode.DIGIT3);
        on(() -> frame.jobsPlace().show(folder.resolve("jobs/visits_clean.yaml")));
        on(() -> frame.jobsPlace().show(folder.resolve("jobs/far.yaml")));
        settle();
        TableView<?> rows = (TableView<?>) lookup(".table-view").stream()
                .filter(Node::isVisible)
                .findFirst()
                .orElseThrow();
        assertThat(rows.getItems()).isEmpty();
        assertThat(labels()).anyMatch(t -> t.startsWith("This shelf wants to use 2 places"));
        on(() -> button("Allow these 2 places").fire());
        settle();
        assertThat(rows.getItems()).hasSize(2);
    }

    private void showCleaned() throws Exception {
        press(KeyCode.CONTROL, KeyCode.DIGIT3);
        settle();
        on(() -> frame.jobsPlace().show(folder.resolve("jobs/visits_clean.yaml")));
        settle();
    }

    private java.util.List<?> datasets() {
        return ((ComboBox<?>) frame.scene().lookup("#evidence-dataset")).getItems();
    }
}
