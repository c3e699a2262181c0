package fixshelf.operations;

import fixshelf.language.Expr;
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
import fixshelf.table.Sorted;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;

/// Of rows that repeat, one.
final class DropRepeats extends BuiltIn {
    static final Blank<List<Field>> KEYS =
            Blank.usually("keys", ColumnKinds.KEYS, "all columns", "The columns that make two rows repeat each other.");
    static final Blank<String> KEEP =
            Blank.needed("keep", ValueKinds.choice("first", "last"), "Which row of each group stays: first or last.");
    static final Blank<List<Sorted>> BY = Blank.optional(
            "by", ColumnKinds.ORDER, "What says which is first and last; the place in the table, if nothing does.");

    DropRepeats() {
        super(
                "drop_repeats",
                "Drop rows that repeat {keys}, keeping the {keep} by {by}",
                new Meaning(
                        "Remove duplicates: of the rows with the same key keep one, and say which.",
                        "Missing equals missing. In the order, missing comes after everything else, so that a row with a value stays before one without.",
                        "An empty text is a key of its own, and is not missing.",
                        "Rows stay as they stand. With last, the order is taken from its end.",
                        "By place: the first, or with last the last.",
                        "Texts are equal by code points. Floating-point numbers are poor keys.",
                        "",
                        "repeats: all rows of the groups that have more than one.",
                        "The same in all."),
                List.of(KEYS, KEEP, BY),
                List.of(
                        new TableExample(
                                "The last by day",
                                Table.of("no | day", "'1' | '02'", "'2' | '01'", "'1' | '03'", "'1' | NULL"),
                                "drop_repeats: [no]\nkeep: last\nby: [day]",
                                Table.of("no | day", "'2' | '01'", "'1' | '03'")),
                        new TableExample(
                                "Whole rows, missing equals missing",
                                Table.of("a | b", "'x' | NULL", "'X' | NULL", "'x' | NULL"),
                                "drop_repeats: all columns\nkeep: first",
                                Table.of("a | b", "'x' | NULL", "'X' | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        boolean last = given.get(KEEP).equals("last");
        List<Sorted> by = given.find(BY).orElse(List.of()).stream()
                .map(s -> new Sorted(s.field(), s.descending() != last, false))
                .toList();
        List<Field> keys = given.get(KEYS);
        Field size = given.helper("rows_of_group", Type.INTEGER);
        Relation sized = new Relation.Window(
                given.before(),
                List.of(new Windowed(size, Windowed.Kind.OF_ALL, Aggregate.ROWS, Optional.empty(), 0)),
                keys,
                List.of(),
                false);
        Relation repeats = new Relation.Keep(sized, Formula.call(">", size.value(), Expr.Literal.integer(1)));
        return new Resolution.Done(
                new Relation.FirstOf(given.before(), keys, by, last),
                List.of(new Report("repeats", Given.without(repeats, List.of(size)), "rows that repeat")));
    }
}
