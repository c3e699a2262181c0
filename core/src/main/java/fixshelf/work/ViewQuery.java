package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Rows;
import fixshelf.plan.Plan;
import fixshelf.plan.Step;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.work.Preview.View;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/// The rows of a view of a line, out of the tables after it and before it.
final class ViewQuery {
    private ViewQuery() {}

    /// Whether rows can be gone after a line, so that those before it are shown.
    static boolean rowsLeave(Step step) {
        return step.rows() == Lineage.Rows.FEWER || step.rows() == Lineage.Rows.ANY;
    }

    /// @param table the rows after the line
    /// @param before the rows before it
    static String of(Plan plan, int line, View view, String table, String before) {
        Step step = plan.steps().get(line - 1);
        if (line == 1) {
            return "SELECT * FROM " + table + (view == View.ALL ? "" : " WHERE false") + " ORDER BY p";
        }
        if (view == View.LEAVING && step.dropped().isPresent()) {
            String over =
                    " OVER (PARTITION BY " + Rows.keys(step.dropped().get().keys()) + ")";
            return "SELECT *, p IN (SELECT o FROM " + table + ") AS stays FROM (SELECT *, count(*)" + over
                    + " AS n, min(p)" + over + " AS g FROM " + before + ") WHERE n > 1 ORDER BY g, p";
        }
        if (view == View.LEAVING && rowsLeave(step)) {
            return "SELECT * FROM " + before + " WHERE p NOT IN (SELECT o FROM " + table
                    + " WHERE o IS NOT NULL) ORDER BY p";
        }
        List<Field> replaced = step.replaced().stream()
                .filter(f -> plan.before(line).after().shape().has(f))
                .toList();
        String only =
                switch (view) {
                    case ALL -> "";
                    case CHANGED -> " WHERE n.k > 0";
                    case LOST -> " WHERE n.l > 0";
                    case ADDED -> step.rows() == Lineage.Rows.ANY ? " WHERE n.o IS NULL" : " WHERE false";
                    case LEAVING -> " WHERE false";
                };
        if (replaced.isEmpty() || view == View.ADDED) {
            return "SELECT * FROM " + table + " n" + only + " ORDER BY p";
        }
        String was = replaced.stream()
                .map(f -> ", b." + f.key() + " AS " + PreviewRow.was(f))
                .collect(Collectors.joining());
        return "SELECT n.*" + was + " FROM " + table + " n JOIN " + before + " b ON n.o = b.p" + only + " ORDER BY n.p";
    }

    /// The values that a line made missing, column, value and how many rows, the commonest first.
    ///
    /// @param replaced the fields to which it gave other values
    static String lost(Plan plan, int line, List<Field> replaced, String table, String before) {
        Map<Integer, Field> were = new HashMap<>();
        plan.before(line).fields().forEach(f -> were.put(f.id(), f));
        String each = replaced.stream()
                .filter(f -> were.containsKey(f.id()))
                .map(f -> "SELECT " + DuckSession.text(f.name()) + " AS c, CAST(b." + f.key()
                        + " AS VARCHAR) AS v FROM "
                        + table + " n JOIN " + before + " b ON n.o = b.p WHERE b." + f.key() + " IS NOT NULL AND n."
                        + f.key() + " IS NULL AND n.l > 0")
                .collect(Collectors.joining(" UNION ALL "));
        return "SELECT c, v, count(*) FROM (" + each + ") GROUP BY c, v ORDER BY 3 DESC, c, v";
    }
}
