package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.render.JobCode;
import fixshelf.render.sql.SqlLanguage;
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
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// Evaluates fixes with one SQL query for each group of rows; where the query fails, in halves, down to the row.
final class SqlEvaluation {
    private static final int ROWS_A_QUERY = 2_000;

    /// Runs a query and gives its rows in order.
    interface Runner {
        List<List<@Nullable Object>> rows(String sql) throws SQLException;

        /// Queries over a connection.
        static Runner of(Connection connection, int seconds) {
            return sql -> {
                try (Statement statement = connection.createStatement()) {
                    statement.setQueryTimeout(seconds);
                    try (ResultSet rows = statement.executeQuery(sql)) {
                        return all(rows);
                    }
                }
            };
        }

        private static List<List<@Nullable Object>> all(ResultSet rows) throws SQLException {
            int width = rows.getMetaData().getColumnCount();
            int[] kinds = new int[width];
            for (int c = 0; c < width; c++) {
                kinds[c] = rows.getMetaData().getColumnType(c + 1);
            }
            List<List<@Nullable Object>> all = new ArrayList<>();
            while (rows.next()) {
                List<@Nullable Object> row = new ArrayList<>(width);
                for (int c = 0; c < width; c++) {
                    // A day as Java's old type would be moved where the calendar changed in 1582.
                    row.add(
                            switch (kinds[c]) {
                                case Types.DATE -> rows.getObject(c + 1, LocalDate.class);
                                case Types.TIMESTAMP -> rows.getObject(c + 1, LocalDateTime.class);
                                default -> rows.getObject(c + 1);
                            });
                }
                all.add(row);
            }
            return all;
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
            runner.rows(query(code, group, evaluation, rows))
                    .forEach(r -> answers.add(new Answer.Value(plain(r.getFirst(), returns))));
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

    /// Runs a job over rows that are written into the query.
    Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        try {
            Outcome<String> code = language.jobQuery(job, sources(job, rows));
            if (!code.isPresent()) {
                return new Answer.OfJob.Unsaid(
                        code.problems().stream().map(Problem::what).toList());
            }
            Stop.check();
            List<List<@Nullable Object>> answers = new ArrayList<>();
            for (List<@Nullable Object> row : runner.rows(code.get())) {
                List<@Nullable Object> typed = new ArrayList<>();
                for (int c = 0; c < row.size(); c++) {
                    typed.add(plain(row.get(c), job.result().get(c).type()));
                }
                answers.add(typed);
            }
            return new Answer.OfJob.Rows(answers);
        } catch (ProblemException e) {
            return new Answer.OfJob.Unsaid(List.of(e.problem().what()));
        } catch (SQLException e) {
            return new Answer.OfJob.Stopped(
                    String.valueOf(e.getMessage()).lines().findFirst().orElse(""));
        }
    }

    /// The rows of each source as a table of constants, then as the source with its columns.
    private List<String> sources(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        List<String> tables = new ArrayList<>();
        for (int i = 0; i < job.sources().size(); i++) {
            JobCode.Source source = job.sources().get(i);
            tables.addAll(source(job, source, "fixshelf_rows_" + i, rows.getOrDefault(source.name(), List.of())));
        }
        return tables;
    }

    private List<String> source(
            JobCode job, JobCode.Source source, String constants, List<List<@Nullable String>> rows) {
        StringBuilder values = new StringBuilder();
        for (int i = 0; i < Math.max(1, rows.size()); i++) {
            values.append(i == 0 ? "(" : ",\n(").append(rows.isEmpty() ? -1 : i);
            for (int c = 0; c < source.columns().size(); c++) {
                @Nullable String cell = rows.isEmpty() ? null : rows.get(i).get(c);
                values.append(", ").append(cell == null ? "NULL" : literal(Expr.Literal.text(cell)));
            }
            values.append(')');
        }
        String place = language.identifier(job.placeName());
        StringBuilder names = new StringBuilder("place");
        StringBuilder typed = new StringBuilder("place AS " + place);
        for (int c = 0; c < source.columns().size(); c++) {
            names.append(", c").append(c);
            typed.append(", ")
                    .append(language.cast("c" + c, Type.TEXT))
                    .append(" AS ")
                    .append(language.identifier(source.columns().get(c).name()));
        }
        return List.of(
                constants + "(" + names + ") AS (VALUES " + values + ")",
                language.identifier(source.name()) + " AS (SELECT " + typed + " FROM " + constants
                        + " WHERE place >= 0)");
    }

    private String literal(Expr.Literal literal) {
        Outcome<String> code = language.expression(literal);
        if (!code.isPresent()) {
            throw new ProblemException(code.problems().getFirst());
        }
        return code.get();
    }

    /// The value as one of ours; some engines have no type for truth, or give whole numbers in one of several types.
    static @Nullable Object plain(@Nullable Object value, Type type) {
        return switch (type) {
            case Type.Bool _ when value instanceof Number number -> number.longValue() != 0;
            case Type.Int _ when value instanceof Number number -> new BigDecimal(number.toString()).longValue();
            case Type.Decimal _ when value instanceof Number number -> new BigDecimal(number.toString());
            case Type.Num _ when value instanceof Number number -> number.doubleValue();
            case Type.Text _ when value != null -> value.toString();
            case Type.Date _ when value != null -> LocalDate.parse(value.toString());
            case Type.Timestamp _
            when value != null -> LocalDateTime.parse(value.toString().replace(' ', 'T'));
            case Type.Bool _, Type.Int _, Type.Num _, Type.Decimal _, Type.Text _, Type.Date _, Type.Timestamp _ ->
                value;
            case Type.ListOf _, Type.Mapping _, Type.Unknown _ -> value;
        };
    }
}
