package fixshelf.desktop.languages;

import fixshelf.check.ParityResult;
import fixshelf.desktop.parts.Ui;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.geometry.HPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Region;
import javafx.scene.text.TextAlignment;

/// The whole shelf at a look: fixes down, languages across. Each cell leads to the fix in that language.
final class ParityBoard {
    private final GridPane grid = new GridPane();
    private final ParityModel model;
    private final BiConsumer<String, Language> open;
    private final Map<Place, Shown> shown = new HashMap<>();
    private List<String> rows = List.of();

    /// A cell by its row and column, from 0.
    private record Place(int fix, int language) {}

    private record Shown(Button cell, Optional<ParityResult> result) {}

    ParityBoard(ParityModel model, BiConsumer<String, Language> open) {
        this.model = model;
        this.open = open;
        grid.getStyleClass().add("board");
    }

    Node view() {
        return grid;
    }

    /// Shows what is known now. Results come in by the hundred, so only the cells that changed are made anew.
    void fill(Shelf shelf) {
        List<Language> languages = others();
        List<String> names = shelf.fixes().stream().map(FixPage::name).toList();
        if (!names.equals(rows)) {
            rows = names;
            shown.clear();
            grid.getChildren().clear();
            heads(languages);
        }
        for (int f = 0; f < shelf.fixes().size(); f++) {
            for (int l = 0; l < languages.size(); l++) {
                FixPage page = shelf.fixes().get(f);
                Optional<ParityResult> result = model.result(shelf, page, languages.get(l));
                Shown before = shown.get(new Place(f, l));
                if (before == null || !before.result().equals(result)) {
                    if (before != null) {
                        grid.getChildren().remove(before.cell());
                    }
                    Button cell = cell(page, languages.get(l), result);
                    GridPane.setHalignment(cell, HPos.CENTER);
                    grid.add(cell, l + 1, f + 1);
                    shown.put(new Place(f, l), new Shown(cell, result));
                }
            }
        }
    }

    private void heads(List<Language> languages) {
        languageHeads(grid, languages);
        for (int f = 0; f < rows.size(); f++) {
            String name = rows.get(f);
            grid.add(Ui.blank(name, "fix-link", () -> open.accept(name, languages.getFirst())), 0, f + 1);
        }
    }

    /// The names of languages above the columns of a board.
    static void languageHeads(GridPane board, List<Language> languages) {
        for (int l = 0; l < languages.size(); l++) {
            Label head =
                    Ui.label(languages.get(l).title().replaceFirst(",? (?=\\w+$)|-", "$0\n"), "table-head", "small");
            head.setTextAlignment(TextAlignment.CENTER);
            head.setMinWidth(Region.USE_PREF_SIZE);
            GridPane.setHalignment(head, HPos.CENTER);
            board.add(head, l + 1, 0);
        }
    }

    /// What the signs of the cells say.
    static final String SIGNS =
            "● same    ● ± same, and beyond its range refused by name    ▲ differs    ○ cannot say it"
                    + "    · not run";

    static List<Language> others() {
        return Languages.ALL.stream().skip(1).toList();
    }

    private Button cell(FixPage page, Language language, Optional<ParityResult> result) {
        Button cell = Ui.blank(text(result), "board-cell", () -> open.accept(page.name(), language));
        cell.getStyleClass().add(style(result));
        String words = result.map(r -> r.mark() + ": " + r.detail()).orElse("not checked yet");
        cell.setTooltip(new Tooltip(page.name() + " in " + language.title() + "\n" + words));
        cell.setAccessibleText(page.name() + " in " + language.title() + ": " + words);
        return cell;
    }

    private static String text(Optional<ParityResult> result) {
        if (result.isEmpty()) {
            return "…";
        }
        return switch (result.get().verdict()) {
            case ParityResult.Same(int _, int beyond) -> beyond == 0 ? "●" : "● ±";
            case ParityResult.Differs _ -> "▲";
            case ParityResult.CannotSay _ -> "○";
            case ParityResult.NotRun _ -> "·";
        };
    }

    private static String style(Optional<ParityResult> result) {
        return result.map(r -> switch (r.verdict()) {
                    case ParityResult.Same _ -> "holds";
                    case ParityResult.Differs _ -> "fails";
                    case ParityResult.CannotSay _, ParityResult.NotRun _ -> "faint";
                })
                .orElse("faint");
    }
}
