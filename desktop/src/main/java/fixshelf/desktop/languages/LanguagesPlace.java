package fixshelf.desktop.languages;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.FacingPages;
import fixshelf.desktop.parts.Place;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.shelf.TryIt;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.export.Export;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.work.PlannedJob;
import fixshelf.work.TableFixCode;
import java.io.File;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;

/// What each language can say of a fix, of a job or of the whole shelf, the code to copy, and the proof that
/// answers are the same.
public final class LanguagesPlace implements Place {
    static final int FEW_VALUES = 200;

    private static final String WHOLE_SHELF = "the whole shelf";
    private static final String JOB = "job ";
    private static final int MANY_VALUES = 10_000;
    private static final int PROVEN_VALUES = 100;

    private final Workbench workbench;
    private final FixInLanguages ofFix;
    private final JobInLanguages ofJob;
    private final InLanguages ofShelf;
    private final Label subtitle = Ui.wrapped("", "soft");
    private final List<Label> saved = new ArrayList<>();
    private final ScrollPane right;
    private final Runnable changed;
    private final ComboBox<String> things = new ComboBox<>();
    private final VBox languages = new VBox();
    private final FacingPages pages;
    private int chosen = 1;
    private boolean filling;
    private boolean waiting;

    public LanguagesPlace(Workbench workbench, Runnable changed) {
        this.workbench = workbench;
        this.changed = changed;
        ParityModel parity = new ParityModel(workbench.background());
        ofFix = new FixInLanguages(workbench, parity, buttons(List.of(0, 1, 2, 3)), this::fillSoon);
        ofJob = new JobInLanguages(workbench, buttons(List.of(0, 3)), this::fillSoon);
        ofShelf = new ShelfInLanguages(
                workbench,
                parity,
                (name, language) -> {
                    show(name);
                    choose(language.id());
                },
                buttons(List.of(2, 3)),
                this::fillSoon);
        things.setAccessibleText("Fix or job");
        things.valueProperty().addListener(_ -> {
            if (!filling) {
                take();
            }
        });
        VBox head = Ui.column("sheet", things, subtitle);
        Region left = Ui.page(new VBox(head, languages));
        right = Ui.page(new VBox());
        pages = new FacingPages(left, right);
        pages.setDividerPositions(0.33);
        workbench.shelfProperty().addListener(_ -> {
            if (pages.getScene() != null) {
                enter();
            }
        });
    }

    /// Some of the commands as buttons, with room for what came of saving.
    private Node buttons(List<Integer> numbers) {
        HBox row = Ui.row("state");
        for (int number : numbers) {
            row.getChildren()
                    .add(Ui.button(commands().get(number), row.getChildren().isEmpty() ? "strong" : "usual"));
        }
        Label words = Ui.wrapped("", "soft");
        saved.add(words);
        return new VBox(4, row, words);
    }

    /// What is shown now; empty on a shelf without fixes.
    private Optional<InLanguages> shown() {
        String value = Objects.requireNonNullElse(things.getValue(), "");
        if (value.equals(WHOLE_SHELF)) {
            return Optional.of(ofShelf);
        }
        Optional<JobPage> job =
                value.startsWith(JOB) ? workbench.shelf().job(value.substring(JOB.length())) : Optional.empty();
        if (job.isPresent()) {
            ofJob.show(job.get());
            return Optional.of(ofJob);
        }
        return workbench.shelf().fix(value).map(page -> {
            ofFix.show(page);
            return ofFix;
        });
    }

    /// Shows a fix, or what else the list calls so.
    public void show(String name) {
        things.setValue(name);
    }

    public void showJob(String name) {
        things.setValue(JOB + name);
    }

    public void showWholeShelf() {
        things.setValue(WHOLE_SHELF);
    }

    public void choose(String languageId) {
        for (int i = 0; i < Languages.ALL.size(); i++) {
            if (Languages.ALL.get(i).id().equals(languageId)) {
                choose(i);
            }
        }
    }

    private void choose(int index) {
        chosen = index;
        fill();
        languages.getChildren().get(index).requestFocus();
    }

    private void take() {
        saved.forEach(s -> s.setText(""));
        shown().ifPresent(s -> s.check(FEW_VALUES));
        fill();
    }

    /// Fills once for all results that are waiting already.
    private void fillSoon() {
        if (!waiting) {
            waiting = true;
            Platform.runLater(() -> {
                waiting = false;
                fill();
            });
        }
    }

    private void fill() {
        Optional<InLanguages> shown = shown();
        if (shown.isEmpty()) {
            subtitle.setText(
                    "The shelf has no fix yet. On Shelf (Ctrl+1) one is written, or taken ready-made; here it is said in every"
                            + " language, and run in those that are on this machine.");
            languages.getChildren().clear();
            return;
        }
        subtitle.setText(shown.get().subtitle());
        boolean focused = languages.getChildren().stream().anyMatch(Node::isFocused);
        languages.getChildren().clear();
        for (int i = 0; i < Languages.ALL.size(); i++) {
            languages
                    .getChildren()
                    .add(entry(Languages.ALL.get(i), i, shown.get().standing(Languages.ALL.get(i))));
        }
        if (focused) {
            languages.getChildren().get(chosen).requestFocus();
        }
        right.setContent(shown.get().page(Languages.ALL.get(chosen)));
        changed.run();
    }

