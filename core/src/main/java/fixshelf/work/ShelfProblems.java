package fixshelf.work;

import fixshelf.engine.Stop;
import fixshelf.fetch.Copies;
import fixshelf.plan.Line;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.SourceText;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.source.FilePattern;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/// All problems of a shelf that can be found without running anything: of its pages, of the lines of table fixes over
/// their cases, and of the lines of jobs over the columns of files of the shelf. What was found is remembered: a job
/// that is asked for again is planned again where it, or another page that can matter to it, has changed.
///
/// Not for several threads at once.
public final class ShelfProblems {
    /// What was found.
    ///
    /// @param problems those of pages, then those of lines; the same at one place is told once
    /// @param passed what was not looked at, and why, in words
    public record Found(List<Problem> problems, List<String> passed) {
        public Found {
            problems = List.copyOf(problems);
            passed = List.copyOf(passed);
        }
    }

    private final Map<Path, Found> ofJobs = new HashMap<>();
    private final Map<Path, Found> ofTables = new HashMap<>();
    private Optional<Shelf> before = Optional.empty();

    /// All problems of the shelf.
    public static Found of(Shelf shelf) {
        return new ShelfProblems().find(shelf);
    }

    /// As [#of], where only what changed since the last call is planned again.
    public Found find(Shelf shelf) {
        forget(shelf);
        before = Optional.of(shelf);
        List<Found> lines = new ArrayList<>();
        shelf.tableFixes().forEach(page -> lines.add(remembered(ofTables, page.file(), () -> ofTable(shelf, page))));
        jobs(shelf).forEach(job -> lines.add(remembered(ofJobs, job.file(), () -> ofJob(shelf, job))));
        Set<Problem> found = new LinkedHashSet<>();
        lines.forEach(l -> found.addAll(l.problems()));
        return new Found(
                once(shelf.problems(), found),
                lines.stream().flatMap(l -> l.passed().stream()).toList());
    }

    /// What was found under a stop is not the whole, and is not remembered.
    private static Found remembered(Map<Path, Found> found, Path page, Supplier<Found> anew) {
        Found known = found.get(page);
        if (known == null) {
            Stop.check();
            known = anew.get();
            Stop.check();
            found.put(page, known);
        }
        return known;
    }

    private static Stream<JobPage> jobs(Shelf shelf) {
        return Stream.concat(
                shelf.jobs().stream(), shelf.datasets().stream().flatMap(d -> shelf.loaded(d.name()).stream()));
    }

    /// Forgets what was found of pages that changed, and of those whose text names one that is forgotten.
    private void forget(Shelf now) {
        Shelf old = before.orElse(now);
        if (!old.root().equals(now.root()) || !old.settings().equals(now.settings())) {
            ofJobs.clear();
            ofTables.clear();
            return;
        }
        Set<Object> stayed = Collections.newSetFromMap(new IdentityHashMap<>());
        pages(old).forEach(p -> stayed.add(p.page()));
        List<Page> all = pages(now).toList();
        Deque<Page> left = new ArrayDeque<>();
        all.stream().filter(p -> !stayed.remove(p.page())).forEach(left::push);
        pages(old).filter(p -> stayed.contains(p.page())).forEach(left::push);
        // A page that was renamed counts under both names.
        Set<List<Object>> forgotten = new HashSet<>();
        while (!left.isEmpty()) {
            Page page = left.pop();
            if (forgotten.add(List.of(page.file(), page.name()))) {
                ofJobs.remove(page.file());
                ofTables.remove(page.file());
                all.stream().filter(p -> p.text().contains(page.name())).forEach(left::push);
            }
        }
    }

    /// @param name as pages that call it name it, in small letters, as `text` is
    private record Page(Object page, Path file, String name, String text) {
        static Page of(Object page, Path file, String name, SourceText source) {
            return new Page(
                    page, file, name.toLowerCase(Locale.ROOT), source.text().toLowerCase(Locale.ROOT));
        }
    }

    private static Stream<Page> pages(Shelf shelf) {
        return Stream.of(
                        shelf.fixes().stream().map(p -> Page.of(p, p.file(), p.name(), p.source())),
                        shelf.tableFixes().stream().map(p -> Page.of(p, p.file(), p.name(), p.source())),
                        shelf.datasets().stream().map(p -> Page.of(p, p.file(), p.name(), p.source())),
                        shelf.jobs().stream().map(p -> Page.of(p, p.file(), p.name(), p.source())))
                .flatMap(p -> p);
    }

