package fixshelf.desktop.shelf;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.FacingPages;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.language.tree.Printer;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.shelf.FixEdits;
import fixshelf.shelf.FixEdits.ParameterText;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Promise;
import fixshelf.shelf.YamlText;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// A fix being written: the page on the left, what it does on your data and its cases on the right.
public final class WritingPlace {
    private final Workbench workbench;
    private final Runnable changed;
    private final TextField title = new TextField();
    private final TextField name = new TextField();
    private final ComboBox<String> returns = new ComboBox<>();
    private final TextArea prose = new TextArea();
    private final ParameterRows parameters = new ParameterRows(
            () -> ParameterRows.VALUE_TYPES, 1, texts -> page().ifPresent(p -> edit(FixEdits.setParameters(p, texts))));
    private final VBox problems = new VBox(4);
    private final FlowPane promises = new FlowPane(16, 6);
    private final VBox promisesKept = new VBox();
    private final BodyEditor body;
    private final BodyEditor whole;
    private final VBox form;
    private final VBox sheet = Ui.column("sheet");
    private final HBox buttons = Ui.row("buttons");
    private final EvidencePage evidence;
    private final FacingPages view;
    private final Label message = Ui.wrapped("", "soft");
    private final HBox told = Ui.row("buttons", message);
    private @Nullable Path file;
    private Runnable leave = () -> {};
    private boolean asText;
    private boolean filling;

    public WritingPlace(Workbench workbench, Runnable changed) {
        this.workbench = workbench;
        this.changed = changed;
        this.evidence = new EvidencePage(workbench, this::edit, changed);
        body = new BodyEditor(
                this::page, workbench::shelf, text -> page().ifPresent(p -> edit(FixEdits.setBody(p, text))));
        whole = new BodyEditor(this::page, workbench::shelf, this::edit);
        title.getStyleClass().add("title-field");
        title.setAccessibleText("Title");
        name.getStyleClass().add("mono");
        name.setPrefColumnCount(15);
        name.setAccessibleText("Name of the fix");
        name.setId("fix-name");
        returns.getItems().setAll(ParameterRows.VALUE_TYPES);
        returns.setEditable(true);
        returns.setPrefWidth(140);
        prose.setWrapText(true);
        prose.setPrefRowCount(3);
        prose.setAccessibleText("What it is for");
        prose.setPromptText("What it is for, in a sentence or two");
        Ui.onLeaving(title, () -> page().ifPresent(p -> edit(FixEdits.setTitle(p, title.getText()))));
        Ui.onLeaving(name, () -> page().ifPresent(this::rename));
        Ui.onLeaving(prose, () -> page().filter(
                        p -> !p.prose().equals(prose.getText().strip()))
                .ifPresent(p -> edit(FixEdits.setProse(p, prose.getText()))));
        returns.valueProperty().addListener((_, _, type) -> {
            if (!filling && type != null) {
                page().filter(p -> !p.returns().label().equals(type))
                        .ifPresent(p -> edit(FixEdits.setField(p, "returns", type)));
            }
        });
        form = new VBox(
                8,
                title,
                Ui.row("state", name, Ui.label("gives", "soft"), returns),
                prose,
                Ui.label("Parameters", "heading"),
                parameters.view(),
                Ui.label("Body", "heading"),
                body.view(),
                problems,
                Ui.label("Promises", "heading"),
                promises,
                promisesKept);
        sheet.getChildren().add(form);
        HBox.setHgrow(message, Priority.ALWAYS);
        tell("");
        VBox left = new VBox(Ui.page(sheet), buttons, told);
        evidence.helper().onUse(body::insert);
        view = new FacingPages(left, evidence.view());
        view.setDividerPositions(0.43);
        workbench.shelfProperty().addListener(_ -> fill());
        workbench.resultsProperty().addListener(_ -> evidence.showResults());
        workbench.promisesProperty().addListener(_ -> page().ifPresent(this::showPromisesKept));
    }

