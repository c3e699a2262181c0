package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.type.Amounts;
import fixshelf.work.JobChecks;
import fixshelf.work.PlannedJob;
import fixshelf.work.ShelfProblems;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "check",
        mixinStandardHelpOptions = true,
        description = "Read every page and tell all problems, without running anything.")
final class CheckCommand extends ShelfOption {
    @Option(
            names = "--data",
            description =
                    "Also read the rows of each job, and look at what its lines make sure of. Nothing is written.")
    boolean data;

    @Option(
            names = "--junit",
            paramLabel = "FILE",
            description = "With --data: write what the lines make sure of as JUnit XML.")
    @Nullable
    Path junit;

    @Override
    public Integer call() {
        return onShelf(this::check);
    }

    /// The checks of all jobs over all their rows.
    private int overData(Shelf shelf) {
        List<ChecksReport> reports = new ArrayList<>();
        for (JobPage job : shelf.jobs()) {
            Outcome<PlannedJob> planned = PlannedJob.plan(shelf, job, Map.of());
            if (!planned.isPresent()) {
                reports.add(ChecksReport.unplanned(job.name(), planned.problems()));
            } else if (JobChecks.any(planned.get())) {
                reports.add(ChecksReport.of(shelf, planned.get(), JobChecks.of(planned.get()), List.of()));
            }
        }
        long jobs = reports.size();
        shelf.datasets().stream()
                .filter(d -> !d.counts().isEmpty())
                .forEach(d -> reports.add(ChecksReport.ofCounts(shelf, d)));
        long datasets = reports.size() - jobs;
        if (junit != null) {
            Outcome<Path> written = ChecksReport.write(junit, reports);
            if (!written.isPresent()) {
                return Output.problems(out(), err(), written.problems(), json);
            }
        }
        if (json) {
            ObjectNode node = Output.object();
            ArrayNode all = node.putArray("checks");
            reports.forEach(r -> r.json(all));
            Output.json(out(), node);
        } else {
            reports.forEach(r -> r.print(out()));
            out().println(
                            reports.isEmpty()
                                    ? "No line makes sure of anything, and no dataset keeps counts."
                                    : (jobs == 1 ? "1 job" : jobs + " jobs")
                                            + (datasets == 0
                                                    ? ""
                                                    : " and " + (datasets == 1 ? "1 dataset" : datasets + " datasets"))
                                            + (reports.size() == 1 ? " was" : " were") + " looked at.");
        }
        return reports.stream().allMatch(ChecksReport::holds) ? Output.FINE : Output.PROBLEMS;
    }

    private int check(Shelf shelf) {
        ShelfProblems.Found found = ShelfProblems.of(shelf);
        List<Problem> problems = found.problems();
        if (data && problems.stream().noneMatch(Problem::isError)) {
            if (!json) {
                Output.problems(out(), err(), problems, false);
            }
            return overData(shelf);
        }
        int code = Output.problems(out(), err(), problems, json);
        if (!json) {
            found.passed().forEach(p -> out().println("not looked at: " + p));
            int pages = shelf.fixes().size()
                    + shelf.tableFixes().size()
                    + shelf.datasets().size()
                    + shelf.jobs().size();
            out().println(Amounts.of(pages, "page") + ", "
                    + switch (problems.size()) {
                        case 0 -> "no problem.";
                        case 1 -> "1 problem.";
                        default -> problems.size() + " problems.";
                    });
        }
        return code;
    }
}
