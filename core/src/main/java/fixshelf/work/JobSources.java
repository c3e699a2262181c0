package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Grid;
import fixshelf.language.tree.Names;
import fixshelf.plan.Context;
import fixshelf.plan.Line;
import fixshelf.plan.NamedLines;
import fixshelf.plan.Planner;
import fixshelf.plan.Step;
import fixshelf.plan.TableFix;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.source.SourceSession;
import fixshelf.table.Moved;
import fixshelf.table.Relation;
import fixshelf.type.Column;
import fixshelf.type.Literals;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// The datasets of a shelf, and the results of its jobs, as tables that lines bring in, and as mappings.
final class JobSources implements Context.Sources {
    static final int MOST_PAIRS = 10_000;

    private final Shelf shelf;
    private final List<String> chain;
    private final Map<String, SourceFile> files = new LinkedHashMap<>();
    private final Map<String, PlannedJob> jobs = new LinkedHashMap<>();

    /// @param chain the jobs that are being planned, as they read each other
    JobSources(Shelf shelf, List<String> chain) {
        this.shelf = shelf;
        this.chain = List.copyOf(chain);
    }

    /// The jobs that were asked for, each once.
    List<PlannedJob> jobs() {
        return List.copyOf(jobs.values());
    }

    /// The files of the datasets that were asked for.
    Map<String, SourceFile> files() {
        return files;
    }

    @Override
    public List<String> names() {
        return Stream.concat(
                        shelf.datasets().stream().map(DatasetPage::name),
                        shelf.jobs().stream().map(JobPage::name).filter(j -> !j.equals(chain.getLast())))
                .distinct()
                .toList();
    }

    @Override
    public Outcome<Relation> find(String name, Context.Ids ids) {
        Optional<JobPage> job = job(name);
        if (job.isPresent()) {
            return planned(job.get()).then(p -> result(p, ids));
        }
        return Datasets.open(shelf, name).map(file -> {
            files.put(name, file);
            return Planner.source(name, file.columns(), file.declared(), ids);
        });
    }

    /// The job of that name, where no dataset is called so; or the loader that the dataset calls.
    private Optional<JobPage> job(String name) {
        return shelf.dataset(name).isPresent() ? shelf.loaded(name) : shelf.job(name);
    }

    /// Another job with its lines resolved, or why that cannot be: it may read this one.
    private Outcome<PlannedJob> planned(JobPage job) {
        return planned(job, Map.of(), job.name());
    }

    /// @param shown what it is called in problems
    private Outcome<PlannedJob> planned(JobPage job, Map<String, String> set, String shown) {
        // A dataset may be called like a job that reads it.
        boolean isJob =
                shelf.job(job.name()).filter(j -> j.file().equals(job.file())).isPresent();
        String link = isJob ? job.name() : job.name() + " (a dataset)";
        List<String> longer = new ArrayList<>(chain);
        longer.add(link);
        if (chain.contains(link)) {
            return problem(
                    Code.CYCLE,
                    "Jobs read each other in a circle: "
                            + String.join(" → ", longer.subList(chain.indexOf(link), longer.size())) + ".",
                    "Break it: let one of them read a dataset.");
        }
        Outcome<PlannedJob> planned = PlannedJob.draft(shelf, job, set, longer);
        Optional<Problem> wrong =
                planned.problems().stream().filter(Problem::isError).findFirst();
        if (wrong.isPresent() && wrong.get().code().isElsewhere()) {
            return Outcome.failed(wrong.get());
        }
        return wrong.isPresent()
                ? problem(
                        wrong.get().code() == Code.CYCLE ? Code.CYCLE : Code.NO_SUCH,
                        wrong.get().code() == Code.CYCLE
                                ? wrong.get().what()
                                : (shelf.job(job.name()).isPresent() ? "The job " : "") + shown + " cannot be read: "
                                        + wrong.get().what(),
                        wrong.get().todo().isEmpty()
                                ? "Mend that first."
                                : wrong.get().todo())
                : planned.map(p -> {
                    jobs.put(key(job), p);
                    return p;
                });
    }

    @Override
    public Outcome<Relation> call(Line loader, Context.Ids ids) {
        return shelf.loaded(loader)
                .map(job -> planned(job, Map.of(), loader.call()).then(p -> result(p, ids)))
                .orElseGet(() -> problem(
                        Code.NO_SUCH, "There is no loader " + loader.call() + " on this shelf.", "Write its page."));
    }

    /// What comes out of the job that a first line reads, over the file of that job.
    ///
    /// @param set the values of the run that reach it
    Outcome<Relation> read(JobPage job, Map<String, String> set) {
        return planned(job, set, job.name()).then(p -> result(p, new Context.Ids(0)));
    }

