package fixshelf.desktop.parts;

import fixshelf.type.Column;
import fixshelf.type.Literals;
import fixshelf.type.Visible;
import fixshelf.work.PreviewRow;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import javafx.scene.text.Text;
import org.jspecify.annotations.Nullable;

/// Rows of a result: changed cells with what they were, rows that leave struck out, invisible characters visible.
public final class RowsGrid extends TableView<PreviewRow> {
    /// The names of the columns that are shown.
    private final Map<String, String> names = new HashMap<>();

    public RowsGrid() {
        setPlaceholder(Ui.label("Loading …", "soft"));
        setColumnResizePolicy(UNCONSTRAINED_RESIZE_POLICY);
        setRowFactory(_ -> new MarkedRow());
        setAccessibleText("Rows");
        getSelectionModel().setCellSelectionEnabled(true);
    }

    /// A cell by the place of its row, from 1, and the name of its column.
    public record Chosen(long row, String column) {}

    /// The cell that is chosen; the first one of the row where none of its values is.
    public Optional<Chosen> chosen() {
        if (getItems().isEmpty() || getColumns().size() < 2) {
            return Optional.empty();
        }
        int row = Math.max(0, getFocusModel().getFocusedCell().getRow());
        int column = Math.max(1, getFocusModel().getFocusedCell().getColumn());
        PreviewRow found = getItems().get(row);
        String key = String.valueOf(getColumns().get(column).getUserData());
        return found.number() == 0
                ? Optional.empty()
                : Optional.of(new Chosen(found.number(), names.getOrDefault(key, "")));
    }

    /// The name of a column that is shown, by its place; the first of them is 1.
    String nameOf(int column) {
        return names.getOrDefault(String.valueOf(getColumns().get(column).getUserData()), "");
    }

    /// Chooses another column of the same row.
    public void moveColumn(int steps) {
        int row = Math.max(0, getFocusModel().getFocusedCell().getRow());
        int column = Math.clamp(
                Math.max(1, getFocusModel().getFocusedCell().getColumn()) + (long) steps,
                1,
                getColumns().size() - 1);
        choose(row, getColumns().get(column));
    }

    /// Chooses a column of the row that is chosen, and brings it into view.
    public void chooseColumn(TableColumn<PreviewRow, ?> column) {
        choose(Math.max(0, getFocusModel().getFocusedCell().getRow()), column);
    }

    private void choose(int row, TableColumn<PreviewRow, ?> column) {
        getSelectionModel().clearAndSelect(row, column);
        getFocusModel().focus(row, column);
        scrollToColumn(column);
    }

    /// Which columns are worth a look.
    ///
    /// @param wide those with room for two values
    /// @param first those that come before the others, in this order
    public record Emphasis(Set<String> wide, List<String> first) {
        public static final Emphasis NONE = new Emphasis(Set.of(), List.of());

        private int rank(Column column) {
            int at = first.indexOf(column.name());
            return at < 0 ? first.size() : at;
        }
    }

    /// Shows columns. Widths stay as they are when the columns do.
    public void show(List<Column> columns, Emphasis emphasis, PagedRows rows, String emptyWords) {
        Set<String> wide = emphasis.wide();
        List<Column> inOrder =
                columns.stream().sorted(Comparator.comparingInt(emphasis::rank)).toList();
        List<String> now = getColumns().stream()
                .skip(1)
                .map(c -> String.valueOf(c.getUserData()))
                .toList();
        List<String> next = inOrder.stream().map(c -> key(c, wide)).toList();
        if (!now.equals(next)) {
            getColumns().clear();
            names.clear();
            inOrder.forEach(c -> names.put(key(c, wide), c.name()));
            getColumns().add(numbers());
            inOrder.forEach(c -> getColumns().add(column(c, columns.indexOf(c), wide)));
            rows.whenFirstCome(some -> fit(inOrder, columns, some));
        }
        setPlaceholder(Ui.label(emptyWords, "soft"));
        setItems(rows);
    }

    private static final int FITTED = 60;

    /// Makes columns as wide as what stands in them, within bounds; the user can draw them wider.
    private void fit(List<Column> inOrder, List<Column> columns, List<PreviewRow> rows) {
        for (int i = 0; i < inOrder.size() && i + 1 < getColumns().size(); i++) {
            Column column = inOrder.get(i);
            int index = columns.indexOf(column);
            int longest = column.name().length() + 1;
            for (PreviewRow row : rows.subList(0, Math.min(FITTED, rows.size()))) {
                if (index < row.cells().size()) {
                    PreviewRow.Cell cell = row.cells().get(index);
                    int now = length(cell.value());
                    longest = Math.max(
                            longest, cell.changed() && cell.was() != cell.value() ? now + length(cell.was()) + 3 : now);
                }
            }
            getColumns().get(i + 1).setPrefWidth(Math.clamp(28 + 8.2 * longest, 76, 330));
        }
    }

