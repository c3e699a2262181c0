package fixshelf.desktop.shelf;

import fixshelf.check.CaseResult;
import fixshelf.desktop.parts.CodeView;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.language.tree.Parameter;
import fixshelf.language.tree.Printer;
import fixshelf.plan.Blank;
import fixshelf.plan.Line;
import fixshelf.plan.Sentences;
import fixshelf.shelf.FixEdits;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.TableFixPage;
import fixshelf.type.Visible;
import fixshelf.work.JobParity;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// The page of a fix as its reader sees it, with a strip to try it.
final class ReaderPage {
    private final Workbench workbench;
    private final VBox sheet = Ui.column("sheet");
    private final ScrollPane view = Ui.page(sheet);
    private final TryIt tryIt;
    private @Nullable FixPage page;
    private @Nullable TableFixPage table;

    ReaderPage(Workbench workbench) {
        this.workbench = workbench;
        this.tryIt = new TryIt(workbench);
        sheet.getChildren().add(Ui.label("Choose a fix on the left.", "soft"));
    }

    /// What stands here while no fix is chosen.
    void emptyWords() {
        if (page == null && table == null) {
            sheet.getChildren().setAll(Ui.wrapped("Choose a fix on the left.", "soft"));
        }
    }

    Region view() {
        return view;
    }

    void refresh() {
        if (page != null) {
            fill(page);
        } else if (table != null) {
            fill(table);
        }
    }

    void show(TableFixPage shown) {
        page = null;
        table = shown;
        fill(shown);
    }

    private void fill(TableFixPage fix) {
        sheet.getChildren()
                .setAll(
                        Ui.wrapped(fix.title(), "title"),
                        Ui.wrapped("“" + fix.sentence() + "”", "mono"),
                        Ui.wrapped(fix.prose().replace("`", "").replaceAll("(?<!\n)\n(?!\n)", " "), "prose"));
        fix.problems().stream().limit(3).forEach(p -> sheet.getChildren().add(Ui.wrapped(p.sentence(), "problem")));
        GridPane parameters = new GridPane();
        parameters.setHgap(18);
        parameters.setVgap(5);
        for (int i = 0; i < fix.parameters().size(); i++) {
            Blank<?> blank = fix.parameters().get(i);
            parameters.addRow(
                    i,
                    Ui.label(blank.name(), "mono"),
                    Ui.label(blank.kind().name() + fallback(blank)),
                    Ui.wrapped(blank.about(), "soft"));
        }
        VBox lines = new VBox(6);
        for (int i = 0; i < fix.allLines().size(); i++) {
            Line line = fix.allLines().get(i).line();
            lines.getChildren()
                    .add(Ui.wrapped((i + 1) + "  "
                            + Sentences.plain(line, workbench.shelf().callables())));
        }
        sheet.getChildren()
                .addAll(
                        Ui.label("Parameters", "heading"),
                        parameters,
                        Ui.label("Lines", "heading"),
                        lines,
                        Ui.label("Cases", "heading"));
        List<JobParity> results = workbench.resultsOf(fix);
        for (int i = 0; i < fix.cases().size(); i++) {
            Optional<JobParity> result = i < results.size() ? Optional.of(results.get(i)) : Optional.empty();
            sheet.getChildren().add(TableCases.of(fix.cases().get(i), result));
        }
        if (fix.cases().isEmpty()) {
            sheet.getChildren().add(Ui.wrapped("No case yet.", "soft"));
        }
        if (!fix.promises().isEmpty()) {
            sheet.getChildren().addAll(Ui.label("Promises", "heading"), TablePromiseLines.of(workbench, fix));
        }
        used(fix.name());
        sheet.getChildren()
                .add(Ui.label("Version " + fix.version() + " · " + fix.source().name(), "soft", "small"));
    }

    private static <T> String fallback(Blank<T> blank) {
        return blank.fallback()
                .map(f -> ", " + blank.kind().say(f) + " if left out")
                .orElse("");
    }

