package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import fixshelf.table.Sorted;
import fixshelf.table.Windowed;
import java.util.ArrayList;
import java.util.List;

/// Values carried into missing cells.
final class Carry extends BuiltIn {
    static final Blank<String> DIRECTION = Blank.usually(
            "direction", ValueKinds.choice("down", "up"), "down", "down, from the rows above; up, from those below.");
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");
    static final Blank<List<Field>> WITHIN = Blank.optional(
            "within",
            ColumnKinds.COLUMNS,
            "Nothing is carried over the border of a group of rows that are equal in these.");
    static final Blank<List<Sorted>> BY = Blank.optional(
            "by", ColumnKinds.ORDER, "The order in which it is carried; their places, if there is none.");

    Carry() {
        super(
                "carry",
                "Carry {columns} {direction} into missing cells",
                new Meaning(
                        "Fill down or up: a label that stands only in the first or the last row of its block, merged cells.",
                        "Is what gets the value of the nearest row above, or below, that has one.",
                        "An empty text is not missing, and is carried on.",
                        "Rows stay as they stand; carried by the order, or else by place.",
                        "By place.",
                        "Types stay.",
                        "",
                        "",
                        "The same in all."),
                List.of(DIRECTION, COLUMNS, WITHIN, BY),
                List.of(
                        new TableExample(
                                "Down",
                                Table.of("a", "NULL", "'x'", "NULL", "'y'"),
                                "carry: down\ncolumns: [a]",
                                Table.of("a", "NULL", "'x'", "'x'", "'y'")),
                        new TableExample(
                                "Up, inside groups",
                                Table.of("g | a", "'p' | NULL", "'q' | 'y'", "'p' | 'x'", "'q' | NULL"),
                                "carry: up\ncolumns: [a]\nwithin: [g]",
                                Table.of("g | a", "'p' | 'x'", "'q' | 'y'", "'p' | 'x'", "'q' | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> helpers = new ArrayList<>();
        List<Windowed> made = new ArrayList<>();
        List<Computed> cells = new ArrayList<>();
        for (Field field : given.get(COLUMNS)) {
            Field helper = given.helper(field.name() + "_carried", field.type());
            helpers.add(helper);
            made.add(Windowed.lastFilled(helper, field));
            cells.add(new Computed(field, helper.value()));
        }
        Relation carried = new Relation.Window(
                given.before(),
                made,
                given.find(WITHIN).orElse(List.of()),
                given.find(BY).orElse(List.of()),
                given.get(DIRECTION).equals("up"));
        return new Resolution.Done(Given.without(new Relation.Compute(carried, cells), helpers));
    }
}
