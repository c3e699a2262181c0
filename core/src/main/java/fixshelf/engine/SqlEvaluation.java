package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.language.Expr;
import fixshelf.language.Inliner;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.render.SqlLanguage;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/// Evaluates fixes with one SQL query for each group of rows; where the query fails, in halves, down to the row.
final class SqlEvaluation {
    private static final int ROWS_A_QUERY = 2_000;

    /// Runs a query of one column and gives its values in order.
    interface Runner {
        List<@Nullable Object> column(String sql) throws SQLException;

        /// Queries over a connection.
        static Runner of(Connection connection, int seconds) {
            return sql -> {
                List<@Nullable Object> values = new ArrayList<>();
                try (Statement statement = connection.createStatement()) {
                    statement.setQueryTimeout(seconds);
                    try (ResultSet rows = statement.executeQuery(sql)) {
                        // A day as Java's old type would be moved where the calendar changed in 1582.
                        int kind = rows.getMetaData().getColumnType(1);
                        while (rows.next()) {
                            values.add(
                                    switch (kind) {
                                        case Types.DATE -> rows.getObject(1, LocalDate.class);
                                        case Types.TIMESTAMP -> rows.getObject(1, LocalDateTime.class);
                                        default -> rows.getObject(1);
                                    });
                        }
                    }
                }
                return values;
            };
        }
    }

    private final SqlLanguage language;
    private final Runner runner;

    SqlEvaluation(SqlLanguage language, Runner runner) {
        this.language = language;
        this.runner = runner;
    }

    List<Answer> run(Evaluation evaluation) {
        List<Answer> answers = new ArrayList<>();
        evaluation.rows().forEach(_ -> answers.add(new Answer.Failed("not run")));
        for (Groups group : Groups.of(evaluation)) {
            Outcome<String> code = language.expression(Inliner.call(group.fix(), group.arguments()));
            if (!code.isPresent()) {
                Answer said = new Answer.NotSaid(code.problems().getFirst().what());
                group.rows().forEach(i -> answers.set(i, said));
                continue;
            }
            for (int from = 0; from < group.rows().size(); from += ROWS_A_QUERY) {
                List<Integer> rows =
                        group.rows().subList(from, Math.min(group.rows().size(), from + ROWS_A_QUERY));
                List<Answer> some = answers(code.get(), group, evaluation, rows);
                for (int i = 0; i < rows.size(); i++) {
                    answers.set(rows.get(i), some.get(i));
                }
            }
        }
        return answers;
    }

    private List<Answer> answers(String code, Groups group, Evaluation evaluation, List<Integer> rows) {
        List<Answer> answers = new ArrayList<>();
        try {
            Stop.check();
            Type returns = group.fix().returns();
            runner.column(query(code, group, evaluation, rows))
                    .forEach(v -> answers.add(new Answer.Value(plain(v, returns))));
            return answers;
        } catch (SQLException | ProblemException e) {
            if (rows.size() == 1) {
                String first =
                        String.valueOf(e.getMessage()).lines().findFirst().orElse("");
                boolean said = e instanceof SQLException;
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
        StringBuilder names = new StringBuilder("row_no");
        StringBuilder typed = new StringBuilder("row_no");
        int width = group.first().size();
        for (int p = 0; p < width; p++) {
            Type type = group.fix().parameters().get(p).type();
            if (type.isFixed()) {
                continue;
            }
            names.append(", p").append(p);
            typed.append(", ")
                    .append(language.cast("p" + p, type))
                    .append(" AS p")
                    .append(p);
        }
        for (int i = 0; i < rows.size(); i++) {
            List<Expr.Literal> row = evaluation.rows().get(rows.get(i));
            values.append(i == 0 ? "(" : ",\n(").append(i);
            for (int p = 0; p < width; p++) {
                if (!group.fix().parameters().get(p).type().isFixed()) {
                    Expr.Literal value = row.get(p);
                    values.append(", ").append(value.value() == null ? "NULL" : literal(value));
                }
            }
            values.append(')');
        }
        return "WITH v(" + names + ") AS (VALUES " + values + "), t AS (SELECT " + typed + " FROM v)\nSELECT " + code
                + "\nFROM t ORDER BY row_no";
    }

    private String literal(Expr.Literal literal) {
        Outcome<String> code = language.expression(literal);
        if (!code.isPresent()) {
            throw new ProblemException(code.problems().getFirst());
        }
        return code.get();
    }

    /// The value as one of ours; some engines have no type for truth, or give whole numbers in one of several types.
    private static @Nullable Object plain(@Nullable Object value, Type type) {
        return switch (type) {
            case Type.Bool _ when value instanceof Number number -> number.longValue() != 0;
            case Type.Int _ when value instanceof Number number -> new BigDecimal(number.toString()).longValue();
            case Type.Decimal _ when value instanceof Number number -> new BigDecimal(number.toString());
            case Type.Text _ when value != null -> value.toString();
            case Type.Date _ when value != null -> LocalDate.parse(value.toString());
            case Type.Timestamp _
            when value != null -> LocalDateTime.parse(value.toString().replace(' ', 'T'));
            case Type.Bool _, Type.Int _, Type.Decimal _, Type.Text _, Type.Date _, Type.Timestamp _ -> value;
            case Type.ListOf _, Type.Mapping _, Type.Unknown _ -> value;
        };
    }
}
