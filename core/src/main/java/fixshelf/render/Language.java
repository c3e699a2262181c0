package fixshelf.render;

import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Outcome;
import java.util.List;

/// A query language that fixes can be rendered into.
public interface Language {
    /// The word for `--in`, such as `postgresql`.
    String id();

    /// As it is called in the window.
    String title();

    /// The words that a reader sees highlighted, in lower case.
    java.util.Set<String> keywords();

    /// Whether an error says that a value is beyond what the language can hold: then it stopped instead of giving
    /// another value, as it should.
    default boolean isLimit(String error) {
        return false;
    }

    /// Whether the code of a job stops where a check is broken; otherwise there are queries for the rows that break it.
    default boolean stopsAtChecks() {
        return false;
    }

    /// Whether Fix Shelf runs it to check what it writes; otherwise it is written from its documentation.
    default boolean isRunHere() {
        return true;
    }

    /// The code of an expression over columns.
    Outcome<String> expression(Expr expr);

    /// The code that defines a fix as a function, with the fixes that it calls.
    Outcome<String> definition(Definition fix, String about);

    /// Whether a fix can be defined once and called by its name.
    default boolean definesFunctions() {
        return true;
    }

    /// A fix and what it is for, in a sentence.
    record Described(Definition fix, String about) {}

    /// The code that defines these fixes together, each once. All of them can be defined.
    String module(List<Described> fixes);

    /// The code of a whole job, over the rows of its source; a problem for each line that cannot be said.
    Outcome<String> job(JobCode job);

    /// The call of a defined fix by its name.
    Outcome<String> call(Definition fix, List<Expr> arguments);
}
