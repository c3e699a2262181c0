package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.table.Aggregate;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;

/// Check that a key is unique.
final class MakeSureUnique extends BuiltIn {
    static final Blank<List<Field>> KEYS = Blank.needed("keys", ColumnKinds.KEYS, "The columns of the key.");
    static final Blank<Boolean> ONLY_COUNT = Blank.usually(
            "only_count", ValueKinds.FLAG, "false", "Whether a run goes on, and only says how many rows break it.");

    MakeSureUnique() {
        super(
                "make_sure_unique",
                "Make sure that no two rows agree in {keys}",
                new Meaning(
                        "Check that a key is unique: no duplicates, primary key.",
                        "Missing equals missing.",
                        "An empty text is a key of its own.",
                        "Rows stay as they stand.",
                        "",
                        "Texts are equal by code points.",
                        "",
                        "broken: the rows that break it. A run stops where there is any, unless it only counts.",
                        "A query that gives the rows that break it in SQL, an assertion in pandas and R."),
                List.of(KEYS, ONLY_COUNT),
                List.of(new TableExample(
                        "It holds",
                        Table.of("a", "'x'", "'X'", "NULL"),
                        "make_sure_unique: [a]",
                        Table.of("a", "'x'", "'X'", "NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Field size = given.helper("rows_of_group", Type.INTEGER);
        Relation sized = new Relation.Window(
                given.before(),
                List.of(new Windowed(size, Windowed.Kind.OF_ALL, Aggregate.ROWS, Optional.empty(), 0)),
                given.get(KEYS),
                List.of(),
                false);
        Relation repeats = new Relation.Keep(sized, Formula.call(">", size.value(), Expr.Literal.integer(1)));
        return checked(given, Given.without(repeats, List.of(size)), given.get(ONLY_COUNT));
    }
}
