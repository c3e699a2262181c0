package fixshelf.work;

import fixshelf.language.Lexer;
import fixshelf.language.Names;
import fixshelf.plan.Line;
import fixshelf.plan.Plan;
import fixshelf.plan.Planner;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.Sentences;
import fixshelf.plan.Step;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.render.JobCode;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.source.DelimitedFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/// A job with its file found, its columns known, and its lines resolved.
public record PlannedJob(JobPage job, DelimitedFile source, Plan plan, List<Target> targets) {
    public PlannedJob {
        targets = List.copyOf(targets);
    }

    /// An output with its path found.
    ///
    /// @param objection why nothing must be written there
    public record Target(Path file, boolean replace, boolean parquet, Optional<Problem> objection) {
        Target(Path file, boolean replace, boolean parquet) {
            this(file, replace, parquet, Optional.empty());
        }

        private Target refused(Optional<Problem> why) {
            return new Target(file, replace, parquet, why);
        }
    }

    /// The job as languages write it, over a table that is called like the dataset, or like the file.
    public JobCode code(Shelf shelf) {
        List<JobCode.Line> lines = new ArrayList<>();
        for (int i = 1; i < plan.steps().size(); i++) {
            String sentence =
                    Sentences.plain(job.lines().get(i).line(), n -> shelf.fix(n).map(FixPage::sentence));
            boolean stops = plan.steps().get(i) instanceof Step.Compute compute && compute.lost() == Line.Lost.STOPS;
            lines.add(new JobCode.Line(
                    i + 1,
                    sentence + (stops ? " where Fix Shelf runs it, not here" : ""),
                    plan.steps().get(i)));
        }
        String about = job.about().isBlank() ? job.title() : job.about();
        return new JobCode(job.name(), about, sourceName(), plan.read().columns(), lines);
    }

    /// All jobs of the shelf as languages write them; `refused` takes those that cannot be planned, with the reason.
    public static List<JobCode> codes(Shelf shelf, List<String> refused) {
        List<JobCode> codes = new ArrayList<>();
        for (JobPage job : shelf.jobs()) {
            Outcome<PlannedJob> planned = plan(shelf, job, Map.of());
            planned.value().ifPresent(p -> codes.add(p.code(shelf)));
            planned.problems().stream()
                    .filter(Problem::isError)
                    .forEach(p -> refused.add(job.name() + ": " + p.sentence()));
        }
        return codes;
    }

    private String sourceName() {
        if (job.lines().getFirst().line() instanceof Line.ReadDataset(String dataset)) {
            return dataset;
        }
        String file = source.file().getFileName().toString().replaceFirst("\\.[^.]*$", "");
        String name = file.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_");
        return name.matches("[a-z].*") ? name : "source_" + name;
    }

    /// Plans a job that is to run; `set` are values that the user gives for this time. Any error stops it.
    public static Outcome<PlannedJob> plan(Shelf shelf, JobPage job, Map<String, String> set) {
        Outcome<PlannedJob> planned = draft(shelf, job, set);
        boolean wrong = planned.problems().stream().anyMatch(Problem::isError);
        return wrong ? Outcome.failed(planned.problems()) : planned;
    }

    /// Plans a job that is being written: lines with problems do nothing, and the problems stand beside the plan.
    public static Outcome<PlannedJob> draft(Shelf shelf, JobPage job, Map<String, String> set) {
        if (job.problems().stream().anyMatch(Problem::isError)) {
            return Outcome.failed(job.problems());
        }
        List<Problem> unknown = unknown(shelf, job, set.keySet());
        if (!unknown.isEmpty()) {
            return Outcome.failed(unknown);
        }
        Map<String, String> values = values(shelf, job, set);
        return source(shelf, job, values).then(source -> plan(shelf, job, source, values, set.keySet()));
    }

    /// Values for names that neither the environment, nor the job, nor one of its paths knows: a slip of the pen.
    private static List<Problem> unknown(Shelf shelf, JobPage job, Set<String> names) {
        Set<String> known = new TreeSet<>();
        job.parameters().keySet().stream().filter(n -> isUsed(job, n)).forEach(known::add);
        job.outputs().forEach(o -> known.addAll(Placeholders.names(o.path())));
        options(shelf, job.lines().getFirst().line(), Where.nowhere(job.name()))
                .value()
                .ifPresent(o -> known.addAll(Placeholders.names(o.path())));
        return names.stream()
                .filter(n -> !known.contains(n))
                .map(n -> Problem.about(
                        Code.NO_PARAMETER_VALUE,
                        job.name(),
                        "Nothing in this job is called {" + n + "}, so that no value can be set for it.",
                        Names.suggest(
                                n,
                                known,
                                known.isEmpty() ? "Leave it out." : "Known: " + String.join(", ", known) + ".")))
                .toList();
    }

    /// Whether an argument of a fix names a parameter of the job.
    private static boolean isUsed(JobPage job, String name) {
        return job.lines().stream()
                .map(JobPage.PlacedLine::line)
                .filter(Line.Apply.class::isInstance)
                .flatMap(l -> ((Line.Apply) l).arguments().values().stream())
                .anyMatch(text -> Lexer.tokens(text).stream()
                        .anyMatch(t -> t.in(text).replace("\"", "").equalsIgnoreCase(name)));
    }

