package fixshelf.desktop;

import fixshelf.check.CaseResult;
import fixshelf.desktop.data.DataPlace;
import fixshelf.desktop.jobs.JobsPlace;
import fixshelf.desktop.languages.LanguagesPlace;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.FacingPages;
import fixshelf.desktop.parts.JumpField;
import fixshelf.desktop.parts.JumpField.Target;
import fixshelf.desktop.parts.Place;
import fixshelf.desktop.parts.TypedFiles;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.shelf.ShelfPlace;
import fixshelf.desktop.shelf.WritingPlace;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.UserSettings;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.PageFiles;
import java.io.File;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.text.Font;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;

/// The window: a bar with the places and the jump field, the place, a status line.
final class Frame {
    private static final List<String> FONTS = List.of(
            "SourceSans3-Regular",
            "SourceSans3-Semibold",
            "SourceSans3-It",
            "SourceSerif4-Regular",
            "SourceSerif4-Semibold",
            "SourceSerif4-It",
            "SourceCodePro-Regular",
            "SourceCodePro-Semibold",
            "SourceCodePro-It");

    private final Stage stage;
    private final UserSettings settings;
    private final BorderPane root = new BorderPane();
    private final Scene scene = new Scene(root, 1280, 800);
    private final Label status = Ui.label("");
    private final Label busy = Ui.label("");
    private final Label keys = Ui.label("");
    private final HBox state = Ui.row("state");
    private final Map<KeyCombination, List<Bound>> bound = new HashMap<>();
    private final Map<Place, ToggleButton> places = new LinkedHashMap<>();
    private final Background background = new Background();
    private final JumpField jump = new JumpField(
            this::targets,
            new TypedFiles(
                    () -> workbench().map(Workbench::background).orElse(background),
                    () -> workbench().map(w -> w.shelf().root()).orElse(Path.of(System.getProperty("user.home"))),
                    this::read,
                    this::open,
                    address -> workbench().ifPresent(_ -> {
                        enter(dataPlace());
                        dataPlace().askServer(address);
                    })));
    private @Nullable FirstPage first;
    private @Nullable Workbench workbench;
    private @Nullable Place current;
    /// The place that was in view before another shelf began to be opened.
    private @Nullable Place left;
    private @Nullable ShelfPlace shelfPlace;
    private @Nullable DataPlace dataPlace;
    private @Nullable JobsPlace jobsPlace;
    private @Nullable LanguagesPlace languagesPlace;

    Frame(Stage stage, UserSettings settings) {
        this.stage = stage;
        this.settings = settings;
        FONTS.forEach(f -> Font.loadFont(
                Objects.requireNonNull(Frame.class.getResource("fonts/" + f + ".otf"), f)
                        .toExternalForm(),
                14));
        dress();
        stage.setTitle("Fix Shelf");
        stage.setScene(scene);
        stage.setMinWidth(720);
        stage.setMinHeight(480);
        acceptFiles();
        general().forEach(c -> bind(c, Optional.empty()));
    }

    Scene scene() {
        return scene;
    }

    /// Whether nothing is being worked out.
    boolean isIdle() {
        return background.isIdle()
                && workbench().map(w -> w.background().isIdle()).orElse(true);
    }

    Optional<Workbench> workbench() {
        return Optional.ofNullable(workbench);
    }

    /// Opens a shelf, or says why it cannot.
    void open(Path folder) {
        open(folder, _ -> {});
    }

    /// Opens a shelf, then does something with it; or says why it cannot. Its pages are read away from the interface,
    /// and nothing can be done to the shelf before it until then.
    void open(Path folder, Consumer<Workbench> then) {
        Path root = folder.toAbsolutePath().normalize();
        left = current == null ? left : current;
        current = null;
        Optional.ofNullable(this.root.getTop()).ifPresent(bar -> bar.setDisable(true));
        this.root.setCenter(Ui.page(Ui.column(
                "notice",
                Ui.label("Opening " + root.getFileName(), "title"),
                Ui.wrapped("The pages of " + root + " are being read.", "soft"))));
        this.root.applyCss();
        background.ask(
                Background.Request.now("open", "reading the pages"),
                () -> Workbench.open(root),
                opened -> {
                    if (opened.isPresent()) {
                        show(opened.get());
                        settings.opened(root);
                        then.accept(opened.get());
                    } else {
                        refused(opened.problems());
                    }
                },
                words -> refused(List.of(Problem.about(
                        Code.UNREADABLE_PAGE,
                        root.toString(),
                        words + ".",
                        "Nothing was changed. Look at the folder."))));
    }

