package fixshelf.desktop.languages;

import fixshelf.desktop.parts.CodeSheet;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.operations.Operations;
import fixshelf.plan.Operation;
import fixshelf.render.Language;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.work.JobParity;
import fixshelf.work.LoaderCases;
import fixshelf.work.OperationExamples;
import fixshelf.work.TableFixCode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.geometry.HPos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// Table fixes down, and operations when they are asked for, languages across: their cases and examples, run for real.
/// The cell that is pressed is explained above the board.
final class TableBoard {
    private final Background background;
    private final GridPane grid = new GridPane();
    private final Label told = Ui.wrapped("", "soft");
    private final VBox view;
    /// By language, then by name.
    private final Map<String, Map<String, JobParity>> results = new HashMap<>();

    private List<Object> asked = List.of();
    private final CodeSheet code = new CodeSheet();
    private boolean withOperations;
    /// Grows with each result; the board is made anew only then.
    private int version;

    private int shown = -1;

    TableBoard(Background background) {
        this.background = background;
        grid.getStyleClass().add("board");
        code.view().setVisible(false);
        code.view().managedProperty().bind(code.view().visibleProperty());
        view = new VBox(6, told, grid, code.view());
    }

    Region view() {
        return view;
    }

    /// Shows operations too, from now on.
    void addOperations() {
        withOperations = true;
        version++;
    }

    private List<Operation> rows(Shelf shelf) {
        List<Operation> operations = withOperations ? Operations.added() : List.of();
        return Stream.concat(shelf.tableFixes().stream().map(shelf::operation), operations.stream())
                .filter(o -> !o.examples().isEmpty())
                .toList();
    }

    /// The rows with what their cases read.
    private static List<Operation> ready(Shelf shelf, List<Operation> rows) {
        return rows.stream()
                .map(r -> shelf.tableFix(r.shown())
                        .<Operation>map(t -> LoaderCases.ready(shelf, t))
                        .orElse(r))
                .toList();
    }

    /// Runs all cases and examples in every language, unless that was done for the fixes as they are.
    void check(Shelf shelf, Runnable heard) {
        List<Object> now = new ArrayList<>(shelf.tableFixes());
        now.addAll(shelf.fixes());
        now.add(withOperations);
        if (now.equals(asked)) {
            return;
        }
        asked = now;
        version++;
        List<Operation> rows = rows(shelf);
        for (FixEngine engine : FixEngines.ALL.stream().skip(1).toList()) {
            String title = engine.language().title();
            background.ask(
                    new Request("language " + engine.language().id(), "running cases of tables in " + title, 150),
                    () -> OperationExamples.board(engine, ready(shelf, rows), shelf.callables()),
                    found -> {
                        results.put(engine.language().id(), found);
                        version++;
                        heard.run();
                    });
        }
    }

    /// Shows what is known now.
    void fill(Shelf shelf) {
        if (shown == version) {
            return;
        }
        shown = version;
        List<Language> languages = ParityBoard.others();
        grid.getChildren().clear();
        ParityBoard.languageHeads(grid, languages);
        List<Operation> rows = rows(shelf);
        for (int r = 0; r < rows.size(); r++) {
            grid.add(Ui.label(rows.get(r).shown(), "mono"), 0, r + 1);
            for (int l = 0; l < languages.size(); l++) {
                Button cell = cell(shelf, rows.get(r).shown(), languages.get(l));
                GridPane.setHalignment(cell, HPos.CENTER);
                grid.add(cell, l + 1, r + 1);
            }
        }
    }

    /// The code of a table fix, as its first case calls it.
    private void show(Shelf shelf, TableFixPage fix, Language language) {
        background.ask(
                Request.now("code", "writing " + fix.name()),
                () -> TableFixCode.ofCase(shelf, fix).then(language::job),
                text -> {
                    code.fill(fix.name() + " as its first case calls it", language, text);
                    code.view().setVisible(true);
                });
    }

    private Button cell(Shelf shelf, String name, Language language) {
        Optional<JobParity> result = Optional.ofNullable(
                results.getOrDefault(language.id(), Map.of()).get(name));
        String words = name + " in " + language.title() + ": "
                + result.map(r -> r.mark() + ". " + r.detail()).orElse("not run yet");
        Button cell = Ui.blank(result.map(r -> r.mark().substring(0, 1)).orElse("…"), "board-cell", () -> {
            told.setText(words);
            shelf.tableFix(name).ifPresent(f -> show(shelf, f, language));
        });
        cell.getStyleClass()
                .add(result.map(r -> r.differs() ? "fails" : r.mark().startsWith("●") ? "holds" : "faint")
                        .orElse("faint"));
        cell.setTooltip(new Tooltip(words));
        cell.setAccessibleText(words);
        return cell;
    }

    /// How many are the same and how many differ, in words.
    String summary() {
        long same = results.values().stream()
                .flatMap(m -> m.values().stream())
                .filter(r -> r.verdict() instanceof JobParity.Same)
                .count();
        long differ = results.values().stream()
                .flatMap(m -> m.values().stream())
                .filter(JobParity::differs)
                .count();
        return results.isEmpty() ? "" : " · tables: " + same + " same, " + differ + " differ";
    }
}
