package fixshelf.profile;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/// All columns of a table, and what is odd about its rows.
///
/// @param rows how many rows were looked at
/// @param whole whether these are all
/// @param findings what is said of rows
public record TableLook(long rows, boolean whole, List<ColumnLook> columns, List<Finding> findings) {
    public TableLook {
        columns = List.copyOf(columns);
        findings = List.copyOf(findings);
    }

    /// Everything that is worth looking at: of the rows, then of each column.
    public List<Finding> all() {
        List<Finding> all = new ArrayList<>(findings);
        columns.forEach(c -> c.findings().stream()
                .sorted(Comparator.comparing(Finding::oddity))
                .forEach(all::add));
        return all;
    }
}
