package fixshelf.engine;

import fixshelf.render.JobCode;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// Many small jobs in DuckDB, one after another in one session, which is opened for the first of them.
public final class DuckJobs implements AutoCloseable {
    private final DuckEngine engine = new DuckEngine();
    private @Nullable DuckSession session;

    /// As [FixEngine#run(JobCode, Map)].
    public Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        DuckSession open = session == null ? DuckSession.forQueries() : session;
        session = open;
        return engine.run(open, job, rows);
    }

    @Override
    public void close() {
        if (session != null) {
            session.close();
        }
    }
}
