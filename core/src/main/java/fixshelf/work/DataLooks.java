package fixshelf.work;

import fixshelf.engine.Rows;
import fixshelf.plan.Looks;
import fixshelf.plan.Plan;
import fixshelf.plan.Step;
import fixshelf.problem.Outcome;
import fixshelf.shelf.JobPage;
import fixshelf.source.SourceFile;
import fixshelf.table.Relation;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// Looks at all rows of the source of a job. What was seen is remembered as long as the file, and the lines before,
/// stay as they are.
final class DataLooks implements Looks, AutoCloseable {
    private static final int MOST_REMEMBERED = 200;

    private static final Map<String, List<List<@Nullable Object>>> SEEN =
            Collections.synchronizedMap(new LinkedHashMap<>() {
                @Override
                protected boolean removeEldestEntry(Map.Entry<String, List<List<@Nullable Object>>> eldest) {
                    return size() > MOST_REMEMBERED;
                }
            });

    private final JobPage job;
    private final SourceFile source;
    private final Map<String, SourceFile> others;
    private @Nullable Preview preview;

    /// @param others the files of other tables; more may come
    DataLooks(JobPage job, SourceFile source, Map<String, SourceFile> others) {
        this.job = job;
        this.source = source;
        this.others = others;
    }

    @Override
    public Outcome<List<List<@Nullable Object>>> rows(Plan soFar, Relation about) {
        String key = key(soFar, about);
        List<List<@Nullable Object>> known = SEEN.get(key);
        if (known != null) {
            return Outcome.of(known);
        }
        if (preview == null) {
            Outcome<Preview> opened = Preview.open(source, Long.MAX_VALUE, Long.MAX_VALUE);
            if (!opened.isPresent()) {
                return Outcome.failed(opened.problems());
            }
            preview = opened.get();
        }
        PlannedJob planned = new PlannedJob(job, source, soFar, List.of(), others, List.of());
        Outcome<List<List<@Nullable Object>>> rows = preview.rows(planned, about);
        rows.value().ifPresent(r -> SEEN.put(key, r));
        return rows;
    }

    /// The file as it is, the lines so far, and what is asked.
    private String key(Plan soFar, Relation about) {
        StringBuilder key = new StringBuilder(source.toString());
        stamp(source, key);
        others.values().forEach(f -> stamp(f, key));
        for (Step step : soFar.steps()) {
            key.append('\n').append(Rows.traced(step.after(), DataLooks::base));
        }
        return key.append('\n').append(Rows.beside(about, DataLooks::base)).toString();
    }

    private static String base(Relation relation) {
        return relation instanceof Relation.Result(int line, var _)
                ? "line_" + line
                : Rows.other((Relation.Source) relation);
    }

    private static void stamp(SourceFile file, StringBuilder key) {
        try {
            key.append(file.file()).append(file.options());
            for (Path one : file.files()) {
                key.append(one).append(Files.size(one)).append(Files.getLastModifiedTime(one));
            }
        } catch (IOException e) {
            key.append(System.nanoTime());
        }
    }

    @Override
    public void close() {
        if (preview != null) {
            preview.close();
        }
    }
}
