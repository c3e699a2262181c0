package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.table.Aggregate;
import fixshelf.table.Field;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.table.Sorted;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// The values of several rows in one text.
final class RowsToList extends BuiltIn {
    static final Blank<List<Field>> KEYS = Blank.needed("keys", ColumnKinds.COLUMNS, "The columns that make a group.");
    static final Blank<Field> OF = Blank.needed("of", ColumnKinds.COLUMN, "The column whose values are listed.");
    static final Blank<String> SEPARATOR =
            Blank.usually("separator", ValueKinds.TEXT, "; ", "What stands between the values.");
    static final Blank<Boolean> DISTINCT =
            Blank.usually("distinct", ValueKinds.FLAG, "false", "Whether each value stands once only.");
    static final Blank<List<Sorted>> BY =
            Blank.optional("by", ColumnKinds.ORDER, "The order of the values; as the rows stand, if nothing is said.");

    RowsToList() {
        super(
                "rows_to_list",
                "Make one row for each {keys}, listing {of}",
                new Meaning(
                        "Join the values of several rows into one text: string aggregate, concatenate a group.",
                        "Missing values are passed over; a group without any has none. Missing equals missing in the keys.",
                        "An empty text is a value.",
                        "Groups stand in the order of their first rows.",
                        "By place.",
                        "Texts. The other columns leave.",
                        "",
                        "",
                        "The same in all."),
                List.of(KEYS, OF, SEPARATOR, DISTINCT, BY),
                List.of(
                        new TableExample(
                                "Each once, in order",
                                Table.of("k | a", "'2' | 'y'", "'1' | 'z'", "'2' | 'x'", "'2' | 'y'", "'3' | NULL"),
                                "rows_to_list: [k]\nof: a\ndistinct: true\nby: [a]",
                                Table.of("k | a", "'2' | 'x; y'", "'1' | 'z'", "'3' | NULL")),
                        new TableExample(
                                "As they stand",
                                Table.of("k | a", "'1' | 'y'", "'1' | 'x'", "'1' | 'y'"),
                                "rows_to_list: [k]\nof: a\nseparator: '+'",
                                Table.of("k | a", "'1' | 'y+x+y'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> keys = given.get(KEYS);
        Field of = given.get(OF);
        if (!of.type().equals(Type.TEXT) || keys.stream().anyMatch(k -> k.id() == of.id())) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    of.type().equals(Type.TEXT)
                            ? of.name() + " is a key, and is listed."
                            : of.name() + " is " + of.type().label() + ", and only texts are listed.",
                    "Name another column, or read it as text before.");
        }
        Field place = given.helper("place", Type.INTEGER);
        Field first = given.helper("first_place", Type.INTEGER);
        Relation rows = new Relation.Window(
                given.before(), List.of(Windowed.number(place, Windowed.Kind.NUMBER)), List.of(), List.of(), false);
        List<Sorted> by = given.find(BY).orElse(List.of());
        if (!by.isEmpty()) {
            rows = new Relation.Sort(rows, by);
        }
        if (given.get(DISTINCT)) {
            List<Field> both = new ArrayList<>(keys);
            both.add(of);
            rows = new Relation.FirstOf(rows, both, List.of(), false);
        }
        Field made = given.helper(of.name() + "_listed", Type.TEXT);
        Relation listed = new Relation.Group(
                rows,
                keys,
                List.of(
                        new Grouped(made, Aggregate.LISTED, Optional.of(of), given.get(SEPARATOR)),
                        new Grouped(first, Aggregate.LEAST, Optional.of(place))));
        Relation sorted = new Relation.Sort(listed, List.of(new Sorted(first, false, false)));
        List<Field> shown = new ArrayList<>(keys);
        shown.add(made.named(of.name()));
        return new Resolution.Done(new Relation.Pick(sorted, new Shape(shown)));
    }
}
