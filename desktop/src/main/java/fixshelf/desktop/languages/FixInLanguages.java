package fixshelf.desktop.languages;

import fixshelf.check.CaseResult;
import fixshelf.check.Cases;
import fixshelf.check.ParityResult;
import fixshelf.desktop.parts.CodeSheet;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.engine.Answer;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixEdits;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import fixshelf.type.Visible;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// A fix in all languages: its code, the inputs on which answers differ, and its cases.
final class FixInLanguages implements InLanguages {
    /// Texts up to that length are never cut.
    private static final int SHORT = 28;

    private static final int WIDEST = 420;

    private static final Outcome<String> BEING_WRITTEN =
            Outcome.failed(Problem.about(Code.CANNOT_SAY, "fix", "Being written …", ""));

    /// What became of the cases in a language.
    private record Checked(FixEngine.Presence presence, List<CaseResult> results) {}

    private final Workbench workbench;
    private final ParityModel parity;
    private final Runnable changed;
    private final CodeSheet code = new CodeSheet();
    private final GridPane differences = new GridPane();
    private final Label agreed = Ui.wrapped("", "soft");
    private final GridPane cases = new GridPane();
    private final VBox page;
    private final Map<String, Checked> checked = new HashMap<>();
    private Map<String, Outcome<String>> written = Map.of();
    private Optional<FixPage> fix = Optional.empty();
    private boolean asExpression;

    FixInLanguages(Workbench workbench, ParityModel parity, Node buttons, Runnable changed) {
        this.workbench = workbench;
        this.parity = parity;
        this.changed = changed;
        cases.setHgap(26);
        cases.setVgap(5);
        differences.setHgap(26);
        differences.setVgap(5);
        page = Ui.column(
                "sheet",
                code.view(),
                buttons,
                Ui.label("Where answers differ", "heading"),
                differences,
                agreed,
                Ui.label("Cases, language by language", "heading"),
                cases);
    }

    void show(FixPage shown) {
        boolean same = fix.map(f -> f.name().equals(shown.name())).orElse(false);
        fix = Optional.of(shown);
        if (!same) {
            written = Map.of();
            checked.clear();
        }
    }

    /// As an expression over columns instead of a function, or the other way round.
    void turn() {
        asExpression = !asExpression;
        write();
    }

    /// Writes the fix in every language, away from the interface: a large one takes a while.
    private void write() {
        fix.ifPresent(shown -> {
            Shelf shelf = workbench.shelf();
            boolean expression = asExpression;
            workbench
                    .background()
                    .ask(
                            Request.now("rendering", "writing code"),
                            () -> {
                                Map<String, Outcome<String>> all = new HashMap<>();
                                Languages.ALL.forEach(l -> all.put(l.id(), rendered(shelf, l, shown, expression)));
                                return all;
                            },
                            all -> {
                                if (fix.filter(shown::equals).isPresent() && asExpression == expression) {
                                    written = all;
                                    changed.run();
                                }
                            });
        });
    }

    private static Outcome<String> rendered(Shelf shelf, Language language, FixPage page, boolean asExpression) {
        Outcome<Definition> definition = shelf.definition(page);
        return definition.then(fix -> asExpression
                ? language.expression(Inliner.call(
                        fix,
                        fix.parameters().stream()
                                .map(p -> p.fallback().<Expr>map(f -> f).orElse(new Expr.Name(p.name(), p.type())))
                                .toList()))
                : language.definition(fix, page.summary()));
    }

    private Optional<ParityResult> parityOf(Language language) {
        return fix.flatMap(f -> parity.result(workbench.shelf(), f, language));
    }

    @Override
    public String subtitle() {
        int rows = parityOf(ParityBoard.others().getFirst())
                .map(ParityResult::rows)
                .orElse(0);
        return "in " + Languages.ALL.size() + " query languages · "
                + (rows == 0 ? "being checked" : "checked on " + String.format("%,d", rows) + " rows of arguments");
    }

    @Override
    public Standing standing(Language language) {
        Optional<ParityResult> compared = parityOf(language);
        Outcome<String> text = written.getOrDefault(language.id(), BEING_WRITTEN);
        @Nullable Checked result = checked.get(language.id());
        if (!text.isPresent() && text != BEING_WRITTEN) {
            return new Standing(
                    "○ cannot say it", "faint", text.problems().getFirst().sentence());
        }
        if (compared.isPresent() && !(compared.get().verdict() instanceof ParityResult.NotRun)) {
            String engine = result == null ? "" : result.presence().sentence() + " · ";
            return new Standing(
                    compared.get().mark(),
                    compared.get().differs() ? "fails" : "holds",
                    engine
                            + (compared.get().differs() ? "first differs on " : "")
                            + compared.get().detail());
        }
        if (result == null) {
            return new Standing("… running", "soft", "");
        }
        if (!result.presence().isHere()) {
            return new Standing("· not run", "faint", result.presence().sentence());
        }
        long fails = result.results().stream().filter(r -> !r.holds()).count();
        String mark = fails == 0
                ? "● " + Ui.count(result.results().size(), "case holds", "cases hold")
                : "▲ " + Ui.count(fails, "case differs", "cases differ");
        String which = language.id().equals("duckdb") ? "the reference engine, " : "";
        return new Standing(
                mark, fails == 0 ? "holds" : "fails", which + result.presence().sentence());
    }

    @Override
    public Region page(Language chosen) {
        code.fill(
                asExpression ? "an expression" : "a function",
                chosen,
                written.getOrDefault(chosen.id(), BEING_WRITTEN));
        fillDifferences();
        fix.ifPresent(this::fillCases);
        return page;
    }

