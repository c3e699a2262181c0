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

    private static String counted(long number, String one) {
        return String.format("%,d ", number) + one + (number == 1 ? "" : "s");
    }

    /// The effect in a few words, as it stands in the margin of a job card.
    public String margin() {
        if (line == 1) {
            return counted(rowsAfter, "row") + (rowsGone() > 0 ? String.format(", %,d left out", rowsGone()) : "");
        }
        if (repeats.isPresent() || rowsGone() > 0) {
            return rowsGone() == 0 ? "no row" : "−" + counted(rowsGone(), "row");
        }
        if (columnsAfter != columnsBefore) {
            return counted(columnsAfter, "column");
        }
        String changed = cellsChanged == 0 ? "no cell" : counted(cellsChanged, "cell");
        return changed + (valuesLost > 0 ? String.format(", %,d lost", valuesLost) : "");
    }
}