    /// The pages that name the fix follow it.
    private void rename(FixPage page) {
        String now = name.getText().strip();
        if (now.equals(page.name())) {
            return;
        }
        workbench.rename(page.file(), now, renamed -> {
            if (renamed.isPresent()) {
                tell(
                        renamed.get().isEmpty()
                                ? ""
                                : "Kept together with it, as they name it: " + String.join(", ", renamed.get()) + ".");
            } else {
                name.setText(page.name());
                tell(renamed.problems().getFirst().sentence());
            }
        });
    }

    Region view() {
        return view;
    }

    void onLeave(Runnable run) {
        leave = run;
    }

    public BodyEditor whole() {
        return whole;
    }

    public BodyEditor body() {
        return body;
    }

    public EvidencePage evidence() {
        return evidence;
    }

    void show(Path shown) {
        file = shown;
        tell("");
        filling = true;
        page().ifPresent(p -> body.show(p.bodyText()));
        filling = false;
        evidence.show(shown);
        fill();
        body.code().requestFocus();
    }

    private Optional<FixPage> page() {
        return file == null ? Optional.empty() : workbench.fix(file);
    }

    private void edit(String text) {
        if (file != null && !filling) {
            tell("");
            workbench.edit(file, text);
        }
    }

    private void fill() {
        Optional<FixPage> now = page();
        if (now.isEmpty() || body.isBusy() || whole.isBusy()) {
            return;
        }
        FixPage page = now.get();
        filling = true;
        set(title, page.title());
        set(name, page.name());
        returns.setValue(page.returns().label());
        if (!prose.isFocused()) {
            prose.setText(page.prose());
        }
        parameters.show(texts(page));
        body.show(page.bodyText());
        whole.show(page.source().text());
        List<Problem> all = workbench.shelf().definition(page).problems();
        body.mark(all, page.body().map(b -> b.start()).orElse(Integer.MAX_VALUE / 2));
        whole.mark(all, 0);
        problems.getChildren()
                .setAll(all.stream().limit(4).map(p -> (Node) problem(p, page)).toList());
        fillPromises(page);
        fillButtons();
        filling = false;
        evidence.refresh();
        changed.run();
    }

    private static void set(TextField field, String text) {
        if (!field.isFocused() && !field.getText().equals(text)) {
            field.setText(text);
        }
    }

    private Label problem(Problem problem, FixPage page) {
        int at = problem.where().span().start();
        SourceText.Position place = page.body()
                .filter(b -> b.start() <= at && at <= b.end())
                .map(b -> new SourceText("", page.bodyText()).position(at - b.start()))
                .orElse(problem.where().position());
        return Ui.wrapped("line " + place.line() + ": " + problem.sentence(), "problem");
    }

    private static List<ParameterText> texts(FixPage page) {
        return page.parameters().stream()
                .map(p -> new ParameterText(
                        p.name(),
                        p.type().label(),
                        p.fallback().map(Printer::print).orElse(""),
                        p.about()))
                .collect(Collectors.toCollection(ArrayList::new));
    }

    private void fillPromises(FixPage page) {
        promises.getChildren().clear();
        for (Promise.Kind kind : Promise.Kind.values()) {
            if (kind.takesNothing()) {
                promises.getChildren().add(box(page, Promise.of(kind)));
            }
        }
        page.promises().stream().filter(p -> !p.kind().takesNothing()).forEach(p -> promises.getChildren()
                .add(box(page, p)));
        TextField more = new TextField();
        more.setId("more-promise");
        more.setPromptText("one_of 'yes', 'no'   matches '^[0-9]+$'   undone_by other_fix");
        more.setAccessibleText("One more promise");
        more.setPrefColumnCount(36);
        more.setOnAction(_ -> addPromise(more.getText().strip()));
        promises.getChildren().add(more);
        showPromisesKept(page);
    }

    private void showPromisesKept(FixPage page) {
        promisesKept.getChildren().setAll(PromiseLines.of(workbench, page));
    }

