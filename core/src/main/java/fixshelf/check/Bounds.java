package fixshelf.check;

import fixshelf.engine.Answer;
import fixshelf.engine.FixEngine;
import fixshelf.language.emulation.Unfinished;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import java.util.List;
import java.util.Optional;

/// Why an answer is missing, where the cause is a bound of the fix and none of the data.
public final class Bounds {
    private Bounds() {}

    /// The problem that a missing answer stands for, if a replacement reached its bound. The engine that answered is
    /// asked again.
    public static Optional<Problem> reached(FixEngine engine, Definition fix, List<Expr.Literal> row, Answer answer) {
        boolean missing = answer instanceof Answer.Value(Object value) && value == null;
        Optional<Definition> asked = missing && !row.isEmpty() ? Unfinished.asked(fix, row) : Optional.empty();
        boolean reached = asked.isPresent()
                && engine.run(List.of(new Answer.Evaluation(asked.get(), List.of(row))))
                        .getFirst()
                        .getFirst()
                        .equals(new Answer.Value(true));
        return reached
                ? Unfinished.of(new Expr.FixCall(fix, List.copyOf(row)))
                        .map(u -> Problem.about(
                                Code.VALUES_LOST,
                                fix.name(),
                                "The text " + u.words() + ", so that there is no end to tell.",
                                "Raise the bound of replace_until_same, up to 12, or look whether what is put in"
                                        + " holds what is sought."))
                : Optional.empty();
    }
}
