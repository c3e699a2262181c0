package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.render.JobCode;
import fixshelf.render.Languages;
import fixshelf.render.sql.SqlLanguage;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// SQLite inside the process, without functions added from outside.
final class SqliteEngine implements FixEngine {
    private static final int QUERY_SECONDS = Patience.seconds(60);

    private final SqlLanguage language = (SqlLanguage) Languages.find("sqlite").orElseThrow();

    @Override
    public SqlLanguage language() {
        return language;
    }

    @Override
    public Presence presence() {
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite::memory:")) {
            return new Presence.Here(ServerEngine.first(connection, "SELECT sqlite_version()") + ", inside");
        } catch (SQLException e) {
            return new Presence.Absent("it could not be opened: " + e.getMessage());
        }
    }

    @Override
    public List<List<Answer>> run(List<Evaluation> evaluations) {
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite::memory:")) {
            SqlEvaluation sql = new SqlEvaluation(language, SqlEvaluation.Runner.of(connection, QUERY_SECONDS));
            return evaluations.stream().map(sql::run).toList();
        } catch (SQLException e) {
            return FixEngine.failed(evaluations, "it could not be opened: " + e.getMessage());
        }
    }

    @Override
    public Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite::memory:")) {
            return new SqlEvaluation(language, SqlEvaluation.Runner.of(connection, QUERY_SECONDS)).run(job, rows);
        } catch (SQLException e) {
            return new Answer.OfJob.Stopped("it could not be opened: " + e.getMessage());
        }
    }
}
