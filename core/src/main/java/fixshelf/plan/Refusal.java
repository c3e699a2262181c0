package fixshelf.plan;

import fixshelf.language.tree.Names;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.table.Field;
import java.util.List;
import java.util.Optional;

/// Problems of blanks; the planner gives them their places.
final class Refusal {
    /// What the text is called that a problem of a blank is about.
    static final String BLANK = "blank";

    /// How a problem ends that misses a column before the line, and not one of another table.
    static final String HERE = " at this line.";

    private Refusal() {}

    static <T> Outcome<T> of(Code code, String what, String todo) {
        return Outcome.failed(Problem.about(code, BLANK, what, todo));
    }

    /// One about some words of what is written.
    static <T> Outcome<T> of(Code code, String words, String what, String todo) {
        return Outcome.failed(about(words, code, what, todo));
    }

    private static Problem about(String words, Code code, String what, String todo) {
        return Problem.error(code, new Where(new SourceText(BLANK, words), new Span(0, words.length())), what, todo);
    }

    /// The same, of these words, unless it says already of which.
    static Problem about(String words, Problem problem) {
        return problem.where().source().text().isEmpty()
                ? problem.placed(about(words, problem.code(), problem.what(), problem.todo())
                        .where())
                : problem;
    }

    static <T> Outcome<T> field(String what, String todo) {
        return of(Code.BAD_FIELD, what, todo);
    }

    /// The column of that name; the nearest ones in a problem.
    static Outcome<Field> column(String name, Context context) {
        Optional<Field> field = context.before().shape().find(name);
        List<String> all = context.before().shape().names();
        return field.map(Outcome::of)
                .orElseGet(() -> of(
                        Code.NO_SUCH_COLUMN,
                        name,
                        "There is no column " + name + HERE,
                        Names.suggestColumn(name, all)));
    }

    /// All of them, or the problems of those that are none.
    static <T> Outcome<List<T>> together(List<Outcome<T>> outcomes) {
        List<Problem> problems =
                outcomes.stream().flatMap(o -> o.problems().stream()).toList();
        return outcomes.stream().allMatch(Outcome::isPresent)
                ? Outcome.of(outcomes.stream().map(Outcome::get).toList(), problems)
                : Outcome.failed(problems);
    }
}
