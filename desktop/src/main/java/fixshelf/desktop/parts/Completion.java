package fixshelf.desktop.parts;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Bounds;
import javafx.geometry.Rectangle2D;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;
import javafx.stage.Screen;

/// A list of words under a field: typed letters narrow it, Enter or Tab takes the chosen one.
public final class Completion {
    private static final double GAP = 2;
    private static final double WIDTH = 380;
    private static final int MOST = 12;
    private static final double CELL = 28;
    private static final double HINT = 26;

    private final Node owner;
    private final ListView<String> list = new ListView<>();
    private final Popup popup = new Popup();
    private final Consumer<String> take;
    /// What marks words, several of them before they are taken; none where only one is.
    private Optional<Marks> marks = Optional.empty();
    private boolean turned;
    private final Label hint = new Label();

    /// Words that are marked with the space bar.
    public interface Marks {
        /// Whether a space marks now, and is no letter.
        boolean isMarking();

        boolean isMarked(String word);

        void turn(String word);
    }

    /// `take` gets the chosen word.
    public Completion(Node owner, Consumer<String> take) {
        this.owner = owner;
        this.take = take;
        list.getStyleClass().add("completion");
        list.setFixedCellSize(CELL);
        popup.getContent().add(list);
        popup.setAutoHide(true);
        list.setOnMouseClicked(_ -> takeChosen());
        owner.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        list.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    }

    /// Lets the space bar mark words.
    public void marking(Marks all) {
        marks = Optional.of(all);
        hint.setText("Space marks several, Enter takes them.");
        hint.getStyleClass().addAll("completion-hint", "soft", "small");
        hint.setMinHeight(HINT);
        hint.setPrefWidth(WIDTH);
        popup.getContent().setAll(new VBox(list, hint));
        list.setCellFactory(_ -> new ListCell<>() {
            @Override
            protected void updateItem(String word, boolean empty) {
                super.updateItem(word, empty);
                setText(empty ? null : (all.isMarked(word) ? "✓ " : "   ") + word);
            }
        });
        owner.addEventFilter(KeyEvent.KEY_TYPED, this::typed);
        list.addEventFilter(KeyEvent.KEY_TYPED, this::typed);
    }

    /// The sign of a space that marks is none.
    private void typed(KeyEvent event) {
        if (event.getCharacter().equals(" ")
                && popup.isShowing()
                && marks.filter(Marks::isMarking).isPresent()) {
            event.consume();
        }
    }

    private void key(KeyEvent event) {
        if (!popup.isShowing()) {
            return;
        }
        if (event.getCode() == KeyCode.SPACE && marks.filter(Marks::isMarking).isPresent()) {
            turned = true;
            marks.get().turn(list.getSelectionModel().getSelectedItem());
            list.refresh();
            event.consume();
            return;
        }
        if (event.getCode() == KeyCode.ENTER && turned) {
            // What is marked stands in the field already.
            popup.hide();
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
    public static <T> List<T> matching(List<T> words, String typed, Function<T, String> text) {
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

    public void offer(List<String> words, Bounds at) {
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
        hint.getStylesheets().setAll(owner.getScene().getStylesheets());
        double wanted = words.size() * CELL + 4 + (marks.isPresent() ? HINT : 0);
        boolean isBelow = wanted <= below || below >= above;
        double height = Math.max(33, Math.min(wanted, isBelow ? below : above));
        double top = isBelow ? at.getMaxY() + GAP : at.getMinY() - GAP - height;
        list.setPrefHeight(height - (marks.isPresent() ? HINT : 0));
        list.setPrefWidth(WIDTH);
        popup.show(
                owner,
                within(at.getMinX(), screen.getMinX(), screen.getMaxX() - WIDTH),
                within(top, screen.getMinY(), screen.getMaxY() - height));
    }

    private static double within(double value, double least, double most) {
        return Math.max(least, Math.min(value, most));
    }

    public void hide() {
        popup.hide();
    }
}
