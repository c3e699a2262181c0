package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.RowsGrid;
import fixshelf.desktop.parts.Ui;
import fixshelf.work.CellLife;
import java.util.List;
import java.util.function.Function;
import javafx.geometry.VPos;
import javafx.scene.control.Label;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The life of a cell: its value in the file and after every line, and what becomes of its row.
final class LifePage {
    private final Label heading = Ui.label("The life of a cell", "heading");
    private final Label about = Ui.wrapped("");
    private final GridPane grid = new GridPane();
    private final VBox page;

    LifePage(Runnable back) {
        grid.getStyleClass().add("life");
        ColumnConstraints line = new ColumnConstraints();
        line.setMinWidth(64);
        ColumnConstraints value = new ColumnConstraints();
        value.setPercentWidth(40);
        ColumnConstraints words = new ColumnConstraints();
        words.setHgrow(Priority.ALWAYS);
        grid.getColumnConstraints().setAll(line, value, words);

        page = new VBox(heading, about, grid, Ui.row("state", Ui.button(Command.of("Back to the rows", "", back))));
        page.getStyleClass().add("life-page");

        page.setFocusTraversable(true);
        page.setAccessibleText("The life of a cell");
    }

    VBox view() {
        return page;
    }

    /// @param row the place of the row after the line from which it was asked, from 1
    /// @param sentences what lines do
    void show(CellLife life, int line, long row, Function<CellLife.Stage, String> sentences) {
        about.setText(String.format("%s of row %,d as of line %d", life.column(), row, line)
                + (life.file().isEmpty() ? "" : ", from " + life.file()));
        grid.getChildren().clear();
        int at = 0;
        for (CellLife.Stage stage : life.stages()) {
            Label number = Ui.wrapped(stage.place(), "soft", "life-line");
            Region value = stage.hasValue() ? value(stage) : Ui.label("");
            Label words = Ui.wrapped(words(stage, sentences), stage.changed() || isEvent(stage) ? "told" : "soft");
            List.of(number, value, words).forEach(n -> {
                GridPane.setValignment(n, VPos.TOP);
                n.getStyleClass().add("life-cell");
                n.setMaxWidth(Double.MAX_VALUE);
            });
            grid.addRow(at++, number, value, words);
        }
    }

    private static boolean isEvent(CellLife.Stage stage) {
        return stage.words().startsWith("the row ") && !stage.words().equals("the row stays")
                || stage.words().startsWith("made ")
                || stage.words().startsWith("out of ");
    }

    private static Region value(CellLife.Stage stage) {
        return stage.changed()
                ? Ui.row("value-line", RowsGrid.text(stage.was(), "was"), RowsGrid.text(stage.value(), "now"))
                : Ui.row("value-line", RowsGrid.text(stage.value()));
    }

    /// What the line says where it did something to the cell, and what happened otherwise.
    private static String words(CellLife.Stage stage, Function<CellLife.Stage, String> sentences) {
        boolean says = stage.changed() || isEvent(stage) || stage.line() == 1;
        String more = stage.words().equals("read") ? "" : stage.words();
        return says ? sentences.apply(stage) + (more.isEmpty() ? "" : ": " + more) : more;
    }
}
