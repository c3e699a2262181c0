package fixshelf.work;

import fixshelf.engine.Rows;
import fixshelf.language.tree.Expr;
import fixshelf.plan.AlteredNumbers;
import fixshelf.plan.Operation;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;

/// The numbers that a line altered, out of the tables before and after it instead of working the line out again.
///
/// @param report the one of [AlteredNumbers]
/// @param before the table before the line
/// @param fields those of the table before
/// @param after the table after it, with origins and how many cells are changed
record AlteredRows(Operation.Report report, String before, List<Field> fields, String after) {
    private Relation.Compute told() {
        return AlteredNumbers.told(report.relation());
    }

    /// What was and what is, pair by pair.
    private List<Computed> texts() {
        return ((Relation.Compute) told().from()).cells();
    }

    private static String was(Computed text) {
        return "b." + ((Expr.Name) text.value()).name();
    }

    private static String now(Computed text) {
        return "CAST(n." + ((Expr.Name) text.value()).name() + " AS VARCHAR)";
    }

    private String changed() {
        return after + " n JOIN " + before + " b ON n.o = b.p WHERE n.k > 0";
    }

    /// A query for how many there are. All pairs stand below each other, and one question is asked: patterns are dear
    /// to
    /// prepare.
    String count() {
        List<String> was = new ArrayList<>();
        List<String> now = new ArrayList<>();
        for (int i = 0; i < texts().size(); i += 2) {
            was.add(was(texts().get(i)));
            now.add(now(texts().get(i)));
        }
        Field first = texts().get(0).made();
        Field second = texts().get(1).made();
        String pairs = "(SELECT 0 AS p, unnest([" + String.join(", ", was) + "]) AS " + first.key() + ", unnest(["
                + String.join(", ", now) + "]) AS " + second.key() + " FROM " + changed() + ")";
        String differing = "(SELECT * FROM " + pairs + " WHERE " + first.key() + " <> " + second.key() + ")";
        Computed asked = told().cells().getFirst();
        Relation one =
                new Relation.Compute(new Relation.Source("pairs", new Shape(List.of(first, second))), List.of(asked));
        return "SELECT count(*) FROM (" + Rows.beside(one, _ -> differing) + ") WHERE "
                + asked.made().key();
    }

    /// A query for the report.
    String query(Function<Relation, String> bases) {
        List<String> cells =
                new ArrayList<>(fields.stream().map(f -> "b." + f.key()).toList());
        for (int i = 0; i < texts().size(); i += 2) {
            cells.add(was(texts().get(i)) + " AS " + texts().get(i).made().key());
            cells.add(now(texts().get(i)) + " AS " + texts().get(i + 1).made().key());
        }
        Map<Relation, String> known = new IdentityHashMap<>();
        known.put(told().from(), "(SELECT n.p, " + String.join(", ", cells) + " FROM " + changed() + ")");
        return Rows.beside(report.relation(), bases, known);
    }
}
