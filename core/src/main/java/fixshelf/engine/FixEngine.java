package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// Something that can run a fix in its own language.
public interface FixEngine {
    Language language();

    /// Whether it is here; asked once, then remembered.
    Presence presence();

    /// The answers for each evaluation, row by row. Many evaluations are run together.
    List<List<Answer>> run(List<Evaluation> evaluations);

    /// Runs a job over these rows of its sources, by their names; every cell is text or missing.
    Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows);

    /// Runs several jobs; an interpreter is started once for all of them.
    default List<Answer.OfJob> runAll(List<Job> jobs) {
        return jobs.stream().map(j -> run(j.code(), j.rows())).toList();
    }

    /// A job, and the rows of its sources by their names.
    record Job(JobCode code, Map<String, List<List<@Nullable String>>> rows) {}

    /// The same failure for every row.
    static List<List<Answer>> failed(List<Evaluation> evaluations, String why) {
        Answer failed = new Answer.Failed(why);
        return evaluations.stream()
                .map(e -> e.rows().stream().map(_ -> failed).toList())
                .toList();
    }

    /// Whether an engine is here: its version, or what is missing and how to get it.
    sealed interface Presence {
        record Here(String version) implements Presence {}

        record Absent(String why) implements Presence {}

        default boolean isHere() {
            return this instanceof Here;
        }

        default String sentence() {
            return switch (this) {
                case Here(String version) -> "run on " + version;
                case Absent(String why) -> why;
            };
        }
    }
}
