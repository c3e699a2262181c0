package fixshelf.engine;

import fixshelf.render.JobCode;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// Many small jobs in DuckDB, one after another in one session.
public final class DuckJobs implements AutoCloseable {
    private final DuckEngine engine = new DuckEngine();
    private final DuckSession session = DuckSession.open();

    /// As [FixEngine#run(JobCode, Map)].
    public Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        return engine.run(session, job, rows);
    }

    @Override
    public void close() {
        session.close();
    }
}
