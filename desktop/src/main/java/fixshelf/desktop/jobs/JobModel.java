package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.PagedRows;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.fetch.Copies;
import fixshelf.plan.Callables;
import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.plan.TableExample;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.FixOfLines;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.source.SourceFile;
import fixshelf.source.SourceSession;
import fixshelf.table.Field;
import fixshelf.type.Column;
import fixshelf.work.Beside;
import fixshelf.work.CellLife;
import fixshelf.work.CellLives;
import fixshelf.work.Datasets;
import fixshelf.work.Figure;
import fixshelf.work.JobRun;
import fixshelf.work.Ledger;
import fixshelf.work.LineEffect;
import fixshelf.work.LostValue;
import fixshelf.work.Mending;
import fixshelf.work.PlannedJob;
import fixshelf.work.Preview;
import fixshelf.work.PreviewRow;
import fixshelf.work.ReadNotes;
import fixshelf.work.RunLog;
import fixshelf.work.Sample;
import fixshelf.work.TableTrial;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// What a job does, computed in the background: effects of its lines, rows as of a line, a run.
///
/// The preview is only touched on its own lane.
public final class JobModel {
    private static final String LANE = "preview";

    private final Background background;
    private @Nullable Preview preview;
    private Sample sample = Sample.FIRST;

    public JobModel(Background background) {
        this.background = background;
        background.atEnd(() -> {
            if (preview != null) {
                preview.close();
            }
        });
    }

    /// What was found of a job.
    ///
    /// @param figures those that are watched, after each line
    /// @param notes what is worth saying of the file
    /// @param looked which rows were looked at, in words
    /// @param total rows of the source, or -1 while that is not known
    public record Look(
            PlannedJob planned,
            List<LineEffect> effects,
            List<List<Figure>> figures,
            List<Problem> problems,
            List<String> notes,
            long rows,
            String looked,
            long total,
            long millis) {
        List<Figure> figures(int line) {
            return line <= figures.size() ? figures.get(line - 1) : List.of();
        }

        /// Why nothing can be written by an output, in words.
        Stream<String> wrongWith(int output) {
            List<PlannedJob.Target> targets = planned.targets();
            List<JobPage.Output> outputs = planned.job().outputs();
            return output >= Math.min(targets.size(), outputs.size())
                    ? Stream.empty()
                    : Stream.concat(
                                    problems.stream().filter(p -> p.where()
                                            .span()
                                            .isWithin(outputs.get(output).span())),
                                    targets.get(output).objection().stream())
                            .map(Problem::sentence)
                            .distinct();
        }

        public List<Column> columnsAt(int line) {
            List<Step> steps = planned.plan().steps();
            return steps.get(Math.max(0, Math.min(line, steps.size()) - 1)).columns();
        }

        /// The lines up to one, after the first, as a table fix.
        FixOfLines.Made asFix(String name, JobPage job, int last, Callables callables) {
            return FixOfLines.of(
                    name,
                    job.title() + ", as a fix",
                    job.lines().getFirst().line().name(),
                    job.lines().subList(1, last).stream()
                            .map(JobPage.PlacedLine::line)
                            .toList(),
                    columnsAt(1).stream().map(Column::name).toList(),
                    columnsAt(last).stream().map(Column::name).toList(),
                    callables::find);
        }

        /// The columns that a line gives new values.
        Set<String> computedAt(int line) {
            List<Step> steps = planned.plan().steps();
            Step step = steps.get(Math.max(0, Math.min(line, steps.size()) - 1));
            return step.replaced().stream().map(Field::name).collect(Collectors.toSet());
        }

        /// The reports of a line that have any row.
        List<LineEffect.Counted> reports(int line) {
            return effect(line)
                    .map(e -> e.reports().stream().filter(r -> r.rows() > 0).toList())
                    .orElse(List.of());
        }

        /// The columns of what is shown of a line.
        List<Column> columnsOf(int line, Sight sight) {
            return sight.report(planned, line)
                    .map(r -> r.relation().shape().columns())
                    .orElseGet(() -> Preview.fields(planned, line, sight.view()).stream()
                            .map(Field::column)
                            .toList());
        }

        Optional<LineEffect> effect(int line) {
            return effects.stream().filter(e -> e.line() == line).findFirst();
        }
    }

    /// What is shown of a line: a view, or one of its reports by name.
    public record Sight(Preview.View view, String name) {
        public static Sight of(Preview.View view) {
            return new Sight(view, "");
        }

        Optional<Operation.Report> report(PlannedJob job, int line) {
            return name.isEmpty() ? Optional.empty() : job.report(line, name);
        }
    }

