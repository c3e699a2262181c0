package fixshelf.work;

import fixshelf.engine.Passing;
import fixshelf.engine.Rows;
import fixshelf.plan.Operation;
import fixshelf.plan.Plan;
import fixshelf.plan.Step;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import fixshelf.table.UsedFields;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;

/// Lines that a run works out in one statement. In the first segment, which reads, each works on rows alone or lets
/// them
/// through; in others the first line may do anything, and the rest work on each row alone.
record Segment(List<Step> steps) {
    Segment {
        steps = List.copyOf(steps);
    }

    Step first() {
        return steps.getFirst();
    }

    /// The lines of a plan in segments.
    ///
    /// @param kept the lines whose tables are needed again
    /// @param taken the reports that outputs take, and tables of lines
    /// @param looksUp whether a line is one that looks keys up
    static List<Segment> of(Plan plan, Set<Integer> kept, List<PlannedJob.OfLine> taken, Predicate<Step> looksUp) {
        List<Segment> segments = new ArrayList<>();
        List<Step> steps = new ArrayList<>();
        for (Step step : plan.steps()) {
            if (step.number() > 1 && !joins(step, steps.getFirst(), plan, kept, taken, looksUp)) {
                segments.add(new Segment(steps));
                steps.clear();
            }
            steps.add(step);
        }
        segments.add(new Segment(steps));
        return segments;
    }

    private static boolean joins(
            Step step,
            Step first,
            Plan plan,
            Set<Integer> kept,
            List<PlannedJob.OfLine> taken,
            Predicate<Step> looksUp) {
        int above = step.number() - 1;
        boolean onTheOneAbove = plan.before(step.number()).number() == above && !kept.contains(above);
        boolean overJob = step.number() == 2 && !plan.readsRows();
        // A report that is written is worked out of the table before its line.
        boolean isWritten = taken.stream().anyMatch(r -> !r.isTable() && r.line() == step.number());
        return onTheOneAbove
                && !overJob
                && !isWritten
                // What it changed is seen in its own table only.
                && !Rows.countsAnew(first)
                && (first.number() == 1 ? Passing.fits(step) || looksUp.test(step) : isFused(step));
    }

    /// Whether a line works on each row alone, and gives no cell two values, which would be counted twice.
    private static boolean isFused(Step step) {
        long computes = step.after().parts().stream()
                .filter(Relation.Compute.class::isInstance)
                .count();
        return !Rows.countsAnew(step)
                && Lineage.isByRow(step.after())
                && computes <= 1
                && step.reports().stream().allMatch(Operation.Report::dear);
    }

    /// The fields after the first segment that no later line, report or output looks at.
    static List<Field> unused(List<Segment> segments, Plan plan, List<PlannedJob.OfLine> taken) {
        Set<String> used = new HashSet<>();
        plan.last().fields().forEach(f -> used.add(f.key()));
        taken.forEach(r -> r.report().relation().shape().fields().forEach(f -> used.add(f.key())));
        segments.stream().skip(1).flatMap(s -> s.steps().stream()).forEach(step -> {
            used.addAll(UsedFields.of(step.after()));
            step.guard().ifPresent(g -> used.addAll(UsedFields.of(g.rows())));
            for (Operation.Report report : step.reports()) {
                used.addAll(UsedFields.of(report.relation()));
                // Rows that break a check are named.
                if (report.breaks()) {
                    report.relation().shape().fields().forEach(f -> used.add(f.key()));
                }
            }
        });
        return segments.getFirst().steps().getLast().fields().stream()
                .filter(f -> !used.contains(f.key()))
                .toList();
    }
}