    private void used(String name) {
        List<String> users = workbench.shelf().usersOf(name);
        sheet.getChildren()
                .addAll(
                        Ui.label("Where used", "heading"),
                        Ui.wrapped(users.isEmpty() ? "Nowhere yet." : Ui.joined(users)));
    }

    void show(FixPage shown) {
        table = null;
        page = shown;
        tryIt.show(shown);
        fill(shown);
    }

    private void fill(FixPage fix) {
        sheet.getChildren()
                .setAll(
                        Ui.wrapped(fix.title(), "title"),
                        Ui.wrapped(fix.signature(), "mono"),
                        Ui.wrapped(fix.prose().replace("`", ""), "prose"),
                        tryIt.view());
        fix.problems().stream().limit(3).forEach(p -> sheet.getChildren().add(Ui.wrapped(p.sentence(), "problem")));
        sheet.getChildren()
                .addAll(Ui.label("Parameters", "heading"), parameters(fix), Ui.label("Body", "heading"), body(fix));
        sheet.getChildren().addAll(Ui.label("Cases", "heading"), cases(fix));
        promises(fix);
        used(fix.name());
        sheet.getChildren()
                .add(Ui.label("Version " + fix.version() + " · " + fix.source().name(), "soft", "small"));
    }

    private static GridPane parameters(FixPage fix) {
        GridPane grid = new GridPane();
        grid.setHgap(18);
        grid.setVgap(5);
        for (int i = 0; i < fix.parameters().size(); i++) {
            Parameter parameter = fix.parameters().get(i);
            String fallback = parameter
                    .fallback()
                    .map(f -> ", " + Printer.print(f) + " if left out")
                    .orElse("");
            grid.addRow(
                    i,
                    Ui.label(parameter.name(), "mono"),
                    Ui.label(parameter.type().label() + fallback),
                    Ui.wrapped(parameter.about(), "soft"));
        }
        return grid;
    }

    private static Region body(FixPage fix) {
        CodeView code = new CodeView(false);
        code.show(fix.bodyText(), Set.of());
        VBox box = Ui.column("code-box", code);
        long lines = fix.bodyText().lines().count();
        code.setPrefHeight(Math.min(14, Math.max(1, lines)) * 20 + 6);
        code.setMinHeight(code.getPrefHeight());
        VBox.setVgrow(code, Priority.NEVER);
        return box;
    }

    private GridPane cases(FixPage fix) {
        GridPane grid = new GridPane();
        grid.setHgap(22);
        grid.setVgap(4);
        List<String> heading = FixEdits.heading(fix);
        for (int c = 0; c < heading.size(); c++) {
            grid.add(Ui.label(heading.get(c), "table-head"), c + 1, 0);
        }
        List<CaseResult> results = workbench.resultsOf(fix);
        for (int i = 0; i < fix.cases().size(); i++) {
            int row = i;
            Optional<CaseResult> result =
                    results.stream().filter(r -> r.index() == row).findFirst();
            boolean holds = result.map(CaseResult::holds).orElse(true);
            String mark = result.isEmpty() ? "…" : holds ? "● holds" : "▲ fails";
            grid.add(Ui.label(mark, result.isEmpty() ? "soft" : holds ? "holds" : "fails"), 0, i + 1);
            List<String> cells = fix.cases().get(i).cells();
            for (int c = 0; c < cells.size(); c++) {
                grid.add(Ui.label(shown(cells.get(c)), "mono"), c + 1, i + 1);
            }
            if (!holds) {
                grid.add(Ui.label("got " + result.orElseThrow().got(), "mono", "fails"), cells.size() + 1, i + 1);
            }
        }
        return grid;
    }

    private static String shown(String cell) {
        return cell.startsWith("'") ? Visible.markOddities(cell) : cell;
    }

    private void promises(FixPage fix) {
        if (fix.promises().isEmpty()) {
            return;
        }
        sheet.getChildren().add(Ui.label("Promises", "heading"));
        sheet.getChildren().add(PromiseLines.of(workbench, fix));
    }
}
