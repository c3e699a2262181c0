package fixshelf.work;

import fixshelf.fetch.Consent;
import fixshelf.fetch.Copies;
import fixshelf.language.tree.Names;
import fixshelf.plan.InBraces;
import fixshelf.plan.Line;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.source.SourceFile;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/// What the first line of a job reads: a file, a dataset, a call of a loader or another job, whose
/// first line may do the same.
final class FirstLine {
    private FirstLine() {}

    /// The file that the first line reads.
    ///
    /// @param set values that the user gives for this run
    static Outcome<SourceFile> source(Shelf shelf, JobPage job, Map<String, String> set) {
        JobPage.PlacedLine first = job.lines().getFirst();
        Where where = new Where(job.source(), first.span());
        Optional<JobPage> other = job(shelf, job, set);
        if (other.isPresent()) {
            return chain(shelf, job, set).then(_ -> source(shelf, other.get(), passedOn(job, set)));
        }
        Map<String, String> values = PlannedJob.values(shelf, job, set);
        if (Datasets.callsForEach(shelf, dataset(first.line()))) {
            return Datasets.open(shelf, dataset(first.line()));
        }
        return options(shelf, first.line(), where)
                .then(options -> Placeholders.fill(options, values, where))
                .then(options -> Copies.open(shelf.root(), dataset(first.line()), options));
    }

    /// What the first line reads by itself, where it is in no file, is asked for anew the next time.
    static void forgetCopy(Shelf shelf, JobPage job) {
        JobPage.PlacedLine first = job.lines().getFirst();
        Where where = new Where(job.source(), first.span());
        options(shelf, first.line(), where)
                .then(o -> Placeholders.fill(o, PlannedJob.values(shelf, job, Map.of()), where))
                .value()
                .ifPresent(o -> Copies.forget(shelf.root(), dataset(first.line()), o));
    }

    /// The values of a run that reach what the first line reads: all but those of the job's own parameters.
    static Map<String, String> passedOn(JobPage job, Map<String, String> set) {
        Map<String, String> passed = new HashMap<>(set);
        passed.keySet().removeAll(job.parameters().keySet());
        return passed;
    }

    /// The place outside of the shelf that a job reads from by its own first line, where it is not allowed yet.
    static Optional<Consent.Place> asked(Shelf shelf, JobPage job) {
        Map<String, String> values = PlannedJob.values(shelf, job, Map.of());
        Optional<JobPage> called = job.firstLine().flatMap(l -> shelf.loaded(filled(l, values)));
        return called.isPresent()
                ? asked(shelf, called.get())
                : job.firstLine()
                        .filter(l -> l.call().equals(Line.READ_FILE))
                        .flatMap(l -> Placeholders.fill(shelf.options(l), values, Where.nowhere(job.name()))
                                .value())
                        .flatMap(o -> Copies.asked(shelf.root(), o));
    }

    /// The places outside of the shelf of the loaders that later lines call.
    static List<Consent.Place> askedByCalls(Shelf shelf, JobPage job) {
        Map<String, String> values = PlannedJob.values(shelf, job, Map.of());
        return job.lines().stream()
                .skip(1)
                .flatMap(l -> shelf.loaded(filled(l.line(), values)).stream())
                .flatMap(called -> asked(shelf, called).stream())
                .toList();
    }

    /// The place that calls of a loader read from, whatever their arguments are, where it is not
    /// allowed yet; empty where an argument says which place it is, as nobody knows it before.
    static Optional<Consent.Place> askedByEach(Shelf shelf, TableFixPage loader) {
        Set<Optional<Consent.Place>> places = new HashSet<>();
        for (String argument : List.of("a", "b")) {
            Map<String, String> values = new HashMap<>(shelf.settings().values());
            loader.parameters().forEach(p -> values.put(p.name(), argument));
            places.add(loader.read()
                    .map(JobPage.PlacedLine::line)
                    .filter(l -> l.call().equals(Line.READ_FILE))
                    .map(shelf::options)
                    .map(o -> o.withPath(o.path().replaceAll("(\\{[^{}:]+):[^{}]*}", "$1}")))
                    .flatMap(o -> Placeholders.fill(o, values, Where.nowhere(loader.name()))
                            .value())
                    .flatMap(o -> Copies.asked(shelf.root(), o)));
        }
        return places.size() == 1 ? places.iterator().next() : Optional.empty();
    }

    /// The dataset that a line reads; empty for a file.
    static String dataset(JobPage job) {
        return job.firstLine().map(FirstLine::dataset).orElse("");
    }

    static String dataset(Line line) {
        return line.blanks().get(Line.SOURCE) instanceof Written.Word(String name) ? name : "";
    }

