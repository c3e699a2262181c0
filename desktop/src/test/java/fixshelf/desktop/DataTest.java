package fixshelf.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import fixshelf.demo.DemoShelf;
import fixshelf.desktop.data.DataPlace;
import fixshelf.desktop.parts.Place;
import fixshelf.fetch.Consent;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/// Datasets in the window, by keys alone: looked at, remedies chosen, counted, compared, brought in.
class DataTest extends WindowTest {
    private void goTo(String dataset) throws Exception {
        press(KeyCode.CONTROL, KeyCode.DIGIT2);
        settle();
        on(() -> frame.dataPlace().show(dataset));
        settle();
    }

    private TableView<?> table(String id) {
        return (TableView<?>) lookup("#" + id).stream().findFirst().orElseThrow();
    }

    @Test
    void whatIsOddBecomesTheLinesOfAJob() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("data"), 300));
        press(KeyCode.CONTROL, KeyCode.DIGIT2);
        settle();
        // The list has the keyboard; the datasets below are looked at one after the other.
        press(KeyCode.DOWN);
        settle();
        assertThat(labels()).anyMatch(l -> l.endsWith(" to look at"));
        goTo("visits_alder_quay");
        assertThat(labels()).contains("all 300 rows looked at", "weight_kg").anyMatch(l -> l.endsWith(" end in kg"));
        on(() -> table("columns").requestFocus());
        press(KeyCode.HOME);
        press(KeyCode.SPACE);
        settle();
        assertThat(buttons()).contains("New job with 1 line", "✓ drop_repeats");
        press(KeyCode.SPACE);
        settle();
        assertThat(buttons()).contains("New job on it", "drop_repeats");
        press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.A);
        settle();
        press(KeyCode.CONTROL, KeyCode.ENTER);
        settle();
        String job = frame.workbench()
                .orElseThrow()
                .job(folder.resolve("jobs/visits_alder_quay_clean.yaml"))
                .orElseThrow()
                .source()
                .text();
        assertThat(job)
                .contains("- read: visits_alder_quay\n", "- squeeze_spaces: [village, item, mender]\n", "unit: kg\n");
        assertThat(labels()).doesNotContain("no change");
        assertThat(Files.exists(folder.resolve("jobs/visits_alder_quay_clean.yaml")))
                .isFalse();
    }

    @Tag("proof")
    @Test
    void rowsAreFoundCountedAndCompared() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("data"), 300));
        goTo("visits_alder_quay");
        on(() -> table("columns").requestFocus());
        press(KeyCode.HOME);
        press(KeyCode.ENTER);
        settle();
        assertThat(labels()).anyMatch(l -> l.contains("visit_no: ") && l.contains(" repeat a value"));
        on(() -> lookup("#find-rows").stream().findFirst().ifPresent(Node::requestFocus));
        robot.write("kettle");
        press(KeyCode.ENTER);
        settle();
        assertThat(labels()).anyMatch(l -> l.matches("[0-9]+ of all 300 rows · visit_no.*"));
        on(() -> frame.dataPlace().turn(DataPlace.View.COUNTS));
        settle();
        assertThat(labels()).contains("Outcome", "mended", "100.0%");
        on(() -> lookup("#count-by").stream().findFirst().ifPresent(Node::requestFocus));
        press(KeyCode.SPACE);
        settle();
        press(KeyCode.DOWN);
        for (int i = 0; i < 3; i++) {
            press(KeyCode.DOWN);
        }
        press(KeyCode.ENTER);
        settle();
        assertThat(labels()).contains("Village by outcome");
        press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.C);
        settle();
        String[] copied = {""};
        on(() -> copied[0] = Clipboard.getSystemClipboard().getString());
        assertThat(copied[0]).startsWith("outcome\t").contains("100.0% (");
        Path saved = folder.resolve("counts.csv");
        on(() -> frame.dataPlace().saveCounts(saved));
        settle();
        assertThat(saved).content().startsWith("outcome,").doesNotContain("%");
        on(() -> frame.dataPlace().saveCounts(folder.resolve("data/menders.csv")));
        settle();
        assertThat(folder.resolve("data/menders.csv")).content().startsWith("mender,");
        // Kept in the page of the dataset, they are what each look is held against.
        press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.K);
        settle();
        assertThat(labels()).anyMatch(l -> l.startsWith("Kept in datasets/visits_alder_quay.yaml"));
        assertThat(folder.resolve("datasets/visits_alder_quay.yaml")).content().contains("  - of: [outcome, village]");
        on(() -> {
            frame.dataPlace().turn(DataPlace.View.COMPARE);
            frame.dataPlace().comparePage().with("visits_clean");
        });
        settle();
        // What a job makes is held against its source: the repeats that it drops are told, and what it changed.
        assertThat(labels()).anyMatch(l -> l.contains("only in what visits_clean makes") && l.contains("mender "));
        on(() -> frame.dataPlace().comparePage().with("visits_thornmere"));
        settle();
        assertThat(labels())
                .anyMatch(l -> l.contains("has no column visit_no"))
                .anyMatch(l -> l.contains("only in visits_thornmere: Visit No"));
    }

    @Test
    @Tag("proof")
    void aPageOfTheWebIsSaidInBlanksAndReadWhenItIsAllowed() throws Exception {
        HttpServer server = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        server.createContext("/prices", exchange -> {
            byte[] page = ("<h2>Open</h2><table><tr><th>day</th></tr><tr><td>Monday</td></tr></table>"
                            + "<table><tr><th>part</th><th>price</th></tr><tr><td>AQ</td><td> 4.20</td></tr></table>")
                    .getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(200, page.length);
            exchange.getResponseBody().write(page);
            exchange.close();
        });
        server.start();
        String place = "127.0.0.1:" + server.getAddress().getPort();
        try {
            open(DemoShelf.create(Files.createTempDirectory("data"), 60));
            press(KeyCode.CONTROL, KeyCode.DIGIT2);
            settle();
            press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.D);
            settle();
            on(() -> lookup(".toggle").stream()
                    .map(ToggleButton.class::cast)
                    .filter(t -> t.getText().equals("A page of the web"))
                    .forEach(ToggleButton::fire));
            on(() -> lookup("#remote-read").stream().findFirst().ifPresent(Node::requestFocus));
            robot.write("http://" + place + "/prices");
            press(KeyCode.ENTER);
            settle();
            assertThat(labels()).anyMatch(l -> l.startsWith("Give it a name"));
            press(KeyCode.TAB);
            press(KeyCode.TAB);
            press(KeyCode.TAB);
            robot.write("prices");
            press(KeyCode.ENTER);
            settle();
            // All tables of the page are shown, and one is taken by keys.
            assertThat(labels()).contains("table 1, Open", "table 2", "1 row of 2 columns");
            press(KeyCode.TAB);
            press(KeyCode.ENTER);
            settle();
            // Who types an address allows it.
            assertThat(labels()).contains("part", "price").anyMatch(l -> l.contains("Table 2 of http://" + place));
            assertThat(folder.resolve("datasets/prices.yaml")).content().contains("kind: web\ntable: \"2\"\n");
            Consent.takeBack(folder, Consent.Place.of(place));
            goTo("menders");
            goTo("prices");
            assertThat(labels()).anyMatch(l -> l.contains("wants to read something from " + place));
            on(() -> lookup(".button").stream()
                    .map(Button.class::cast)
                    .filter(b -> b.getText().equals("Allow reading from " + place))
                    .forEach(Button::fire));
            settle();
            assertThat(labels()).contains("part", "price");
            assertThat(Consent.of(folder)).containsExactly(Consent.Place.of(place));
        } finally {
            server.stop(0);
        }
    }

    @Test
    void aFileIsBroughtInAndABrokenOneSaysWhy() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("data"), 60));
        press(KeyCode.CONTROL, KeyCode.DIGIT2);
        settle();
        Path file = Files.writeString(folder.resolve("data/2026 new.csv"), "a;b\n1; x\n2;y\n");
        on(() -> frame.read(file));
        settle();
        assertThat(folder.resolve("datasets/data_2026_new.yaml")).content().contains("separator: \";\"");
        assertThat(labels()).contains("data_2026_new", "1 to look at", "1 with blanks at an end");
        Path none = Files.writeString(folder.resolve("data/none.csv"), "");
        on(() -> frame.read(none));
        settle();
        assertThat(labels()).anyMatch(l -> l.contains("none.csv is empty"));
        // Rows that do not fit come before anything else that there is to say.
        Path ragged = Files.writeString(folder.resolve("data/ragged.csv"), "a,b\n1,2\n3\n4,5\n");
        on(() -> frame.read(ragged));
        settle();
        assertThat(labels())
                .contains("1 row left out")
                .anyMatch(l -> l.startsWith("all 2 rows looked at · One row of ragged.csv"));
    }

    @Test
    void ofTheTablesOfAFileOneIsChosen() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("data"), 60));
        press(KeyCode.CONTROL, KeyCode.DIGIT2);
        settle();
        Path report = Files.copy(folder.resolve("data/quarterly-report.pdf"), folder.resolve("data/spring.pdf"));
        on(() -> frame.read(report));
        settle();
        assertThat(labels())
                .contains("Which table of spring.pdf?", "all pages together", "page 2, table 1", "Alder Quay");
        press(KeyCode.TAB);
        press(KeyCode.TAB);
        press(KeyCode.ENTER);
        settle();
        assertThat(folder.resolve("datasets/spring_page_2_table_1.yaml"))
                .content()
                .contains("pages: \"2\"", "table: \"1\"");
        assertThat(labels()).contains("spring_page_2_table_1", "pdf · 6 rows · 5 columns");
    }

    /// By its path in the jump field, with keys alone: the places are proposed, one more is marked, one is taken away.
    @Test
    @Tag("proof")
    void whereColumnsBeginIsMarkedOnTheLines() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("data"), 60));
        press(KeyCode.CONTROL, KeyCode.DIGIT2);
        settle();
        Files.writeString(
                folder.resolve("data/store print.txt"),
                "no    room         cost\nAQ-1  Alder Quay  12.50\nAQ-2  Thornmere    7.00\nAQ-3  Sallow      31.25\n");
        press(KeyCode.CONTROL, KeyCode.J);
        robot.write("data/store p");
        settle();
        press(KeyCode.TAB);
        settle();
        settle();
        assertThat(((TextField) frame.scene().lookup(".jump")).getText()).isEqualTo("data/store print.txt");
        press(KeyCode.ENTER);
        settle();
        assertThat(labels()).contains("Where do the columns of store print.txt begin?", "no", "room", "cost");
        assertThat(buttons()).contains("Read it as 3 columns");
        press(KeyCode.END);
        for (int i = 0; i < 3; i++) {
            press(KeyCode.LEFT);
        }
        press(KeyCode.SPACE);
        assertThat(buttons()).contains("Read it as 4 columns");
        press(KeyCode.SPACE);
        press(KeyCode.HOME);
        press(KeyCode.SPACE);
        press(KeyCode.ENTER);
        settle();
        assertThat(folder.resolve("datasets/store_print.yaml"))
                .content()
                .contains("kind: places", "places: [1, 7, 19]");
        assertThat(labels()).contains("no", "room", "cost", "Alder Quay");
    }

    @Test
    @Tag("proof")
    void rowsThatMayBeSentAreMadeByKeys() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("data"), 300));
        goTo("visits_alder_quay");
        on(() -> frame.dataPlace().turn(DataPlace.View.STAND_IN));
        settle();
        assertThat(labels()).contains("visit_no", "outcome", "made up");
        on(() -> table("shared-words").requestFocus());
        press(KeyCode.HOME);
        press(KeyCode.SPACE);
        settle();
        assertThat(labels()).contains("stays").anyMatch(l -> l.startsWith("1 word stays."));
        press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.F);
        settle();
        Path made = folder.resolve("out/stand_in/visits_alder_quay.csv");
        assertThat(made).content().contains("AQ-").doesNotContain("Thornmere");
        assertThat(folder.resolve("out/stand_in/visits_alder_quay.yaml"))
                .content()
                .contains("separator: \";\"");
        // A job that asks for a word that did not stay does something else, and it is said where.
        assertThat(labels())
                .anyMatch(l -> l.startsWith("300 rows are in out/stand_in/visits_alder_quay.csv"))
                .anyMatch(l -> l.startsWith("outcomes_by_month, line "));
        on(() -> frame.dataPlace().standInPage().keepAll(true));
        settle();
        press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.F);
        settle();
        assertThat(labels()).anyMatch(l -> l.contains("visits_clean: all 8 lines do the same with it."));
        assertThat(folder.resolve("data/visits-alder-quay.csv")).content().contains("Thornmere");
    }

    @Tag("proof")
    @Test
    void aColumnIsDrawnOverTimeAndValuesAreCountedInOtherWords() throws Exception {
        open(DemoShelf.create(Files.createTempDirectory("data"), 300));
        goTo("visits_thornmere");
        on(() -> table("columns").getSelectionModel().select(0));
        settle();
        on(() -> lookup("#drawn-over").stream().findFirst().ifPresent(Node::requestFocus));
        press(KeyCode.SPACE);
        settle();
        press(KeyCode.DOWN);
        press(KeyCode.DOWN);
        press(KeyCode.ENTER);
        settle();
        assertThat(labels()).anyMatch(l -> l.matches("2026-[0-9-]+"));
        on(() -> frame.dataPlace().turn(DataPlace.View.COUNTS));
        on(() -> frame.dataPlace().countsPage().count(List.of(8)));
        settle();
        on(() -> lookup("#count-words").stream().findFirst().ifPresent(Node::requestFocus));
        press(KeyCode.SPACE);
        settle();
        press(KeyCode.DOWN);
        press(KeyCode.DOWN);
        press(KeyCode.ENTER);
        settle();
        assertThat(lookup("#count-words")).singleElement().satisfies(b -> assertThat(((Labeled) b).getText())
                .contains(" of ")
                .contains(" by "));
    }
}
