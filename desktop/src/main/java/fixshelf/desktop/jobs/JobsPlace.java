package fixshelf.desktop.jobs;

import fixshelf.desktop.data.AllowPlace;
import fixshelf.desktop.data.FoundFile;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.FacingPages;
import fixshelf.desktop.parts.PasswordBlank;
import fixshelf.desktop.parts.Place;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.fetch.Consent;
import fixshelf.plan.Line;
import fixshelf.plan.Sentences;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.FixOfLines;
import fixshelf.shelf.JobEdits;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.type.Column;
import fixshelf.work.Datasets;
import fixshelf.work.Preview;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// The job card on the left, the data as of the chosen line on the right.
public final class JobsPlace implements Place, JobCard.Listener, LineEditor.Page, JobRows.Editing, DeleteRows.Teller {
    private final Workbench workbench;
    private final Runnable changed;
    private final Consumer<String> toFix;
    private final JobModel model;
    private final ComboBox<String> jobs = new ComboBox<>();
    private final Label about = Ui.wrapped("", "soft");
    private final JobCard card;
    private final LineEditor lines;
    private final AddLine add;
    private final JobOutputs outputs;
    private final FlowPane buttons = new FlowPane(10, 8);
    private final JobRows rows;
    private final FacingPages pages;
    private @Nullable Path file;
    private @Nullable Runnable stop;
    private Optional<JobModel.Look> look = Optional.empty();
    private long total = -1;
    private @Nullable SourceFile counted;
    private List<Consent.Place> refused = List.of();
    private Optional<Problem> wrong = Optional.empty();
    private final DeleteRows deleting;
    private final NoJobs none;
    private final VBox left;
    private boolean filling;

    public JobsPlace(Workbench workbench, Runnable changed, Consumer<String> toFix) {
        this.workbench = workbench;
        this.changed = changed;
        this.toFix = toFix;
        this.model = new JobModel(workbench.background());
        this.deleting = new DeleteRows(workbench, this);
        this.card = new JobCard(workbench, this);
        this.rows = new JobRows(model, this, this::chosen);
        this.outputs = new JobOutputs(workbench, this::edit);
        jobs.setAccessibleText("Job");
        jobs.getStyleClass().add("job-choice");
        jobs.setOnAction(_ -> {
            if (!filling && jobs.getSelectionModel().getSelectedIndex() >= 0) {
                show(workbench
                        .shelf()
                        .jobs()
                        .get(jobs.getSelectionModel().getSelectedIndex())
                        .file());
            }
        });
        lines = new LineEditor(this, card, this, () -> 1);
        add = new AddLine(this::offeredLines, lines::insert);
        buttons.getStyleClass().add("buttons");
        none = new NoJobs(workbench, this::begin, this::show);
        left = new VBox(Ui.page(leftSheet()), buttons);
        left.addEventFilter(KeyEvent.KEY_PRESSED, lines::key);
        pages = new FacingPages(left, rows.view());
        workbench.shelfProperty().addListener(_ -> refresh());
        fillJobs();
    }

    private VBox leftSheet() {
        HBox head = Ui.row("state", jobs);
        VBox top = new VBox(4, head, about);
        top.getStyleClass().add("sheet");
        HBox writing = Ui.row("job-line", Ui.label("→", "line-number"), outputs.view());
        HBox.setHgrow(outputs.view(), Priority.ALWAYS);
        return new VBox(top, card.view(), add.view(), writing);
    }

    @Override
    public Optional<JobPage> lines() {
        return job();
    }

    private void allowed() {
        refused = List.of();
        refresh();
    }

    @Override
    public Optional<JobPage> job() {
        return file == null ? Optional.empty() : workbench.job(file);
    }

    private void fillJobs() {
        filling = true;
        jobs.getItems()
                .setAll(workbench.shelf().jobs().stream().map(JobPage::title).toList());
        List<Path> files = workbench.shelf().jobs().stream().map(JobPage::file).toList();
        if (file == null && !files.isEmpty()) {
            file = files.getFirst();
            lines.choose(Integer.MAX_VALUE);
        }
        jobs.getSelectionModel().select(files.indexOf(file));
        filling = false;
    }

    /// Shows a job with its last line chosen.
    public void show(Path shown) {
        file = shown;
        deleting.forget();
        look = Optional.empty();
        total = -1;
        lines.choose(Integer.MAX_VALUE);
        rows.turn(Preview.View.ALL);
        refresh();
    }

    @Override
    public void refresh() {
        fillJobs();
        fill();
        job().ifPresent(j -> {
            if (j.problems().stream().anyMatch(Problem::isError)) {
                rows.say(Ui.words(j.problems().getFirst()), true);
            } else {
                model.look(workbench.shelf(), j, this::looked);
            }
        });
    }

    private void looked(Outcome<JobModel.Look> outcome) {
        if (!outcome.isPresent()) {
            look = Optional.empty();
            wrong = outcome.problems().stream().findFirst();
            refused = Consent.askedBy(outcome.problems());
            rows.showNothing(AllowPlace.words(outcome.problems()));
        } else {
            look = outcome.value();
            wrong = Optional.empty();
            deleting.forget();
            refused = Consent.askedBy(outcome.get().problems());
            countAll(outcome.get());
            showRows();
        }
        fill();
    }

