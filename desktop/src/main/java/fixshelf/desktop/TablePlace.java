package fixshelf.desktop;

import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Kind;
import fixshelf.plan.Line;
import fixshelf.plan.Written;
import fixshelf.problem.Outcome;
import fixshelf.shelf.TableFixEdits;
import fixshelf.shelf.TableFixPage;
import fixshelf.type.Column;
import fixshelf.type.Type;
import fixshelf.work.Datasets;
import fixshelf.work.JobParity;
import fixshelf.work.Preview;
import fixshelf.work.TableTrial;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// A table fix: left its page with its lines as sentences, right a table before and after, and its cases.
final class TablePlace implements JobCard.Listener, LineKeys {
    private static final int CASE_ROWS = 5;

    private final Workbench workbench;
    private final Runnable changed;
    private final JobModel model;
    private final Label title = Ui.wrapped("", "title");
    private final Label about = Ui.wrapped("", "soft");
    private final Label sentence = Ui.wrapped("", "prose");
    private final GridPane parameters = new GridPane();
    private final JobCard card;
    private final AddLine add;
    private final VBox problems = new VBox(4);
    private final TextArea text = new TextArea();
    private final VBox sheet = Ui.column("sheet");
    private final VBox form;
    private final HBox buttons = Ui.row("buttons");
    private final ComboBox<String> datasets = new ComboBox<>();
    private final FlowPane arguments = new FlowPane(10, 6);
    private final ToggleGroup sights = new ToggleGroup();
    private final HBox toggles = Ui.row("state");
    private final Label message = Ui.wrapped("", "soft");
    private final RowsGrid grid = new RowsGrid();
    private final VBox cases = new VBox(10);
    private final FacingPages view;
    private final Map<String, Written> given = new LinkedHashMap<>();
    private Optional<JobModel.Trial> trial = Optional.empty();
    private @Nullable Path file;
    private Runnable leave = () -> {};
    private int chosen = 1;
    /// The number of lines after which the table is shown; 0 is before.
    private int shown = -1;

    private List<TableTrial.On> tables = List.of();
    private boolean asText;
    private boolean filling;

    TablePlace(Workbench workbench, Runnable changed) {
        this.workbench = workbench;
        this.changed = changed;
        this.model = new JobModel(workbench.background());
        this.card = new JobCard(workbench, this);
        parameters.setHgap(16);
        parameters.setVgap(4);
        add = new AddLine(this::offeredLines, this::addLine);
        text.getStyleClass().add("mono");
        text.setAccessibleText("The page as text");
        text.setPrefRowCount(32);
        VBox.setVgrow(text, Priority.ALWAYS);
        text.textProperty().addListener((_, _, now) -> {
            if (!filling && asText) {
                edit(now);
            }
        });
        form = new VBox(
                8,
                title,
                about,
                sentence,
                Ui.label("Parameters", "heading"),
                parameters,
                Ui.label("Lines", "heading"),
                card.view(),
                add.view());
        sheet.getChildren().add(form);
        VBox left = new VBox(Ui.page(sheet), buttons);
        left.addEventFilter(KeyEvent.KEY_PRESSED, this::lineKey);
        datasets.setAccessibleText("Dataset");
        datasets.valueProperty().addListener((_, _, _) -> {
            if (!filling) {
                begin();
                look();
            }
        });
        grid.setPrefHeight(300);
        grid.setMinHeight(160);
        Command keep = Command.of("Make a case of the first rows", "Shortcut+K", this::keepCase);
        VBox right = Ui.column(
                "sheet",
                Ui.label("On your data", "heading"),
                Ui.row("state", Ui.label("on"), datasets),
                arguments,
                toggles,
                message,
                grid,
                Ui.row("state", Ui.button(keep)),
                Ui.label("Cases", "heading"),
                cases);
        VBox.setVgrow(grid, Priority.NEVER);
        view = new FacingPages(left, Ui.page(right));
        view.setDividerPositions(0.4);
        workbench.shelfProperty().addListener(_ -> fill());
        workbench.tableResultsProperty().addListener(_ -> fillCases());
    }

    Region view() {
        return view;
    }

    void onLeave(Runnable run) {
        leave = run;
    }

    void show(Path page) {
        file = page;
        chosen = 1;
        shown = -1;
        asText = false;
        trial = Optional.empty();
        filling = true;
        tables = page().map(p -> TableTrial.tables(workbench.shelf(), p.name())).orElse(List.of());
        datasets.getItems().setAll(tables.stream().map(TableTrial.On::name).toList());
        datasets.getSelectionModel().selectFirst();
        filling = false;
        begin();
        fill();
        look();
    }

    void focus() {
        card.focus(chosen);
    }

    /// The table that is chosen to try it on.
    private Optional<TableTrial.On> on() {
        int at = datasets.getSelectionModel().getSelectedIndex();
        return at < 0 || at >= tables.size() ? Optional.empty() : Optional.of(tables.get(at));
    }

    private Optional<TableFixPage> page() {
        return file == null ? Optional.empty() : workbench.table(file);
    }

