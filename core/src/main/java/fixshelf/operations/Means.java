package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Given;
import fixshelf.plan.Operation;
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

/// What filling values does to means.
final class Means {
    private static final int PLACES = 4;

    private Means() {}

    /// A row for each number column before and after: how many values there are, and their mean. None where there
    /// is no such column.
    static List<Operation.Report> report(Given given, List<Field> columns, Relation after) {
        List<Field> numbers = columns.stream()
                .filter(c -> c.type().isNumeric()
                        && after.shape().find(c.id()).orElseThrow().type().isNumeric())
                .toList();
        if (numbers.isEmpty()) {
            return List.of();
        }
        Relation both = new Relation.Union(
                List.of(means(given, given.before(), numbers, "before"), means(given, after, numbers, "after")));
        return List.of(new Operation.Report("means", both, "means, before and after"));
    }

    private static Relation means(Given given, Relation table, List<Field> columns, String when) {
        List<Grouped> made = new ArrayList<>();
        List<Computed> cells = new ArrayList<>();
        List<List<Field>> sets = new ArrayList<>();
        for (Field column : columns) {
            Field there = table.shape().find(column.id()).orElseThrow();
            int number = sets.size() + 1;
            Field sum = given.helper("sum_" + number, Aggregate.SUM.result(there.type()));
            Field count = given.helper("values_" + number, Type.INTEGER);
            made.add(new Grouped(sum, Aggregate.SUM, Optional.of(there)));
            made.add(new Grouped(count, Aggregate.COUNT, Optional.of(there)));
            Expr mean = mean(sum, count, PLACES);
            Field held = given.helper("mean_" + number, mean.type());
            Field said = given.helper("when_" + number, Type.TEXT);
            cells.add(new Computed(said, Expr.Literal.text(when)));
            cells.add(new Computed(held, mean));
            sets.add(List.of(said, count, held));
        }
        List<Field> shown = List.of(
                given.helper("column", Type.TEXT),
                given.helper("when", Type.TEXT),
                given.helper("values", Type.INTEGER),
                given.helper("mean", sets.getFirst().getLast().type()));
        Relation rows = new Relation.Unpivot(
                new Relation.Compute(new Relation.Group(table, List.of(), made), cells),
                sets,
                columns.stream().map(Field::name).toList(),
                shown.getFirst(),
                shown.subList(1, shown.size()),
                true);
        return new Relation.Pick(rows, new Shape(shown));
    }

    static Expr mean(Field sum, Field count, long places) {
        return Formula.call("divide", sum.value(), count.value(), Expr.Literal.integer(places));
    }
}
