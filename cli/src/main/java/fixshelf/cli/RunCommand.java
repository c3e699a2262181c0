package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.problem.Outcome;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.work.JobRun;
import fixshelf.work.PlannedJob;
import fixshelf.work.RunLog;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "run",
        mixinStandardHelpOptions = true,
        description = "Run a job on all rows and put its outputs in place.")
final class RunCommand extends ShelfOption {
    @Parameters(paramLabel = "JOB", description = "The job.")
    String name = "";

    @Option(
            names = "--set",
            paramLabel = "NAME=VALUE",
            description = "A value for a parameter of the job or of the environment.")
    Map<String, String> set = new HashMap<>();

    @Override
    public Integer call() {
        return onShelf(this::run);
    }

    private int run(Shelf shelf) {
        Optional<JobPage> job = shelf.job(name);
        if (job.isEmpty()) {
            return unknown("job", name, shelf.jobs().stream().map(JobPage::name).toList());
        }
        Outcome<PlannedJob> planned = PlannedJob.plan(shelf, job.get(), set);
        Outcome<JobRun.Report> report = planned.then(p -> JobRun.run(p, JobRun.Watcher.NONE));
        if (!report.isPresent()) {
            return Output.problems(out(), err(), report.problems(), json);
        }
        RunLog.add(shelf.root(), planned.get(), report.get());
        print(shelf, planned.get(), report.get());
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
            report.careful().ifPresent(c -> node.put("rows_left_out", c.badCount()));
            Output.json(out(), node);
            return;
        }
        Effects.print(out(), shelf, planned, report.effects());
        report.careful().filter(c -> c.badCount() > 0).ifPresent(c -> {
            out().println("Left out, because they do not fit: " + c.badCount()
                    + (c.badCount() == 1 ? " row" : " rows"));
            c.bad().stream().limit(5).forEach(b -> out().println("  line " + b.line() + ": " + b.why()));
        });
        report.files().forEach(f -> out().println("  →  " + f + ", " + String.format("%,d", report.rows())
                + (report.rows() == 1 ? " row" : " rows")));
        if (report.files().isEmpty()) {
            out().println("The job names no output; nothing was written.");
        }
        out().println("     " + report.millis() + " ms");
    }
}
