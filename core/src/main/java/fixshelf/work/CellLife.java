package fixshelf.work;

import fixshelf.plan.Line;
import fixshelf.shelf.JobPage;
import java.util.List;
import java.util.Optional;
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
    /// @param of what that line says, as its author wrote it; nothing for a line of this job
    /// @param line its number
    /// @param hasValue whether the cell is there after the line
    /// @param changed whether its value is another one than before
    /// @param words what happened, where it is more than that
    public record Stage(
            String job,
            Optional<Line> of,
            int line,
            boolean hasValue,
            @Nullable Object value,
            @Nullable Object was,
            boolean changed,
            String words) {
        Stage(int line, boolean hasValue, @Nullable Object value, @Nullable Object was, boolean changed, String words) {
            this("", Optional.empty(), line, hasValue, value, was, changed, words);
        }

        /// As a line of another job, or of one of several calls of a loader.
        Stage in(JobPage other) {
            Line said = other.lines().get(line - 1).line();
            return job.isEmpty()
                    ? new Stage(other.name(), Optional.of(said), line, hasValue, value, was, changed, words)
                    : this;
        }

        /// `line 3`, or `line 3 of visits_clean`.
        public String place() {
            return "line " + line + (job.isEmpty() ? "" : " of " + job);
        }
    }
}
