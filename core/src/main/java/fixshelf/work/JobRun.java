package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.engine.Lookup;
import fixshelf.engine.Passing;
import fixshelf.engine.Rows;
import fixshelf.operations.Operations;
import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.source.CarefulRows;
import fixshelf.source.SourceSession;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import fixshelf.type.Literals;
import fixshelf.type.Visible;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Runs a job on all rows and puts its outputs in place.
///
/// Lines that change values or columns, or keep rows by a condition, are written into the query that reads the source,
/// and rows are counted as they pass it; where nothing else comes, that query writes the output. Other lines need the
/// rows before them in a table; what comes after them row by row carries its counts in two small columns for each line.
public final class JobRun {
    /// What came of a run.
    ///
    /// @param files the outputs that are in place now
    /// @param tables the tables of servers that hold the rows now, in words
    /// @param reports how many rows stand in those that take a report of a line
    /// @param notes what else is to be told of the outputs
    public record Report(
            List<LineEffect> effects,
            int resultLine,
            List<Path> files,
            List<String> tables,
            Map<Path, Long> reports,
            List<String> notes,
            Optional<CarefulRows> careful,
            long millis) {
        public long rows() {
            return effects.get(resultLine - 1).rowsAfter();
        }

        /// How many rows stand in an output.
        public long rows(Path file) {
            return reports.getOrDefault(file, rows());
        }
    }

    /// Hears how far a run is, and hands over how to stop it.
    public interface Watcher {
        Watcher NONE = (_, _) -> {};

        /// A new stage begins; `stop` ends the run at once, from any thread.
        void stage(String words, Runnable stop);
    }

    private static final int MOST_NAMED = 5;

    private final PlannedJob job;
    private final Watcher watcher;
    private final SourceSession loaded;
    private final List<Outputs.Pending> pending;
    private final List<LineEffect> effects = new ArrayList<>();
    private final Map<Path, Long> reportRows = new HashMap<>();
    /// The lines whose tables are needed again, and those tables.
    private final Set<Integer> named;

    private final Map<Integer, String> kept = new HashMap<>();
    /// What lines of the first segment look up.
    private final Map<Integer, Lookup> lookups = new HashMap<>();
    /// The fields of the first table that nothing after it looks at, and that no output has.
    private List<Field> absent = List.of();

    private JobRun(PlannedJob job, Watcher watcher, List<Outputs.Pending> pending) {
        this.job = job;
        this.watcher = watcher;
        this.pending = pending;
        this.named = new HashSet<>(job.plan().named());
        pending.forEach(
                p -> p.target().report().filter(PlannedJob.OfLine::isTable).ifPresent(r -> named.add(r.line())));
        List<Path> files = pending.stream().flatMap(p -> p.files().stream()).toList();
        this.loaded = SourceSession.open(job.source(), job.others().values(), files);
    }

