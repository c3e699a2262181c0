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

/// The first rows.
final class FirstRows extends BuiltIn {
    static final Blank<Long> COUNT = Blank.needed("count", ValueKinds.whole(0, 1_000_000_000), "How many rows.");

    FirstRows() {
        super(
                "first_rows",
                "Keep the first {count} rows",
                new Meaning(
                        "Keep only the first rows: head, top, limit, a sample.",
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
                        "The first two",
                        Table.of("a", "'x'", "'y'", "'z'"),
                        "first_rows: 2",
                        Table.of("a", "'x'", "'y'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        return numbered(given, n -> Formula.call("<=", n, Expr.Literal.integer(given.get(COUNT))));
    }
}
