package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.Completion;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.plan.Blank;
import fixshelf.plan.Kind;
import fixshelf.plan.Line;
import fixshelf.plan.Sentences;
import fixshelf.plan.Sentences.Part;
import fixshelf.problem.Outcome;
import fixshelf.shelf.JobPage;
import fixshelf.type.Column;
import fixshelf.type.Visible;
import fixshelf.work.LineEffect;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextFlow;

/// The numbered lines of a job as sentences with blanks that are edited in place.
public final class JobCard {
    /// What the card tells its place.
    public interface Listener {
        void chosen(int line);

        void changed(int index, Line line);

        void fixAsked(String name);

        List<Column> columnsBefore(int line);

        /// The tables that a line can name: datasets, other jobs, lines above that have a name.
        List<String> sourcesBefore(int line);
    }

    private static final int LONGEST = 52;
    private static final int SHORT = 30;
    private static final int MARGIN = 15;

    private final Workbench workbench;
    private final Listener listener;
    private final VBox lines = new VBox();

    public JobCard(Workbench workbench, Listener listener) {
        this.workbench = workbench;
        this.listener = listener;
    }

    public VBox view() {
        return lines;
    }

    /// Shows all lines; `look` gives their effects when they are known.
    public void show(JobPage job, int chosen, Optional<JobModel.Look> look) {
        boolean editing = lines.lookupAll(".inline-edit").stream().anyMatch(Node::isFocused);
        if (editing) {
            return;
        }
        boolean hadFocus = lines.getChildren().stream()
                .anyMatch(n -> n.isFocused() || n.lookupAll(".blank").stream().anyMatch(Node::isFocused));
        lines.getChildren().clear();
        for (int i = 0; i < job.lines().size(); i++) {
            lines.getChildren().add(line(job, i, chosen == i + 1, look));
        }
        if (hadFocus && chosen >= 1 && chosen <= lines.getChildren().size()) {
            lines.getChildren().get(chosen - 1).requestFocus();
        }
    }

    void focus(int line) {
        if (line >= 1 && line <= lines.getChildren().size()) {
            lines.getChildren().get(line - 1).requestFocus();
        }
    }

    private HBox line(JobPage job, int index, boolean chosen, Optional<JobModel.Look> look) {
        JobPage.PlacedLine placed = job.lines().get(index);
        TextFlow sentence = new TextFlow();
        sentence.setLineSpacing(3);
        Sentences.parts(placed.line(), workbench.shelf().callables())
                .forEach(p -> sentence.getChildren().add(part(placed.line(), index, p)));
        if (placed.line().rest()) {
            sentence.getChildren().add(Ui.sentence(" (R wakes it)"));
        }
        if (!placed.line().name().isEmpty()) {
            sentence.getChildren().addAll(Ui.sentence(", called "), name(placed.line(), index, "blank"));
        }
        if (chosen) {
            addOthers(sentence, placed.line(), index);
            if (placed.line().name().isEmpty()) {
                sentence.getChildren().addAll(Ui.sentence("  "), name(placed.line(), index, "more"));
            }
        }
        // A long blank is cut at the end of the line, and not written over what stands beside it.
        sentence.getChildren().forEach(part -> {
            if (part instanceof Button button) {
                button.setMinWidth(0);
                button.maxWidthProperty().bind(sentence.widthProperty());
            }
        });
        VBox words = new VBox(3, sentence);
        HBox.setHgrow(words, Priority.ALWAYS);
        words.setMinWidth(0);
        if (!placed.reason().isEmpty()) {
            words.getChildren().add(Ui.wrapped(placed.reason(), "soft", "small"));
        }
        int at = index + 1;
        Optional<LineEffect> effect = look.flatMap(l -> l.effect(at));
        effect.flatMap(LineEffect::repeats).filter(_ -> chosen).ifPresent(r -> words.getChildren()
                .add(Ui.wrapped(
                        Ui.count(r.groups(), "group repeats", "groups repeat")
                                + (r.groups() > 0 ? "; the largest has " + r.largest() + " rows." : "."),
                        "soft",
                        "small")));
        look.stream()
                .flatMap(l -> l.problems().stream())
                .filter(p -> p.where().span().isWithin(placed.span()))
                .forEach(p -> words.getChildren().add(Ui.wrapped("▲ " + p.sentence(), "problem", "small")));
        look.stream().flatMap(l -> l.figures(at).stream()).forEach(f -> words.getChildren()
                .add(Ui.wrapped(f.sentence(), f.isChanged() ? "figure-changed" : "soft", "small")));
        boolean strict = placed.line().strict();
        effect.filter(e -> strict && e.valuesLost() > 0).ifPresent(e -> words.getChildren()
                .add(Ui.wrapped(
                        "▲ A run stops here: " + Ui.count(e.valuesLost(), "value is", "values are") + " lost.",
                        "problem",
                        "small")));
        effect.filter(_ -> chosen).flatMap(LineEffect::matched).ifPresent(m -> words.getChildren()
                .add(Ui.wrapped(m + ".", "soft", "small")));
        effect.filter(_ -> chosen).stream()
                .flatMap(e -> e.reports().stream())
                .filter(r -> r.rows() > 0 && !r.name().equals("repeats"))
                .forEach(r -> words.getChildren()
                        .add(
                                r.breaks()
                                        ? Ui.wrapped("▲ A run stops here: " + r.sentence() + ".", "problem", "small")
                                        : Ui.wrapped(r.sentence() + ".", "soft", "small")));
        String margin = placed.line().rest()
                ? "at rest"
                : effect.map(e -> margin(e.margin())).orElse("…");
        Label note = Ui.label(margin, "margin-note");
        HBox row = Ui.row("job-line", Ui.label(String.valueOf(at), "line-number"), words, note);
        Ui.mark(row, "chosen", chosen);
        row.setFocusTraversable(true);
        row.setAccessibleText("Line " + at + ": "
                + Sentences.plain(placed.line(), workbench.shelf().callables()));
        row.setOnMouseClicked(e -> {
            if (e.getTarget() instanceof Node target && !target.getStyleClass().contains("blank")) {
                row.requestFocus();
                listener.chosen(at);
            }
        });
        row.focusedProperty().addListener((_, _, now) -> {
            if (now && !row.getStyleClass().contains("chosen")) {
                listener.chosen(at);
            }
        });
        return row;
    }

