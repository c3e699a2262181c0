package fixshelf.plan;

import fixshelf.table.Relation;
import java.util.Optional;

/// An operation that tells figures of its own table and of every one after it.
public interface Watching extends Operation {
    /// The figures of a table; empty where it has not all that they are worked out of.
    Optional<Watched> figures(Given given, Relation table);

    /// A table of one row with figures, or of one for each group.
    ///
    /// @param keys how many of its first columns are those of the groups
    record Watched(Relation table, int keys) {}
}
