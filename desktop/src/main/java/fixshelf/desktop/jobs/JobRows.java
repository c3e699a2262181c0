package fixshelf.desktop.jobs;

import fixshelf.desktop.jobs.JobModel.Sight;
import fixshelf.desktop.parts.HeadNames;
import fixshelf.desktop.parts.PagedRows;
import fixshelf.desktop.parts.RowsGrid;
import fixshelf.desktop.parts.RowsGrid.Emphasis;
import fixshelf.desktop.parts.Ui;
import fixshelf.plan.Line;
import fixshelf.plan.Sentences;
import fixshelf.plan.Written;
import fixshelf.shelf.Shelf;
import fixshelf.work.Beside;
import fixshelf.work.LineEffect;
import fixshelf.work.LostValue;
import fixshelf.work.Preview;
import fixshelf.work.Preview.View;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntConsumer;
import java.util.function.IntFunction;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// The right page of a job: rows as of a line, all of them, those with changed cells, or what is lost there.
final class JobRows {
    private static final double TOGGLES = 600;

    private final JobModel model;
    private final Editing editing;
    private final IntConsumer toLine;
    private final ToggleGroup views = new ToggleGroup();
    private final Label asOf = Ui.label("", "soft");
    private final Label message = Ui.wrapped("", "soft");
    private final LineOffers offers;
    private final RowsGrid grid = new RowsGrid();
    private final HeadNames headNames = new HeadNames(grid, this::rename);
    private final VBox page = Ui.column("sheet");
    private final ComboBox<String> beside = new ComboBox<>();
    private final ToggleButton spread = new ToggleButton("Whole file");
    /// The line whose table stands beside that of the chosen one; 0 for none.
    private int other;

    private boolean filling;
    private Sight sight = Sight.of(View.ALL);
    private final FlowPane toggles = new FlowPane();
    private final LifePage life = new LifePage(this::backToRows);
    private final LedgerPage ledger;
    private final List<Node> usual;
    private JobModel.@Nullable Look shown;
    /// The column whose first cell is to be followed once there are rows.
    private Optional<String> lifeOf = Optional.empty();
    private int line = 1;
    private IntFunction<String> sentences = _ -> "";

    /// What can be done to the job from its rows.
    interface Editing {
        /// The shelf of the job.
        Shelf shelf();

        /// Gives the line at an index, from 0, another text.
        void changed(int index, Line line);

        /// Puts a line at an index, from 0, before the one that stands there.
        void insert(int index, Line line);

        /// Looks at the job again.
        void refresh();
    }

