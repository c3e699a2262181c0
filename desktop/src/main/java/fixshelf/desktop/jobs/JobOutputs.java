package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.problem.Span;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.render.sql.SqlLanguage;
import fixshelf.shelf.DelimitedText;
import fixshelf.shelf.JobEdits;
import fixshelf.shelf.JobPage;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Pane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// Where the rows of a job go: a sentence for each output, whose blanks are edited in place.
final class JobOutputs {
    private final Workbench workbench;
    private final Consumer<String> edit;
    private final VBox view = new VBox(4);
    private Optional<JobModel.Look> wrong = Optional.empty();

    /// The outputs of delimited text of which all is shown that can be said.
    private final Set<String> opened = new HashSet<>();

    /// `edit` takes the new text of the job's page.
    JobOutputs(Workbench workbench, Consumer<String> edit) {
        this.workbench = workbench;
        this.edit = edit;
    }

    VBox view() {
        return view;
    }

    /// Shows them anew, with what is wrong with each; who was at a blank stays there.
    void show(JobPage job, Optional<JobModel.Look> look) {
        wrong = look;
        List<Node> before = List.copyOf(view.getChildren());
        @Nullable
        Node focused = view.getScene() == null ? null : view.getScene().getFocusOwner();
        build(job);
        for (int i = 0; i < Math.min(before.size(), view.getChildren().size()); i++) {
            if (!(before.get(i) instanceof Pane was && view.getChildren().get(i) instanceof Pane is)) {
                continue;
            }
            int at = was.getChildren().indexOf(focused);
            List<Node> now = is.getChildren();
            if (focused != null && at >= 0 && !now.isEmpty()) {
                now.get(Math.min(at, now.size() - 1)).requestFocus();
            }
        }
    }

    private void build(JobPage job) {
        view.getChildren().clear();
        int count = Math.max(1, job.outputs().size());
        for (int i = 0; i < count; i++) {
            Optional<JobPage.Output> output =
                    i < job.outputs().size() ? Optional.of(job.outputs().get(i)) : Optional.empty();
            int index = i;
            String file = output.map(JobPage.Output::path).orElse("a file, .parquet or .csv");
            FlowPane row = new FlowPane(6, 2, Ui.label("Write to"), path(file, job, index));
            output.filter(o -> o.table().isPresent() || JobPage.Output.isDatabase(o.path()))
                    .ifPresent(o -> table(row, job, index, o));
            output.filter(JobPage.Output::isWorkbook).ifPresent(o -> sheet(row, job, index, o));
            output.filter(JobPage.Output::isText).ifPresent(o -> text(row, job, index, o));
            output.filter(JobPage.Output::isDefinition).ifPresent(o -> row.getChildren()
                    .addAll(
                            Ui.label("as a view in"),
                            Ui.blank(
                                    language(o).title(),
                                    "blank",
                                    () -> set(job, index, o.as(next(language(o)).id())))));
            output.filter(o -> o.table().isEmpty()).ifPresent(o -> row.getChildren()
                    .add(Ui.blank(
                            o.replace() ? "replacing what is there" : "only if it is not there",
                            "blank",
                            () -> set(job, index, o.replacing(!o.replace())))));
            output.filter(o -> !o.isDefinition()).ifPresent(o -> held(row, job, index, o));
            row.setMinWidth(0);
            view.getChildren().add(row);
            wrong.filter(_ -> output.isPresent()).stream()
                    .flatMap(look -> look.wrongWith(index))
                    .forEach(words -> view.getChildren().add(Ui.wrapped("▲ " + words, "problem", "small")));
        }
        if (!job.outputs().isEmpty()) {
            Button more = path("another file …", job, job.outputs().size());
            view.getChildren().add(new FlowPane(6, 2, Ui.label("Write to", "soft"), more));
        }
        boolean named = job.lines().stream().anyMatch(l -> !l.line().name().isEmpty());
        if (named || !job.result().isEmpty()) {
            String now = job.result().isEmpty()
                    ? "the last line"
                    : job.result().matches("[0-9]+") ? "line " + job.result() : job.result();
            String prompt = "a name or number; empty: the last line";
            Button result = typed(
                    "result: ", now, job.result(), prompt, job, said -> edit.accept(JobEdits.setResult(job, said)));
            view.getChildren().add(new FlowPane(6, 2, Ui.label("The result is that of"), result));
        }
    }

