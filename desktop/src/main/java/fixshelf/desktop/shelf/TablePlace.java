package fixshelf.desktop.shelf;

import fixshelf.desktop.jobs.AddLine;
import fixshelf.desktop.jobs.JobCard;
import fixshelf.desktop.jobs.JobModel;
import fixshelf.desktop.jobs.LineEditor;
import fixshelf.desktop.jobs.NewLines;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.FacingPages;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Line;
import fixshelf.plan.Written;
import fixshelf.problem.Outcome;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.TableFixEdits;
import fixshelf.shelf.TableFixPage;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// A table fix: left its page with its lines as sentences, right a table before and after, and its cases.
public final class TablePlace implements JobCard.Listener, LineEditor.Page {
    private final Workbench workbench;
    private final Runnable changed;
    private final Label about = Ui.wrapped("", "soft");
    private final TableFixWords words;
    private final JobCard card;
    private final LineEditor lines;
    private final AddLine add;
    private final VBox problems = new VBox(4);
    private final TextArea text = new TextArea();
    private final VBox sheet = Ui.column("sheet");
    private final VBox form;
    private final HBox buttons = Ui.row("buttons");
    private final TableTryPage trying;
    private final FacingPages view;
    private @Nullable Path file;
    private Runnable leave = () -> {};
    private boolean asText;
    private boolean filling;

    TablePlace(Workbench workbench, Runnable changed) {
        this.workbench = workbench;
        this.changed = changed;
        this.card = new JobCard(workbench, this);
        words = new TableFixWords(workbench, this::page, this::edit);
        lines = new LineEditor(this, card, this, this::fixed);
        add = new AddLine(this::offeredLines, lines::insert);
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
                words.head(),
                about,
                Ui.label("Lines", "heading"),
                card.view(),
                add.view(),
                Ui.label("Parameters", "heading"),
                words.parameters(),
                Ui.label("Promises", "heading"),
                words.promises());
        sheet.getChildren().add(form);
        VBox left = new VBox(Ui.page(sheet), buttons);
        left.addEventFilter(KeyEvent.KEY_PRESSED, lines::key);
        trying = new TableTryPage(workbench, this::page, this::edit, this::fill);
        view = new FacingPages(left, trying.view());
        view.setDividerPositions(0.4);
        workbench.shelfProperty().addListener(_ -> fill());
    }

    Region view() {
        return view;
    }

    void onLeave(Runnable run) {
        leave = run;
    }

    void show(Path page) {
        file = page;
        lines.choose(1);
        asText = false;
        trying.begin();
        fill();
    }

    void focus() {
        lines.focus();
    }

    @Override
    public Optional<JobPage> lines() {
        return page().map(TableFixEdits::asLines);
    }

    /// How many lines stand before those over a table: the one of a loader that reads.
    private int fixed() {
        return page().filter(TableFixPage::isLoader).isPresent() ? 1 : 0;
    }

    private Optional<TableFixPage> page() {
        return file == null ? Optional.empty() : workbench.table(file);
    }

    @Override
    public void edit(String now) {
        if (file != null && !filling) {
            workbench.edit(file, now);
            trying.look();
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
        long used = workbench.shelf().usersOf(page.name()).size();
        about.setText("a " + page.what() + " · " + page.version()
                + (workbench.isDraft(page.file()) ? ", being written" : "")
                + (used == 0 ? "" : " · used in " + used));
        words.fill(page);
        lines.choose(lines.chosen());
        card.show(TableFixEdits.asLines(page), lines.chosen(), trying.trial().map(t -> seen(t)));
        problems.getChildren()
                .setAll(page.problems().stream()
                        .limit(4)
                        .map(p -> (Node) Ui.wrapped("▲ " + p.sentence(), "problem", "small"))
                        .toList());
        trying.fillCases();
    }

    /// Puts these on the left page; what stands there already keeps the focus.
    private void only(Node... nodes) {
        if (!sheet.getChildren().equals(List.of(nodes))) {
            sheet.getChildren().setAll(nodes);
        }
    }

    static <T> String say(Blank<T> blank, Written written) {
        return blank.kind().say(written);
    }

    /// What was found, with the effects of the lines of the fix.
    private static JobModel.Look seen(JobModel.Trial trial) {
        JobModel.Look last = trial.looks().getLast();
        return new JobModel.Look(
                last.planned(),
                trial.effects(),
                List.of(),
                List.of(),
                List.of(),
                last.rows(),
                last.looked(),
                last.total(),
                last.millis());
    }

    private void fillButtons() {
        buttons.getChildren().clear();
        for (Command command : commands()) {
            boolean button =
                    !command.text().startsWith("Make a case") && !command.text().equals("Redo");
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
                            trying.look();
                        })
                        .when(() -> file != null && workbench.canUndo(file)),
                Command.of("Redo", "Shortcut+Alt+Shift+Z", () -> {
                            workbench.redo(file);
                            trying.look();
                        })
                        .when(() -> file != null && workbench.canRedo(file)),
                TablePromiseLines.keepBroken(workbench, this::page, this::edit),
                Command.of("Make a case of the first rows", "Shortcut+K", trying::keepCase)
                        .when(() -> trying.trial().isPresent()),
                Command.of("Back to the shelf", "Esc", () -> leave.run()));
    }

    private void keep() {
        Ui.commitTyped(form);
        Outcome<Path> kept = workbench.keep(Objects.requireNonNull(file));
        trying.say(kept.isPresent() ? "Kept." : kept.problems().getFirst().sentence(), !kept.isPresent());
        fill();
    }

    private List<NewLines.Offered> offeredLines() {
        List<Column> known = columnsBefore(lines.chosen() + 1);
        List<Column> columns = known.isEmpty() ? trying.columns() : known;
        return NewLines.offered(workbench.shelf(), columns);
    }

    @Override
    public void chosen(int line) {
        lines.choose(line);
        page().ifPresent(p -> card.show(
                TableFixEdits.asLines(p), lines.chosen(), trying.trial().map(t -> seen(t))));
        trying.showAfter(line - fixed());
    }

    @Override
    public void changed(int index, Line line) {
        lines.replace(index, line);
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
        trying.trial().ifPresent(t -> {
            int at = Math.min(line - 1 - fixed(), t.looks().size() - 1);
            if (fixed() > 0) {
                all.addAll(TableTryPage.columnsOf(t, Math.max(0, at)));
                return;
            }
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

    @Override
    public List<String> sourcesBefore(int line) {
        return workbench.shelf().datasets().stream().map(d -> d.name()).toList();
    }

    String status() {
        return "DuckDB, inside · "
                + trying.trial()
                        .map(t -> Ui.count(t.looks().getLast().rows(), "row", "rows") + " tried")
                        .orElse("not tried yet");
    }

    String keys() {
        return "↑↓ line · Alt+↑↓ move it · R rest · Del take it out · Ctrl+K rows to a case · Ctrl+S keep · Esc back";
    }
}
