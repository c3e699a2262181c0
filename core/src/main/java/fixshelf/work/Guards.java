package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Rows;
import fixshelf.plan.Step;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.table.Relation;
import fixshelf.type.Amounts;
import java.util.function.Function;

/// Looks how many rows a line would make before it makes any.
final class Guards {
    private Guards() {}

    /// @param before how many rows there are
    static void hold(
            Step step, long before, Problem.Where where, DuckSession session, Function<Relation, String> bases) {
        step.guard().ifPresent(guard -> {
            String total = guard.rows().shape().fields().getFirst().key();
            long rows = session.number(
                    "SELECT coalesce(max(" + total + "), 0) FROM (" + Rows.beside(guard.rows(), bases) + ")");
            if (rows > before * guard.times()) {
                throw new ProblemException(Problem.error(
                        Code.TOO_MANY_ROWS,
                        where,
                        String.format(
                                "Line %d would make %s of %,d: keys stand several times in the other table.",
                                step.number(), Amounts.of(rows, "row"), before),
                        String.format(
                                "Take the first match only, mend the keys, or allow it with `most: %d`.",
                                Math.ceilDiv(rows, Math.max(1, before)))));
            }
        });
    }
}
