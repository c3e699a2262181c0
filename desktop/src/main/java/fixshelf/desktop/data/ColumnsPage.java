package fixshelf.desktop.data;

import fixshelf.desktop.parts.ChoiceBlank;
import fixshelf.desktop.parts.DrawingView;
import fixshelf.desktop.parts.Ui;
import fixshelf.problem.Outcome;
import fixshelf.profile.ColumnLook;
import fixshelf.profile.Drawing;
import fixshelf.profile.Finding;
import fixshelf.profile.Remedy;
import fixshelf.type.Visible;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// One row for each column, and one for each thing that is odd in it, with what would help.
final class ColumnsPage {
    private static final int COMMONEST = 6;
    private static final double BAR = 62;
    private static final double REMEDY = 184;

    private final TableView<Entry> table = new TableView<>();
    private final HBox detail = Ui.row("column-detail");
    private final VBox view;
    private final Set<Remedy> chosen = new LinkedHashSet<>();
    private final Consumer<Finding> toRows;
    private final Runnable changed;
    private final Asking asking;
    /// The column over whose days the second drawing goes; empty for the place in the table.
    private String overDays = "";

    private DataModel.@Nullable Seen seen;

    /// A row of the page: a column, or one more thing that is odd in it.
    ///
    /// @param column none for what is said of rows
    /// @param first whether it is the first row of its column, which says what the column is
    private record Entry(
            Optional<ColumnLook> column, Optional<Finding> finding, List<Remedy> remedies, boolean first, long rows) {}

    /// What the page asks for.
    interface Asking {
        /// A drawing of a column over the days of another.
        void overTime(ColumnLook column, ColumnLook days, Consumer<Outcome<Drawing>> done);

        void save(Drawing drawing);
    }

