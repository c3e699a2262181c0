package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
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
import fixshelf.type.Amounts;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

/// A small table that is typed in.
final class TypedRows extends BuiltIn {
    private static final int MOST_CELLS = 1000;

    static final Blank<Map<String, Type>> COLUMNS =
            Blank.needed("columns", ValueKinds.TYPES, "The columns with their types.");
    static final Blank<List<List<String>>> VALUES =
            Blank.needed("values", ValueKinds.ROWS, "The rows, each a list of plain values.");
    static final Blank<String> MISSING =
            Blank.usually("missing", ValueKinds.TEXT, "∅", "The word that stands for a missing value.");

    TypedRows() {
        super(
                "rows",
                "Begin with rows of {columns}: {values}",
                new Meaning(
                        "A small table that is typed in, in place of the one before: constants, a list of codes, expected values. Give it a name, and go on from another line.",
                        "The word for missing gives a missing value, in every type.",
                        "An empty text is a text; in other types it is a problem.",
                        "As they are typed.",
                        "",
                        "Those that are stated; values are written as in the blanks of fixes: 12.5, 2026-03-01, true.",
                        "",
                        "",
                        "The same in all."),
                List.of(COLUMNS, VALUES, MISSING),
                List.of(new TableExample(
                        "Two rows",
                        Table.of("a", "'x'"),
                        "rows: {code: text, hours: integer, day: date}\nvalues: [[a, 1, 2026-03-01], ['', ∅, 2026-04-01]]",
                        Table.of(
                                "code | hours integer | day date",
                                "'a' | 1 | DATE '2026-03-01'",
                                "'' | NULL | DATE '2026-04-01'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Map.Entry<String, Type>> columns = List.copyOf(given.get(COLUMNS).entrySet());
        List<List<String>> rows = given.get(VALUES);
        List<Problem> problems = new ArrayList<>();
        if ((long) rows.size() * columns.size() > MOST_CELLS) {
            return Given.refused(
                    Code.BAD_FIELD,
                    "At most " + MOST_CELLS + " values are typed in.",
                    "Put them into a file, and make it a dataset.");
        }
        List<List<Expr>> cells = new ArrayList<>();
        for (List<String> row : rows) {
            cells.add(read(given, columns, row, cells.size() + 1, problems));
        }
        return problems.isEmpty()
                ? new Resolution.Done(table(given, columns, cells))
                : new Resolution.Refused(problems.stream().limit(5).toList());
    }

    private static List<Expr> read(
            Given given, List<Map.Entry<String, Type>> columns, List<String> row, int number, List<Problem> problems) {
        List<Expr> cells = new ArrayList<>();
        if (row.size() != columns.size()) {
            problems.add(Given.problem(
                    Code.BAD_FIELD,
                    "Row " + number + " has " + Amounts.of(row.size(), "value") + ", and there "
                            + (columns.size() == 1 ? "is 1 column." : "are " + columns.size() + " columns."),
                    "Write one value for each column."));
            return cells;
        }
        for (int i = 0; i < row.size(); i++) {
            Type type = columns.get(i).getValue();
            Optional<Expr> value = row.get(i).equals(given.get(MISSING))
                    ? Optional.of(Formula.missing(type))
                    : given.constant(row.get(i), type);
            if (value.isEmpty()) {
                problems.add(Given.problem(
                        Code.WRONG_TYPE,
                        "Row " + number + ", " + columns.get(i).getKey() + ": " + row.get(i) + " is no " + type.label()
                                + ".",
                        "Write a value of that type, or " + given.get(MISSING) + " for missing."));
            }
            value.ifPresent(cells::add);
        }
        return cells;
    }

    private static Relation table(Given given, List<Map.Entry<String, Type>> columns, List<List<Expr>> rows) {
        Relation numbers = numbers(given, 1, rows.size());
        Field number = numbers.shape().fields().getFirst();
        List<Computed> cells = new ArrayList<>();
        for (int c = 0; c < columns.size(); c++) {
            Type type = columns.get(c).getValue();
            List<Expr.Branch> branches = new ArrayList<>();
            for (int r = 0; r < rows.size(); r++) {
                Expr isIt = Formula.call("=", number.value(), Expr.Literal.integer(r + 1));
                branches.add(new Expr.Branch(isIt, rows.get(r).get(c)));
            }
            cells.add(new Computed(
                    given.field(columns.get(c).getKey(), type), new Expr.Case(branches, Formula.missing(type), type)));
        }
        return Given.without(new Relation.Compute(numbers, cells), List.of(number));
    }

    /// A table of one column that counts up from `first`, whatever rows there were before.
    static Relation numbers(Given given, long first, int count) {
        Field name = given.helper("number_name", Type.TEXT);
        Field number = given.helper("number", Type.INTEGER);
        return Given.without(
                rows(
                        given,
                        first,
                        IntStream.range(0, count).mapToObj(String::valueOf).toList(),
                        name,
                        number),
                List.of(name));
    }

    /// A table with a row for each of these names, in their order.
    static Relation named(Given given, List<String> names, Field name) {
        Field number = given.helper("number", Type.INTEGER);
        return Given.without(rows(given, 0, names, name, number), List.of(number));
    }

    /// Out of the one row that a group without keys has of no rows.
    private static Relation rows(Given given, long first, List<String> names, Field name, Field number) {
        Field all = given.helper("rows_before", Type.INTEGER);
        // Of no row of the table before, so that no engine has to work that one out.
        Relation none = new Relation.Keep(given.before(), Expr.Literal.truth(false));
        Relation one = new Relation.Group(none, List.of(), List.of(new Grouped(all, Aggregate.ROWS, Optional.empty())));
        List<Computed> places = IntStream.range(0, names.size())
                .mapToObj(i ->
                        new Computed(given.helper("number_" + (i + 1), Type.INTEGER), Expr.Literal.integer(first + i)))
                .toList();
        return Given.without(
                new Relation.Unpivot(
                        new Relation.Compute(one, places),
                        places.stream().map(p -> List.of(p.made())).toList(),
                        names,
                        name,
                        List.of(number),
                        true),
                List.of(all));
    }
}