    private static Found ofTable(Shelf shelf, TableFixPage page) {
        return new Found(
                OperationExamples.problemsOfLines(
                        LoaderCases.ready(shelf, page), page.source(), page.promises(), shelf.callables()),
                page.cases().isEmpty() && page.problems().isEmpty()
                        ? List.of("the lines of " + page.name() + ", which has no case")
                        : List.of());
    }

    /// What is wrong with pages, then what is wrong with their lines; the same at one place is told once.
    private static List<Problem> once(List<Problem> ofPages, Set<Problem> ofLines) {
        List<Problem> problems = new ArrayList<>(ofPages);
        for (Problem problem : ofLines) {
            boolean told = ofPages.stream()
                    .anyMatch(p -> p.code() == problem.code()
                            && p.where()
                                    .source()
                                    .name()
                                    .equals(problem.where().source().name())
                            && problem.where().span().isWithin(p.where().span())
                            && (p.what().equals(problem.what()) || isNamed(problem.words(), p.what())));
            if (!told) {
                problems.add(problem);
            }
        }
        return Problem.inOrder(problems);
    }

    private static boolean isNamed(String words, String what) {
        return !words.isEmpty() && what.contains(" " + words + " ");
    }

    /// Its lines are planned over the columns of its file; a job whose file is not in the shelf, or not there, is
    /// passed.
    private static Found ofJob(Shelf shelf, JobPage job) {
        Line begins = job.lines().isEmpty()
                ? Line.readDataset("")
                : job.lines().getFirst().line();
        // A first line that reads nothing is a problem of the page, which is told already.
        if (job.problems().stream().anyMatch(Problem::isError)
                || !begins.isRead() && shelf.loader(begins.call()).isEmpty()) {
            return new Found(List.of(), List.of());
        }
        String last = FirstLine.chain(shelf, job, Map.of())
                .value()
                .map(c -> FirstLine.dataset(c.getLast()))
                .orElse("");
        if (Datasets.callsForEach(shelf, last)) {
            return passed(job, "reads " + last + ", many calls");
        }
        Outcome<ReadOptions> read = FirstLine.options(shelf, job, Map.of());
        Optional<ReadOptions.Form> form = read.value().flatMap(ReadOptions::form);
        boolean typedIn = form.orElse(null) instanceof ReadOptions.Form.Typed;
        if (form.orElse(null) instanceof ReadOptions.Form.Elsewhere && !typedIn) {
            return passed(job, "reads " + read.get().path());
        }
        Where where = new Where(job.source(), job.lines().getFirst().span());
        Outcome<Path> file = read.then(
                        o -> Placeholders.fillPath(o.path(), PlannedJob.values(shelf, job, Map.of()), where))
                .map(path -> shelf.root().resolve(path).normalize());
        boolean there = typedIn
                || file.value()
                        .filter(f -> f.startsWith(shelf.root()) && FilePattern.isThere(f))
                        .isPresent();
        return there
                ? ofLines(shelf, job)
                : file.isPresent() ? passed(job, "reads " + file.get()) : new Found(file.problems(), List.of());
    }

    private static Found passed(JobPage job, String why) {
        return new Found(List.of(), List.of(job.name() + " " + why));
    }

    /// What is not known without asking somebody outside is no problem of a page, nor is an output that somebody may
    /// allow when the job runs.
    private static Found ofLines(Shelf shelf, JobPage job) {
        List<Problem> problems = new ArrayList<>();
        List<String> passed = new ArrayList<>();
        Outcome<PlannedJob> drafted = Copies.here(() -> PlannedJob.draft(shelf, job, Map.of()));
        drafted.value().stream()
                .flatMap(planned -> IntStream.range(0, planned.targets().size())
                        .boxed()
                        .flatMap(i -> planned.targets().get(i).objection().stream()
                                .map(p -> p.placed(new Where(
                                        job.source(), job.outputs().get(i).span())))))
                .forEach(p -> {
                    if (p.code().isElsewhere() || p.code() == Code.TARGET_OUTSIDE) {
                        passed.add(job.name() + " writes outside of the shelf");
                    } else {
                        problems.add(p);
                    }
                });
        for (Problem problem : drafted.problems()) {
            if (problem.code().isElsewhere()) {
                passed.add(job.name() + " brings in what is elsewhere");
            } else {
                problems.add(problem);
            }
        }
        return new Found(problems, passed);
    }
}
