package fixshelf.work;

import fixshelf.plan.Step;
import java.util.List;
import org.jspecify.annotations.Nullable;

/// What became of one row of the source, line by line.
///
/// @param row its place in the source, from 1
public record RowPath(long row, List<Stop> stops) {
    public RowPath {
        stops = List.copyOf(stops);
    }

    /// What a line made of it.
    ///
    /// @param step the line
    /// @param places where it stands afterwards, from 1; several where it became several, none where it left
    /// @param merged whether it is one of several rows that became one
    /// @param changes the cells that got other values
    public record Stop(Step step, List<Long> places, boolean merged, List<Change> changes) {
        public Stop {
            places = List.copyOf(places);
            changes = List.copyOf(changes);
        }

        public boolean isGone() {
            return places.isEmpty();
        }
    }

    /// A cell that got another value.
    public record Change(
            String column, @Nullable Object was, @Nullable Object now) {}
}
