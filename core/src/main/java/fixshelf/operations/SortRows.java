package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Relation;
import fixshelf.table.Sorted;
import java.util.List;
import java.util.ArrayList;
import fixshelf.type.Type;
import fixshelf.table.Formula;
import fixshelf.table.Field;
import fixshelf.table.Computed;
import fixshelf.plan.ValueKinds;
import fixshelf.language.tree.Expr;

/// Rows in another order.
final class SortRows extends BuiltIn {
    static final Blank<List<Sorted>> BY =
            Blank.needed("by", ColumnKinds.ORDER, "The columns, with {name: descending} where that is wanted.");

    static final Blank<String> MISSING = Blank.usually(
            "missing",
            ValueKinds.choice("last", "first"),
            "last",
            "Whether missing values stand after everything else, or before it, in either direction.");

    SortRows() {
        super(
                "sort",
                "Sort by {by}",
                new Meaning(
                        "Put rows in order by columns, each ascending or descending.",
                        "Missing comes after everything else, in either direction, or before it.",
                        "An empty text comes before all other texts.",
                        "By the columns, one after another.",
                        "Rows that are equal in all of them stay as they stood.",
                        "Texts go by code points, FALSE before TRUE.",
                        "",
                        "",
                        "The same in all."),
                List.of(BY, MISSING),
                List.of(
                        new TableExample(
                                "Missing first",
                                Table.of("n integer | a", "2 | 'b'", "NULL | 'c'", "10 | NULL", "NULL | NULL"),
                                "sort: [{n: descending}, a]\nmissing: first",
                                Table.of("n integer | a", "NULL | NULL", "NULL | 'c'", "10 | NULL", "2 | 'b'")),
                        new TableExample(
                                "Missing last, either way",
                                Table.of("n integer | a", "2 | 'b'", "NULL | 'c'", "10 | 'a'"),
                                "sort: [{n: descending}]",
                                Table.of("n integer | a", "10 | 'a'", "2 | 'b'", "NULL | 'c'")),
                        new TableExample(
                                "Ties stay",
                                Table.of("a | b", "'x' | '2'", "'B' | '1'", "'x' | '1'"),
                                "sort: [a]",
                                Table.of("a | b", "'B' | '1'", "'x' | '2'", "'x' | '1'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        if (given.get(MISSING).equals("last")) {
            return new Resolution.Done(new Relation.Sort(given.before(), given.get(BY)));
        }
        // Not every language can put missing first by itself.
        List<Computed> cells = new ArrayList<>();
        List<Sorted> by = new ArrayList<>();
        for (Sorted sorted : given.get(BY)) {
            Field known = given.helper(sorted.field().name() + "_known", Type.INTEGER);
            Expr isKnown = Formula.when(
                    Formula.isMissing(sorted.field().value()), Expr.Literal.integer(0), Expr.Literal.integer(1));
            cells.add(new Computed(known, isKnown));
            by.add(new Sorted(known, false, false));
            by.add(sorted);
        }
        return new Resolution.Done(Given.without(
                new Relation.Sort(given.computed(cells), by),
                cells.stream().map(Computed::made).toList()));
    }
}
