package fixshelf.desktop.languages;

import fixshelf.check.Parity;
import fixshelf.check.ParityReport;
import fixshelf.check.ParityResult;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.render.Language;
import fixshelf.shelf.FixPage;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.scene.Node;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The whole shelf in all languages: every fix and every language, each cell explained.
final class ShelfInLanguages implements InLanguages {
    private final Workbench workbench;
    private final ParityModel parity;
    private final ParityBoard board;
    private final TableBoard tables;
    private final Runnable changed;
    private final VBox page;
    private int values = LanguagesPlace.FEW_VALUES;

    ShelfInLanguages(
            Workbench workbench,
            ParityModel parity,
            BiConsumer<String, Language> open,
            Node buttons,
            Runnable changed) {
        this.workbench = workbench;
        this.parity = parity;
        this.changed = changed;
        this.board = new ParityBoard(parity, open);
        this.tables = new TableBoard(workbench.background());
        page = Ui.column(
                "sheet",
                Ui.label("The whole shelf", "heading"),
                Ui.wrapped(
                        "Each fix in each language, run for real and compared with DuckDB. A cell leads to the code and to"
                                + " the first input on which answers differ.",
                        "soft"),
                Ui.wrapped(ParityBoard.SIGNS, "soft", "small"),
                buttons,
                board.view(),
                Ui.label("Table fixes and operations", "heading"),
                Ui.wrapped(
                        "The cases of table fixes, and on request the examples of all operations, row by row and in order."
                                + " Press a cell for what stands behind it.",
                        "soft"),
                Ui.row("state", Ui.button(Command.of("Run the operations' examples too", "", this::addOperations))),
                tables.view());
    }

    private void addOperations() {
        tables.addOperations();
        tables.check(workbench.shelf(), changed);
        changed.run();
    }

    @Override
    public String subtitle() {
        return "every fix in every query language";
    }

    private List<ParityResult> results(Language language) {
        return workbench.shelf().fixes().stream()
                .flatMap(p -> parity.result(workbench.shelf(), p, language).stream())
                .toList();
    }

    @Override
    public Standing standing(Language language) {
        if (!ParityBoard.others().contains(language)) {
            return new Standing("", "faint", "the reference that the others are compared with");
        }
        List<ParityResult> results = results(language);
        long differ = results.stream().filter(ParityResult::differs).count();
        long same = results.stream()
                .filter(r -> r.verdict() instanceof ParityResult.Same)
                .count();
        long unsaid = results.stream()
                .filter(r -> r.verdict() instanceof ParityResult.CannotSay)
                .count();
        Optional<String> notRun = results.stream()
                .filter(r -> r.verdict() instanceof ParityResult.NotRun)
                .map(ParityResult::detail)
                .findFirst();
        String unsaidWords = unsaid > 0 ? unsaid + " cannot be said" : "";
        if (results.isEmpty()) {
            return new Standing("… being checked", "faint", "");
        }
        if (notRun.isPresent()) {
            return new Standing("· not run", "faint", notRun.get() + (unsaid > 0 ? "; " + unsaidWords : ""));
        }
        if (same == 0 && differ == 0) {
            return new Standing("○ none can be said", "faint", "");
        }
        return differ > 0
                ? new Standing("▲ " + differ + " differ", "fails", unsaidWords)
                : new Standing("● " + same + " same", "holds", unsaidWords);
    }

    @Override
    public Region page(Language chosen) {
        board.fill(workbench.shelf());
        tables.fill(workbench.shelf());
        return page;
    }

    @Override
    public void check(int asked) {
        values = asked;
        List<FixPage> fixes = workbench.shelf().fixes();
        if (!fixes.isEmpty()) {
            parity.check(workbench.shelf(), fixes, asked, changed);
        }
        tables.check(workbench.shelf(), changed);
    }

    @Override
    public String code(Language language) {
        return "";
    }

    @Override
    public String status() {
        List<ParityResult> known =
                ParityBoard.others().stream().flatMap(l -> results(l).stream()).toList();
        return new ParityReport(known, values, Parity.Settings.SEED).summary() + tables.summary();
    }
}
