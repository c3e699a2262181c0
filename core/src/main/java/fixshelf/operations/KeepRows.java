package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Relation;
import java.util.List;

/// The rows for which a condition is true.
final class KeepRows extends BuiltIn {
    static final Blank<Expr> WHERE = Blank.needed("where", ExpressionKinds.CONDITION, "A condition over the columns.");

    KeepRows() {
        super(
                "keep_rows",
                "Keep rows where {where}",
                new Meaning(
                        "Keep only the rows for which a condition is true: filter, where, only these.",
                        "A condition that is neither true nor false, as with a missing value, lets the row leave; such rows are counted apart.",
                        "An empty text is a text, and is not missing.",
                        "Rows stay as they stand.",
                        "",
                        "The condition is of the columns as they are typed at this line.",
                        "",
                        "unknown: the rows for which the condition is neither true nor false.",
                        "The same in all."),
                List.of(WHERE),
                List.of(
                        new TableExample(
                                "Unknown leaves",
                                Table.of("n integer", "1", "3", "NULL"),
                                "keep_rows: n > 2",
                                Table.of("n integer", "3")),
                        new TableExample(
                                "Rows with a village",
                                Table.of("village", "'Weir'", "NULL", "''"),
                                "keep_rows: village IS NOT NULL",
                                Table.of("village", "'Weir'", "''"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Expr where = given.get(WHERE);
        return new Resolution.Done(new Relation.Keep(given.before(), where), unknown(given.before(), where));
    }
}
