package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Aggregate;
import fixshelf.table.Field;
import fixshelf.table.Grouped;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Remove constant columns.
final class LeaveOutConstantColumns extends BuiltIn {
    static final Blank<List<Field>> COLUMNS =
            Blank.usually("columns", ColumnKinds.COLUMNS, "every column", "The columns that are looked at.");

    LeaveOutConstantColumns() {
        super(
                "leave_out_constant_columns",
                "Leave out columns that hold one value only among {columns}",
                new Meaning(
                        "Remove constant columns: columns that hold the same value in every row.",
                        "Missing beside a value makes a column not constant.",
                        "An empty text is a value.",
                        "Rows stay as they stand.",
                        "",
                        "Types stay.",
                        "",
                        "",
                        "What was seen in the data is written out, as the columns that stay."),
                List.of(COLUMNS),
                List.of(new TableExample(
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
        return withoutSome(given, given.before(), columns, counts, (seen, i) -> {
            long values = count(seen, 2 * i);
            boolean some = count(seen, 2 * i + 1) < count(seen, 2 * columns.size());
            return values == 0 || values == 1 && !some;
        });
    }
}
