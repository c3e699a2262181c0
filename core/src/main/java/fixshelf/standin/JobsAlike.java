package fixshelf.standin;

import fixshelf.fetch.Consent;
import fixshelf.problem.Outcome;
import fixshelf.problem.SourceText;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.DatasetPages;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.work.LineEffect;
import fixshelf.work.PlannedJob;
import fixshelf.work.Preview;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/// What jobs do with a stand-in, held against what they do with the data, line by line.
public final class JobsAlike {
    private JobsAlike() {}

    /// A job, and where it does something else.
    ///
    /// @param lines how many lines it has
    /// @param other where a line does something else; empty where every line does the same
    public record Job(String name, int lines, List<Line> other) {
        /// `clean_visits: all 6 lines do the same`, or where they do not.
        public List<String> sentences() {
            if (other.isEmpty()) {
                return List.of(name + ": " + (lines == 1 ? "its line does" : "all " + lines + " lines do")
                        + " the same with it.");
            }
            return other.stream().map(l -> name + l.words()).toList();
        }
    }

    /// A line that does something else.
    ///
    /// @param number from 1; 0 where the job cannot be looked at
    /// @param here what it does with the data
    /// @param there what it does with the stand-in
    public record Line(int number, String here, String there) {
        private String words() {
            return number == 0
                    ? ": " + here + there
                    : ", line " + number + ": " + here + "; with the stand-in " + there + ".";
        }
    }

    /// Looks at all jobs that read one of the datasets.
    ///
    /// @param made the stand-ins of datasets of the shelf
    /// @param rows how many rows of each source are looked at
    public static List<Job> of(Shelf shelf, StandIn.Made made, long rows) {
        Shelf other = shelf;
        for (StandIn.Written written : made.files()) {
            other = other.with(page(shelf, written));
            Consent.Place.of(shelf.root(), written.file()).ifPresent(Consent::forNow);
        }
        Set<String> readers = made.files().stream()
                .flatMap(w -> shelf.usersOf(w.dataset()).stream())
                .collect(Collectors.toSet());
        List<Job> jobs = new ArrayList<>();
        for (JobPage job : shelf.jobs()) {
            if (readers.contains(job.name())) {
                jobs.add(held(shelf, other, job, rows));
            }
        }
        return jobs;
    }

    /// The page of the stand-in as if it were that of the dataset.
    private static DatasetPage page(Shelf shelf, StandIn.Written written) {
        DatasetPage now = shelf.dataset(written.dataset()).orElseThrow();
        String text = DatasetPages.write(
                now.name(), written.options().withPath(written.file().toString()), written.types());
        return DatasetPages.read(
                now.file(),
                new SourceText(now.source().name(), text),
                shelf.settings().nullWords());
    }

    private static Job held(Shelf shelf, Shelf other, JobPage job, long rows) {
        Outcome<List<LineEffect>> here = effects(shelf, job, rows);
        Outcome<List<LineEffect>> there = effects(other, job, rows);
        if (!here.isPresent() || !there.isPresent()) {
            String why = here.isPresent()
                    ? "runs here, and not with the stand-in: "
                            + there.problems().getFirst().sentence()
                    : "cannot be looked at here: " + here.problems().getFirst().sentence();
            return new Job(job.name(), job.lines().size(), List.of(new Line(0, why, "")));
        }
        List<Line> lines = new ArrayList<>();
        for (int i = 0; i < Math.min(here.get().size(), there.get().size()); i++) {
            String one = words(here.get().get(i));
            String two = words(there.get().get(i));
            if (!one.equals(two)) {
                lines.add(new Line(i + 1, one, two));
            }
        }
        return new Job(job.name(), here.get().size(), lines);
    }

    private static String words(LineEffect effect) {
        StringBuilder out = new StringBuilder(effect.margin());
        effect.reports().forEach(r -> out.append(r.rows() > 0 ? ", " + r.sentence() : ""));
        return out.toString();
    }

    private static Outcome<List<LineEffect>> effects(Shelf shelf, JobPage job, long rows) {
        return PlannedJob.plan(shelf, job, Map.of())
                .then(planned -> Preview.open(planned.source(), rows, rows).then(preview -> {
                    try (preview) {
                        return preview.look(planned);
                    }
                }));
    }
}
