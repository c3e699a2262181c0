package fixshelf.desktop;

import fixshelf.desktop.workbench.UserSettings;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.shelf.FixPage;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.text.Text;
import javafx.stage.Stage;
import javafx.stage.Window;
import org.junit.jupiter.api.AfterEach;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/// The real window, driven by a robot: what its tests have in common.
abstract class WindowTest {
    final FxRobot robot = new FxRobot();
    Path folder = Path.of(".");
    Frame frame;

    final void open(Path shelf) throws Exception {
        begin(shelf.resolve(".fixshelf/window.properties"), f -> f.open(shelf));
        folder = shelf;
    }

    /// A window with no shelf in it, or with one.
    final void begin(Path settings, Consumer<Frame> first) throws Exception {
        FxToolkit.registerPrimaryStage();
        FxToolkit.setupStage(stage -> {
            Stage window = new Stage();
            frame = new Frame(window, new UserSettings(settings));
            first.accept(frame);
            window.show();
            window.requestFocus();
        });
        settle();
    }

    @AfterEach
    void close() throws Exception {
        on(() -> frame.workbench().ifPresent(Workbench::close));
        FxToolkit.hideStage();
        on(() -> frame.scene().getWindow().hide());
    }

    /// Opens a fix to be written.
    final void write(String fix) throws Exception {
        on(() -> {
            frame.shelfPlace().show(fix);
            frame.shelfPlace().write();
        });
        settle();
    }

    final FixPage fix(String name) {
        return frame.workbench().orElseThrow().shelf().fix(name).orElseThrow();
    }

    final List<String> sentences() {
        return lookup(".sentence").stream()
                .filter(Text.class::isInstance)
                .map(n -> ((Text) n).getText())
                .toList();
    }

    final String jobText(Path job) {
        return frame.workbench().orElseThrow().job(job).orElseThrow().source().text();
    }

    final void type(String id, String text) throws Exception {
        on(() -> {
            TextField field = (TextField) frame.scene().lookup(id);
            field.requestFocus();
            field.setText(text);
            field.getOnAction().handle(null);
        });
        settle();
    }

    final String text(String id) {
        return ((Label) frame.scene().lookup(id)).getText();
    }

    final Set<Node> lookup(String selector) {
        return frame.scene().getRoot().lookupAll(selector);
    }

    final Button button(String text) {
        return Stream.concat(lookup(".button").stream(), lookup(".blank").stream())
                .filter(n -> n instanceof Button b && b.getText().equals(text))
                .map(Button.class::cast)
                .findFirst()
                .orElseThrow(() -> new AssertionError("no button " + text));
    }

    final List<String> labels() {
        return lookup(".label").stream()
                .filter(Label.class::isInstance)
                .map(n -> ((Label) n).getText())
                .toList();
    }

    final List<String> buttons() {
        return lookup("*").stream()
                .filter(Button.class::isInstance)
                .map(n -> ((Button) n).getText())
                .toList();
    }

    /// Presses keys and lets what comes of it be laid out, before more is typed.
    final void press(KeyCode... keys) throws Exception {
        robot.push(keys);
        on(() -> {});
    }

    static void on(Runnable work) throws Exception {
        WaitForAsyncUtils.waitFor(20, TimeUnit.SECONDS, WaitForAsyncUtils.asyncFx(() -> {
            work.run();
            layOut();
        }));
        WaitForAsyncUtils.waitForFxEvents();
    }

    /// A part that has come can be typed into only after it was laid out, which a frame does; frames are few here.
    private static void layOut() {
        for (Window window : List.copyOf(Window.getWindows())) {
            window.getScene().getRoot().applyCss();
            window.getScene().getRoot().layout();
        }
    }

    /// Waits until nothing is being computed any more, and no typed text waits for its moment.
    final void settle() throws Exception {
        int[] quiet = {0};
        WaitForAsyncUtils.waitFor(300, TimeUnit.SECONDS, () -> {
            boolean idle = WaitForAsyncUtils.asyncFx(() -> frame.workbench()
                            .map(_ -> frame.isIdle()
                                    && !frame.shelfPlace().writing().body().isBusy()
                                    && !frame.shelfPlace().writing().whole().isBusy())
                            .orElse(frame.isIdle()))
                    .get();
            quiet[0] = idle ? quiet[0] + 1 : 0;
            return quiet[0] > 5;
        });
        on(() -> {});
    }
}
