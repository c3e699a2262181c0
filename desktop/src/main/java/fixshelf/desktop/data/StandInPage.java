package fixshelf.desktop.data;

import fixshelf.desktop.parts.ChoiceBlank;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.PagedRows;
import fixshelf.desktop.parts.RowsGrid;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.problem.Outcome;
import fixshelf.shelf.DatasetPage;
import fixshelf.standin.SharedWord;
import fixshelf.standin.StandIn;
import fixshelf.type.Visible;
import fixshelf.work.PreviewRow;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextFlow;

/// Rows that may be sent: which words stay, what the first rows become, and what jobs do with it.
public final class StandInPage {
    private static final String NONE = "no other dataset";
    private static final int EXAMPLES = 40;
    private static final double WORDS = 412;
    private static final double TOLD = 190;

    private final StandInModel model;
    private final TextFlow sentence = new TextFlow();
    private final TableView<SharedWord> words = new TableView<>();
    private final RowsGrid example = new RowsGrid();
    private final Label told = Ui.wrapped("", "prose");
    private final Label jobs = Ui.wrapped("", "prose");
    private final TextField folder = new TextField("out/stand_in");
    private final VBox view;
    private final Set<SharedWord> kept = new LinkedHashSet<>();
    private final Set<String> others = new TreeSet<>();
    private Optional<Shown> shown = Optional.empty();
    private final Workbench workbench;

    /// What stands in the page.
    ///
    /// @param all the names of the other datasets
    private record Shown(String dataset, DataModel.Seen seen, List<String> all) {}

