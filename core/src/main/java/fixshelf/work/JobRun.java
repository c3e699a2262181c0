package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.engine.PlanSql;
import fixshelf.plan.Line;
import fixshelf.plan.Step;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.JobPage;
import fixshelf.source.CarefulRows;
import fixshelf.type.Column;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/// Runs a job on all rows and puts its outputs in place.
///
/// Lines that change values or columns are written into the query that reads the source; only a line that drops
/// repeats needs the rows before it in a table. Counts of changed cells and lost values are carried along in two
/// small columns for each line and summed up at the end.
public final class JobRun {
    /// What came of a run.
    ///
    /// @param files the outputs that are in place now
    public record Report(List<LineEffect> effects, List<Path> files, Optional<CarefulRows> careful, long millis) {
        public long rows() {
            return effects.getLast().rowsAfter();
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
    private final Loaded loaded;
    private final List<Outputs.Pending> pending;
    private final List<LineEffect> effects = new ArrayList<>();

    private JobRun(PlannedJob job, Watcher watcher, List<Outputs.Pending> pending) {
        this.job = job;
        this.watcher = watcher;
        this.pending = pending;
        this.loaded = Loaded.open(
                job.source(), pending.stream().map(Outputs.Pending::part).toList());
    }

    /// Runs the job. Either all outputs are in place afterwards, or none was touched.
    public static Outcome<Report> run(PlannedJob job, Watcher watcher) {
        long start = System.nanoTime();
        Outcome<List<Outputs.Pending>> pending = Outputs.prepare(job);
        if (!pending.isPresent()) {
            return Outcome.failed(pending.problems());
        }
        JobRun run = new JobRun(job, watcher, pending.get());
        try (Loaded loaded = run.loaded) {
            run.compute();
            List<Path> files = Outputs.keep(run.pending);
            long millis = (System.nanoTime() - start) / 1_000_000;
            return Outcome.of(new Report(List.copyOf(run.effects), files, loaded.careful(), millis));
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

    /// Lines between two that need a table; the first line of a segment, and the one after its last, from 0.
    private record Segment(int from, int to) {}

    private List<Segment> segments() {
        List<Segment> segments = new ArrayList<>();
        List<Step> steps = job.plan().steps();
        int from = 0;
        for (int i = 1; i < steps.size(); i++) {
            if (steps.get(i) instanceof Step.KeepOne) {
                segments.add(new Segment(from, i));
                from = i;
            }
        }
        segments.add(new Segment(from, steps.size()));
        return segments;
    }

    private void compute() {
        List<Segment> segments = segments();
        String table = "";
        for (int i = 0; i < segments.size(); i++) {
            table = i == 0 ? first(segments.getFirst()) : next(segments.get(i), table, i);
        }
        List<Column> columns = job.plan().columns();
        for (Outputs.Pending output : pending) {
            stage("Writing " + output.target().file().getFileName());
            loaded.session().run(Outputs.copy(output, "SELECT " + PlanSql.plainColumns(columns) + " FROM " + table));
        }
    }

    private String first(Segment segment) {
        stage("Reading " + job.source().file().getFileName());
        loaded.read(Long.MAX_VALUE, relation -> loaded.session()
                .run("CREATE OR REPLACE TABLE part_0 AS " + query(segment, "SELECT * FROM " + relation, List.of())));
        loaded.careful().ifPresent(this::wantAllRows);
        long bad = loaded.careful().map(CarefulRows::badCount).orElse(0L);
        long rows = loaded.session().number("SELECT count(*) FROM part_0");
        int columns = job.plan().read().columns().size();
        effects.add(new LineEffect(1, rows + bad, rows, columns, columns, 0, 0, Optional.empty()));
        count(segment, "part_0", rows);
        return "part_0";
    }

    private void wantAllRows(CarefulRows copy) {
        if (copy.badCount() > 0 && !job.source().options().leaveOutBadRows()) {
            throw new ProblemException(copy.problem(job.source()));
        }
    }

    private String next(Segment segment, String before, int index) {
        Step.KeepOne keep = (Step.KeepOne) job.plan().steps().get(segment.from());
        stage("Line " + (segment.from() + 1) + ": dropping repeats");
        String numbered = "(SELECT rowid AS " + DuckSession.name(PlanSql.ROW) + ", * FROM " + before + ")";
        // The table is ours, and deleting keeps the order of the rows that stay.
        loaded.session().run("DELETE FROM " + before + " WHERE rowid IN (" + PlanSql.leaving(keep, numbered) + ")");
        long rows = loaded.session().number("SELECT count(*) FROM " + before);
        long rowsBefore = effects.getLast().rowsAfter();
        int columns = keep.columns().size();
        effects.add(new LineEffect(segment.from() + 1, rowsBefore, rows, columns, columns, 0, 0, Optional.empty()));
        if (segment.to() == segment.from() + 1) {
            return before;
        }
        String table = "part_" + index;
        String staying = "SELECT " + PlanSql.plainColumns(keep.columns()) + " FROM " + before;
        loaded.session().run("CREATE TABLE " + table + " AS " + query(segment, staying, List.of()));
        loaded.session().run("DROP TABLE " + before);
        count(segment, table, rows);
        return table;
    }

    /// One query for all lines of a segment after its first, over `from`.
    private String query(Segment segment, String from, List<String> carriedBefore) {
        String query = from;
        List<String> carried = new ArrayList<>(carriedBefore);
        for (int line = segment.from() + 1; line < segment.to(); line++) {
            Step step = job.plan().steps().get(line);
            String inner = "(" + query + ")";
            if (step instanceof Step.Compute compute) {
                query = PlanSql.selectCounting(compute, inner, carried, changed(line), lost(line));
                carried.add(changed(line));
                carried.add(lost(line));
            } else {
                query = PlanSql.select(step, inner, carried);
            }
        }
        return query;
    }

    private static String changed(int line) {
        return "fixshelf changed " + line;
    }

    private static String lost(int line) {
        return "fixshelf lost " + line;
    }

    private void count(Segment segment, String table, long rows) {
        List<String> sums = new ArrayList<>(List.of("0"));
        for (int line = segment.from() + 1; line < segment.to(); line++) {
            if (job.plan().steps().get(line) instanceof Step.Compute) {
                sums.add("coalesce(sum(" + DuckSession.name(changed(line)) + "), 0)::BIGINT");
                sums.add("coalesce(sum(" + DuckSession.name(lost(line)) + "), 0)::BIGINT");
            }
        }
        Grid counts = loaded.session().query("SELECT " + String.join(", ", sums) + " FROM " + table);
        int at = 1;
        for (int line = segment.from() + 1; line < segment.to(); line++) {
            int before = job.plan().steps().get(line - 1).columns().size();
            int after = job.plan().steps().get(line).columns().size();
            boolean compute = job.plan().steps().get(line) instanceof Step.Compute;
            long changed = compute
                    ? (Long) Objects.requireNonNull(counts.rows().getFirst().get(at++))
                    : 0;
            long lost = compute
                    ? (Long) Objects.requireNonNull(counts.rows().getFirst().get(at++))
                    : 0;
            effects.add(new LineEffect(line + 1, rows, rows, before, after, changed, lost, Optional.empty()));
            wantNothingLost(line, lost);
        }
    }

    private void wantNothingLost(int line, long lost) {
        boolean stops =
                job.plan().steps().get(line) instanceof Step.Compute compute && compute.lost() == Line.Lost.STOPS;
        if (!stops || lost == 0) {
            return;
        }
        stage("Line " + (line + 1) + ": looking for what was lost");
        JobPage page = job.job();
        Problem.Where where =
                new Problem.Where(page.source(), page.lines().get(line).span());
        try (Preview all =
                Preview.open(job.source(), Long.MAX_VALUE, Long.MAX_VALUE).get()) {
            List<LostValue> values =
                    all.lost(job.plan(), line + 1, MOST_NAMED).value().orElse(List.of());
            String what = String.format("Line %d would lose %,d values, and is strict: ", line + 1, lost)
                    + LostValue.list(values) + ".";
            throw new ProblemException(Problem.error(
                    Code.VALUES_LOST,
                    where,
                    what,
                    "Mend these values in a line before it, or leave out `strict: true`."));
        }
    }
}
