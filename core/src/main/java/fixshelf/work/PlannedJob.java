package fixshelf.work;

import fixshelf.output.TableTarget;
import fixshelf.fetch.Consent;
import fixshelf.fetch.Copies;
import fixshelf.language.Lexer;
import fixshelf.language.Names;
import fixshelf.plan.Context;
import fixshelf.plan.Line;
import fixshelf.plan.Operation;
import fixshelf.plan.Plan;
import fixshelf.plan.Planner;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.Sentences;
import fixshelf.plan.Step;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.render.SqlLanguage;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.table.Relation;
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
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/// A job with its file found, its columns known, and its lines resolved.
///
/// @param others the files of other datasets that its lines bring in, by their names
/// @param read the jobs whose results it reads or brings in, which may read others
public record PlannedJob(
        JobPage job,
        SourceFile source,
        Plan plan,
        List<Target> targets,
        Map<String, SourceFile> others,
        List<PlannedJob> read) {
    public PlannedJob {
        read = List.copyOf(read);
        targets = List.copyOf(targets);
        others = Map.copyOf(others);
    }

    /// An output with its path found.
    ///
    /// @param objection why nothing must be written there
    /// @param report what is written there, if not the result: a report of a line
    /// @param table the table that is written, where the file is a database; for a server, the file
    /// only stands for it
    /// @param sheet how the rows stand in a workbook, where it is one
    /// @param definition what is written where it is a definition; empty for rows
    public record Target(
            Path file,
            boolean replace,
            OutputForm form,
            Optional<Problem> objection,
            Optional<OfLine> report,
            Optional<TableTarget> table,
            JobPage.InSheet sheet,
            String definition) {
        Target(Path file, boolean replace) {
            this(
                    file,
                    replace,
                    OutputForm.of(file).orElse(OutputForm.COMMAS),
                    Optional.empty(),
                    Optional.empty(),
                    Optional.empty(),
                    JobPage.InSheet.USUAL,
                    "");
        }

        Target refused(Optional<Problem> why) {
            return new Target(file, replace, form, why, report, table, sheet, definition);
        }

        Target of(Optional<OfLine> other) {
            return new Target(file, replace, form, objection, other, table, sheet, definition);
        }

        Target into(OutputForm other, TableTarget into) {
            return new Target(file, replace, other, objection, report, Optional.of(into), sheet, definition);
        }

        Target in(JobPage.InSheet now) {
            return new Target(file, replace, form, objection, report, table, now, definition);
        }

        Target defined(String text) {
            return new Target(file, replace, form, objection, report, table, sheet, text);
        }

        /// The name of its sheet, where it is one of a workbook: as it is written, or that of the
        /// file, as far as a sheet can be called so.
        String sheetName() {
            if (form != OutputForm.WORKBOOK) {
                return "";
            }
            String base = file.getFileName().toString().replaceFirst("\\.[^.]*$", "");
            String plain = base.replaceAll("[\\[\\]:*?/\\\\']", "_");
            return !sheet.name().isEmpty()
                    ? sheet.name()
                    : plain.isBlank() ? "rows" : plain.substring(0, Math.min(31, plain.length()));
        }

        /// As messages name it.
        String shown() {
            if (!sheet.name().isEmpty()) {
                return "sheet " + sheet.name() + " of " + file.getFileName();
            }
            return table.map(t -> t.server().isPresent() ? t.shown() : t.shown() + " of " + file.getFileName())
                    .orElseGet(() -> String.valueOf(file.getFileName()));
        }
    }

    /// A report, and the number of the line that gives it; one without a name is the table after the line.
    public record OfLine(int line, Operation.Report report) {
        boolean isTable() {
            return report.name().isEmpty();
        }
    }

    /// Where a line stands, counted from 1.
    public Where where(int line) {
        return new Where(job.source(), job.lines().get(line - 1).span());
    }

    /// What the rows of its first line are from, in words: a file, what that is a copy of, or what another job or a
    /// loader gives.
    public String readFrom() {
        Line first = job.lines().getFirst().line();
        if (plan.readsJob()) {
            return first.isRead() ? dataset(first) : first.call();
        }
        return source.copied()
                .map(SourceFile.Copied::from)
                .orElseGet(() -> String.valueOf(source.file().getFileName()));
    }

    /// The job as languages write it, over tables that are called like datasets, or like the file.
    public JobCode code(Shelf shelf) {
        List<JobCode.Line> lines = new ArrayList<>();
        for (Step step : plan.steps().subList(plan.readsJob() ? 0 : 1, plan.resultLine())) {
            String sentence = Sentences.plain(step.line(), shelf.callables());
            boolean looked = shelf.callables()
                    .find(step.line().call())
                    .filter(o -> o.about().languages().startsWith("What was seen"))
                    .isPresent();
            String seen = looked ? " (what was seen in the data is written out)" : "";
            String resting = step.line().rest() ? " (at rest)" : "";
            String stops = step.line().strict() ? " where Fix Shelf runs it, not here" : "";
            lines.add(new JobCode.Line(step.number(), sentence + seen + resting + stops, step));
        }
        String about = job.about().isBlank() ? job.title() : job.about();
        List<JobCode.Source> sources = new ArrayList<>(List.of(new JobCode.Source(sourceName(), plan.source())));
        for (Relation.Source other : plan.others()) {
            if (sources.stream().noneMatch(s -> s.name().equals(other.name()))) {
                sources.add(new JobCode.Source(other.name(), other.shape().columns()));
            }
        }
        return new JobCode(job.name(), about, sources, lines);
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
        if (!plan.read().name().isEmpty()) {
            return plan.read().name();
        }
        String file = source.file().getFileName().toString().replaceFirst("\\.[^.]*$", "");
        String name = file.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_");
        String called = name.matches("[a-z].*") ? name : "source_" + name;
        boolean taken = plan.others().stream().anyMatch(o -> o.name().equals(called));
        return taken ? called + "_file" : called;
    }

    /// Plans a job that is to run; `set` are values that the user gives for this time. Any error stops it.
    public static Outcome<PlannedJob> plan(Shelf shelf, JobPage job, Map<String, String> set) {
        Outcome<PlannedJob> planned = draft(shelf, job, set);
        boolean wrong = planned.problems().stream().anyMatch(Problem::isError);
        return wrong ? Outcome.failed(planned.problems()) : planned;
    }

    /// Plans a job that is being written: lines with problems do nothing, and the problems stand beside the plan.
    public static Outcome<PlannedJob> draft(Shelf shelf, JobPage job, Map<String, String> set) {
        return draft(shelf, job, set, List.of(job.name()));
    }

    /// As above; `chain` are the jobs that are being planned, as they read each other, the last of them this one.
    static Outcome<PlannedJob> draft(Shelf shelf, JobPage job, Map<String, String> set, List<String> chain) {
        if (job.problems().stream().anyMatch(Problem::isError)) {
            return Outcome.failed(job.problems());
        }
        List<Problem> unknown = unknown(shelf, job, set.keySet());
        if (!unknown.isEmpty()) {
            return Outcome.failed(unknown);
        }
        Map<String, String> values = values(shelf, job, set);
        if (!set.isEmpty()) {
            allowNamed(shelf, job, values, set.keySet());
        }
        return source(shelf, job, values).then(source -> plan(shelf, job, source, values, set.keySet(), chain));
    }

    /// The places outside of the shelf that a job reads from by itself, or writes to, and that are not allowed yet.
    static List<Consent.Place> asked(Shelf shelf, JobPage job) {
        Map<String, String> values = values(shelf, job, Map.of());
        Where where = Where.nowhere(job.name());
        List<Consent.Place> asked = new ArrayList<>();
        job.firstLine().flatMap(shelf::loaded).ifPresent(call -> asked.addAll(asked(shelf, call)));
        job.firstLine()
                .filter(l -> l.call().equals(Line.READ_FILE))
                .flatMap(l -> Placeholders.fill(shelf.options(l), values, where).value())
                .flatMap(o -> Copies.asked(shelf.root(), o))
                .ifPresent(asked::add);
        for (JobPage.Output output : job.outputs()) {
            Placeholders.fill(output.path(), values, where)
                    .value()
                    .flatMap(OutputTables::address)
                    .map(a -> a.place().toWrite())
                    .filter(p -> !Consent.isGiven(shelf.root(), p))
                    .ifPresent(asked::add);
        }
        return asked;
    }

    /// Who names a place with a value for this run allows it by that.
    private static void allowNamed(Shelf shelf, JobPage job, Map<String, String> values, Set<String> set) {
        Where where = Where.nowhere(job.name());
        chain(shelf, job)
                .then(c -> options(shelf, c.getLast().lines().getFirst().line(), where))
                .value()
                .filter(o -> Placeholders.names(o.path()).stream().anyMatch(set::contains))
                .flatMap(o -> Placeholders.fill(o, values, where).value())
                .flatMap(o -> Copies.asked(shelf.root(), o))
                .ifPresent(Consent::forNow);
    }

    /// Values for names that neither the environment, nor the job, nor one of its paths knows: a slip of the pen.
    private static List<Problem> unknown(Shelf shelf, JobPage job, Set<String> names) {
        Set<String> known = new TreeSet<>();
        job.parameters().keySet().stream().filter(n -> isUsed(job, n)).forEach(known::add);
        job.outputs().forEach(o -> known.addAll(Placeholders.names(o.path())));
        chain(shelf, job)
                .then(c -> options(shelf, c.getLast().lines().getFirst().line(), Where.nowhere(job.name())))
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

    /// Whether something that is written in a line names a parameter of the job.
    private static boolean isUsed(JobPage job, String name) {
        return job.lines().stream()
                .flatMap(l -> l.line().blanks().values().stream())
                .flatMap(PlannedJob::words)
                .anyMatch(text -> Lexer.tokens(text).stream()
                        .anyMatch(t -> t.in(text).replace("\"", "").equalsIgnoreCase(name)));
    }

    private static Stream<String> words(Written written) {
        return switch (written) {
            case Written.Word(String text) -> Stream.of(text);
            case Written.Items(List<Written> items) -> items.stream().flatMap(PlannedJob::words);
            case Written.Fields(Map<String, Written> fields) ->
                fields.values().stream().flatMap(PlannedJob::words);
        };
    }

    /// The parameters of the job with the values that are in force.
    private static Map<String, String> parameters(JobPage job, Map<String, String> values) {
        Map<String, String> parameters = new LinkedHashMap<>();
        job.parameters().keySet().forEach(n -> parameters.put(n, values.getOrDefault(n, "")));
        return parameters;
    }

    /// The values of the environment, then of the job's parameters, then of the user; later ones win.
    static Map<String, String> values(Shelf shelf, JobPage job, Map<String, String> set) {
        Map<String, String> values = new HashMap<>(shelf.settings().values());
        values.putAll(job.parameters());
        values.putAll(set);
        return values;
    }

    /// What is not known without asking somebody outside is no problem of a page.
    private static final Set<Code> ELSEWHERE = Set.of(Code.NOT_READ_YET, Code.NOT_ALLOWED);

    /// All problems of all jobs that can be found without running them: their lines are planned over the columns of
    /// their files. `passed` takes the jobs whose file is not in the shelf, or not there, which are not looked at.
    public static List<Problem> problems(Shelf shelf, List<String> passed) {
        List<Problem> problems = new ArrayList<>();
        List<JobPage> all = new ArrayList<>(shelf.jobs());
        shelf.datasets().forEach(d -> shelf.loaded(d.name()).ifPresent(all::add));
        for (JobPage job : all) {
            Line begins = job.lines().isEmpty()
                    ? Line.readDataset("")
                    : job.lines().getFirst().line();
            // A first line that reads nothing is a problem of the page, which is told already.
            if (job.problems().stream().anyMatch(Problem::isError)
                    || !begins.isRead() && shelf.loader(begins.call()).isEmpty()) {
                continue;
            }
            Map<String, String> values = values(shelf, job, Map.of());
            JobPage.PlacedLine first = job.lines().getFirst();
            Where where = new Where(job.source(), first.span());
            Outcome<ReadOptions> read = chain(shelf, job)
                    .then(c -> options(shelf, c.getLast().lines().getFirst().line(), where));
            String last = chain(shelf, job)
                    .value()
                    .map(c -> dataset(c.getLast().lines().getFirst().line()))
                    .orElse("");
            if (Datasets.callsForEach(shelf, last)) {
                passed.add(job.name() + " reads " + last + ", many calls");
                continue;
            }
            Optional<ReadOptions.Form> form = read.value().flatMap(ReadOptions::form);
            if (form.orElse(null) instanceof ReadOptions.Form.Elsewhere
                    && !(form.get() instanceof ReadOptions.Form.Typed)) {
                passed.add(job.name() + " reads " + read.get().path());
                continue;
            }
            Outcome<Path> file = read.then(o -> Placeholders.fill(o.path(), values, where))
                    .map(path -> shelf.root().resolve(path).normalize());
            boolean there = form.orElse(null) instanceof ReadOptions.Form.Typed
                    || file.value()
                            .filter(f -> f.startsWith(shelf.root()) && Files.isRegularFile(f))
                            .isPresent();
            if (there) {
                for (Problem problem :
                        Copies.here(() -> draft(shelf, job, Map.of())).problems()) {
                    if (ELSEWHERE.contains(problem.code())) {
                        passed.add(job.name() + " brings in what is elsewhere");
                    } else {
                        problems.add(problem);
                    }
                }
            } else {
                problems.addAll(file.problems());
                file.value().ifPresent(f -> passed.add(job.name() + " reads " + f));
            }
        }
        return problems;
    }

    /// The file that the first line reads.
    public static Outcome<SourceFile> source(Shelf shelf, JobPage job, Map<String, String> values) {
        JobPage.PlacedLine first = job.lines().getFirst();
        Where where = new Where(job.source(), first.span());
        Optional<JobPage> other = readJob(shelf, first.line());
        if (other.isPresent()) {
            return chain(shelf, job).then(c -> {
                JobPage last = c.getLast();
                return source(shelf, last, values(shelf, last, Map.of()));
            });
        }
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
                .then(o -> Placeholders.fill(o, values(shelf, job, Map.of()), where))
                .value()
                .ifPresent(o -> Copies.forget(shelf.root(), dataset(first.line()), o));
    }

    /// As [#source], with the values that are in force without any given by the user.
    public static Outcome<SourceFile> source(Shelf shelf, JobPage job) {
        return source(shelf, job, values(shelf, job, Map.of()));
    }

    /// The dataset that a line reads; empty for a file.
    static String dataset(JobPage job) {
        return job.firstLine().map(PlannedJob::dataset).orElse("");
    }

    private static String dataset(Line line) {
        return line.blanks().get("source") instanceof Written.Word(String name) ? name : "";
    }

    /// The job that a line reads, which a call of a loader is too; none where it reads a file, or a
    /// dataset that is one.
    static Optional<JobPage> readJob(Shelf shelf, Line line) {
        String name = dataset(line);
        Optional<JobPage> loaded = line.isRead() ? shelf.loaded(name) : shelf.loaded(line);
        if (loaded.isPresent()) {
            return loaded;
        }
        return line.call().equals(Line.READ_FILE)
                        || name.isEmpty()
                        || shelf.dataset(name).isPresent()
                ? Optional.empty()
                : shelf.job(name);
    }

    /// The job, the one that its first line reads, and so on, or the circle that they make.
    private static Outcome<List<JobPage>> chain(Shelf shelf, JobPage job) {
        List<JobPage> chain = new ArrayList<>(List.of(job));
        for (Optional<JobPage> next = Optional.of(job); next.isPresent(); ) {
            JobPage last = chain.getLast();
            next = last.lines().isEmpty()
                    ? Optional.empty()
                    : readJob(shelf, last.lines().getFirst().line());
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

    private static Outcome<PlannedJob> plan(
            Shelf shelf,
            JobPage job,
            SourceFile source,
            Map<String, String> values,
            Set<String> set,
            List<String> chain) {
        List<Planner.PlacedLine> lines =
                job.lines().stream().map(l -> placed(job, l)).toList();
        JobSources sources = new JobSources(shelf, chain);
        String name = dataset(job.lines().getFirst().line());
        Optional<JobPage> other = readJob(shelf, job.lines().getFirst().line());
        Outcome<Relation> read = other.isPresent()
                ? sources.read(other.get())
                : Outcome.of(Planner.source(name, source.columns(), new Context.Ids(0)));
        if (!read.isPresent()) {
            Where where = new Where(job.source(), job.lines().getFirst().span());
            return Outcome.failed(read.problems().stream()
                    .map(p -> Problem.error(p.code(), where, p.what(), p.todo()))
                    .toList());
        }
        try (DataLooks looks = new DataLooks(job, source, sources.files())) {
            return Planner.plan(read.get(), lines, shelf.callables(), parameters(job, values), sources, looks)
                    .map(plan -> plan.withResult(resultLine(job)))
                    .then(plan -> targets(shelf, job, source, plan, values, set)
                            .map(targets ->
                                    new PlannedJob(job, source, plan, targets, sources.files(), sources.jobs())));
        }
    }

    private static int resultLine(JobPage job) {
        return IntStream.rangeClosed(1, job.lines().size())
                .filter(_ -> !job.result().isEmpty())
                .filter(n -> JobPage.isNamed(job.lines().get(n - 1).line(), n, job.result()))
                .findFirst()
                .orElse(job.lines().size());
    }

    private static OfLine result(Plan plan) {
        return new OfLine(
                plan.resultLine(), new Operation.Report("", plan.result().result(), "rows"));
    }

    private static Planner.PlacedLine placed(JobPage job, JobPage.PlacedLine line) {
        Map<String, Where> blanks = new HashMap<>();
        line.blanks().forEach((name, span) -> blanks.put(name, new Where(job.source(), span)));
        return new Planner.PlacedLine(line.line(), new Where(job.source(), line.span()), blanks);
    }

    /// The report that an output writes.
    private static Outcome<Optional<OfLine>> report(JobPage.OfReport of, Plan plan, Where where) {
        Optional<Step> step = plan.steps().stream()
                .filter(s -> JobPage.isNamed(s.line(), s.number(), of.line()))
                .findFirst();
        List<String> known = step.map(
                        s -> s.reports().stream().map(Operation.Report::name).toList())
                .orElse(List.of());
        if (of.report().isEmpty() && step.isPresent()) {
            Step line = step.get();
            return Outcome.of(Optional.of(new OfLine(line.number(), new Operation.Report("", line.result(), "rows"))));
        }
        Optional<OfLine> found = step.flatMap(s -> s.reports().stream()
                .filter(r -> r.name().equals(of.report()))
                .findFirst()
                .map(r -> new OfLine(s.number(), r)));
        return found.isPresent()
                ? Outcome.of(found)
                : Outcome.failed(Problem.error(
                        Code.NO_SUCH,
                        where,
                        step.isEmpty()
                                ? "There is no line " + of.line() + " in this job."
                                : "Line " + of.line() + " gives no report " + of.report() + ".",
                        step.isEmpty()
                                ? "Give a line a `name`, or write its number."
                                : known.isEmpty() ? "It gives none." : "It gives " + String.join(", ", known) + "."));
    }

    /// A target with the text of its view, or refused where the language cannot say it.
    private static Target defined(
            Shelf shelf, JobPage job, SourceFile source, Plan plan, JobPage.Output output, Target target) {
        String id = output.language().isEmpty() ? "duckdb" : output.language();
        Optional<SqlLanguage> language =
                Languages.find(id).filter(SqlLanguage.class::isInstance).map(SqlLanguage.class::cast);
        if (language.isEmpty()) {
            List<String> known = Languages.ALL.stream()
                    .filter(SqlLanguage.class::isInstance)
                    .map(Language::id)
                    .toList();
            return target.refused(Optional.of(Problem.about(
                    Code.BAD_FIELD,
                    job.name(),
                    "There is no view in " + id + ".",
                    Names.suggest(id, known, "Known: " + String.join(", ", known) + "."))));
        }
        Outcome<String> view =
                language.get().view(new PlannedJob(job, source, plan, List.of(), Map.of(), List.of()).code(shelf));
        return view.isPresent()
                ? target.defined(view.get())
                : target.refused(Optional.of(Problem.about(
                        Code.CANNOT_SAY, job.name(), view.problems().getFirst().what(), "Choose another language.")));
    }

    private static Outcome<List<Target>> targets(
            Shelf shelf, JobPage job, SourceFile source, Plan plan, Map<String, String> values, Set<String> set) {
        List<Path> read = new ArrayList<>(OutputPlace.readBy(shelf));
        read.addAll(source.files());
        read.add(source.file());
        Outcome<List<Target>> all = Outcome.of(List.of());
        for (JobPage.Output output : job.outputs()) {
            Where where = new Where(job.source(), output.span());
            Outcome<Optional<OfLine>> of = output.of().isEmpty()
                    ? Outcome.of(
                            plan.resultLine() == plan.steps().size() ? Optional.empty() : Optional.of(result(plan)))
                    : report(output.of().get(), plan, where);
            all = all.then(before -> of.then(
                    report -> Placeholders.fill(output.path(), values, where).map(path -> {
                        List<Target> more = new ArrayList<>(before);
                        boolean byUser =
                                Placeholders.names(output.path()).stream().anyMatch(set::contains);
                        more.add(OutputTables.target(shelf, job, output, path, values)
                                .orElseGet(() -> {
                                    Target target = OutputTables.inFile(
                                            new Target(
                                                    shelf.root().resolve(path).normalize(), output.replace()),
                                            output);
                                    return target.objection().isPresent()
                                            ? target
                                            : target.refused(OutputPlace.objection(shelf.root(), target, read, byUser));
                                })
                                .in(output.sheet())
                                .of(report));
                        if (more.getLast().form() == OutputForm.DEFINITION) {
                            more.add(defined(shelf, job, source, plan, output, more.removeLast()));
                        }
                        return more;
                    })));
        }
        return all;
    }
}
