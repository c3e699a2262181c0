package fixshelf.bench;

import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.JobRun;
import fixshelf.work.PlannedJob;
import java.nio.file.Path;
import java.util.Map;

/// The job of the benchmark, as `fixshelf run` runs it.
final class OurJob {
    private OurJob() {}

    public static void main(String[] arguments) {
        Shelf shelf = ShelfReader.read(Path.of(arguments[0])).get();
        Outcome<JobRun.Report> report = PlannedJob.plan(
                        shelf, shelf.job("bench").orElseThrow(), Map.of("in", arguments[1], "out", arguments[2]))
                .then(planned -> JobRun.run(planned, JobRun.Watcher.NONE));
        report.problems().forEach(p -> System.err.println(p.sentence()));
        System.exit(report.isPresent() ? 0 : 1);
    }
}