    /// Which table of a database, what becomes of one that is there, and as whom a server is asked. Before there is a
    /// table, nothing can be said of it.
    private void table(FlowPane row, JobPage job, int index, JobPage.Output output) {
        JobPage.ToTable to = output.table().orElse(JobPage.ToTable.called(""));
        Consumer<JobPage.ToTable> take = t -> set(job, index, output.into(t));
        List<Node> parts = row.getChildren();
        parts.add(Ui.label("as table"));
        String table = to.table().isEmpty() ? "which?" : to.table();
        parts.add(typed(
                "table: ",
                table,
                to.table(),
                "a table, or schema.table",
                job,
                said -> take.accept(
                        said.isEmpty() ? to : new JobPage.ToTable(said, to.mode(), to.user(), to.passwordFrom()))));
        if (to.table().isEmpty()) {
            return;
        }
        parts.add(Ui.blank(
                words(to.mode()),
                "blank",
                () -> take.accept(new JobPage.ToTable(to.table(), next(to.mode()), to.user(), to.passwordFrom()))));
        if (!JobPage.Output.isServer(output.path())) {
            return;
        }
        String user = to.user().isEmpty() ? "the usual user" : to.user();
        String password = to.passwordFrom().isEmpty() ? "no password" : "the password in " + to.passwordFrom();
        parts.addAll(List.of(
                Ui.label("as"),
                typed(
                        "user: ",
                        user,
                        to.user(),
                        "a user; empty: the usual one",
                        job,
                        said -> take.accept(new JobPage.ToTable(to.table(), to.mode(), said, to.passwordFrom()))),
                Ui.label("with"),
                typed(
                        "variable with the password: ",
                        password,
                        to.passwordFrom(),
                        "a variable of the system that holds it",
                        job,
                        said -> take.accept(new JobPage.ToTable(to.table(), to.mode(), to.user(), said)))));
    }

    /// Which rows it holds: the result, those of another line, or a report of one.
    private void held(FlowPane row, JobPage job, int index, JobPage.Output output) {
        String now = output.of()
                .map(of -> (of.report().isEmpty() ? "the rows" : of.report().replace('_', ' ')) + " of "
                        + (of.line().matches("[0-9]+") ? "line " : "") + of.line())
                .orElse("the result");
        String written =
                output.of().map(of -> (of.line() + " " + of.report()).strip()).orElse("");
        String prompt = "a line, as 4; or 4 left; empty: the result";
        row.getChildren().addAll(Ui.label("holding"), typed("holding: ", now, written, prompt, job, said -> {
            String[] words = said.split("\\s+", 2);
            Optional<JobPage.OfReport> of = words[0].isEmpty()
                    ? Optional.empty()
                    : Optional.of(new JobPage.OfReport(words[0], words.length == 1 ? "" : words[1].replace(' ', '_')));
            set(job, index, output.holding(of));
        }));
    }

    /// How delimited text is written: what is usual is told only where one asks for more.
    private void text(FlowPane row, JobPage job, int index, JobPage.Output output) {
        DelimitedText now = output.text();
        String separator = now.separatorIn(output.path());
        Consumer<DelimitedText> take = text -> set(job, index, output.told(text));
        String key = job.name() + " " + index;
        boolean all = opened.contains(key);
        List<Node> parts = row.getChildren();
        parts.addAll(List.of(
                Ui.label("with"),
                Ui.blank(
                        SEPARATORS.getOrDefault(separator, separator),
                        "blank",
                        () -> take.accept(now.separatedBy(after(List.copyOf(SEPARATORS.keySet()), separator)))),
                Ui.label("in"),
                typed(
                        "encoding: ",
                        now.encoding().toLowerCase(Locale.ROOT),
                        now.encoding(),
                        "utf-8, windows-1252, utf-16le or another",
                        job,
                        said -> take.accept(now.in(said.isEmpty() ? "utf-8" : said))),
                Ui.blank(
                        now.guarded() ? "formulas guarded by '" : "formulas as they are",
                        "blank",
                        () -> take.accept(now.guarding(!now.guarded())))));
        if (all || !now.heading()) {
            parts.add(Ui.blank(
                    now.heading() ? "names in the first row" : "no row of names",
                    "blank",
                    () -> take.accept(now.headed(!now.heading()))));
        }
        if (all || !now.missing().isEmpty()) {
            String word = now.missing().isEmpty() ? "nothing" : now.missing();
            parts.add(typed(
                    "for what is missing: ",
                    word + " for missing",
                    now.missing(),
                    "a word; empty: nothing",
                    job,
                    said -> take.accept(now.saying(said))));
        }
        if (all || now.quoted()) {
            parts.add(Ui.blank(
                    now.quoted() ? "everything in quotes" : "quotes where needed",
                    "blank",
                    () -> take.accept(now.quoting(!now.quoted()))));
        }
        if (all || now.crlf()) {
            parts.add(Ui.blank(
                    now.crlf() ? "rows ending with CR LF" : "rows ending with LF",
                    "blank",
                    () -> take.accept(now.ending(!now.crlf()))));
        }
        boolean canMark = DelimitedText.isWritable(now.encoding()) && DelimitedText.hasMark(now.encoding());
        if (canMark && all || now.mark()) {
            parts.add(Ui.blank(
                    now.mark() ? "a byte order mark" : "no byte order mark",
                    "blank",
                    () -> take.accept(now.marked(!now.mark()))));
        }
        Button more = Ui.blank(all ? "less" : "more …", "blank", () -> {
            if (!opened.remove(key)) {
                opened.add(key);
            }
            show(job, wrong);
        });
        more.setAccessibleText(all ? "only what is not usual" : "all that can be said of the text");
        parts.add(more);
    }

