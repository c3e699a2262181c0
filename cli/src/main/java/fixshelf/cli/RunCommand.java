package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.plan.Sentences;
import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.work.JobChecks;
import fixshelf.work.JobRun;
import fixshelf.work.PlannedJob;
import fixshelf.work.RunLog;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "run",
        mixinStandardHelpOptions = true,
        description = "Run a job on all rows and put its outputs in place.")
final class RunCommand extends JobOption {
    @Override
    public Integer call() {
        return onJob(this::run);
    }

    @Option(names = "--junit", paramLabel = "FILE", description = "Write what the lines make sure of as JUnit XML.")
    @Nullable
    Path junit;

    private int run(Shelf shelf, PlannedJob planned) {
        Outcome<JobRun.Report> report = JobRun.run(planned, JobRun.Watcher.NONE);
        if (junit != null) {
            // What a run counted needs no second look; one that stopped did not reach all checks.
            Outcome<List<JobChecks.Check>> checks = report.isPresent()
                    ? report.map(r -> JobChecks.of(r.effects()))
                    : JobChecks.any(planned) ? JobChecks.of(planned) : Outcome.of(List.of());
            Outcome<Path> written =
                    ChecksReport.write(junit, List.of(ChecksReport.of(shelf, planned, checks, report.problems())));
            if (!written.isPresent()) {
                return Output.problems(out(), err(), written.problems(), json);
            }
        }
        planned.plan().steps().stream().filter(s -> s.line().rest()).forEach(s -> err().println("Line " + s.number()
                + " is at rest, and was left out: " + Sentences.plain(s.line(), shelf.callables()) + "."));
        if (!report.isPresent()) {
            return Output.problems(out(), err(), report.problems(), json);
        }
        RunLog.add(shelf.root(), planned, report.get());
        print(shelf, planned, report.get());
        return Output.FINE;
    }

    private void print(Shelf shelf, PlannedJob planned, JobRun.Report report) {
        if (json) {
            ObjectNode node = Output.object()
                    .put("job", planned.job().name())
                    .put("source", planned.source().file().toString())
                    .put("millis", report.millis());
            Effects.json(node, report.effects());
            report.files().forEach(f -> node.withArray("files").add(f.toString()));
            report.tables().forEach(t -> node.withArray("tables").add(t));
            report.notes().forEach(n -> node.withArray("notes").add(n));
            report.careful().ifPresent(c -> {
                node.put("rows_left_out", c.badCount());
                c.notes().forEach(node.putArray("notes")::add);
            });
            Output.json(out(), node);
            return;
        }
        Effects.print(out(), shelf, planned, report.effects());
        planned.source().noticed().forEach(out()::println);
        report.careful().ifPresent(c -> c.notes().forEach(out()::println));
        report.careful().filter(c -> c.badCount() > 0).ifPresent(c -> {
            out().println("Left out, because they do not fit: " + c.badCount()
                    + (c.badCount() == 1 ? " row" : " rows"));
            c.bad().stream().limit(5).forEach(b -> out().println("  line " + b.line() + ": " + b.why()));
        });
        report.files().forEach(f -> out().println("  →  " + f + ", "
                + (f.toString().endsWith(".sql")
                        ? "a definition"
                        : String.format("%,d", report.rows(f)) + (report.rows(f) == 1 ? " row" : " rows"))));
        report.tables().forEach(t -> out().println("  →  " + t));
        report.notes().forEach(n -> out().println("     " + n));
        if (report.files().isEmpty() && report.tables().isEmpty()) {
            out().println("The job names no output; nothing was written.");
        }
        out().println("     " + report.millis() + " ms");
    }
}
