package fixshelf.work;

import fixshelf.problem.Outcome;
import java.util.List;

/// What the lines of a job make sure of, looked at over all rows, without a run.
public final class JobChecks {
    private JobChecks() {}

    /// A check, and how many rows break it.
    ///
    /// @param stops whether a run stops where any row breaks it
    public record Check(int line, String report, long broken, boolean stops) {
        public boolean holds() {
            return broken == 0 || !stops;
        }
    }

    /// The checks of a plan that are known, without their counts: whether there is any.
    public static boolean any(PlannedJob job) {
        return job.plan().steps().stream()
                .flatMap(s -> s.reports().stream())
                .anyMatch(r -> isCheck(r.name(), r.breaks()));
    }

    private static boolean isCheck(String report, boolean breaks) {
        return breaks || report.equals("broken");
    }

    /// All checks of a job, line by line, looked at over all rows.
    public static Outcome<List<Check>> of(PlannedJob job) {
        return Preview.open(job.source(), Long.MAX_VALUE, Long.MAX_VALUE).then(preview -> {
            try (preview) {
                return preview.look(job).map(JobChecks::of);
            }
        });
    }

    /// The checks that were counted already, with the effects of the lines.
    public static List<Check> of(List<LineEffect> effects) {
        return effects.stream()
                .flatMap(e -> e.reports().stream()
                        .filter(r -> isCheck(r.name(), r.breaks()))
                        .map(r -> new Check(e.line(), r.name(), r.rows(), r.breaks())))
                .toList();
    }
}
