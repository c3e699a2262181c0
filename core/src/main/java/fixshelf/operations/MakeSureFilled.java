package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import java.util.List;

/// Check that columns are never missing or blank.
final class MakeSureFilled extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");
    static final Blank<Boolean> ONLY_COUNT = Blank.usually(
            "only_count", ValueKinds.FLAG, "false", "Whether a run goes on, and only says how many rows break it.");

    MakeSureFilled() {
        super(
                "make_sure_filled",
                "Make sure that nothing is missing in {columns}",
                new Meaning(
                        "Check that columns are never missing or blank: not null, required.",
                        "Breaks it.",
                        "Breaks it, as white space only does, unless `blank` says less.",
                        "Rows stay as they stand.",
                        "",
                        "",
                        "",
                        "broken: the rows that break it. A run stops where there is any, unless it only counts.",
                        "A query that gives the rows that break it in SQL, an assertion in pandas and R."),
                List.of(COLUMNS, ONLY_COUNT, LeaveOutBlankRows.BLANK),
                List.of(new TableExample(
                        "It holds",
                        Table.of("a | b", "'x' | NULL"),
                        "make_sure_filled: [a]",
                        Table.of("a | b", "'x' | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Expr> blank = given.get(COLUMNS).stream()
                .map(c -> Formula.not(LeaveOutBlankRows.isFilled(c, given.get(LeaveOutBlankRows.BLANK))))
                .toList();
        return checked(given, new Relation.Keep(given.before(), Formula.any(blank)), given.get(ONLY_COUNT));
    }
}
