package fixshelf.desktop.parts;

import fixshelf.fetch.Secrets;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.type.Amounts;
import java.util.List;
import javafx.animation.PauseTransition;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import javafx.util.Duration;

/// Small builders of nodes, so that views read as what they show.
public final class Ui {
    private Ui() {}

    public static Label label(String text, String... classes) {
        Label label = new Label(text);
        label.getStyleClass().addAll(classes);
        return label;
    }

    /// A label that breaks its lines.
    public static Label wrapped(String text, String... classes) {
        Label label = label(text, classes);
        label.setWrapText(true);
        label.setMinHeight(Region.USE_PREF_SIZE);
        return label;
    }

    private static final String COMMIT = "commit";
    private static final Duration MOMENT = Duration.millis(400);

    /// Runs `commit` when a field is left, on Enter, and a moment after the last letter, so that what is typed counts
    /// as written before the field is left.
    public static void onLeaving(TextInputControl field, Runnable commit) {
        PauseTransition pause = new PauseTransition(MOMENT);
        pause.setOnFinished(_ -> {
            if (field.isFocused()) {
                commit.run();
            }
        });
        field.textProperty().addListener((_, _, _) -> {
            if (field.isFocused()) {
                pause.playFromStart();
            }
        });
        field.focusedProperty().addListener((_, _, now) -> {
            if (!now) {
                pause.stop();
                commit.run();
            }
        });
        if (field instanceof TextField line) {
            line.setOnAction(_ -> commit.run());
        }
        field.getProperties().put(COMMIT, commit);
    }

    /// Commits what is being typed in a field of [#onLeaving], without leaving it.
    public static void commitTyped(Node inside) {
        Node owner = inside.getScene() == null ? null : inside.getScene().getFocusOwner();
        if (owner != null && owner.getProperties().get(COMMIT) instanceof Runnable commit) {
            commit.run();
        }
    }

    public static Button button(Command command, String... classes) {
        Button button = new Button(command.text());
        button.setMnemonicParsing(false);
        button.getStyleClass().addAll(classes);
        button.setOnAction(_ -> command.tryRun());
        if (command.keys() != null) {
            button.setTooltip(new Tooltip(command.keys().getDisplayText()));
        }
        button.setDisable(!command.enabled().getAsBoolean());
        return button;
    }

    /// A blank of a sentence, or a link: text that can be pressed.
    public static Button blank(String text, String styleClass, Runnable press) {
        Button button = new Button(text);
        button.setMnemonicParsing(false);
        button.getStyleClass().setAll(styleClass);
        button.setOnAction(_ -> press.run());
        return button;
    }

    /// Words of a sentence that has blanks.
    public static Text sentence(String text) {
        Text words = new Text(text);
        words.getStyleClass().add("sentence");
        return words;
    }

    public static VBox column(String styleClass, Node... children) {
        VBox box = new VBox(children);
        box.getStyleClass().add(styleClass);
        return box;
    }

    public static HBox row(String styleClass, Node... children) {
        HBox box = new HBox(children);
        box.getStyleClass().add(styleClass);
        return box;
    }

    public static Region spring() {
        Region spring = new Region();
        HBox.setHgrow(spring, Priority.ALWAYS);
        return spring;
    }

    /// A page that scrolls up and down only.
    public static ScrollPane page(Node content) {
        ScrollPane pane = new ScrollPane(content);
        pane.setFitToWidth(true);
        pane.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        pane.getStyleClass().add("page");
        VBox.setVgrow(pane, Priority.ALWAYS);
        return pane;
    }

    public static void mark(Node node, String styleClass, boolean on) {
        node.getStyleClass().remove(styleClass);
        if (on) {
            node.getStyleClass().add(styleClass);
        }
    }

    /// A problem in words; what is not allowed yet can be allowed beside them.
    public static String words(Problem problem) {
        if (Secrets.askedBy(problem).isPresent()) {
            return problem.what() + " Type it on the left, or set the variable before Fix Shelf is started.";
        }
        return problem.code() == Code.NOT_ALLOWED
                ? problem.what()
                        + " Allow it on the left if you trust this shelf: it is remembered for you, and for this shelf only."
                : problem.sentence();
    }

    /// Text for a count of things: `1 case`, `5 cases`.
    public static String count(long n, String one, String many) {
        return Amounts.of(n, one, many);
    }

    public static String joined(List<String> texts) {
        return String.join(", ", texts);
    }
}
