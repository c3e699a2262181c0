package fixshelf.desktop.parts;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyEvent;
import org.jspecify.annotations.Nullable;

/// Other names for columns, typed into the heads of a grid one after another: Enter or Tab goes to
/// the next column, with Shift to the one before, Escape leaves the name as it was. What was typed
/// is told once, at the end.
public final class HeadNames {
    private final RowsGrid grid;
    private final Consumer<Map<String, String>> done;
    private final Map<String, String> typed = new LinkedHashMap<>();
    private @Nullable TextField field;
    private @Nullable Node head;
    private int at;
    private boolean moving;

    /// @param done is told old names with new ones, where there are any
    public HeadNames(RowsGrid grid, Consumer<Map<String, String>> done) {
        this.grid = grid;
        this.done = done;
    }

    /// Begins with the column of the chosen cell.
    public void begin() {
        if (field == null && grid.getColumns().size() > 1) {
            typed.clear();
            open(Math.max(1, grid.getFocusModel().getFocusedCell().getColumn()));
        }
    }

    private void open(int column) {
        at = column;
        TableColumn<?, ?> shown = grid.getColumns().get(at);
        head = shown.getGraphic();
        TextField name = new TextField(typed.getOrDefault(grid.nameOf(at), grid.nameOf(at)));
        name.getStyleClass().addAll("head-name", "mono");
        name.setAccessibleText("Another name for " + grid.nameOf(at));
        name.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        name.focusedProperty().addListener((_, _, focused) -> {
            if (!focused && !moving && field == name) {
                keep();
                end(false);
            }
        });
        field = name;
        shown.setGraphic(name);
        grid.scrollToColumnIndex(at);
        name.requestFocus();
        name.selectAll();
    }

    private void key(KeyEvent event) {
        switch (event.getCode()) {
            case ENTER, TAB -> {
                keep();
                int next = at + (event.isShiftDown() ? -1 : 1);
                if (next >= 1 && next < grid.getColumns().size()) {
                    moving = true;
                    close();
                    open(next);
                    moving = false;
                } else {
                    end(true);
                }
            }
            case ESCAPE -> end(true);
            default -> {
                return;
            }
        }
        event.consume();
    }

    private void keep() {
        String old = grid.nameOf(at);
        String now = field == null ? old : field.getText().strip();
        if (now.isEmpty() || now.equals(old)) {
            typed.remove(old);
        } else {
            typed.put(old, now);
        }
    }

    private void close() {
        if (at < grid.getColumns().size()) {
            grid.getColumns().get(at).setGraphic(head);
        }
        field = null;
    }

    private void end(boolean backToGrid) {
        close();
        if (backToGrid) {
            grid.requestFocus();
        }
        if (!typed.isEmpty()) {
            Map<String, String> told = new LinkedHashMap<>();
            for (int i = 1; i < grid.getColumns().size(); i++) {
                String old = grid.nameOf(i);
                Optional.ofNullable(typed.get(old)).ifPresent(now -> told.put(old, now));
            }
            typed.clear();
            done.accept(told);
        }
    }
}
