package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Definition;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Operation;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Problem;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/// How the rows of two tables are told to meet: pairs of columns, as they stand or through a fix.
///
/// @param left the table here, with what is compared
/// @param right the other table, with what is compared
/// @param helpers the fields of both that nobody sees afterwards
record Matching(Relation left, Relation right, List<Relation.Pair> on, List<Field> helpers) {
    static final Blank<Map<String, String>> MATCHING = Blank.needed(
            "matching",
            ColumnKinds.MATCHING,
            "Columns here with those there that they must equal: {village: village}.");
    static final Blank<Definition> COMPARE = Blank.optional(
            "compare", ValueKinds.FIX, "A fix through which texts go before they are compared; they stay as they are.");

    /// The tables and pairs of a line, or what is wrong with them.
    static Optional<Matching> of(Given given, Relation other, List<Problem> problems) {
        List<Relation.Pair> pairs = BuiltIn.pairs(given, other, given.get(MATCHING), problems);
        Optional<Definition> fix = given.find(COMPARE);
        if (!problems.isEmpty()) {
            return Optional.empty();
        }
        if (fix.isEmpty()) {
            return Optional.of(new Matching(given.before(), other, pairs, List.of()));
        }
        List<Computed> here = new ArrayList<>();
        List<Computed> there = new ArrayList<>();
        List<Relation.Pair> compared = new ArrayList<>();
        for (Relation.Pair pair : pairs) {
            if (!pair.left().type().equals(Type.TEXT)) {
                compared.add(pair);
                continue;
            }
            Field left = compared(given, pair.left(), "_compared", fix.get(), here);
            Field right = compared(given, pair.right(), "_compared_there", fix.get(), there);
            compared.add(new Relation.Pair(left, right, pair.missingMeets()));
        }
        List<Field> helpers =
                Stream.concat(here.stream(), there.stream()).map(Computed::made).toList();
        return Optional.of(new Matching(
                given.computed(here), there.isEmpty() ? other : new Relation.Compute(other, there), compared, helpers));
    }

    /// What is compared in place of a field.
    private static Field compared(Given given, Field field, String ending, Definition fix, List<Computed> cells) {
        Field made = given.helper(field.name() + ending, fix.returns());
        cells.add(new Computed(made, Given.through(fix, field.value())));
        return made;
    }

    List<Field> rightKeys() {
        return on.stream().map(Relation.Pair::right).toList();
    }

    /// The pairs as the other table sees them.
    List<Relation.Pair> turned() {
        return on.stream()
                .map(p -> new Relation.Pair(p.right(), p.left(), p.missingMeets()))
                .toList();
    }

    /// A table without what was only compared.
    Relation shown(Relation relation) {
        return helpers.isEmpty() ? relation : Given.without(relation, helpers);
    }

    /// The rows here that meet any there, or none.
    Relation rows(Relation.Meeting meeting) {
        return shown(new Relation.Join(left, right, on, meeting, List.of()));
    }

    /// How many pairs there will be, counted from the keys.
    ///
    /// @param to what the other table is joined as, with the fields that are compared
    /// @param most how many times as many rows as there are may come out
    /// @param stay whether rows that meet none come out, too
    Operation.Guard guard(Given given, Relation to, long most, boolean stay) {
        Field size = given.helper("rows_of_key", Type.INTEGER);
        Field taken = given.helper("rows_met", Type.INTEGER);
        Field pairs = given.helper("pairs", Type.INTEGER);
        Relation sizes =
                new Relation.Group(to, rightKeys(), List.of(new Grouped(size, Aggregate.ROWS, Optional.empty())));
        Relation met = new Relation.Join(
                left,
                sizes,
                on,
                stay ? Relation.Meeting.ALL_LEFT : Relation.Meeting.PAIRS,
                List.of(new Relation.Taken(size, taken)));
        Field made = given.helper("rows_made", Type.INTEGER);
        Relation rows = new Relation.Compute(
                met, List.of(new Computed(made, Formula.call("coalesce", taken.value(), Expr.Literal.integer(1)))));
        return new Operation.Guard(
                new Relation.Group(rows, List.of(), List.of(new Grouped(pairs, Aggregate.SUM, Optional.of(made)))),
                most);
    }
}
