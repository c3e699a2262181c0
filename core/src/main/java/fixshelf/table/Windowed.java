package fixshelf.table;

import java.util.Optional;

/// A cell that is worked out of its row and others of its part of the table.
///
/// @param kind how
/// @param aggregate what is made of the values, for [Kind#SO_FAR] and [Kind#OF_ALL]
/// @param of the field whose values are looked at, where any is
/// @param steps for [Kind#NEIGHBOUR]: how many rows further on the value stands; negative for rows before
public record Windowed(Field made, Kind kind, Aggregate aggregate, Optional<Field> of, int steps) {
    /// How a cell comes from its neighbours.
    public enum Kind {
        /// 1, 2, 3 in order; ties by place.
        NUMBER,
        /// Rows that are equal in the order share the number of the first, and the numbers after have gaps.
        SHARED_NUMBER,
        /// Rows that are equal in the order share a number, and there are no gaps.
        DENSE_NUMBER,
        /// The value some rows further on or before; missing where there is no such row.
        NEIGHBOUR,
        /// The value of this row, or else the last one before it that is not missing.
        LAST_FILLED,
        /// The aggregate of the rows up to this one.
        SO_FAR,
        /// The aggregate of all rows of the part.
        OF_ALL
    }

    public static Windowed number(Field made, Kind kind) {
        return new Windowed(made, kind, Aggregate.ROWS, Optional.empty(), 0);
    }

    public static Windowed lastFilled(Field made, Field of) {
        return new Windowed(made, Kind.LAST_FILLED, Aggregate.ROWS, Optional.of(of), 0);
    }
}
