package fixshelf.operations;

import fixshelf.plan.Absent;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Grouped;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Remove empty columns.
final class LeaveOutBlankColumns extends BuiltIn {
    static final Blank<List<Field>> COLUMNS =
            Blank.usually("columns", ColumnKinds.COLUMNS, "every column", "The columns that are looked at.");

    LeaveOutBlankColumns() {
        super(
                "leave_out_blank_columns",
                "Leave out columns that are blank among {columns}",
                new Meaning(
                        "Remove empty columns: columns in which nothing stands in any row.",
                        "A missing value is blank.",
                        "An empty text, and one of white space only, is blank, unless `blank` says less.",
                        "Rows stay as they stand. Where every column is blank, no column is left, and no row.",
                        "",
                        "Types stay.",
                        "",
                        "",
                        "What was seen in the data is written out, as the columns that stay. SQL has no tables without columns, and none is an output."),
                List.of(COLUMNS, LeaveOutBlankRows.BLANK, Absent.BLANK),
                List.of(
                        new TableExample(
                                "Only what is missing",
                                Table.of("a | b | c", "'x' | NULL | ' '", "NULL | NULL | ''"),
                                "leave_out_blank_columns: every column\nblank: missing",
                                Table.of("a | c", "'x' | ' '", "NULL | ''")),
                        new TableExample(
                                "Never filled",
                                Table.of("a | b | c", "'x' | NULL | ' '", "NULL | NULL | ''"),
                                "leave_out_blank_columns: every column",
                                Table.of("a", "'x'", "NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = given.get(COLUMNS);
        List<Computed> cells = new ArrayList<>();
        List<Grouped> counts = new ArrayList<>();
        for (Field column : columns) {
            Field filled = given.helper("filled_" + (counts.size() + 1), Type.INTEGER);
            Expr isFilled = LeaveOutBlankRows.isFilled(column, given.get(LeaveOutBlankRows.BLANK));
            cells.add(new Computed(
                    filled, Formula.when(isFilled, Expr.Literal.integer(1), Formula.missing(Type.INTEGER))));
            counts.add(new Grouped(
                    given.helper("count_" + (counts.size() + 1), Type.INTEGER), Aggregate.COUNT, Optional.of(filled)));
        }
        return withoutSome(given, given.computed(cells), columns, counts, (seen, i) -> count(seen, i) == 0);
    }
}
