package fixshelf.desktop.parts;

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

/// Finds a fix, a column, a job or a command by typing.
public final class JumpField extends TextField {
    private static final int MOST = 14;

    /// Something to jump to.
    public record Target(String kind, String text, Runnable go) {}

    private final Supplier<List<Target>> targets;
    private final ListView<Target> list = new ListView<>();
    private final Popup popup = new Popup();

    public JumpField(Supplier<List<Target>> targets) {
        this.targets = targets;
        getStyleClass().add("jump");
        setPromptText("Jump to a fix, column, job …");
        setAccessibleText("Jump to a fix, a column, a job or a command");
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
            default -> {
                return;
            }
        }
        if (event.getCode() != KeyCode.ESCAPE) {
            list.scrollTo(list.getSelectionModel().getSelectedIndex());
        }
        event.consume();
    }

    /// The targets that hold all typed words, those that begin with the first one first.
    List<Target> found(String typed) {
        List<String> words = List.of(typed.toLowerCase(Locale.ROOT).strip().split("\\s+"));
        List<Target> begin = new ArrayList<>();
        List<Target> hold = new ArrayList<>();
        for (Target target : targets.get()) {
            String text = (target.text() + " " + target.kind()).toLowerCase(Locale.ROOT);
            String spoken = text.replace('_', ' ');
            if (words.stream().allMatch(w -> text.contains(w) || spoken.contains(w))) {
                (text.startsWith(words.getFirst()) ? begin : hold).add(target);
            }
        }
        begin.addAll(hold);
        return begin.subList(0, Math.min(MOST, begin.size()));
    }

    private void find() {
        if (getText().isBlank() || getScene() == null) {
            popup.hide();
            return;
        }
        list.getItems().setAll(found(getText()));
        list.getSelectionModel().selectFirst();
        list.setPrefHeight(Math.max(1, list.getItems().size()) * 30 + 6);
        list.setPlaceholder(Ui.label("Nothing is called so.", "soft"));
        list.getStylesheets().setAll(getScene().getStylesheets());
        Bounds at = localToScreen(getBoundsInLocal());
        if (at != null && !popup.isShowing()) {
            popup.show(this, at.getMinX(), at.getMaxY() + 2);
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