    @Override
    public void check(int values) {
        checked.clear();
        write();
        fix.ifPresent(shown -> {
            Shelf shelf = workbench.shelf();
            parity.check(shelf, List.of(shown), values, changed);
            for (FixEngine engine : FixEngines.ALL) {
                String id = engine.language().id();
                String title = engine.language().title();
                workbench
                        .background()
                        .ask(
                                new Request("language " + id, "cases in " + title, 80),
                                () -> {
                                    FixEngine.Presence presence = engine.presence();
                                    return new Checked(
                                            presence,
                                            presence.isHere() ? Cases.run(shelf, List.of(shown), engine) : List.of());
                                },
                                result -> {
                                    if (fix.filter(shown::equals).isPresent()) {
                                        checked.put(id, result);
                                        changed.run();
                                    }
                                });
            }
        });
    }

    @Override
    public String code(Language language) {
        return written.getOrDefault(language.id(), BEING_WRITTEN).value().orElse("");
    }

    @Override
    public String status() {
        long here = checked.values().stream().filter(c -> c.presence().isHere()).count();
        return here + " of " + Languages.ALL.size() + " languages can be run here";
    }

    private void fillDifferences() {
        differences.getChildren().clear();
        int row = 1;
        int rows = 0;
        int compared = 0;
        for (Language language : ParityBoard.others()) {
            Optional<ParityResult> result = parityOf(language);
            if (result.isPresent() && result.get().verdict() instanceof ParityResult.Differs found) {
                String input = found.input().stream()
                        .map(v -> CaseResult.shown(v.value()))
                        .collect(Collectors.joining(", "));
                differences.addRow(
                        row,
                        Ui.label(language.title()),
                        Ui.label(input, "mono"),
                        Ui.label(ParityResult.shown(found.expected()), "mono"),
                        Ui.label(ParityResult.shown(found.got()), "mono", "fails"));
                row++;
            } else if (result.isPresent() && result.get().verdict() instanceof ParityResult.Same) {
                compared++;
                rows = result.get().rows();
            }
        }
        if (row > 1) {
            differences.addRow(
                    0,
                    Ui.label("language", "table-head"),
                    Ui.label("smallest input", "table-head"),
                    Ui.label("reference", "table-head"),
                    Ui.label("answer", "table-head"));
        }
        String where = compared == 0
                ? "Being checked …"
                : String.format("The same on all %,d rows of arguments in %d languages so far.", rows, compared);
        agreed.setText(row > 1 && compared == 0 ? "" : where);
    }

    private void fillCases(FixPage shown) {
        cases.getChildren().clear();
        List<String> columns = FixEdits.heading(shown);
        int width = columns.size();
        for (int c = 0; c < width; c++) {
            cases.add(
                    cell(columns.get(c).equalsIgnoreCase("result") ? "expected" : columns.get(c), "table-head"), c, 0);
        }
        cases.add(Ui.label("answers", "table-head"), width, 0);
        for (int i = 0; i < shown.cases().size(); i++) {
            List<String> cells = shown.cases().get(i).cells();
            for (int c = 0; c < cells.size(); c++) {
                cases.add(cell(Visible.markOddities(cells.get(c)), "mono"), c, i + 1);
            }
            cases.add(answers(i), width, i + 1);
        }
    }

    /// In how many languages a case holds, then those in which it does not, with their answers.
    private FlowPane answers(int row) {
        int holds = 0;
        List<String> running = new ArrayList<>();
        List<String> notRun = new ArrayList<>();
        List<String> unsaid = new ArrayList<>();
        List<Label> others = new ArrayList<>();
        for (Language language : Languages.ALL) {
            @Nullable Checked result = checked.get(language.id());
            Optional<CaseResult> one = result == null
                    ? Optional.empty()
                    : result.results().stream().filter(r -> r.index() == row).findFirst();
            if (one.isPresent() && one.get().holds()) {
                holds++;
            } else if (one.isPresent() && one.get().answer() instanceof Answer.NotSaid) {
                unsaid.add(language.title());
            } else if (one.isPresent()) {
                others.add(cell("▲ " + language.title() + " " + one.get().got(), "fails"));
            } else if (language.isRunHere()) {
                (result == null ? running : notRun).add(language.title());
            }
        }
        if (holds > 0) {
            others.addFirst(cell("= in " + Ui.count(holds, "language", "languages"), "holds"));
        }
        told("○ ", unsaid, " cannot say it", others);
        told("· ", notRun, " not run", others);
        told("… ", running, " running", others);
        FlowPane line = new FlowPane(14, 2);
        line.getChildren().setAll(others);
        GridPane.setHgrow(line, Priority.ALWAYS);
        return line;
    }

    /// One language by its name, several by their number.
    private static void told(String mark, List<String> languages, String words, List<Label> labels) {
        if (!languages.isEmpty()) {
            String which = languages.size() == 1 ? languages.getFirst() : languages.size() + " languages";
            Label label = cell(mark + which + words, "faint");
            label.setTooltip(new Tooltip(String.join(", ", languages)));
            labels.add(label);
        }
    }

    /// A cell that is seen whole, where it is not very long.
    private static Label cell(String text, String style) {
        Label label = Ui.label(text, style);
        if (text.length() <= SHORT) {
            label.setMinWidth(Region.USE_PREF_SIZE);
        } else {
            label.setMaxWidth(WIDEST);
            label.setTooltip(new Tooltip(text));
        }
        return label;
    }
}
