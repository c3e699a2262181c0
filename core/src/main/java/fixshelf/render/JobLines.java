package fixshelf.render;

import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;

/// Writes a job line by line. A line that the language cannot say is named, and so are the others like it.
final class JobLines {
    private JobLines() {}

    /// Each line of the job as `writer` writes it, under a comment with its words; a line that changes nothing is
    /// left out. Or a problem for each line that is refused.
    ///
    /// @param comment how a comment begins in the language
    static Outcome<List<String>> write(JobCode job, String comment, Function<JobCode.Line, String> writer) {
        List<String> written = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        for (JobCode.Line line : job.lines()) {
            try {
                if (!isIdle(line.step())) {
                    written.add(Comments.line(comment, remark(line)) + writer.apply(line));
                }
            } catch (ProblemException e) {
                Problem why = e.problem();
                problems.add(new Problem(
                        why.code(),
                        why.severity(),
                        why.where(),
                        "Line " + line.number() + ", " + line.sentence() + ": " + why.what(),
                        why.todo()));
            }
        }
        return problems.isEmpty() ? Outcome.of(written) : Outcome.failed(problems);
    }

    /// The line's number and words, as a comment says them.
    private static String remark(JobCode.Line line) {
        return line.number() + ". " + line.sentence();
    }

    /// A line that changes nothing.
    private static boolean isIdle(Step step) {
        return step instanceof Step.Compute compute && compute.computed().isEmpty();
    }
}
