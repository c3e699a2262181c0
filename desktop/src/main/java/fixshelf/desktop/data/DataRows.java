package fixshelf.desktop.data;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.PagedRows;
import fixshelf.desktop.parts.RowsGrid;
import fixshelf.desktop.parts.Ui;
import fixshelf.profile.RowFilter;
import fixshelf.type.Column;
import fixshelf.type.Visible;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.collections.FXCollections;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// The rows of a dataset: all, those that have something odd, those in which a text is found.
final class DataRows {
    private final DataModel model;
    private final RowsGrid grid = new RowsGrid();
    private final TextField find = new TextField();
    private final Label words = Ui.label("", "soft");
    private final Label place = Ui.wrapped("", "soft", "mono");
    private final VBox view;
    private RowFilter filter = RowFilter.ALL;
    private Optional<DataModel.Seen> shown = Optional.empty();
    private String basedOn = "";

    DataRows(DataModel model) {
        this.model = model;
        find.setPromptText("Find in any cell …");
        find.setId("find-rows");
        find.setPrefColumnCount(20);
        Ui.onLeaving(find, () -> {
            if (!find.getText().equals(filter.text())) {
                filter = filter.withText(find.getText());
                fill();
            }
        });
        VBox.setVgrow(grid, Priority.ALWAYS);
        Command all = Command.of("All rows", "", () -> {
            filter(RowFilter.ALL);
            fill();
        });
        grid.getFocusModel().focusedIndexProperty().addListener((_, _, _) -> showPlace());
        place.setId("row-place");
        view = new VBox(6, Ui.row("state", find, words, Ui.spring(), Ui.button(all)), grid, place);
        VBox.setVgrow(view, Priority.ALWAYS);
    }

    VBox view() {
        return view;
    }

    Node focusTarget() {
        return grid;
    }

    /// Shows no rows, as another dataset is looked at.
    void clear() {
        shown = Optional.empty();
        filter(RowFilter.ALL);
        words.setText("");
        grid.getColumns().clear();
        grid.setItems(FXCollections.emptyObservableList());
    }

    /// Only these rows from now on.
    void filter(RowFilter wanted) {
        filter = wanted;
        find.setText(wanted.text());
    }

    /// @param based how many rows were looked at, in words
    void show(DataModel.Seen seen, String based) {
        shown = Optional.of(seen);
        basedOn = based;
        fill();
    }

    /// Where the row that is chosen stands in the source, and how.
    private void showPlace() {
        Optional<RowsGrid.Chosen> chosen = grid.chosen();
        if (shown.isEmpty() || chosen.isEmpty()) {
            return;
        }
        model.place(
                shown.get().file(),
                chosen.get().row() - 1,
                found -> place.setText(
                        found.isPresent()
                                ? found.get().shown()
                                        + (found.get().raw().isEmpty()
                                                ? ""
                                                : ": "
                                                        + Visible.markOddities(
                                                                found.get().raw()))
                                : found.problems().getFirst().sentence()));
    }

    private void fill() {
        place.setText("");
        shown.ifPresent(seen -> model.rows(seen.file(), filter, found -> {
            if (found.isPresent()) {
                fill(seen.file().columns(), found.get());
            } else {
                words.setText(found.problems().getFirst().sentence());
            }
        }));
    }

    private void fill(List<Column> columns, PagedRows rows) {
        String what = filter.finding()
                .map(f -> " · "
                        + (f.column() < 0 ? "rows" : columns.get(f.column()).name()) + ": " + f.sentence())
                .orElse("");
        String part = filter.isPart() ? ", those with the first 5,000 values" : "";
        words.setText(String.format("%,d of %s", rows.size(), basedOn) + what + part);
        List<String> first = filter.finding()
                .filter(f -> f.column() >= 0)
                .map(f -> List.of(columns.get(f.column()).name()))
                .orElse(List.of());
        grid.show(columns, new RowsGrid.Emphasis(Set.of(), first), rows, "No row passes.");
    }
}