    private void countAll(JobModel.Look seen) {
        SourceFile source = seen.planned().source();
        boolean known = seen.total() >= 0;
        if (known) {
            total = seen.total();
        } else if (!source.equals(counted)) {
            total = -1;
            model.countAll(seen, count -> {
                total = count;
                fill();
                changed.run();
            });
        }
        counted = source;
    }

    private void fill() {
        Optional<JobPage> job = job();
        fillButtons();
        changed.run();
        pages.left(job.isEmpty() ? none.view() : left);
        if (job.isEmpty()) {
            rows.showNothing("");
            return;
        }
        about.setText(JobWords.about(workbench, job.get(), look, total));
        lines.choose(lines.chosen());
        card.show(job.get(), lines.chosen(), look);
        outputs.show(job.get(), look);
    }

    private void showRows() {
        look.ifPresent(l -> rows.show(
                l,
                lines.chosen(),
                line -> Sentences.plain(
                        l.planned().plan().steps().get(line - 1).line(),
                        workbench.shelf().callables())));
    }

    private List<NewLines.Offered> offeredLines() {
        return NewLines.offered(
                workbench.shelf(), look.map(l -> l.columnsAt(lines.chosen())).orElse(List.of()));
    }

    @Override
    public void edit(String text) {
        if (file != null) {
            workbench.edit(file, text);
        }
    }

    @Override
    public void chosen(int line) {
        lines.choose(line);
        job().ifPresent(j -> card.show(j, lines.chosen(), look));
        showRows();
        changed.run();
    }

    @Override
    public void changed(int index, Line line) {
        lines.replace(index, line);
    }

    @Override
    public Shelf shelf() {
        return workbench.shelf();
    }

    @Override
    public void insert(int index, Line line) {
        job().ifPresent(j -> {
            lines.choose(index + 2);
            edit(JobEdits.insertLine(j, index, line));
        });
    }

    @Override
    public void fixAsked(String name) {
        toFix.accept(name);
    }

    @Override
    public List<Column> columnsBefore(int line) {
        return look.map(l -> l.columnsAt(line - 1)).orElse(List.of());
    }

    @Override
    public List<String> sourcesBefore(int line) {
        List<String> names = new ArrayList<>();
        job().ifPresent(j -> j.lines().stream()
                .limit(line - 1L)
                .map(l -> l.line().name())
                .filter(n -> !n.isEmpty())
                .forEach(names::add));
        workbench.shelf().datasets().forEach(d -> names.add(d.name()));
        String own = job().map(JobPage::name).orElse("");
        workbench.shelf().jobs().stream()
                .map(JobPage::name)
                .filter(n -> !n.equals(own) && !names.contains(n))
                .forEach(names::add);
        return names;
    }

    /// The columns of the job in view, for the jump field.
    public List<String> columns() {
        return look.map(l ->
                        l.columnsAt(lines.chosen()).stream().map(Column::name).toList())
                .orElse(List.of());
    }

    public void showColumn(String column) {
        rows.showColumn(column);
    }

    /// Chooses a line and one of its reports.
    public void choose(int line, String report) {
        chosen(line);
        rows.turn(new JobModel.Sight(Preview.View.ALL, report));
    }

    /// Shows the life of the first cell of a column in view, as soon as there are rows.
    public void showLife(String column) {
        rows.showLife(column);
    }

    /// Shows where the rows went.
    public void showLedger() {
        rows.showLedger();
    }

    /// Chooses a line and a view of it.
    public void choose(int line, Preview.View wanted) {
        chosen(line);
        rows.turn(wanted);
    }

    /// Begins a new job with the line that reads a file.
    public void begin(Path data) {
        FoundFile begun = new FoundFile(workbench, data);
        workbench.background().ask(Request.now("begin", "looking at " + data.getFileName()), begun::shape, shape -> {
            if (shape.isPresent()) {
                show(begun.begin(shape.get()));
            } else {
                rows.say(shape.problems().getFirst().sentence(), true);
            }
        });
    }

    private void run() {
        job().ifPresent(j -> {
            rows.say("Running …", false);
            model.run(
                    workbench.shelf(),
                    j,
                    (words, stopRun) -> {
                        stop = stopRun;
                        rows.say(words + " …", false);
                        fillButtons();
                    },
                    report -> {
                        stop = null;
                        wrong = report.problems().stream().findFirst();
                        refused = Consent.askedBy(report.problems());
                        fill();
                        String of = job().filter(j::equals).isPresent() ? "" : j.title() + ": ";
                        rows.say(
                                of
                                        + (report.isPresent()
                                                ? JobWords.report(workbench, report.get())
                                                : AllowPlace.words(report.problems())),
                                !report.isPresent());
                    });
        });
    }

    @Override
    public void tell(String words, boolean wrong, List<Consent.Place> asked) {
        refused = asked;
        fillButtons();
        rows.say(words, wrong);
    }

