package fixshelf.desktop.shelf;

import fixshelf.desktop.jobs.JobModel;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.PagedRows;
import fixshelf.desktop.parts.RowsGrid;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Kind;
import fixshelf.plan.Line;
import fixshelf.plan.Written;
import fixshelf.problem.Outcome;
import fixshelf.shelf.TableFixEdits;
import fixshelf.shelf.TableFixPage;
import fixshelf.type.Column;
import fixshelf.work.JobParity;
import fixshelf.work.Preview;
import fixshelf.work.TableTrial;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// A table fix on your own data: what it is tried on and with which arguments, the table before and after its lines,
/// and
/// its cases.
final class TableTryPage {
    private static final int CASE_ROWS = 5;

    private final Workbench workbench;
    private final Supplier<Optional<TableFixPage>> page;
    private final Consumer<String> edit;
    private final Runnable tried;
    private final JobModel model;
    private final ComboBox<String> datasets = new ComboBox<>();
    private final Label on = Ui.label("on");
    private final FlowPane arguments = new FlowPane(10, 6);
    private final ToggleGroup sights = new ToggleGroup();
    private final HBox toggles = Ui.row("state");
    private final Label message = Ui.wrapped("", "soft");
    private final RowsGrid grid = new RowsGrid();
    private final VBox cases = new VBox(10);
    private final Region view;
    private final Map<String, Written> given = new LinkedHashMap<>();
    private List<TableTrial.On> tables = List.of();
    private List<Column> columns = List.of();
    private Optional<JobModel.Trial> trial = Optional.empty();
    /// The number of lines after which the table is shown; 0 is before, -1 the end.
    private int shown = -1;

    private int chosen = 1;
    private boolean filling;

    /// @param page the fix
    /// @param edit takes a new text of its page
    /// @param tried is told when it was tried
    TableTryPage(Workbench workbench, Supplier<Optional<TableFixPage>> page, Consumer<String> edit, Runnable tried) {
        this.workbench = workbench;
        this.page = page;
        this.edit = edit;
        this.tried = tried;
        this.model = new JobModel(workbench.background());
        datasets.setAccessibleText("Dataset");
        datasets.valueProperty().addListener((_, _, _) -> {
            if (!filling) {
                shown = -1;
                beginBlanks();
            }
        });
        grid.setPrefHeight(300);
        grid.setMinHeight(160);
        Command keep = Command.of("Make a case of the first rows", "Shortcut+K", this::keepCase);
        view = Ui.page(Ui.column(
                "sheet",
                Ui.label("On your data", "heading"),
                Ui.row("state", on, datasets),
                arguments,
                toggles,
                message,
                grid,
                Ui.row("state", Ui.button(keep)),
                Ui.label("Cases", "heading"),
                cases));
        VBox.setVgrow(grid, Priority.NEVER);
        workbench.tableResultsProperty().addListener(_ -> fillCases());
    }

    Region view() {
        return view;
    }

    /// What was found when it was tried last.
    Optional<JobModel.Trial> trial() {
        return trial;
    }

    /// Begins with another fix.
    void begin() {
        shown = -1;
        chosen = 1;
        trial = Optional.empty();
        filling = true;
        tables = page.get()
                .map(p -> TableTrial.tables(workbench.shelf(), p.name()))
                .orElse(List.of());
        on.setText(loads() ? "called" : "on");
        datasets.getItems().setAll(tables.stream().map(TableTrial.On::name).toList());
        datasets.getSelectionModel().selectFirst();
        filling = false;
        beginBlanks();
    }

    private boolean loads() {
        return page.get().filter(TableFixPage::isLoader).isPresent();
    }

    /// Shows the table after a line.
    void showAfter(int line) {
        chosen = line;
        shown = line;
        showRows();
    }

    /// The table that is chosen to try it on.
    private Optional<TableTrial.On> on() {
        int at = datasets.getSelectionModel().getSelectedIndex();
        return at < 0 || at >= tables.size() ? Optional.empty() : Optional.of(tables.get(at));
    }

