package fixshelf.desktop.parts;

import java.util.List;
import java.util.function.IntConsumer;
import javafx.geometry.Side;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.text.TextFlow;

/// A blank of a sentence whose words open a list of what can stand there.
public final class ChoiceBlank extends Button {
    private static final double HEIGHT = 420;
    private static final int MOST = 500;

    private final ContextMenu menu = new ContextMenu();

    /// The first blank of a sentence, where the keyboard goes.
    public static Node first(TextFlow sentence) {
        return sentence.getChildren().stream()
                .filter(ChoiceBlank.class::isInstance)
                .findFirst()
                .orElse(sentence);
    }

    /// @param taken is told which of the offered words was taken
    public ChoiceBlank(String id, String now, List<String> offered, IntConsumer taken) {
        super(now);
        setId(id);
        setMnemonicParsing(false);
        getStyleClass().setAll("blank");
        for (int i = 0; i < Math.min(MOST, offered.size()); i++) {
            int index = i;
            MenuItem item = new MenuItem(offered.get(i));
            item.setMnemonicParsing(false);
            item.setOnAction(_ -> taken.accept(index));
            menu.getItems().add(item);
        }
        menu.setMaxHeight(HEIGHT);
        setOnAction(_ -> menu.show(this, Side.BOTTOM, 0, 2));
    }
}
