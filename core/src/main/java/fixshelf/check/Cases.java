package fixshelf.check;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.FixEngine;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Outcome;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/// Runs cases in one language, all of them together.
public final class Cases {
    private Cases() {}

    /// The results for the cases of these fixes. A fix that does not compile has no results; its problems say why.
    public static List<CaseResult> run(Shelf shelf, List<FixPage> pages, FixEngine engine) {
        List<FixPage> ready = new ArrayList<>();
        List<Evaluation> evaluations = new ArrayList<>();
        for (FixPage page : pages) {
            Outcome<Definition> definition = shelf.definition(page);
            if (definition.isPresent() && !page.cases().isEmpty()) {
                ready.add(page);
                evaluations.add(evaluation(definition.get(), page));
            }
        }
        List<List<Answer>> answers = engine.run(evaluations);
        List<CaseResult> results = new ArrayList<>();
        for (int i = 0; i < ready.size(); i++) {
            List<FixPage.Case> cases = ready.get(i).cases();
            for (int c = 0; c < cases.size(); c++) {
                results.add(new CaseResult(
                        ready.get(i), c, cases.get(c), answers.get(i).get(c)));
            }
        }
        return results;
    }

    private static Evaluation evaluation(Definition fix, FixPage page) {
        return new Evaluation(fix, page.cases().stream().map(c -> row(fix, c)).toList());
    }

    /// The arguments of a case, with the defaults of those that it leaves out.
    static List<Expr.Literal> row(Definition fix, FixPage.Case example) {
        List<Expr.Literal> row = new ArrayList<>();
        for (Parameter parameter : fix.parameters()) {
            Expr.Literal given = example.arguments().get(parameter.name().toLowerCase(Locale.ROOT));
            row.add(given == null ? parameter.fallback().orElse(new Expr.Literal(null, parameter.type())) : given);
        }
        return row;
    }
}