    /// Who has a shelf open stays there, and is told.
    private void refused(List<Problem> problems) {
        Optional.ofNullable(root.getTop()).ifPresent(bar -> bar.setDisable(false));
        if (workbench == null) {
            welcome(problems);
            return;
        }
        Place back = Objects.requireNonNull(left);
        left = null;
        enter(back);
        status.setText(FirstPage.words(problems.getFirst()));
        Ui.mark(status, "problem", true);
    }

    /// The page for a user who has no shelf yet, or whose shelf cannot be opened: what a shelf is, and the ways to one.
    void welcome(List<Problem> problems) {
        if (firstPage().isPresent()) {
            root.setCenter(first.view());
            firstPage().get().tell(problems);
            return;
        }
        workbench().ifPresent(Workbench::close);
        workbench = null;
        shelfPlace = null;
        dataPlace = null;
        jobsPlace = null;
        languagesPlace = null;
        places.clear();
        FirstPage page = new FirstPage(settings, background, new FirstWays(this, background), problems);
        first = page;
        current = null;
        jump.setPromptText("Jump to a shelf or a file …");
        root.setTop(Ui.row("bar", Ui.label("Fix Shelf", "shelf-name"), Ui.spring(), jump));
        root.setCenter(page.view());
        Label says = Ui.label("");
        says.textProperty().bind(background.busyProperty());
        keys.setText("Ctrl+O open · Ctrl+J jump · Ctrl+Shift+L the dark sheet");
        root.setBottom(Ui.row("status", says, Ui.spring(), keys));
        root.applyCss();
        root.layout();
        page.focus();
    }

    /// The first page, while no shelf is open.
    Optional<FirstPage> firstPage() {
        return workbench == null ? Optional.ofNullable(first) : Optional.empty();
    }

    /// Opens a shelf that was made, or says why it was not.
    void made(Outcome<Path> shelf) {
        made(shelf, _ -> {});
    }

    /// Opens a shelf that was made, then does something with it; or says why it was not made.
    void made(Outcome<Path> shelf, Consumer<Workbench> then) {
        if (shelf.isPresent()) {
            open(shelf.get(), then);
        } else {
            refused(shelf.problems());
        }
    }

    private void showProblems() {
        places.values().forEach(b -> b.setSelected(false));
        List<Problem> all = workbench().map(w -> w.problemsProperty().get()).orElse(List.of());
        root.setCenter(ProblemsPage.of(this, all));
    }