    private void edit(String now) {
        if (file != null && !filling) {
            workbench.edit(file, now);
            look();
        }
    }

    /// Fills the blanks of the fix with what they may begin with, on the chosen dataset.
    private void begin() {
        given.clear();
        Optional<Line> call = on().flatMap(TableTrial.On::call);
        if (call.isPresent()) {
            given.putAll(call.get().blanks());
            fillArguments();
            return;
        }
        List<Column> columns = columns();
        Kind.Choices choices = new Kind.Choices(columns, sourcesBefore(1));
        page().ifPresent(p -> {
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
    }

    private List<Column> columns() {
        return on().flatMap(o -> Datasets.open(workbench.shelf(), o.name()).value())
                .map(f -> f.columns())
                .orElse(List.of());
    }

    private void fillArguments() {
        arguments.getChildren().clear();
        page().ifPresent(p -> p.parameters().forEach(blank -> {
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

    private void say(String words, boolean wrong) {
        message.setText(words);
        Ui.mark(message, "problem", wrong);
    }

    /// Takes a problem back that is mended; other words stay.
    private void unsay() {
        if (message.getStyleClass().contains("problem")) {
            say("", false);
        }
    }

    private void look() {
        Optional<TableTrial.On> on = on();
        Optional<TableFixPage> page = page();
        if (on.isEmpty() || page.isEmpty()) {
            say("There is no dataset yet to try it on; its cases are below.", false);
            return;
        }
        model.trial(workbench.shelf(), page.get(), on.get(), Map.copyOf(given), found -> {
            trial = found.value();
            if (!found.isPresent()) {
                say(found.problems().getFirst().sentence(), true);
                grid.show(List.of(), RowsGrid.Emphasis.NONE, new PagedRows(0, (_, _) -> {}), "No rows to show.");
            } else {
                found.problems().stream().findFirst().ifPresentOrElse(p -> say(p.sentence(), true), this::unsay);
                showRows();
            }
            fill();
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
        Set<Integer> offered = new TreeSet<>(List.of(0, at, Math.min(chosen, last), last));
        for (int lines : offered) {
            ToggleButton toggle =
                    new ToggleButton(lines == 0 ? "Before" : lines == last ? "At the end" : "After line " + lines);
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

    private void fill() {
        Optional<TableFixPage> found = page();
        fillButtons();
        changed.run();
        if (found.isEmpty()) {
            return;
        }
        TableFixPage page = found.get();
        filling = true;
        if (asText) {
            if (!text.getText().equals(page.source().text())) {
                text.setText(page.source().text());
            }
            only(text, problems);
        } else {
            only(form, problems);
        }
        filling = false;
        title.setText(page.title());
        long used = workbench.shelf().usersOf(page.name()).size();
        about.setText("a table fix · " + page.version()
                + (workbench.isDraft(page.file()) ? ", being written" : "")
                + (used == 0 ? "" : " · used in " + used)
                + " · called " + page.name());
        sentence.setText(page.summary() + "\n“" + page.sentence() + "”");
        parameters.getChildren().clear();
        for (int i = 0; i < page.parameters().size(); i++) {
            Blank<?> blank = page.parameters().get(i);
            String fallback = blank.fallback()
                    .map(f -> ", " + say(blank, f) + " if left out")
                    .orElse("");
            Label name = Ui.label(blank.name(), "mono");
            name.setMinWidth(Region.USE_PREF_SIZE);
            Label kind = Ui.wrapped(blank.kind().name() + fallback);
            kind.setMinWidth(90);
            kind.setMaxWidth(130);
            parameters.addRow(i, name, kind, Ui.wrapped(blank.about(), "soft"));
        }
        chosen = Math.clamp(chosen, 1, Math.max(1, page.lines().size()));
        card.show(TableFixEdits.asLines(page), chosen, trial.map(t -> seen(t)));
        problems.getChildren()
                .setAll(page.problems().stream()
                        .limit(4)
                        .map(p -> (Node) Ui.wrapped("▲ " + p.sentence(), "problem", "small"))
                        .toList());
        fillCases();
    }

    /// Puts these on the left page; what stands there already keeps the focus.
    private void only(Node... nodes) {
        if (!sheet.getChildren().equals(List.of(nodes))) {
            sheet.getChildren().setAll(nodes);
        }
    }

    private static <T> String say(Blank<T> blank, Written written) {
        return blank.kind().say(written);
    }

    /// What was found, with the effects of the lines of the fix.
    private static JobModel.Look seen(JobModel.Trial trial) {
        JobModel.Look last = trial.looks().getLast();
        return new JobModel.Look(last.planned(), trial.effects(), List.of(), last.rows(), last.total(), last.millis());
    }

    private void fillButtons() {
        buttons.getChildren().clear();
        for (Command command : commands()) {
            boolean button = !command.text().startsWith("Make a case");
            if (button) {
                buttons.getChildren()
                        .add(Ui.button(command, buttons.getChildren().isEmpty() ? "strong" : "usual"));
            }
        }
    }

    List<Command> commands() {
        return List.of(
                Command.of("Keep", "Shortcut+S", this::keep).when(() -> file != null && workbench.isDraft(file)),
                Command.of("Page as text", "Shortcut+T", () -> {
                            asText = !asText;
                            fill();
                        })
                        .when(() -> file != null),
                Command.of("Undo", "Shortcut+Alt+Z", () -> {
                            workbench.undo(file);
                            look();
                        })
                        .when(() -> file != null && workbench.canUndo(file)),
                Command.of("Make a case of the first rows", "Shortcut+K", this::keepCase)
                        .when(() -> trial.isPresent()),
                Command.of("Back to the shelf", "Esc", () -> leave.run()));
    }

    private void keep() {
        Outcome<Path> kept = workbench.keep(Objects.requireNonNull(file));
        say(kept.isPresent() ? "Kept." : kept.problems().getFirst().sentence(), !kept.isPresent());
        fill();
    }

    /// A case of the first rows of the dataset, and of what comes out of them.
    private void keepCase() {
        Optional<TableFixPage> found = page();
        if (found.isEmpty() || on().isEmpty()) {
            return;
        }
        TableFixPage page = found.get();
        model.caseOf(workbench.shelf(), page, on().get(), Map.copyOf(given), CASE_ROWS, made -> {
            if (!made.isPresent()) {
                say(made.problems().getFirst().sentence(), true);
                return;
            }
            Map<String, String> said = new LinkedHashMap<>();
            page.parameters().forEach(b -> Optional.ofNullable(given.get(b.name()))
                    .ifPresent(w -> said.put(b.name(), say(b, w))));
            edit(TableFixEdits.addCase(
                    page,
                    "Rows of " + datasets.getValue(),
                    said,
                    made.get().given(),
                    made.get().gives()));
            say("A case was added; look at it before it is kept.", false);
        });
    }

    private void fillCases() {
        cases.getChildren().clear();
        page().ifPresent(p -> {
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

    private List<NewLines.Offered> offeredLines() {
        List<Column> known = columnsBefore(chosen + 1);
        List<Column> columns = known.isEmpty() ? columns() : known;
        return NewLines.offered(workbench.shelf(), columns);
    }

    private void addLine(Line line) {
        page().filter(p -> !p.lines().isEmpty()).ifPresent(p -> {
            String now = TableFixEdits.insertLine(p, chosen, line);
            chosen++;
            edit(now);
            card.focus(chosen);
        });
    }

    @Override
    public int chosenLine() {
        return chosen;
    }

    @Override
    public int lines() {
        return page().map(p -> p.lines().size()).orElse(0);
    }

    @Override
    public int fixedLines() {
        return 0;
    }

    @Override
    public void choose(int line) {
        chosen(line);
        card.focus(line);
    }

    @Override
    public void exchange(int upper, int moved) {
        page().ifPresent(p -> {
            String now = TableFixEdits.exchangeWithNext(p, upper - 1);
            chosen = moved;
            edit(now);
        });
    }

    @Override
    public void takeOut() {
        page().ifPresent(p -> {
            int index = chosen - 1;
            chosen = Math.max(1, chosen - 1);
            edit(TableFixEdits.removeLine(p, index));
        });
    }

    @Override
    public void chosen(int line) {
        chosen = line;
        shown = line;
        page().ifPresent(p -> card.show(TableFixEdits.asLines(p), chosen, trial.map(t -> seen(t))));
        showRows();
    }

    @Override
    public void changed(int index, Line line) {
        chosen = index + 1;
        page().ifPresent(p -> edit(TableFixEdits.replaceLine(p, index, line)));
    }

    @Override
    public void fixAsked(String name) {
        leave.run();
    }

    @Override
    public List<Column> columnsBefore(int line) {
        List<Column> all = new ArrayList<>();
        page().ifPresent(p -> p.parameters().stream()
                .filter(b -> b.kind() == ColumnKinds.COLUMN || b.kind() == ColumnKinds.COLUMNS)
                .forEach(b -> all.add(new Column("{" + b.name() + "}", Type.TEXT))));
        trial.ifPresent(t -> {
            int at = Math.min(line - 1, t.looks().size() - 1);
            List<String> callers =
                    t.looks().getFirst().columnsAt(1).stream().map(Column::name).toList();
            if (at > 0) {
                t.looks().get(at).columnsAt(2).stream()
                        .filter(c -> !callers.contains(c.name()))
                        .forEach(all::add);
            }
        });
        return all;
    }

    private static List<Column> columnsOf(JobModel.Trial trial, int lines) {
        return trial.looks().get(lines).planned().plan().columns();
    }

    @Override
    public List<String> sourcesBefore(int line) {
        return workbench.shelf().datasets().stream().map(d -> d.name()).toList();
    }

    String status() {
        return "DuckDB, inside · "
                + trial.map(t -> Ui.count(t.looks().getLast().rows(), "row", "rows") + " tried")
                        .orElse("not tried yet");
    }

    String keys() {
        return "↑↓ line · Alt+↑↓ move it · Del take it out · Ctrl+K rows to a case · Ctrl+S keep · Esc back";
    }
}