    private Region entry(Language language, int index, InLanguages.Standing standing) {
        Label name = Ui.label(language.title());
        HBox line = Ui.row("entry-marks", name, Ui.spring(), Ui.label(standing.mark(), standing.style()));
        VBox box = Ui.column("language", line);
        if (!standing.detail().isEmpty()) {
            box.getChildren().add(Ui.wrapped(standing.detail(), "soft", "small"));
        }
        Ui.mark(box, "chosen", index == chosen);
        box.setFocusTraversable(true);
        box.setAccessibleText(language.title() + ": " + standing.mark());
        box.setOnMouseClicked(_ -> choose(index));
        box.setOnKeyPressed(e -> {
            int next = e.getCode() == KeyCode.DOWN ? index + 1 : e.getCode() == KeyCode.UP ? index - 1 : -1;
            if (next >= 0 && next < Languages.ALL.size()) {
                choose(next);
                e.consume();
            }
        });
        return box;
    }

    @Override
    public String title() {
        return "Languages";
    }

    @Override
    public Region view() {
        return pages;
    }

    @Override
    public List<Command> commands() {
        return List.of(
                Command.of("Copy", "Shortcut+Shift+C", () -> shown().ifPresent(
                                s -> TryIt.copyText(s.code(Languages.ALL.get(chosen))))),
                Command.of("As an expression or a function", "Shortcut+Shift+E", () -> ofFix.turn()),
                Command.of(
                        "Check 10,000 values", "Shortcut+Shift+P", () -> shown().ifPresent(s -> s.check(MANY_VALUES))),
                Command.of("Save the whole shelf …", "Shortcut+Shift+S", this::chooseAndSave));
    }

    private void chooseAndSave() {
        DirectoryChooser chooser = new DirectoryChooser();
        chooser.setTitle(
                "A folder for the shelf in " + Languages.ALL.get(chosen).title());
        Optional.ofNullable(chooser.showDialog(pages.getScene().getWindow()))
                .map(File::toPath)
                .ifPresent(this::save);
    }

    /// Saves the whole shelf in the chosen language, with its cases as tests, and says what came of it.
    public void save(Path folder) {
        Language language = Languages.ALL.get(chosen);
        Shelf shelf = workbench.shelf();
        saved.forEach(s -> s.setText("Saving …"));
        workbench
                .background()
                .ask(
                        Request.now("export", "saving the shelf in " + language.title()),
                        () -> Export.write(
                                shelf,
                                language,
                                folder,
                                new Export.Wanted(
                                        true,
                                        PROVEN_VALUES,
                                        false,
                                        PlannedJob.codes(shelf, new ArrayList<>()),
                                        TableFixCode.all(shelf, new ArrayList<>()))),
                        report -> saved.forEach(s -> {
                            Ui.mark(s, "problem", !report.isPresent());
                            s.setText(
                                    report.isPresent()
                                            ? savedWords(report.get(), language)
                                            : report.problems().getFirst().sentence());
                        }));
    }

    private static String savedWords(Export.Report report, Language language) {
        String files = Ui.joined(
                report.files().stream().map(f -> f.getFileName().toString()).toList());
        String left = report.refused().isEmpty()
                ? ""
                : " Left out, because " + language.title() + " cannot say them: "
                        + Ui.joined(report.refused().stream()
                                .map(r -> r.substring(0, r.indexOf(':')))
                                .distinct()
                                .toList())
                        + ".";
        return "Wrote " + files + "." + left;
    }

    @Override
    public String status() {
        return shown().map(InLanguages::status).orElse("");
    }

    @Override
    public String keys() {
        return "Ctrl+J jump · ↑↓ language · Ctrl+Shift+C copy code";
    }

    @Override
    public void enter() {
        filling = true;
        String now = things.getValue();
        List<String> names = new ArrayList<>(List.of(WHOLE_SHELF));
        workbench.shelf().jobs().forEach(j -> names.add(JOB + j.name()));
        List<String> fixes =
                workbench.shelf().fixes().stream().map(FixPage::name).toList();
        names.addAll(fixes);
        things.getItems().setAll(names);
        String usual = fixes.contains("squeeze_spaces")
                ? "squeeze_spaces"
                : fixes.stream().findFirst().orElse(null);
        things.setValue(now != null && names.contains(now) ? now : usual);
        filling = false;
        take();
    }

    @Override
    public void focus() {
        if (chosen < languages.getChildren().size()) {
            languages.getChildren().get(chosen).requestFocus();
        }
    }
}
