package fixshelf.work;

import fixshelf.type.Amounts;

/// Which of the staged rows are looked at, where there are more than a look takes.
public enum Sample {
    /// The first ones.
    FIRST,
    /// As many, at equal distances from the first row on: where a file changes halfway, they show it.
    SPREAD;

    /// The rows of a table that are looked at, with their `rowid`.
    ///
    /// @param rows how many the table has
    /// @param most how many a look takes
    String of(String table, long rows, long most) {
        if (rows <= most) {
            return table;
        }
        String all = "(SELECT *, rowid FROM " + table;
        return switch (this) {
            case FIRST -> all + " LIMIT " + most + ")";
            case SPREAD -> all + " WHERE rowid * " + most + " % " + rows + " < " + most + ")";
        };
    }

    /// In words: `the first 50,000 rows`.
    ///
    /// @param whole whether these are all rows of the source
    String words(long rows, boolean whole, long most) {
        if (rows <= most) {
            return whole ? Amounts.all(rows, "row") : Amounts.first(rows, "row");
        }
        return switch (this) {
            case FIRST -> Amounts.first(most, "row");
            case SPREAD ->
                Amounts.of(most, "row") + String.format(" spread over %s%,d", whole ? "" : "the first ", rows);
        };
    }
}
