package fixshelf.desktop.parts;

import fixshelf.plan.ReadOptions;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import javafx.geometry.Bounds;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.Popup;

/// Finds a fix, a column, a job or a command by typing, a file by its path, and a server or a page by its address.
public final class JumpField extends TextField {
    /// What stands in it while a shelf is open and nothing is typed.
    public static final String PROMPT = "Jump to a fix, column, job, or type a path";

    private static final int MOST = 14;

    /// Something to jump to.
    public record Target(String kind, String text, Runnable go) {}

    private final Supplier<List<Target>> targets;
    private final TypedFiles files;
    private final ListView<Target> list = new ListView<>();
    private final Popup popup = new Popup();

    public JumpField(Supplier<List<Target>> targets, TypedFiles files) {
        this.targets = targets;
        this.files = files;
        getStyleClass().add("jump");
        setPromptText(PROMPT);
        setAccessibleText("Jump to a fix, a column, a job or a command, or type the path of a file");
        list.getStyleClass().add("jump-list");
        list.setCellFactory(_ -> new TargetCell());
        list.setOnMouseClicked(_ -> go());
        // Keys go to the field.
        list.setFocusTraversable(false);
        popup.setHideOnEscape(false);
        popup.getContent().add(list);
        popup.setAutoHide(true);
        textProperty().addListener(_ -> find());
        focusedProperty().addListener((_, _, focused) -> {
            if (!focused) {
                popup.hide();
            }
        });
        addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        list.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    }

    private void key(KeyEvent event) {
        int at = list.getSelectionModel().getSelectedIndex();
        switch (event.getCode()) {
            case DOWN ->
                list.getSelectionModel().select(Math.min(at + 1, list.getItems().size() - 1));
            case UP -> list.getSelectionModel().select(Math.max(at - 1, 0));
            case ENTER -> go();
            case ESCAPE -> clear();
            case TAB -> {
                if (!TypedPath.is(getText()) || list.getItems().isEmpty()) {
                    return;
                }
                complete();
            }
            default -> {
                return;
            }
        }
        if (event.getCode() != KeyCode.ESCAPE) {
            list.scrollTo(list.getSelectionModel().getSelectedIndex());
        }
        event.consume();
    }

    /// The targets that hold all typed words: those that are called so first, then those that begin with the first one.
    List<Target> found(String typed) {
        List<String> words = List.of(typed.toLowerCase(Locale.ROOT).strip().split("\\s+"));
        List<Target> called = new ArrayList<>();
        List<Target> begin = new ArrayList<>();
        List<Target> hold = new ArrayList<>();
        for (Target target : targets.get()) {
            String text = (target.text() + " " + target.kind()).toLowerCase(Locale.ROOT);
            String spoken = text.replace('_', ' ');
            if (words.stream().allMatch(w -> text.contains(w) || spoken.contains(w))) {
                boolean whole = List.of(text.split("[^\\p{L}\\p{N}_]+")).containsAll(words);
                (whole ? called : text.startsWith(words.getFirst()) ? begin : hold).add(target);
            }
        }
        called.addAll(begin);
        called.addAll(hold);
        return called.subList(0, Math.min(MOST, called.size()));
    }

    private void find() {
        if (getText().isBlank() || getScene() == null) {
            popup.hide();
            return;
        }
        if (ReadOptions.isAddress(getText())) {
            String typed = getText().strip();
            offer(
                    ReadOptions.kindOfAddress(typed).stream()
                            .map(kind ->
                                    new Target(kind, typed, () -> files.remote().accept(typed)))
                            .toList(),
                    "Nothing is read from such addresses.");
        } else if (TypedPath.is(getText())) {
            String typed = getText();
            files.find(typed, found -> {
                if (typed.equals(getText())) {
                    offer(
                            found.stream().limit(MOST).map(this::target).toList(),
                            "There is no file or folder here that begins so.");
                }
            });
        } else {
            offer(found(getText()), "Nothing is called so.");
        }
    }

    private Target target(TypedPath.Found found) {
        if (found.shelf()) {
            return new Target("shelf", found.text(), () -> files.opener()
                    .accept(found.file().normalize()));
        }
        return found.folder()
                ? new Target("folder", found.text(), () -> write(found.text()))
                : new Target("file", found.text(), () -> files.reader().accept(found.file()));
    }

    private void offer(List<Target> found, String nothing) {
        list.getItems().setAll(found);
        list.getSelectionModel().selectFirst();
        list.setPrefHeight(Math.max(1, list.getItems().size()) * 30 + 6);
        list.setPlaceholder(Ui.label(nothing, "soft"));
        list.getStylesheets().setAll(getScene().getStylesheets());
        Bounds at = localToScreen(getBoundsInLocal());
        if (at != null && !popup.isShowing()) {
            popup.show(this, at.getMinX(), at.getMaxY() + 2);
        }
    }

    private void write(String path) {
        requestFocus();
        setText(path);
        positionCaret(path.length());
    }

    /// What is chosen in the list stands in the field; a file is not read yet.
    private void complete() {
        Target target = list.getSelectionModel().getSelectedItem();
        if (target != null) {
            write(target.text());
        }
    }

    private void go() {
        Target target = list.getSelectionModel().getSelectedItem();
        if (target != null) {
            clear();
            popup.hide();
            target.go().run();
        }
    }

    private static final class TargetCell extends ListCell<Target> {
        @Override
        protected void updateItem(Target target, boolean empty) {
            super.updateItem(target, empty);
            setText(null);
            setGraphic(
                    empty
                            ? null
                            : Ui.row(
                                    "entry-marks",
                                    Ui.label(target.text()),
                                    Ui.spring(),
                                    Ui.label(target.kind(), "soft", "small")));
        }
    }
}
