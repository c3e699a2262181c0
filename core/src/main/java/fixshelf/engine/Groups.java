package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// Rows of arguments that share the values of the fixed parameters, so that one query answers them all.
///
/// @param rows the places of the rows in the evaluation, from 0
record Groups(Definition fix, List<Expr.Literal> first, List<Integer> rows) {

    static List<Groups> of(Evaluation evaluation) {
        Map<List<Object>, Groups> groups = new LinkedHashMap<>();
        for (int i = 0; i < evaluation.rows().size(); i++) {
            List<Expr.Literal> row = evaluation.rows().get(i);
            List<Object> key = new ArrayList<>();
            for (int p = 0; p < row.size(); p++) {
                if (evaluation.fix().parameters().get(p).fixed()) {
                    key.add(row.get(p));
                }
            }
            groups.computeIfAbsent(key, _ -> new Groups(evaluation.fix(), row, new ArrayList<>()))
                    .rows
                    .add(i);
        }
        return List.copyOf(groups.values());
    }

    /// The arguments of the call: constants for fixed parameters, names for the others.
    List<Expr> arguments() {
        List<Expr> arguments = new ArrayList<>();
        for (int p = 0; p < first.size(); p++) {
            Parameter parameter = fix.parameters().get(p);
            arguments.add(parameter.fixed() ? first.get(p) : new Expr.Name("p" + p, parameter.type()));
        }
        return arguments;
    }
}
