package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.check.Parity;
import fixshelf.check.ParityReport;
import fixshelf.check.ParityResult;
import fixshelf.check.Subject;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.engine.Stop;
import fixshelf.export.Receipt;
import fixshelf.language.catalogue.Functions;
import fixshelf.operations.Operations;
import fixshelf.plan.Operation;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemPrinter;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Shelf;
import fixshelf.work.JobParity;
import fixshelf.work.JobReport;
import fixshelf.work.LoaderCases;
import fixshelf.work.OperationExamples;
import fixshelf.work.PlannedJob;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "parity",
        mixinStandardHelpOptions = true,
        description = {
            "Show that fixes and jobs answer the same in every language, by running them.",
            "A fix is tried on its cases, on the edges of its types and on made-up values, and DuckDB is the reference.",
            "A job is tried on the first rows of its source."
        })
final class ParityCommand extends ShelfOption {
    @Parameters(paramLabel = "NAME", description = "Fixes, operations and jobs; all of the shelf's when left out.")
    List<String> names = new ArrayList<>();

    @Option(names = "--all", description = "All fixes and jobs, and every function and operation of the catalogue.")
    boolean all;

    @Option(
            names = "--in",
            paramLabel = "LANGUAGE",
            split = ",",
            description = "Where to run them; every language that is here when left out.")
    List<String> languages = new ArrayList<>();

    @Option(names = "--values", paramLabel = "N", defaultValue = "200", description = "Made-up values for each.")
    int values = 200;

    @Option(names = "--seed", paramLabel = "N", description = "The same seed makes the same values.")
    long seed = Parity.Settings.SEED;

    @Option(names = "--to", paramLabel = "FILE", description = "Write the table as Markdown too.")
    @Nullable
    Path file;

    @Option(
            names = "--receipt",
            paramLabel = "FILE",
            description =
                    "Read what the checks of an exported folder wrote where they ran, instead of running anything.")
    @Nullable
    Path receipt;

    @Override
    public Integer call() {
        wantCount("--values", values);
        return onShelf(shelf -> receipt == null ? check(shelf) : read(shelf, receipt));
    }

    private int read(Shelf shelf, Path written) {
        Outcome<Receipt> found;
        try {
            found = Receipt.read(written.toString(), Files.readString(written));
        } catch (IOException e) {
            found = Outcome.failed(Problem.about(
                    Code.FILE_MISSING,
                    written.toString(),
                    "It cannot be read: " + e.getMessage() + ".",
                    "Name a file."));
        }
        if (!found.isPresent()) {
            return Output.problems(out(), err(), found.problems(), json);
        }
        Receipt is = found.get();
        List<String> objections = is.objections(shelf);
        List<String> untried = is.untried(shelf);
        if (json) {
            ObjectNode document = Output.object()
                    .put("language", is.language())
                    .put("engine", is.engine())
                    .put("at", is.at())
                    .put("cases", is.caseCount())
                    .put("failing", is.failingCount());
            objections.forEach(document.putArray("objections")::add);
            untried.forEach(document.putArray("without_case")::add);
            Output.json(out(), document);
        } else {
            out().println(is.language() + " on " + is.engine() + ", " + is.at() + ": " + is.caseCount() + " cases of "
                    + is.cases().size() + " fixes ran, "
                    + (is.failingCount() == 0 ? "all hold." : is.failingCount() + " fail."));
            objections.forEach(out()::println);
            if (!untried.isEmpty()) {
                out().println("No case was run of " + String.join(", ", untried) + ".");
            }
            if (objections.isEmpty()) {
                out().println("They are the functions of this shelf as it is.");
            }
        }
        return objections.isEmpty() ? Output.FINE : Output.PROBLEMS;
    }