    /// The job that the first line of a job reads, which a call of a loader is too; none where it reads a file, or a
    /// dataset that is one.
    ///
    /// @param set values that the user gives for this run
    static Optional<JobPage> job(Shelf shelf, JobPage job, Map<String, String> set) {
        Line line = filled(job.lines().getFirst().line(), PlannedJob.values(shelf, job, set));
        if (line.call().equals(Line.READ_FILE)) {
            return Optional.empty();
        }
        String name = dataset(line);
        Optional<JobPage> loaded = line.isRead() ? shelf.loaded(name) : shelf.loaded(line);
        return loaded.isPresent() || name.isEmpty() || shelf.dataset(name).isPresent() ? loaded : shelf.job(name);
    }

    /// The arguments of a loader with the values of `{name}`; what is read is filled as a place.
    private static Line filled(Line line, Map<String, String> values) {
        return line.isRead() ? line : Placeholders.fill(line, Optional.empty(), values);
    }

    /// The job, the one that its first line reads, and so on, or the circle that they make.
    static Outcome<List<JobPage>> chain(Shelf shelf, JobPage job, Map<String, String> set) {
        List<JobPage> chain = new ArrayList<>(List.of(job));
        Map<String, String> reaching = set;
        for (Optional<JobPage> next = Optional.of(job); next.isPresent(); ) {
            JobPage last = chain.getLast();
            next = last.lines().isEmpty() ? Optional.empty() : job(shelf, last, reaching);
            reaching = passedOn(last, reaching);
            Optional<Problem> wrong = next.flatMap(
                    n -> n.problems().stream().filter(Problem::isError).findFirst());
            if (wrong.isPresent()) {
                Where where = new Where(job.source(), job.lines().getFirst().span());
                return Outcome.failed(Problem.error(
                        wrong.get().code(),
                        where,
                        last.lines().getFirst().line().isRead()
                                ? next.get().name() + " cannot be read: "
                                        + wrong.get().what()
                                : wrong.get().what(),
                        wrong.get().todo()));
            }
            if (next.isPresent()) {
                chain.add(next.get());
                if (chain.indexOf(next.get()) < chain.size() - 1) {
                    return Outcome.failed(Problem.error(
                            Code.CYCLE,
                            new Where(job.source(), job.lines().getFirst().span()),
                            "Jobs read each other in a circle: "
                                    + chain.stream().map(JobPage::name).collect(Collectors.joining(" → ")) + ".",
                            "Break it: let one of them read a dataset."));
                }
            }
        }
        return Outcome.of(chain);
    }

    /// What is read in the end, by the last job of the chain.
    static Outcome<ReadOptions> options(Shelf shelf, JobPage job, Map<String, String> set) {
        Where where = new Where(job.source(), job.lines().getFirst().span());
        return chain(shelf, job, set)
                .then(c -> options(shelf, c.getLast().lines().getFirst().line(), where));
    }

    private static Outcome<ReadOptions> options(Shelf shelf, Line line, Where where) {
        if (line.call().equals(Line.READ_FILE)) {
            return Outcome.of(shelf.options(line));
        }
        String name = dataset(line);
        Optional<DatasetPage> page = shelf.dataset(name);
        if (!line.isRead()) {
            return Outcome.failed(Problem.error(
                    Code.BAD_FIELD,
                    where,
                    "The first line of a job reads something.",
                    "Begin with `- read: name` of a dataset, `- read: {file: path}`, or a loader of this shelf."));
        }
        if (page.isEmpty()) {
            List<String> known = Stream.concat(
                            shelf.datasets().stream().map(DatasetPage::name),
                            shelf.jobs().stream().map(JobPage::name))
                    .toList();
            return Outcome.failed(Problem.error(
                    Code.NO_SUCH,
                    where,
                    "There is no dataset or job " + name + " on this shelf.",
                    Names.suggest(name, known, "Name another.")));
        }
        boolean broken = page.get().problems().stream().anyMatch(Problem::isError);
        return broken
                ? Outcome.failed(page.get().problems())
                : Outcome.of(page.get().options());
    }

    /// Who names a place with a value for this run allows it by that.
    static void allowNamed(Shelf shelf, JobPage job, Map<String, String> set) {
        Map<String, String> values = PlannedJob.values(shelf, job, set);
        options(shelf, job, set)
                .value()
                .filter(o -> InBraces.names(o.path()).stream().anyMatch(set::containsKey))
                .flatMap(o ->
                        Placeholders.fill(o, values, Where.nowhere(job.name())).value())
                .flatMap(o -> Copies.asked(shelf.root(), o))
                .ifPresent(Consent::forNow);
    }
}
