package fixshelf.desktop.data;

import fixshelf.desktop.parts.Ui;
import fixshelf.source.FileParts;
import fixshelf.type.Visible;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// The tables that a file holds, each as a small picture of itself, to choose from.
final class PartsPage {
    private static final int LETTERS = 49;
    private static final int LONGEST = 20;
    private static final double WIDTH = 276;

    private final Label title = Ui.label("", "title");
    private final Label about = Ui.wrapped("", "soft");
    private final FlowPane cards = new FlowPane(14, 14);
    private final VBox view;

    PartsPage() {
        cards.setId("parts");
        cards.setRowValignment(VPos.TOP);
        ScrollPane scroll = Ui.page(cards);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        view = new VBox(10, title, about, scroll);
        view.getStyleClass().add("parts-page");
        VBox.setVgrow(view, Priority.ALWAYS);
    }

    VBox view() {
        return view;
    }

    Node focusTarget() {
        return cards.getChildren().stream()
                .filter(c -> !c.isDisable())
                .findFirst()
                .orElse(view);
    }

    /// @param chosen is told which one the user takes
    void show(String file, List<FileParts.Part> parts, Consumer<FileParts.Part> chosen) {
        title.setText("Which table of " + file + "?");
        about.setText(Ui.count(parts.size(), "table was found", "tables were found")
                + ". Tab goes from one to the next, Enter takes it: it becomes a dataset, and nothing else changes.");
        List<Node> all = new ArrayList<>();
        for (FileParts.Part part : parts) {
            Button card = new Button();
            card.getStyleClass().setAll("part");
            card.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
            card.setGraphic(new VBox(
                    4, Ui.label(part.title(), "small-heading"), Ui.label(part.size(), "soft", "small"), picture(part)));
            card.setAccessibleText(part.title() + ": " + part.size());
            card.setPrefWidth(WIDTH);
            card.setMaxWidth(WIDTH);
            card.setDisable(!part.isReadable());
            card.setOnAction(_ -> chosen.accept(part));
            all.add(card);
        }
        cards.getChildren().setAll(all);
    }

    /// The names and first rows, as small as they can be read, and as many columns as there is room for.
    private static Node picture(FileParts.Part part) {
        GridPane grid = new GridPane(7, 1);
        grid.getStyleClass().add("part-picture");
        int room = LETTERS;
        int column = 0;
        for (; column < part.names().size(); column++) {
            List<String> cells = new ArrayList<>(List.of(shown(part.names().get(column))));
            int at = column;
            part.first().forEach(r -> cells.add(shown(r.get(at))));
            room -= 1 + cells.stream().mapToInt(String::length).max().orElse(0);
            if (room < 0 && column > 0) {
                grid.add(cell("…", "part-cell"), column, 0);
                break;
            }
            for (int r = 0; r < cells.size(); r++) {
                grid.add(cell(cells.get(r), r == 0 ? "part-name" : "part-cell"), column, r);
            }
        }
        return grid;
    }

    private static Label cell(String text, String style) {
        Label label = Ui.label(text, style);
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }

    private static String shown(@Nullable String value) {
        String text = value == null ? "" : Visible.markOddities(value.strip());
        return text.length() > LONGEST ? text.substring(0, LONGEST - 1) + "…" : text;
    }
}
