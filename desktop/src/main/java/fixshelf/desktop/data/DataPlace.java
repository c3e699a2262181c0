package fixshelf.desktop.data;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.FacingPages;
import fixshelf.desktop.parts.PasswordBlank;
import fixshelf.desktop.parts.Place;
import fixshelf.desktop.parts.SavedFiles;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.fetch.Consent;
import fixshelf.plan.Line;
import fixshelf.problem.Problem;
import fixshelf.profile.ColumnLook;
import fixshelf.profile.Finding;
import fixshelf.profile.Remedies;
import fixshelf.profile.Remedy;
import fixshelf.profile.RowFilter;
import fixshelf.profile.TableLook;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.JobEdits;
import fixshelf.source.SourceFile;
import fixshelf.work.Datasets;
import java.io.File;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/// The datasets on the left; on the right what is in the chosen one: its columns with what is odd,
/// its rows, counts, and how it differs from another.
public final class DataPlace implements Place {
    /// The right page needs the room.
    private static final double LEFT = 0.262;

    private final Workbench workbench;
    private final Runnable changed;
    private final Consumer<Path> toJob;
    private final DataModel model;
    private final ListView<DatasetPage> list = new ListView<>();
    private final Label count = Ui.wrapped("", "soft");
    private final FlowPane buttons = new FlowPane(10, 8);
    private final ToggleGroup views = new ToggleGroup();
    private final HBox toggles = new HBox();
    private final Label based = Ui.wrapped("", "soft");
    private final VBox body = new VBox();
    private final DataAsking asking;
    private final ColumnsPage columns;
    private final CountsPage counts;
    private final ComparePage compare;
    private final DataRows rows;
    private final StandInPage standIn;
    private final SavedFiles files;
    private final Bringing bringing;
    private final FacingPages pages;
    private View view = View.COLUMNS;
    private Optional<DataModel.Seen> seen = Optional.empty();
    private String problem = "";
    private List<Consent.Place> refused = List.of();
    private Optional<Problem> wrong = Optional.empty();

    /// What the pages on the right are about.
    private final class Shown implements DataAsking.Shown {
        @Override
        public Optional<DataModel.Seen> seen() {
            return seen;
        }

        @Override
        public Optional<DatasetPage> dataset() {
            return chosen();
        }

        @Override
        public CountsPage counts() {
            return counts;
        }

        @Override
        public ComparePage compare() {
            return compare;
        }

        @Override
        public void lookAgain() {
            chosen().ifPresent(d -> look(d.name()));
        }
    }

    /// What the right page shows.
    public enum View {
        COLUMNS("Columns"),
        ROWS("Rows"),
        COUNTS("Counts"),
        COMPARE("Compare"),
        STAND_IN("Stand-in");

        private final String words;

        View(String words) {
            this.words = words;
        }
    }

