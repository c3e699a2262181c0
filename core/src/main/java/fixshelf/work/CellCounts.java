package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Rows;
import fixshelf.plan.Step;
import fixshelf.table.Field;
import java.util.List;

/// Counts of cells in the table that a preview made of a line.
final class CellCounts {
    private CellCounts() {}

    /// How many values were lost in the table that a preview made of what is read.
    static long lost(DuckSession session, String table) {
        return session.number("SELECT coalesce(sum(l), 0)::BIGINT FROM " + table);
    }

    /// Puts counts right that do not add up from the parts of the line, and gives how many changes those made: a cell
    /// that two of them change is two.
    ///
    /// @param before the fields of the table before, which is called `rows`
    static long settled(DuckSession session, Step step, List<Field> before, String table, String rows) {
        long changes = session.number("SELECT coalesce(sum(k), 0)::BIGINT FROM " + table);
        if (Rows.countsAnew(step)) {
            session.run(Rows.counted(step, before, table, "p", rows, "k", "l"));
        }
        return changes;
    }
}
