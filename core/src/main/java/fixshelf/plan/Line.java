package fixshelf.plan;

import java.util.List;
import java.util.Map;

/// One line of a job, as its author says it.
public sealed interface Line {
    /// Read a file of delimited text.
    record ReadFile(ReadOptions options) implements Line {}

    /// Read a dataset of the shelf.
    record ReadDataset(String dataset) implements Line {}

    /// Put a value fix in place of the values of some columns.
    ///
    /// @param arguments the other parameters of the fix, as SQL expressions over the columns, in the author's order
    /// @param lost what happens where a value becomes missing
    record Apply(String fix, Columns columns, Map<String, String> arguments, Lost lost) implements Line {
        public Apply(String fix, Columns columns, Map<String, String> arguments) {
            this(fix, columns, arguments, Lost.COUNTED);
        }

        public Apply withColumns(Columns others) {
            return new Apply(fix, others, arguments, lost);
        }

        public Apply withArguments(Map<String, String> others) {
            return new Apply(fix, columns, others, lost);
        }

        public Apply withLost(Lost other) {
            return new Apply(fix, columns, arguments, other);
        }
    }

    /// Of the rows with the same key keep one; nulls count as equal.
    ///
    /// @param keys the columns of the key; empty for all columns
    /// @param order the columns that say which is first and last, nulls before all others; rows that are equal in
    ///     all of them, or all rows when it is empty, go by their place in the source
    record DropRepeats(List<String> keys, Keep keep, List<String> order) implements Line {
        public DropRepeats {
            keys = List.copyOf(keys);
            order = List.copyOf(order);
        }
    }

    /// Keep only these columns, in this order.
    record Choose(List<String> columns) implements Line {
        public Choose {
            columns = List.copyOf(columns);
        }
    }

    /// Leave these columns out.
    record Drop(List<String> columns) implements Line {
        public Drop {
            columns = List.copyOf(columns);
        }
    }

    /// Give columns other names; the order of the pairs does not matter, so that two can be exchanged.
    record Rename(Map<String, String> names) implements Line {}

    /// What happens where a line would make a value missing.
    enum Lost {
        /// It is missing from then on, counted and listed.
        COUNTED,
        /// The run stops, and nothing is written.
        STOPS
    }

    /// Which row of a group stays.
    enum Keep {
        FIRST,
        LAST
    }

    default boolean isRead() {
        return this instanceof ReadFile || this instanceof ReadDataset;
    }
}
