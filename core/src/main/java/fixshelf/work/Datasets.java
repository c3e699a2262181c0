package fixshelf.work;

import fixshelf.fetch.Consent;
import fixshelf.fetch.Copies;
import fixshelf.fetch.RemoteParts;
import fixshelf.plan.Line;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.source.FileParts;
import fixshelf.source.SourceFile;
import fixshelf.type.Column;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Datasets by name, for looking at them without a job.
public final class Datasets {
    private Datasets() {}

    /// What a dataset reads: by itself, or by the first line of the loader that it calls.
    static ReadOptions reads(Shelf shelf, DatasetPage page) {
        return page.call().isEmpty()
                ? page.options()
                : shelf.loaded(page.name())
                        .flatMap(JobPage::firstLine)
                        .filter(l -> l.call().equals(Line.READ_FILE))
                        .map(shelf::options)
                        .orElse(page.options());
    }

    /// The place of a dataset's file, whether it is there or not; empty when a value in its path is not known.
    static Optional<Path> file(Shelf shelf, String name) {
        return shelf.dataset(name)
                .map(d -> reads(shelf, d))
                .filter(o -> !o.path().isEmpty())
                .filter(o -> !(o.form().orElse(null) instanceof ReadOptions.Form.Elsewhere))
                .flatMap(o -> Placeholders.fillPath(o.path(), shelf.settings().values(), Problem.Where.nowhere(name))
                        .value())
                .map(path -> shelf.root().resolve(path).normalize());
    }

    /// Who brings in a dataset allows the place where it is by that: it is remembered.
    public static void allow(Shelf shelf, String name) throws IOException {
        Optional<Consent.Place> place = shelf.dataset(name).flatMap(d -> asked(shelf, d));
        if (place.isPresent()) {
            Consent.keep(shelf.root(), place.get());
        }
    }

    /// The place outside of the shelf that a dataset reads from by itself; allowed or not.
    public static Optional<Consent.Place> place(Shelf shelf, String name) {
        return shelf.dataset(name).flatMap(d -> place(shelf, d.options()));
    }

    /// As above, of what would be read so.
    public static Optional<Consent.Place> place(Shelf shelf, ReadOptions options) {
        return filled(shelf, options).value().flatMap(o -> Copies.place(shelf.root(), o));
    }

    /// The tables of a page of the web or of a server, with the values of the environment in force in its address. The
    /// shelf must be allowed to read from there.
    public static Outcome<List<FileParts.Part>> parts(Shelf shelf, ReadOptions options) {
        return filled(shelf, options).then(o -> RemoteParts.of(shelf.root(), o)).map(all -> all.stream()
                .map(p -> p.reading(p.options().withPath(options.path())))
                .toList());
    }

    private static Outcome<ReadOptions> filled(Shelf shelf, ReadOptions options) {
        return Placeholders.fill(options, shelf.settings().values(), Problem.Where.nowhere(options.path()));
    }

    /// The places outside of the shelf that its datasets and jobs would use, and that are not allowed yet.
    public static List<Consent.Place> asked(Shelf shelf) {
        Set<Consent.Place> asked = new LinkedHashSet<>();
        shelf.datasets().forEach(d -> asked(shelf, d).ifPresent(asked::add));
        shelf.jobs().forEach(j -> {
            FirstLine.asked(shelf, j).ifPresent(asked::add);
            asked.addAll(FirstLine.askedByCalls(shelf, j));
            asked.addAll(JobTargets.asked(shelf, j));
        });
        return List.copyOf(asked);
    }

    /// The places that one job would use and that are not allowed yet: its own, and those of all datasets and jobs that
    /// it names, so that its user is asked once.
    static List<Consent.Place> asked(Shelf shelf, JobPage job) {
        Set<Consent.Place> asked = new LinkedHashSet<>();
        Set<String> met = new HashSet<>(Set.of(job.name()));
        Deque<JobPage> jobs = new ArrayDeque<>(List.of(job));
        while (!jobs.isEmpty()) {
            JobPage next = jobs.remove();
            FirstLine.asked(shelf, next).ifPresent(asked::add);
            asked.addAll(FirstLine.askedByCalls(shelf, next));
            shelf.datasets().stream()
                    .filter(d -> shelf.usersOf(d.name()).contains(next.name()))
                    .forEach(d -> asked(shelf, d).ifPresent(asked::add));
            shelf.jobs().stream()
                    .filter(j -> shelf.usersOf(j.name()).contains(next.name()) && met.add(j.name()))
                    .forEach(jobs::add);
        }
        asked.addAll(JobTargets.asked(shelf, job));
        return List.copyOf(asked);
    }

