package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import java.util.List;

/// The rows for which a condition is not true.
final class LeaveOutRows extends BuiltIn {
    static final Blank<Expr> WHERE = Blank.needed("where", ExpressionKinds.CONDITION, "A condition over the columns.");

    LeaveOutRows() {
        super(
                "leave_out_rows",
                "Leave out rows where {where}",
                new Meaning(
                        "Remove the rows for which a condition is true: delete, exclude, without these.",
                        "A condition that is neither true nor false, as with a missing value, lets the row stay; such rows are counted apart.",
                        "An empty text is a text, and is not missing.",
                        "Rows stay as they stand.",
                        "",
                        "The condition is of the columns as they are typed at this line.",
                        "",
                        "unknown: the rows for which the condition is neither true nor false.",
                        "The same in all."),
                List.of(WHERE),
                List.of(new TableExample(
                        "Unknown stays",
                        Table.of("n integer", "1", "3", "NULL"),
                        "leave_out_rows: n > 2",
                        Table.of("n integer", "1", "NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Expr where = given.get(WHERE);
        Expr stays = Formula.when(where, Expr.Literal.truth(false), Expr.Literal.truth(true));
        return new Resolution.Done(new Relation.Keep(given.before(), stays), unknown(given.before(), where));
    }
}
