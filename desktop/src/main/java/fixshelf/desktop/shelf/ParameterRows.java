package fixshelf.desktop.shelf;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.shelf.FixEdits.ParameterText;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The parameters of a fix, edited in place: name, type, what stands where it is left out, what it is for.
final class ParameterRows {
    static final List<String> VALUE_TYPES = List.of(
            "text",
            "integer",
            "decimal(18,2)",
            "boolean",
            "date",
            "timestamp",
            "list of text",
            "list of date",
            "mapping of text to text");

    /// Those of one value, which a loader takes.
    static final List<String> SINGLE_TYPES = VALUE_TYPES.stream()
            .filter(t -> !t.startsWith("list") && !t.startsWith("mapping"))
            .toList();

    private final GridPane grid = new GridPane();
    private final Supplier<List<String>> types;
    private final int fewest;
    private final Consumer<List<ParameterText>> edit;
    private List<ParameterText> shown = List.of();
    private boolean filling;

    /// @param types that are offered; others can be typed
    /// @param fewest how many there must be
    /// @param edit takes all of them, after one was changed
    ParameterRows(Supplier<List<String>> types, int fewest, Consumer<List<ParameterText>> edit) {
        this.types = types;
        this.fewest = fewest;
        this.edit = edit;
        grid.setHgap(6);
        grid.setVgap(4);
    }

    Region view() {
        return grid;
    }

    /// Shows these; what is being typed stays.
    void show(List<ParameterText> parameters) {
        boolean editing = grid.getChildren().stream().anyMatch(ParameterRows::isFocused);
        boolean same = parameters.size() == shown.size() && !grid.getChildren().isEmpty();
        shown = List.copyOf(parameters);
        if (editing && same) {
            return;
        }
        filling = true;
        grid.getChildren().clear();
        grid.addRow(
                0,
                Ui.label("name", "soft", "small"),
                Ui.label("type", "soft", "small"),
                Ui.label("if left out", "soft", "small"));
        for (int i = 0; i < shown.size(); i++) {
            row(i);
        }
        Button add = Ui.button(
                Command.of("+ parameter", "", () -> {
                    List<ParameterText> texts = new ArrayList<>(shown);
                    texts.add(new ParameterText("option_" + (texts.size() + 1), "text", "'…'", "What it is for."));
                    edit.accept(texts);
                }),
                "plain");
        grid.add(add, 0, 2 * shown.size() + 1, 3, 1);
        filling = false;
    }

    private static boolean isFocused(Node node) {
        return node.isFocused()
                || node instanceof VBox box && box.getChildren().stream().anyMatch(Node::isFocused);
    }

    private void row(int index) {
        ParameterText parameter = shown.get(index);
        TextField name = new TextField(parameter.name());
        name.getStyleClass().add("mono");
        name.setPrefColumnCount(14);
        name.setAccessibleText("Name of parameter " + (index + 1));
        ComboBox<String> type = new ComboBox<>();
        type.getItems().setAll(types.get());
        type.setEditable(true);
        type.setValue(parameter.type());
        type.setPrefWidth(146);
        type.setAccessibleText("Type of " + parameter.name());
        TextField fallback = new TextField(parameter.fallback());
        fallback.setPromptText("required");
        fallback.getStyleClass().add("mono");
        fallback.setPrefColumnCount(8);
        fallback.setAccessibleText("What stands for " + parameter.name() + " where it is left out");
        GridPane.setHgrow(fallback, Priority.ALWAYS);
        TextField about = new TextField(parameter.about());
        about.setPromptText("what it is for, in one sentence");
        about.setAccessibleText("About " + parameter.name());
        Runnable commit = () -> {
            ParameterText text = new ParameterText(
                    name.getText().strip(),
                    type.getValue(),
                    fallback.getText().strip(),
                    about.getText().strip());
            if (!filling && index < shown.size() && !shown.get(index).equals(text)) {
                List<ParameterText> texts = new ArrayList<>(shown);
                texts.set(index, text);
                edit.accept(texts);
            }
        };
        List.of(name, fallback, about).forEach(f -> Ui.onLeaving(f, commit));
        type.valueProperty().addListener(_ -> commit.run());
        Button remove = Ui.button(
                Command.of("take out", "", () -> {
                            List<ParameterText> texts = new ArrayList<>(shown);
                            texts.remove(index);
                            edit.accept(texts);
                        })
                        .when(() -> shown.size() > fewest),
                "plain",
                "small");
        remove.setMinWidth(Region.USE_PREF_SIZE);
        grid.addRow(2 * index + 1, name, type, fallback, remove);
        grid.add(Ui.column("parameter-about", about), 0, 2 * index + 2, 3, 1);
    }
}
