package fixshelf.engine;

import java.util.List;
import org.jspecify.annotations.Nullable;

/// Where rows go, one after another.
///
/// @param <C> what cells are; a missing one is null
public interface RowSink<C> extends AutoCloseable {
    /// Adds a row, which is not changed any more.
    void add(List<@Nullable C> row);

    /// Ends it; all rows are there then.
    @Override
    void close();
}