    /// Runs the job. Either all outputs are in place afterwards, or none was touched.
    public static Outcome<Report> run(PlannedJob job, Watcher watcher) {
        long start = System.nanoTime();
        Outcome<List<Outputs.Pending>> pending = Outputs.prepare(job);
        if (!pending.isPresent()) {
            return Outcome.failed(pending.problems());
        }
        JobRun run = new JobRun(job, watcher, pending.get());
        try (SourceSession loaded = run.loaded) {
            run.compute();
            List<Path> files = Outputs.keep(run.pending);
            long millis = (System.nanoTime() - start) / 1_000_000;
            return Outcome.of(new Report(
                    List.copyOf(run.effects),
                    job.plan().resultLine(),
                    files,
                    run.pending.stream()
                            .filter(p -> p.table().isPresent())
                            .map(p -> p.target().shown())
                            .toList(),
                    run.reportRows,
                    run.pending.stream().flatMap(p -> p.notes().stream()).toList(),
                    loaded.careful(),
                    millis));
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    job.job().name(),
                    "An output could not be put in place: " + e.getMessage() + ".",
                    "Look at the folder's rights and the room on the disk."));
        } finally {
            Outputs.discard(run.pending);
        }
    }

    private void stage(String words) {
        watcher.stage(words, loaded.session()::cancel);
    }

    private void compute() {
        JobChecks.wantReadJobsToHold(job, name -> stage("Looking whether " + name + " holds"));
        job.plan().others().stream().map(Relation.Source::name).distinct().forEach(name -> {
            stage("Reading " + name);
            loaded.bring(Objects.requireNonNull(job.others().get(name)), Rows.table(name));
        });
        List<PlannedJob.OfLine> taken =
                pending.stream().flatMap(p -> p.target().report().stream()).toList();
        List<Segment> segments = Segment.of(job.plan(), named, taken, this::looksUp);
        boolean streams = segments.size() == 1
                && job.plan().readsRows()
                && pending.size() == 1
                && pending.getFirst().target().form().isByEngine()
                && pending.getFirst().target().report().isEmpty();
        if (streams) {
            first(segments.getFirst(), true);
            Outputs.finish(pending.getFirst());
            return;
        }
        absent = job.plan().readsRows() ? Segment.unused(segments, job.plan(), taken) : List.of();
        String table = first(segments.getFirst(), false);
        keep(segments.getFirst(), table);
        for (int i = 1; i < segments.size(); i++) {
            int line = segments.get(i).first().number();
            int input = job.plan().before(line).number();
            table = next(segments.get(i), input == line - 1 ? table : Objects.requireNonNull(kept.get(input)), i);
            keep(segments.get(i), table);
        }
        for (Outputs.Pending output : pending) {
            if (output.target().report().isPresent()) {
                continue;
            }
            stage("Writing " + output.target().shown());
            Outputs.write(output, loaded.session(), job.plan().last().fields(), table);
        }
    }

    /// Remembers the table of a line that is needed again, and writes the outputs that take it.
    private void keep(Segment segment, String table) {
        Step last = segment.steps().getLast();
        if (!named.contains(last.number())) {
            return;
        }
        kept.put(last.number(), table);
        for (Outputs.Pending output : pending) {
            Optional<PlannedJob.OfLine> of = output.target().report();
            if (of.filter(r -> r.isTable() && r.line() == last.number()).isPresent()) {
                stage("Writing " + output.target().shown());
                Outputs.write(output, loaded.session(), last.fields(), table);
                reportRows.put(output.target().file(), loaded.session().number("SELECT count(*) FROM " + table));
            }
        }
    }

    /// Whether a line looks keys up; what it looks them up in is kept.
    private boolean looksUp(Step step) {
        Optional<Lookup> lookup = Lookup.of(loaded.session(), step, r -> Rows.other((Relation.Source) r));
        lookup.ifPresent(l -> lookups.put(step.number(), l));
        return lookup.isPresent();
    }

    private long rowsBefore(Step step) {
        return effects.get(job.plan().before(step.number()).number() - 1).rowsAfter();
    }

    /// What the tables are that a line is worked out of.
    private Function<Relation, String> bases(Step step, String base) {
        int input = job.plan().before(step.number()).number();
        return r -> switch (r) {
            case Relation.Result(int line, var _) when line == input -> base;
            case Relation.Result(int line, var _) -> numbered(Objects.requireNonNull(kept.get(line)));
            default -> Rows.other((Relation.Source) r);
        };
    }

    /// @param streams whether what is read is written at once, without a table between
    private String first(Segment segment, boolean streams) {
        stage("Reading " + job.source().file().getFileName());
        DuckSession session = loaded.session();
        List<Field> fields = job.plan().read().shape().fields();
        List<Step> after = segment.steps().subList(1, segment.steps().size());
        List<Passing> passed = new ArrayList<>();
        boolean typed = job.plan().readsDeclared()
                && loaded.readTyped(
                        relation -> passed.add(pass(after, segment.first().fields(), relation, streams)));
        if (!typed) {
            List<Step> passes = job.plan().readsTyped() ? segment.steps() : after;
            loaded.read(Long.MAX_VALUE, relation -> passed.add(pass(passes, fields, relation, streams)));
        }
        Passing passing = passed.getLast();
        loaded.careful().ifPresent(this::wantAllRows);
        long bad = loaded.careful().map(CarefulRows::badCount).orElse(0L);
        if (!job.plan().readsRows()) {
            readJob(segment.first());
        }
        long read = !job.plan().readsRows()
                ? session.number("SELECT count(*) FROM part_0")
                : passing.tally().rows();
        long lost = passing.lost(1);
        effects.add(
                LineEffect.reading(read + bad, read, segment.first().fields().size(), lost));
        JobChecks.wantTypesToHold(job, lost);
        for (Step step : after) {
            long before = passing.rows(step.number() - 1);
            long rows = passing.rows(step.number());
            List<LineEffect.Counted> reports = step.reports().stream()
                    .filter(r -> !r.dear())
                    .map(r -> new LineEffect.Counted(
                            r.name(),
                            (passing.mayBeMore(step.number(), r.name()) ? "or more " : "") + r.words(),
                            passing.shown(step.number(), r.name()),
                            r.breaks()))
                    .toList();
            effects.add(effect(
                    step,
                    before,
                    rows,
                    before - rows,
                    0,
                    passing.changed(step.number()),
                    passing.lost(step.number()),
                    reports));
            JobChecks.wantNothingLost(job, step, passing.lost(step.number()), this::stage);
        }
        return "part_0";
    }

    /// The rows of a relation through lines, into the only output or a table.
    private Passing pass(List<Step> steps, List<Field> fields, String relation, boolean streams) {
        Passing passing = new Passing(steps, "(SELECT " + Rows.read(fields) + " FROM " + relation + ")", lookups);
        String told = loaded.session().told(passing.tally());
        List<Field> last = steps.isEmpty() ? fields : steps.getLast().fields();
        List<Field> held = last.stream().filter(f -> !absent.contains(f)).toList();
        String shown = held.isEmpty() ? "0 AS nothing" : Rows.keys(held);
        long rows = loaded.session()
                .write(
                        streams
                                ? Outputs.copy(
                                        pending.getFirst(),
                                        passing.query(told, Outputs.named(pending.getFirst(), last)))
                                : "CREATE OR REPLACE TABLE part_0 AS " + passing.query(told, shown));
        if (rows != passing.tally().passed()) {
            throw new IllegalStateException(passing.tally().passed() + " rows counted, " + rows + " written");
        }
        return passing;
    }

    /// The lines of the job that is read, over its file.
    private void readJob(Step step) {
        stage("Line 1: " + step.line().call());
        Relation.Source read = job.plan().read();
        String rows = Rows.beside(step.after(), r -> r == read ? numbered("part_0") : Rows.other((Relation.Source) r));
        loaded.session()
                .run("CREATE TABLE part_read AS SELECT " + Rows.keys(step.fields()) + " FROM (" + rows
                        + ") ORDER BY p");
        loaded.session().run("DROP TABLE part_0");
        loaded.session().run("ALTER TABLE part_read RENAME TO part_0");
    }

    private void wantAllRows(CarefulRows copy) {
        if (copy.badCount() > 0 && !job.source().options().leaveOutBadRows()) {
            throw new ProblemException(copy.problem(job.source()));
        }
    }

    private String next(Segment segment, String before, int index) {
        Step step = segment.first();
        stage("Line " + step.number() + ": " + step.line().call().replace('_', ' '));
        DuckSession session = loaded.session();
        long rowsBefore = rowsBefore(step);
        if (step.isIdle()) {
            effects.add(effect(step, rowsBefore, rowsBefore, 0, 0, 0, 0, reports(step, numbered(before))));
            List<Step> others = segment.steps().subList(1, segment.steps().size());
            return others.isEmpty() ? before : made(others, before, index, rowsBefore);
        }
        if (step.dropped().isPresent() && !kept.containsValue(before)) {
            List<LineEffect.Counted> told = reports(step, numbered(before));
            // The table is ours, and deleting keeps the order of the rows that stay.
            session.run("DELETE FROM " + before + " WHERE rowid IN ("
                    + Rows.leaving(step.dropped().get(), before) + ")");
            long rows = session.number("SELECT count(*) FROM " + before);
            effects.add(effect(step, rowsBefore, rows, rowsBefore - rows, 0, 0, 0, told));
            List<Step> others = segment.steps().subList(1, segment.steps().size());
            return others.isEmpty() ? before : made(others, before, index, rows);
        }
        return made(segment.steps(), before, index, rowsBefore);
    }

    private String made(List<Step> steps, String before, int index, long rowsBefore) {
        DuckSession session = loaded.session();
        Step first = steps.getFirst();
        String base = numbered(before);
        boolean anew = Rows.countsAnew(first);
        boolean places = Lineage.setsOrder(first.after()) || anew;
        Guards.hold(first, rowsBefore, job.where(first.number()), session, bases(first, base));
        List<LineEffect.Counted> reports = reports(first, base);
        String table = "part_" + index;
        boolean origins = first.rows() == Lineage.Rows.ANY || anew;
        session.run("CREATE TABLE " + table + " AS "
                + Rows.fused(steps, bases(first, places ? base : held("", before)), places, origins));
        if (anew) {
            List<Field> fields = job.plan().before(first.number()).fields();
            session.run(Rows.counted(first, fields, table, "rowid", base, Rows.changed(first), Rows.lost(first)));
        }
        if (!kept.containsValue(before)) {
            session.run("DROP TABLE " + before);
        }
        long rows = session.number("SELECT count(*) FROM " + table);
        long left = origins
                ? rowsBefore - session.number("SELECT count(DISTINCT o) FROM " + table)
                : first.rows() == Lineage.Rows.MERGED ? 0 : rowsBefore - rows;
        long added = origins ? session.number("SELECT count(*) - count(o) FROM " + table) : 0;
        count(steps, table, rowsBefore, rows, left, added, reports);
        return table;
    }

    private String numbered(String table) {
        return held("rowid AS p, ", table);
    }

    /// A table with all fields that its line has.
    private String held(String place, String table) {
        return "(SELECT " + place + "*" + (table.equals("part_0") ? Rows.missing(absent) : "") + " FROM " + table + ")";
    }

    /// Only reports that cost about as much as the line itself.
    private List<LineEffect.Counted> reports(Step step, String base) {
        Function<Relation, String> bases = bases(step, base);
        List<LineEffect.Counted> counted = new ArrayList<>();
        PlannedJob.OfLine.left(job.plan(), step).ifPresent(left -> write(step, left, bases));
        for (Operation.Report report : step.reports()) {
            write(step, report, bases);
            if (!report.dear()) {
                String rows = Rows.beside(report.relation(), bases);
                long count = loaded.session().number("SELECT count(*) FROM (" + rows + ")");
                counted.add(new LineEffect.Counted(report.name(), report.words(), count, report.breaks()));
                wantUnbroken(step, report, rows, count);
            }
        }
        return counted;
    }

    /// The outputs that take a report.
    private void write(Step step, Operation.Report report, Function<Relation, String> bases) {
        for (Outputs.Pending output : pending) {
            boolean wanted = output.target()
                    .report()
                    .filter(r -> !r.isTable()
                            && r.line() == step.number()
                            && r.report().name().equals(report.name()))
                    .isPresent();
            if (wanted) {
                stage("Writing " + output.target().shown());
                String rows = output.target().report().get().isOfLeft()
                        ? Rows.left(report.relation(), step.after(), bases)
                        : Rows.beside(report.relation(), bases);
                Outputs.write(
                        output,
                        loaded.session(),
                        report.relation().shape().fields(),
                        "(" + rows + ") AS ours ORDER BY ours.p");
                reportRows.put(output.target().file(), loaded.session().number("SELECT count(*) FROM (" + rows + ")"));
            }
        }
    }

    private void wantUnbroken(Step step, Operation.Report report, String rows, long count) {
        if (!report.breaks() || count == 0) {
            return;
        }
        List<Field> fields = report.relation().shape().fields();
        String some = loaded
                .session()
                .query("SELECT " + Rows.named(fields) + " FROM (" + rows + ") AS ours ORDER BY ours.p LIMIT "
                        + MOST_NAMED)
                .rows()
                .stream()
                .map(r -> r.stream().map(JobRun::shown).collect(Collectors.joining(", ")))
                .collect(Collectors.joining("; "));
        throw new ProblemException(Problem.error(
                Code.CHECK_BROKEN,
                job.where(step.number()),
                String.format("%,d %s line %d: ", count, count == 1 ? "row breaks" : "rows break", step.number()) + some
                        + (count > MOST_NAMED ? "; …" : "") + ".",
                "Mend the rows in a line before it" + (onlyCounts(step) ? ", or write `only_count: true`" : "")
                        + ". Nothing was written."));
    }

    /// Whether its line may also go on where rows break it.
    private static boolean onlyCounts(Step step) {
        return Operations.find(step.line().call())
                .flatMap(o -> o.blank("only_count"))
                .isPresent();
    }

    private void count(
            List<Step> steps,
            String table,
            long rowsBefore,
            long rows,
            long left,
            long added,
            List<LineEffect.Counted> reports) {
        if (steps.isEmpty()) {
            return;
        }
        String sums = steps.stream()
                .map(s -> "coalesce(sum(" + Rows.changed(s) + "), 0)::BIGINT, coalesce(sum(" + Rows.lost(s)
                        + "), 0)::BIGINT")
                .collect(Collectors.joining(", "));
        Grid counts = loaded.session().query("SELECT " + sums + " FROM " + table);
        for (int i = 0; i < steps.size(); i++) {
            long changed =
                    (Long) Objects.requireNonNull(counts.rows().getFirst().get(2 * i));
            long lost = (Long) Objects.requireNonNull(counts.rows().getFirst().get(2 * i + 1));
            effects.add(
                    i == 0
                            ? effect(steps.get(i), rowsBefore, rows, left, added, changed, lost, reports)
                            : effect(steps.get(i), rows, rows, 0, 0, changed, lost, List.of()));
            JobChecks.wantNothingLost(job, steps.get(i), lost, this::stage);
        }
    }

    private LineEffect effect(
            Step step,
            long rowsBefore,
            long rows,
            long left,
            long added,
            long changed,
            long lost,
            List<LineEffect.Counted> reports) {
        Step last = job.plan().before(step.number());
        return new LineEffect(
                step.number(),
                rowsBefore,
                rows,
                left,
                added,
                step.rows(),
                StepColumns.of(last, step),
                changed,
                changed,
                lost,
                Optional.empty(),
                reports,
                step.goesOn());
    }

    private static String shown(@Nullable Object value) {
        String text = value == null ? "∅" : Literals.bare(value);
        return text.isEmpty() ? "''" : Visible.markOddities(text);
    }
}
