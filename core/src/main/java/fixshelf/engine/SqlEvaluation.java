package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.language.Expr;
import fixshelf.language.Inliner;
import fixshelf.problem.Outcome;
import fixshelf.render.Language;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/// Evaluates fixes with one SQL query for each group of rows; where the query fails, row by row.
final class SqlEvaluation {
    /// Runs a query of one column and gives its values in order.
    interface Runner {
        List<@Nullable Object> column(String sql) throws java.sql.SQLException;
    }

    private final Language language;
    private final Runner runner;

    SqlEvaluation(Language language, Runner runner) {
        this.language = language;
        this.runner = runner;
    }

    List<Answer> run(Evaluation evaluation) {
        List<Answer> answers = new ArrayList<>();
        evaluation.rows().forEach(_ -> answers.add(new Answer.Failed("not run")));
        for (Groups group : Groups.of(evaluation)) {
            Outcome<String> code = language.expression(Inliner.call(group.fix(), group.arguments()));
            if (!code.isPresent()) {
                group.rows()
                        .forEach(i -> answers.set(
                                i, new Answer.NotSaid(code.problems().getFirst().what())));
                continue;
            }
            List<Answer> some = answers(code.get(), group, evaluation, group.rows());
            for (int i = 0; i < group.rows().size(); i++) {
                answers.set(group.rows().get(i), some.get(i));
            }
        }
        return answers;
    }

    private List<Answer> answers(String code, Groups group, Evaluation evaluation, List<Integer> rows) {
        List<Answer> answers = new ArrayList<>();
        try {
            String sql = query(code, group, evaluation, rows);
            runner.column(sql).forEach(v -> answers.add(new Answer.Value(v)));
            return answers;
        } catch (java.sql.SQLException | fixshelf.problem.ProblemException e) {
            if (rows.size() == 1) {
                String first =
                        String.valueOf(e.getMessage()).lines().findFirst().orElse("");
                boolean said = e instanceof java.sql.SQLException;
                return List.of(said ? new Answer.Failed(first) : new Answer.NotSaid(first));
            }
            int middle = rows.size() / 2;
            answers.addAll(answers(code, group, evaluation, rows.subList(0, middle)));
            answers.addAll(answers(code, group, evaluation, rows.subList(middle, rows.size())));
            return answers;
        }
    }

    private String query(String code, Groups group, Evaluation evaluation, List<Integer> rows) {
        StringBuilder values = new StringBuilder();
        int width = group.first().size();
        for (int i = 0; i < rows.size(); i++) {
            List<Expr.Literal> row = evaluation.rows().get(rows.get(i));
            values.append(i == 0 ? "(" : ", (").append(i);
            for (int p = 0; p < width; p++) {
                values.append(", ")
                        .append(literal(
                                row.get(p), group.fix().parameters().get(p).type()));
            }
            values.append(')');
        }
        StringBuilder names = new StringBuilder("row_no");
        for (int p = 0; p < width; p++) {
            names.append(", p").append(p);
        }
        return "SELECT " + code + " FROM (VALUES " + values + ") AS t(" + names + ") ORDER BY row_no";
    }

    private String literal(Expr.Literal literal, Type type) {
        Outcome<String> code =
                language.expression(new Expr.Literal(literal.value(), literal.value() == null ? type : literal.type()));
        if (!code.isPresent()) {
            throw new fixshelf.problem.ProblemException(code.problems().getFirst());
        }
        boolean typed = literal.value() == null;
        return typed ? code.get() : "CAST(" + code.get() + " AS " + sqlType(type) + ")";
    }

    private String sqlType(Type type) {
        boolean postgres = language.id().equals("postgresql");
        return switch (type) {
            case Type.Text _, Type.Unknown _ -> postgres ? "text" : "VARCHAR";
            case Type.Int _ -> "bigint";
            case Type.Bool _ -> "boolean";
            case Type.Decimal(int precision, int scale) -> "decimal(" + precision + ", " + scale + ")";
        };
    }
}
