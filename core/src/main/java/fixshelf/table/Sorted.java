package fixshelf.table;

/// A field that rows are put in order by. Texts go by their code points, false before true.
///
/// @param missingFirst whether missing comes before all values, in either direction; else it comes after them
public record Sorted(Field field, boolean descending, boolean missingFirst) {}
