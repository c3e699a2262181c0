package fixshelf.table;

import java.util.Optional;

/// A cell that is worked out of all rows of a group.
///
/// @param of the field whose values are taken; none for [Aggregate#ROWS]
/// @param separator what stands between texts, for [Aggregate#LISTED]
public record Grouped(Field made, Aggregate aggregate, Optional<Field> of, String separator) {
    public Grouped(Field made, Aggregate aggregate, Optional<Field> of) {
        this(made, aggregate, of, "");
    }
}
