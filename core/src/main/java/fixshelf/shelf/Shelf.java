package fixshelf.shelf;

import fixshelf.language.Definition;
import fixshelf.language.Scope;
import fixshelf.plan.Line;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// All pages of a shelf at one moment. It never changes; an edit gives another shelf.
public final class Shelf {
    private final Path root;
    private final Settings settings;
    private final List<FixPage> fixes;
    private final List<DatasetPage> datasets;
    private final List<JobPage> jobs;
    private final List<Problem> unreadable;
    private final FixCompiler compiler;

    Shelf(
            Path root,
            Settings settings,
            List<FixPage> fixes,
            List<DatasetPage> datasets,
            List<JobPage> jobs,
            List<Problem> unreadable) {
        this.root = root;
        this.settings = settings;
        this.fixes = List.copyOf(fixes);
        this.datasets = List.copyOf(datasets);
        this.jobs = List.copyOf(jobs);
        this.unreadable = List.copyOf(unreadable);
        this.compiler = new FixCompiler(fixes);
    }

    public Path root() {
        return root;
    }

    public Settings settings() {
        return settings;
    }

    public List<FixPage> fixes() {
        return fixes;
    }

    public List<DatasetPage> datasets() {
        return datasets;
    }

    public List<JobPage> jobs() {
        return jobs;
    }

    /// The fixes as expressions and jobs call them.
    public Scope.Fixes callable() {
        return compiler;
    }

    public Outcome<Definition> definition(FixPage page) {
        return compiler.compile(page);
    }

    public Optional<FixPage> fix(String name) {
        return fixes.stream().filter(f -> f.name().equalsIgnoreCase(name)).findFirst();
    }

    public Optional<DatasetPage> dataset(String name) {
        return datasets.stream().filter(d -> d.name().equalsIgnoreCase(name)).findFirst();
    }

    public Optional<JobPage> job(String name) {
        return jobs.stream().filter(j -> j.name().equalsIgnoreCase(name)).findFirst();
    }

    /// Every problem of every page; none hides another.
    public List<Problem> problems() {
        List<Problem> all = new ArrayList<>(unreadable);
        all.addAll(settings.problems());
        compiler.compileAll();
        fixes.forEach(f -> all.addAll(definition(f).problems()));
        datasets.forEach(d -> all.addAll(d.problems()));
        jobs.forEach(j -> all.addAll(j.problems()));
        jobs.forEach(j -> all.addAll(missingReferences(j)));
        all.addAll(clashes());
        return all;
    }

    private List<Problem> missingReferences(JobPage job) {
        List<Problem> problems = new ArrayList<>();
        for (JobPage.PlacedLine line : job.lines()) {
            Where where = new Where(job.source(), line.span());
            if (line.line() instanceof Line.Apply apply && fix(apply.fix()).isEmpty()) {
                problems.add(missing(
                        "fix",
                        apply.fix(),
                        where,
                        fixes.stream().map(FixPage::name).toList()));
            }
            if (line.line() instanceof Line.ReadDataset(String name)
                    && dataset(name).isEmpty()) {
                problems.add(missing(
                        "dataset",
                        name,
                        where,
                        datasets.stream().map(DatasetPage::name).toList()));
            }
        }
        return problems;
    }

    private static Problem missing(String kind, String name, Where where, List<String> known) {
        return Problem.error(
                Code.NO_SUCH,
                where,
                "There is no " + kind + " " + name + " on this shelf.",
                fixshelf.language.Names.suggest(name, known, "Write it, or name another."));
    }

    private List<Problem> clashes() {
        List<Problem> problems = new ArrayList<>();
        Map<String, FixPage> seen = new HashMap<>();
        for (FixPage page : fixes) {
            FixPage other = seen.putIfAbsent(page.name().toLowerCase(Locale.ROOT), page);
            if (other != null) {
                problems.add(clash("fix", page.name(), page.source(), other.source()));
            }
        }
        Map<String, DatasetPage> datasetsSeen = new HashMap<>();
        for (DatasetPage page : datasets) {
            DatasetPage other = datasetsSeen.putIfAbsent(page.name().toLowerCase(Locale.ROOT), page);
            if (other != null) {
                problems.add(clash("dataset", page.name(), page.source(), other.source()));
            }
        }
        Map<String, JobPage> jobsSeen = new HashMap<>();
        for (JobPage page : jobs) {
            JobPage other = jobsSeen.putIfAbsent(page.name().toLowerCase(Locale.ROOT), page);
            if (other != null) {
                problems.add(clash("job", page.name(), page.source(), other.source()));
            }
        }
        return problems;
    }

    private static Problem clash(String kind, String name, SourceText page, SourceText other) {
        return Problem.error(
                Code.NAME_CLASH,
                new Where(page, new Span(0, 0)),
                "There is another " + kind + " " + name + " in " + other.name() + "; capitals do not tell names apart.",
                "Rename one of them.");
    }

    /// Where a fix is called: names of fixes and jobs.
    public List<String> usersOf(String fix) {
        List<String> users = new ArrayList<>();
        String call = "(?is).*\\b" + java.util.regex.Pattern.quote(fix) + "\\s*\\(.*";
        fixes.stream()
                .filter(f -> !f.name().equalsIgnoreCase(fix) && f.bodyText().matches(call))
                .forEach(f -> users.add(f.name()));
        jobs.stream()
                .filter(j -> j.lines().stream()
                        .anyMatch(l -> l.line() instanceof Line.Apply apply
                                && apply.fix().equalsIgnoreCase(fix)))
                .forEach(j -> users.add(j.name()));
        return users;
    }

    /// The shelf with the values of another of its environments.
    public Outcome<Shelf> withEnvironment(String name) {
        return settings.environments().containsKey(name)
                ? Outcome.of(new Shelf(root, settings.in(name), fixes, datasets, jobs, unreadable))
                : Outcome.failed(Problem.about(
                        Code.NO_SUCH,
                        ShelfReader.SETTINGS,
                        "There is no environment " + name + " on this shelf.",
                        fixshelf.language.Names.suggest(
                                name,
                                settings.environments().keySet(),
                                "Known: "
                                        + String.join(
                                                ", ", settings.environments().keySet()) + ".")));
    }

    /// The shelf with this page in place of the one in the same file, or added.
    public Shelf with(FixPage page) {
        return new Shelf(root, settings, replaced(fixes, page, FixPage::file), datasets, jobs, unreadable);
    }

    /// The shelf with this page in place of the one in the same file, or added.
    public Shelf with(JobPage page) {
        return new Shelf(root, settings, fixes, datasets, replaced(jobs, page, JobPage::file), unreadable);
    }

    private static <T> List<T> replaced(List<T> all, T page, java.util.function.Function<T, Path> file) {
        List<T> changed = new ArrayList<>(all);
        for (int i = 0; i < changed.size(); i++) {
            if (file.apply(changed.get(i)).equals(file.apply(page))) {
                changed.set(i, page);
                return changed;
            }
        }
        changed.add(page);
        return changed;
    }
}
