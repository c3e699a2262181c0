package fixshelf.work;

import fixshelf.engine.Rows;
import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.table.Relation;
import java.util.function.Function;

/// By what a table of a line is known again in a preview, beside the query that makes it.
final class TableKey {
    private TableKey() {}

    /// The names of its columns, what is told beside it, and what it must hold: other conditions of a check leave the
    /// table as it is, and are another line all the same. What else is told follows from the line and its table.
    static String beside(Step step, Step last, Function<Relation, String> bases) {
        StringBuilder all = new StringBuilder()
                .append(step.columns())
                .append(last.columns())
                .append(step.line().blanks());
        for (Operation.Report report : step.reports()) {
            all.append(report.name()).append(report.words());
            if (report.breaks()) {
                all.append(Rows.beside(report.relation(), bases));
            }
        }
        step.guard().ifPresent(g -> all.append(g.times()));
        return all.toString();
    }
}
