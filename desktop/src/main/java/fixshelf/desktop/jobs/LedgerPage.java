package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.work.Ledger;
import fixshelf.work.PlannedJob;
import java.util.function.BiFunction;
import java.util.function.IntConsumer;
import java.util.stream.Collectors;
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

    /// @param job whose ledger it is
    /// @param based on how many rows, in words
    /// @param sentences what the lines of this job, and of others by their names, do
    void show(Ledger ledger, PlannedJob job, String based, BiFunction<String, Integer, String> sentences) {
        about.setText("Every row that was read is accounted for, " + based + ". Press a line to see its rows.");
        grid.getChildren().clear();
        begin(ledger, job, sentences);
        for (Ledger.Entry entry : ledger.entries()) {
            add(changed(entry), toLine(entry.line()), entry.words() + ": " + sentences.apply("", entry.line()), "told");
        }
        ledger.branches()
                .forEach(b -> add(
                        String.format("%,d", b.rows()),
                        toLine(b.line()),
                        "rows beside: a branch that ends here, with " + sentences.apply("", b.line()),
                        "soft"));
        add(
                String.format("%,d", ledger.out()),
                Ui.label(""),
                "rows come out" + (ledger.addsUp() ? ", which adds up" : ", which does not add up"),
                ledger.addsUp() ? "holds" : "fails");
        ledger.others().forEach(o -> add(o, toLine(o.line()), ""));
        ledger.written()
                .forEach(w -> add(
                        String.format("%,d", w.rows()),
                        Ui.label(""),
                        "rows to " + name(w.place()) + ": " + w.what(),
                        "soft"));
    }

    /// The rows that were read; those of another job or a loader with what became of them there.
    private void begin(Ledger ledger, PlannedJob job, BiFunction<String, Integer, String> sentences) {
        if (ledger.before().isEmpty()) {
            add(String.format("%,d", ledger.read()), Ui.label(""), "rows of " + job.readFrom() + " were read", "told");
            return;
        }
        Ledger before = ledger.before().get();
        begin(before, job.read().getFirst(), sentences);
        before.entries()
                .forEach(e -> add(
                        changed(e),
                        Ui.label("line " + e.line(), "soft"),
                        e.words() + " in " + before.job() + ": " + sentences.apply(before.job(), e.line()),
                        "told"));
        add(String.format("%,d", before.out()), Ui.label(""), "rows that " + before.job() + " gives", "told");
        before.others()
                .forEach(o -> add(o, Ui.label("line " + o.line(), "soft"), ", which " + before.job() + " takes in"));
    }

    private void add(Ledger.Other other, Node line, String where) {
        add(
                String.format("%,d", other.rows()),
                line,
                "rows of " + other.name() + where + ": "
                        + other.parts().stream()
                                .map(p -> String.format("%,d ", p.rows()) + p.words())
                                .collect(Collectors.joining(", ")),
                "soft");
    }

    /// The last part of a path; all of it stands on the page of the job.
    private static String name(String place) {
        return place.substring(Math.max(place.lastIndexOf('/'), place.lastIndexOf('\\')) + 1);
    }

    private Node toLine(int line) {
        return Ui.blank("line " + line, "blank", () -> toLine.accept(line));
    }

    private static String changed(Ledger.Entry entry) {
        return String.format("%s%,d", entry.change() < 0 ? "−" : "+", Math.abs(entry.change()));
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
