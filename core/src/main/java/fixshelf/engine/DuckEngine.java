package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.problem.ProblemException;
import fixshelf.render.Languages;
import fixshelf.render.SqlLanguage;
import java.sql.SQLException;
import java.util.List;

/// DuckDB inside the process: the reference for every other language.
final class DuckEngine implements FixEngine {
    private final SqlLanguage language = (SqlLanguage) Languages.find("duckdb").orElseThrow();

    @Override
    public SqlLanguage language() {
        return language;
    }

    @Override
    public Presence presence() {
        return new Presence.Here(version());
    }

    private static String version() {
        try (DuckSession session = DuckSession.open()) {
            return String.valueOf(
                    session.query("SELECT version()").rows().getFirst().getFirst());
        }
    }

    @Override
    public List<List<Answer>> run(List<Evaluation> evaluations) {
        try (DuckSession session = DuckSession.open()) {
            SqlEvaluation sql = new SqlEvaluation(language, text -> {
                try {
                    return session.query(text).rows().stream()
                            .map(List::getFirst)
                            .collect(java.util.ArrayList::new, java.util.ArrayList::add, java.util.ArrayList::addAll);
                } catch (ProblemException e) {
                    throw new SQLException(e.problem().what(), e);
                }
            });
            return evaluations.stream().map(sql::run).toList();
        }
    }
}
