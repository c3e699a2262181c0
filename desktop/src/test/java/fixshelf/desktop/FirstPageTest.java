package fixshelf.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.demo.ReadyMade;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// The first minutes, by keys alone: from a file to its first job, from ready-made fixes to a shelf, and back.
class FirstPageTest extends WindowTest {
    @TempDir
    Path home;

    @Test
    void aFileBecomesAJobAndFixesAreTaken() throws Exception {
        Path file = home.resolve("our visits.csv");
        Files.writeString(file, "id;item\n1; brass  lamp\n");
        Path settings = home.resolve("window.properties");
        begin(settings, f -> f.welcome(List.of()));
        assertThat(labels()).contains("What would you like to mend?", "The shelves that you open stand here.");
        assertThat(labels()).anyMatch(l -> l.startsWith("DuckDB") && l.endsWith("can be run."));
        // What is not there is said, and what was typed stays.
        press(KeyCode.ENTER);
        robot.write(home + "/no");
        press(KeyCode.ENTER);
        press(KeyCode.ENTER);
        settle();
        assertThat(labels()).anyMatch(l -> l.startsWith("There is no file " + home + "/no."));
        assertThat(field("#first-file").getText()).isEqualTo(home + "/no");
        // Tab writes a path on; the folder of the shelf is proposed beside the file.
        on(() -> {
            field("#first-file").requestFocus();
            field("#first-file").setText(home + "/our");
            field("#first-file-shelf").clear();
        });
        press(KeyCode.TAB);
        settle();
        assertThat(field("#first-file").getText()).isEqualTo(file.toString());
        press(KeyCode.ENTER);
        assertThat(field("#first-file-shelf").getText()).isEqualTo(home + "/our visits-shelf");
        press(KeyCode.ENTER);
        settle();
        Path shelf = home.resolve("our visits-shelf");
        assertThat(frame.firstPage()).isEmpty();
        assertThat(sentences()).contains("Read", ", separator ");
        assertThat(labels()).contains("1 row");
        // On a shelf without fixes the ready-made ones stand beside it.
        press(KeyCode.CONTROL, KeyCode.DIGIT1);
        settle();
        assertThat(labels()).contains("Ready-made fixes", "no case yet");
        press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.T);
        robot.write("squeeze");
        press(KeyCode.TAB);
        press(KeyCode.SPACE);
        assertThat(labels()).contains("1 is marked");
        press(KeyCode.ENTER);
        settle();
        assertThat(Files.readString(shelf.resolve("fixes/text/squeeze_spaces.fix.md")))
                .isEqualTo(ReadyMade.all().stream()
                        .filter(f -> f.name().equals("squeeze_spaces"))
                        .findFirst()
                        .orElseThrow()
                        .text());
        assertThat(labels()).contains("Squeeze spaces");
        // The shelf stands among those of lately, with what came of its cases.
        on(() -> frame.workbench().orElseThrow().close());
        begin(settings, f -> f.welcome(List.of()));
        assertThat(buttons()).contains("our visits-shelf");
        assertThat(labels()).anyMatch(l -> l.matches("● [0-9]+ hold"));
        on(() -> lookup(".fix-link").stream()
                .map(Button.class::cast)
                .filter(b -> b.getText().equals("our visits-shelf"))
                .forEach(Button::fire));
        settle();
        assertThat(frame.workbench().orElseThrow().shelf().fixes()).hasSize(1);
    }

    @Test
    void aShelfWithoutJobsLeadsToTheFirst() throws Exception {
        Files.createDirectories(home.resolve("datasets"));
        Files.writeString(home.resolve("shelf.yaml"), "shelf: Ours\n");
        Files.writeString(home.resolve("visits.csv"), "id,item\n1,lamp\n2,radio\n");
        open(home);
        press(KeyCode.CONTROL, KeyCode.DIGIT2);
        settle();
        assertThat(labels()).anyMatch(l -> l.startsWith("Here stands what a dataset holds"));
        // Who opens what is no shelf stays at the one that is open, and is told.
        on(() -> {
            frame.open(home.resolve("nowhere"));
            // Nothing is done to the shelf that may be left in a moment.
            frame.enter(frame.jobsPlace());
            assertThat(labels()).contains("Opening nowhere", "The pages of " + home + "/nowhere are being read.");
        });
        settle();
        assertThat(labels())
                .anyMatch(l -> l.equals(home + "/nowhere: There is no shelf in this folder: it has no shelf.yaml."));
        assertThat(frame.workbench()).isPresent();
        press(KeyCode.CONTROL, KeyCode.DIGIT4);
        settle();
        assertThat(labels()).anyMatch(l -> l.startsWith("The shelf has no fix yet."));
        press(KeyCode.CONTROL, KeyCode.DIGIT3);
        settle();
        assertThat(labels()).contains("No job yet", "The rows stand here once a table is read.");
        on(() -> frame.dataPlace().bring(home.resolve("visits.csv")));
        settle();
        press(KeyCode.CONTROL, KeyCode.DIGIT3);
        settle();
        on(() -> lookup(".fix-link").stream()
                .map(Button.class::cast)
                .filter(b -> b.getText().equals("visits"))
                .forEach(Button::fire));
        settle();
        assertThat(labels()).contains("2 rows").doesNotContain("No job yet");
        assertThat(frame.workbench().orElseThrow().shelf().jobs()).hasSize(1);
    }

    /// What the first page offers to try shows what it promises, not the job that it is in.
    @Test
    void whatIsToBeTriedIsShown() throws Exception {
        String before = System.getProperty("user.home");
        System.setProperty("user.home", home.toString());
        try {
            for (String[] thing : new String[][] {
                {"a job with repeats", "as of line 8, by group"}, {"a cost as it was typed", "The life of a cell"}
            }) {
                begin(home.resolve("window.properties"), f -> f.welcome(List.of()));
                on(() -> lookup(".fix-link").stream()
                        .map(Button.class::cast)
                        .filter(b -> b.getText().equals(thing[0]))
                        .forEach(Button::fire));
                settle();
                assertThat(labels()).contains(thing[1]);
                on(() -> frame.workbench().orElseThrow().close());
            }
        } finally {
            System.setProperty("user.home", before);
        }
    }

    private TextField field(String id) {
        return (TextField) frame.scene().lookup(id);
    }
}