    private static int length(@Nullable Object value) {
        return value == null ? 7 : Math.max(5, Literals.bare(value).length());
    }

    private static TableColumn<PreviewRow, PreviewRow> numbers() {
        TableColumn<PreviewRow, PreviewRow> column = new TableColumn<>("row");
        column.setCellValueFactory(r -> new ReadOnlyObjectWrapper<>(r.getValue()));
        column.setCellFactory(_ -> new NumberCell());
        column.setPrefWidth(86);
        column.setSortable(false);
        column.setReorderable(false);
        return column;
    }

    private static String key(Column column, Set<String> wide) {
        return column.name() + ' ' + column.type().label() + (wide.contains(column.name()) ? " wide" : "");
    }

    private static TableColumn<PreviewRow, PreviewRow.Cell> column(Column column, int index, Set<String> wide) {
        TableColumn<PreviewRow, PreviewRow.Cell> view = new TableColumn<>();
        view.setUserData(key(column, wide));
        Label name = Ui.label(Visible.markOddities(column.name()), "column-name");
        Label type = Ui.label(column.type().label(), "soft", "small");
        view.setGraphic(Ui.column("column-head", name, type));
        view.setCellValueFactory(r -> new ReadOnlyObjectWrapper<>(
                index < r.getValue().cells().size() ? r.getValue().cells().get(index) : null));
        view.setCellFactory(_ -> new ValueCell());
        int usual = Math.max(140, Math.min(240, 60 + 9 * column.name().length()));
        view.setPrefWidth(wide.contains(column.name()) ? 330 : usual);
        view.setSortable(false);
        view.setReorderable(false);
        return view;
    }

    /// A value as it is shown, and whether it is there at all.
    public static Text text(@Nullable Object value, String... classes) {
        Text text = new Text(
                value == null
                        ? "missing"
                        : Literals.bare(value).isEmpty() ? "empty" : Visible.markOddities(Literals.bare(value)));
        text.getStyleClass().add("value");
        boolean nothing = value == null || Literals.bare(value).isEmpty();
        if (nothing) {
            text.getStyleClass().add("missing");
        }
        text.getStyleClass().addAll(classes);
        return text;
    }

    private static final class MarkedRow extends TableRow<PreviewRow> {
        @Override
        protected void updateItem(PreviewRow row, boolean empty) {
            super.updateItem(row, empty);
            Ui.mark(this, "leaves", !empty && row != null && row.mark() == PreviewRow.Mark.LEAVES);
        }
    }

    private static final class NumberCell extends TableCell<PreviewRow, PreviewRow> {
        @Override
        protected void updateItem(PreviewRow row, boolean empty) {
            super.updateItem(row, empty);
            if (empty || row == null || row.number() == 0) {
                setGraphic(null);
                return;
            }
            Text text =
                    switch (row.mark()) {
                        case NONE -> new Text(String.format("%,d", row.number()));
                        case STAYS -> new Text("stays ● ");
                        case LEAVES -> new Text("leaves");
                        case ONLY_LATER -> new Text("new");
                    };
            text.getStyleClass().add("row-note");
            if (row.mark() != PreviewRow.Mark.NONE) {
                text.getStyleClass().add(row.mark() == PreviewRow.Mark.LEAVES ? "leaves" : "stays");
            }
            setGraphic(text);
        }
    }

    private static final class ValueCell extends TableCell<PreviewRow, PreviewRow.Cell> {
        @Override
        protected void updateItem(PreviewRow.Cell cell, boolean empty) {
            super.updateItem(cell, empty);
            if (empty || cell == null) {
                setGraphic(null);
                Ui.mark(this, "changed-cell", false);
                return;
            }
            Ui.mark(this, "changed-cell", cell.changed());
            PreviewRow row = getTableRow() == null ? null : getTableRow().getItem();
            boolean leaves = row != null && row.mark() == PreviewRow.Mark.LEAVES;
            Text now = leaves ? text(cell.value(), "gone") : text(cell.value());
            setGraphic(
                    cell.changed() && cell.was() != cell.value()
                            ? Ui.row("value-line", text(cell.was(), "was"), now)
                            : now);
        }
    }
}
