package fixshelf.desktop;

import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyEvent;
import javafx.stage.Popup;
import javafx.stage.Screen;

/// A list of words under a field: typed letters narrow it, Enter or Tab takes the chosen one.
final class Completion {
    private static final int MOST = 12;

    private final Node owner;
    private final ListView<String> list = new ListView<>();
    private final Popup popup = new Popup();
    private final Consumer<String> take;

    /// `take` gets the chosen word.
    Completion(Node owner, Consumer<String> take) {
        this.owner = owner;
        this.take = take;
        list.getStyleClass().add("completion");
        popup.getContent().add(list);
        popup.setAutoHide(true);
        list.setOnMouseClicked(_ -> takeChosen());
        owner.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        list.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    }

    private void key(KeyEvent event) {
        if (!popup.isShowing()) {
            return;
        }
        int at = list.getSelectionModel().getSelectedIndex();
        switch (event.getCode()) {
            case DOWN ->
                list.getSelectionModel().select(Math.min(at + 1, list.getItems().size() - 1));
            case UP -> list.getSelectionModel().select(Math.max(at - 1, 0));
            case ENTER, TAB -> takeChosen();
            case ESCAPE -> popup.hide();
            default -> {
                return;
            }
        }
        event.consume();
    }

    private void takeChosen() {
        String word = list.getSelectionModel().getSelectedItem();
        popup.hide();
        if (word != null) {
            take.accept(word);
        }
    }

    /// The words that begin with what was typed, then those that hold it.
    static List<String> matching(List<String> words, String typed, Function<String, String> text) {
        String wanted = typed.toLowerCase(Locale.ROOT);
        return words.stream()
                .filter(w -> text.apply(w).toLowerCase(Locale.ROOT).contains(wanted))
                .sorted(java.util.Comparator.comparing(
                        (String w) -> !text.apply(w).toLowerCase(Locale.ROOT).startsWith(wanted)))
                .limit(MOST)
                .toList();
    }

    void offer(List<String> words, Bounds at) {
        if (words.isEmpty() || owner.getScene() == null) {
            popup.hide();
            return;
        }
        list.getStylesheets().setAll(owner.getScene().getStylesheets());
        list.getItems().setAll(words);
        list.getSelectionModel().selectFirst();
        double height = words.size() * 29 + 4;
        list.setPrefHeight(height);
        list.setPrefWidth(380);
        popup.setAutoFix(false);
        popup.show(owner, at.getMinX(), beside(at, height));
    }

    /// Below what is typed, or above it where there is no room below: the typed words are always seen.
    private static double beside(Bounds at, double height) {
        double bottom = Screen.getScreensForRectangle(at.getMinX(), at.getMinY(), 1, 1).stream()
                .findFirst()
                .orElse(Screen.getPrimary())
                .getVisualBounds()
                .getMaxY();
        boolean below = at.getMaxY() + 2 + height <= bottom || at.getMinY() - 2 - height < 0;
        return below ? at.getMaxY() + 2 : at.getMinY() - 2 - height;
    }

    void hide() {
        popup.hide();
    }
}
