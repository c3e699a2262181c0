package fixshelf.desktop.shelf;

import fixshelf.demo.ReadyMade;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.problem.Outcome;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// The fixes that are ready to be taken onto the shelf: Space marks one, Enter takes what is marked.
final class TakePage {
    private final Workbench workbench;
    private final Consumer<String> taken;
    /// Read when they are asked for first.
    private List<ReadyMade.Fix> all = List.of();

    private final ObservableList<ReadyMade.Fix> shown = FXCollections.observableArrayList();
    private final ListView<ReadyMade.Fix> list = new ListView<>(shown);
    private final TextField find = new TextField();
    private final Label said = Ui.wrapped("", "soft");
    private final Set<String> marked = new LinkedHashSet<>();
    private final VBox view;

    /// @param taken hears the name of a fix that was taken
    TakePage(Workbench workbench, Consumer<String> taken) {
        this.workbench = workbench;
        this.taken = taken;
        find.setId("find-ready-made");
        find.setPromptText("find by a word: spaces, day, missing …");
        find.textProperty().addListener(_ -> fill());
        list.setId("ready-made");
        list.getStyleClass().add("catalogue");
        list.setCellFactory(_ -> new FixCell());
        list.setPlaceholder(Ui.label("None of them has this in its name or words.", "soft"));
        list.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.SPACE) {
                turn(list.getSelectionModel().getSelectedItem());
                e.consume();
            } else if (e.getCode() == KeyCode.ENTER) {
                take();
                e.consume();
            }
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        view = Ui.column(
                "sheet",
                Ui.wrapped("Ready-made fixes", "title"),
                Ui.wrapped(
                        "Each comes with its words and its cases, and what it calls comes along. On this shelf it is yours: change it as any"
                                + " other. Space marks, Enter takes.",
                        "soft"),
                find,
                list,
                Ui.row(
                        "state",
                        Ui.button(Command.of("Take the marked", "", this::take), "strong"),
                        Ui.button(Command.of("Mark all", "", this::markAll)),
                        said));
    }

    Region view() {
        return view;
    }

    /// Shows what the shelf has not yet.
    void show() {
        marked.clear();
        said.setText("");
        fill();
        if (all.isEmpty()) {
            workbench.background().ask(Request.now("begin", "reading the ready-made fixes"), ReadyMade::all, found -> {
                all = found;
                fill();
            });
        }
    }

    void focus() {
        find.requestFocus();
    }

    private void fill() {
        String word = find.getText().toLowerCase(Locale.ROOT).strip();
        shown.setAll(all.stream()
                .filter(f -> workbench.shelf().fix(f.name()).isEmpty()
                        && workbench.shelf().tableFix(f.name()).isEmpty())
                .filter(f -> (f.name() + " " + f.group() + " " + f.about())
                        .toLowerCase(Locale.ROOT)
                        .contains(word))
                .toList());
        list.getSelectionModel().selectFirst();
    }

    private void turn(ReadyMade.@Nullable Fix fix) {
        if (fix != null && !marked.remove(fix.name())) {
            marked.add(fix.name());
        }
        said.setText(marked.isEmpty() ? "" : Ui.count(marked.size(), "is marked", "are marked"));
        list.refresh();
    }

    private void markAll() {
        shown.forEach(f -> marked.add(f.name()));
        said.setText(Ui.count(marked.size(), "is marked", "are marked"));
        list.refresh();
    }

    /// What is marked, or else the one that is chosen.
    private void take() {
        ReadyMade.Fix chosen = list.getSelectionModel().getSelectedItem();
        List<String> wanted =
                !marked.isEmpty() ? List.copyOf(marked) : chosen == null ? List.of() : List.of(chosen.name());
        if (wanted.isEmpty()) {
            said.setText("Mark some first: Space, or a press.");
            return;
        }
        workbench
                .background()
                .ask(Request.now("begin", "taking fixes"), () -> ReadyMade.take(workbench.shelf(), wanted), this::told);
    }

    private void told(Outcome<ReadyMade.Taken> outcome) {
        if (!outcome.isPresent()) {
            said.setText(outcome.problems().getFirst().sentence());
            return;
        }
        List<String> written = outcome.get().written();
        Map<Path, String> pages = new LinkedHashMap<>();
        all.stream()
                .filter(f -> written.contains(f.name()))
                .forEach(f -> pages.put(workbench.shelf().root().resolve(f.place()), f.text()));
        workbench.come(pages);
        show();
        said.setText(Ui.count(written.size(), "fix is new", "fixes are new") + " on this shelf.");
        written.stream().findFirst().ifPresent(taken);
    }

    private final class FixCell extends ListCell<ReadyMade.Fix> {
        private final CheckBox box = new CheckBox();

        private FixCell() {
            // Keys belong to the list.
            box.setFocusTraversable(false);
            box.setOnAction(_ -> turn(getItem()));
        }

        @Override
        protected void updateItem(ReadyMade.Fix fix, boolean empty) {
            super.updateItem(fix, empty);
            setText(null);
            setPrefWidth(0);
            if (empty || fix == null) {
                setGraphic(null);
                return;
            }
            box.setSelected(marked.contains(fix.name()));
            VBox words = Ui.column(
                    "entry-words",
                    Ui.row(
                            "entry-marks",
                            Ui.label(fix.name().replace('_', ' ')),
                            Ui.spring(),
                            Ui.label(fix.group(), "soft", "small")),
                    Ui.wrapped(fix.about(), "soft", "small"));
            HBox.setHgrow(words, Priority.ALWAYS);
            setGraphic(Ui.row("take-entry", box, words));
        }
    }
}
