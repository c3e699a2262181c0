package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.work.Ledger;
import java.util.function.IntConsumer;
import java.util.function.IntFunction;
import javafx.geometry.HPos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// The ledger: what became of every row that was read, line by line, adding up to the rows that come out.
final class LedgerPage {
    private final Label about = Ui.wrapped("", "soft");
    private final GridPane grid = new GridPane();
    private final VBox page;
    private final IntConsumer toLine;

    /// @param toLine is told the number of a line that is to be looked at
    LedgerPage(IntConsumer toLine, Runnable back) {
        this.toLine = toLine;
        grid.getStyleClass().add("life");
        ColumnConstraints rows = new ColumnConstraints();
        rows.setMinWidth(110);
        rows.setHalignment(HPos.RIGHT);
        ColumnConstraints line = new ColumnConstraints();
        line.setMinWidth(84);
        ColumnConstraints words = new ColumnConstraints();
        words.setHgrow(Priority.ALWAYS);
        grid.getColumnConstraints().setAll(rows, line, words);
        page = new VBox(
                Ui.label("Where the rows went", "heading"),
                about,
                grid,
                Ui.row("state", Ui.button(Command.of("Back to the rows", "", back))));
        page.getStyleClass().add("life-page");
        page.setFocusTraversable(true);
        page.setAccessibleText("Where the rows went");
    }

    VBox view() {
        return page;
    }

    /// @param source what was read
    /// @param based on how many rows, in words
    /// @param sentences what the lines do, by their numbers
    void show(Ledger ledger, String source, String based, IntFunction<String> sentences) {
        about.setText("Every row that was read is accounted for, " + based + ". Press a line to see its rows.");
        grid.getChildren().clear();
        add(String.format("%,d", ledger.read()), Ui.label(""), "rows of " + source + " were read", "told");
        for (Ledger.Entry entry : ledger.entries()) {
            Node line = Ui.blank("line " + entry.line(), "blank", () -> toLine.accept(entry.line()));
            add(
                    String.format("%s%,d", entry.change() < 0 ? "−" : "+", Math.abs(entry.change())),
                    line,
                    entry.words() + ": " + sentences.apply(entry.line()),
                    "told");
        }
        ledger.branches()
                .forEach(b -> add(
                        String.format("%,d", b.rows()),
                        Ui.blank("line " + b.line(), "blank", () -> toLine.accept(b.line())),
                        "rows beside: a branch that ends here, with " + sentences.apply(b.line()),
                        "soft"));
        add(
                String.format("%,d", ledger.out()),
                Ui.label(""),
                "rows come out" + (ledger.addsUp() ? ", which adds up" : ", which does not add up"),
                ledger.addsUp() ? "holds" : "fails");
    }

    private void add(String rows, Node line, String words, String style) {
        Label number = Ui.label(rows, "value-label", "life-cell");
        number.setMaxWidth(Double.MAX_VALUE);
        HBox at = Ui.row("life-cell", line);
        Label told = Ui.wrapped(words, style, "life-cell");
        told.setMaxWidth(Double.MAX_VALUE);
        grid.addRow(grid.getRowCount(), number, at, told);
    }
}
