package fixshelf.operations;

import fixshelf.language.tree.Expr;
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
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// A row for each part of a text.
final class ListToRows extends BuiltIn {
    private static final long MOST = 200;

    static final Blank<Field> COLUMN = Blank.needed("column", ColumnKinds.COLUMN, "The column whose texts are lists.");
    static final Blank<String> SEPARATOR = Blank.needed("separator", ValueKinds.TEXT, "What stands between the parts.");
    static final Blank<String> NUMBER = Blank.optional(
            "number_in", ColumnKinds.NEW_NAME, "A new column that takes the place of each part in its list, from 1.");
    static final Blank<String> MISSING =
            Blank.usually("missing", ValueKinds.choice("drop", "keep"), "drop", "Whether a missing list gives a row.");

    ListToRows() {
        super(
                "list_to_rows",
                "Make a row for each part of {column}, which {separator} separates",
                new Meaning(
                        "Split lists in cells into rows: one row for each part, explode.",
                        "drop: a missing list gives no row, and is reported; keep: it gives one, with a missing part at place 1.",
                        "An empty text has one part, which is empty; a part between two separators is empty.",
                        "Row by row, and in each the parts as they stand.",
                        "",
                        "Texts. Blanks around a part stay; a fix takes them away.",
                        "",
                        "vanished: the rows that give none.",
                        "What was seen in the data is written out, as many parts as the longest list has."),
                List.of(COLUMN, SEPARATOR, NUMBER, MISSING),
                List.of(
                        new TableExample(
                                "Parts with their numbers",
                                Table.of("k | a", "'1' | 'x;y'", "'2' | NULL", "'3' | 'z'"),
                                "list_to_rows: a\nseparator: ';'\nnumber_in: nth",
                                Table.of("k | a | nth integer", "'1' | 'x' | 1", "'1' | 'y' | 2", "'3' | 'z' | 1")),
                        new TableExample(
                                "Missing kept",
                                Table.of("a | k", "NULL | '2'", "'x; ' | '3'"),
                                "list_to_rows: a\nseparator: ';'\nmissing: keep",
                                Table.of("a | k", "NULL | '2'", "'x' | '3'", "' ' | '3'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Field column = given.get(COLUMN);
        String separator = given.get(SEPARATOR);
        List<Problem> problems = new ArrayList<>();
        given.find(NUMBER).flatMap(given::meets).ifPresent(problems::add);
        if (!column.type().equals(Type.TEXT) || separator.isEmpty()) {
            problems.add(Given.problem(
                    Code.WRONG_TYPE,
                    separator.isEmpty()
                            ? "A separator is at least one character."
                            : column.name() + " is " + column.type().label() + ", and only texts are split.",
                    separator.isEmpty() ? "Write the sign between the parts." : "Read it as text before."));
        }
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        Expr sign = Expr.Literal.text(separator);
        Field count = given.helper("parts", Type.INTEGER);
        Field most = given.helper("most_parts", Type.INTEGER);
        Relation counted =
                given.computed(List.of(new Computed(count, Formula.call("part_count", column.value(), sign))));
        Relation asked = new Relation.Group(
                counted, List.of(), List.of(new Grouped(most, Aggregate.GREATEST, Optional.of(count))));
        return new Resolution.Asks(asked, seen -> {
            long parts = Math.max(1, count(seen, 0));
            return parts > MOST
                    ? Given.refused(
                            Code.BAD_FIELD,
                            "A list has " + parts + " parts, and at most " + MOST + " become rows.",
                            "Look at the separator, or leave out the longest lists before.")
                    : rows(given, counted, count, parts);
        });
    }

    private static Resolution rows(Given given, Relation counted, Field count, long parts) {
        Field column = given.get(COLUMN);
        Expr sign = Expr.Literal.text(given.get(SEPARATOR));
        List<Computed> cells = new ArrayList<>();
        List<List<Field>> sets = new ArrayList<>();
        List<String> numbers = new ArrayList<>();
        for (long n = 1; n <= parts; n++) {
            Field part = given.helper("part_" + n, Type.TEXT);
            Field number = given.helper("number_" + n, Type.INTEGER);
            Expr nth = Expr.Literal.integer(n);
            boolean kept = n == 1 && given.get(MISSING).equals("keep");
            Expr isHere = Formula.call(">=", count.value(), nth);
            cells.add(new Computed(part, Formula.call("split_part", column.value(), sign, nth)));
            cells.add(new Computed(number, kept ? nth : Formula.when(isHere, nth, Formula.missing(Type.INTEGER))));
            sets.add(List.of(part, number));
            numbers.add(String.valueOf(n));
        }
        Field made = given.helper(column.name() + "_part", Type.TEXT);
        Field nth = given.find(NUMBER)
                .map(n -> given.field(n, Type.INTEGER))
                .orElseGet(() -> given.helper("nth", Type.INTEGER));
        Relation rows = new Relation.Unpivot(
                new Relation.Compute(counted, cells),
                sets,
                numbers,
                given.helper("set", Type.TEXT),
                List.of(made, nth),
                false);
        List<Field> shown = new ArrayList<>();
        given.fields().forEach(f -> shown.add(f.id() == column.id() ? made.named(column.name()) : f));
        given.find(NUMBER).ifPresent(_ -> shown.add(nth));
        List<Report> reports = given.get(MISSING).equals("keep")
                ? List.of()
                : List.of(new Report(
                        "vanished",
                        new Relation.Keep(given.before(), Formula.isMissing(column.value())),
                        "rows that vanish"));
        return new Resolution.Done(new Relation.Pick(rows, new Shape(shown)), reports);
    }
}
