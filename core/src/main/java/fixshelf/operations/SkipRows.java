package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.table.Formula;
import java.util.List;

/// All but the first rows.
final class SkipRows extends BuiltIn {
    static final Blank<Long> COUNT = Blank.needed("count", ValueKinds.whole(0, 1_000_000_000), "How many rows.");

    SkipRows() {
        super(
                "skip_rows",
                "Leave out the first {count} rows",
                new Meaning(
                        "Remove the first rows: skip, offset, notes above the data.",
                        "",
                        "",
                        "Rows stay as they stand; the order before decides which are first.",
                        "By place.",
                        "",
                        "",
                        "The rows that leave.",
                        "The same in all."),
                List.of(COUNT),
                List.of(new TableExample(
                        "Without the first",
                        Table.of("a", "'x'", "'y'", "'z'"),
                        "skip_rows: 1",
                        Table.of("a", "'y'", "'z'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        return numbered(given, n -> Formula.call(">", n, Expr.Literal.integer(given.get(COUNT))));
    }
}
