package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Problem;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;

/// Each row with what tells whether it repeats.
final class MarkRepeats extends BuiltIn {
    static final Blank<List<Field>> KEYS =
            Blank.usually("keys", ColumnKinds.KEYS, "all columns", "The columns that make two rows repeat each other.");
    static final Blank<String> INTO = Blank.needed("into", ColumnKinds.NEW_NAME, "The new column.");
    static final Blank<String> MARK = Blank.usually(
            "mark",
            ValueKinds.choice("flag", "later", "size", "number"),
            "flag",
            "flag: whether its group has several rows; later: whether one of them stands above it; size: how many there are;"
                    + " number: which of them it is.");

    MarkRepeats() {
        super(
                "mark_repeats",
                "Mark rows that repeat {keys}, in {into}",
                new Meaning(
                        "Find duplicates without removing any: the size of each row's group, or its number in the group.",
                        "Missing equals missing.",
                        "An empty text is a key of its own.",
                        "Rows stay as they stand.",
                        "By place.",
                        "Gives a whole number, or true and false for flag and later.",
                        "The new name must be free.",
                        "",
                        "The same in all."),
                List.of(KEYS, INTO, MARK),
                List.of(
                        new TableExample(
                                "Flag",
                                Table.of("a", "'x'", "'y'", "'x'"),
                                "mark_repeats: [a]\ninto: again",
                                Table.of("a | again boolean", "'x' | TRUE", "'y' | FALSE", "'x' | TRUE")),
                        new TableExample(
                                "Later ones only",
                                Table.of("a", "'x'", "'y'", "'x'"),
                                "mark_repeats: [a]\ninto: again\nmark: later",
                                Table.of("a | again boolean", "'x' | FALSE", "'y' | FALSE", "'x' | TRUE")),
                        new TableExample(
                                "Number",
                                Table.of("a", "'x'", "'y'", "'x'"),
                                "mark_repeats: [a]\ninto: nth\nmark: number",
                                Table.of("a | nth integer", "'x' | 1", "'y' | 1", "'x' | 2"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Optional<Problem> meets = given.meets(given.get(INTO));
        if (meets.isPresent()) {
            return new Resolution.Refused(List.of(meets.get()));
        }
        String mark = given.get(MARK);
        boolean isFlag = mark.equals("flag") || mark.equals("later");
        boolean byPlace = mark.equals("number") || mark.equals("later");
        Field number = isFlag
                ? given.helper(byPlace ? "number_in_group" : "rows_of_group", Type.INTEGER)
                : given.field(given.get(INTO), Type.INTEGER);
        Windowed made = byPlace
                ? Windowed.number(number, Windowed.Kind.NUMBER)
                : new Windowed(number, Windowed.Kind.OF_ALL, Aggregate.ROWS, Optional.empty(), 0);
        Relation numbered = new Relation.Window(given.before(), List.of(made), given.get(KEYS), List.of(), false);
        if (!isFlag) {
            return new Resolution.Done(numbered);
        }
        Field flag = given.field(given.get(INTO), Type.BOOLEAN);
        Relation flagged = new Relation.Compute(
                numbered, List.of(new Computed(flag, Formula.call(">", number.value(), Expr.Literal.integer(1)))));
        return new Resolution.Done(Given.without(flagged, List.of(number)));
    }
}
