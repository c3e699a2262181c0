package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.table.Formula;
import fixshelf.table.Computed;
import fixshelf.language.tree.Expr;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import fixshelf.table.Sorted;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;

/// Each row with its number.
final class NumberRows extends BuiltIn {
    static final Blank<String> INTO = Blank.needed("into", ColumnKinds.NEW_NAME, "The new column.");
    static final Blank<List<Sorted>> BY = Blank.optional(
            "by", ColumnKinds.ORDER, "The order in which they are numbered; their places, if there is none.");
    static final Blank<List<Field>> WITHIN = Blank.optional(
            "within", ColumnKinds.COLUMNS, "Begins anew for each group of rows that are equal in these columns.");
    static final Blank<String> TIES = Blank.usually(
            "ties",
            ValueKinds.choice("apart", "shared", "no_gaps"),
            "apart",
            "What rows get that are equal in the order.");

    static final Blank<Long> FROM =
            Blank.usually("from", ValueKinds.whole(0, 1_000_000_000), "1", "The number of the first row.");

    NumberRows() {
        super(
                "number_rows",
                "Number the rows in {into}",
                new Meaning(
                        "A running number for each row, of the whole table or inside groups: row number, rank, counter.",
                        "Missing equals missing in groups, and comes last in the order.",
                        "",
                        "Rows stay as they stand; they are numbered by the order, or else by place.",
                        "apart: by place. shared: equal rows share the number of the first, and numbers after them have gaps. no_gaps: they share, and there are no gaps.",
                        "Gives a whole number, from 1 or another.",
                        "The new name must be free.",
                        "",
                        "The same in all."),
                List.of(INTO, BY, WITHIN, TIES, FROM),
                List.of(
                        new TableExample(
                                "Inside groups",
                                Table.of("g | a", "'x' | 'p'", "'y' | 'q'", "'x' | 'r'"),
                                "number_rows: nr\nwithin: [g]",
                                Table.of("g | a | nr integer", "'x' | 'p' | 1", "'y' | 'q' | 1", "'x' | 'r' | 2")),
                        new TableExample(
                                "From another number",
                                Table.of("g", "'x'", "'y'", "'x'"),
                                "number_rows: nr\nwithin: [g]\nfrom: 0",
                                Table.of("g | nr integer", "'x' | 0", "'y' | 0", "'x' | 1")),
                        new TableExample(
                                "Shared numbers",
                                Table.of("n integer", "5", "7", "5", "9"),
                                "number_rows: place\nby: [n]\nties: shared",
                                Table.of("n integer | place integer", "5 | 1", "7 | 3", "5 | 1", "9 | 4"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Optional<Problem> meets = given.meets(given.get(INTO));
        if (meets.isPresent()) {
            return new Resolution.Refused(List.of(meets.get()));
        }
        Windowed.Kind kind =
                switch (given.get(TIES)) {
                    case "shared" -> Windowed.Kind.SHARED_NUMBER;
                    case "no_gaps" -> Windowed.Kind.DENSE_NUMBER;
                    default -> Windowed.Kind.NUMBER;
                };
        List<Sorted> by = given.find(BY).orElse(List.of());
        if (by.isEmpty() && kind != Windowed.Kind.NUMBER) {
            return Given.refused(
                    Code.ARGUMENTS, "Rows share numbers only in an order.", "Fill `by`, or leave out `ties`.");
        }
        Field number = given.field(given.get(INTO), Type.INTEGER);
        Relation numbered = new Relation.Window(
                given.before(),
                List.of(Windowed.number(number, kind)),
                given.find(WITHIN).orElse(List.of()),
                by,
                false);
        if (given.get(FROM) == 1) {
            return new Resolution.Done(numbered);
        }
        Expr from = Formula.call("+", number.value(), Expr.Literal.integer(given.get(FROM) - 1));
        return new Resolution.Done(new Relation.Compute(numbered, List.of(new Computed(number, from))));
    }
}