    /// Whether rows from the whole source are looked at, where it has more than a look takes.
    boolean isSpread() {
        return sample == Sample.SPREAD;
    }

    /// Looks at the first rows from the next look on, or at rows from the whole source.
    void turnSample() {
        sample = isSpread() ? Sample.FIRST : Sample.SPREAD;
    }

    /// Looks at a job as it is now; a newer look replaces an older one that is not done.
    void look(Shelf shelf, JobPage job, Consumer<Outcome<Look>> done) {
        background.ask(new Request(LANE, "looking at the job", 30), () -> looked(shelf, job), done);
    }

    private Outcome<Look> looked(Shelf shelf, JobPage job) {
        Outcome<PlannedJob> planned = PlannedJob.draft(shelf, job, Map.of());
        if (!planned.isPresent()) {
            return Outcome.failed(planned.problems());
        }
        Outcome<Preview> opened = opened(planned.get().source());
        if (!opened.isPresent()) {
            return Outcome.failed(opened.problems());
        }
        long start = System.nanoTime();
        Preview current = opened.get();
        current.choose(sample);
        return current.look(planned.get())
                .map(effects -> new Look(
                        planned.get(),
                        effects,
                        current.figures(planned.get()).value().orElse(List.of()),
                        planned.problems(),
                        ReadNotes.of(shelf, current, planned.get()),
                        current.rows(),
                        current.rowsInWords(),
                        current.staged() < Preview.STAGED_ROWS ? current.staged() : -1,
                        (System.nanoTime() - start) / 1_000_000));
    }

    private Outcome<Preview> opened(SourceFile source) {
        if (preview != null && preview.isOf(source)) {
            return Outcome.of(preview);
        }
        if (preview != null) {
            preview.close();
            preview = null;
        }
        Outcome<Preview> opened = Preview.open(source);
        opened.value().ifPresent(p -> preview = p);
        return opened;
    }

    /// The rows of what is shown of a line, as a list that asks for its pages; or why there are none.
    public void rows(Look look, int line, Sight sight, Consumer<Outcome<PagedRows>> done) {
        Optional<Operation.Report> report = sight.report(look.planned(), line);
        background.ask(
                Request.now(LANE, "reading rows"),
                () -> {
                    if (preview == null) {
                        return Outcome.<Long>of(0L);
                    }
                    return report.isPresent()
                            ? preview.count(look.planned(), report.get())
                            : preview.count(look.planned(), line, sight.view());
                },
                count -> done.accept(
                        count.map(n -> new PagedRows(n, (page, list) -> page(look, line, sight, page, list)))));
    }

    private void page(Look look, int line, Sight sight, int page, PagedRows list) {
        Optional<Operation.Report> report = sight.report(look.planned(), line);
        long from = (long) page * PagedRows.PAGE;
        background.ask(
                Request.now(LANE, "reading page " + page),
                () -> {
                    if (preview == null) {
                        return Outcome.<List<PreviewRow>>of(List.of());
                    }
                    return report.isPresent()
                            ? preview.rows(look.planned(), report.get(), from, PagedRows.PAGE)
                            : preview.rows(look.planned(), line, sight.view(), from, PagedRows.PAGE);
                },
                rows -> list.put(page, rows.value().orElse(List.of())));
    }

    /// The tables after two lines beside each other, and their rows as a list that asks for its pages.
    record BothLines(Beside beside, PagedRows rows) {}

    void beside(Look look, int line, int other, Consumer<Outcome<BothLines>> done) {
        background.ask(
                Request.now(LANE, "putting two lines beside each other"),
                () -> Beside.of(Objects.requireNonNull(preview), look.planned(), line, other),
                found -> done.accept(found.map(
                        b -> new BothLines(b, new PagedRows(b.rows(), (page, list) -> page(b, page, list))))));
    }

    private void page(Beside beside, int page, PagedRows list) {
        background.ask(
                Request.now(LANE, "reading page " + page + " of both"),
                () -> beside.rows(Objects.requireNonNull(preview), (long) page * PagedRows.PAGE, PagedRows.PAGE),
                rows -> list.put(page, rows.value().orElse(List.of())));
    }

    /// The values that a line loses, the commonest first.
    void lost(Look look, int line, int most, Consumer<List<LostValue>> done) {
        background.ask(
                Request.now(LANE, "reading lost values"),
                () -> preview == null
                        ? Outcome.<List<LostValue>>of(List.of())
                        : preview.lost(look.planned(), line, most),
                values -> done.accept(values.value().orElse(List.of())));
    }

