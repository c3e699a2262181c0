package fixshelf.desktop.shelf;

import fixshelf.check.CaseResult;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.RowsGrid;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.plan.Written;
import fixshelf.problem.Outcome;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.FixEdits;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.JobPage;
import fixshelf.source.SourceFile;
import fixshelf.type.Amounts;
import fixshelf.type.Column;
import fixshelf.type.Literals;
import fixshelf.work.Datasets;
import fixshelf.work.Evidence;
import fixshelf.work.Preview;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.collections.FXCollections;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// What a fix does: your data before and after with every intermediate value, and its cases.
public final class EvidencePage {
    private final Workbench workbench;
    private final Consumer<String> edit;
    private final Runnable changed;
    private final ComboBox<String> datasets = new ComboBox<>();
    private final ComboBox<String> columns = new ComboBox<>();
    private final Label counts = Ui.wrapped("", "soft");
    private final TableView<Evidence.Sample> table = new TableView<>();
    private final GridPane cases = new GridPane();
    private final Map<String, Preview> previews = new HashMap<>();
    private final PatternStrip helper;
    private final VBox sheet;
    private @Nullable Path file;
    private @Nullable Evidence shown;
    private String status = "no data looked at";
    private String caseKey = "";
    private boolean filling;

    EvidencePage(Workbench workbench, Consumer<String> edit, Runnable changed) {
        this.workbench = workbench;
        workbench.background().atEnd(() -> previews.values().forEach(Preview::close));
        this.edit = edit;
        this.changed = changed;
        datasets.setAccessibleText("Dataset");
        columns.setAccessibleText("Column");
        columns.setId("evidence-column");
        datasets.setId("evidence-dataset");
        datasets.valueProperty().addListener(_ -> stage());
        columns.valueProperty().addListener(_ -> {
            look();
            helper().look();
        });
        table.setPlaceholder(Ui.label("Choose a dataset.", "soft"));
        table.setPrefHeight(330);
        table.setMinHeight(200);
        table.setAccessibleText("Values before and after");
        cases.setHgap(6);
        cases.setVgap(2);
        Command keep = Command.of("Make a case of the chosen value", "Shortcut+K", this::keepAsCase);
        helper = new PatternStrip(this::page, this::looked, edit);
        helper.view().setVisible(false);
        helper.view().setManaged(false);
        sheet = Ui.column(
                "sheet",
                helper.view(),
                Ui.label("On your data", "heading"),
                Ui.row("state", Ui.label("on"), columns, Ui.label("of"), datasets, counts),
                table,
                Ui.row("state", Ui.button(keep)),
                Ui.label("Cases", "heading"),
                cases);
        VBox.setVgrow(table, Priority.NEVER);
    }

    Region view() {
        return Ui.page(sheet);
    }

    String status() {
        return status;
    }

    public PatternStrip helper() {
        return helper;
    }

    /// Shows the pattern helper, or hides it.
    public void turnHelper() {
        boolean shown = !helper.view().isVisible();
        helper.view().setVisible(shown);
        helper.view().setManaged(shown);
        if (shown) {
            helper.start(workbench.background());
        }
    }

    /// The data and the column that is looked at now, if there is one.
    private Optional<PatternStrip.Data> looked() {
        Preview preview = previews.get(datasets.getValue());
        String column = columns.getValue();
        return preview == null || column == null
                ? Optional.empty()
                : Optional.of(new PatternStrip.Data(preview, column));
    }

    void show(Path fix) {
        file = fix;
        filling = true;
        datasets.getItems()
                .setAll(workbench.shelf().datasets().stream()
                        .map(DatasetPage::name)
                        .toList());
        filling = false;
        if (datasets.getValue() == null && !datasets.getItems().isEmpty()) {
            datasets.setValue(firstDataset());
        }
        if (datasets.getItems().isEmpty()) {
            counts.setText("The shelf has no dataset yet: drop a file on the window, or write one into datasets/.");
        }
        fillCases(true);
        look();
    }

