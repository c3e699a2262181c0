package fixshelf.desktop;

import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Bounds;
import javafx.geometry.Rectangle2D;
import javafx.scene.Node;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyEvent;
import javafx.stage.Popup;
import javafx.stage.Screen;

/// A list of words under a field: typed letters narrow it, Enter or Tab takes the chosen one.
final class Completion {
    private static final double GAP = 2;
    private static final double WIDTH = 380;
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

    /// Those that begin with what was typed, then those that hold it, then those that hold each of its words.
    static <T> List<T> matching(List<T> words, String typed, Function<T, String> text) {
        String wanted = typed.strip().toLowerCase(Locale.ROOT);
        List<String> parts = List.of(wanted.split("\\s+"));
        java.util.Comparator<T> begins = java.util.Comparator.comparing(
                w -> !text.apply(w).toLowerCase(Locale.ROOT).startsWith(wanted));
        return words.stream()
                .filter(w -> {
                    String whole = text.apply(w).toLowerCase(Locale.ROOT);
                    return parts.stream().allMatch(whole::contains);
                })
                .sorted(begins.thenComparing(
                        w -> !text.apply(w).toLowerCase(Locale.ROOT).contains(wanted)))
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
        Rectangle2D screen = Screen.getScreensForRectangle(at.getMinX(), at.getMinY(), 1, 1).stream()
                .findFirst()
                .orElse(Screen.getPrimary())
                .getVisualBounds();
        // Below what is typed, or above it where there is more room: the typed words are always seen.
        double below = screen.getMaxY() - at.getMaxY() - GAP;
        double above = at.getMinY() - GAP - screen.getMinY();
        double wanted = words.size() * 29 + 4;
        boolean isBelow = wanted <= below || below >= above;
        double height = Math.max(33, Math.min(wanted, isBelow ? below : above));
        double top = isBelow ? at.getMaxY() + GAP : at.getMinY() - GAP - height;
        list.setPrefHeight(height);
        list.setPrefWidth(WIDTH);
        popup.show(
                owner,
                within(at.getMinX(), screen.getMinX(), screen.getMaxX() - WIDTH),
                within(top, screen.getMinY(), screen.getMaxY() - height));
    }

    private static double within(double value, double least, double most) {
        return Math.max(least, Math.min(value, most));
    }

    void hide() {
        popup.hide();
    }
}
