package fixshelf.work;

import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.type.Amounts;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;

/// What the lines of a job make sure of, looked at over all rows, without a run.
public final class JobChecks {
    private static final int MOST_NAMED = 5;

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
                    ? effects.get().stream()
                            .flatMap(e -> stop(job, e).map(why -> named(why, preview, job, e)).stream())
                            .findFirst()
                    : Optional.of(effects.problems().getFirst().sentence());
        }
    }

    /// With the values that a strict line loses.
    private static String named(String why, Preview preview, PlannedJob job, LineEffect effect) {
        List<LostValue> lost = effect.valuesLost() == 0
                ? List.of()
                : preview.lost(job, effect.line(), MOST_NAMED).value().orElse(List.of());
        return lost.isEmpty()
                ? why
                : why.replaceFirst("\\.$", ": ") + LostValue.list(lost) + (lost.size() == MOST_NAMED ? "; …" : "")
                        + ".";
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
                // What has no type of the first table is counted as its rows pass.
                if (typed(reader).filter(read::equals).isPresent()) {
                    continue;
                }
                looking.accept(read.job().name());
                wantReadJobToHold(reader, read);
            }
        }
    }

    /// Values that have not the types of the columns that a job reads first stop it, where they are not allowed.
    ///
    /// @param lost how many there are
    static void wantTypesToHold(PlannedJob reader, long lost) {
        if (lost > 0) {
            typed(reader).ifPresent(read -> wantReadJobToHold(reader, read));
        }
    }

    /// The dataset that the first line reads, where its columns get types.
    private static Optional<PlannedJob> typed(PlannedJob reader) {
        return reader.plan().readsTyped()
                ? reader.read().stream().findFirst().filter(ReadNotes::isTyped)
                : Optional.empty();
    }

    private static void wantReadJobToHold(PlannedJob reader, PlannedJob read) {
        stop(read).ifPresent(why -> {
            throw new ProblemException(Problem.error(
                    Code.CHECK_BROKEN,
                    reader.where(1),
                    read.job().name() + ", which " + reader.job().name() + " reads, would stop: " + why,
                    "Mend that first. Nothing was written."));
        });
    }

    /// A strict line that loses values stops a run of its job.
    ///
    /// @param looking hears that the values are looked for
    static void wantNothingLost(PlannedJob job, Step step, long lost, Consumer<String> looking) {
        if (!step.line().strict() || lost == 0) {
            return;
        }
        looking.accept("Line " + step.number() + ": looking for what was lost");
        try (Preview all =
                Preview.open(job.source(), Long.MAX_VALUE, Long.MAX_VALUE).get()) {
            List<LostValue> values =
                    all.lost(job, step.number(), MOST_NAMED).value().orElse(List.of());
            String what = "Line " + step.number() + " would lose " + Amounts.of(lost, "value") + ", and is strict: "
                    + LostValue.list(values) + ".";
            throw new ProblemException(Problem.error(
                    Code.VALUES_LOST,
                    job.where(step.number()),
                    what,
                    "Mend these values in a line before it, or leave out `strict: true`."));
        }
    }

    private static boolean stops(PlannedJob job) {
        return job.plan().steps().stream().flatMap(s -> s.reports().stream()).anyMatch(Operation.Report::breaks);
    }

    private static Optional<String> stop(PlannedJob job, LineEffect effect) {
        boolean strict = job.plan().steps().get(effect.line() - 1).line().strict();
        if (strict && effect.valuesLost() > 0) {
            String lost = Amounts.of(effect.valuesLost(), "value");
            return Optional.of(
                    ReadNotes.isTyped(job)
                            ? lost + " of it " + (effect.valuesLost() == 1 ? "is none" : "are none")
                                    + " of the type of the column (`strict: false` in its page makes them missing)."
                            : "its line " + effect.line() + " loses " + lost + ", and is strict.");
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