    private static Optional<Consent.Place> asked(Shelf shelf, DatasetPage page) {
        if (callsForEach(shelf, page.name())) {
            return shelf.loader(page.call().orElseThrow().loader()).flatMap(l -> FirstLine.askedByEach(shelf, l));
        }
        Optional<JobPage> loaded = shelf.loaded(page.name());
        if (loaded.isPresent()) {
            return FirstLine.asked(shelf, loaded.get());
        }
        return filled(shelf, page).value().flatMap(options -> Copies.asked(shelf.root(), options));
    }

    /// What a page says, with the values of the environment in force.
    private static Outcome<ReadOptions> filled(Shelf shelf, DatasetPage page) {
        return Placeholders.fill(
                page.options(),
                shelf.settings().values(),
                Problem.Where.nowhere(page.source().name()));
    }

    /// The file of a dataset, with the values of the environment in force. What is in no file is copied first, from the
    /// server where it is.
    public static Outcome<SourceFile> open(Shelf shelf, String name) {
        Optional<DatasetPage> page = shelf.dataset(name);
        if (page.isEmpty()) {
            return Outcome.failed(Problem.about(
                    Code.NO_SUCH, name, "There is no dataset " + name + " on this shelf.", "Name another."));
        }
        if (page.get().problems().stream().anyMatch(Problem::isError)) {
            return Outcome.failed(page.get().problems());
        }
        if (callsForEach(shelf, name)) {
            return LoaderRuns.open(shelf, page.get());
        }
        Optional<JobPage> loaded =
                shelf.loaded(name).filter(_ -> page.get().call().isPresent());
        return loaded.isPresent()
                ? opened(shelf, loaded.get())
                : filled(shelf, page.get()).then(options -> Copies.open(shelf.root(), name, options));
    }

    /// The columns of a dataset with the types that jobs find there; empty where they are texts, or not known.
    public static List<Column> typed(Shelf shelf, String name) {
        return shelf.loaded(name)
                .flatMap(job -> PlannedJob.plan(shelf, job, Map.of()).value())
                .map(planned -> planned.plan().columns())
                .orElse(List.of());
    }

    /// Whether a dataset calls a loader for each row of a table.
    static boolean callsForEach(Shelf shelf, String name) {
        return shelf.dataset(name)
                .flatMap(DatasetPage::call)
                .flatMap(DatasetPage.Call::each)
                .isPresent();
    }

    /// What a call of a loader gives, as a file of its rows.
    private static Outcome<SourceFile> opened(Shelf shelf, JobPage call) {
        return PlannedJob.plan(shelf, call, Map.of()).then(planned -> {
            LoadedRows rows = new LoadedRows(planned);
            return Copies.openMade(
                    shelf.root(),
                    call.name(),
                    rows.key(),
                    rows,
                    planned.source().copied().flatMap(SourceFile.Copied::at),
                    rows::told);
        });
    }

    /// What a job makes, as a file of its rows, all of them as texts.
    public static Outcome<SourceFile> result(Shelf shelf, JobPage job) {
        return PlannedJob.plan(shelf, job, Map.of()).then(planned -> {
            LoadedRows rows = new LoadedRows(planned, "Made by the job " + job.name());
            return Copies.openMade(
                    shelf.root(), "result of " + job.name(), rows.key(), rows, Optional.empty(), rows::told);
        });
    }

    /// A dataset of that name, or what the job of that name makes.
    public static Outcome<SourceFile> openNamed(Shelf shelf, String name) {
        return shelf.dataset(name).isEmpty() && shelf.job(name).isPresent()
                ? result(shelf, shelf.job(name).orElseThrow())
                : open(shelf, name);
    }

    /// As [#open], but no server is asked: it is a problem where there is no copy yet.
    public static Outcome<SourceFile> openHere(Shelf shelf, String name) {
        // A loader is not run to be listed.
        return shelf.dataset(name).flatMap(DatasetPage::call).isPresent()
                ? Copies.lastMade(shelf.root(), name)
                : Copies.here(() -> open(shelf, name));
    }

    /// The copy of a dataset that is in no file is made anew when it is needed next.
    public static void forgetCopy(Shelf shelf, String name) {
        shelf.loaded(name).filter(c -> !c.lines().isEmpty()).ifPresent(call -> FirstLine.forgetCopy(shelf, call));
        shelf.dataset(name)
                .filter(d -> d.call().isEmpty())
                .flatMap(d -> filled(shelf, d).value())
                .ifPresent(options -> Copies.forget(shelf.root(), name, options));
    }
}
