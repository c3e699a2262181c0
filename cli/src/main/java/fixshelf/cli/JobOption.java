package fixshelf.cli;

import fixshelf.problem.Outcome;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.work.PlannedJob;
import fixshelf.work.Preview;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/// What commands about one job have in common: its name, and values for this time.
abstract class JobOption extends ShelfOption {
    @Parameters(paramLabel = "JOB", description = "The job.")
    String name = "";

    @Option(
            names = "--set",
            paramLabel = "NAME=VALUE",
            description = "A value for a parameter of the job or of the environment.")
    Map<String, String> set = new HashMap<>();

    /// Work on a job that is planned; its problems are told where it cannot be.
    interface Work {
        int on(Shelf shelf, PlannedJob job);
    }

    final int onJob(Work work) {
        return onJob((shelf, job) -> PlannedJob.plan(shelf, job, set), work);
    }

    final int onJob(BiFunction<Shelf, JobPage, Outcome<PlannedJob>> plan, Work work) {
        return onShelf(shelf -> {
            Optional<JobPage> job = shelf.job(name);
            if (job.isEmpty()) {
                return unknown(
                        "job", name, shelf.jobs().stream().map(JobPage::name).toList());
            }
            Outcome<PlannedJob> planned = plan.apply(shelf, job.get());
            return planned.isPresent()
                    ? work.on(shelf, planned.get())
                    : Output.problems(out(), err(), planned.problems(), json);
        });
    }

    /// What is found out by looking at all rows of the job's source.
    static <T> Outcome<T> overAllRows(PlannedJob job, BiFunction<PlannedJob, Preview, Outcome<T>> look) {
        return Preview.open(job.source(), Long.MAX_VALUE, Long.MAX_VALUE).then(preview -> {
            try (preview) {
                return look.apply(job, preview);
            }
        });
    }
}
