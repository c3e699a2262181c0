package fixshelf.desktop;

import fixshelf.check.CaseResult;
import fixshelf.check.Cases;
import fixshelf.desktop.Background.Request;
import fixshelf.engine.Answer;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.language.Definition;
import fixshelf.language.Expr;
import fixshelf.language.Inliner;
import fixshelf.problem.Outcome;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixEdits;
import fixshelf.shelf.FixPage;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// What each language can say of a fix, the code to copy, and the cases in every language that is here.
final class LanguagesPlace implements Place {
    /// What became of the cases in a language.
    private record Checked(FixEngine.Presence presence, List<CaseResult> results) {}

    private final Workbench workbench;
    private final Runnable changed;
    private final ComboBox<String> fixes = new ComboBox<>();
    private final VBox languages = new VBox();
    private final Label heading = Ui.label("", "heading");
    private final CodeView code = new CodeView(false);
    private final Label why = Ui.wrapped("", "problem");
    private final GridPane cases = new GridPane();
    private final VBox box;
    private final FacingPages pages;
    private final Map<String, Checked> checked = new HashMap<>();
    private int chosen = 1;
    private boolean asExpression;
    private boolean filling;
    private String copied = "";

    LanguagesPlace(Workbench workbench, Runnable changed) {
        this.workbench = workbench;
        this.changed = changed;
        fixes.setAccessibleText("Fix");
        fixes.valueProperty().addListener(_ -> {
            if (!filling) {
                check();
                fill();
            }
        });
        VBox head = Ui.column("sheet", fixes, Ui.label("its cases, run for real where the language is here", "soft"));
        VBox left = new VBox(head, languages);
        HBox buttons = Ui.row("state");
        commands().forEach(c -> buttons.getChildren()
                .add(Ui.button(c, buttons.getChildren().isEmpty() ? "strong" : "usual")));
        box = Ui.column("code-box", code.scrolling());
        VBox.setVgrow(box.getChildren().getFirst(), Priority.ALWAYS);
        box.setMinHeight(140);
        cases.setHgap(26);
        cases.setVgap(5);
        VBox right = Ui.column(
                "sheet", heading, box, why, buttons, Ui.label("Cases, language by language", "heading"), cases);
        pages = new FacingPages(left, Ui.page(right));
        workbench.shelfProperty().addListener(_ -> {
            if (pages.getScene() != null) {
                enter();
            }
        });
    }

    private Optional<FixPage> page() {
        return Optional.ofNullable(fixes.getValue()).flatMap(workbench.shelf()::fix);
    }

    void show(String name) {
        fixes.setValue(name);
    }

    void choose(String languageId) {
        for (int i = 0; i < Languages.ALL.size(); i++) {
            if (Languages.ALL.get(i).id().equals(languageId)) {
                choose(i);
            }
        }
    }

    private void choose(int index) {
        chosen = index;
        fill();
        languages.getChildren().get(index).requestFocus();
    }

    private void check() {
        checked.clear();
        page().ifPresent(page -> {
            for (FixEngine engine : FixEngines.ALL) {
                String id = engine.language().id();
                var shelf = workbench.shelf();
                workbench
                        .background()
                        .ask(
                                new Request(
                                        "language " + id,
                                        "cases in " + engine.language().title(),
                                        80),
                                () -> {
                                    FixEngine.Presence presence = engine.presence();
                                    return new Checked(
                                            presence,
                                            presence.isHere() ? Cases.run(shelf, List.of(page), engine) : List.of());
                                },
                                result -> {
                                    checked.put(id, result);
                                    fill();
                                });
            }
        });
    }

    private Outcome<String> rendered(Language language) {
        FixPage page = page().orElseThrow();
        Outcome<Definition> definition = workbench.shelf().definition(page);
        return definition.then(fix -> asExpression
                ? language.expression(Inliner.call(
                        fix,
                        fix.parameters().stream()
                                .map(p -> p.fallback().<Expr>map(f -> f).orElse(new Expr.Name(p.name(), p.type())))
                                .toList()))
                : language.definition(fix, page.summary()));
    }

    private void fill() {
        Optional<FixPage> page = page();
        if (page.isEmpty()) {
            heading.setText("The shelf has no fix yet.");
            return;
        }
        boolean focused = languages.getChildren().stream().anyMatch(n -> n.isFocused());
        languages.getChildren().clear();
        for (int i = 0; i < Languages.ALL.size(); i++) {
            languages.getChildren().add(entry(Languages.ALL.get(i), i));
        }
        if (focused) {
            languages.getChildren().get(chosen).requestFocus();
        }
        Language language = Languages.ALL.get(chosen);
        Outcome<String> text = rendered(language);
        heading.setText("As " + language.title() + (asExpression ? ", an expression" : ", a function"));
        copied = text.value().orElse("");
        code.show(copied.stripTrailing(), language.keywords());
        box.setPrefHeight(Math.max(120, Math.min(360, copied.lines().count() * 20 + 34)));
        why.setText(text.problems().stream().findFirst().map(p -> p.sentence()).orElse(""));
        why.setVisible(!why.getText().isEmpty());
        why.setManaged(why.isVisible());
        fillCases(page.get());
        changed.run();
    }

