package fixshelf.table;

/// Where the rows of a relation come from.
public final class Lineage {
    private Lineage() {}

    /// How the rows that come out of a relation stand to those of the table that it begins with.
    public enum Rows {
        /// Each row comes out once.
        SAME,
        /// A row comes out once, or leaves.
        FEWER,
        /// A row may come out several times, or leave, and rows may be added.
        ANY,
        /// Several rows become one.
        MERGED
    }

    /// What a relation does with the rows of its first table.
    public static Rows rows(Relation relation) {
        return switch (relation) {
            case Relation.Source _, Relation.Result _ -> Rows.SAME;
            case Relation.Compute(Relation from, var _, var _) -> rows(from);
            case Relation.Pick(Relation from, var _) -> rows(from);
            case Relation.Sort(Relation from, var _) -> rows(from);
            case Relation.Window window -> rows(window.from());
            case Relation.Keep(Relation from, var _) -> atLeast(rows(from), Rows.FEWER);
            case Relation.FirstOf first -> atLeast(rows(first.from()), Rows.FEWER);
            case Relation.Join join ->
                switch (join.meeting()) {
                    case WITH, WITHOUT -> atLeast(rows(join.left()), Rows.FEWER);
                    case PAIRS, ALL_LEFT -> atLeast(rows(join.left()), Rows.ANY);
                };
            case Relation.Union(var tables) -> atLeast(rows(tables.getFirst()), Rows.ANY);
            case Relation.Unpivot unpivot -> atLeast(rows(unpivot.from()), Rows.ANY);
            case Relation.Group _ -> Rows.MERGED;
        };
    }

    private static Rows atLeast(Rows a, Rows b) {
        return a.compareTo(b) >= 0 ? a : b;
    }

    /// Whether rows stand in another order afterwards, or in one that an engine has to be told.
    public static boolean setsOrder(Relation relation) {
        return relation.parts().stream().anyMatch(p -> switch (p) {
            case Relation.Source _, Relation.Result _, Relation.Compute _, Relation.Pick _, Relation.Keep _ -> false;
            case Relation.Sort _,
                    Relation.FirstOf _,
                    Relation.Window _,
                    Relation.Group _,
                    Relation.Join _,
                    Relation.Union _,
                    Relation.Unpivot _ -> true;
        });
    }

    /// Whether each row is worked out of itself alone, so that it can be fused with what reads it.
    public static boolean isByRow(Relation relation) {
        return relation.parts().stream()
                .allMatch(p -> p instanceof Relation.Source
                        || p instanceof Relation.Result
                        || p instanceof Relation.Compute
                        || p instanceof Relation.Pick);
    }

    /// Whether only columns are chosen, moved and renamed.
    public static boolean isOfColumns(Relation relation) {
        return relation.parts().stream().allMatch(p -> p instanceof Relation.Result || p instanceof Relation.Pick);
    }
}
