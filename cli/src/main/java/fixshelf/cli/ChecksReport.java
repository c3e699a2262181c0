package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import fixshelf.check.JUnitXml;
import fixshelf.plan.Sentences;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.work.JobChecks;
import fixshelf.work.PlannedJob;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/// What the lines of a job make sure of, and whether it holds.
///
/// @param tests each check, and the problem of a run that stopped for another reason
record ChecksReport(String job, List<JUnitXml.Test> tests, List<JobChecks.Check> checks) {
    ChecksReport {
        tests = List.copyOf(tests);
        checks = List.copyOf(checks);
    }

    /// @param stopped why a run stopped, if it did
    static ChecksReport of(Shelf shelf, PlannedJob job, List<Problem> stopped, PrintWriter out) {
        List<JUnitXml.Test> tests = new ArrayList<>();
        Outcome<List<JobChecks.Check>> checks = JobChecks.any(job) ? JobChecks.of(job) : Outcome.of(List.of());
        List<Problem> wrong = new ArrayList<>(checks.problems());
        stopped.stream()
                .filter(p -> p.isError() && p.code() != Code.CHECK_BROKEN)
                .forEach(wrong::add);
        wrong.forEach(p -> tests.add(new JUnitXml.Test(job.job().name(), "run", p.sentence())));
        for (JobChecks.Check check : checks.value().orElse(List.of())) {
            String name = "line " + check.line() + ", "
                    + Sentences.plain(job.plan().steps().get(check.line() - 1).line(), shelf.callables());
            String words =
                    String.format("%,d %s it", check.broken(), check.broken() == 1 ? "row breaks" : "rows break");
            tests.add(new JUnitXml.Test(job.job().name(), name, check.holds() ? "" : words));
            out.println((check.holds() ? "● " : "▲ ") + job.job().name() + ", " + name + ": "
                    + (check.broken() == 0 ? "holds" : words + (check.stops() ? "" : ", which is only counted")));
        }
        return new ChecksReport(job.job().name(), tests, checks.value().orElse(List.of()));
    }

    boolean holds() {
        return tests.stream().allMatch(t -> t.failure().isEmpty());
    }

    void json(ArrayNode all) {
        checks.forEach(c -> all.addObject()
                .put("job", job)
                .put("line", c.line())
                .put("broken", c.broken())
                .put("stops", c.stops())
                .put("holds", c.holds()));
    }

    static Outcome<Path> write(Path file, List<ChecksReport> reports) {
        try {
            return Outcome.of(Files.writeString(
                    file,
                    JUnitXml.print(
                            reports.stream().flatMap(r -> r.tests().stream()).toList())));
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    file.toString(),
                    "It could not be written: " + e.getMessage() + ".",
                    "Name another file."));
        }
    }
}