    static List<Column> columnsOf(JobModel.Trial trial, int lines) {
        return trial.looks().get(lines).planned().plan().columns();
    }

    /// Fills the blanks of the fix: as the job that calls it does, or with what they may begin with on a dataset. Then
    /// it is tried.
    private void beginBlanks() {
        given.clear();
        columns = List.of();
        Optional<Line> call = on().flatMap(TableTrial.On::call);
        if (call.isPresent()) {
            given.putAll(call.get().blanks());
            fillArguments();
            look();
        } else if (on().isPresent()) {
            model.columns(workbench.shelf(), on().get().name(), this::beginOn);
        } else {
            fillArguments();
            look();
        }
    }

    private void beginOn(List<Column> found) {
        columns = found;
        Kind.Choices choices = new Kind.Choices(
                columns,
                workbench.shelf().datasets().stream().map(d -> d.name()).toList());
        page.get().ifPresent(p -> {
            int column = 0;
            for (Blank<?> blank : p.parameters()) {
                Optional<Written> same = columns.stream()
                        .filter(c -> c.name().equalsIgnoreCase(blank.name()))
                        .findFirst()
                        .flatMap(c -> blank.kind().typed(c.name()).value());
                Optional<Written> next = blank.kind() == ColumnKinds.COLUMN && column < columns.size()
                        ? Optional.of(Written.word(columns.get(column++).name()))
                        : Optional.empty();
                same.or(blank::fallback)
                        .or(() -> next)
                        .or(() -> blank.kind().beginning(choices))
                        .ifPresent(w -> given.put(blank.name(), w));
            }
        });
        fillArguments();
        look();
    }

    /// The columns of the dataset that is chosen; none while they are looked at.
    List<Column> columns() {
        return columns;
    }

    private void fillArguments() {
        arguments.getChildren().clear();
        page.get().ifPresent(p -> p.parameters().forEach(blank -> {
            String now = Optional.ofNullable(given.get(blank.name()))
                    .map(w -> blank.kind().say(w))
                    .orElse("");
            TextField field = new TextField(now);
            field.getStyleClass().add("inline-edit");
            field.setPrefColumnCount(Math.clamp(now.length() + 2L, 8, 28));
            field.setAccessibleText(blank.name());
            Runnable commit = () -> {
                Outcome<Written> typed = blank.kind().typed(field.getText());
                boolean same = typed.value().equals(Optional.ofNullable(given.get(blank.name())));
                if (typed.isPresent() && !same) {
                    given.put(blank.name(), typed.get());
                    look();
                } else if (!typed.isPresent()) {
                    say(blank.name() + ": " + typed.problems().getFirst().sentence(), true);
                }
            };
            field.setOnAction(_ -> commit.run());
            field.focusedProperty().addListener((_, _, focused) -> {
                if (!focused) {
                    commit.run();
                }
            });
            arguments.getChildren().add(Ui.row("state", Ui.label(blank.name(), "mono"), field));
        }));
    }

    void say(String words, boolean wrong) {
        message.setText(words);
        Ui.mark(message, "problem", wrong);
    }

    /// Takes a problem back that is mended; other words stay.
    private void unsay() {
        if (message.getStyleClass().contains("problem")) {
            say("", false);
        }
    }

    void look() {
        Optional<TableTrial.On> on = on();
        Optional<TableFixPage> fix = page.get();
        if (on.isEmpty() || fix.isEmpty()) {
            say("There is no dataset yet to try it on; its cases are below.", false);
            return;
        }
        model.trial(workbench.shelf(), fix.get(), on.get(), Map.copyOf(given), found -> {
            trial = found.value();
            if (!found.isPresent()) {
                say(found.problems().getFirst().sentence(), true);
                grid.show(List.of(), RowsGrid.Emphasis.NONE, new PagedRows(0, (_, _) -> {}), "No rows to show.");
            } else {
                found.problems().stream().findFirst().ifPresentOrElse(p -> say(p.sentence(), true), this::unsay);
                showRows();
            }
            tried.run();
        });
    }

