package fixshelf.language.checking;

import fixshelf.language.tree.Expr;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import java.util.ArrayList;
import java.util.List;
import org.apache.calcite.sql.SqlNode;

/// The problems that one checking finds, in the order in which it finds them.
final class Findings {
    /// Stands where something is wrong: null, which fits everywhere, so that one fault is said once.
    static final Expr BROKEN = Expr.Literal.NULL;

    private final ExpressionParser parser;
    private final List<Problem> problems = new ArrayList<>();

    Findings(ExpressionParser parser) {
        this.parser = parser;
    }

    List<Problem> all() {
        return problems;
    }

    void add(Problem problem) {
        problems.add(problem);
    }

    Expr report(Code code, SqlNode node, String what, String todo) {
        problems.add(parser.problem(code, parser.spanOf(node.getParserPosition()), what, todo));
        return BROKEN;
    }
}