    StandInPage(DataModel model, Workbench workbench) {
        this.model = new StandInModel(model);
        this.workbench = workbench;
        sentence.getStyleClass().add("count-sentence");
        words.setId("shared-words");
        words.setAccessibleText("Words that may stay");
        words.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        words.setPlaceholder(Ui.label("Looking for words that many rows share …", "soft"));
        words.getColumns()
                .setAll(List.of(
                        column("", 74, w -> Ui.label(isKept(w) ? "stays" : "made up", isKept(w) ? "holds" : "soft")),
                        column("word", 144, w -> RowsGrid.text(w.text())),
                        column("column", 100, w -> Ui.label(Visible.markOddities(w.column()), "soft")),
                        column(
                                "of all rows",
                                84,
                                w -> Ui.label(String.format("%.1f %%", 100 * w.share()), "number-cell"))));
        words.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.SPACE) {
                turnChosen();
                e.consume();
            }
        });
        words.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) {
                turnChosen();
            }
        });
        folder.setId("stand-in-folder");
        folder.setPrefColumnCount(22);
        folder.setAccessibleText("Folder of the stand-in");
        HBox.setHgrow(example, Priority.ALWAYS);
        words.setMinWidth(WORDS);
        words.setPrefWidth(WORDS);
        HBox both = new HBox(10, words, example);
        VBox.setVgrow(both, Priority.ALWAYS);
        HBox buttons = Ui.row(
                "state",
                Ui.label("into the folder", "soft"),
                folder,
                Ui.button(make(), "strong"),
                Ui.button(Command.of("All stay", "", () -> keepAll(true))),
                Ui.button(Command.of("None stays", "", () -> keepAll(false))));
        ScrollPane said = Ui.page(new VBox(6, told, jobs));
        jobs.managedProperty().bind(jobs.textProperty().isNotEmpty());
        said.setMaxHeight(TOLD);
        said.setMinHeight(Region.USE_PREF_SIZE);
        view = new VBox(6, sentence, both, buttons, said);
        VBox.setVgrow(view, Priority.ALWAYS);
    }

    VBox view() {
        return view;
    }

    Node focusTarget() {
        return words;
    }

    /// The command that makes it.
    public Command make() {
        return Command.of("Make the stand-in", "Shortcut+Shift+F", this::makeNow);
    }

    private boolean isKept(SharedWord word) {
        return kept.stream().anyMatch(k -> k.text().equals(word.text()));
    }

    private void turnChosen() {
        SharedWord word = words.getSelectionModel().getSelectedItem();
        if (word != null && !kept.removeIf(k -> k.text().equals(word.text()))) {
            kept.add(word);
        }
        changed();
    }

    /// Lets all words stay, or none.
    public void keepAll(boolean all) {
        kept.clear();
        if (all) {
            kept.addAll(words.getItems());
        }
        changed();
    }

    private void changed() {
        words.refresh();
        tell(said(), false);
        showExample();
    }

    private String said() {
        return kept.isEmpty()
                ? "No word stays. Space lets the chosen one stay: what a job asks for by name has to."
                : Ui.count(kept.size(), "word stays", "words stay")
                        + ". Everything else is made up: laid out alike, as odd, the same for the same value.";
    }

    /// Begins with a dataset, or goes on with it.
    void show(String dataset, DataModel.Seen seen) {
        List<String> all = workbench.shelf().datasets().stream()
                .map(DatasetPage::name)
                .filter(n -> !n.equals(dataset))
                .toList();
        boolean same = shown.filter(s -> s.dataset().equals(dataset)
                        && s.seen().file().equals(seen.file())
                        && s.seen().table().whole() == seen.table().whole())
                .isPresent();
        shown = Optional.of(new Shown(dataset, seen, all));
        if (!same) {
            kept.clear();
            others.clear();
            words.getItems().clear();
            ask();
        }
    }

    private void ask() {
        fill();
        Shown now = shown.orElseThrow();
        model.words(workbench.shelf(), asked(now), found -> {
            if (shown.filter(s -> s.dataset().equals(now.dataset())).isEmpty()) {
                return;
            }
            words.setPlaceholder(Ui.label("No word is shared by one row in a hundred.", "soft"));
            words.getItems().setAll(found.value().orElse(List.of()));
            changed();
            if (!found.isPresent()) {
                tell(found.problems().getFirst().sentence(), true);
            }
        });
    }

    private StandInModel.Asked asked(Shown now) {
        return new StandInModel.Asked(now.dataset(), now.seen().file(), List.copyOf(others));
    }

    private void fill() {
        Shown now = shown.orElseThrow();
        List<String> offered = new ArrayList<>(List.of(NONE));
        now.all().forEach(n -> offered.add(others.contains(n) ? "not " + n : n));
        sentence.getChildren()
                .setAll(
                        Ui.sentence(
                                "Rows like those of " + now.dataset() + " that may be sent, made up the same way as "),
                        new ChoiceBlank(
                                "stand-in-others", others.isEmpty() ? NONE : String.join(", ", others), offered, i -> {
                                    if (i == 0) {
                                        others.clear();
                                    } else if (!others.remove(now.all().get(i - 1))) {
                                        others.add(now.all().get(i - 1));
                                    }
                                    ask();
                                }),
                        Ui.sentence("."));
    }

    private void showExample() {
        Shown now = shown.orElseThrow();
        model.example(asked(now), List.copyOf(kept), EXAMPLES, found -> {
            List<PreviewRow> rows = found.value().orElse(List.of());
            PagedRows paged = new PagedRows(rows.size(), (page, all) -> all.put(page, rows));
            Set<String> wide =
                    now.seen().file().columns().stream().map(c -> c.name()).collect(Collectors.toSet());
            example.show(now.seen().file().columns(), new RowsGrid.Emphasis(wide, List.of()), paged, "No row.");
        });
    }

    private void makeNow() {
        make(folder.getText().strip());
    }

    /// Makes the stand-in in a folder of the shelf, or elsewhere.
    public void make(String into) {
        shown.ifPresent(now -> {
            tell("Making it, and trying the jobs that read it …", false);
            model.make(
                    workbench.shelf(),
                    asked(now),
                    new StandIn.Wanted(
                            List.copyOf(kept), workbench.shelf().root().resolve(into), true),
                    this::made);
        });
    }

    private void made(Outcome<StandInModel.Made> outcome) {
        if (!outcome.isPresent()) {
            tell(Ui.words(outcome.problems().getFirst()), true);
            return;
        }
        StandIn.Made made = outcome.get().made();
        String files = made.files().stream().map(w -> shown(w.file())).collect(Collectors.joining(", "));
        tell(
                Ui.count(made.rows(), "row is", "rows are") + " in " + files + ", with a page that reads "
                        + (made.files().size() == 1 ? "it" : "each") + ". " + String.join(" ", made.notes()),
                false);
        jobs.setText(outcome.get().jobs().stream()
                .flatMap(j -> j.sentences().stream())
                .collect(Collectors.joining("\n")));
        Ui.mark(jobs, "problem", outcome.get().jobs().stream().anyMatch(j -> !j.other()
                .isEmpty()));
    }

    private String shown(Path file) {
        Path root = workbench.shelf().root();
        return (file.startsWith(root) ? root.relativize(file) : file).toString();
    }

    private void tell(String text, boolean wrong) {
        told.setText(text);
        Ui.mark(told, "problem", wrong);
        jobs.setText("");
    }

    private static TableColumn<SharedWord, SharedWord> column(
            String title, double width, Function<SharedWord, Node> content) {
        TableColumn<SharedWord, SharedWord> column = new TableColumn<>(title);
        column.setSortable(false);
        column.setReorderable(false);
        column.setPrefWidth(width);
        column.setCellValueFactory(c -> new ReadOnlyObjectWrapper<>(c.getValue()));
        column.setCellFactory(_ -> new TableCell<>() {
            @Override
            protected void updateItem(SharedWord word, boolean empty) {
                super.updateItem(word, empty);
                setGraphic(empty || word == null ? null : content.apply(Objects.requireNonNull(word)));
            }
        });
        return column;
    }
}