    @Override
    public void deleted(String words) {
        look.ifPresent(l ->
                Datasets.forgetCopy(workbench.shelf(), l.planned().plan().read().name()));
        refresh();
        rows.say(words, false);
    }

    /// The lines up to the chosen one become a table fix, which is opened; the job calls it in their place.
    private void makeFix() {
        Optional<JobPage> job = job();
        if (job.isEmpty() || look.isEmpty()) {
            return;
        }
        int last = lines.chosen();
        Optional<String> refusal =
                FixOfLines.refusal(look.get().planned().plan().steps().subList(1, last));
        if (refusal.isPresent()) {
            rows.say(refusal.get(), true);
            return;
        }
        Path page = workbench.freeFile("fixes/tables", job.get().name() + "_lines", ".fix.md");
        String name = page.getFileName().toString().replace(".fix.md", "");
        FixOfLines.Made made =
                look.get().asFix(name, job.get(), last, workbench.shelf().callables());
        workbench.edit(page, made.page());
        lines.choose(2);
        edit(JobEdits.callInstead(job.get(), 2, last, made.call()));
        toFix.accept(name);
    }

    private void fillButtons() {
        buttons.getChildren().clear();
        for (Command command : usual()) {
            buttons.getChildren().add(Ui.button(command, buttons.getChildren().isEmpty() ? "strong" : "usual"));
        }
        AllowPlace.command(workbench, refused, this::allowed, w -> rows.say(w, true))
                .ifPresent(c -> buttons.getChildren().addFirst(Ui.button(c, "strong")));
        PasswordBlank.of(wrong, this::allowed).ifPresent(buttons.getChildren()::addFirst);
        deleting.confirm().ifPresent(c -> buttons.getChildren().add(Ui.button(c)));
        sometimes().stream().filter(c -> c.enabled().getAsBoolean()).forEach(c -> buttons.getChildren()
                .add(Ui.button(c)));
    }

    @Override
    public String title() {
        return "Jobs";
    }

    @Override
    public Region view() {
        return pages;
    }

    @Override
    public List<Command> commands() {
        List<Command> all = new ArrayList<>(usual());
        all.addAll(sometimes());
        all.add(deleting.look(look));
        all.add(Command.of("Beside another line", "Shortcut+Shift+B", rows::chooseBeside)
                .when(() -> look.isPresent()));
        all.add(Command.of("Other names for the columns, one after another", "F2", rows::nameColumns)
                .when(() -> look.isPresent()));
        all.add(Command.of("Rows from the whole file, or the first", "Shortcut+Shift+R", rows::turnSample)
                .when(rows::isSample));
        return all;
    }

    /// The commands that always have a button.
    private List<Command> usual() {
        return List.of(
                Command.of("Run", "Shortcut+R", this::run).when(() -> file != null && stop == null),
                Command.of("Where the rows went", "Shortcut+L", rows::showLedger)
                        .when(() -> look.isPresent()),
                Command.of("Make a fix of these lines", "Shortcut+Shift+F", this::makeFix)
                        .when(() -> look.isPresent() && lines.chosen() > 1),
                Command.of("Keep", "Shortcut+S", () -> tell(workbench.keep(Objects.requireNonNull(file))))
                        .when(() -> file != null && workbench.isDraft(file)),
                Command.of("Undo", "Shortcut+Alt+Z", () -> workbench.undo(file))
                        .when(() -> file != null && workbench.canUndo(file)),
                Command.of("Redo", "Shortcut+Alt+Shift+Z", () -> workbench.redo(file))
                        .when(() -> file != null && workbench.canRedo(file)));
    }

    /// The commands that have a button only while there is something to stop, or to read again.
    private List<Command> sometimes() {
        return List.of(
                Command.of("Stop the run", "", () -> Objects.requireNonNull(stop)
                                .run())
                        .when(() -> stop != null),
                Command.of("Read it again", "", () -> tell(workbench.readAgain(Objects.requireNonNull(file))))
                        .when(() -> file != null && workbench.isChangedElsewhere(file)));
    }

    private void tell(Outcome<Path> done) {
        if (!done.isPresent()) {
            rows.say(Ui.words(done.problems().getFirst()), true);
            fillButtons();
        }
    }

    @Override
    public String status() {
        if (look.isEmpty()) {
            return "DuckDB, inside";
        }
        JobModel.Look seen = look.get();
        boolean all = total >= 0 && seen.rows() >= total;
        String rows =
                seen.looked() + (all || model.isSpread() ? "" : total < 0 ? " of …" : String.format(" of %,d", total));
        return "DuckDB, inside · " + rows + " · " + seen.millis() + " ms";
    }

    @Override
    public String keys() {
        return "Ctrl+J jump · ↑↓ line · Alt+↑↓ move it · R rest · Del take it out · F2 names · Enter on a cell its life · Ctrl+R run";
    }

    @Override
    public void enter() {
        refresh();
    }

    @Override
    public void focus() {
        lines.focus();
    }
}
