package fixshelf.plan;

import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// An example of an operation: documentation, and a test in every language.
///
/// @param title what it shows
/// @param given the table that goes in
/// @param others other tables by their names
/// @param call the line as it stands on a page
/// @param gives the table that comes out
/// @param stops words of the problem that it ends in instead of giving a table; empty where it gives one
/// @param reads the file that a loader reads in it, beside its page, whose rows are the table that goes in; empty where
/// that table stands in the case
/// @param unread why that file cannot be read, where it cannot
public record TableExample(
        String title,
        Table given,
        Map<String, Table> others,
        String call,
        Table gives,
        String stops,
        String reads,
        Optional<Problem> unread) {
    /// The same, with the rows of its file, or why there are none.
    public TableExample with(Outcome<Table> rows) {
        return new TableExample(
                title,
                rows.value().orElse(given),
                others,
                call,
                gives,
                stops,
                reads,
                rows.problems().stream().filter(p -> !rows.isPresent()).findFirst());
    }

    public TableExample(String title, Table given, Map<String, Table> others, String call, Table gives) {
        this(title, given, others, call, gives, "", "", Optional.empty());
    }

    public TableExample(String title, Table given, String call, Table gives) {
        this(title, given, Map.of(), call, gives);
    }

    /// A small table: a heading of names with types where they are not text, and rows of constants, `NULL` for missing.
    public record Table(List<String> heading, List<List<String>> rows) {
        /// Reads `name | n integer` and rows such as `'a' | 1`.
        public static Table of(String heading, String... rows) {
            return new Table(
                    cells(heading),
                    java.util.Arrays.stream(rows).map(Table::cells).toList());
        }

        private static List<String> cells(String row) {
            return java.util.Arrays.stream(row.split(" \\| "))
                    .map(String::strip)
                    .toList();
        }
    }
}
