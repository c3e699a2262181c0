package fixshelf.desktop;

import fixshelf.check.CaseResult;
import fixshelf.check.Cases;
import fixshelf.check.Parity;
import fixshelf.check.ParityReport;
import fixshelf.check.ParityResult;
import fixshelf.desktop.Background.Request;
import fixshelf.engine.Answer;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.export.Export;
import fixshelf.language.Definition;
import fixshelf.language.Expr;
import fixshelf.language.Inliner;
import fixshelf.problem.Outcome;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixEdits;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import java.io.File;
import java.nio.file.Path;
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
import javafx.stage.DirectoryChooser;
import org.jspecify.annotations.Nullable;

/// What each language can say of a fix, the code to copy, and the cases in every language that is here.
final class LanguagesPlace implements Place {
    /// What became of the cases in a language.
    private record Checked(FixEngine.Presence presence, List<CaseResult> results) {}

    private static final String WHOLE_SHELF = "the whole shelf";
    private static final int FEW_VALUES = 200;
    private static final int MANY_VALUES = 10_000;

    private final Workbench workbench;
    private final ParityModel parity;
    private final ParityBoard board;
    private final Label subtitle = Ui.wrapped("", "soft");
    private final GridPane differences = new GridPane();
    private final Label agreed = Ui.wrapped("", "soft");
    private final Label saved = Ui.wrapped("", "soft");
    private final VBox ofFix;
    private final VBox ofShelf;
    private final javafx.scene.control.ScrollPane right;
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
        this.parity = new ParityModel(workbench.background());
        this.board = new ParityBoard(parity, (name, language) -> {
            show(name);
            choose(language.id());
        });
        fixes.setAccessibleText("Fix");
        fixes.valueProperty().addListener(_ -> {
            if (!filling) {
                check();
                fill();
            }
        });
        VBox head = Ui.column("sheet", fixes, subtitle);
        Region left = Ui.page(new VBox(head, languages));
        HBox buttons = Ui.row("state");
        commands().forEach(c -> buttons.getChildren()
                .add(Ui.button(c, buttons.getChildren().isEmpty() ? "strong" : "usual")));
        box = Ui.column("code-box", code.scrolling());
        VBox.setVgrow(box.getChildren().getFirst(), Priority.ALWAYS);
        box.setMinHeight(140);
        cases.setHgap(26);
        cases.setVgap(5);
        differences.setHgap(26);
        differences.setVgap(5);
        ofFix = Ui.column(
                "sheet",
                heading,
                box,
                why,
                buttons,
                saved,
                Ui.label("Where answers differ", "heading"),
                differences,
                agreed,
                Ui.label("Cases, language by language", "heading"),
                cases);
        ofShelf = Ui.column(
                "sheet",
                Ui.label("The whole shelf", "heading"),
                Ui.wrapped(
                        "Each fix in each language, run for real and compared with DuckDB. A cell leads to the code and to"
                                + " the first input on which answers differ.",
                        "soft"),
                board.view());
        right = Ui.page(ofFix);
        pages = new FacingPages(left, right);
        workbench.shelfProperty().addListener(_ -> {
            if (pages.getScene() != null) {
                enter();
            }
        });
    }

    private Optional<FixPage> page() {
        return Optional.ofNullable(fixes.getValue()).flatMap(workbench.shelf()::fix);
    }

    private boolean isWholeShelf() {
        return WHOLE_SHELF.equals(fixes.getValue());
    }

    private Optional<ParityResult> parityOf(FixPage page, Language language) {
        return parity.result(workbench.shelf(), page, language);
    }

    void show(String name) {
        fixes.setValue(name);
    }

    void showWholeShelf() {
        fixes.setValue(WHOLE_SHELF);
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
        checkParity(FEW_VALUES);
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

    private void checkParity(int values) {
        List<FixPage> asked =
                isWholeShelf() ? workbench.shelf().fixes() : page().stream().toList();
        if (!asked.isEmpty()) {
            parity.check(workbench.shelf(), asked, values, this::fill);
        }
    }

    private Outcome<String> rendered(Language language, FixPage page) {
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
        if (isWholeShelf()) {
            fillShelf();
            return;
        }
        right.setContent(ofFix);
        Optional<FixPage> page = page();
        if (page.isEmpty()) {
            heading.setText("The shelf has no fix yet.");
            return;
        }
        int rows = parityOf(page.get(), ParityBoard.others().getFirst())
                .map(ParityResult::rows)
                .orElse(0);
        subtitle.setText("in " + Languages.ALL.size() + " query languages · "
                + (rows == 0 ? "being checked" : "checked on " + String.format("%,d", rows) + " rows of arguments"));
        boolean focused = languages.getChildren().stream().anyMatch(n -> n.isFocused());
        languages.getChildren().clear();
        for (int i = 0; i < Languages.ALL.size(); i++) {
            languages.getChildren().add(entry(Languages.ALL.get(i), i, page.get()));
        }
        if (focused) {
            languages.getChildren().get(chosen).requestFocus();
        }
        Language language = Languages.ALL.get(chosen);
        Outcome<String> text = rendered(language, page.get());
        heading.setText("As " + language.title() + (asExpression ? ", an expression" : ", a function"));
        copied = text.value().orElse("");
        code.show(copied.stripTrailing(), language.keywords());
        box.setPrefHeight(Math.max(120, Math.min(360, copied.lines().count() * 20 + 34)));
        why.setText(text.problems().stream().findFirst().map(p -> p.sentence()).orElse(""));
        why.setVisible(!why.getText().isEmpty());
        why.setManaged(why.isVisible());
        fillDifferences(page.get());
        fillCases(page.get());
        changed.run();
    }

    private void fillShelf() {
        right.setContent(ofShelf);
        subtitle.setText("every fix in every query language");
        languages.getChildren().clear();
        for (Language language : ParityBoard.others()) {
            languages.getChildren().add(total(language));
        }
        board.fill(workbench.shelf());
        changed.run();
    }

    private Region total(Language language) {
        List<ParityResult> results = workbench.shelf().fixes().stream()
                .flatMap(p -> parityOf(p, language).stream())
                .toList();
        long differ = results.stream().filter(ParityResult::differs).count();
        long same = results.stream()
                .filter(r -> r.verdict() instanceof ParityResult.Same)
                .count();
        Optional<String> notRun = results.stream()
                .filter(r -> r.verdict() instanceof ParityResult.NotRun)
                .map(ParityResult::detail)
                .findFirst();
        String mark = results.isEmpty()
                ? "… being checked"
                : notRun.isPresent() ? "· not run" : differ > 0 ? "▲ " + differ + " differ" : "● " + same + " same";
        String style = differ > 0 ? "fails" : results.isEmpty() || notRun.isPresent() ? "faint" : "holds";
        long unsaid = results.size() - same - differ;
        String detail = notRun.orElse(unsaid > 0 ? unsaid + " cannot be said" : "");
        return Ui.column(
                "language",
                Ui.row("entry-marks", Ui.label(language.title()), Ui.spring(), Ui.label(mark, style)),
                Ui.wrapped(detail, "soft", "small"));
    }

    private void fillDifferences(FixPage page) {
        differences.getChildren().clear();
        int row = 1;
        int rows = 0;
        int compared = 0;
        for (Language language : ParityBoard.others()) {
            Optional<ParityResult> result = parityOf(page, language);
            if (result.isPresent() && result.get().verdict() instanceof ParityResult.Differs found) {
                differences.add(Ui.label(language.title()), 0, row);
                String input = found.input().stream()
                        .map(v -> CaseResult.shown(v.value()))
                        .collect(java.util.stream.Collectors.joining(", "));
                differences.add(Ui.label(input, "mono"), 1, row);
                differences.add(Ui.label(ParityResult.shown(found.expected()), "mono"), 2, row);
                differences.add(Ui.label(ParityResult.shown(found.got()), "mono", "fails"), 3, row);
                row++;
            } else if (result.isPresent() && result.get().verdict() instanceof ParityResult.Same) {
                compared++;
                rows = result.get().rows();
            }
        }
        if (row > 1) {
            List<String> heads = List.of("language", "smallest input", "reference", "answer");
            for (int c = 0; c < heads.size(); c++) {
                differences.add(Ui.label(heads.get(c), "table-head"), c, 0);
            }
        }
        String where = compared == 0
                ? "Being checked …"
                : String.format("The same on all %,d rows of arguments in %d languages so far.", rows, compared);
        agreed.setText(row > 1 && compared == 0 ? "" : where);
    }

    private Region entry(Language language, int index, FixPage page) {
        Outcome<String> text = rendered(language, page);
        Optional<ParityResult> compared = parityOf(page, language);
        Checked result = checked.get(language.id());
        String mark;
        String style;
        String detail;
        if (!text.isPresent()) {
            mark = "○ cannot say it";
            style = "faint";
            detail = text.problems().getFirst().sentence();
        } else if (compared.isPresent() && !(compared.get().verdict() instanceof ParityResult.NotRun)) {
            mark = compared.get().mark();
            style = compared.get().differs() ? "fails" : "holds";
            String engine = result == null ? "" : result.presence().sentence() + " · ";
            detail = engine
                    + (compared.get().differs() ? "first differs on " : "")
                    + compared.get().detail();
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
        cases.add(Ui.label("answers", "table-head"), width, 0);
        for (int i = 0; i < page.cases().size(); i++) {
            List<String> cells = page.cases().get(i).cells();
            for (int c = 0; c < cells.size(); c++) {
                cases.add(Ui.label(fixshelf.type.Visible.markOddities(cells.get(c)), "mono"), c, i + 1);
            }
            cases.add(answers(i), width, i + 1);
        }
    }

    /// In how many languages a case holds, then each in which it does not, with its answer.
    private HBox answers(int row) {
        HBox line = Ui.row("entry-marks");
        int holds = 0;
        for (Language language : Languages.ALL) {
            Checked result = checked.get(language.id());
            Optional<CaseResult> one = result == null
                    ? Optional.empty()
                    : result.results().stream().filter(r -> r.index() == row).findFirst();
            if (one.isPresent() && one.get().holds()) {
                holds++;
            } else {
                line.getChildren().add(other(language, result, one));
            }
        }
        if (holds > 0) {
            line.getChildren().addFirst(Ui.label("= in " + Ui.count(holds, "language", "languages"), "holds"));
        }
        return line;
    }

    private static Label other(Language language, @Nullable Checked result, Optional<CaseResult> one) {
        if (result == null) {
            return Ui.label(language.title() + " …", "faint");
        }
        if (one.isEmpty()) {
            return Ui.label("· " + language.title() + " not run", "faint");
        }
        return one.get().answer() instanceof Answer.NotSaid
                ? Ui.label("○ " + language.title() + " cannot say it", "faint")
                : Ui.label("▲ " + language.title() + " " + one.get().got(), "fails");
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
                }),
                Command.of("Check 10,000 values", "Shortcut+Shift+P", () -> checkParity(MANY_VALUES)),
                Command.of("Save the whole shelf …", "Shortcut+Shift+S", this::chooseAndSave));
    }

    private void chooseAndSave() {
        DirectoryChooser chooser = new DirectoryChooser();
        chooser.setTitle(
                "A folder for the shelf in " + Languages.ALL.get(chosen).title());
        Optional.ofNullable(chooser.showDialog(pages.getScene().getWindow()))
                .map(File::toPath)
                .ifPresent(this::save);
    }

    /// Saves the whole shelf in the chosen language, with its cases as tests, and says what came of it.
    void save(Path folder) {
        Language language = Languages.ALL.get(chosen);
        Shelf shelf = workbench.shelf();
        saved.setText("Saving …");
        workbench
                .background()
                .ask(
                        Request.now("export", "saving the shelf in " + language.title()),
                        () -> Export.write(shelf, language, folder, new Export.Wanted(true, false)),
                        report -> {
                            Ui.mark(saved, "problem", !report.isPresent());
                            saved.setText(
                                    report.isPresent()
                                            ? savedWords(report.get(), language)
                                            : report.problems().getFirst().sentence());
                        });
    }

    private static String savedWords(Export.Report report, Language language) {
        String files = Ui.joined(
                report.files().stream().map(f -> f.getFileName().toString()).toList());
        String left = report.refused().isEmpty()
                ? ""
                : " Left out, because " + language.title() + " cannot say them: "
                        + Ui.joined(report.refused().stream()
                                .map(r -> r.substring(0, r.indexOf(':')))
                                .toList())
                        + ".";
        return "Wrote " + files + "." + left;
    }

    @Override
    public String status() {
        if (isWholeShelf()) {
            List<ParityResult> known = workbench.shelf().fixes().stream()
                    .flatMap(p -> ParityBoard.others().stream().flatMap(l -> parityOf(p, l).stream()))
                    .toList();
            return new ParityReport(known, FEW_VALUES, Parity.Settings.SEED).summary();
        }
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
        fixes.getItems().addFirst(WHOLE_SHELF);
        String usual = names.contains("squeeze_spaces")
                ? "squeeze_spaces"
                : names.stream().findFirst().orElse(null);
        boolean stays = now != null && (names.contains(now) || now.equals(WHOLE_SHELF));
        fixes.setValue(stays ? now : usual);
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
