package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.problem.ProblemException;
import fixshelf.render.JobCode;
import fixshelf.render.Languages;
import fixshelf.render.sql.SqlLanguage;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// DuckDB inside the process: the reference for every other language.
final class DuckEngine implements FixEngine {
    private final SqlLanguage language = (SqlLanguage) Languages.find("duckdb").orElseThrow();

    @Override
    public SqlLanguage language() {
        return language;
    }

    @Override
    public Presence presence() {
        return new Presence.Here(Inside.VERSION);
    }

    /// The engine is a part of the program, and stays the one that it is.
    private static final class Inside {
        static final String VERSION = version();
    }

    private static String version() {
        try (DuckSession session = DuckSession.forQueries()) {
            return String.valueOf(
                    session.query("SELECT version()").rows().getFirst().getFirst());
        }
    }

    @Override
    public List<List<Answer>> run(List<Evaluation> evaluations) {
        try (DuckSession session = DuckSession.forQueries()) {
            SqlEvaluation sql = new SqlEvaluation(language, runner(session));
            return evaluations.stream().map(sql::run).toList();
        }
    }

    @Override
    public Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        try (DuckSession session = DuckSession.forQueries()) {
            return run(session, job, rows);
        }
    }

    @Override
    public List<Answer.OfJob> runAll(List<Job> jobs) {
        try (DuckSession session = DuckSession.forQueries()) {
            return jobs.stream().map(j -> run(session, j.code(), j.rows())).toList();
        }
    }

    /// A job in a session that is open; nothing of it stays there.
    Answer.OfJob run(DuckSession session, JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        return new SqlEvaluation(language, runner(session)).run(job, rows);
    }

    private static SqlEvaluation.Runner runner(DuckSession session) {
        return text -> {
            try {
                return session.query(text).rows();
            } catch (ProblemException e) {
                throw new SQLException(e.problem().what(), e);
            }
        };
    }
}
