package fixshelf.operations;

import fixshelf.plan.Absent;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.table.Aggregate;
import fixshelf.table.Field;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/// Remove constant columns.
final class LeaveOutConstantColumns extends BuiltIn {
    static final Blank<List<Field>> COLUMNS =
            Blank.usually("columns", ColumnKinds.COLUMNS, "every column", "The columns that are looked at.");

    static final Blank<String> MISSING = Blank.usually(
            "missing",
            ValueKinds.choice("counts", "is_passed_over"),
            "counts",
            "Whether missing beside a value counts as another value, or is passed over.");

    LeaveOutConstantColumns() {
        super(
                "leave_out_constant_columns",
                "Leave out columns that hold one value only among {columns}",
                new Meaning(
                        "Remove constant columns: columns that hold the same value in every row.",
                        "Missing beside a value makes a column not constant, unless missing is passed over. A column without any value is constant.",
                        "An empty text is a value.",
                        "Rows stay as they stand.",
                        "",
                        "Types stay.",
                        "",
                        "too_few: the only row there is. In a table of one row, or of none, every column is constant, and all of them stay.",
                        "What was seen in the data is written out, as the columns that stay."),
                List.of(COLUMNS, MISSING, Absent.BLANK),
                List.of(
                        new TableExample(
                                "Missing is passed over",
                                Table.of("a | b | c", "'x' | 'k' | 'k'", "'y' | 'k' | NULL"),
                                "leave_out_constant_columns: every column\nmissing: is_passed_over",
                                Table.of("a", "'x'", "'y'")),
                        new TableExample(
                                "One row tells nothing",
                                Table.of("a | b", "'x' | 'k'"),
                                "leave_out_constant_columns: every column",
                                Table.of("a | b", "'x' | 'k'")),
                        new TableExample(
                                "The same everywhere",
                                Table.of("a | b | c", "'x' | 'k' | 'k'", "'y' | 'k' | NULL"),
                                "leave_out_constant_columns: every column",
                                Table.of("a | c", "'x' | 'k'", "'y' | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = given.get(COLUMNS);
        List<Grouped> counts = new ArrayList<>();
        for (Field column : columns) {
            int n = counts.size() / 2 + 1;
            counts.add(new Grouped(given.helper("values_" + n, Type.INTEGER), Aggregate.DISTINCT, Optional.of(column)));
            counts.add(new Grouped(given.helper("count_" + n, Type.INTEGER), Aggregate.COUNT, Optional.of(column)));
        }
        Field rows = given.helper("rows_in_all", Type.INTEGER);
        counts.add(new Grouped(rows, Aggregate.ROWS, Optional.empty()));
        return new Resolution.Asks(new Relation.Group(given.before(), List.of(), counts), seen -> {
            long all = count(seen, 2 * columns.size());
            if (all < 2) {
                return new Resolution.Done(
                        given.before(),
                        List.of(new Report(
                                "too_few", given.before(), "row only, in which every column is constant: all stay")));
            }
            boolean passedOver = given.get(MISSING).equals("is_passed_over");
            List<Field> gone = IntStream.range(0, columns.size())
                    .filter(i -> count(seen, 2 * i) < 2
                            && (passedOver || count(seen, 2 * i) == 0 || count(seen, 2 * i + 1) == all))
                    .mapToObj(columns::get)
                    .toList();
            return new Resolution.Done(Given.without(given.before(), gone));
        });
    }
}
