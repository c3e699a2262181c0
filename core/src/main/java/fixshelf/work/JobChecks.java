package fixshelf.work;

import fixshelf.plan.Operation;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;

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

    /// Why a run of a job would stop over all rows: a check that rows break, or values that a strict line loses; empty
    /// where it would not, or has neither.
    static Optional<String> stop(PlannedJob job) {
        boolean strict = job.plan().steps().stream().anyMatch(s -> s.line().strict());
        if (!strict && !stops(job)) {
            return Optional.empty();
        }
        Outcome<Preview> opened = Preview.open(job.source(), Long.MAX_VALUE, Long.MAX_VALUE);
        if (!opened.isPresent()) {
            return Optional.of(opened.problems().getFirst().sentence());
        }
        try (Preview preview = opened.get()) {
            Outcome<List<LineEffect>> effects = preview.look(job);
            return effects.isPresent()
                    ? stop(job, effects.get())
                    : Optional.of(effects.problems().getFirst().sentence());
        }
    }

    /// As above, with the effects of the lines.
    static Optional<String> stop(PlannedJob job, List<LineEffect> effects) {
        return effects.stream().flatMap(e -> stop(job, e).stream()).findFirst();
    }

    /// What the jobs and loaders that are read make sure of, and what they must not lose, holds for whoever reads them.
    ///
    /// @param looking hears the name of each before it is looked at
    static void wantReadJobsToHold(PlannedJob reader, Consumer<String> looking) {
        wantReadJobsToHold(reader, looking, new HashSet<>());
    }

    private static void wantReadJobsToHold(PlannedJob reader, Consumer<String> looking, Set<String> looked) {
        for (PlannedJob read : reader.read()) {
            if (looked.add(read.job().name())) {
                wantReadJobsToHold(read, looking, looked);
                looking.accept(read.job().name());
                stop(read).ifPresent(why -> {
                    throw new ProblemException(Problem.error(
                            Code.CHECK_BROKEN,
                            reader.where(1),
                            read.job().name() + ", which " + reader.job().name() + " reads, would stop: " + why,
                            "Mend that first. Nothing was written."));
                });
            }
        }
    }

    private static boolean stops(PlannedJob job) {
        return job.plan().steps().stream().flatMap(s -> s.reports().stream()).anyMatch(Operation.Report::breaks);
    }

    private static Optional<String> stop(PlannedJob job, LineEffect effect) {
        boolean strict = job.plan().steps().get(effect.line() - 1).line().strict();
        if (strict && effect.valuesLost() > 0) {
            return Optional.of(String.format(
                    "its line %d loses %,d %s, and is strict.",
                    effect.line(), effect.valuesLost(), effect.valuesLost() == 1 ? "value" : "values"));
        }
        return effect.reports().stream()
                .filter(r -> r.breaks() && r.rows() > 0)
                .findFirst()
                .map(r -> String.format(
                        "%,d %s its line %d.", r.rows(), r.rows() == 1 ? "row breaks" : "rows break", effect.line()));
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
