package fixshelf.shelf;

import fixshelf.language.catalogue.Constants;
import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Definition;
import fixshelf.operations.Operations;
import fixshelf.plan.Callables;
import fixshelf.plan.InBraces;
import fixshelf.plan.Line;
import fixshelf.plan.LoaderCall;
import fixshelf.plan.Operation;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.TableFix;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/// All pages of a shelf at one moment. It never changes; an edit gives another shelf.
public final class Shelf {
    private final Path root;
    private final Settings settings;
    private final List<FixPage> fixes;
    private final List<TableFixPage> tables;
    private final List<DatasetPage> datasets;
    private final List<JobPage> jobs;
    private final List<Problem> unreadable;
    private final FixCompiler compiler;
    private final Callables callables;

    Shelf(
            Path root,
            Settings settings,
            List<FixPage> fixes,
            List<TableFixPage> tables,
            List<DatasetPage> datasets,
            List<JobPage> jobs,
            List<Problem> unreadable) {
        this.root = root;
        this.settings = settings;
        this.fixes = List.copyOf(fixes);
        this.tables = List.copyOf(tables);
        this.datasets = List.copyOf(datasets);
        this.jobs = List.copyOf(jobs);
        this.unreadable = List.copyOf(unreadable);
        this.compiler = new FixCompiler(fixes);
        this.callables = new Callables(
                Operations.ALL, tables.stream().flatMap(this::operations).toList(), compiler, name -> fix(name)
                        .map(FixPage::sentence));
    }

    public Path root() {
        return root;
    }

    public Settings settings() {
        return settings;
    }

    public List<TableFixPage> tableFixes() {
        return tables;
    }

