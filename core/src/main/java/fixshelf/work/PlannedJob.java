package fixshelf.work;

import fixshelf.fetch.Consent;
import fixshelf.language.tree.Lexer;
import fixshelf.language.tree.Names;
import fixshelf.output.TableTarget;
import fixshelf.plan.Context;
import fixshelf.plan.InBraces;
import fixshelf.plan.Line;
import fixshelf.plan.Operation;
import fixshelf.plan.Plan;
import fixshelf.plan.Planner;
import fixshelf.plan.Sentences;
import fixshelf.plan.Step;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.render.JobCode;
import fixshelf.shelf.DelimitedText;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
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
import java.util.function.IntPredicate;
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
    /// @param text how delimited text is written
    /// @param definition what is written where it is a definition; empty for rows
    public record Target(
            Path file,
            boolean replace,
            OutputForm form,
            Optional<Problem> objection,
            Optional<OfLine> report,
            Optional<TableTarget> table,
            JobPage.InSheet sheet,
            String definition,
            DelimitedText text) {
        Target(Path file, boolean replace) {
            this(
                    file,
                    replace,
                    OutputForm.of(file).orElse(OutputForm.COMMAS),
                    Optional.empty(),
                    Optional.empty(),
                    Optional.empty(),
                    JobPage.InSheet.USUAL,
                    "",
                    DelimitedText.USUAL);
        }

        Target refused(Optional<Problem> why) {
            return new Target(file, replace, form, why, report, table, sheet, definition, text);
        }

        Target of(Optional<OfLine> other) {
            return new Target(file, replace, form, objection, other, table, sheet, definition, text);
        }

        Target into(OutputForm other, TableTarget into) {
            return new Target(file, replace, other, objection, report, Optional.of(into), sheet, definition, text);
        }

        Target in(JobPage.InSheet now) {
            return new Target(file, replace, form, objection, report, table, now, definition, text);
        }

        Target defined(String view) {
            return new Target(file, replace, form, objection, report, table, sheet, view, text);
        }

        Target told(DelimitedText now) {
            return new Target(file, replace, form, objection, report, table, sheet, definition, now);
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
                    : plain.isBlank()
                            ? "rows"
                            : plain.substring(0, Math.min(JobPages.LONGEST_SHEET_NAME, plain.length()));
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
        /// The name of the rows that a line lets leave.
        static final String LEFT = "left";

        /// The rows that leave at a line, as the fields that they had before it; none where no row can leave.
        static Optional<Operation.Report> left(Plan plan, Step step) {
            boolean leave = step.number() > 1 && (step.rows() == Lineage.Rows.FEWER || step.rows() == Lineage.Rows.ANY);
            return leave
                    ? Optional.of(new Operation.Report(
                            LEFT, plan.before(step.number()).result(), "rows that left"))
                    : Optional.empty();
        }

        boolean isOfLeft() {
            return report.name().equals(LEFT);
        }

        boolean isTable() {
            return report.name().isEmpty();
        }
    }

    /// Where a line stands, counted from 1.
    public Where where(int line) {
        return new Where(job.source(), job.lines().get(line - 1).span());
    }

    /// The report of a line by its name; none when it has no such report.
    public Optional<Operation.Report> report(int line, String name) {
        return plan.steps().get(line - 1).reports().stream()
                .filter(r -> r.name().equals(name))
                .findFirst();
    }

    /// What the rows of its first line are from, in words: a file, what that is a copy of, or what another job or a
    /// loader gives.
    public String readFrom() {
        Line first = job.lines().getFirst().line();
        if (!plan.readsRows()) {
            return first.isRead() ? FirstLine.dataset(first) : first.call();
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

    /// The job or the loader of that name whose rows this one takes in, by itself or through another.
    public Optional<PlannedJob> within(String name) {
        return read.stream()
                .flatMap(r -> r.job().name().equalsIgnoreCase(name) ? Stream.of(r) : r.within(name).stream())
                .findFirst();
    }

    /// What a line calls the dataset, job or loader that it takes in beside the rows before it.
    Optional<String> otherOf(Step step) {
        String call = step.line().call();
        if (read.stream().anyMatch(r -> r.job().name().equals(call + "_rows"))) {
            return Optional.of(call);
        }
        return step.line().blanks().values().stream()
                .filter(Written.Word.class::isInstance)
                .map(w -> ((Written.Word) w).text())
                .filter(n -> Stream.concat(
                                others.keySet().stream(),
                                read.stream().map(r -> r.job().name()))
                        .anyMatch(n::equalsIgnoreCase))
                .findFirst();
    }

    /// The job, or the call of a loader, whose rows a line takes in.
    Optional<PlannedJob> otherRead(Step step) {
        Map<String, Written> arguments = step.line().blanks();
        Optional<PlannedJob> called = read.stream()
                .filter(r -> r.job().name().equals(step.line().call() + "_rows"))
                .filter(r ->
                        r.job().lines().getLast().line().blanks().entrySet().containsAll(arguments.entrySet()))
                .findFirst();
        return called.or(() -> otherOf(step).flatMap(n -> read.stream()
                .filter(r -> r.job().name().equalsIgnoreCase(n))
                .findFirst()));
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
        if (chain.size() == 1 && !set.isEmpty()) {
            List<Problem> unknown = unknown(shelf, job, set.keySet());
            if (!unknown.isEmpty()) {
                return Outcome.failed(unknown);
            }
            FirstLine.allowNamed(shelf, job, set);
        }
        Outcome<PlannedJob> planned =
                FirstLine.source(shelf, job, set).then(source -> plan(shelf, job, source, set, chain));
        return chain.size() == 1 ? withPlaces(shelf, job, planned) : planned;
    }

    /// Where one place is not allowed, all others that the job would use are named too, so that
    /// they are allowed at once.
    private static Outcome<PlannedJob> withPlaces(Shelf shelf, JobPage job, Outcome<PlannedJob> planned) {
        List<Consent.Place> named = Consent.askedBy(planned.problems());
        if (named.isEmpty()) {
            return planned;
        }
        List<Problem> problems = new ArrayList<>(planned.problems());
        Datasets.asked(shelf, job).stream()
                .filter(p -> !named.contains(p))
                .flatMap(p -> Consent.objection(shelf.root(), p).stream())
                .forEach(problems::add);
        return new Outcome<>(planned.value(), problems);
    }

    /// Values for names that neither the environment, nor the job, nor one of its paths knows: a slip of the pen.
    private static List<Problem> unknown(Shelf shelf, JobPage job, Set<String> names) {
        Set<String> known = new TreeSet<>();
        Stream.concat(job.parameters().keySet().stream(), shelf.settings().values().keySet().stream())
                .filter(n -> isUsed(job, n))
                .forEach(known::add);
        job.outputs().forEach(o -> known.addAll(InBraces.names(o.path())));
        FirstLine.options(shelf, job, Map.of()).value().ifPresent(o -> known.addAll(Placeholders.names(o)));
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

    private static Outcome<PlannedJob> plan(
            Shelf shelf, JobPage job, SourceFile source, Map<String, String> set, List<String> chain) {
        Map<String, String> values = values(shelf, job, set);
        List<Planner.PlacedLine> lines =
                job.lines().stream().map(l -> placed(shelf, job, l, values)).toList();
        JobSources sources = new JobSources(shelf, chain);
        String name = FirstLine.dataset(job);
        Optional<JobPage> other = FirstLine.job(shelf, job, set);
        Outcome<Relation> read = other.isPresent()
                ? sources.read(other.get(), FirstLine.passedOn(job, set))
                : Outcome.of(Planner.source(name, source.columns(), source.declared(), new Context.Ids(0)));
        if (!read.isPresent()) {
            Where where = new Where(job.source(), job.lines().getFirst().span());
            return Outcome.failed(
                    read.problems().stream().map(p -> p.placed(where)).toList());
        }
        try (DataLooks looks = new DataLooks(job, source, sources.files())) {
            Outcome<Plan> planned =
                    Planner.plan(read.get(), lines, shelf.callables(), parameters(job, values), sources, looks);
            IntPredicate wrong = line -> planned.problems().stream()
                    .anyMatch(p -> p.isError()
                            && p.where()
                                    .span()
                                    .isWithin(job.lines().get(line - 1).span()));
            return planned.map(plan -> plan.withResult(resultLine(job)))
                    // Who reads a job reads its result, not what it writes.
                    .then(plan -> (chain.size() > 1
                                    ? Outcome.of(List.<Target>of())
                                    : JobTargets.of(shelf, job, source, plan, values, set.keySet(), wrong))
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

    private static Planner.PlacedLine placed(
            Shelf shelf, JobPage job, JobPage.PlacedLine line, Map<String, String> values) {
        Line filled = line.line().isRead()
                ? line.line()
                : Placeholders.fill(
                        line.line(), shelf.callables().find(line.line().call()), values);
        return line.in(job.source()).with(filled);
    }
}
