package fixshelf.work;

import fixshelf.engine.Answer;
import fixshelf.engine.FixEngine;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// An engine whose first cell of a job is wrong.
record AlteredEngine(FixEngine inner) implements FixEngine {
    @Override
    public Language language() {
        return inner.language();
    }

    @Override
    public Presence presence() {
        return inner.presence();
    }

    @Override
    public List<List<Answer>> run(List<Answer.Evaluation> evaluations) {
        return inner.run(evaluations);
    }

    @Override
    public Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        List<List<@Nullable Object>> all = new ArrayList<>(((Answer.OfJob.Rows) inner.run(job, rows)).rows());
        List<@Nullable Object> first = new ArrayList<>(all.getFirst());
        first.set(0, "other");
        all.set(0, first);
        return new Answer.OfJob.Rows(all);
    }
}