    public Optional<TableFixPage> tableFix(String name) {
        return tables.stream().filter(t -> t.name().equalsIgnoreCase(name)).findFirst();
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

    /// What a line can call: operations, table fixes and fixes.
    public Callables callables() {
        return callables;
    }

    /// A loader is called by a first line; its lines are what is called over the table that it reads.
    private Stream<Operation> operations(TableFixPage page) {
        TableFix lines = operation(page);
        return page.isLoader()
                ? Stream.of(new LoaderCall(page.name(), page.sentence(), lines), lines)
                : Stream.of(lines);
    }

    /// A table fix, or the lines of a loader, as an operation.
    public TableFix operation(TableFixPage page) {
        return new TableFix(
                page.callOfLines(),
                page.sentence(),
                page.summary(),
                page.parameters(),
                page.lines().stream().map(l -> l.in(page.source())).toList(),
                page.cases(),
                this::callables,
                page.showsOwn(),
                page.isLoader(),
                page.returns());
    }

    /// The loader of that name.
    public Optional<TableFixPage> loader(String name) {
        return tableFix(name).filter(TableFixPage::isLoader);
    }

    /// What a dataset calls once, as a job that reads and goes through the lines of the loader, or one whose columns
    /// get the types of their source, as a job that gives them these; empty for one that reads texts by itself, or
    /// calls for each row of a table. Its problems are those of the call.
    public Optional<JobPage> loaded(String dataset) {
        Optional<DatasetPage> page = dataset(dataset);
        return page.flatMap(d -> d.typed().map(types -> LoaderJobs.typed(d, types)))
                .or(() -> page.flatMap(
                        d -> d.call().filter(c -> c.each().isEmpty()).map(c -> loaded(d, c, arguments(c)))));
    }

    /// The arguments of a call, with values of the environment in the place of `{name}`.
    public Map<String, Written> arguments(DatasetPage.Call call) {
        return InBraces.filled(call.arguments(), settings.values());
    }

    /// A call of a dataset with these arguments.
    public JobPage loaded(DatasetPage page, DatasetPage.Call call, Map<String, Written> arguments) {
        Line line = new Line(call.loader(), arguments, "", call.strict(), false);
        return LoaderJobs.job(this, page.name(), line, new Where(page.source(), call.span()));
    }

    /// The first line of a loader with arguments in it.
    public Outcome<Line> reading(TableFixPage loader, Map<String, Written> arguments) {
        return LoaderJobs.read(loader, arguments);
    }

    /// What a first line calls, as such a job; empty for a line that calls no loader.
    public Optional<JobPage> loaded(Line line) {
        return loader(line.call()).map(l -> LoaderJobs.job(this, l.name() + "_rows", line, Where.nowhere(l.name())));
    }

    /// The options of the file that a line reads.
    public ReadOptions options(Line line) {
        return line.written(Line.SOURCE)
                .filter(Written.Word.class::isInstance)
                .flatMap(w -> dataset(((Written.Word) w).text()))
                .map(DatasetPage::options)
                .orElseGet(() -> LineFields.options(line, settings.nullWords()));
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
        fixes.forEach(f -> all.addAll(promisesOfNothing(f)));
        tables.forEach(t -> all.addAll(t.problems()));
        datasets.forEach(d -> all.addAll(d.problems()));
        datasets.stream().filter(d -> d.call().isPresent()).forEach(d -> loaded(d.name())
                .ifPresent(j -> all.addAll(j.problems())));
        datasets.forEach(d ->
                d.call().ifPresent(c -> all.addAll(LoaderJobs.problems(this, c, new Where(d.source(), c.span())))));
        jobs.forEach(j -> all.addAll(j.problems()));
        jobs.forEach(j -> all.addAll(missingReferences(j)));
        all.addAll(clashes());
        return all;
    }

    /// Promises that name a fix that is not there, or values that the fix cannot give.
    private List<Problem> promisesOfNothing(FixPage page) {
        List<Problem> problems = new ArrayList<>();
        for (Promise promise : page.promises()) {
            int at = Math.max(
                    0,
                    page.source()
                            .text()
                            .indexOf(promise.written(), page.source().text().indexOf("promises:")));
            Where where = new Where(
                    page.source(),
                    new Span(at, at + (at == 0 ? 0 : promise.written().length())));
            if (!promise.fix().isEmpty() && fix(promise.fix()).isEmpty()) {
                List<String> known = fixes.stream().map(FixPage::name).toList();
                problems.add(missing("fix", promise.fix(), where, known));
            }
            if (promise.kind() == Promise.Kind.ONE_OF) {
                promise.values().stream()
                        .filter(v -> !Constants.fits(v, page.returns()))
                        .findFirst()
                        .ifPresent(v -> problems.add(Problem.error(
                                Code.WRONG_TYPE,
                                where,
                                "The fix returns " + page.returns().label() + ", and one of these values is "
                                        + v.type().label() + ".",
                                "Change the value or the type.")));
            }
        }
        return problems;
    }

    private List<Problem> missingReferences(JobPage job) {
        List<Problem> problems = new ArrayList<>();
        for (JobPage.PlacedLine line : job.lines()) {
            Where where = new Where(job.source(), line.span());
            String call = line.line().call();
            if (Operations.find(call).isEmpty()
                    && tableFix(call).isEmpty()
                    && fix(call).isEmpty()) {
                problems.add(Problem.error(
                        Code.NO_SUCH,
                        where,
                        "There is no fix or operation " + call + " on this shelf.",
                        callables().instead(call)));
            }
            if (line == job.lines().getFirst() && line.line().rest()) {
                problems.add(
                        Problem.error(Code.BAD_FIELD, where, "The line that reads cannot rest.", "Leave out `rest`."));
            }
            if (line == job.lines().getFirst()
                    && !line.line().isRead()
                    && loader(call).isEmpty()) {
                problems.add(Problem.error(
                        Code.BAD_FIELD,
                        where,
                        "The first line of a job reads something.",
                        "Begin with `- read: name` of a dataset, `- read: {file: path}`, or a loader of this shelf."));
                continue;
            }
            if (call.equals(Line.READ)
                    && line.line().blanks().get("source") instanceof Written.Word(String name)
                    && dataset(name).isEmpty()
                    && job(name).isEmpty()
                    && job.lines().stream()
                            .takeWhile(above -> above != line)
                            .noneMatch(above -> above.line().name().equals(name))) {
                List<String> known =
                        new ArrayList<>(datasets.stream().map(DatasetPage::name).toList());
                jobs.forEach(j -> known.add(j.name()));
                problems.add(missing("dataset or job", name, where, known));
            }
            if (line.line().rest()) {
                problems.add(Problem.warning(
                        Code.AT_REST,
                        where,
                        "This line is at rest: runs leave it out.",
                        "Wake it, or take it out, when it is known what it is worth."));
            }
        }
        return problems;
    }

    private static Problem missing(String kind, String name, Where where, List<String> known) {
        return Problem.error(
                Code.NO_SUCH,
                where,
                "There is no " + kind + " " + name + " on this shelf.",
                fixshelf.language.tree.Names.suggest(name, known, "Write it, or name another."));
    }

    private List<Problem> clashes() {
        List<Problem> problems = new ArrayList<>();
        Map<String, SourceText> calls = new LinkedHashMap<>();
        fixes.forEach(f -> unique("fix", f.name(), f.source(), calls, problems));
        tables.forEach(t -> unique("fix", t.name(), t.source(), calls, problems));
        Map<String, SourceText> read = new LinkedHashMap<>();
        datasets.forEach(d -> unique("dataset", d.name(), d.source(), read, problems));
        Map<String, SourceText> run = new LinkedHashMap<>();
        jobs.forEach(j -> unique("job", j.name(), j.source(), run, problems));
        return problems;
    }

    private static void unique(
            String kind, String name, SourceText page, Map<String, SourceText> seen, List<Problem> problems) {
        SourceText other = seen.putIfAbsent(name.toLowerCase(Locale.ROOT), page);
        if (other != null) {
            problems.add(clash(kind, name, page, other));
        }
    }

    private static Problem clash(String kind, String name, SourceText page, SourceText other) {
        return Problem.error(
                Code.NAME_CLASH,
                new Where(page, new Span(0, 0)),
                "There is another " + kind + " " + name + " in " + other.name() + "; capitals do not tell names apart.",
                "Rename one of them.");
    }

    /// Where a fix, a dataset or a job is used: names of fixes, table fixes, datasets and jobs.
    public List<String> usersOf(String name) {
        return Uses.of(name, fixes, tables, datasets, jobs);
    }

    /// The shelf with the values of another of its environments.
    public Outcome<Shelf> withEnvironment(String name) {
        return settings.environments().containsKey(name)
                ? Outcome.of(new Shelf(root, settings.in(name), fixes, tables, datasets, jobs, unreadable))
                : Outcome.failed(Problem.about(
                        Code.NO_SUCH,
                        ShelfReader.SETTINGS,
                        "There is no environment " + name + " on this shelf.",
                        fixshelf.language.tree.Names.suggest(
                                name,
                                settings.environments().keySet(),
                                "Known: "
                                        + String.join(
                                                ", ", settings.environments().keySet()) + ".")));
    }

    /// The shelf with this page in place of the one in the same file, or added.
    public Shelf with(FixPage page) {
        return new Shelf(root, settings, replaced(fixes, page, FixPage::file), tables, datasets, jobs, unreadable);
    }

    /// The shelf with this page in place of the one in the same file, or added.
    public Shelf with(TableFixPage page) {
        return new Shelf(root, settings, fixes, replaced(tables, page, TableFixPage::file), datasets, jobs, unreadable);
    }

    /// The shelf with this page in place of the one in the same file, or added.
    public Shelf with(JobPage page) {
        return new Shelf(root, settings, fixes, tables, datasets, replaced(jobs, page, JobPage::file), unreadable);
    }

    /// The shelf with this page in place of the one in the same file, or added.
    public Shelf with(DatasetPage page) {
        return new Shelf(root, settings, fixes, tables, replaced(datasets, page, DatasetPage::file), jobs, unreadable);
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