    /// The table before, after a number of lines, or at the end.
    private void showRows() {
        trial.ifPresent(t -> {
            int at =
                    shown < 0 ? t.looks().size() - 1 : Math.min(shown, t.looks().size() - 1);
            JobModel.Look look = t.looks().get(at);
            int line = look.planned().plan().steps().size();
            model.rows(
                    look,
                    line,
                    JobModel.Sight.of(Preview.View.ALL),
                    rows -> grid.show(
                            look.columnsAt(line),
                            new RowsGrid.Emphasis(Set.of(), first(t, look.columnsAt(line))),
                            rows.value().orElse(new PagedRows(0, (_, _) -> {})),
                            rows.isPresent()
                                    ? "No rows come out."
                                    : rows.problems().getFirst().sentence()));
            fillToggles(t, at);
        });
    }

    /// The columns that the fix is about come first: those that it was given, then those that it made.
    private List<String> first(JobModel.Trial now, List<Column> columns) {
        List<String> callers = columnsOf(now, 0).stream().map(Column::name).toList();
        List<String> about = new ArrayList<>();
        given.values()
                .forEach(w -> w.texts().orElse(List.of(w instanceof Written.Word(String word) ? word : "")).stream()
                        .filter(callers::contains)
                        .forEach(about::add));
        columns.stream().map(Column::name).filter(c -> !callers.contains(c)).forEach(about::add);
        return about;
    }

    private void fillToggles(JobModel.Trial now, int at) {
        toggles.getChildren().clear();
        int last = now.looks().size() - 1;
        int loads = loads() ? 1 : 0;
        Set<Integer> offered = new TreeSet<>(List.of(0, at, Math.min(chosen, last), last));
        for (int lines : offered) {
            ToggleButton toggle = new ToggleButton(
                    lines == 0
                            ? loads > 0 ? "As read" : "Before"
                            : lines == last ? "At the end" : "After line " + (lines + loads));
            toggle.getStyleClass().setAll("toggle");
            toggle.setToggleGroup(sights);
            toggle.setSelected(lines == at);
            toggle.setOnAction(_ -> {
                shown = lines;
                showRows();
            });
            toggles.getChildren().add(toggle);
        }
    }

    /// A case of the first rows of the dataset, and of what comes out of them.
    void keepCase() {
        Optional<TableFixPage> found = page.get();
        if (found.isEmpty() || on().isEmpty()) {
            return;
        }
        TableFixPage fix = found.get();
        model.caseOf(workbench.shelf(), fix, on().get(), Map.copyOf(given), CASE_ROWS, made -> {
            if (!made.isPresent()) {
                say(made.problems().getFirst().sentence(), true);
                return;
            }
            Map<String, String> said = new LinkedHashMap<>();
            fix.parameters().forEach(b -> Optional.ofNullable(given.get(b.name()))
                    .ifPresent(w -> said.put(b.name(), TablePlace.say(b, w))));
            edit.accept(TableFixEdits.addCase(
                    fix,
                    (loads() ? "Called " : "Rows of ") + datasets.getValue(),
                    said,
                    made.get().given(),
                    made.get().gives()));
            say("A case was added; look at it before it is kept.", false);
        });
    }

    void fillCases() {
        cases.getChildren().clear();
        page.get().ifPresent(p -> {
            List<JobParity> results = workbench.resultsOf(p);
            for (int i = 0; i < p.cases().size(); i++) {
                Optional<JobParity> result = i < results.size() ? Optional.of(results.get(i)) : Optional.empty();
                cases.getChildren().add(TableCases.of(p.cases().get(i), result));
            }
            if (p.cases().isEmpty()) {
                cases.getChildren().add(Ui.wrapped("No case yet. Make one of the rows above, or write one.", "soft"));
            }
        });
    }
}
