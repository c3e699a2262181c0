package fixshelf.desktop.data;

import fixshelf.desktop.parts.ChoiceBlank;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.RowsGrid;
import fixshelf.desktop.parts.Ui;
import fixshelf.problem.Outcome;
import fixshelf.profile.ColumnLook;
import fixshelf.profile.ColumnsCompared;
import fixshelf.profile.RowsCompared;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.type.Visible;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntConsumer;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextFlow;
import org.jspecify.annotations.Nullable;

/// A dataset held against another: their columns, and their rows by a key.
public final class ComparePage {
    private final Asking asking;
    private final TextFlow sentence = new TextFlow();
    private final Label summary = Ui.wrapped("", "prose");
    private final VBox columns = new VBox(4);
    private final TableView<RowsCompared.Cell> cells = new TableView<>();
    private final HBox save = Ui.row("state", Ui.button(Command.of("Save the cells that differ …", "", this::saveNow)));
    private final VBox view;
    private String dataset = "";
    private List<Other> others = List.of();
    private List<String> names = List.of();
    private Optional<Other> other = Optional.empty();
    private String key = "";
    private Optional<RowsCompared> compared = Optional.empty();

    /// What a dataset may be held against: another one, or what a job makes.
    ///
    /// @param words what it is called here
    record Other(String name, String words) {
        private static Other ofJob(String job) {
            return new Other(job, "what " + job + " makes");
        }
    }

    /// The other datasets of a shelf, and what its jobs make, those first that read this one.
    static List<Other> others(Shelf shelf, String dataset) {
        List<String> users = shelf.usersOf(dataset);
        List<Other> all = new ArrayList<>();
        shelf.jobs().stream().map(JobPage::name).filter(users::contains).forEach(j -> all.add(Other.ofJob(j)));
        shelf.datasets().stream()
                .map(DatasetPage::name)
                .filter(d -> !d.equals(dataset))
                .forEach(d -> all.add(new Other(d, d)));
        shelf.jobs().stream().map(JobPage::name).filter(j -> !users.contains(j)).forEach(j -> all.add(Other.ofJob(j)));
        return all;
    }

    /// Stands for the place of a row where rows are compared by it.
    private static final String PLACE = "\u0000";

    /// What the page asks for.
    interface Asking {
        void columns(String other);

        /// @param keys none where rows are compared by their place
        void rows(String other, List<String> keys);

        /// Saves the cells that differ.
        void save(List<List<String>> lines);
    }

    ComparePage(Asking asking) {
        this.asking = asking;
        sentence.getStyleClass().add("count-sentence");
        cells.setId("compared-cells");
        cells.setAccessibleText("Cells that differ");
        cells.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        cells.setPlaceholder(Ui.label("No cell differs.", "soft"));
        VBox.setVgrow(cells, Priority.ALWAYS);
        view = new VBox(6, sentence, summary, columns, cells, save);
        VBox.setVgrow(view, Priority.ALWAYS);
    }

    VBox view() {
        return view;
    }

    Node focusTarget() {
        return ChoiceBlank.first(sentence);
    }

    /// Begins with a dataset, its columns, and the others that it may be held against.
    void show(String name, List<String> columnNames, String likelyKey, List<Other> otherTables) {
        boolean same = name.equals(dataset);
        dataset = name;
        names = columnNames;
        others = otherTables;
        if (!same) {
            other = Optional.empty();
            key = likelyKey;
            clear();
        }
        fill();
    }

    private void clear() {
        summary.setText("Choose what it is held against: columns are compared by their names, rows by the key.");
        columns.getChildren().clear();
        cells.getItems().clear();
        cells.setVisible(false);
        save.setVisible(false);
        compared = Optional.empty();
    }

    private void saveNow() {
        compared.ifPresent(c -> asking.save(c.lines(dataset, otherWords())));
    }

    private String otherWords() {
        return other.map(Other::words).orElse("");
    }

    private void fill() {
        List<Node> words = new ArrayList<>(List.of(
                Ui.sentence("Hold " + dataset + " against "),
                choice(
                        "compare-with",
                        other.map(Other::words).orElse("another dataset"),
                        others.stream().map(Other::words).toList(),
                        i -> {
                            other = Optional.of(others.get(i));
                            ask();
                        })));
        words.add(Ui.sentence(" by "));
        List<String> offered = new ArrayList<>(List.of("their place"));
        names.forEach(n -> offered.add(Visible.markOddities(n)));
        String now = key.isEmpty() ? "no key" : key.equals(PLACE) ? offered.getFirst() : Visible.markOddities(key);
        words.add(choice("compare-by", now, offered, i -> {
            key = i == 0 ? PLACE : names.get(i - 1);
            ask();
        }));
        words.add(Ui.sentence("."));
        sentence.getChildren().setAll(words);
    }

    /// Holds it against a dataset, or what a job makes.
    public void with(String name) {
        other = others.stream().filter(o -> o.name().equals(name)).findFirst();
        ask();
    }

