package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;

/// Names out of a row.
final class HeadingRow extends BuiltIn {
    static final Blank<Long> ROW =
            Blank.needed("row", ValueKinds.whole(1, 1_000_000), "Where the names stand, from 1.");
    static final Blank<Long> COUNT = Blank.usually(
            "count",
            ValueKinds.whole(1, 10),
            "1",
            "How many rows make the names. In all but the last of them a name goes on to the right.");
    static final Blank<String> JOINER = Blank.usually(
            "joiner", ValueKinds.TEXT, " ", "What stands between the parts of a name, where several rows make it.");

    HeadingRow() {
        super(
                "heading_row",
                "Take the names of columns from row {row}",
                new Meaning(
                        "Take the names from a row of the table: header, heading in row 2, promote a row, notes above the heading.",
                        "A column without a name in these rows is called column_ and its place.",
                        "An empty text is no name.",
                        "Rows stay as they stand; those up to the heading leave.",
                        "Of columns that would be called the same, later ones get _2, _3.",
                        "Names are read from texts; other values as they are written. Types stay.",
                        "Repeats get numbers.",
                        "above: the rows above the heading.",
                        "What was seen in the data is written out, as names."),
                List.of(ROW, COUNT, JOINER),
                List.of(
                        new TableExample(
                                "A note above",
                                Table.of("a | b", "'Visits' | NULL", "'no' | 'item'", "'1' | 'lamp'"),
                                "heading_row: 2",
                                Table.of("no | item", "'1' | 'lamp'")),
                        new TableExample(
                                "Two rows make the names",
                                Table.of("a | b | c", "'first' | NULL | 'last'", "'x' | 'y' | 'x'", "'1' | '2' | '3'"),
                                "heading_row: 1\ncount: 2",
                                Table.of("first x | first y | last x", "'1' | '2' | '3'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        long row = given.get(ROW);
        long last = row + given.get(COUNT) - 1;
        Field number = given.helper("row_number", Type.INTEGER);
        Relation numbered = new Relation.Window(
                given.before(), List.of(Windowed.number(number, Windowed.Kind.NUMBER)), List.of(), List.of(), false);
        Expr isHeading = Formula.all(List.of(
                Formula.call(">=", number.value(), Expr.Literal.integer(row)),
                Formula.call("<=", number.value(), Expr.Literal.integer(last))));
        Relation heading = Given.without(new Relation.Keep(numbered, isHeading), List.of(number));
        return new Resolution.Asks(heading, seen -> {
            if (seen.size() < given.get(COUNT)) {
                return Given.refused(
                        Code.BAD_FIELD, "There is no row " + last + " at this line.", "Name a row that is there.");
            }
            List<Field> named = Naming.fromRows(given.fields(), seen, given.get(JOINER));
            Relation below = new Relation.Keep(numbered, Formula.call(">", number.value(), Expr.Literal.integer(last)));
            Relation above = new Relation.Keep(numbered, Formula.call("<", number.value(), Expr.Literal.integer(row)));
            List<Report> reports = new ArrayList<>(
                    List.of(new Report("above", Given.without(above, List.of(number)), "rows above the heading")));
            reports.addAll(Naming.report(given, named));
            return new Resolution.Done(new Relation.Pick(below, new Shape(named)), reports);
        });
    }
}
