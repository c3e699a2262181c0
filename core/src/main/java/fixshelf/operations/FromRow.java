package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Aggregate;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import fixshelf.table.Sorted;
import fixshelf.table.Windowed;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// A value of another row.
final class FromRow extends BuiltIn {
    static final Blank<String> ROW = Blank.needed("row", ValueKinds.choice("next", "previous"), "next or previous.");
    static final Blank<List<Field>> OF = Blank.needed("of", ColumnKinds.COLUMNS, "The columns whose values are taken.");
    static final Blank<List<String>> INTO = Blank.needed("into", ColumnKinds.NEW_NAMES, "New columns, one for each.");
    static final Blank<Long> STEPS = Blank.usually("steps", ValueKinds.whole(1, 1_000_000), "1", "How many rows away.");
    static final Blank<List<Field>> WITHIN =
            Blank.optional("within", ColumnKinds.COLUMNS, "Only among rows that are equal in these.");
    static final Blank<List<Sorted>> BY =
            Blank.optional("by", ColumnKinds.ORDER, "The order of the rows; their places, if there is none.");

    FromRow() {
        super(
                "from_row",
                "Take {of} of the {row} row into {into}",
                new Meaning(
                        "The value of the next or the previous row beside each row: lag, lead, labels in the row below.",
                        "Missing where there is no such row, or its value is missing.",
                        "",
                        "Rows stay as they stand; neighbours by the order, or else by place.",
                        "By place.",
                        "Types stay.",
                        "The new names must be free.",
                        "",
                        "The same in all."),
                List.of(ROW, OF, INTO, STEPS, WITHIN, BY),
                List.of(
                        new TableExample(
                                "The row below",
                                Table.of("a", "'x'", "'y'"),
                                "from_row: next\nof: [a]\ninto: [below]",
                                Table.of("a | below", "'x' | 'y'", "'y' | NULL")),
                        new TableExample(
                                "The day before, inside groups",
                                Table.of("g | n integer", "'p' | 1", "'q' | 5", "'p' | 3"),
                                "from_row: previous\nof: [n]\ninto: [was]\nwithin: [g]",
                                Table.of(
                                        "g | n integer | was integer",
                                        "'p' | 1 | NULL",
                                        "'q' | 5 | NULL",
                                        "'p' | 3 | 1"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = given.get(OF);
        List<String> into = given.get(INTO);
        if (columns.size() != into.size()) {
            return Given.refused(
                    Code.ARGUMENTS,
                    "There are " + columns.size() + " columns, and " + into.size() + " new names.",
                    "Give one new name for each column.");
        }
        int sign = given.get(ROW).equals("next") ? 1 : -1;
        List<Windowed> made = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            given.meets(into.get(i)).ifPresent(problems::add);
            made.add(new Windowed(
                    given.field(into.get(i), columns.get(i).type()),
                    Windowed.Kind.NEIGHBOUR,
                    Aggregate.ROWS,
                    Optional.of(columns.get(i)),
                    sign * given.get(STEPS).intValue()));
        }
        return problems.isEmpty()
                ? new Resolution.Done(new Relation.Window(
                        given.before(),
                        made,
                        given.find(WITHIN).orElse(List.of()),
                        given.find(BY).orElse(List.of()),
                        false))
                : new Resolution.Refused(problems);
    }
}
