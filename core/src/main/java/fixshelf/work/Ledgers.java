package fixshelf.work;

import fixshelf.engine.Grid;
import fixshelf.engine.Rows;
import fixshelf.plan.Plan;
import fixshelf.plan.Step;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import fixshelf.type.Amounts;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Makes ledgers out of previews.
final class Ledgers {
    private final Preview preview;
    private final PlannedJob job;
    private final Plan plan;
    private final List<LineEffect> effects;

    private Ledgers(Preview preview, PlannedJob job) {
        this.preview = preview;
        this.job = job;
        this.plan = job.plan();
        this.effects = preview.look(job).get();
    }

    /// What became of every row that a preview looked at. What is read out of another job, or out of what a loader
    /// gives, is accounted for too.
    static Ledger of(Preview preview, PlannedJob job) {
        return of(preview, job, job.targets());
    }

    /// What another job writes when it runs by itself is not written when it is read.
    private static Ledger of(Preview preview, PlannedJob job, List<PlannedJob.Target> targets) {
        Optional<Ledger> before = read(job).map(j -> of(preview, j, List.of()));
        return new Ledgers(preview, job).ledger(before, targets);
    }

    /// The job whose result is read: the first that was asked for.
    private static Optional<PlannedJob> read(PlannedJob job) {
        return job.plan().readsJob() ? job.read().stream().findFirst() : Optional.empty();
    }

    private Ledger ledger(Optional<Ledger> before, List<PlannedJob.Target> targets) {
        LineEffect first = effects.getFirst();
        List<Ledger.Entry> entries = new ArrayList<>();
        if (before.isEmpty() && first.left() > 0) {
            entries.add(new Ledger.Entry(1, -first.left(), "left out, as they do not fit"));
        }
        List<Integer> path = plan.path();
        path.subList(1, path.size()).forEach(line -> add(line, entries));
        return new Ledger(
                job.job().name(),
                before,
                before.isEmpty() ? first.rowsBefore() : first.rowsAfter(),
                entries,
                effects.get(plan.resultLine() - 1).rowsAfter(),
                branches(),
                plan.steps().stream().flatMap(s -> others(s).stream()).toList(),
                targets.stream().map(this::written).toList());
    }

    private void add(int line, List<Ledger.Entry> entries) {
        LineEffect effect = effects.get(line - 1);
        if (plan.steps().get(line - 1).rows() == Lineage.Rows.MERGED) {
            entries.add(new Ledger.Entry(
                    line,
                    effect.rowsAfter() - effect.rowsBefore(),
                    Amounts.of(effect.rowsBefore(), "row") + String.format(" merged into %,d", effect.rowsAfter())));
            return;
        }
        if (plan.steps().get(line - 1).begins()) {
            entries.add(new Ledger.Entry(line, -effect.left(), "stay behind, as the line begins with other rows"));
            entries.add(new Ledger.Entry(line, effect.added(), "were read in their place"));
            return;
        }
        long several = effect.rowsAfter() - effect.added() - (effect.rowsBefore() - effect.left());
        if (effect.left() > 0) {
            entries.add(new Ledger.Entry(line, -effect.left(), "left"));
        }
        if (several > 0) {
            Grid counts = preview.session()
                    .query("SELECT count(*), sum(n)::BIGINT FROM (SELECT count(*) AS n FROM "
                            + preview.tableOf(job, line) + " WHERE o IS NOT NULL GROUP BY o HAVING n > 1)");
            entries.add(new Ledger.Entry(
                    line,
                    several,
                    String.format(
                            "more, as %,d became %,d",
                            counts.rows().getFirst().get(0),
                            counts.rows().getFirst().get(1))));
        }
        if (effect.added() > 0) {
            entries.add(new Ledger.Entry(line, effect.added(), "came from another table"));
        }
    }

    private List<Ledger.Branch> branches() {
        Set<Integer> goneOnFrom = new HashSet<>();
        for (int line = 2; line <= plan.steps().size(); line++) {
            goneOnFrom.add(plan.before(line).number());
        }
        return effects.stream()
                .filter(e -> e.line() != plan.resultLine() && !goneOnFrom.contains(e.line()))
                .map(e -> new Ledger.Branch(e.line(), e.rowsAfter()))
                .toList();
    }

    /// The other tables of a line: those that it puts beside or under its own.
    private List<Ledger.Other> others(Step step) {
        if (step.number() == 1) {
            return List.of();
        }
        Map<Relation, List<Ledger.Part>> found = new LinkedHashMap<>();
        for (Relation part : step.after().parts()) {
            switch (part) {
                case Relation.Join join
                when isOther(join.right()) -> {
                    Relation right = join.right() instanceof Relation.FirstOf first ? first.from() : join.right();
                    found.computeIfAbsent(right, r -> met(join, r));
                }
                case Relation.Union(List<Relation> tables) ->
                    tables.stream()
                            .skip(1)
                            .filter(Ledgers::isOther)
                            .forEach(t -> found.computeIfAbsent(
                                    t,
                                    r -> List.of(new Ledger.Part(
                                            rows(r),
                                            step.begins()
                                                    ? "were read in place of those before"
                                                    : "came below as rows of their own"))));
                default -> {
                    // It takes in no other table.
                }
            }
        }
        List<Ledger.Other> others = new ArrayList<>();
        found.values()
                .forEach(parts -> others.add(
                        new Ledger.Other(step.number(), job.otherOf(step).orElse("another table"), parts)));
        return others;
    }

    /// Whether a table comes from elsewhere, and not from a line of this job.
    private static boolean isOther(Relation relation) {
        return relation.parts().stream().anyMatch(Relation.Source.class::isInstance)
                && relation.parts().stream().noneMatch(Relation.Result.class::isInstance);
    }

    private List<Ledger.Part> met(Relation.Join join, Relation right) {
        List<Relation.Pair> turned = join.on().stream()
                .map(p -> new Relation.Pair(p.right(), p.left(), p.missingMeets()))
                .toList();
        long none = rows(new Relation.Join(right, join.left(), turned, Relation.Meeting.WITHOUT, List.of()));
        return List.of(new Ledger.Part(rows(right) - none, "met rows here"), new Ledger.Part(none, "met none"));
    }

    private long rows(Relation relation) {
        return preview.session().number("SELECT count(*) FROM (" + Rows.beside(relation, preview.bases(job)) + ")");
    }

    private Ledger.Written written(PlannedJob.Target target) {
        String place =
                target.table().isPresent() ? target.shown() : target.file().toString();
        Optional<PlannedJob.OfLine> report = target.report();
        if (report.isEmpty()) {
            return new Ledger.Written(place, effects.get(plan.resultLine() - 1).rowsAfter(), "the result");
        }
        PlannedJob.OfLine of = report.get();
        if (of.isOfLeft()) {
            return new Ledger.Written(place, effects.get(of.line() - 1).left(), "rows that left at line " + of.line());
        }
        return of.isTable()
                ? new Ledger.Written(
                        place,
                        effects.get(of.line() - 1).rowsAfter(),
                        of.line() == plan.resultLine() ? "the result" : "line " + of.line())
                : new Ledger.Written(
                        place, rows(of.report().relation()), of.report().words() + " at line " + of.line());
    }
}