    /// A part of the effect in each line; large numbers below each other.
    private static String margin(String words) {
        return Stream.of(words.split(", "))
                .map(part -> part.length() > MARGIN ? part.replace(" → ", " →\n") : part)
                .collect(Collectors.joining("\n"));
    }

    /// What may be said more: blanks that are not filled, by their names.
    private void addOthers(TextFlow sentence, Line line, int index) {
        List<Blank<?>> open = workbench.shelf().callables().find(line.call()).stream()
                .flatMap(o -> o.blanksBeside(line).stream()
                        .filter(b -> !b.needed() && line.written(b.name()).isEmpty())
                        .filter(b -> !o.sentence().contains("{" + b.name() + "}")))
                .toList();
        for (Blank<?> blank : open) {
            Button button = Ui.blank(blank.name().replace('_', ' ') + " …", "more", () -> {});
            button.setTooltip(new Tooltip(blank.about()));
            button.setOnAction(_ -> edit(button, line, index, new Part.Gap(fallback(blank), blank)));
            sentence.getChildren().addAll(Ui.sentence("  "), button);
        }
    }

    /// The name by which later lines and outputs speak of the table after a line.
    private Button name(Line line, int index, String style) {
        boolean none = line.name().isEmpty();
        Button button = Ui.blank(none ? "name …" : line.name(), style, () -> {});
        button.setAccessibleText("Name of the line: " + line.name());
        button.setTooltip(new Tooltip("Later lines, and outputs, take the table after this line by its name"));
        button.setOnAction(_ -> {
            TextFlow flow = (TextFlow) button.getParent();
            TextField field = new TextField(line.name());
            field.getStyleClass().add("inline-edit");
            field.setPrefColumnCount(14);
            flow.getChildren().set(flow.getChildren().indexOf(button), field);
            field.setOnKeyPressed(e -> {
                if (e.getCode() == KeyCode.ESCAPE) {
                    flow.getChildren().set(flow.getChildren().indexOf(field), button);
                    button.requestFocus();
                    e.consume();
                }
            });
            field.setOnAction(
                    _ -> listener.changed(index, line.withName(field.getText().strip())));
            field.requestFocus();
            field.selectAll();
        });
        return button;
    }

    private static <T> String fallback(Blank<T> blank) {
        return blank.fallback().map(blank.kind()::say).orElse("");
    }

