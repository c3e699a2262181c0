package fixshelf.plan;

import fixshelf.table.Relation;
import java.util.Optional;

/// An operation that tells figures of its own table and of every one after it.
public interface Watching extends Operation {
    /// A table of one row with the figures of a table; empty where it has not all that they are worked out of.
    Optional<Relation> figures(Given given, Relation table);
}
