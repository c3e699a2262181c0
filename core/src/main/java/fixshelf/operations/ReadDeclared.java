package fixshelf.operations;

import fixshelf.plan.Absent;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.problem.Code;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.type.Type;
import java.util.List;

/// Columns as values of the types that their source says of them.
final class ReadDeclared extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.usually(
            "columns", ColumnKinds.COLUMNS, "every text column", "The columns that get the types of their source.");

    ReadDeclared() {
        super(
                "read_declared",
                "Read {columns} as their source declares",
                new Meaning(
                        "Give columns the types that their source declares: of a table of a database, of a Parquet file, of a table that is typed in.",
                        "Stays missing. What is no value of the type becomes missing, and is counted as lost: SQLite keeps any value in any column.",
                        "An empty text stays one in a text column; in any other it is lost.",
                        "Rows stay as they stand.",
                        "",
                        "Whole numbers, decimals with their digits, floating-point numbers, days, times without a zone, true and false. What has no such type stays text: times with a zone, decimals without digits that are said, lists, bytes; of SQLite all but whole and floating-point numbers.",
                        "",
                        "",
                        "The same in all."),
                List.of(COLUMNS, Absent.BLANK),
                List.of(new TableExample(
                        "Numbers and days of a database",
                        Table.of(
                                "part | stock declared integer | hours declared number | day declared date",
                                "'AQ-104' | '12' | '1.5' | '2026-02-07'",
                                "'AQ-417' | NULL | '0.25' | NULL"),
                        "read_declared: every text column",
                        Table.of(
                                "part | stock integer | hours number | day date",
                                "'AQ-104' | 12 | 1.5e0 | DATE '2026-02-07'",
                                "'AQ-417' | NULL | 0.25e0 | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        if (given.get(COLUMNS).stream().allMatch(c -> c.declared().equals(Type.UNKNOWN))) {
            return new Resolution.Refused(List.of(Given.problem(
                    Code.WRONG_TYPE,
                    "The source declares no types: databases, Parquet files and tables that are typed in do.",
                    "Name types with read_as, or let read_detected find them.")));
        }
        List<Computed> cells = given.get(COLUMNS).stream()
                .filter(c -> c.type().equals(Type.TEXT)
                        && !c.declared().equals(Type.TEXT)
                        && !c.declared().equals(Type.UNKNOWN))
                .map(c -> new Computed(
                        c.typed(c.declared()),
                        Readings.as(c.value(), c.declared(), "").orElseThrow()))
                .toList();
        return new Resolution.Done(given.computed(cells));
    }

    @Override
    public boolean losesValues() {
        return true;
    }
}
