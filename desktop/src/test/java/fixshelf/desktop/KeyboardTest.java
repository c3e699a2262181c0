package fixshelf.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import fixshelf.demo.DemoShelf;
import fixshelf.desktop.parts.FacingPages;
import fixshelf.desktop.workbench.UserSettings;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.BorderPane;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/// What is done by keys alone, and what must not get lost on the way.
class KeyboardTest extends WindowTest {
    private Path job = Path.of(".");

    private void openJobs() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("keys"), 300));
        job = folder.resolve("jobs/visits_clean.yaml");
        press(KeyCode.CONTROL, KeyCode.DIGIT3);
        settle();
        on(() -> frame.jobsPlace().show(job));
        settle();
    }

    private String lines() {
        String text = jobText(job);
        return text.substring(text.indexOf("lines:"), text.indexOf("outputs:"));
    }

    private void addLine(String words) throws Exception {
        on(() -> lookup(".text-field").stream()
                .filter(n -> "Add a line".equals(n.getAccessibleText()))
                .findFirst()
                .ifPresent(Node::requestFocus));
        robot.write(words);
        settle();
        press(KeyCode.ENTER);
        settle();
    }

    @Test
    @Tag("proof")
    void linesAreAddedMovedDroppedAndTakenBack() throws Exception {
        openJobs();
        String before = jobText(job);
        int count = labels("line-number");
        // A new line stands after the chosen one, which is the last, and is chosen then.
        addLine("one line");
        assertThat(lines()).endsWith("- one_line: every text column\n");
        assertThat(labels("line-number")).isEqualTo(count + 1);
        // Up, past the line before it; the line that reads stays first.
        press(KeyCode.ALT, KeyCode.UP);
        settle();
        assertThat(lines().indexOf("one_line:")).isLessThan(lines().indexOf("drop_repeats"));
        for (int i = 0; i < 20; i++) {
            press(KeyCode.ALT, KeyCode.UP);
        }
        settle();
        assertThat(lines()).matches("(?s)lines:\\s+- dataset: \\w+\\s+- one_line:.*");
        press(KeyCode.DELETE);
        settle();
        assertThat(jobText(job)).isEqualTo(before);
        // The first line cannot be dropped.
        press(KeyCode.DELETE);
        settle();
        assertThat(jobText(job)).isEqualTo(before);
        // Every step is taken back, one by one, and done again.
        press(KeyCode.CONTROL, KeyCode.ALT, KeyCode.Z);
        settle();
        assertThat(lines()).contains("one_line:");
        press(KeyCode.CONTROL, KeyCode.ALT, KeyCode.SHIFT, KeyCode.Z);
        settle();
        assertThat(jobText(job)).isEqualTo(before);
        assertThat(job).content().isEqualTo(before);
    }

    /// The blank that is called so is focused, pressed, and filled with what is typed.
    private void fillBlank(String begins, String typed) throws Exception {
        on(() -> lookup(".blank").stream()
                .filter(n -> String.valueOf(n.getAccessibleText()).startsWith(begins))
                .reduce((a, b) -> b)
                .ifPresent(n -> ((Button) n).fire()));
        settle();
        robot.write(typed);
        settle();
        press(KeyCode.ENTER);
        settle();
    }

    @Test
    @Tag("proof")
    void aJoinIsBuiltAndItsReportIsSeen() throws Exception {
        openJobs();
        addLine("look up columns");
        fillBlank("from: ", "menders");
        fillBlank("columns: new", "home_room");
        fillBlank("matching: ", "mender to mender");
        assertThat(lines()).endsWith("  - bring_in: [home_room]\n    from: menders\n    matching: {mender: mender}\n");
        assertThat(lookup(".toggle").stream().map(n -> ((ToggleButton) n).getText()))
                .anyMatch(t -> t.matches("Without match [\\d,]+"))
                .anyMatch(t -> t.matches("Near misses 2"));
        on(() -> lookup(".toggle").stream()
                .map(ToggleButton.class::cast)
                .filter(t -> t.getText().startsWith("Near misses"))
                .forEach(ToggleButton::fire));
        settle();
        assertThat(labels()).contains("mender_there");
        // Another line's table stands beside it, row by row.
        press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.B);
        press(KeyCode.DOWN);
        press(KeyCode.ENTER);
        settle();
        assertThat(labels())
                .contains("village at 1")
                .anyMatch(t -> t.matches("Line 1 beside line \\d+: .* only at line 1; [\\d,]+ cells differ\\."));
        // At rest it does nothing, and wakes again.
        press(KeyCode.CONTROL, KeyCode.DIGIT3);
        on(() -> lookup(".job-line").stream().reduce((a, b) -> b).ifPresent(Node::requestFocus));
        settle();
    }

    /// What leads to the problems, however many they are.
    private List<String> problemButtons() {
        return lookup(".button").stream()
                .filter(Button.class::isInstance)
                .map(n -> ((Button) n).getText())
                .filter(t -> t.matches("▲ \\d+ problems?"))
                .toList();
    }

    private int labels(String style) {
        return lookup("." + style).size();
    }

    @Test
    @Tag("proof")
    void theJumpFieldLeadsToFixesColumnsJobsAndCommands() throws Exception {
        openJobs();
        jump("capital_first");
        assertThat(labels()).contains("Capital first");
        jump("weight_kg column");
        assertThat(place("Jobs").isSelected()).isTrue();
        jump("thornmere");
        assertThat(((ComboBox<?>) frame.scene().lookup(".job-choice")).getValue())
                .asString()
                .contains("Thornmere");
        jump("Go to the languages");
        assertThat(place("Languages").isSelected()).isTrue();
        // An address leads to the blanks of what is in no file.
        jump("mariadb://127.0.0.1:1/rooms");
        assertThat(labels()).contains("Read what is in no file here");
        assertThat(((TextField) frame.scene().lookup("#remote-read")).getText())
                .isEqualTo("mariadb://127.0.0.1:1/rooms");
        assertThat(frame.scene().getFocusOwner().getId()).isEqualTo("remote-table");
        jump("Go to the languages");
        // Nothing of that name, and away again.
        press(KeyCode.CONTROL, KeyCode.J);
        robot.write("qqqq");
        settle();
        press(KeyCode.ENTER);
        press(KeyCode.ESCAPE);
        settle();
        assertThat(((TextField) frame.scene().lookup(".jump")).getText()).isEmpty();
        assertThat(place("Languages").isSelected()).isTrue();
    }

    private void jump(String words) throws Exception {
        press(KeyCode.CONTROL, KeyCode.J);
        robot.write(words);
        settle();
        press(KeyCode.ENTER);
        settle();
    }

    private ToggleButton place(String title) {
        return lookup(".place").stream()
                .map(ToggleButton.class::cast)
                .filter(b -> b.getText().equals(title))
                .findFirst()
                .orElseThrow();
    }

    /// A shelf is shared: a page can change on disk while it is open here.
    @Tag("proof")
    @Test
    void aPageThatChangedOnDiskIsNotWrittenOver() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("keys"), 300));
        write("capital_first");
        Path page = fix("capital_first").file();
        String first = Files.readString(page);
        String theirs = first.replace("# Capital first", "# Capital, theirs");
        type("#more-promise", "null_only_from_null");
        String mine = fix("capital_first").source().text();
        assertThat(mine).isNotEqualTo(first);
        Files.writeString(page, theirs);
        press(KeyCode.CONTROL, KeyCode.ENTER);
        settle();
        assertThat(page).content().isEqualTo(theirs);
        assertThat(labels()).anyMatch(t -> t.contains("Another program has changed this page"));
        on(() -> button("Read it again").fire());
        settle();
        assertThat(fix("capital_first").source().text()).isEqualTo(theirs);
        assertThat(frame.workbench().orElseThrow().isDraft(page)).isFalse();
        // What was written here is one undo away, and can be kept now that theirs was seen.
        press(KeyCode.CONTROL, KeyCode.Z);
        settle();
        press(KeyCode.CONTROL, KeyCode.ENTER);
        settle();
        assertThat(page).content().isEqualTo(mine);
        assertThat(labels()).contains("Kept.");
    }

    @Tag("proof")
    @Test
    void aJobThatChangedOnDiskIsReadAgain() throws Exception {
        openJobs();
        addLine("one line");
        String theirs = Files.readString(job).replace("keep: last", "keep: first");
        Files.writeString(job, theirs);
        press(KeyCode.CONTROL, KeyCode.S);
        settle();
        assertThat(job).content().isEqualTo(theirs);
        assertThat(labels()).anyMatch(t -> t.contains("Another program has changed this page"));
        on(() -> button("Read it again").fire());
        settle();
        assertThat(jobText(job)).isEqualTo(theirs);
        press(KeyCode.CONTROL, KeyCode.ALT, KeyCode.Z);
        settle();
        press(KeyCode.CONTROL, KeyCode.S);
        settle();
        assertThat(job).content().contains("one_line:").contains("keep: last");
    }

    @Test
    void aBrokenPageIsCountedAndMendedAndHidesNoOther() throws Exception {
        Path shelf = DemoShelf.create(Files.createTempDirectory("keys"), 300);
        Path page = shelf.resolve("fixes/text/capital_first.fix.md");
        String good = Files.readString(page);
        Files.writeString(page, good.replace("returns: text", "returns: [text"));
        open(shelf);
        assertThat(problemButtons()).isNotEmpty();
        write("capital_first");
        assertThat(labels()).anyMatch(t -> t.contains("This is not YAML"));
        press(KeyCode.CONTROL, KeyCode.T);
        settle();
        on(() -> frame.shelfPlace().writing().whole().code().replaceText(good));
        settle();
        assertThat(problemButtons())
                .as(frame.workbench().orElseThrow().shelf().problems().toString())
                .isEmpty();
        assertThat(labels()).anyMatch(t -> t.matches("● \\d+ cases hold"));
        assertThat(fix("capital_first").cases()).isNotEmpty();
    }

    @Tag("proof")
    @Test
    void textGrowsPagesTurnAndTheSheetGoesDark() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("keys"), 300));
        Node root = frame.scene().getRoot();
        String size = size(root);
        press(KeyCode.CONTROL, KeyCode.PLUS);
        settle();
        assertThat(size(root)).isNotEqualTo(size);
        press(KeyCode.CONTROL, KeyCode.MINUS);
        settle();
        assertThat(size(root)).isEqualTo(size);
        press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.L);
        settle();
        assertThat(frame.scene().getStylesheets()).anyMatch(s -> s.contains("tokens-dark"));
        // It is so again when the window is opened the next time.
        Path settings = folder.resolve(".fixshelf/window.properties");
        assertThat(new UserSettings(settings).isDark()).isTrue();
        press(KeyCode.CONTROL, KeyCode.DIGIT3);
        settle();
        FacingPages pages = (FacingPages) ((BorderPane) root).getCenter();
        double both = pages.getDividerPositions()[0];
        List<Double> turned = new ArrayList<>();
        for (int i = 0; i < 3; i++) {
            press(KeyCode.F6);
            settle();
            turned.add(pages.getDividerPositions()[0]);
        }
        assertThat(turned.get(0)).isGreaterThan(0.9);
        assertThat(turned.get(1)).isLessThan(0.1);
        assertThat(turned.get(2)).isCloseTo(both, within(0.05));
    }

    private static String size(Node root) {
        return root.getStyleClass().stream()
                .filter(c -> c.startsWith("size-"))
                .findFirst()
                .orElseThrow();
    }

    @Tag("proof")
    @Test
    void aFixGetsAnotherNameAndThePagesThatNameItFollow() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("rename"), 50));
        write("squeeze_spaces");
        type("#fix-name", "amount");
        assertThat(labels()).anyMatch(l -> l.startsWith("There is something called amount already."));
        type("#fix-name", "tidy_spaces");
        assertThat(labels())
                .anyMatch(l -> l.startsWith("Kept together with it, as they name it: ")
                        && l.contains("visits_clean")
                        && l.contains("initials"));
        assertThat(folder.resolve("jobs/visits_clean.yaml")).content().contains("squeeze_spaces");
        // Taken back, the others go back with it; typed again, they follow again.
        Path page = folder.resolve("fixes/text/squeeze_spaces.fix.md");
        on(() -> frame.workbench().orElseThrow().undo(page));
        settle();
        assertThat(jobText(folder.resolve("jobs/visits_clean.yaml"))).contains("squeeze_spaces");
        type("#fix-name", "tidy_spaces");
        press(KeyCode.CONTROL, KeyCode.ENTER);
        settle();
        assertThat(folder.resolve("fixes/text/squeeze_spaces.fix.md")).content().contains("fix: tidy_spaces");
        assertThat(folder.resolve("jobs/visits_clean.yaml"))
                .content()
                .contains("tidy_spaces")
                .doesNotContain("squeeze_spaces");
        assertThat(folder.resolve("fixes/text/initials.fix.md")).content().contains("tidy_spaces(");
        assertThat(fixshelf.shelf.ShelfReader.read(folder).get().problems()).isEmpty();
    }
}