    /// @param toRows shows the rows that have a finding
    /// @param changed is told when remedies were chosen
    ColumnsPage(Consumer<Finding> toRows, Runnable changed, Asking asking) {
        this.asking = asking;
        this.toRows = toRows;
        this.changed = changed;
        table.setId("columns");
        table.setAccessibleText("Columns");
        table.getStyleClass().add("columns-table");
        table.setPlaceholder(Ui.label("Loading …", "soft"));
        table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        table.getColumns()
                .addAll(List.of(
                        column("column", 116, e -> e.first() ? name(e) : new Region()),
                        column("what to look at", 170, e -> e.finding()
                                .map(ColumnsPage::words)
                                .orElse(null)),
                        column("share", 76, ColumnsPage::share),
                        column("what would help, tried", 196, this::remedies),
                        column("reads as", 92, e -> plain(e, ColumnLook::readsAs, "small-cell")),
                        column("filled", 66, e -> plain(e, c -> number(c.filled()), "number-cell")),
                        column("distinct", 66, e -> plain(e, c -> number(c.distinct()), "number-cell")),
                        column("from, to, or commonest", 166, ColumnsPage::range)));
        table.getSelectionModel().selectedItemProperty().addListener((_, _, now) -> showDetail(now));
        table.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        table.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) {
                openRows();
            }
        });
        VBox.setVgrow(table, Priority.ALWAYS);
        detail.setMinHeight(Region.USE_PREF_SIZE);
        view = new VBox(table, detail);
        VBox.setVgrow(view, Priority.ALWAYS);
    }

    VBox view() {
        return view;
    }

    Node focusTarget() {
        return table;
    }

    private void key(KeyEvent event) {
        Entry entry = table.getSelectionModel().getSelectedItem();
        if (entry == null || event.isShortcutDown() || event.isAltDown()) {
            return;
        }
        if (event.getCode() == KeyCode.ENTER) {
            openRows();
            event.consume();
        } else if (event.getCode() == KeyCode.SPACE && !entry.remedies().isEmpty()) {
            turn(entry);
            event.consume();
        }
    }

    private void openRows() {
        Entry entry = table.getSelectionModel().getSelectedItem();
        if (entry != null) {
            entry.finding().ifPresent(toRows);
        }
    }

    /// None, the first, the second, and so on: of the remedies of one thing only one is chosen.
    private void turn(Entry entry) {
        List<Remedy> all = entry.remedies();
        int now = -1;
        for (int i = 0; i < all.size(); i++) {
            now = chosen.contains(all.get(i)) ? i : now;
        }
        choose(entry, now + 1 < all.size() ? Optional.of(all.get(now + 1)) : Optional.empty());
    }

    private void choose(Entry entry, Optional<Remedy> remedy) {
        entry.remedies().forEach(chosen::remove);
        remedy.ifPresent(chosen::add);
        table.refresh();
        changed.run();
    }

    /// Chooses the first remedy of everything that has one; lets go of all where all of these are chosen.
    void chooseAll() {
        List<Remedy> first = table.getItems().stream()
                .filter(e -> !e.remedies().isEmpty())
                .map(e -> e.remedies().getFirst())
                .toList();
        boolean all = chosen.containsAll(first);
        chosen.clear();
        if (!all) {
            chosen.addAll(first);
        }
        table.refresh();
        changed.run();
    }

    /// The remedies that are chosen, in the order of the page.
    List<Remedy> chosen() {
        List<Remedy> all = new ArrayList<>();
        table.getItems()
                .forEach(e -> e.remedies().stream().filter(chosen::contains).forEach(all::add));
        return all;
    }

    void show(DataModel.@Nullable Seen now, String emptyWords) {
        boolean same = seen != null && now != null && seen.file().equals(now.file());
        if (!same) {
            chosen.clear();
        }
        seen = now;
        int at = same ? table.getSelectionModel().getSelectedIndex() : 0;
        table.setPlaceholder(Ui.wrapped(emptyWords, "soft"));
        table.getItems().setAll(now == null ? List.of() : entries(now));
        if (!table.getItems().isEmpty()) {
            table.getSelectionModel().select(Math.clamp(at, 0, table.getItems().size() - 1));
        }
        showDetail(table.getSelectionModel().getSelectedItem());
    }

    private static List<Entry> entries(DataModel.Seen seen) {
        List<Entry> all = new ArrayList<>();
        long rows = seen.table().rows();
        seen.table()
                .findings()
                .forEach(f -> all.add(new Entry(
                        Optional.empty(), Optional.of(f), seen.remedies().getOrDefault(f, List.of()), true, rows)));
        for (ColumnLook column : seen.table().columns()) {
            List<Finding> findings = column.findings().stream()
                    .sorted(java.util.Comparator.comparing(Finding::oddity))
                    .toList();
            if (findings.isEmpty()) {
                all.add(new Entry(Optional.of(column), Optional.empty(), List.of(), true, rows));
            }
            for (int i = 0; i < findings.size(); i++) {
                Finding finding = findings.get(i);
                all.add(new Entry(
                        Optional.of(column),
                        Optional.of(finding),
                        seen.remedies().getOrDefault(finding, List.of()),
                        i == 0,
                        rows));
            }
        }
        return all;
    }

    private static TableColumn<Entry, Entry> column(
            String title, double width, Function<Entry, @Nullable Node> content) {
        TableColumn<Entry, Entry> column = new TableColumn<>(title);
        column.setSortable(false);
        column.setReorderable(false);
        column.setPrefWidth(width);
        column.setMinWidth(width / 2);
        column.setCellValueFactory(e -> new ReadOnlyObjectWrapper<>(e.getValue()));
        column.setCellFactory(_ -> new TableCell<>() {
            @Override
            protected void updateItem(Entry entry, boolean empty) {
                super.updateItem(entry, empty);
                setGraphic(empty || entry == null ? null : content.apply(entry));
            }

            /// As high as its content is where it breaks at the width of the column.
            @Override
            protected double computePrefHeight(double width) {
                double room = column.getWidth() - snappedLeftInset() - snappedRightInset();
                double high = getGraphic() == null ? 0 : getGraphic().prefHeight(room);
                return high + snappedTopInset() + snappedBottomInset();
            }
        });
        return column;
    }

    private static Label name(Entry entry) {
        return entry.column()
                .map(c -> Ui.wrapped(Visible.markOddities(c.name()), "column-cell"))
                .orElseGet(() -> Ui.wrapped("rows", "column-cell", "soft"));
    }

    private static @Nullable Node plain(Entry entry, Function<ColumnLook, String> text, String style) {
        if (!entry.first() || entry.column().isEmpty()) {
            return null;
        }
        boolean broken = !style.equals("number-cell");
        String words = text.apply(entry.column().get());
        Label label = broken ? Ui.wrapped(words, style) : Ui.label(words, style);
        if (style.equals("number-cell")) {
            label.setMaxWidth(Double.MAX_VALUE);
        }
        return label;
    }

    private static Label words(Finding finding) {
        return Ui.wrapped(finding.sentence(), "finding");
    }

    /// How much of all rows it is, as a line that is thick so far.
    private static @Nullable Node share(Entry entry) {
        if (entry.finding().isEmpty() || entry.rows() == 0) {
            return null;
        }
        Region thick = new Region();
        thick.getStyleClass().add("share");
        double width = Math.max(2, BAR * entry.finding().get().rows() / entry.rows());
        thick.setMinWidth(width);
        thick.setMaxWidth(width);
        Region thin = new Region();
        thin.getStyleClass().add("share-rest");
        thin.setMinWidth(BAR - width);
        thin.setMaxWidth(BAR - width);
        return Ui.row("share-line", thick, thin);
    }

    private @Nullable Node remedies(Entry entry) {
        if (entry.finding().isEmpty()) {
            return null;
        }
        FlowPane row = new FlowPane();
        row.getStyleClass().add("remedies");
        for (Remedy remedy : entry.remedies()) {
            boolean on = chosen.contains(remedy);
            Button button = Ui.blank(
                    (on ? "✓ " : "") + remedy.name(),
                    on ? "remedy-chosen" : "fix-link",
                    () -> choose(entry, on ? Optional.empty() : Optional.of(remedy)));
            button.setTooltip(new javafx.scene.control.Tooltip(remedy.name()
                    + (remedy.words().isEmpty() ? "" : ": " + remedy.words())
                    + (on ? ". Chosen: press again to leave it." : ". Press to choose it.")));
            button.setFocusTraversable(false);
            button.setMinWidth(Region.USE_PREF_SIZE);
            Label words = Ui.label(remedy.words(), "soft", "small");
            HBox line = Ui.row("remedy-line", button, words);
            line.setMaxWidth(REMEDY);
            row.getChildren().add(line);
        }
        return row;
    }

    private static String number(long n) {
        return String.format("%,d", n);
    }

    /// The least and the greatest value where they are measured; else the commonest with its number.
    private static @Nullable Node range(Entry entry) {
        if (!entry.first()
                || entry.column().isEmpty()
                || entry.column().get().commonest().isEmpty()) {
            return null;
        }
        ColumnLook column = entry.column().get();
        ColumnLook.Common common = column.commonest().getFirst();
        return column.isMeasured()
                ? new VBox(Ui.label(column.least(), "value-cell"), Ui.label(column.greatest(), "value-cell"))
                : Ui.row(
                        "common-value",
                        Ui.label(
                                common.value().isEmpty() ? "empty" : Visible.markOddities(common.value()),
                                "value-cell"),
                        Ui.label(number(common.rows()), "value-cell", "soft"));
    }

    private void showDetail(@Nullable Entry entry) {
        detail.getChildren().clear();
        if (entry == null || entry.column().isEmpty()) {
            return;
        }
        ColumnLook column = entry.column().get();
        VBox about = new VBox(
                2,
                Ui.label(Visible.markOddities(column.name()), "heading-small"),
                Ui.label(column.readsAs(), "soft"),
                Ui.label(
                        number(column.filled()) + " filled · " + number(column.missing()) + " missing"
                                + (column.errors() > 0 ? ", " + number(column.errors()) + " of them errors" : ""),
                        "small"),
                Ui.label(number(column.empty()) + " empty · " + number(column.blank()) + " only blanks", "small"),
                Ui.label(lengths(column), "small"));
        about.setMinWidth(190);
        Drawing spread = Drawing.of(column, column.isMeasured() ? Drawing.Kind.SPREAD : Drawing.Kind.COMMONEST);
        VBox values = new VBox(2, Ui.label("commonest", "small-heading"));
        column.commonest().stream().limit(COMMONEST).forEach(c -> {
            Label value = Ui.label(c.value().isEmpty() ? "empty" : Visible.markOddities(c.value()), "value-cell");
            value.setMaxWidth(150);
            HBox.setHgrow(value, Priority.ALWAYS);
            values.getChildren().add(Ui.row("state", value, Ui.spring(), Ui.label(number(c.rows()), "number-cell")));
        });
        values.setMinWidth(200);
        values.setMaxWidth(230);
        VBox second = new VBox();
        HBox.setHgrow(second, Priority.ALWAYS);
        showSecond(second, column);
        detail.getChildren().addAll(about, drawing(spread, caption(spread)), second, values);
    }

    /// Beside the spread stands what is filled, by place in the table or over the days of another column.
    private void showSecond(VBox box, ColumnLook column) {
        List<ColumnLook> days = Objects.requireNonNull(seen).table().columns().stream()
                .filter(c -> c.readsAs().startsWith("date") || c.readsAs().startsWith("timestamp"))
                .toList();
        Optional<ColumnLook> over =
                days.stream().filter(d -> d.name().equals(overDays)).findFirst();
        List<String> offered = new ArrayList<>(List.of("filled by place in the table"));
        days.forEach(d -> offered.add("by the days of " + Visible.markOddities(d.name())));
        String now = over.map(d -> "by the days of " + Visible.markOddities(d.name()))
                .orElse(offered.getFirst());
        Node choice = new ChoiceBlank("drawn-over", now, offered, i -> {
            overDays = i == 0 ? "" : days.get(i - 1).name();
            showSecond(box, column);
        });
        if (over.isEmpty()) {
            box.getChildren().setAll(drawing(Drawing.of(column, Drawing.Kind.FILLED), choice));
            return;
        }
        box.getChildren().setAll(choice, Ui.label("Drawing …", "soft"));
        asking.overTime(column, over.get(), drawn -> {
            if (overDays.equals(over.get().name())) {
                box.getChildren()
                        .setAll(
                                drawn.isPresent()
                                        ? drawing(drawn.get(), choice)
                                        : Ui.wrapped(drawn.problems().getFirst().sentence(), "problem"));
            }
        });
    }

    private static Label caption(Drawing drawing) {
        String title = drawing.title();
        return Ui.label(title.substring(title.lastIndexOf(", ") + 2), "small-heading");
    }

    private static String lengths(ColumnLook column) {
        return column.distinct() == 0
                ? "no value"
                : column.shortest() == column.longest()
                        ? Ui.count(column.longest(), "character", "characters") + " long"
                        : column.shortest() + " to " + column.longest() + " characters long";
    }

    private VBox drawing(Drawing drawing, Node caption) {
        Label from = Ui.label(drawing.from(), "small", "soft");
        Label to = Ui.label(drawing.to(), "small", "soft");
        Node save = Ui.blank("save …", "more", () -> asking.save(drawing));
        Node drawn =
                drawing.bars().isEmpty() ? Ui.label("There is nothing to draw.", "soft") : new DrawingView(drawing, 84);
        VBox box =
                new VBox(3, Ui.row("state", caption, Ui.spring(), save), drawn, Ui.row("state", from, Ui.spring(), to));
        HBox.setHgrow(box, Priority.ALWAYS);
        box.setPrefWidth(180);
        return box;
    }
}