    private Node part(Line line, int index, Part part) {
        return switch (part) {
            case Part.Words(String text) -> Ui.sentence(text);
            case Part.Call(String text)
            when workbench.shelf().fix(line.call()).isPresent()
                    || workbench.shelf().tableFix(line.call()).isPresent() -> {
                Button link = Ui.blank(text, "fix-link", () -> listener.fixAsked(line.call()));
                link.setTooltip(new Tooltip("To the page of this fix"));
                yield link;
            }
            case Part.Call(String text) -> Ui.sentence(text);
            case Part.Gap gap -> blank(line, index, gap);
        };
    }

    private Node blank(Line line, int index, Part.Gap blank) {
        String shown = blank.text().length() > LONGEST ? blank.text().substring(0, LONGEST - 1) + "…" : blank.text();
        Button button = Ui.blank(Visible.markOddities(shown.isEmpty() ? "…" : shown), "blank", () -> {});
        button.setAccessibleText(blank.blank().name().replace('_', ' ') + ": " + blank.text());
        if (blank.text().length() > SHORT) {
            button.setTooltip(new Tooltip(blank.text()));
        }
        button.setOnAction(_ -> edit(button, line, index, blank));
        return button;
    }

    private void edit(Button button, Line line, int index, Part.Gap blank) {
        TextFlow flow = (TextFlow) button.getParent();
        TextField field = new TextField(blank.text());
        field.getStyleClass().add("inline-edit");
        field.setPrefColumnCount(Math.max(10, Math.min(30, blank.text().length() + 3)));
        Label why = Ui.wrapped("", "problem", "small");
        flow.getChildren().set(flow.getChildren().indexOf(button), field);
        Completion completion =
                new Completion(field, word -> take(field, word, blank.blank().kind()));
        Kind<?> kind = blank.blank().kind();
        ColumnMarks marks = new ColumnMarks(field, kind);
        if (kind.name().equals("columns")) {
            completion.marking(marks);
        }
        field.textProperty().addListener(_ -> {
            if (!marks.isTurning()) {
                Platform.runLater(() -> offer(field, completion, index, kind));
            }
        });
        Runnable back = () -> {
            completion.hide();
            int at = flow.getChildren().indexOf(field);
            if (at >= 0) {
                flow.getChildren().set(at, button);
                button.requestFocus();
            }
        };
        field.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                back.run();
                e.consume();
            }
        });
        field.setOnAction(_ -> {
            Outcome<Line> filled = Sentences.fill(line, blank.blank(), field.getText());
            if (filled.isPresent()) {
                back.run();
                listener.changed(index, filled.get());
            } else {
                why.setText(filled.problems().getFirst().sentence());
                VBox words = (VBox) flow.getParent();
                if (!words.getChildren().contains(why)) {
                    words.getChildren().add(why);
                }
            }
        });
        field.requestFocus();
        field.selectAll();
        Platform.runLater(() -> offer(field, completion, index, blank.blank().kind()));
    }

    private void offer(TextField field, Completion completion, int index, Kind<?> kind) {
        if (!field.isFocused()) {
            return;
        }
        String text = field.getText();
        String typed = kind.isList() ? text.substring(text.lastIndexOf(',') + 1).strip() : text.strip();
        List<String> words = choices(index, kind);
        boolean same = words.contains(typed);
        boolean untouched = field.getSelectedText().equals(text);
        // Untouched, everything is offered; what is typed already, and whole, needs no list that takes its Enter.
        boolean whole = kind.isList() && untouched && !typed.isEmpty() && !same || same && !untouched;
        // All columns, so that several of them can be marked.
        boolean all = untouched && kind.name().equals("columns");
        List<String> offered = all ? words : Completion.matching(words, same || untouched ? "" : typed, w -> w);
        List<String> found = offered.stream()
                .filter(w -> same || untouched || !typed.startsWith(w))
                .toList();
        completion.offer(whole && !all ? List.of() : found, field.localToScreen(field.getBoundsInLocal()));
    }

    private List<String> choices(int index, Kind<?> kind) {
        return kind.choices(new Kind.Choices(
                listener.columnsBefore(index + 1),
                listener.sourcesBefore(index + 1),
                workbench.shelf().fixes().stream().map(f -> f.name()).toList()));
    }

    private static void take(TextField field, String word, Kind<?> kind) {
        String text = field.getText();
        boolean replace = !kind.isList()
                || word.contains(" column")
                || word.startsWith("all ")
                || field.getSelectedText().equals(text);
        int comma = text.lastIndexOf(',');
        String quoted = word.contains(",") ? '"' + word + '"' : word;
        field.setText(replace || comma < 0 ? quoted : text.substring(0, comma) + ", " + quoted);
        field.positionCaret(field.getText().length());
    }
}
