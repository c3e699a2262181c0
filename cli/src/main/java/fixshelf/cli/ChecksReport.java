package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import fixshelf.check.JUnitXml;
import fixshelf.plan.Sentences;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.profile.CountsChecked;
import fixshelf.profile.DataLook;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.Shelf;
import fixshelf.work.Datasets;
import fixshelf.work.JobChecks;
import fixshelf.work.PlannedJob;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/// What the lines of a job make sure of, or the counts that a dataset keeps, and whether it holds.
///
/// @param tests each check, and the problem of a run that stopped for another reason
record ChecksReport(String job, List<JUnitXml.Test> tests, List<JobChecks.Check> checks) {
    ChecksReport {
        tests = List.copyOf(tests);
        checks = List.copyOf(checks);
    }

    /// @param checks what was found, or why nothing could be
    /// @param stopped why a run stopped, if it did
    static ChecksReport of(Shelf shelf, PlannedJob job, Outcome<List<JobChecks.Check>> checks, List<Problem> stopped) {
        List<JUnitXml.Test> tests = new ArrayList<>();
        Stream.concat(checks.problems().stream(), stopped.stream())
                .filter(p -> p.isError() && p.code() != Code.CHECK_BROKEN)
                .forEach(p -> tests.add(new JUnitXml.Test(job.job().name(), "run", p.sentence())));
        for (JobChecks.Check check : checks.value().orElse(List.of())) {
            String name = "line " + check.line() + ", "
                    + Sentences.plain(job.plan().steps().get(check.line() - 1).line(), shelf.callables());
            tests.add(new JUnitXml.Test(job.job().name(), name, check.holds() ? "" : words(check)));
        }
        return new ChecksReport(job.job().name(), tests, checks.value().orElse(List.of()));
    }

    /// A job that could not be looked at.
    static ChecksReport unplanned(String job, List<Problem> why) {
        return new ChecksReport(
                job,
                why.stream()
                        .map(p -> new JUnitXml.Test(job, "can be looked at", p.sentence()))
                        .toList(),
                List.of());
    }

    /// A dataset that keeps counts, held against them.
    static ChecksReport ofCounts(Shelf shelf, DatasetPage page) {
        Outcome<List<String>> differences = Datasets.open(shelf, page.name())
                .then(file -> DataLook.open(file, Long.MAX_VALUE))
                .then(data -> {
                    try (data) {
                        return CountsChecked.differences(data, page);
                    }
                });
        if (!differences.isPresent()) {
            return unplanned(page.name(), differences.problems());
        }
        String failure =
                String.join("; ", differences.get().stream().limit(MOST_NAMED).toList())
                        + (differences.get().size() > MOST_NAMED
                                ? "; and " + (differences.get().size() - MOST_NAMED) + " more"
                                : "");
        return new ChecksReport(
                page.name(), List.of(new JUnitXml.Test(page.name(), "counts that its page keeps", failure)), List.of());
    }

    private static final int MOST_NAMED = 10;

    private static String words(JobChecks.Check check) {
        return String.format("%,d %s it", check.broken(), check.broken() == 1 ? "row breaks" : "rows break");
    }

    boolean holds() {
        return tests.stream().allMatch(t -> t.failure().isEmpty());
    }

    /// A line for each check, and for what could not be looked at.
    void print(PrintWriter out) {
        int others = tests.size() - checks.size();
        for (int i = 0; i < tests.size(); i++) {
            JUnitXml.Test test = tests.get(i);
            boolean counted = i >= others
                    && checks.get(i - others).broken() > 0
                    && test.failure().isEmpty();
            out.println((test.failure().isEmpty() ? "● " : "▲ ") + job + ", " + test.name() + ": "
                    + (counted
                            ? words(checks.get(i - others)) + ", which is only counted"
                            : test.failure().isEmpty() ? "holds" : test.failure()));
        }
    }

    void json(ArrayNode all) {
        if (checks.isEmpty()) {
            tests.forEach(t -> all.addObject()
                    .put("of", job)
                    .put("check", t.name())
                    .put("detail", t.failure())
                    .put("holds", t.failure().isEmpty()));
        }
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
