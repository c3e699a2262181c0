package fixshelf.desktop.shelf;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.language.pattern.PatternHelp;
import fixshelf.language.pattern.PatternHelp.Inside;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Outcome;
import fixshelf.problem.Span;
import fixshelf.shelf.FixEdits;
import fixshelf.shelf.FixPage;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import fixshelf.type.Visible;
import fixshelf.work.Matches;
import fixshelf.work.Preview;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.collections.FXCollections;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// Builds a pattern from plain words and marks its matches in your own rows as you type. A row that is wanted or
/// unwanted becomes a case.
public final class PatternStrip {
    /// What is looked at.
    record Data(Preview preview, String column) {}

    private final Supplier<Optional<FixPage>> page;
    private final Supplier<Optional<Data>> data;
    private final Consumer<String> edit;
    private final TextField before = new TextField();
    private final ComboBox<Inside> inside = new ComboBox<>();
    private final TextField after = new TextField();
    private final Label pattern = Ui.label("", "mono");
    private final Label counts = Ui.wrapped("", "soft");
    private final ListView<Matches.Sample> rows = new ListView<>();
    private final VBox view;
    private Consumer<String> use = _ -> {};
    private @Nullable Background background;

    PatternStrip(Supplier<Optional<FixPage>> page, Supplier<Optional<Data>> data, Consumer<String> edit) {
        this.page = page;
        this.data = data;
        this.edit = edit;
        before.setPromptText("text before");
        before.setAccessibleText("Text before");
        before.setId("pattern-before");
        after.setPromptText("text after");
        after.setAccessibleText("Text after");
        after.setId("pattern-after");
        before.setPrefColumnCount(13);
        after.setPrefColumnCount(13);
        inside.setPrefWidth(220);
        inside.getItems().setAll(Inside.values());
        inside.setValue(Inside.ANYTHING);
        inside.setAccessibleText("What is looked for");
        before.getStyleClass().add("mono");
        after.getStyleClass().add("mono");
        before.textProperty().addListener(_ -> look());
        after.textProperty().addListener(_ -> look());
        inside.valueProperty().addListener(_ -> look());
        rows.setId("pattern-rows");
        rows.setPrefHeight(190);
        rows.setCellFactory(_ -> new Row());
        rows.setPlaceholder(Ui.label("Choose a dataset and a column below.", "soft"));
        rows.setAccessibleText("Values with their matches");
        HBox buttons = Ui.row(
                "state",
                Ui.button(Command.of("Use it in the body", "", this::useIt)),
                Ui.button(Command.of("Wanted: make a case", "", () -> keep(true))),
                Ui.button(Command.of("Unwanted: make a case", "", () -> keep(false))));
        view = Ui.column(
                "helper",
                Ui.label("Find a part of the text", "heading"),
                Ui.row("state", before, Ui.label("then"), inside, Ui.label("then"), after),
                pattern,
                counts,
                rows,
                buttons);
    }

    VBox view() {
        return view;
    }

    void onUse(Consumer<String> insert) {
        use = insert;
    }

    /// Asks for this, as if it were typed.
    public void ask(String textBefore, Inside what, String textAfter) {
        before.setText(textBefore);
        inside.setValue(what);
        after.setText(textAfter);
    }

    void start(Background on) {
        background = on;
        before.requestFocus();
        look();
    }

    private PatternHelp help() {
        return new PatternHelp(before.getText(), inside.getValue(), after.getText());
    }

    /// Looks for matches again, if the helper is open.
    void look() {
        Optional<Data> looked = data.get();
        String text = help().pattern();
        pattern.setText("pattern " + text);
        if (background == null || !view.isVisible() || looked.isEmpty()) {
            return;
        }
        background.ask(
                new Request("evidence", "looking for matches", 60),
                () -> Matches.look(looked.get().preview(), looked.get().column(), text),
                found -> show(found, looked.get().column()));
    }

    private void show(Outcome<Matches> found, String column) {
        Ui.mark(counts, "problem", !found.isPresent());
        if (!found.isPresent()) {
            counts.setText(found.problems().getFirst().sentence());
            return;
        }
        counts.setText(String.format(
                "%,d of %,d values of %s match; those come first",
                found.get().matching(), found.get().rows(), column));
        rows.setItems(FXCollections.observableArrayList(found.get().samples()));
    }

    private void useIt() {
        page.get()
                .ifPresent(p ->
                        use.accept(help().extraction(p.parameters().getFirst().name())));
    }

    /// A case of the chosen value: true or false for a fix that tells, else what was found or nothing.
    private void keep(boolean wanted) {
        Matches.Sample sample = rows.getSelectionModel().getSelectedItem();
        Optional<FixPage> fix = page.get();
        if (sample == null || fix.isEmpty()) {
            counts.setText("Choose a value in the list first.");
            return;
        }
        Parameter first = fix.get().parameters().getFirst();
        String told = wanted ? "TRUE" : "FALSE";
        String found = wanted ? sample.found().map(Literals::print).orElse(Literals.print(sample.value())) : "NULL";
        List<String> cells = new ArrayList<>();
        for (String column : FixEdits.heading(fix.get())) {
            boolean result = column.equalsIgnoreCase("result");
            cells.add(
                    result
                            ? fix.get().returns().equals(Type.BOOLEAN) ? told : found
                            : column.equalsIgnoreCase(first.name())
                                    ? Literals.print(sample.value())
                                    : EvidencePage.given(fix.get(), column));
        }
        edit.accept(FixEdits.addCase(fix.get(), cells));
    }

    /// A value with its matches marked.
    private static final class Row extends ListCell<Matches.Sample> {
        @Override
        protected void updateItem(Matches.@Nullable Sample sample, boolean empty) {
            super.updateItem(sample, empty);
            setText(null);
            setGraphic(empty || sample == null ? null : line(sample));
        }

        private static HBox line(Matches.Sample sample) {
            HBox line = new HBox();
            int at = 0;
            for (Span span : sample.matches()) {
                add(line, sample.value().substring(at, span.start()), "mono");
                add(line, sample.value().substring(span.start(), span.end()), "match");
                at = span.end();
            }
            add(line, sample.value().substring(at), "mono");
            line.getChildren().addAll(Ui.spring(), Ui.label(String.format("%,d", sample.rows()), "soft", "small"));
            return line;
        }

        private static void add(HBox line, String text, String style) {
            if (!text.isEmpty()) {
                line.getChildren().add(Ui.label(Visible.mark(text), style));
            }
        }
    }
}
