package fixshelf.desktop.shelf;

import fixshelf.check.CaseResult;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.FacingPages;
import fixshelf.desktop.parts.Place;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.language.tree.Definition;
import fixshelf.plan.Blank;
import fixshelf.problem.Problem;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixEdits;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.TableFixEdits;
import fixshelf.shelf.TableFixPage;
import fixshelf.work.JobParity;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.application.Platform;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import javafx.scene.control.Button;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// The catalogue, grouped by purpose, beside the page of the chosen fix; or the fix that is being written.
public final class ShelfPlace implements Place {
    /// A line of the catalogue: a heading or a fix.
    private sealed interface Entry {
        record Heading(String text) implements Entry {}

        record Fix(FixPage page) implements Entry {}

        record Table(TableFixPage page) implements Entry {}

        /// The file of its page; none of a heading.
        default Optional<Path> file() {
            return switch (this) {
                case Heading _ -> Optional.empty();
                case Fix(FixPage page) -> Optional.of(page.file());
                case Table(TableFixPage page) -> Optional.of(page.file());
            };
        }
    }

    private final Workbench workbench;
    /// In how many languages a fix can be said; a list cell asks often, and rendering takes a while.
    private final Map<Definition, Long> said = new IdentityHashMap<>();
    private final WritingPlace writing;
    private final TablePlace table;
    private final Runnable changed;
    private final ListView<Entry> catalogue = new ListView<>();
    private final ObservableList<Entry> entries = FXCollections.observableArrayList();
    private final Button change = Ui.button(Command.of("Change this fix", "Shortcut+E", this::write), "strong");
    private final ReaderPage reader;
    private final TakePage take;
    private final StackPane right = new StackPane();
    private final BorderPane whole = new BorderPane();
    private final FacingPages pages;
    private @Nullable Path chosen;
    private boolean isWriting;
    private boolean isTable;

