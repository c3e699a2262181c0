package fixshelf.desktop.languages;

import fixshelf.check.CaseResult;
import fixshelf.desktop.parts.CodeSheet;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.engine.FixEngines;
import fixshelf.engine.Stop;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.work.JobParity;
import fixshelf.work.PlannedJob;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/// A job in all languages: its code line by line, and the first cell that comes out differently.
final class JobInLanguages implements InLanguages {
    private static final Outcome<String> BEING_WRITTEN =
            Outcome.failed(Problem.about(Code.CANNOT_SAY, "job", "Being written …", ""));

    /// The job as languages write it, and its code in each of them.
    private record Written(Outcome<PlannedJob> planned, Map<String, Outcome<String>> code) {}

    private final Workbench workbench;
    private final Runnable changed;
    private final CodeSheet code = new CodeSheet();
    private final GridPane differences = new GridPane();
    private final Label agreed = Ui.wrapped("", "soft");
    private final VBox page;
    private final Map<String, JobParity> results = new HashMap<>();
    private Optional<JobPage> job = Optional.empty();
    private Optional<Written> written = Optional.empty();

    JobInLanguages(Workbench workbench, Node buttons, Runnable changed) {
        this.workbench = workbench;
        this.changed = changed;
        differences.setHgap(26);
        differences.setVgap(5);
        page = Ui.column(
                "sheet",
                code.view(),
                buttons,
                Ui.label("Where rows differ", "heading"),
                Ui.wrapped(
                        "The code is run over the first " + JobParity.ROWS
                                + " rows of the source and compared, cell by cell, with what the job gives here.",
                        "soft"),
                differences,
                agreed);
    }

    void show(JobPage shown) {
        boolean same = job.map(j -> j == shown).orElse(false);
        job = Optional.of(shown);
        if (!same) {
            written = Optional.empty();
            results.clear();
        }
    }

    @Override
    public String subtitle() {
        return "a job, in " + Languages.ALL.size() + " query languages";
    }

    private Outcome<String> written(Language language) {
        return written.map(w -> w.code().getOrDefault(language.id(), BEING_WRITTEN))
                .orElse(BEING_WRITTEN);
    }

    @Override
    public Standing standing(Language language) {
        Outcome<String> text = written(language);
        Optional<Outcome<PlannedJob>> planned = written.map(Written::planned);
        if (planned.isPresent() && !planned.get().isPresent()) {
            return new Standing("▲ has a problem", "fails", "");
        }
        if (!text.isPresent() && text != BEING_WRITTEN) {
            long lines = text.problems().size();
            return new Standing(
                    "○ cannot say " + Ui.count(lines, "line", "lines"),
                    "faint",
                    text.problems().getFirst().sentence());
        }
        @Nullable JobParity result = results.get(language.id());
        if (result == null) {
            return new Standing("… running", "soft", "");
        }
        boolean same = result.isSame();
        return new Standing(result.mark(), result.differs() ? "fails" : same ? "holds" : "faint", result.detail());
    }

    @Override
    public Region page(Language chosen) {
        code.fill("the whole job", chosen, written(chosen));
        differences.getChildren().clear();
        int row = 1;
        int same = 0;
        for (Language language : Languages.ALL) {
            @Nullable JobParity result = results.get(language.id());
            if (result != null && result.differs()) {
                differences.addRow(row++, Ui.label(language.title()), difference(result));
            } else if (result != null && result.isSame()) {
                same++;
            }
        }
        agreed.setText(
                same == 0
                        ? "Being checked …"
                        : "The same rows in " + Ui.count(same, "language", "languages") + " so far.");
        return page;
    }

    private static Node difference(JobParity result) {
        return result.verdict() instanceof JobParity.Differs(int row, String column, Object expected, Object got)
                ? Ui.row(
                        "entry-marks",
                        Ui.label(column + " of row " + row),
                        Ui.label(CaseResult.shown(expected), "mono"),
                        Ui.label(CaseResult.shown(got), "mono", "fails"))
                : Ui.label(result.detail(), "fails");
    }

    @Override
    public void check(int values) {
        results.clear();
        job.ifPresent(shown -> {
            Shelf shelf = workbench.shelf();
            workbench.background().ask(Request.now("rendering", "writing code"), () -> write(shelf, shown), w -> {
                if (job.filter(shown::equals).isEmpty()) {
                    return;
                }
                written = Optional.of(w);
                w.planned().value().ifPresent(p -> compare(shelf, p));
                changed.run();
            });
        });
    }

    private static Written write(Shelf shelf, JobPage shown) {
        Outcome<PlannedJob> planned = PlannedJob.plan(shelf, shown, Map.of());
        Outcome<JobCode> job = planned.map(p -> p.code(shelf));
        Map<String, Outcome<String>> code = new HashMap<>();
        Languages.ALL.forEach(l -> code.put(l.id(), job.then(l::job)));
        return new Written(planned, code);
    }

    /// All languages in one go, so that the source is read once.
    private void compare(Shelf shelf, PlannedJob planned) {
        workbench
                .background()
                .ask(
                        new Request("job in languages", "the job in every language", 120),
                        () -> JobParity.check(shelf, planned, FixEngines.ALL, Stop.currentOrNew(), r -> workbench
                                .background()
                                .onScreen(() -> take(planned, r))),
                        found -> {
                            if (!found.isPresent()) {
                                String why = found.problems().getFirst().sentence();
                                Languages.ALL.forEach(l -> take(
                                        planned, new JobParity(planned.job().name(), l, new JobParity.NotRun(why), 0)));
                            }
                            changed.run();
                        });
    }

    /// A result that comes late, of another job or of the job as it was, says nothing.
    private void take(PlannedJob planned, JobParity result) {
        boolean now =
                written.flatMap(w -> w.planned().value()).map(p -> p == planned).orElse(false);
        if (now) {
            results.put(result.language().id(), result);
            changed.run();
        }
    }

    @Override
    public String code(Language language) {
        return written(language).value().orElse("");
    }

    @Override
    public String status() {
        long same = results.values().stream().filter(JobParity::isSame).count();
        return "the same rows in " + same + " of " + Languages.ALL.size() + " languages";
    }
}
