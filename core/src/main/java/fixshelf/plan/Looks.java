package fixshelf.plan;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.table.Relation;
import java.util.List;
import org.jspecify.annotations.Nullable;

/// Looks at data while a job is planned, for lines whose meaning depends on it.
public interface Looks {
    /// Where there is no data to look at.
    Looks NONE = (_, _) -> Outcome.failed(Problem.about(
            Code.NOT_LOOKED_AT,
            "line",
            "What this line means depends on the data, which cannot be looked at here.",
            "Preview or run the job."));

    /// The rows of a table that is worked out of the lines so far, in order.
    Outcome<List<List<@Nullable Object>>> rows(Plan soFar, Relation about);
}
