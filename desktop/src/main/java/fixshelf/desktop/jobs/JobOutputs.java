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
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Pane;
import javafx.scene.layout.VBox;

/// Where the rows of a job go: a sentence for each output, whose blanks are edited in place.
final class JobOutputs {
    private final Workbench workbench;
    private final Consumer<String> edit;
    private final VBox view = new VBox(4);

    /// `edit` takes the new text of the job's page.
    JobOutputs(Workbench workbench, Consumer<String> edit) {
        this.workbench = workbench;
        this.edit = edit;
    }

    VBox view() {
        return view;
    }

    void show(JobPage job) {
        view.getChildren().clear();
        int count = Math.max(1, job.outputs().size());
        for (int i = 0; i < count; i++) {
            Optional<JobPage.Output> output =
                    i < job.outputs().size() ? Optional.of(job.outputs().get(i)) : Optional.empty();
            int index = i;
            Button path =
                    Ui.blank(output.map(JobPage.Output::path).orElse("a file, .parquet or .csv"), "blank", () -> {});
            path.setOnAction(_ -> write(path, job, index));
            FlowPane row = new FlowPane(6, 2, Ui.label("Write to"), path);
            output.flatMap(JobPage.Output::table).ifPresent(t -> row.getChildren()
                    .addAll(
                            Ui.label("as table"),
                            Ui.label(t.table(), "strong"),
                            Ui.blank(
                                    words(t.mode()),
                                    "blank",
                                    () -> set(
                                            job,
                                            index,
                                            output.get()
                                                    .into(new JobPage.ToTable(
                                                            t.table(), next(t.mode()), t.user(), t.passwordFrom()))))));
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
        }
        if (!job.outputs().isEmpty()) {
            int next = job.outputs().size();
            Button more = Ui.blank("another file …", "blank", () -> {});
            more.setOnAction(_ -> write(more, job, next));
            view.getChildren().add(new FlowPane(6, 2, Ui.label("Write to", "soft"), more));
        }
        boolean named = job.lines().stream().anyMatch(l -> !l.line().name().isEmpty());
        if (named || !job.result().isEmpty()) {
            String now = job.result().isEmpty()
                    ? "the last line"
                    : job.result().matches("[0-9]+") ? "line " + job.result() : job.result();
            Button result = Ui.blank(now, "blank", () -> {});
            result.setAccessibleText("result: " + now);
            result.setOnAction(_ -> setResult(result, job));
            view.getChildren().add(new FlowPane(6, 2, Ui.label("The result is that of"), result));
        }
    }

    /// Which rows it holds: the result, those of another line, or a report of one.
    private void held(FlowPane row, JobPage job, int index, JobPage.Output output) {
        String now = output.of()
                .map(of -> (of.report().isEmpty() ? "the rows" : of.report().replace('_', ' ')) + " of "
                        + (of.line().matches("[0-9]+") ? "line " : "") + of.line())
                .orElse("the result");
        Button held = Ui.blank(now, "blank", () -> {});
        held.setAccessibleText("holding: " + now);
        held.setOnAction(_ -> {
            TextField field = new TextField(output.of()
                    .map(of -> (of.line() + " " + of.report()).strip())
                    .orElse(""));
            field.getStyleClass().add("inline-edit");
            field.setPromptText("a line, as 4; or 4 left; empty: the result");
            field.setAccessibleText("Holding");
            row.getChildren().set(row.getChildren().indexOf(held), field);
            field.requestFocus();
            field.setOnKeyPressed(e -> {
                if (e.getCode() == KeyCode.ESCAPE) {
                    show(job);
                }
            });
            field.setOnAction(_ -> {
                String[] words = field.getText().strip().split("\\s+", 2);
                Optional<JobPage.OfReport> of = words[0].isEmpty()
                        ? Optional.empty()
                        : Optional.of(
                                new JobPage.OfReport(words[0], words.length == 1 ? "" : words[1].replace(' ', '_')));
                set(job, index, output.holding(of));
            });
        });
        row.getChildren().addAll(Ui.label("holding"), held);
    }

    /// How delimited text is written; what else it has stands on the page of the job.
    private void text(FlowPane row, JobPage job, int index, JobPage.Output output) {
        DelimitedText now = output.text();
        String separator = now.separatorIn(output.path());
        String encoding = now.encoding().toLowerCase(Locale.ROOT);
        List<String> encodings = List.of("utf-8", "windows-1252", "utf-16le");
        row.getChildren()
                .addAll(
                        Ui.label("with"),
                        Ui.blank(
                                SEPARATORS.getOrDefault(separator, separator),
                                "blank",
                                () -> set(
                                        job,
                                        index,
                                        output.told(
                                                now.separatedBy(after(List.copyOf(SEPARATORS.keySet()), separator))))),
                        Ui.label("in"),
                        Ui.blank(
                                encoding,
                                "blank",
                                () -> set(job, index, output.told(now.in(after(encodings, encoding))))),
                        Ui.blank(
                                now.guarded() ? "formulas guarded by '" : "formulas as they are",
                                "blank",
                                () -> set(job, index, output.told(now.guarding(!now.guarded())))));
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
        Button name = Ui.blank(now.name().isEmpty() ? "called like the file" : now.name(), "blank", () -> {});
        name.setAccessibleText("sheet: " + name.getText());
        name.setOnAction(_ -> {
            TextField field = new TextField(now.name());
            field.getStyleClass().add("inline-edit");
            field.setPromptText("the sheet; empty: as the file");
            field.setAccessibleText("Sheet");
            row.getChildren().set(row.getChildren().indexOf(name), field);
            field.requestFocus();
            field.setOnKeyPressed(e -> {
                if (e.getCode() == KeyCode.ESCAPE) {
                    show(job);
                }
            });
            field.setOnAction(_ -> set(
                    job, index, output.in(new JobPage.InSheet(field.getText().strip(), now.asText()))));
        });
        row.getChildren()
                .addAll(
                        Ui.label("as sheet"),
                        name,
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

    private void setResult(Button button, JobPage job) {
        TextField field = new TextField(job.result());
        field.getStyleClass().add("inline-edit");
        field.setPromptText("a name or number; empty: the last line");
        ((Pane) button.getParent()).getChildren().set(1, field);
        field.requestFocus();
        field.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                show(job);
            }
        });
        field.setOnAction(_ -> edit.accept(JobEdits.setResult(job, field.getText())));
    }

    private void write(Button button, JobPage job, int index) {
        boolean known = index < job.outputs().size();
        String usual = workbench.shelf().settings().values().containsKey("out") ? "{out}/" : "out/";
        String number = index == 0 ? "" : "-" + (index + 1);
        TextField field = new TextField(known ? button.getText() : usual + job.name() + number + ".parquet");
        field.getStyleClass().add("inline-edit");
        ((Pane) button.getParent()).getChildren().set(1, field);
        field.requestFocus();
        field.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                show(job);
            }
        });
        field.setOnAction(_ -> {
            String path = field.getText().strip();
            set(job, index, known ? job.outputs().get(index).at(path) : new JobPage.Output(path, false, Span.NONE));
        });
    }

    private void set(JobPage job, int index, JobPage.Output output) {
        edit.accept(JobEdits.setOutput(job, index, output));
    }
}
