package fixshelf.work;

import fixshelf.engine.Rows;
import fixshelf.source.SourceFile;
import fixshelf.source.SourceSession;
import fixshelf.table.Relation;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;

/// The sources that lines bring in beside the first, staged whole when they are first asked for.
final class OtherSources {
    private final SourceSession session;
    /// What the files of those that are staged were.
    private final Map<String, String> stamps = new HashMap<>();

    OtherSources(SourceSession session) {
        this.session = session;
    }

    void stage(PlannedJob job, Relation.Source other) {
        if (!stamps.containsKey(other.name())) {
            SourceFile file = Objects.requireNonNull(job.others().get(other.name()), other.name());
            session.bring(file, Rows.table(other.name()));
            stamps.put(other.name(), file.stamp());
        }
    }

    /// Lets go of all where the files of one were replaced, or are read otherwise; says whether that was so.
    boolean forgetReplaced(PlannedJob job) {
        boolean replaced = job.others().entrySet().stream()
                .anyMatch(o -> stamps.containsKey(o.getKey())
                        && !stamps.get(o.getKey()).equals(o.getValue().stamp()));
        if (replaced) {
            stamps.clear();
        }
        return replaced;
    }
}