    private CheckBox box(FixPage page, Promise promise) {
        CheckBox box = new CheckBox(promise.sentence());
        box.setSelected(page.promises().contains(promise));
        box.setOnAction(_ -> page().ifPresent(p -> {
            List<String> all =
                    new ArrayList<>(p.promises().stream().map(Promise::written).toList());
            if (!all.remove(promise.written())) {
                all.add(promise.written());
            }
            setPromises(p, all);
        }));
        return box;
    }

    private void addPromise(String written) {
        page().filter(_ -> !written.isEmpty()).ifPresent(p -> {
            List<String> all =
                    new ArrayList<>(p.promises().stream().map(Promise::written).toList());
            all.add(written);
            setPromises(p, all);
        });
    }

    private void setPromises(FixPage page, List<String> written) {
        edit(FixEdits.setField(page, "promises", YamlText.list(written)));
    }

    private void fillButtons() {
        buttons.getChildren().clear();
        for (Command command : usual()) {
            buttons.getChildren().add(Ui.button(command, buttons.getChildren().isEmpty() ? "strong" : "usual"));
        }
    }

    List<Command> commands() {
        List<Command> all = new ArrayList<>(usual());
        all.add(readAgain());
        return all;
    }

    /// The commands that always have a button.
    private List<Command> usual() {
        return List.of(
                Command.of("Keep", "Shortcut+Enter", this::keep).when(() -> file != null && workbench.isDraft(file)),
                Command.of("Undo", "Shortcut+Z", () -> workbench.undo(file))
                        .when(() -> file != null && workbench.canUndo(file)),
                Command.of("Redo", "Shortcut+Shift+Z", () -> workbench.redo(file))
                        .when(() -> file != null && workbench.canRedo(file)),
                Command.of(asText ? "Page as a form" : "Page as text", "Shortcut+T", this::turn),
                Command.of("Pattern helper", "Shortcut+H", evidence::turnHelper),
                Command.of("Back", "Alt+Left", () -> leave.run()));
    }

    private Command readAgain() {
        return Command.of("Read it again", "", () -> {
                    Outcome<Path> read = workbench.readAgain(Objects.requireNonNull(file));
                    tell(
                            read.isPresent()
                                    ? "Read again; what you wrote is one undo away."
                                    : read.problems().getFirst().sentence());
                })
                .when(() -> file != null && workbench.isChangedElsewhere(file));
    }

    /// What came of a command, under the buttons; with what can be done about it.
    private void tell(String words) {
        message.setText(words);
        told.getChildren().setAll(message);
        if (readAgain().enabled().getAsBoolean()) {
            Button again = Ui.button(readAgain());
            again.setMinWidth(Region.USE_PREF_SIZE);
            told.getChildren().add(again);
        }
        told.setManaged(!words.isEmpty());
        told.setVisible(!words.isEmpty());
    }

    private void turn() {
        asText = !asText;
        whole.view().setMinHeight(520);
        sheet.getChildren().setAll(asText ? List.of(whole.view(), problems) : List.of(form));
        if (!asText) {
            form.getChildren().remove(problems);
            form.getChildren().add(form.getChildren().indexOf(body.view()) + 1, problems);
        }
        fill();
    }

    private void keep() {
        if (file != null) {
            Ui.commitTyped(form);
            Outcome<Path> kept = workbench.keep(file);
            tell(kept.isPresent() ? "Kept." : kept.problems().getFirst().sentence());
            fillButtons();
        }
    }

    String status() {
        boolean draft = file != null && workbench.isDraft(file);
        return "DuckDB, inside · " + evidence.status() + (draft ? " · not kept yet" : " · kept");
    }

    String keys() {
        return "Ctrl+Space complete · Ctrl+H patterns · Ctrl+Enter keep · Ctrl+Z undo · Ctrl+T text · Alt+Left back";
    }

    /// Whether a key is one of those that leave a field.
    static boolean leaves(KeyCode code) {
        return code == KeyCode.ENTER || code == KeyCode.ESCAPE;
    }
}