    /// The dataset that most jobs apply the fix to; else the one that most jobs read.
    private String firstDataset() {
        String name = page().map(FixPage::name).orElse("");
        List<JobPage> jobs = workbench.shelf().jobs();
        return Stream.of(jobs.stream().filter(j -> applies(j, name)), jobs.stream())
                .flatMap(some -> {
                    List<String> read = some.flatMap(j -> dataset(j).stream()).toList();
                    return datasets.getItems().stream()
                            .filter(read::contains)
                            .max(Comparator.comparingInt(d -> Collections.frequency(read, d)))
                            .stream();
                })
                .findFirst()
                .orElse(datasets.getItems().getFirst());
    }

    private static Optional<String> dataset(JobPage job) {
        return job.firstLine().map(l -> l.blanks().get("source") instanceof Written.Word(String read) ? read : "");
    }

    private static boolean applies(JobPage job, String fix) {
        return job.lines().stream().anyMatch(l -> l.line().call().equalsIgnoreCase(fix));
    }

    void refresh() {
        fillCases(false);
        look();
    }

    private Optional<FixPage> page() {
        return file == null ? Optional.empty() : workbench.fix(file);
    }

    private void stage() {
        String name = datasets.getValue();
        if (filling || name == null) {
            return;
        }
        Optional<Preview> known = Optional.ofNullable(previews.get(name));
        counts.setText("reading " + name + " …");
        workbench
                .background()
                .ask(
                        Request.now("evidence", "reading " + name),
                        () -> Datasets.open(workbench.shelf(), name).then(source -> known.filter(k -> k.isOf(source))
                                .map(Outcome::of)
                                .orElseGet(() -> Preview.open(source))),
                        opened -> {
                            if (opened.isPresent()) {
                                known.filter(k -> k != opened.get()).ifPresent(Preview::close);
                                previews.put(name, opened.get());
                                if (name.equals(datasets.getValue())) {
                                    fillColumns(opened.get());
                                }
                            } else {
                                counts.setText(opened.problems().getFirst().sentence());
                            }
                        });
    }

    private void fillColumns(Preview preview) {
        filling = true;
        SourceFile source = preview.source();
        String before = columns.getValue();
        List<String> names = source.columns().stream().map(Column::name).toList();
        columns.getItems().setAll(names);
        String wanted = page().flatMap(
                        p -> names.stream().filter(n -> usedWith(p.name(), n)).findFirst())
                .orElse(names.getFirst());
        columns.setValue(names.contains(before) ? before : wanted);
        filling = false;
        look();
    }

    /// A column that a job applies the fix to is the one to look at first.
    private boolean usedWith(String fix, String column) {
        return workbench.shelf().jobs().stream()
                .flatMap(j -> j.lines().stream())
                .map(JobPage.PlacedLine::line)
                .filter(l -> l.call().equalsIgnoreCase(fix))
                .flatMap(l -> l.written("columns").flatMap(Written::texts).stream())
                .anyMatch(names -> names.stream().anyMatch(column::equalsIgnoreCase));
    }

    private void look() {
        Preview preview = previews.get(datasets.getValue());
        String column = columns.getValue();
        Optional<Definition> fix =
                page().flatMap(p -> workbench.shelf().definition(p).value());
        if (filling || preview == null || column == null || fix.isEmpty()) {
            return;
        }
        List<Expr.Literal> arguments = arguments(fix.get());
        workbench
                .background()
                .ask(
                        new Request("evidence", "looking at your data", 60),
                        () -> {
                            long start = System.nanoTime();
                            Outcome<Evidence> evidence = Evidence.look(preview, column, fix.get(), arguments);
                            return Map.entry(evidence, (System.nanoTime() - start) / 1_000_000);
                        },
                        found -> showEvidence(found.getKey(), preview, found.getValue()));
    }

    /// The arguments of the first case that gives any, so that a required one has a value.
    private List<Expr.Literal> arguments(Definition fix) {
        List<Expr.Literal> arguments = new ArrayList<>();
        for (Parameter parameter : fix.parameters().subList(1, fix.parameters().size())) {
            Optional<Expr.Literal> given = page().stream()
                    .flatMap(p -> p.cases().stream())
                    .flatMap(c ->
                            Optional.ofNullable(
                                    c.arguments().get(parameter.name().toLowerCase(Locale.ROOT)))
                                    .stream())
                    .findFirst();
            arguments.add(parameter.fallback().or(() -> given).orElse(new Expr.Literal(null, parameter.type())));
        }
        return arguments;
    }

