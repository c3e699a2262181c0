package fixshelf.engine;

import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import java.util.List;
import org.jspecify.annotations.Nullable;

/// What an engine gave for one row of arguments.
public sealed interface Answer {
    /// A value; null for missing.
    record Value(@Nullable Object value) implements Answer {}

    /// The engine gave an error.
    record Failed(String message) implements Answer {}

    /// The language cannot say this call, and why.
    record NotSaid(String why) implements Answer {}

    /// What an engine gave for a whole job.
    sealed interface OfJob {
        /// The rows that came out, in the order of the source, as values of the columns' types.
        record Rows(List<List<@Nullable Object>> rows) implements OfJob {}

        /// The engine gave an error.
        record Stopped(String message) implements OfJob {}

        /// The language cannot say some lines, and why, line by line.
        record Unsaid(List<String> why) implements OfJob {}
    }

    /// A fix, and the arguments that it is to be called with, one row a call.
    record Evaluation(Definition fix, List<List<Expr.Literal>> rows) {}
}
