package fixshelf.operations;

import fixshelf.plan.Absent;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// The mean where no value is.
final class FillWithMean extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns of numbers.");
    static final Blank<List<Field>> WITHIN =
            Blank.optional("within", ColumnKinds.COLUMNS, "Columns within whose equal values means are taken.");
    static final Blank<Long> PLACES =
            Blank.usually("places", ValueKinds.whole(0, 12), "2", "How many digits after the point the numbers have.");

    FillWithMean() {
        super(
                "fill_with_mean",
                "Fill missing {columns} with their mean",
                new Meaning(
                        "Put the mean of the values that are there where one is missing: impute, average for nothing.",
                        "Is what gets the mean. Where no value is known it stays missing. Missing equals missing in within.",
                        "",
                        "Rows stay as they stand.",
                        "The mean is rounded half away from zero.",
                        "The columns become decimals with these places; a value with more digits is lost.",
                        "",
                        "means: the number of values and their mean, before and after.",
                        "SQLite has no exact decimals: it cannot say means."),
                List.of(COLUMNS, WITHIN, PLACES, Absent.BLANK),
                List.of(new TableExample(
                        "Within groups",
                        Table.of("g | n integer", "'p' | 1", "'p' | NULL", "'q' | NULL", "'p' | 2"),
                        "fill_with_mean: [n]\nwithin: [g]\nplaces: 1",
                        Table.of("g | n decimal(18,1)", "'p' | 1.0", "'p' | 1.5", "'q' | NULL", "'p' | 2.0"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Windowed> made = new ArrayList<>();
        List<Computed> cells = new ArrayList<>();
        List<Field> helpers = new ArrayList<>();
        for (Field column : given.get(COLUMNS)) {
            if (!column.type().isNumeric()) {
                return Given.refused(
                        Code.WRONG_TYPE,
                        column.name() + " is " + column.type().label() + ", and a mean is of whole or exact numbers.",
                        "Read it as a number before.");
            }
            Field sum = given.helper("sum_" + (cells.size() + 1), Aggregate.SUM.result(column.type()));
            Field count = given.helper("values_" + (cells.size() + 1), Type.INTEGER);
            made.add(new Windowed(sum, Windowed.Kind.OF_ALL, Aggregate.SUM, Optional.of(column), 0));
            made.add(new Windowed(count, Windowed.Kind.OF_ALL, Aggregate.COUNT, Optional.of(column), 0));
            helpers.addAll(List.of(sum, count));
            Expr mean = Means.mean(sum, count, given.get(PLACES));
            Type.Decimal type = new Type.Decimal(18, given.get(PLACES).intValue());
            Expr was = Readings.as(column.value(), type, "").orElseThrow();
            Expr filled =
                    Formula.call("coalesce", was, Readings.as(mean, type, "").orElseThrow());
            cells.add(new Computed(column.typed(type), filled));
        }
        Relation summed =
                new Relation.Window(given.before(), made, given.find(WITHIN).orElse(List.of()), List.of(), false);
        Relation after = Given.without(new Relation.Compute(summed, cells), helpers);
        return new Resolution.Done(after, Means.report(given, given.get(COLUMNS), after));
    }

    @Override
    public boolean losesValues() {
        return true;
    }
}
