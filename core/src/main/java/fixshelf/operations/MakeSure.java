package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import java.util.List;

/// Check that a condition is true for every row.
final class MakeSure extends BuiltIn {
    static final Blank<Expr> WHERE = Blank.needed("where", ExpressionKinds.CONDITION, "A condition over the columns.");
    static final Blank<Boolean> ONLY_COUNT = Blank.usually(
            "only_count", ValueKinds.FLAG, "false", "Whether a run goes on, and only says how many rows break it.");

    MakeSure() {
        super(
                "make_sure",
                "Make sure that {where}",
                new Meaning(
                        "Check that a condition is true for every row: assert, validate, expect, in range.",
                        "A condition that is neither true nor false is broken.",
                        "An empty text is a text.",
                        "Rows stay as they stand.",
                        "",
                        "The condition is of the columns as they are typed at this line.",
                        "",
                        "broken: the rows that break it. A run stops where there is any, unless it only counts.",
                        "A query that gives the rows that break it in SQL, an assertion in pandas and R."),
                List.of(WHERE, ONLY_COUNT),
                List.of(new TableExample(
                        "It holds",
                        Table.of("n integer", "1", "2"),
                        "make_sure: n > 0",
                        Table.of("n integer", "1", "2"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Expr holds = given.get(WHERE);
        Expr broken = Formula.when(holds, Expr.Literal.truth(false), Expr.Literal.truth(true));
        return checked(given, new Relation.Keep(given.before(), broken), given.get(ONLY_COUNT));
    }
}