    private Region entry(Language language, int index) {
        Outcome<String> text = rendered(language);
        Checked result = checked.get(language.id());
        String mark;
        String style;
        String detail;
        if (!text.isPresent()) {
            mark = "○ cannot say it";
            style = "faint";
            detail = text.problems().getFirst().sentence();
        } else if (result == null) {
            mark = "… running";
            style = "soft";
            detail = "";
        } else if (!result.presence().isHere()) {
            mark = "· not run";
            style = "faint";
            detail = result.presence().sentence() + "; the code is on the right all the same";
        } else {
            long fails = result.results().stream().filter(r -> !r.holds()).count();
            mark = fails == 0
                    ? "● " + Ui.count(result.results().size(), "case holds", "cases hold")
                    : "▲ " + Ui.count(fails, "case differs", "cases differ");
            style = fails == 0 ? "holds" : "fails";
            detail = language.id().equals("duckdb")
                    ? "the reference engine, " + result.presence().sentence()
                    : result.presence().sentence();
        }
        Label name = Ui.label(language.title());
        HBox line = Ui.row("entry-marks", name, Ui.spring(), Ui.label(mark, style));
        VBox box = Ui.column("language", line, Ui.wrapped(detail, "soft", "small"));
        Ui.mark(box, "chosen", index == chosen);
        box.setFocusTraversable(true);
        box.setAccessibleText(language.title() + ": " + mark);
        box.setOnMouseClicked(_ -> choose(index));
        box.setOnKeyPressed(e -> {
            int next = e.getCode() == KeyCode.DOWN ? index + 1 : e.getCode() == KeyCode.UP ? index - 1 : -1;
            if (next >= 0 && next < Languages.ALL.size()) {
                choose(next);
                e.consume();
            }
        });
        return box;
    }

    private void fillCases(FixPage page) {
        cases.getChildren().clear();
        List<String> columns = FixEdits.heading(page);
        int width = columns.size();
        for (int c = 0; c < width; c++) {
            cases.add(
                    Ui.label(columns.get(c).equalsIgnoreCase("result") ? "expected" : columns.get(c), "table-head"),
                    c,
                    0);
        }
        for (int l = 0; l < Languages.ALL.size(); l++) {
            cases.add(Ui.label(Languages.ALL.get(l).title(), "table-head"), width + l, 0);
        }
        for (int i = 0; i < page.cases().size(); i++) {
            List<String> cells = page.cases().get(i).cells();
            for (int c = 0; c < cells.size(); c++) {
                cases.add(Ui.label(fixshelf.type.Visible.markOddities(cells.get(c)), "mono"), c, i + 1);
            }
            for (int l = 0; l < Languages.ALL.size(); l++) {
                cases.add(outcome(Languages.ALL.get(l), i), width + l, i + 1);
            }
        }
    }

    private Label outcome(Language language, int row) {
        Checked result = checked.get(language.id());
        Optional<CaseResult> one = result == null
                ? Optional.empty()
                : result.results().stream().filter(r -> r.index() == row).findFirst();
        if (one.isEmpty()) {
            return Ui.label(result == null ? "…" : "not run", "faint");
        }
        if (one.get().answer() instanceof Answer.NotSaid) {
            return Ui.label("○ cannot say it", "faint");
        }
        return one.get().holds()
                ? Ui.label("=", "holds")
                : Ui.label("▲ " + one.get().got(), "mono", "fails");
    }

    @Override
    public String title() {
        return "Languages";
    }

    @Override
    public Region view() {
        return pages;
    }

    @Override
    public List<Command> commands() {
        return List.of(
                Command.of("Copy", "Shortcut+Shift+C", () -> TryIt.copyText(copied)),
                Command.of("As an expression or a function", "Shortcut+Shift+E", () -> {
                    asExpression = !asExpression;
                    fill();
                }));
    }

    @Override
    public String status() {
        long here = checked.values().stream().filter(c -> c.presence().isHere()).count();
        return here + " of " + Languages.ALL.size() + " languages can be run here";
    }

    @Override
    public String keys() {
        return "Ctrl+J jump · ↑↓ language · Ctrl+Shift+C copy code";
    }

    @Override
    public void enter() {
        filling = true;
        String now = fixes.getValue();
        List<String> names =
                workbench.shelf().fixes().stream().map(FixPage::name).toList();
        fixes.getItems().setAll(names);
        String usual = names.contains("squeeze_spaces")
                ? "squeeze_spaces"
                : names.stream().findFirst().orElse(null);
        fixes.setValue(now != null && names.contains(now) ? now : usual);
        filling = false;
        check();
        fill();
    }

    @Override
    public void focus() {
        if (chosen < languages.getChildren().size()) {
            languages.getChildren().get(chosen).requestFocus();
        }
    }
}