    /// The parameters of the job with the values that are in force.
    private static Map<String, String> parameters(JobPage job, Map<String, String> values) {
        Map<String, String> parameters = new LinkedHashMap<>();
        job.parameters().keySet().forEach(n -> parameters.put(n, values.getOrDefault(n, "")));
        return parameters;
    }

    /// The values of the environment, then of the job's parameters, then of the user; later ones win.
    private static Map<String, String> values(Shelf shelf, JobPage job, Map<String, String> set) {
        Map<String, String> values = new HashMap<>(shelf.settings().values());
        values.putAll(job.parameters());
        values.putAll(set);
        return values;
    }

    /// All problems of all jobs that can be found without running them: their lines are planned over the columns of
    /// their files. `passed` takes the jobs whose file is not in the shelf, or not there, which are not looked at.
    public static List<Problem> problems(Shelf shelf, List<String> passed) {
        List<Problem> problems = new ArrayList<>();
        for (JobPage job : shelf.jobs()) {
            if (job.problems().stream().anyMatch(Problem::isError)) {
                continue;
            }
            Map<String, String> values = values(shelf, job, Map.of());
            JobPage.PlacedLine first = job.lines().getFirst();
            Where where = new Where(job.source(), first.span());
            Outcome<Path> file = options(shelf, first.line(), where)
                    .then(o -> Placeholders.fill(o.path(), values, where))
                    .map(path -> shelf.root().resolve(path).normalize());
            boolean there = file.value()
                    .filter(f -> f.startsWith(shelf.root()) && Files.isRegularFile(f))
                    .isPresent();
            if (there) {
                problems.addAll(draft(shelf, job, Map.of()).problems());
            } else {
                problems.addAll(file.problems());
                file.value().ifPresent(f -> passed.add(job.name() + " reads " + f));
            }
        }
        return problems;
    }

    /// The file that the first line reads.
    public static Outcome<DelimitedFile> source(Shelf shelf, JobPage job, Map<String, String> values) {
        JobPage.PlacedLine first = job.lines().getFirst();
        Where where = new Where(job.source(), first.span());
        return options(shelf, first.line(), where)
                .then(options -> Placeholders.fill(options.path(), values, where)
                        .then(path ->
                                DelimitedFile.open(shelf.root().resolve(path).normalize(), options.withPath(path))))
                .then(Outcome::of);
    }

    /// As [#source], with the values that are in force without any given by the user.
    public static Outcome<DelimitedFile> source(Shelf shelf, JobPage job) {
        return source(shelf, job, values(shelf, job, Map.of()));
    }

    private static Outcome<ReadOptions> options(Shelf shelf, Line line, Where where) {
        if (line instanceof Line.ReadFile(ReadOptions options)) {
            return Outcome.of(options);
        }
        String name = line instanceof Line.ReadDataset(String dataset) ? dataset : "";
        Optional<DatasetPage> page = shelf.dataset(name);
        if (page.isEmpty()) {
            return Outcome.failed(Problem.error(
                    Code.NO_SUCH, where, "There is no dataset " + name + " on this shelf.", "Name another."));
        }
        boolean broken = page.get().problems().stream().anyMatch(Problem::isError);
        return broken
                ? Outcome.failed(page.get().problems())
                : Outcome.of(page.get().options());
    }

    private static Outcome<PlannedJob> plan(
            Shelf shelf, JobPage job, DelimitedFile source, Map<String, String> values, Set<String> set) {
        Step.Read read = new Step.Read(source.options(), source.columns());
        List<Planner.PlacedLine> lines = job.lines().stream()
                .skip(1)
                .map(l -> new Planner.PlacedLine(l.line(), new Where(job.source(), l.span())))
                .toList();
        return TableMappings.filled(shelf, lines)
                .then(filled -> Planner.plan(read, filled, shelf.callable(), parameters(job, values)))
                .then(plan -> targets(shelf, job, source, values, set)
                        .map(targets -> new PlannedJob(job, source, plan, targets)));
    }

    private static Outcome<List<Target>> targets(
            Shelf shelf, JobPage job, DelimitedFile source, Map<String, String> values, Set<String> set) {
        List<Path> read = new ArrayList<>(OutputPlace.readBy(shelf));
        read.add(source.file());
        Outcome<List<Target>> all = Outcome.of(List.of());
        for (JobPage.Output output : job.outputs()) {
            Where where = new Where(job.source(), output.span());
            all = all.then(
                    before -> Placeholders.fill(output.path(), values, where).map(path -> {
                        List<Target> more = new ArrayList<>(before);
                        Target target = new Target(
                                shelf.root().resolve(path).normalize(), output.replace(), output.isParquet());
                        boolean byUser =
                                Placeholders.names(output.path()).stream().anyMatch(set::contains);
                        more.add(target.refused(OutputPlace.objection(shelf.root(), target, read, byUser)));
                        return more;
                    }));
        }
        return all;
    }
}