    /// Lines that would mend the keys which nearly match at a line.
    void mendings(Shelf shelf, Look look, int line, Consumer<List<Mending>> done) {
        background.ask(
                Request.now(LANE, "trying what mends the keys"),
                () -> preview == null
                        ? Outcome.<List<Mending>>of(List.of())
                        : Mending.of(shelf, preview, look.planned(), line),
                found -> done.accept(found.value().orElse(List.of())));
    }

    /// The columns of a dataset; none where its file cannot be read.
    public void columns(Shelf shelf, String dataset, Consumer<List<Column>> done) {
        background.ask(
                Request.now("columns", "looking at " + dataset),
                () -> Datasets.open(shelf, dataset),
                file -> done.accept(file.value().map(f -> f.columns()).orElse(List.of())));
    }

    /// A table fix tried on a table: what was found of the jobs that call it with each number of its lines.
    ///
    /// @param effects of its lines
    public record Trial(List<Look> looks, List<LineEffect> effects) {}

    /// Tries a table fix; a newer trial replaces an older one that is not done.
    public void trial(
            Shelf shelf,
            TableFixPage page,
            TableTrial.On on,
            Map<String, Written> arguments,
            Consumer<Outcome<Trial>> done) {
        background.ask(
                new Request(LANE, "trying " + page.name(), 30),
                () -> TableTrial.plans(shelf, page, on, arguments).then(plans -> tried(plans, page.isLoader())),
                done);
    }

    private Outcome<Trial> tried(List<PlannedJob> plans, boolean loads) {
        List<Look> looks = new ArrayList<>();
        List<List<LineEffect>> effects = new ArrayList<>();
        for (PlannedJob planned : plans) {
            Outcome<Preview> opened = opened(planned.source());
            Outcome<List<LineEffect>> looked = opened.then(p -> p.look(planned));
            if (!looked.isPresent()) {
                return Outcome.failed(looked.problems());
            }
            Preview current = opened.get();
            effects.add(looked.get());
            looks.add(new Look(
                    planned,
                    looked.get(),
                    List.of(),
                    List.of(),
                    List.of(),
                    current.rows(),
                    current.rowsInWords(),
                    current.staged(),
                    0));
        }
        return Outcome.of(new Trial(looks, TableTrial.effects(plans, effects, loads)));
    }

    /// A case of the first rows of a dataset, and of what a table fix makes of them.
    public void caseOf(
            Shelf shelf,
            TableFixPage page,
            TableTrial.On on,
            Map<String, Written> arguments,
            int rows,
            Consumer<Outcome<TableExample>> done) {
        background.ask(
                Request.now("case", "making a case"), () -> TableTrial.caseOf(shelf, page, on, arguments, rows), done);
    }

    /// The life of a cell: of the row with that place, from 1, after a line.
    void life(Look look, int line, long row, String column, Consumer<Outcome<CellLife>> done) {
        background.ask(
                Request.now(LANE, "following a cell"),
                () -> CellLives.of(Objects.requireNonNull(preview), look.planned(), line, row, column),
                done);
    }

    /// What became of every row that was looked at.
    void ledger(Look look, Consumer<Outcome<Ledger>> done) {
        background.ask(
                Request.now(LANE, "accounting for the rows"),
                () -> Objects.requireNonNull(preview).ledger(look.planned()),
                done);
    }

    /// Counts all rows of a source that is larger than what is staged.
    void countAll(Look look, Consumer<Long> done) {
        background.ask(
                Request.now("count", "counting all rows"),
                () -> SourceSession.count(look.planned().source()),
                count -> count.value().ifPresent(done));
    }

    /// Runs the job on all rows; `stage` hears where it is and how to stop it.
    void run(Shelf shelf, JobPage job, JobRun.Watcher stage, Consumer<Outcome<JobRun.Report>> done) {
        background.ask(
                Request.now("run", "running " + job.title()),
                () -> {
                    // What is read live is read anew for each run.
                    Copies.forget();
                    Outcome<PlannedJob> planned = PlannedJob.plan(shelf, job, Map.of());
                    Outcome<JobRun.Report> report = planned.then(
                            p -> JobRun.run(p, (words, stop) -> background.onScreen(() -> stage.stage(words, stop))));
                    report.value().ifPresent(r -> RunLog.add(shelf.root(), planned.get(), r));
                    return report;
                },
                done,
                why -> done.accept(Outcome.failed(Problem.about(
                        Code.ENGINE_FAILED,
                        job.name(),
                        why,
                        "Nothing was written. Try again; if it stays, report it."))));
    }
}
