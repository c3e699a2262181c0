package fixshelf.work;

import java.util.Optional;

/// What a line did.
///
/// @param line its number, from 1
/// @param cellsChanged cells whose value is another one than before
/// @param valuesLost cells that held a value and are missing now
public record LineEffect(
        int line,
        long rowsBefore,
        long rowsAfter,
        int columnsBefore,
        int columnsAfter,
        long cellsChanged,
        long valuesLost,
        Optional<Repeats> repeats) {

    /// How rows repeat: groups with more than one row, and the largest of them.
    public record Repeats(long groups, long largest) {}

    public long rowsGone() {
        return rowsBefore - rowsAfter;
    }
}