    /// What comes out of another job, with fields of new numbers. A name stands for one source in all that is read
    /// through others.
    private Outcome<Relation> result(PlannedJob job, Context.Ids ids) {
        Relation.Source first = job.plan().read();
        String name = first.name().isEmpty() ? "file_of_" + key(job.job()) : first.name();
        Map<String, SourceFile> more = new LinkedHashMap<>(Map.of(name, job.source()));
        more.putAll(job.others());
        for (Map.Entry<String, SourceFile> one : more.entrySet()) {
            SourceFile known = files.putIfAbsent(one.getKey(), one.getValue());
            if (known != null && !isSame(known, one.getValue())) {
                return problem(
                        Code.NAME_CLASH,
                        "The same is read from two places here: "
                                + known.options().path() + " and "
                                + one.getValue().options().path() + ".",
                        "Make a dataset of each, and read those.");
            }
        }
        List<Relation> results = new ArrayList<>();
        Moved moved = new Moved(ids::next, r -> results.get(r.line() - 1));
        Relation.Source read = new Relation.Source(name, first.shape());
        results.add(
                moved.of(job.plan().readsJob() ? job.plan().steps().getFirst().after() : read));
        for (Step step : job.plan().steps().subList(1, job.plan().steps().size())) {
            results.add(moved.of(step.after()));
        }
        return Outcome.of(results.get(job.plan().resultLine() - 1));
    }

    /// What tells a job from others: its name, and of a call of a loader the arguments too, as each is another table.
    private String key(JobPage job) {
        Line last = job.lines().getLast().line();
        boolean calls = !TableFix.withoutLinesOf(last.call()).equals(last.call())
                && shelf.dataset(job.name()).isEmpty();
        return calls
                ? job.name()
                        + String.format(
                                "_%08x", new TreeMap<>(last.blanks()).toString().hashCode())
                : job.name();
    }

    private static boolean isSame(SourceFile a, SourceFile b) {
        return a.file().equals(b.file()) && a.options().equals(b.options());
    }

    @Override
    public Outcome<Map<String, @Nullable String>> pairs(String dataset, String from, String to) {
        Optional<JobPage> job = job(dataset);
        if (job.isPresent()) {
            return planned(job.get()).then(p -> pairs(p, from, to));
        }
        return Datasets.open(shelf, dataset).then(source -> column(source, from)
                .then(key -> column(source, to).then(value -> pairs(source, dataset, key, value))));
    }

    /// The pairs of the last line of a job.
    private static Outcome<Map<String, @Nullable String>> pairs(PlannedJob job, String from, String to) {
        try (DataLooks looks = new DataLooks(job.job(), job.source(), job.others())) {
            return NamedLines.pairs(job.plan(), looks, job.plan().result(), from, to);
        }
    }

    private static Outcome<String> column(SourceFile source, String name) {
        List<String> names = source.columns().stream().map(Column::name).toList();
        Optional<String> found = names.stream().filter(name::equalsIgnoreCase).findFirst();
        return found.map(Outcome::of)
                .orElseGet(() -> problem(
                        Code.NO_SUCH_COLUMN,
                        "There is no column " + name + " in " + source.file().getFileName() + ".",
                        Names.suggestColumn(name, names)));
    }

    private static Outcome<Map<String, @Nullable String>> pairs(
            SourceFile source, String dataset, String key, String value) {
        try (SourceSession loaded = SourceSession.open(source, List.of())) {
            loaded.read(Long.MAX_VALUE, relation -> loaded.session()
                    .run("CREATE OR REPLACE TABLE pairs AS SELECT k, v, min(place) AS place FROM (SELECT "
                            + DuckSession.name(key) + " AS k, " + DuckSession.name(value)
                            + " AS v, row_number() OVER () AS place FROM " + relation
                            + ") WHERE k IS NOT NULL GROUP BY k, v"));
            boolean broken = loaded.careful().filter(c -> c.badCount() > 0).isPresent();
            if (broken && !source.options().leaveOutBadRows()) {
                return Outcome.failed(loaded.careful().get().problem(source));
            }
            Grid twice = loaded.session()
                    .query("SELECT k FROM pairs GROUP BY k HAVING count(*) > 1 ORDER BY min(place) LIMIT 5");
            if (!twice.rows().isEmpty()) {
                String keys = twice.rows().stream()
                        .map(r -> Literals.print(r.getFirst()))
                        .collect(Collectors.joining(", "));
                return problem(
                        Code.ARGUMENTS,
                        "In " + dataset + " these have more than one " + value + ": " + keys + ".",
                        "Mend the table: each " + key + " needs one " + value + ".");
            }
            long count = loaded.session().number("SELECT count(*) FROM pairs");
            if (count == 0 || count > MOST_PAIRS) {
                return problem(
                        Code.ARGUMENTS,
                        String.format("%s gives %,d pairs; a mapping takes 1 to %,d.", dataset, count, MOST_PAIRS),
                        "Name a smaller table.");
            }
            Map<String, @Nullable String> pairs = new LinkedHashMap<>();
            loaded.session()
                    .query("SELECT k, v FROM pairs ORDER BY place")
                    .rows()
                    .forEach(r -> pairs.put((String) Objects.requireNonNull(r.get(0)), (@Nullable String) r.get(1)));
            return Outcome.of(pairs);
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    private static <T> Outcome<T> problem(Code code, String what, String todo) {
        return Outcome.failed(Problem.about(code, "blank", what, todo));
    }
}
