package fixshelf.work;

import java.util.List;
import org.jspecify.annotations.Nullable;

/// The life of one cell: its value in the file and after every line, up to a line, and what becomes of its row after
/// it.
///
/// @param column its name at the line from which it was asked
/// @param file where its value stands in the file: `menders.csv, row 3, field 2`; empty where it was made by a line
/// @param stages in the order of the lines
public record CellLife(String column, String file, List<Stage> stages) {
    public CellLife {
        stages = List.copyOf(stages);
    }

    /// What a line did with the cell, or with its row.
    ///
    /// @param job the other job that the line is of, which this one reads; empty for this one
    /// @param line its number
    /// @param hasValue whether the cell is there after the line
    /// @param changed whether its value is another one than before
    /// @param words what happened, where it is more than that
    public record Stage(
            String job,
            int line,
            boolean hasValue,
            @Nullable Object value,
            @Nullable Object was,
            boolean changed,
            String words) {
        Stage(int line, boolean hasValue, @Nullable Object value, @Nullable Object was, boolean changed, String words) {
            this("", line, hasValue, value, was, changed, words);
        }

        /// As a line of another job.
        Stage of(String other) {
            return job.isEmpty() ? new Stage(other, line, hasValue, value, was, changed, words) : this;
        }

        /// `line 3`, or `line 3 of visits_clean`.
        public String place() {
            return "line " + line + (job.isEmpty() ? "" : " of " + job);
        }
    }
}
