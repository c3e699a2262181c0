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

/// Rows in another order.
final class SortRows extends BuiltIn {
    static final Blank<List<Sorted>> BY =
            Blank.needed("by", ColumnKinds.ORDER, "The columns, with {name: descending} where that is wanted.");

    SortRows() {
        super(
                "sort",
                "Sort by {by}",
                new Meaning(
                        "Put rows in order by columns, each ascending or descending.",
                        "Missing comes after everything else, in either direction.",
                        "An empty text comes before all other texts.",
                        "By the columns, one after another.",
                        "Rows that are equal in all of them stay as they stood.",
                        "Texts go by code points, FALSE before TRUE.",
                        "",
                        "",
                        "The same in all."),
                List.of(BY),
                List.of(
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
        return new Resolution.Done(new Relation.Sort(given.before(), given.get(BY)));
    }
}