    private int check(Shelf shelf) {
        for (String name : names) {
            if (shelf.fix(name).isEmpty()
                    && shelf.job(name).isEmpty()
                    && shelf.tableFix(name).isEmpty()
                    && Operations.find(name).isEmpty()) {
                return unknown("fix, job or operation", name, names(shelf));
            }
        }
        boolean every = all || names.isEmpty();
        List<JobPage> jobs = every
                ? shelf.jobs()
                : names.stream().flatMap(n -> shelf.job(n).stream()).toList();
        List<FixPage> pages = every
                ? shelf.fixes()
                : names.stream().flatMap(n -> shelf.fix(n).stream()).toList();
        Optional<List<FixEngine>> engines = languages.isEmpty()
                ? Optional.of(FixEngines.ALL.stream().skip(1).toList())
                : engines(languages);
        if (engines.isEmpty()) {
            return Output.WRONG_USE;
        }
        List<Subject> subjects = new ArrayList<>(Subject.ofFixes(shelf, pages));
        if (all) {
            Functions.ALL.forEach(f -> subjects.addAll(Subject.ofFunction(f)));
        }
        long start = System.nanoTime();
        List<ParityResult> results = Parity.check(
                FixEngines.ALL.getFirst(), engines.get(), subjects, new Parity.Settings(values, seed, new Stop(), r -> {
                    if (r.differs() && !json) {
                        err().println(r.subject().name() + " in " + r.language().title() + ": " + r.detail());
                        err().flush();
                    }
                }));
        List<Problem> problems = new ArrayList<>();
        List<JobParity> ofJobs = new ArrayList<>();
        for (JobPage job : jobs) {
            Outcome<List<JobParity>> outcome = PlannedJob.plan(shelf, job, Map.of())
                    .then(p -> JobParity.check(shelf, p, engines.get(), new Stop(), _ -> {}));
            outcome.value().ifPresent(ofJobs::addAll);
            problems.addAll(outcome.problems());
        }
        JobReport operations = new JobReport(operations(shelf, engines.get()));
        ParityReport report = new ParityReport(results, values, seed);
        JobReport jobReport = new JobReport(ofJobs);
        if (json) {
            ObjectNode document = document(report, ofJobs, operations.results());
            Output.problems(document, problems);
            Output.json(out(), document);
        } else {
            print(report, jobReport, operations);
            problems.forEach(p -> err().print(ProblemPrinter.print(p)));
            err().flush();
            String jobsSaid = jobReport.results().isEmpty() ? "" : "jobs: " + jobReport.summary();
            String fixesSaid = results.isEmpty() && !names.isEmpty() ? "" : report.summary();
            String operationsSaid = operations.results().isEmpty() ? "" : "operations: " + operations.summary();
            String both = String.join(
                    "; ",
                    Stream.of(fixesSaid, operationsSaid, jobsSaid)
                            .filter(s -> !s.isEmpty())
                            .toList());
            out().printf(
                            "%s, in %.1f s%n",
                            both.isEmpty() ? "nothing was compared" : both, (System.nanoTime() - start) / 1e9);
        }
        if (file != null) {
            Outcome<Path> written = PageFiles.write(
                    file.toAbsolutePath(),
                    report.markdown() + operations.markdownOfOperations() + jobReport.markdown());
            if (!written.isPresent()) {
                return Output.problems(out(), err(), written.problems(), false);
            }
        }
        boolean differ = results.stream().anyMatch(ParityResult::differs)
                || ofJobs.stream().anyMatch(JobParity::differs)
                || operations.results().stream().anyMatch(JobParity::differs)
                || problems.stream().anyMatch(Problem::isError);
        return differ ? Output.PROBLEMS : Output.FINE;
    }

    /// The examples of operations, and the cases of table fixes.
    private List<JobParity> operations(Shelf shelf, List<FixEngine> engines) {
        List<Operation> asked = new ArrayList<>();
        if (all) {
            asked.addAll(Operations.added());
        }
        names.forEach(n -> Operations.find(n).ifPresent(asked::add));
        shelf.tableFixes().stream()
                .filter(t -> all || names.isEmpty() || names.contains(t.name()))
                .forEach(t -> asked.add(LoaderCases.ready(shelf, t)));
        List<JobParity> results = new ArrayList<>();
        for (Operation operation : asked) {
            engines.forEach(e -> results.add(OperationExamples.check(operation, shelf.callables(), e)));
        }
        return results;
    }

    private void print(ParityReport report, JobReport jobs, JobReport operations) {
        if (!report.results().isEmpty()) {
            Output.table(out(), report.table());
        }
        for (JobReport board : List.of(operations, jobs)) {
            if (!board.results().isEmpty()) {
                Output.table(out(), board.table());
            }
        }
        report.notes().forEach(n -> out().println(n));
        operations.notes().forEach(n -> out().println(n));
        jobs.notes().forEach(n -> out().println(n));
    }

    private static ObjectNode document(ParityReport report, List<JobParity> jobs, List<JobParity> operations) {
        ObjectNode document = Output.object();
        document.put("values", report.values()).put("seed", report.seed());
        for (ParityResult result : report.results()) {
            document.withArray("results")
                    .addObject()
                    .put("subject", result.subject().name())
                    .put("language", result.language().id())
                    .put("outcome", result.word())
                    .put("rows", result.rows())
                    .put("detail", result.detail());
        }
        jobs.forEach(r -> put(document.withArray("jobs").addObject().put("job", r.job()), r));
        operations.forEach(r -> put(document.withArray("operations").addObject().put("operation", r.job()), r));
        return document;
    }

    private static void put(ObjectNode node, JobParity result) {
        node.put("language", result.language().id())
                .put("outcome", result.word())
                .put("rows", result.rows())
                .put("detail", result.detail());
    }
}
