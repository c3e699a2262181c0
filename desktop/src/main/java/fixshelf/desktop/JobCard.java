package fixshelf.desktop;

import fixshelf.plan.Line;
import fixshelf.plan.SentenceEdits;
import fixshelf.plan.Sentences;
import fixshelf.plan.Sentences.Part;
import fixshelf.plan.Sentences.Slot;
import fixshelf.problem.Outcome;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.JobPage;
import fixshelf.type.Column;
import fixshelf.type.Visible;
import fixshelf.work.LineEffect;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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
final class JobCard {
    /// What the card tells its place.
    interface Listener {
        void chosen(int line);

        void changed(int index, Line line);

        void fixAsked(String name);

        List<Column> columnsBefore(int line);
    }

    private static final int LONGEST = 52;

    private final Workbench workbench;
    private final Listener listener;
    private final VBox lines = new VBox();

    JobCard(Workbench workbench, Listener listener) {
        this.workbench = workbench;
        this.listener = listener;
    }

    VBox view() {
        return lines;
    }

    /// Shows all lines; `look` gives their effects when they are known.
    void show(JobPage job, int chosen, Optional<JobModel.Look> look) {
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
        Sentences.parts(placed.line(), name -> workbench.shelf().fix(name).map(FixPage::sentence))
                .forEach(p -> sentence.getChildren().add(part(placed.line(), index, p)));
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
                .filter(p -> p.where().span().equals(placed.span()))
                .forEach(p -> words.getChildren().add(Ui.wrapped("▲ " + p.sentence(), "problem", "small")));
        boolean strict = placed.line() instanceof Line.Apply apply && apply.lost() == Line.Lost.STOPS;
        effect.filter(e -> strict && e.valuesLost() > 0).ifPresent(e -> words.getChildren()
                .add(Ui.wrapped(
                        "▲ A run stops here: " + Ui.count(e.valuesLost(), "value is", "values are") + " lost.",
                        "problem",
                        "small")));
        Label note = Ui.label(effect.map(e -> e.margin().replace(", ", "\n")).orElse("…"), "margin-note");
        HBox row = Ui.row("job-line", Ui.label(String.valueOf(at), "line-number"), words, note);
        Ui.mark(row, "chosen", chosen);
        row.setFocusTraversable(true);
        row.setAccessibleText("Line " + at + ": "
                + Sentences.plain(placed.line(), n -> workbench.shelf().fix(n).map(FixPage::sentence)));
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

    private Node part(Line line, int index, Part part) {
        return switch (part) {
            case Part.Words(String text) -> Ui.sentence(text);
            case Part.Fix(String text) -> {
                Button link = Ui.blank(text, "fix-link", () -> listener.fixAsked(((Line.Apply) line).fix()));
                link.setTooltip(new Tooltip("To the page of this fix"));
                yield link;
            }
            case Part.Blank blank -> blank(line, index, blank);
        };
    }

    private Node blank(Line line, int index, Part.Blank blank) {
        String shown = blank.text().length() > LONGEST ? blank.text().substring(0, LONGEST - 1) + "…" : blank.text();
        Button button = Ui.blank(Visible.markOddities(shown.isEmpty() ? "…" : shown), "blank", () -> {});
        button.setAccessibleText(blank.slot().name().toLowerCase(java.util.Locale.ROOT) + ": " + blank.text());
        if (shown.length() < blank.text().length()) {
            button.setTooltip(new Tooltip(blank.text()));
        }
        button.setOnAction(_ -> edit(button, line, index, blank));
        return button;
    }

    private void edit(Button button, Line line, int index, Part.Blank blank) {
        TextFlow flow = (TextFlow) button.getParent();
        TextField field = new TextField(blank.text());
        field.getStyleClass().add("inline-edit");
        field.setPrefColumnCount(Math.max(10, Math.min(30, blank.text().length() + 3)));
        Label why = Ui.wrapped("", "problem", "small");
        flow.getChildren().set(flow.getChildren().indexOf(button), field);
        Completion completion = new Completion(field, word -> take(field, word, blank.slot()));
        field.textProperty().addListener(_ -> Platform.runLater(() -> offer(field, completion, index, blank.slot())));
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
            Outcome<Line> filled = SentenceEdits.fill(line, blank.slot(), blank.name(), field.getText());
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
        Platform.runLater(() -> offer(field, completion, index, blank.slot()));
    }

    private void offer(TextField field, Completion completion, int index, Slot slot) {
        if (!field.isFocused()) {
            return;
        }
        String typed = isList(slot)
                ? field.getText()
                        .substring(field.getText().lastIndexOf(',') + 1)
                        .strip()
                : "";
        List<String> words = choices(index, slot);
        boolean same = words.contains(typed);
        List<String> found = isList(slot) ? Completion.matching(words, same ? "" : typed, w -> w) : words;
        boolean untouched = field.getSelectedText().equals(field.getText());
        completion.offer(
                untouched && isList(slot) && !typed.isEmpty() && !same ? List.of() : found,
                field.localToScreen(field.getBoundsInLocal()));
    }

    private static boolean isList(Slot slot) {
        return switch (slot) {
            case COLUMNS, KEYS, ORDER, CHOSEN, DROPPED -> true;
            default -> false;
        };
    }

    private List<String> choices(int index, Slot slot) {
        List<String> names =
                listener.columnsBefore(index + 1).stream().map(Column::name).toList();
        return switch (slot) {
            case COLUMNS -> with("every text column", names);
            case KEYS -> with("all columns", names);
            case ORDER -> with("place in the file", names);
            case CHOSEN, DROPPED -> names;
            case KEEP -> List.of("first", "last");
            case LOST -> List.of(Sentences.COUNTED, Sentences.STOPS);
            case ENCODING -> fixshelf.plan.ReadOptions.ENCODINGS;
            case SEPARATOR -> List.of(",", ";", "|", "tab");
            case QUOTE -> List.of("\"", "'", "none");
            case HEADING -> List.of("with a heading", "without a heading");
            case DATASET ->
                workbench.shelf().datasets().stream().map(d -> d.name()).toList();
            case PATH, NULL_WORDS, ARGUMENT, RENAMES -> List.of();
        };
    }

    private static List<String> with(String first, List<String> names) {
        List<String> all = new ArrayList<>(List.of(first));
        all.addAll(names);
        return all;
    }

    private static void take(TextField field, String word, Slot slot) {
        String text = field.getText();
        boolean replace = !isList(slot)
                || word.contains(" column")
                || word.equals("place in the file")
                || field.getSelectedText().equals(text);
        int comma = text.lastIndexOf(',');
        String quoted = word.contains(",") ? '"' + word + '"' : word;
        field.setText(replace || comma < 0 ? quoted : text.substring(0, comma) + ", " + quoted);
        field.positionCaret(field.getText().length());
    }
}