    /// @param toJob shows a job that was begun
    public DataPlace(Workbench workbench, Runnable changed, Consumer<Path> toJob) {
        this.workbench = workbench;
        this.changed = changed;
        this.toJob = toJob;
        this.model = new DataModel(workbench.background());
        this.rows = new DataRows(model);
        this.bringing = new Bringing(workbench, this::showAsking, this::brought, this::notBrought);
        this.files = new SavedFiles(workbench, list, (words, wrong) -> {
            based.setText(words);
            Ui.mark(based, "problem", wrong);
        });
        this.standIn = new StandInPage(model, workbench);
        this.asking = new DataAsking(workbench, model, files, new Shown());
        this.columns = new ColumnsPage(this::showRowsOf, this::fillButtons, asking);
        this.counts = new CountsPage(asking);
        this.compare = new ComparePage(asking);
        list.getStyleClass().add("catalogue");
        list.setAccessibleText("Datasets");
        list.setId("datasets");
        list.setCellFactory(_ -> new DatasetCell(model));
        list.getSelectionModel().selectedItemProperty().addListener((_, _, now) -> {
            if (now != null) {
                look(now.name());
            }
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        VBox head = new VBox(4, Ui.label("Datasets", "title"), count);
        head.getStyleClass().add("sheet");
        buttons.getStyleClass().add("buttons");
        VBox left = new VBox(head, list, buttons);
        for (View each : View.values()) {
            toggles.getChildren().add(toggle(each));
        }
        toggles.setMinWidth(Region.USE_PREF_SIZE);
        HBox.setHgrow(based, Priority.ALWAYS);
        VBox.setVgrow(body, Priority.ALWAYS);
        VBox right = Ui.column("sheet", Ui.row("state", toggles, based), body);
        pages = new FacingPages(left, right, LEFT);
        workbench.shelfProperty().addListener(_ -> fillList());
        fillList();
        turn(View.COLUMNS);
        fillButtons();
    }

    private ToggleButton toggle(View each) {
        ToggleButton button = new ToggleButton(each.words);
        button.getStyleClass().setAll("toggle");
        button.setToggleGroup(views);
        button.setUserData(each);
        button.setOnAction(_ -> turn(each));
        return button;
    }

    /// Shows one of the views of the dataset.
    public void turn(View now) {
        view = now;
        views.getToggles().forEach(t -> t.setSelected(t.getUserData() == now));
        body.getChildren()
                .setAll(
                        switch (now) {
                            case COLUMNS -> columns.view();
                            case ROWS -> rows.view();
                            case COUNTS -> counts.view();
                            case COMPARE -> compare.view();
                            case STAND_IN -> standIn.view();
                        });
        fill();
    }

    private void fillList() {
        String chosen = chosen().map(DatasetPage::name).orElse("");
        List<DatasetPage> all = workbench.shelf().datasets();
        if (!all.equals(list.getItems())) {
            list.getItems().setAll(all);
            all.stream().filter(d -> d.name().equals(chosen)).findFirst().ifPresent(list.getSelectionModel()::select);
        }
        model.list(workbench.shelf(), list::refresh);
        count.setText(
                all.isEmpty()
                        ? "There is no dataset yet. Drop a file on the window, or press Ctrl+Shift+O: a page that says how it is"
                                + " read is kept in the folder datasets, and it is looked at. The file stays where it is."
                        : Ui.count(all.size(), "dataset", "datasets")
                                + " on this shelf · drop a file here to bring one in");
    }

    private Optional<DatasetPage> chosen() {
        return Optional.ofNullable(list.getSelectionModel().getSelectedItem());
    }

    /// Chooses a dataset by its name.
    public void show(String dataset) {
        list.getItems().stream()
                .filter(d -> d.name().equals(dataset))
                .findFirst()
                .ifPresent(d -> {
                    list.getSelectionModel().select(d);
                    list.scrollTo(d);
                });
    }

    private void look(String dataset) {
        seen = Optional.empty();
        problem = "";
        refused = List.of();
        wrong = Optional.empty();
        rows.clear();
        fill();
        model.look(workbench.shelf(), dataset, found -> {
            if (chosen().filter(d -> d.name().equals(dataset)).isPresent()) {
                // What was seen stays where looking at the rest was stopped.
                seen = found.value().or(() -> seen);
                problem = found.isPresent() ? "" : AllowPlace.words(found.problems());
                wrong = found.isPresent()
                        ? Optional.empty()
                        : found.problems().stream().findFirst();
                refused = Consent.askedBy(found.problems());
                fill();
                list.refresh();
            }
        });
    }

    private void say(String words) {
        problem = words;
        fill();
    }

    private void fill() {
        based.setText(basedText());
        Ui.mark(
                based,
                "problem",
                !problem.isEmpty() || seen.filter(d -> d.leftOut() > 0).isPresent());
        String nothing =
                !problem.isEmpty() ? problem : chosen().isPresent() ? "Loading …" : DatasetCell.nothing(workbench);
        columns.show(seen.orElse(null), nothing);
        fillButtons();
        if (seen.isPresent()) {
            TableLook table = seen.get().table();
            String name = chosen().map(DatasetPage::name).orElse("");
            List<String> names = table.columns().stream().map(ColumnLook::name).toList();
            switch (view) {
                case COLUMNS -> {}
                case ROWS -> rows.show(seen.get(), basedOn());
                case COUNTS -> {
                    counts.show(names, SeenWords.likely(table));
                    model.wordLists(workbench.shelf(), counts::offer);
                }
                case COMPARE ->
                    compare.show(name, names, SeenWords.key(table), ComparePage.others(workbench.shelf(), name));
                case STAND_IN -> standIn.show(name, seen.get());
            }
        }
        changed.run();
    }

    private String basedOn() {
        return seen.map(SeenWords::rows).orElse("");
    }

    private String basedText() {
        // Where nothing was seen, the page says why below.
        return seen.isEmpty() ? "" : !problem.isEmpty() ? problem : SeenWords.all(seen.get());
    }

    private void showRowsOf(Finding finding) {
        rows.filter(RowFilter.of(finding));
        turn(View.ROWS);
        rows.focusTarget().requestFocus();
    }

    private void fillButtons() {
        List<Remedy> chosen = columns.chosen();
        int lines = Remedies.lines(chosen).size();
        String words = lines == 0 ? "New job on it" : "New job with " + Ui.count(lines, "line", "lines");
        buttons.getChildren()
                .setAll(
                        Ui.button(newJob(words), refused.isEmpty() ? "strong" : "usual"),
                        Ui.button(compareWith()),
                        Ui.button(bringIn()),
                        Ui.button(fromServer()));
        AllowPlace.command(workbench, refused, () -> chosen().ifPresent(d -> look(d.name())), this::say)
                .ifPresent(c -> buttons.getChildren().addFirst(Ui.button(c, "strong")));
        PasswordBlank.of(wrong, () -> chosen().ifPresent(d -> look(d.name())))
                .ifPresent(buttons.getChildren()::addFirst);
        if (seen.filter(s -> FoundFile.canBeCutOtherwise(s.file().options())).isPresent()) {
            buttons.getChildren().add(Ui.button(otherTables()));
        }
        if (seen.flatMap(s -> s.file().copied()).flatMap(SourceFile.Copied::at).isPresent()) {
            buttons.getChildren().add(Ui.button(readAgain()));
        }
    }

    /// Asks the server again, whatever copy there is.
    private Command readAgain() {
        return Command.of("Read it again", "", () -> chosen().ifPresent(d -> {
            Datasets.forgetCopy(workbench.shelf(), d.name());
            look(d.name());
        }));
    }

    private Command fromServer() {
        return Command.of("From a server …", "Shortcut+Shift+D", () -> askServer(""));
    }

    /// Shows the blanks of a dataset that is in no file here; at this address, where one is known.
    public void askServer(String address) {
        bringing.askServer(address);
    }

    /// Shows a page that asks for something, instead of a view of the dataset.
    private void showAsking(Region page, Supplier<Node> first) {
        views.getToggles().forEach(t -> t.setSelected(false));
        body.getChildren().setAll(page);
        // What was never laid out takes no keys.
        body.applyCss();
        body.layout();
        first.get().requestFocus();
    }

    private void brought(String dataset) {
        fillList();
        turn(View.COLUMNS);
        show(dataset);
        list.requestFocus();
    }

    private void notBrought(String words) {
        problem = words;
        turn(View.COLUMNS);
    }

    private Command newJob(String words) {
        return Command.of(words, "Shortcut+Enter", this::beginJob).when(() -> chosen().isPresent());
    }

    private Command compareWith() {
        return Command.of("Compare with …", "", () -> {
                    turn(View.COMPARE);
                    compare.focusTarget().requestFocus();
                })
                .when(() -> chosen().isPresent());
    }

    /// Begins a job on the chosen dataset with the remedies that were chosen.
    void beginJob() {
        chosen().ifPresent(dataset -> {
            List<Line> lines = new ArrayList<>(List.of(Line.readDataset(dataset.name())));
            lines.addAll(Remedies.lines(columns.chosen()));
            Path page = workbench.freeFile("jobs", dataset.name() + "_clean", ".yaml");
            String job = page.getFileName().toString().replace(".yaml", "");
            String title = JobEdits.titleOf(job);
            workbench.edit(page, JobEdits.newPage(job, title, lines));
            toJob.accept(page);
        });
    }

    /// Keeps a file as a dataset, and looks at it; asks which table it is where the file holds several.
    public void bring(Path file) {
        bringing.bring(file);
    }

    private Command otherTables() {
        return Command.of(
                "Read its file in another way …",
                "",
                () -> seen.ifPresent(s -> bring(s.file().file())));
    }

    private Command copyCounts() {
        return Command.of("Copy the counts as they stand", "Shortcut+Shift+C", () -> counts.copy(true))
                .when(() -> view == View.COUNTS);
    }

    private Command bringIn() {
        return Command.of("Bring in a file …", "Shortcut+Shift+O", () -> {
            FileChooser chooser = new FileChooser();
            chooser.setTitle("A file: delimited text, a workbook, JSON, Parquet");
            Optional.ofNullable(chooser.showOpenDialog(pages.getScene().getWindow()))
                    .map(File::toPath)
                    .ifPresent(this::bring);
        });
    }

    private Command keepCountsCommand() {
        return Command.of("Keep the counts as a check of the dataset", "Shortcut+Shift+K", asking::keep)
                .when(() -> view == View.COUNTS);
    }

    /// Writes the numbers of the counts in view into a file.
    public void saveCounts(Path file) {
        files.lines(file, counts.lines(false));
    }

    /// Shows the rows of what most rows have that is odd.
    public void showOddest() {
        seen.flatMap(s -> s.table().all().stream().max(Comparator.comparingLong(Finding::rows)))
                .ifPresent(this::showRowsOf);
    }

    /// Chooses the first remedy of everything that has one.
    public void chooseRemedies() {
        columns.chooseAll();
    }

    public ComparePage comparePage() {
        return compare;
    }

    public StandInPage standInPage() {
        return standIn;
    }

    public CountsPage countsPage() {
        return counts;
    }

    @Override
    public String title() {
        return "Data";
    }

    @Override
    public Region view() {
        return pages;
    }

    @Override
    public List<Command> commands() {
        return List.of(
                Command.of("Look at the columns", "", () -> turn(View.COLUMNS)),
                Command.of("Look at the rows", "", () -> turn(View.ROWS)),
                Command.of("Count", "", () -> turn(View.COUNTS)),
                copyCounts(),
                keepCountsCommand(),
                Command.of("Choose the first remedy of everything", "Shortcut+Shift+A", this::chooseRemedies),
                newJob("New job on the dataset"),
                bringIn(),
                fromServer(),
                compareWith(),
                Command.of("Make rows that may be sent", "", () -> {
                    turn(View.STAND_IN);
                    standIn.focusTarget().requestFocus();
                }),
                standIn.make().when(() -> view == View.STAND_IN));
    }

    @Override
    public String status() {
        return seen.map(s -> String.format("DuckDB, inside · %s · %,d ms", basedOn(), s.millis()))
                .orElse("DuckDB, inside");
    }

    @Override
    public String keys() {
        return switch (view) {
            case COLUMNS -> "↑↓ column · Space choose a remedy · Enter its rows · Ctrl+Enter new job";
            case ROWS -> "Type to find · Ctrl+J jump";
            case COUNTS -> "Tab next blank · Ctrl+Shift+C copy";
            case COMPARE -> "Tab next blank";
            case STAND_IN -> "↑↓ word · Space let it stay · Ctrl+Shift+F make it";
        };
    }

    @Override
    public void enter() {
        fillList();
        if (chosen().isEmpty() && !list.getItems().isEmpty()) {
            list.getSelectionModel().select(0);
        }
    }

    @Override
    public void focus() {
        list.requestFocus();
    }
}
