package fixshelf.operations;

import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Sorted;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Of rows that repeat, one.
final class DropRepeats extends BuiltIn {
    static final Blank<List<Field>> KEYS =
            Blank.usually("keys", ColumnKinds.KEYS, "all columns", "The columns that make two rows repeat each other.");
    static final Blank<String> KEEP = Blank.needed(
            "keep",
            ValueKinds.choice("first", "last", "fullest"),
            "Which row of each group stays: the first, the last, or the one with the fewest missing values.");
    static final Blank<Definition> COMPARE = Blank.optional(
            "compare", ValueKinds.FIX, "A fix through which texts go before they are compared; they stay as they are.");
    static final Blank<List<Sorted>> BY = Blank.optional(
                    "by",
                    ColumnKinds.ORDER,
                    "What says which is first and last; the place in the table, if nothing does.")
            .leftOutAs("place in the file");

    static final Blank<String> MISSING = Blank.usually(
            "missing",
            ValueKinds.choice("equals_missing", "never_repeats"),
            "equals_missing",
            "Whether a missing key equals a missing key, or a row with one repeats no other.");

    DropRepeats() {
        super(
                "drop_repeats",
                "Drop rows that repeat {keys}, keeping the {keep} by {by}",
                new Meaning(
                        "Remove duplicates: of the rows with the same key keep one, and say which.",
                        "Missing equals missing, unless such rows never repeat. In the order, missing comes after everything else, so that a row with a value stays before one without.",
                        "An empty text is a key of its own, and is not missing.",
                        "Rows stay as they stand. With last, the order is taken from its end.",
                        "By place: the first, or with last the last. Of rows that are equally full, the first by the order.",
                        "Texts are equal by code points. Floating-point numbers are poor keys.",
                        "",
                        "repeats: all rows of the groups that have more than one.",
                        "The same in all."),
                List.of(KEYS, KEEP, BY, COMPARE, MISSING),
                List.of(
                        new TableExample(
                                "A missing key repeats nothing",
                                Table.of("no | a", "'1' | 'p'", "NULL | 'q'", "'1' | 'r'", "NULL | 's'"),
                                "drop_repeats: [no]\nkeep: first\nmissing: never_repeats",
                                Table.of("no | a", "'1' | 'p'", "NULL | 'q'", "NULL | 's'")),
                        new TableExample(
                                "The last by day",
                                Table.of("no | day", "'1' | '02'", "'2' | '01'", "'1' | '03'", "'1' | NULL"),
                                "drop_repeats: [no]\nkeep: last\nby: [day]",
                                Table.of("no | day", "'2' | '01'", "'1' | '03'")),
                        new TableExample(
                                "The fullest",
                                Table.of("no | a | b", "'1' | NULL | 'x'", "'1' | 'p' | 'y'", "'1' | 'q' | 'z'"),
                                "drop_repeats: [no]\nkeep: fullest",
                                Table.of("no | a | b", "'1' | 'p' | 'y'")),
                        new TableExample(
                                "Whole rows, missing equals missing",
                                Table.of("a | b", "'x' | NULL", "'X' | NULL", "'x' | NULL"),
                                "drop_repeats: all columns\nkeep: first",
                                Table.of("a | b", "'x' | NULL", "'X' | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        String keep = given.get(KEEP);
        boolean last = keep.equals("last");
        List<Sorted> by = new ArrayList<>(given.find(BY).orElse(List.of()).stream()
                .map(s -> new Sorted(s.field(), s.descending() != last, false))
                .toList());
        List<Computed> helpers = new ArrayList<>();
        List<Field> keys = compared(given, given.get(KEYS), helpers);
        if (keep.equals("fullest")) {
            Field missing = given.helper("missing_values", Type.INTEGER);
            helpers.add(new Computed(missing, missing(given.fields())));
            by.addFirst(new Sorted(missing, false, false));
        }
        Relation table = given.before();
        List<Field> gone = new ArrayList<>();
        if (given.get(MISSING).equals("never_repeats")) {
            // Rows with a missing key are told apart by their numbers.
            Field number = given.helper("row", Type.INTEGER);
            Field apart = given.helper("apart", Type.INTEGER);
            Expr any = Formula.any(given.get(KEYS).stream()
                    .map(k -> Formula.isMissing(k.value()))
                    .toList());
            helpers.add(new Computed(apart, Formula.when(any, number.value(), Expr.Literal.integer(0))));
            table = new Relation.Window(
                    table, List.of(Windowed.number(number, Windowed.Kind.NUMBER)), List.of(), List.of(), false);
            keys = new ArrayList<>(keys);
            keys.add(apart);
            gone.add(number);
        }
        helpers.forEach(h -> gone.add(h.made()));
        Relation worked = helpers.isEmpty() ? table : new Relation.Compute(table, helpers);
        Relation first = new Relation.FirstOf(worked, keys, by, last);
        Relation repeats = repeats(given, worked, keys);
        return new Resolution.Done(
                gone.isEmpty() ? first : Given.without(first, gone),
                List.of(new Report(
                        "repeats", gone.isEmpty() ? repeats : Given.without(repeats, gone), "rows that repeat")));
    }

    /// The keys, or what a fix makes of those that are texts.
    private static List<Field> compared(Given given, List<Field> keys, List<Computed> helpers) {
        Optional<Definition> fix = given.find(COMPARE);
        List<Field> compared = new ArrayList<>();
        for (Field key : keys) {
            if (fix.isEmpty() || !key.type().equals(Type.TEXT)) {
                compared.add(key);
                continue;
            }
            Field made = given.helper(key.name() + "_compared", fix.get().returns());
            helpers.add(new Computed(made, Given.through(fix.get(), key.value())));
            compared.add(made);
        }
        return compared;
    }

    /// How many values are missing in a row, put together in halves, so that many columns make no deep expression.
    private static Expr missing(List<Field> fields) {
        if (fields.size() == 1) {
            return Formula.when(
                    Formula.isMissing(fields.getFirst().value()), Expr.Literal.integer(1), Expr.Literal.integer(0));
        }
        int half = fields.size() / 2;
        return Formula.call("+", missing(fields.subList(0, half)), missing(fields.subList(half, fields.size())));
    }

    /// The rows of a table that have the keys of another row.
    static Relation repeats(Given given, Relation table, List<Field> keys) {
        Field size = given.helper("rows_of_group", Type.INTEGER);
        Relation sized = new Relation.Window(
                table,
                List.of(new Windowed(size, Windowed.Kind.OF_ALL, Aggregate.ROWS, Optional.empty(), 0)),
                keys,
                List.of(),
                false);
        Relation repeats = new Relation.Keep(sized, Formula.call(">", size.value(), Expr.Literal.integer(1)));
        return Given.without(repeats, List.of(size));
    }
}