    private void showEvidence(Outcome<Evidence> outcome, Preview preview, long millis) {
        if (!outcome.isPresent()) {
            counts.setText(outcome.problems().getFirst().sentence());
            return;
        }
        Evidence evidence = outcome.get();
        shown = evidence;
        counts.setText(String.format("· %,d of %s change", evidence.changed(), Amounts.of(evidence.values(), "value"))
                + (evidence.lost() > 0 ? String.format(" · %,d become missing", evidence.lost()) : ""));
        boolean whole = preview.rows() == preview.staged() && preview.staged() < Preview.STAGED_ROWS;
        status = (whole ? "all " : "first ") + Amounts.of(preview.rows(), "row") + " · " + millis + " ms";
        List<String> now = table.getColumns().stream().map(TableColumn::getText).toList();
        List<String> next = new ArrayList<>(evidence.names());
        next.add("rows");
        if (!now.equals(next)) {
            table.getColumns().setAll(columnsFor(evidence.names()));
        }
        table.setItems(FXCollections.observableArrayList(evidence.samples()));
        changed.run();
    }

    private List<TableColumn<Evidence.Sample, ?>> columnsFor(List<String> names) {
        List<TableColumn<Evidence.Sample, ?>> all = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            int index = i;
            TableColumn<Evidence.Sample, Evidence.Sample> column = new TableColumn<>(names.get(i));
            column.setCellValueFactory(s -> new ReadOnlyObjectWrapper<>(s.getValue()));
            column.setCellFactory(_ -> new SampleCell(index));
            column.setPrefWidth(190);
            column.setSortable(false);
            all.add(column);
        }
        TableColumn<Evidence.Sample, Long> rows = new TableColumn<>("rows");
        rows.setCellValueFactory(s -> new ReadOnlyObjectWrapper<>(s.getValue().rows()));
        rows.setPrefWidth(70);
        rows.setSortable(false);
        all.add(rows);
        return all;
    }

    private void keepAsCase() {
        Evidence.Sample sample = table.getSelectionModel().getSelectedItem();
        Optional<FixPage> page = page();
        if (sample == null || page.isEmpty() || shown == null) {
            counts.setText("Choose a value in the table first.");
            return;
        }
        List<String> cells = new ArrayList<>();
        for (String column : FixEdits.heading(page.get())) {
            int at = shown.names().indexOf(column);
            cells.add(
                    column.equalsIgnoreCase("result")
                            ? Literals.print(sample.values().getLast())
                            : at == 0 ? Literals.print(sample.values().getFirst()) : given(page.get(), column));
        }
        edit.accept(FixEdits.addCase(page.get(), cells));
    }

    /// What a case says about a parameter that the value does not tell: nothing where it has a default.
    static String given(FixPage page, String column) {
        boolean optional =
                page.parameters().stream().anyMatch(p -> p.name().equalsIgnoreCase(column) && p.isOptional());
        return optional
                ? ""
                : page.cases().stream()
                        .flatMap(c -> Optional.ofNullable(c.arguments().get(column.toLowerCase(Locale.ROOT))).stream())
                        .findFirst()
                        .map(v -> Literals.print(v.value()))
                        .orElse("NULL");
    }

    private void fillCases(boolean force) {
        page().ifPresent(page -> {
            List<List<String>> rows = FixEdits.rows(page);
            String key = page.name() + FixEdits.heading(page) + rows.size();
            boolean typing = cases.getChildren().stream().anyMatch(Node::isFocused);
            if (force || !key.equals(caseKey) || !typing) {
                caseKey = key;
                caseRows(page, rows);
            }
            showResults();
        });
    }

    private void caseRows(FixPage page, List<List<String>> rows) {
        cases.getChildren().clear();
        List<String> heading = FixEdits.heading(page);
        for (int c = 0; c < heading.size(); c++) {
            cases.add(
                    Ui.label(
                            heading.get(c).equalsIgnoreCase("result") ? "expected" : heading.get(c),
                            "table-head",
                            "above-fields"),
                    c + 1,
                    0);
        }
        for (int r = 0; r < rows.size(); r++) {
            caseRow(r, rows.get(r), heading.size());
        }
        Button add = Ui.button(
                Command.of("+ case", "", () -> page().ifPresent(p -> {
                    List<String> cells = new ArrayList<>();
                    FixEdits.heading(p)
                            .forEach(h -> cells.add(
                                    p.parameters().stream()
                                                    .anyMatch(x -> x.name().equalsIgnoreCase(h) && x.isOptional())
                                            ? ""
                                            : "NULL"));
                    edit.accept(FixEdits.addCase(p, cells));
                })),
                "plain");
        add.setId("add-case");
        cases.add(add, 0, rows.size() + 1, 3, 1);
    }

    private void caseRow(int row, List<String> cells, int width) {
        Label state = Ui.label("…", "soft");
        state.setId("case-state-" + row);
        state.setMinWidth(58);
        cases.add(state, 0, row + 1);
        for (int c = 0; c < width; c++) {
            TextField field = new TextField(c < cells.size() ? cells.get(c) : "");
            field.getStyleClass().add("case-cell");
            field.setId("case-" + row + "-" + c);
            field.setPrefColumnCount(Math.max(8, Math.min(30, field.getText().length() + 1)));
            int column = c;
            field.focusedProperty().addListener((_, _, now) -> {
                if (!now) {
                    setCell(row, column, field.getText().strip());
                }
            });
            field.setOnAction(_ -> setCell(row, column, field.getText().strip()));
            cases.add(field, c + 1, row + 1);
        }
        Label got = Ui.label("", "mono", "fails");
        got.setId("case-got-" + row);
        cases.add(got, width + 1, row + 1);
        Button remove = Ui.button(
                Command.of("take out", "", () -> page().ifPresent(p -> edit.accept(FixEdits.removeCase(p, row)))),
                "plain",
                "small");
        remove.setMinWidth(Region.USE_PREF_SIZE);
        cases.add(remove, width + 2, row + 1);
    }

    private void setCell(int row, int column, String text) {
        page().ifPresent(p -> {
            List<List<String>> rows = FixEdits.rows(p);
            if (row < rows.size()
                    && (column >= rows.get(row).size()
                            || !rows.get(row).get(column).equals(text))) {
                List<String> cells = new ArrayList<>(rows.get(row));
                while (cells.size() < FixEdits.heading(p).size()) {
                    cells.add("");
                }
                cells.set(column, text);
                edit.accept(FixEdits.setCase(p, row, cells));
            }
        });
    }

    /// Marks each case by its result; a case whose page has problems has none.
    void showResults() {
        page().ifPresent(page -> {
            List<CaseResult> results = workbench.resultsOf(page);
            boolean fresh = page.cases().size() == FixEdits.rows(page).size();
            for (int r = 0; r < FixEdits.rows(page).size(); r++) {
                int row = r;
                Optional<CaseResult> result = fresh
                        ? results.stream()
                                .filter(x -> x.index() == row
                                        && x.example().equals(page.cases().get(row)))
                                .findFirst()
                        : Optional.empty();
                find("case-state-" + r).ifPresent(l -> {
                    l.setText(result.isEmpty() ? "…" : result.get().holds() ? "● holds" : "▲ fails");
                    l.getStyleClass().removeAll("soft", "holds", "fails");
                    l.getStyleClass()
                            .add(result.isEmpty() ? "soft" : result.get().holds() ? "holds" : "fails");
                });
                find("case-got-" + r)
                        .ifPresent(l -> l.setText(result.filter(x -> !x.holds())
                                .map(x -> "got " + x.got())
                                .orElse("")));
            }
        });
    }

    private Optional<Label> find(String id) {
        return cases.getChildren().stream()
                .filter(n -> Objects.equals(n.getId(), id) && n instanceof Label)
                .map(Label.class::cast)
                .findFirst();
    }

    private static final class SampleCell extends TableCell<Evidence.Sample, Evidence.Sample> {
        private final int index;

        SampleCell(int index) {
            this.index = index;
        }

        @Override
        protected void updateItem(Evidence.Sample sample, boolean empty) {
            super.updateItem(sample, empty);
            setGraphic(
                    empty || sample == null
                            ? null
                            : RowsGrid.text(sample.values().get(index)));
            boolean last = !empty && sample != null && index == sample.values().size() - 1;
            Ui.mark(this, "changed-cell", last && sample.changed());
        }
    }
}