    /// `toLine` is told the number of a line to look at.
    JobRows(JobModel model, Editing editing, IntConsumer toLine) {
        this.model = model;
        this.editing = editing;
        this.offers = new LineOffers(editing);
        this.toLine = toLine;
        this.ledger = new LedgerPage(toLine, this::backToRows);
        for (View each : View.values()) {
            toggles.getChildren().add(toggle(Sight.of(each), words(each)));
        }
        toggles.setPrefWrapLength(TOGGLES);
        asOf.setMinWidth(Region.USE_PREF_SIZE);
        VBox.setVgrow(grid, Priority.ALWAYS);
        for (Node node : List.of(message, offers)) {
            node.setVisible(false);
            node.managedProperty().bind(node.visibleProperty());
        }
        HBox.setHgrow(toggles, Priority.ALWAYS);
        beside.getStyleClass().add("small");
        beside.setAccessibleText("Beside which line");
        beside.setMinWidth(Region.USE_PREF_SIZE);
        beside.valueProperty().addListener((_, _, _) -> {
            if (!filling) {
                other = Math.max(0, beside.getSelectionModel().getSelectedIndex());
                message.setVisible(false);
                fill();
            }
        });
        spread.getStyleClass().setAll("toggle");
        spread.setTooltip(new Tooltip("Rows from the whole file, at equal distances, instead of the first ones"));
        spread.managedProperty().bind(spread.visibleProperty());
        spread.setMinWidth(Region.USE_PREF_SIZE);
        spread.setVisible(false);
        spread.setOnAction(_ -> turnSample());
        usual = List.of(Ui.row("state", toggles, spread, beside, asOf), message, offers, grid);
        page.getChildren().addAll(usual);
        grid.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) {
                showLife();
            }
        });
        page.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    }

    private void key(KeyEvent event) {
        boolean aside = !page.getChildren().contains(grid);
        if (event.getCode() == KeyCode.F2 && !aside) {
            nameColumns();
            event.consume();
        } else if (event.getCode() == KeyCode.ENTER && grid.isFocused()) {
            showLife();
            event.consume();
        } else if (aside && event.getCode() == KeyCode.ESCAPE) {
            backToRows();
            event.consume();
        } else if (page.getChildren().contains(life.view())
                && (event.getCode() == KeyCode.LEFT || event.getCode() == KeyCode.RIGHT)) {
            grid.moveColumn(event.getCode() == KeyCode.RIGHT ? 1 : -1);
            showLife();
            event.consume();
        }
    }

    /// Other names for the columns after the chosen line, one after another; they become one line below it.
    void nameColumns() {
        // Of rows that leave, the columns are those before the line.
        if (shown != null && sight.name().isEmpty() && sight.view() != View.LEAVING && other == 0) {
            headNames.begin();
        }
    }

    private void rename(Map<String, String> names) {
        Map<String, Written> pairs = new LinkedHashMap<>();
        names.forEach((old, now) -> pairs.put(old, Written.word(now)));
        int below = line + 1;
        editing.insert(line, new Line("rename", Map.of("names", new Written.Fields(pairs))));
        toLine.accept(below);
    }

    private void backToRows() {
        backToRowsQuietly();
        grid.requestFocus();
    }

    private void backToRowsQuietly() {
        if (!page.getChildren().contains(grid)) {
            page.getChildren().setAll(usual);
        }
    }

    private void aside(VBox view) {
        page.getChildren().setAll(view);
        VBox.setVgrow(view, Priority.ALWAYS);
        view.requestFocus();
    }

    /// Whether there are more rows than are looked at, so that others of them can be.
    boolean isSample() {
        return shown != null && (shown.total() < 0 || shown.rows() < shown.total());
    }

    /// Looks at rows from the whole file, or at the first ones again.
    void turnSample() {
        model.turnSample();
        editing.refresh();
    }

    /// The life of the first cell of a column, now or as soon as there are rows.
    void showLife(String column) {
        lifeOf = Optional.of(column);
        showWantedLife();
    }

    private void showWantedLife() {
        lifeOf.filter(_ -> grid.chosen().isPresent()).ifPresent(column -> {
            lifeOf = Optional.empty();
            showColumn(column);
            showLife();
        });
    }

    /// The life of the cell that is chosen in the grid; of the first one, if none is.
    void showLife() {
        JobModel.Look look = shown;
        Optional<RowsGrid.Chosen> cell = grid.chosen();
        if (look == null || cell.isEmpty() || !sight.name().isEmpty() || other > 0) {
            return;
        }
        int at = Preview.lineOf(look.planned(), line, sight.view());
        RowsGrid.Chosen asked = cell.get();
        model.life(look, at, asked.row(), asked.column(), found -> {
            if (found.isPresent()) {
                life.show(found.get(), at, asked.row(), s -> s.of().map(
                                l -> Sentences.plain(l, editing.shelf().callables()))
                        .orElseGet(() -> sentences.apply(s.line())));
                aside(life.view());
            } else {
                say(found.problems().getFirst().sentence(), true);
            }
        });
    }

    /// What a line does: one of this job, or of another job or loader that it takes in.
    private String sentence(String job, int number) {
        return job.isEmpty()
                ? sentences.apply(number)
                : Optional.ofNullable(shown)
                        .flatMap(l -> l.planned().within(job))
                        .map(j -> Sentences.plain(
                                j.job().lines().get(number - 1).line(),
                                editing.shelf().callables()))
                        .orElse("");
    }

    /// What became of every row.
    void showLedger() {
        JobModel.Look look = shown;
        if (look != null) {
            String based =
                    look.total() >= 0 && look.rows() >= look.total() ? "over all rows" : "as of " + look.looked();
            model.ledger(look, found -> {
                if (found.isPresent()) {
                    ledger.show(found.get(), look.planned(), based, this::sentence);
                    aside(ledger.view());
                } else {
                    say(found.problems().getFirst().sentence(), true);
                }
            });
        }
    }

    VBox view() {
        return page;
    }

    /// Opens the list of lines whose table can stand beside this one.
    void chooseBeside() {
        backToRowsQuietly();
        beside.requestFocus();
        beside.show();
    }

    /// The lines that can stand beside the chosen one; those of a job at rest too.
    private void offerLines(JobModel.Look look) {
        filling = true;
        List<String> lines = new ArrayList<>(List.of("beside no line"));
        for (int at = 1; at <= look.planned().plan().steps().size(); at++) {
            lines.add(at == line ? "beside itself" : "beside line " + at);
        }
        if (!beside.getItems().equals(lines)) {
            beside.getItems().setAll(lines);
        }
        other = other == line || other >= lines.size() ? 0 : other;
        beside.getSelectionModel().select(other);
        filling = false;
    }

    /// The table of the chosen line beside that of another one.
    private void showBoth(JobModel.Look look) {
        int at = line;
        int asked = other;
        model.beside(look, at, asked, found -> {
            if (shown != look || line != at || other != asked) {
                return;
            }
            if (found.isPresent()) {
                Beside both = found.get().beside();
                say("Line " + both.line() + " beside line " + both.other() + ": " + both.sentence(), false);
                grid.show(
                        both.columns().stream().map(Beside.Shown::column).toList(),
                        Emphasis.NONE,
                        found.get().rows(),
                        "Neither line has a row.");
            } else {
                say(found.problems().getFirst().sentence(), true);
                grid.show(List.of(), Emphasis.NONE, new PagedRows(0, (_, _) -> {}), "No rows to show.");
            }
        });
    }

    private ToggleButton toggle(Sight each, String words) {
        ToggleButton toggle = new ToggleButton(words);
        toggle.getStyleClass().setAll("toggle");
        toggle.setUserData(each);
        toggle.setToggleGroup(views);
        toggle.setSelected(each.equals(sight));
        toggle.setOnAction(_ -> turn(each));
        return toggle;
    }

    void turn(View next) {
        turn(Sight.of(next));
    }

    void turn(Sight next) {
        message.setVisible(message.isVisible() && other == 0);
        other = 0;
        sight = next;
        views.getToggles().forEach(t -> t.setSelected(next.equals(t.getUserData())));
        fill();
    }

    /// A toggle for each report of the line that has any row.
    private void offerReports(JobModel.Look look) {
        List<LineEffect.Counted> reports = look.reports(line);
        boolean gone = !sight.name().isEmpty()
                && reports.stream().noneMatch(r -> r.name().equals(sight.name()));
        if (gone) {
            sight = Sight.of(View.ALL);
        }
        toggles.getChildren().stream()
                .filter(ToggleButton.class::isInstance)
                .map(ToggleButton.class::cast)
                .filter(t -> !((Sight) t.getUserData()).name().isEmpty())
                .toList()
                .forEach(t -> {
                    t.setToggleGroup(null);
                    toggles.getChildren().remove(t);
                });
        for (LineEffect.Counted report : reports) {
            String words = Character.toUpperCase(report.name().charAt(0))
                    + report.name().substring(1).replace('_', ' ');
            ToggleButton toggle =
                    toggle(new Sight(View.ALL, report.name()), words + String.format(" %,d", report.rows()));
            toggle.setTooltip(new Tooltip(report.sentence()));
            toggles.getChildren().add(toggle);
        }
        views.getToggles().forEach(t -> t.setSelected(sight.equals(t.getUserData())));
    }

    /// Rows as of a line, counted from 1.
    void show(JobModel.Look look, int chosen, IntFunction<String> words) {
        sentences = words;
        backToRowsQuietly();
        shown = look;
        line = Math.min(chosen, look.planned().plan().steps().size());
        message.setVisible(message.isVisible() && !message.getStyleClass().contains("problem"));
        fill();
    }

    /// Nothing, because of a problem.
    void showNothing(String problem) {
        shown = null;
        say(problem, true);
        offers.setVisible(false);
        String words = problem.isEmpty() ? "The rows stand here once a table is read." : "No rows to show.";
        grid.show(List.of(), Emphasis.NONE, new PagedRows(0, (_, _) -> {}), words);
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
        offerReports(look);
        labelToggles(effect);
        boolean repeats = effect.flatMap(LineEffect::repeats).isPresent();
        spread.setVisible(isSample());
        spread.setSelected(model.isSpread());
        asOf.setText("as of line " + line + (sight.view() == View.LEAVING && repeats ? ", by group" : ""));
        offers.setVisible(false);
        offerLines(look);
        if (other > 0) {
            views.selectToggle(null);
            showBoth(look);
            return;
        }
        if (sight.view() == View.LOST && effect.filter(e -> e.valuesLost() > 0).isPresent()) {
            int asked = line;
            model.lost(look, asked, LineOffers.MOST_LOST, values -> {
                boolean late = shown != look || line != asked || sight.view() != View.LOST;
                if (!late) {
                    offers.lost(look, line, values);
                    showRows(look, new Emphasis(Set.of(), columnsOf(values)));
                }
            });
        } else {
            if (sight.name().equals(NEAR_MISSES)) {
                int asked = line;
                model.mendings(editing.shelf(), look, asked, found -> {
                    if (shown == look && line == asked && sight.name().equals(NEAR_MISSES)) {
                        offers.mendings(asked, found);
                    }
                });
            }
            showRows(look, new Emphasis(sight.view() == View.CHANGED ? look.computedAt(line) : Set.of(), List.of()));
        }
    }

    private static final String NEAR_MISSES = "near_misses";

    private static List<String> columnsOf(List<LostValue> values) {
        return values.stream().map(LostValue::column).distinct().toList();
    }

    /// Brings a column into view.
    void showColumn(String column) {
        grid.getColumns().stream()
                .filter(c -> String.valueOf(c.getUserData()).startsWith(column + " "))
                .findFirst()
                .ifPresent(grid::chooseColumn);
    }

    /// The rows of the view in hand.
    private void showRows(JobModel.Look look, Emphasis emphasis) {
        String empty =
                switch (sight.view()) {
                    case ALL -> "No rows at this line.";
                    case CHANGED -> "This line changes no cell.";
                    case LEAVING -> "No row leaves at this line.";
                    case ADDED -> "No row is added at this line.";
                    case LOST -> "No value is lost at this line.";
                };
        Sight asked = sight;
        int at = line;
        model.rows(look, line, asked, rows -> {
            if (shown != look || line != at || !sight.equals(asked)) {
                return;
            }
            PagedRows none = new PagedRows(0, (_, _) -> {});
            String words = rows.isPresent() ? empty : rows.problems().getFirst().sentence();
            grid.show(look.columnsOf(at, asked), emphasis, rows.value().orElse(none), words);
            rows.value().ifPresent(r -> r.whenFirstCome(_ -> Platform.runLater(this::showWantedLife)));
        });
    }

    private void labelToggles(Optional<LineEffect> effect) {
        views.getToggles().forEach(t -> {
            Sight of = (Sight) t.getUserData();
            if (!of.name().isEmpty()) {
                return;
            }
            View each = of.view();
            long n = effect.map(e -> switch (each) {
                        case ALL -> 0L;
                        case CHANGED -> e.cellsChanged();
                        case LEAVING -> e.line() == 1 ? 0 : e.rowsGone();
                        case ADDED -> e.line() == 1 ? 0 : e.added();
                        case LOST -> e.valuesLost();
                    })
                    .orElse(0L);
            ToggleButton toggle = (ToggleButton) t;
            toggle.setText(n > 0 ? words(each) + String.format(" %,d", n) : words(each));
            // Rare ones take room only where there is something to see.
            boolean rare = each == View.ADDED || each == View.LOST;
            toggle.setVisible(!rare || n > 0 || sight.equals(of));
            toggle.setManaged(toggle.isVisible());
        });
    }

    private static String words(View view) {
        return switch (view) {
            case ALL -> "All rows";
            case CHANGED -> "Changed cells";
            case LEAVING -> "Leaving";
            case ADDED -> "Added";
            case LOST -> "Lost";
        };
    }
}