    /// A blank that is typed into, in its place.
    ///
    /// @param about what it says, for those who hear it
    private Button typed(
            String about, String shown, String written, String prompt, JobPage job, Consumer<String> take) {
        Button button = Ui.blank(shown, "blank", () -> {});
        button.setAccessibleText(about + shown);
        button.setOnAction(_ -> {
            TextField field = new TextField(written);
            field.getStyleClass().add("inline-edit");
            field.setPromptText(prompt);
            field.setAccessibleText(about.strip());
            List<Node> parts = ((Pane) button.getParent()).getChildren();
            parts.set(parts.indexOf(button), field);
            field.requestFocus();
            field.setOnKeyPressed(e -> {
                if (e.getCode() == KeyCode.ESCAPE) {
                    show(job, wrong);
                }
            });
            field.setOnAction(_ -> take.accept(field.getText().strip()));
        });
        return button;
    }

    private static final Map<String, String> SEPARATORS = new LinkedHashMap<>();

    static {
        SEPARATORS.put(",", "commas");
        SEPARATORS.put(";", "semicolons");
        SEPARATORS.put("\t", "tabs");
        SEPARATORS.put("|", "bars");
    }

    private static String after(List<String> all, String now) {
        return all.get((all.indexOf(now) + 1) % all.size());
    }

    /// Which sheet of a workbook, and what becomes of what it cannot hold.
    private void sheet(FlowPane row, JobPage job, int index, JobPage.Output output) {
        JobPage.InSheet now = output.sheet();
        String shown = now.name().isEmpty() ? "called like the file" : now.name();
        row.getChildren()
                .addAll(
                        Ui.label("as sheet"),
                        typed(
                                "sheet: ",
                                shown,
                                now.name(),
                                "the sheet; empty: as the file",
                                job,
                                said -> set(job, index, output.in(new JobPage.InSheet(said, now.asText())))),
                        Ui.blank(
                                now.asText() ? "texts for what it cannot hold" : "stopping at what it cannot hold",
                                "blank",
                                () -> set(job, index, output.in(new JobPage.InSheet(now.name(), !now.asText())))));
    }

    private static final List<Language> VIEWS =
            Languages.ALL.stream().filter(SqlLanguage.class::isInstance).toList();

    private static Language language(JobPage.Output output) {
        return VIEWS.stream()
                .filter(l -> l.id().equals(output.language()))
                .findFirst()
                .orElse(VIEWS.getFirst());
    }

    private static Language next(Language now) {
        return VIEWS.get((VIEWS.indexOf(now) + 1) % VIEWS.size());
    }

    private static String words(String mode) {
        return switch (mode) {
            case "replace" -> "instead of what is there";
            case "append" -> "behind what is there";
            default -> "only if it is not there";
        };
    }

    private static String next(String mode) {
        return switch (mode) {
            case "create" -> "replace";
            case "replace" -> "append";
            default -> "create";
        };
    }

    /// The file of an output; of one more, where there are not so many yet.
    private Button path(String shown, JobPage job, int index) {
        boolean known = index < job.outputs().size();
        String usual = workbench.shelf().settings().values().containsKey("out") ? "{out}/" : "out/";
        String number = index == 0 ? "" : "-" + (index + 1);
        String written = known ? shown : usual + job.name() + number + ".parquet";
        return typed("file: ", shown, written, "a file", job, said -> {
            JobPage.Output now = known ? job.outputs().get(index).at(said) : new JobPage.Output(said, false, Span.NONE);
            boolean lacksTable = JobPage.Output.isDatabase(said) && now.table().isEmpty();
            set(job, index, lacksTable ? now.into(JobPage.ToTable.called(job.name())) : now);
        });
    }

    private void set(JobPage job, int index, JobPage.Output output) {
        edit.accept(JobEdits.setOutput(job, index, output));
    }
}