    private void show(Workbench opened) {
        workbench().ifPresent(Workbench::close);
        workbench = opened;
        WritingPlace writing = new WritingPlace(opened, this::refreshStatus);
        shelfPlace = new ShelfPlace(opened, writing, this::refreshStatus);
        jobsPlace = new JobsPlace(opened, this::refreshStatus, this::showFix);
        languagesPlace = new LanguagesPlace(opened, this::refreshStatus);
        dataPlace = new DataPlace(opened, this::refreshStatus, this::showJob);
        places.clear();
        bound.values().forEach(all -> all.removeIf(b -> b.place().isPresent()));
        ToggleGroup group = new ToggleGroup();
        for (Place place : List.of(shelfPlace, dataPlace, jobsPlace, languagesPlace)) {
            ToggleButton button = new ToggleButton(place.title());
            button.getStyleClass().setAll("place");
            button.setToggleGroup(group);
            button.setOnAction(_ -> enter(place));
            // Arrows would mark another place as chosen without going there.
            button.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
                if (e.getCode().isArrowKey()) {
                    e.consume();
                }
            });
            places.put(place, button);
            place.commands().forEach(c -> bind(c, Optional.of(place)));
        }
        first = null;
        jump.setPromptText(JumpField.PROMPT);
        HBox bar = Ui.row("bar", Ui.label(opened.shelf().settings().name(), "shelf-name"));
        bar.getChildren().addAll(places.values());
        bar.getChildren().addAll(Ui.spring(), jump, state);
        root.setTop(bar);
        Button stop = Ui.button(stopWork(), "plain", "small");
        stop.setFocusTraversable(false);
        stop.visibleProperty().bind(opened.background().busyProperty().isNotEmpty());
        root.setBottom(Ui.row("status", status, busy, stop, Ui.spring(), keys));
        busy.textProperty().bind(opened.background().busyProperty());
        opened.background().faultProperty().addListener((_, _, words) -> {
            status.setText(words);
            Ui.mark(status, "problem", !words.isEmpty());
        });
        opened.resultsProperty().addListener(_ -> showState());
        opened.problemsProperty().addListener(_ -> showState());
        opened.shelfProperty().addListener(_ -> opened.check(250));
        opened.check(0);
        showState();
        left = null;
        enter(shelfPlace);
    }

    private void showState() {
        List<CaseResult> results =
                Objects.requireNonNull(workbench).resultsProperty().get();
        long holds = results.stream().filter(CaseResult::holds).count();
        long fails = results.size() - holds;
        long problems = Objects.requireNonNull(workbench).problemsProperty().get().stream()
                .filter(Problem::isError)
                .count();
        state.getChildren()
                .setAll(
                        results.isEmpty()
                                ? Ui.label("no case yet", "soft")
                                : Ui.label("● " + Ui.count(holds, "case holds", "cases hold"), "holds"));
        workbench()
                .filter(_ -> !results.isEmpty())
                .ifPresent(w -> settings.putCases(
                        w.shelf().root(),
                        fails == 0
                                ? "● " + Ui.count(holds, "holds", "hold")
                                : "▲ " + fails + " of " + results.size() + " fail"));
        if (fails > 0) {
            state.getChildren().add(Ui.label("▲ " + Ui.count(fails, "fails", "fail"), "fails"));
        }
        if (problems > 0) {
            Button all = Ui.button(
                    Command.of("▲ " + Ui.count(problems, "problem", "problems"), "", this::showProblems),
                    "plain",
                    "fails");
            all.setId("all-problems");
            state.getChildren().add(all);
        }
    }

    void enter(Place place) {
        if (left != null) {
            // Another shelf is being opened.
            return;
        }
        current = place;
        places.forEach((p, button) -> button.setSelected(p == place));
        root.setCenter(place.view());
        place.enter();
        // What is in a place for the first time can take the keyboard once it was laid out.
        root.applyCss();
        root.layout();
        place.focus();
        refreshStatus();
    }

    private void refreshStatus() {
        if (current != null) {
            Ui.mark(status, "problem", false);
            status.setText(current.status());
            keys.setText(current.keys());
        }
    }

    void showFix(String name) {
        if (shelfPlace != null) {
            enter(shelfPlace);
            shelfPlace.show(name);
        }
    }

    void showJob(Path page) {
        enter(jobsPlace());
        jobsPlace().show(page);
    }

    void showDataset(String name) {
        enter(dataPlace());
        dataPlace().show(name);
    }

    ShelfPlace shelfPlace() {
        return Objects.requireNonNull(shelfPlace);
    }

    DataPlace dataPlace() {
        return Objects.requireNonNull(dataPlace);
    }

    JobsPlace jobsPlace() {
        return Objects.requireNonNull(jobsPlace);
    }

    LanguagesPlace languagesPlace() {
        return Objects.requireNonNull(languagesPlace);
    }

    private List<Target> targets() {
        List<Command> commands = new ArrayList<>(general());
        places.keySet().forEach(p -> commands.addAll(p.commands()));
        return JumpTargets.of(this, commands);
    }

    private Command stopWork() {
        return Command.of("Stop", "Shortcut+Period", () -> workbench()
                .ifPresent(w -> w.background().stop()));
    }

    private Command newShelf() {
        return Command.of("New shelf …", "", () -> chooseFolder("A folder for the new shelf")
                .ifPresent(this::create));
    }

    private Command openShelf() {
        return Command.of("Open a shelf …", "Shortcut+O", () -> chooseFolder("The shelf's folder")
                .ifPresent(this::open));
    }

    /// Makes a new shelf in a folder and opens it.
    void create(Path folder) {
        made(PageFiles.initShelf(folder, String.valueOf(folder.getFileName())));
    }

    Optional<Path> chooseFolder(String title) {
        DirectoryChooser chooser = new DirectoryChooser();
        chooser.setTitle(title);
        return Optional.ofNullable(chooser.showDialog(stage)).map(File::toPath);
    }

    private List<Command> general() {
        List<Command> commands = new ArrayList<>(List.of(
                Command.of("Jump to …", "Shortcut+J", jump::requestFocus),
                Command.of("Go to the shelf", "Shortcut+1", () -> enter(shelfPlace()))
                        .when(() -> shelfPlace != null),
                Command.of("Go to the data", "Shortcut+2", () -> enter(dataPlace()))
                        .when(() -> dataPlace != null),
                Command.of("Go to the jobs", "Shortcut+3", () -> enter(jobsPlace()))
                        .when(() -> jobsPlace != null),
                Command.of("Go to the languages", "Shortcut+4", () -> enter(languagesPlace()))
                        .when(() -> languagesPlace != null),
                Command.of("Turn the pages: left, right, both", "F6", () -> {
                    if (root.getCenter() instanceof FacingPages pages) {
                        pages.turn();
                    }
                }),
                Command.of("Run all cases", "F8", () -> workbench().ifPresent(w -> w.check(0))),
                Command.of("Light or dark sheet", "Shortcut+Shift+L", () -> {
                    settings.put("sheet", settings.isDark() ? "light" : "dark");
                    dress();
                }),
                Command.of("Larger text", "Shortcut+Plus", () -> resize(1)),
                Command.of("Smaller text", "Shortcut+Minus", () -> resize(-1)),
                Command.of("Read a file in a new job …", "Shortcut+Shift+O", () -> chooseFile()
                                .ifPresent(this::read))
                        .when(() -> jobsPlace != null),
                stopWork(),
                openShelf(),
                newShelf()));
        return commands;
    }

    Optional<Path> chooseFile() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("A file: delimited text, a workbook, JSON, Parquet");
        return Optional.ofNullable(chooser.showOpenDialog(stage)).map(File::toPath);
    }

    /// Begins a new job with a line that reads the file; among the data, keeps it as a dataset.
    void read(Path file) {
        if (firstPage().isPresent()) {
            firstPage().get().bring(file);
            return;
        }
        if (current != null && current == dataPlace) {
            dataPlace().bring(file);
            return;
        }
        enter(jobsPlace());
        jobsPlace().begin(file);
    }

    private void resize(int by) {
        settings.put("text", String.valueOf(Math.max(12, Math.min(20, settings.textSize() + by))));
        dress();
    }

    void dress() {
        String tokens = settings.isDark() ? "tokens-dark.css" : "tokens-light.css";
        scene.getStylesheets().setAll(resource(tokens), resource("window.css"));
        root.getStyleClass().removeIf(c -> c.startsWith("size-"));
        root.getStyleClass().add("size-" + settings.textSize());
    }

    private static String resource(String name) {
        return Objects.requireNonNull(Frame.class.getResource(name), name).toExternalForm();
    }

    /// A command and the place that it belongs to; none for those of the whole window.
    private record Bound(Command command, Optional<Place> place) {}

    /// Several commands may have the same keys; those of the place in view go before those of the window, and others
    /// are not meant.
    private void bind(Command command, Optional<Place> place) {
        if (command.keys() == null) {
            return;
        }
        List<Bound> all = bound.computeIfAbsent(command.keys(), _ -> new ArrayList<>());
        all.add(new Bound(command, place));
        scene.getAccelerators().put(command.keys(), () -> all.reversed().stream()
                .filter(b -> b.place().isEmpty() || b.place().get() == current)
                .filter(b -> b.command().enabled().getAsBoolean())
                .min(Comparator.comparing(b -> b.place().isEmpty()))
                .ifPresent(b -> b.command().run().run()));
    }

    private void acceptFiles() {
        scene.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
            e.consume();
        });
        scene.setOnDragDropped(e -> {
            e.getDragboard().getFiles().stream().findFirst().map(File::toPath).ifPresent(this::read);
            e.setDropCompleted(true);
            e.consume();
        });
    }
}
