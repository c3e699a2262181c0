package fixshelf.shelf;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.Written;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A name for a file and the way it is read, or for what a loader gives.
///
/// @param options what is read; nothing where a loader is called
/// @param call what is called instead
/// @param typed the types of its columns; nothing where all are texts
/// @param counts what it is held against whenever it is looked at
public record DatasetPage(
        Path file,
        SourceText source,
        String name,
        String about,
        ReadOptions options,
        Optional<Call> call,
        Optional<Typed> typed,
        List<KeptCounts> counts,
        List<Problem> problems) {

    /// Columns with types.
    ///
    /// @param types those of columns, by their names; empty for what the source declares
    /// @param strict whether a value that is none of its type stops whoever reads it; else it is missing
    public record Typed(Map<String, String> types, boolean strict, Span span) {}

    /// A call of a loader, or one for each row of a table.
    ///
    /// @param arguments those that are written, the same in all calls
    /// @param each what the rows of a table give
    /// @param strict whether a value that is lost on the way stops whoever reads it
    public record Call(
            String loader, Map<String, Written> arguments, Optional<ForEach> each, boolean strict, Span span) {}

    /// A table with a row for each call.
    ///
    /// @param table a dataset or a job
    /// @param from the column that each parameter takes
    /// @param leaveOut whether calls that fail are left out, and told, instead of being a problem
    /// @param keeps whether a call that gives no row has one with its arguments alone
    public record ForEach(String table, Map<String, String> from, boolean leaveOut, boolean keeps) {}
}
