package fixshelf.operations;

import fixshelf.plan.Absent;
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
import java.util.Optional;
import fixshelf.type.Type;
import fixshelf.table.Formula;
import fixshelf.table.Aggregate;
import fixshelf.language.tree.Expr;

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

    static final Blank<String> GROUPS = Blank.usually(
            "groups",
            ValueKinds.choice("equal", "runs"),
            "equal",
            "equal: all rows that are equal in `within` are one group; runs: only as long as they stand one after another.");

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
                List.of(DIRECTION, COLUMNS, WITHIN, BY, GROUPS, Absent.BLANK),
                List.of(
                        new TableExample(
                                "Down, inside runs",
                                Table.of(
                                        "g | a",
                                        "'p' | 'x'",
                                        "'p' | NULL",
                                        "'q' | NULL",
                                        "'p' | NULL",
                                        "NULL | 'y'",
                                        "NULL | NULL"),
                                "carry: down\ncolumns: [a]\nwithin: [g]\ngroups: runs",
                                Table.of(
                                        "g | a",
                                        "'p' | 'x'",
                                        "'p' | 'x'",
                                        "'q' | NULL",
                                        "'p' | NULL",
                                        "NULL | 'y'",
                                        "NULL | 'y'")),
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

    /// The table with the number of the run that each row is in: one more with each row that
    /// differs from the one before.
    private static Relation runs(Given given, List<Field> within, Field run, List<Field> helpers) {
        List<Sorted> by = given.find(BY).orElse(List.of());
        List<Windowed> before = new ArrayList<>();
        List<Expr> differs = new ArrayList<>();
        for (Field field : within) {
            Field last = given.helper(field.name() + "_before", field.type());
            helpers.add(last);
            before.add(new Windowed(last, Windowed.Kind.NEIGHBOUR, Aggregate.ROWS, Optional.of(field), -1));
            differs.add(Formula.call("IS DISTINCT FROM", field.value(), last.value()));
        }
        Field begins = given.helper("begins", Type.INTEGER);
        helpers.add(begins);
        Expr one = Formula.when(Formula.any(differs), Expr.Literal.integer(1), Expr.Literal.integer(0));
        Relation marked = new Relation.Compute(
                new Relation.Window(given.before(), before, List.of(), by, false), List.of(new Computed(begins, one)));
        return new Relation.Window(
                marked,
                List.of(new Windowed(run, Windowed.Kind.SO_FAR, Aggregate.SUM, Optional.of(begins), 0)),
                List.of(),
                by,
                false);
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
        List<Field> within = given.find(WITHIN).orElse(List.of());
        Relation before = given.before();
        if (given.get(GROUPS).equals("runs") && !within.isEmpty()) {
            Field run = given.helper("run", Type.INTEGER);
            before = runs(given, within, run, helpers);
            helpers.add(run);
            within = List.of(run);
        }
        Relation carried = new Relation.Window(
                before,
                made,
                within,
                given.find(BY).orElse(List.of()),
                given.get(DIRECTION).equals("up"));
        return new Resolution.Done(Given.without(new Relation.Compute(carried, cells), helpers));
    }
}
