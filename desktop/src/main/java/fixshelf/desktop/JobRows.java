package fixshelf.desktop;

import fixshelf.desktop.RowsGrid.Emphasis;
import fixshelf.plan.Line;
import fixshelf.plan.Line.Lost;
import fixshelf.plan.Sentences;
import fixshelf.shelf.JobPage;
import fixshelf.work.LineEffect;
import fixshelf.work.LostValue;
import fixshelf.work.Preview;
import fixshelf.work.Preview.View;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextFlow;
import org.jspecify.annotations.Nullable;

/// The right page of a job: rows as of a line, all of them, those with changed cells, or what is lost there.
final class JobRows {
    private static final int MOST_LOST = 8;

    private final JobModel model;
    private final BiConsumer<Integer, Line> change;
    private final ToggleGroup views = new ToggleGroup();
    private final Label asOf = Ui.label("", "soft");
    private final Label message = Ui.wrapped("", "soft");
    private final TextFlow lost = new TextFlow();
    private final RowsGrid grid = new RowsGrid();
    private final VBox page = Ui.column("sheet");
    private View view = View.ALL;
    private JobModel.@Nullable Look shown;
    private int line = 1;

    /// `change` is told the index of a line and the line as it is to be.
    JobRows(JobModel model, BiConsumer<Integer, Line> change) {
        this.model = model;
        this.change = change;
        HBox toggles = new HBox();
        for (View each : View.values()) {
            ToggleButton toggle = new ToggleButton(words(each, false));
            toggle.getStyleClass().setAll("toggle");
            toggle.setUserData(each);
            toggle.setToggleGroup(views);
            toggle.setSelected(each == View.ALL);
            toggle.setOnAction(_ -> turn(each));
            toggles.getChildren().add(toggle);
        }
        VBox.setVgrow(grid, Priority.ALWAYS);
        for (Node node : List.of(message, lost)) {
            node.setVisible(false);
            node.managedProperty().bind(node.visibleProperty());
        }
        page.getChildren().addAll(Ui.row("state", toggles, asOf), message, lost, grid);
    }

    VBox view() {
        return page;
    }

    void turn(View next) {
        view = next;
        views.getToggles().forEach(t -> t.setSelected(t.getUserData() == next));
        fill();
    }

    /// Rows as of a line, counted from 1.
    void show(JobModel.Look look, int chosen) {
        shown = look;
        line = Math.min(chosen, look.planned().plan().steps().size());
        message.setVisible(message.isVisible() && !message.getStyleClass().contains("problem"));
        fill();
    }

    /// Nothing, because of a problem.
    void showNothing(String problem) {
        shown = null;
        say(problem, true);
        lost.setVisible(false);
        grid.show(List.of(), Emphasis.NONE, new PagedRows(0, (_, _) -> {}), "No rows to show.");
    }

    void say(String words, boolean wrong) {
        message.setText(words);
        message.setVisible(true);
        Ui.mark(message, "problem", wrong);
    }

    private void fill() {
        JobModel.Look look = shown;
        if (look == null) {
            return;
        }
        Optional<LineEffect> effect = look.effect(line);
        labelToggles(effect);
        boolean repeats = effect.flatMap(LineEffect::repeats).isPresent();
        asOf.setText("as of line " + line + (view == View.LEAVING && repeats ? ", by group" : ""));
        lost.setVisible(false);
        if (view == View.LEAVING && effect.filter(e -> e.valuesLost() > 0).isPresent()) {
            int asked = line;
            model.lost(look, asked, MOST_LOST, values -> {
                boolean late = shown != look || line != asked || view != View.LEAVING;
                if (!late) {
                    listLost(look, values);
                    showRows(look, new Emphasis(Set.of(), columnsOf(values)));
                }
            });
        } else {
            showRows(look, new Emphasis(view == View.CHANGED ? look.computedAt(line) : Set.of(), List.of()));
        }
    }

    private static List<String> columnsOf(List<LostValue> values) {
        return values.stream().map(LostValue::column).distinct().toList();
    }

    /// Brings a column into view.
    void showColumn(String column) {
        grid.getColumns().stream()
                .filter(c -> String.valueOf(c.getUserData()).startsWith(column + " "))
                .findFirst()
                .ifPresent(grid::scrollToColumn);
    }

    /// The rows of the view in hand.
    private void showRows(JobModel.Look look, Emphasis emphasis) {
        String empty =
                switch (view) {
                    case ALL -> "No rows at this line.";
                    case CHANGED -> "This line changes no cell.";
                    case LEAVING -> "No row leaves and no value is lost at this line.";
                };
        model.rows(look, line, view, rows -> {
            PagedRows none = new PagedRows(0, (_, _) -> {});
            String words = rows.isPresent() ? empty : rows.problems().getFirst().sentence();
            grid.show(look.columnsAt(line), emphasis, rows.value().orElse(none), words);
        });
    }

    private void labelToggles(Optional<LineEffect> effect) {
        views.getToggles().forEach(t -> {
            View each = (View) t.getUserData();
            long n = effect.map(e -> switch (each) {
                        case ALL -> 0L;
                        case CHANGED -> e.cellsChanged();
                        case LEAVING -> e.line() == 1 ? 0 : e.rowsGone() + e.valuesLost();
                    })
                    .orElse(0L);
            String words = words(each, effect.filter(e -> e.valuesLost() > 0).isPresent());
            ((ToggleButton) t).setText(n > 0 ? words + String.format(" %,d", n) : words);
        });
    }

    private static String words(View view, boolean values) {
        return switch (view) {
            case ALL -> "All rows";
            case CHANGED -> "Changed cells";
            case LEAVING -> values ? "Lost" : "Leaving";
        };
    }

    /// The values that a line loses, and a blank that says what a run does about them.
    private void listLost(JobModel.Look look, List<LostValue> values) {
        JobPage.PlacedLine placed = look.planned().job().lines().get(line - 1);
        if (values.isEmpty() || !(placed.line() instanceof Line.Apply apply)) {
            return;
        }
        boolean stops = apply.lost() == Lost.STOPS;
        String all = LostValue.list(values) + (values.size() == MOST_LOST ? "; …" : "");
        lost.getChildren()
                .setAll(
                        Ui.sentence("Lost: " + all + ". A lost value "),
                        Ui.blank(
                                stops ? Sentences.STOPS : Sentences.COUNTED,
                                "blank",
                                () -> change.accept(line - 1, apply.withLost(stops ? Lost.COUNTED : Lost.STOPS))),
                        Ui.sentence("."));
        lost.setVisible(true);
    }
}
