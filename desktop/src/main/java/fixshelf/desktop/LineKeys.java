package fixshelf.desktop;

import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/// Keys on a line of a card: up and down choose another, with Alt they move it, Delete takes it out.
interface LineKeys {
    /// The number of the chosen line, from 1.
    int chosenLine();

    /// How many lines there are.
    int lines();

    /// How many lines at the beginning stay where they are, and cannot be taken out.
    int fixedLines();

    /// Chooses a line.
    void choose(int line);

    /// Exchanges a line with the one below it, and chooses `chosen`.
    void exchange(int upper, int chosen);

    /// Takes the chosen line out.
    void takeOut();

    /// Does what a key means; nothing where it is none of these, or pressed elsewhere.
    default void lineKey(KeyEvent event) {
        boolean onLine =
                event.getTarget() instanceof Node n && n.getStyleClass().contains("job-line");
        if (!onLine) {
            return;
        }
        int target =
                switch (event.getCode()) {
                    case UP -> chosenLine() - 1;
                    case DOWN -> chosenLine() + 1;
                    default -> 0;
                };
        if (target >= 1 && target <= lines()) {
            int upper = Math.min(target, chosenLine());
            if (event.isAltDown() && upper > fixedLines()) {
                exchange(upper, target);
            } else if (!event.isAltDown()) {
                choose(target);
            }
            event.consume();
        } else if (event.getCode() == KeyCode.DELETE && chosenLine() > fixedLines() && lines() > 1) {
            takeOut();
            event.consume();
        }
    }
}