    private void ask() {
        fill();
        clear();
        if (other.isPresent()) {
            summary.setText("Comparing …");
            asking.columns(other.get().name());
            if (!key.isEmpty()) {
                asking.rows(other.get().name(), key.equals(PLACE) ? List.of() : List.of(key));
            }
        }
    }

    private static Button choice(String id, String now, List<String> offered, IntConsumer taken) {
        return new ChoiceBlank(id, now, offered, taken);
    }

    void showColumns(Outcome<ColumnsCompared> outcome) {
        columns.getChildren().setAll(Ui.label("Columns", "heading-small"));
        if (!outcome.isPresent()) {
            columns.getChildren().add(Ui.wrapped(outcome.problems().getFirst().sentence(), "problem"));
            return;
        }
        List<String> parts = new ArrayList<>();
        ColumnsCompared compared = outcome.get();
        long both = compared.rows().stream()
                .filter(r -> r.in().stream().allMatch(Optional::isPresent))
                .count();
        parts.add(both + " in both");
        only(compared, 0).ifPresent(parts::add);
        only(compared, 1).ifPresent(parts::add);
        compared.rows().stream()
                .filter(r -> !r.isSame() && r.in().stream().allMatch(Optional::isPresent))
                .forEach(r -> parts.add(difference(r)));
        columns.getChildren().add(Ui.wrapped(String.join(" · ", parts), "soft"));
    }

    /// The columns that only one of the two has.
    private Optional<String> only(ColumnsCompared compared, int table) {
        List<String> there = compared.rows().stream()
                .filter(r -> r.in().get(1 - table).isEmpty())
                .map(r -> Visible.markOddities(r.name()))
                .toList();
        return there.isEmpty()
                ? Optional.empty()
                : Optional.of("only in " + compared.tables().get(table) + ": " + String.join(", ", there));
    }

    private static String difference(ColumnsCompared.Row row) {
        ColumnLook here = row.in().get(0).orElseThrow();
        ColumnLook there = row.in().get(1).orElseThrow();
        return here.name().equals(there.name())
                ? row.name() + " reads as " + here.readsAs() + " here, as " + there.readsAs() + " there"
                : Visible.markOddities(here.name()) + " is written " + Visible.markOddities(there.name()) + " there";
    }

    void showRows(Outcome<RowsCompared> outcome) {
        if (!outcome.isPresent()) {
            summary.setText(outcome.problems().getFirst().sentence());
            return;
        }
        RowsCompared compared = outcome.get();
        this.compared = Optional.of(compared);
        StringBuilder text = new StringBuilder(String.format(
                "Rows: %,d in both · %,d only in %s · %,d only in %s.",
                compared.both(), compared.onlyHere(), dataset, compared.onlyThere(), otherWords()));
        if (compared.repeated() > 0) {
            text.append(String.format(
                    " %,d have a key that comes several times, and are not compared.", compared.repeated()));
        }
        if (compared.keyless() > 0) {
            text.append(String.format(" %,d have no key.", compared.keyless()));
        }
        List<String> by = new ArrayList<>();
        compared.byColumn().forEach((column, n) -> {
            if (n > 0) {
                long value = compared.byValue().getOrDefault(column, n);
                by.add(String.format("%s %,d", column, n)
                        + (value == n ? "" : String.format(" (%,d by value)", value)));
            }
        });
        text.append(by.isEmpty() ? " No cell differs." : " Cells that differ: " + String.join(" · ", by) + ".");
        summary.setText(text.toString());
        cells.setVisible(!compared.cells().isEmpty());
        save.setVisible(!compared.cells().isEmpty());
        cells.getColumns()
                .setAll(List.of(
                        column(
                                String.join(", ", compared.keys()),
                                c -> RowsGrid.text(String.join(
                                        ", ",
                                        c.key().stream().map(String::valueOf).toList()))),
                        column("column", c -> Ui.label(Visible.markOddities(c.column()))),
                        column(dataset, c -> RowsGrid.text(c.here())),
                        column(otherWords(), c -> RowsGrid.text(c.there())),
                        column("", c -> Ui.label(c.why(), "soft"))));
        cells.getItems().setAll(compared.cells());
    }

    private static TableColumn<RowsCompared.Cell, RowsCompared.Cell> column(
            String title, java.util.function.Function<RowsCompared.Cell, @Nullable Node> content) {
        TableColumn<RowsCompared.Cell, RowsCompared.Cell> column = new TableColumn<>(title);
        column.setSortable(false);
        column.setReorderable(false);
        column.setCellValueFactory(c -> new ReadOnlyObjectWrapper<>(c.getValue()));
        column.setCellFactory(_ -> new TableCell<>() {
            @Override
            protected void updateItem(RowsCompared.Cell cell, boolean empty) {
                super.updateItem(cell, empty);
                setGraphic(empty || cell == null ? null : content.apply(cell));
            }
        });
        return column;
    }
}
