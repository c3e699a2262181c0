package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// Stands for the engine of a language that is written from its documentation and never run.
final class DocumentedEngine implements FixEngine {
    private static final String WHY = "it is written from its public documentation";

    private final Language language;

    DocumentedEngine(Language language) {
        this.language = language;
    }

    @Override
    public Language language() {
        return language;
    }

    @Override
    public Presence presence() {
        return new Presence.Absent(WHY);
    }

    @Override
    public List<List<Answer>> run(List<Evaluation> evaluations) {
        return FixEngine.failed(evaluations, WHY);
    }

    @Override
    public Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        return new Answer.OfJob.Stopped(WHY);
    }
}