    public ShelfPlace(Workbench workbench, WritingPlace writing, Runnable changed) {
        this.workbench = workbench;
        this.writing = writing;
        this.table = new TablePlace(workbench, changed);
        this.changed = changed;
        this.reader = new ReaderPage(workbench);
        this.take = new TakePage(workbench, this::show);
        catalogue.getStyleClass().add("catalogue");
        catalogue.setItems(entries);
        catalogue.setCellFactory(_ -> new EntryCell());
        catalogue.getSelectionModel().selectedItemProperty().addListener((_, _, e) -> choose(e));
        catalogue.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER) {
                write();
            }
        });
        catalogue.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) {
                write();
            }
        });
        VBox.setVgrow(catalogue, Priority.ALWAYS);
        HBox buttons = Ui.row("buttons");
        buttons.getChildren()
                .addAll(
                        change,
                        Ui.button(Command.of("New fix", "Shortcut+N", this::create)),
                        Ui.button(Command.of("New table fix", "Shortcut+Shift+N", this::createTable)),
                        Ui.button(Command.of("New loader", "Shortcut+Alt+N", this::createLoader)));
        catalogue.setPlaceholder(Ui.page(Ui.column(
                "sheet",
                Ui.wrapped(
                        "No fix yet. A fix is one small function that cleans one kind of mess. Ctrl+N writes the first, or take"
                                + " some of the ready-made ones.",
                        "soft"))));
        VBox left = new VBox(catalogue, buttons);
        right.getChildren().setAll(reader.view());
        pages = new FacingPages(left, right);
        whole.setCenter(pages);
        workbench.shelfProperty().addListener(_ -> fill());
        workbench.resultsProperty().addListener(_ -> {
            catalogue.refresh();
            reader.refresh();
        });
        workbench.promisesProperty().addListener(_ -> reader.refresh());
        workbench.tablePromisesProperty().addListener(_ -> reader.refresh());
        workbench.tableResultsProperty().addListener(_ -> {
            catalogue.refresh();
            reader.refresh();
        });
        fill();
        writing.onLeave(this::read);
        table.onLeave(this::read);
    }

    private void fill() {
        TreeMap<String, List<FixPage>> groups = new TreeMap<>();
        workbench.shelf().fixes().forEach(f -> groups.computeIfAbsent(f.group(), _ -> new ArrayList<>())
                .add(f));
        List<Entry> all = new ArrayList<>();
        groups.forEach((group, fixes) -> {
            all.add(new Entry.Heading(Character.toUpperCase(group.charAt(0)) + group.substring(1)));
            fixes.forEach(f -> all.add(new Entry.Fix(f)));
        });
        for (boolean loader : new boolean[] {false, true}) {
            List<TableFixPage> tables = workbench.shelf().tableFixes().stream()
                    .filter(t -> t.isLoader() == loader)
                    .sorted(Comparator.comparing(TableFixPage::name))
                    .toList();
            if (!tables.isEmpty()) {
                all.add(new Entry.Heading(loader ? "Loaders" : "Tables"));
                tables.forEach(t -> all.add(new Entry.Table(t)));
            }
        }
        Path keep = chosen;
        entries.setAll(all);
        change.setDisable(all.isEmpty());
        reader.emptyWords();
        if (all.isEmpty()) {
            take();
        }
        select(keep);
    }

    /// Shows the ready-made fixes in the place of the page that is read.
    private void take() {
        if (!right.getChildren().contains(take.view())) {
            right.getChildren().setAll(take.view());
        }
        take.show();
    }

    private void readOn() {
        right.getChildren().setAll(reader.view());
    }

    private void select(@Nullable Path file) {
        Optional<Entry> entry = entries.stream()
                .filter(e ->
                        e.file().filter(f -> file == null || f.equals(file)).isPresent())
                .findFirst();
        entry.ifPresent(e -> catalogue.getSelectionModel().select(e));
    }

    private void choose(@Nullable Entry entry) {
        if (entry != null) {
            readOn();
        }
        if (entry instanceof Entry.Fix(FixPage page)) {
            chosen = page.file();
            reader.show(page);
            changed.run();
        } else if (entry instanceof Entry.Table(TableFixPage page)) {
            chosen = page.file();
            reader.show(page);
            changed.run();
        }
    }

    /// Shows the page of a fix.
    public void show(String name) {
        read();
        Optional<Path> file = workbench.shelf().fix(name).map(FixPage::file);
        file.or(() -> workbench.shelf().tableFix(name).map(TableFixPage::file)).ifPresent(f -> {
            select(f);
            catalogue.scrollTo(catalogue.getSelectionModel().getSelectedIndex());
        });
    }

    /// Opens the chosen fix for writing.
    public void write() {
        if (chosen != null && workbench.table(chosen).isPresent()) {
            isTable = true;
            table.show(chosen);
            whole.setCenter(table.view());
            Platform.runLater(table::focus);
            changed.run();
        } else if (chosen != null) {
            isWriting = true;
            writing.show(chosen);
            whole.setCenter(writing.view());
            changed.run();
        }
    }

    private void read() {
        isWriting = false;
        isTable = false;
        whole.setCenter(pages);
        fill();
        catalogue.scrollTo(Math.max(0, catalogue.getSelectionModel().getSelectedIndex()));
        changed.run();
    }

    private void create() {
        Path file = workbench.freeFile("fixes/text", "new_fix", ".fix.md");
        String name = file.getFileName().toString().replace(".fix.md", "");
        workbench.edit(file, FixEdits.newPage(name));
        chosen = file;
        fill();
        write();
    }

    private void createTable() {
        create(workbench.freeFile("fixes/tables", "new_table_fix", ".fix.md"), TableFixEdits::newPage);
    }

    private void createLoader() {
        create(workbench.freeFile("fixes/loaders", "new_loader", ".fix.md"), TableFixEdits::newLoader);
    }

    private void create(Path file, UnaryOperator<String> page) {
        String name = file.getFileName().toString().replace(".fix.md", "");
        workbench.edit(file, page.apply(name));
        isWriting = false;
        chosen = file;
        fill();
        write();
    }

    public TablePlace table() {
        return table;
    }

    public WritingPlace writing() {
        return writing;
    }

    @Override
    public String title() {
        return "Shelf";
    }

    @Override
    public Region view() {
        return whole;
    }

    @Override
    public List<Command> commands() {
        List<Command> all = new ArrayList<>(List.of(
                Command.of("Change this fix", "Shortcut+E", this::write)
                        .when(() -> !isWriting && !isTable && whole.getScene() != null && !entries.isEmpty()),
                Command.of("New fix", "Shortcut+N", this::create),
                Command.of("New table fix", "Shortcut+Shift+N", this::createTable),
                Command.of("New loader", "Shortcut+Alt+N", this::createLoader),
                Command.of("Take ready-made fixes", "Shortcut+Shift+T", () -> {
                            read();
                            take();
                            take.focus();
                        })
                        .when(() -> whole.getScene() != null),
                PromiseLines.keepBroken(workbench, () -> chosen)));
        writing.commands().forEach(c -> all.add(c.when(() -> isWriting && whole.getScene() != null)));
        table.commands()
                .forEach(c -> all.add(c.when(
                        () -> isTable && whole.getScene() != null && c.enabled().getAsBoolean())));
        return all;
    }

    private String count(boolean loaders, String one, String several) {
        long count = workbench.shelf().tableFixes().stream()
                .filter(t -> t.isLoader() == loaders)
                .count();
        return Ui.count((int) count, one, several);
    }

    @Override
    public String status() {
        return isTable
                ? table.status()
                : isWriting
                        ? writing.status()
                        : "DuckDB, inside · "
                                + Ui.count(workbench.shelf().fixes().size(), "fix", "fixes") + ", "
                                + count(false, "table fix", "table fixes") + ", " + count(true, "loader", "loaders");
    }

    @Override
    public String keys() {
        return isTable
                ? table.keys()
                : isWriting ? writing.keys() : "Ctrl+J jump · Enter or Ctrl+E change · Ctrl+N new fix";
    }

    @Override
    public void enter() {
        if (catalogue.getSelectionModel().isEmpty()) {
            select(chosen);
        }
    }

    @Override
    public void focus() {
        catalogue.requestFocus();
    }

    private final class EntryCell extends ListCell<Entry> {
        @Override
        protected void updateItem(Entry entry, boolean empty) {
            super.updateItem(entry, empty);
            setText(null);
            setGraphic(
                    empty || entry == null
                            ? null
                            : switch (entry) {
                                case Entry.Heading(String text) -> Ui.column("group", Ui.label(text, "heading"));
                                case Entry.Fix(FixPage page) -> fixEntry(page);
                                case Entry.Table(TableFixPage page) -> tableEntry(page);
                            });
            setDisable(!empty && entry instanceof Entry.Heading);
            setPrefWidth(0);
        }

        private Region fixEntry(FixPage page) {
            HBox marks = Ui.row("entry-marks");
            List<CaseResult> results = workbench.resultsOf(page);
            long fails = results.stream().filter(r -> !r.holds()).count();
            boolean broken = !workbench.shelf().definition(page).isPresent();
            if (broken) {
                marks.getChildren().add(Ui.label("▲ has a problem", "fails", "small"));
            } else if (fails > 0) {
                marks.getChildren().add(Ui.label("▲ " + Ui.count(fails, "case fails", "cases fail"), "fails", "small"));
            } else {
                marks.getChildren().add(Ui.label("● " + Ui.count(results.size(), "case", "cases"), "holds", "small"));
            }
            long languages = languagesOf(page);
            marks.getChildren()
                    .add(Ui.label(languages + " of " + Languages.ALL.size() + " languages", "soft", "small"));
            int used = workbench.shelf().usersOf(page.name()).size();
            if (used > 0) {
                marks.getChildren().add(Ui.label("used in " + used, "soft", "small"));
            }
            if (workbench.isDraft(page.file())) {
                marks.getChildren().add(Ui.label("draft, not kept", "fails", "small"));
            }
            return Ui.column("entry", Ui.label(page.signature(), "mono"), Ui.wrapped(page.summary(), "soft"), marks);
        }

        private Region tableEntry(TableFixPage page) {
            HBox marks = Ui.row("entry-marks");
            List<JobParity> results = workbench.resultsOf(page);
            long fails = results.stream().filter(r -> !r.isSame()).count();
            boolean broken = page.problems().stream().anyMatch(Problem::isError);
            if (broken) {
                marks.getChildren().add(Ui.label("▲ has a problem", "fails", "small"));
            } else if (fails > 0) {
                marks.getChildren().add(Ui.label("▲ " + Ui.count(fails, "case fails", "cases fail"), "fails", "small"));
            } else if (page.cases().isEmpty()) {
                marks.getChildren().add(Ui.label("no case yet", "soft", "small"));
            } else {
                marks.getChildren().add(Ui.label("● " + Ui.count(results.size(), "case", "cases"), "holds", "small"));
            }
            int used = workbench.shelf().usersOf(page.name()).size();
            if (used > 0) {
                marks.getChildren().add(Ui.label("used in " + used, "soft", "small"));
            }
            if (workbench.isDraft(page.file())) {
                marks.getChildren().add(Ui.label("draft, not kept", "fails", "small"));
            }
            String signature = page.name() + "("
                    + page.parameters().stream().map(Blank::name).collect(Collectors.joining(", ")) + ")";
            return Ui.column("entry", Ui.label(signature, "mono"), Ui.wrapped(page.summary(), "soft"), marks);
        }

        private long languagesOf(FixPage page) {
            return workbench
                    .shelf()
                    .definition(page)
                    .value()
                    .map(fix -> said.computeIfAbsent(fix, ShelfPlace::languagesOf))
                    .orElse(0L);
        }
    }

    private static long languagesOf(Definition fix) {
        return Languages.ALL.stream()
                .filter((Language l) -> l.definition(fix, "").isPresent())
                .count();
    }
}
