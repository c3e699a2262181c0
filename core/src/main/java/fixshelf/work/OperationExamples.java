package fixshelf.work;

import fixshelf.engine.Answer;
import fixshelf.engine.DuckJobs;
import fixshelf.engine.FixEngine;
import fixshelf.language.checking.Scope;
import fixshelf.language.checking.WrittenConstants;
import fixshelf.operations.Operations;
import fixshelf.plan.Callables;
import fixshelf.plan.Context;
import fixshelf.plan.Looks;
import fixshelf.plan.Operation;
import fixshelf.plan.Plan;
import fixshelf.plan.Planner;
import fixshelf.plan.Sentences;
import fixshelf.plan.Step;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableFix;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.render.JobCode;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.TablePromise;
import fixshelf.table.Relation;
import fixshelf.type.Column;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// Examples of operations as small jobs that every language can be asked for.
public final class OperationExamples {
    private static final String GIVEN = "given";
    private static final Callables CALLABLES =
            new Callables(Operations.ALL, List.of(), Scope.Fixes.NONE, _ -> Optional.empty());

    private OperationExamples() {}

    /// An example as a job, with the rows of its tables and those that have to come out.
    ///
    /// @param decided what came of it already, where it ends in a problem, which is tried here only
    public record Example(
            Operation operation,
            TableExample example,
            JobCode code,
            Map<String, List<List<@Nullable String>>> rows,
            List<List<@Nullable Object>> expected,
            Optional<JobParity.Verdict> decided) {}

    /// What came of examples in a language, one by one; its engine is started once.
    public static List<JobParity> in(FixEngine engine, List<Example> examples) {
        Iterator<JobParity.Verdict> verdicts = JobParity.verdicts(
                        engine,
                        examples.stream()
                                .filter(e -> e.decided().isEmpty())
                                .map(e -> new JobParity.Asked(e.code(), e.rows(), e.expected()))
                                .toList())
                .iterator();
        List<JobParity> results = new ArrayList<>();
        for (Example example : examples) {
            results.add(new JobParity(
                    example.operation().shown(),
                    engine.language(),
                    example.decided().orElseGet(verdicts::next),
                    example.rows().get(GIVEN).size()));
        }
        return results;
    }

    /// All examples of an operation. One that cannot be planned, or gives other columns, has stopped, and the first
    /// problem of each such one is beside them.
    public static Outcome<List<Example>> of(Operation operation) {
        return of(operation, CALLABLES);
    }

    /// As [#of], for what a shelf can call.
    public static Outcome<List<Example>> of(Operation operation, Callables callables) {
        List<Example> examples = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        try (DuckJobs duckdb = new DuckJobs()) {
            for (TableExample example : operation.examples()) {
                Outcome<Plan> plan = example.unread()
                        .map(Outcome::<Plan>failed)
                        .orElseGet(() -> plan(example, callables, 1, duckdb));
                if (!example.stops().isEmpty()) {
                    examples.add(decided(operation, example, plan, duckdb));
                    continue;
                }
                Optional<Problem> wrong = plan.problems().stream()
                        .filter(Problem::isError)
                        .findFirst()
                        .or(() -> otherColumns(example, plan.get()));
                wrong.ifPresent(problems::add);
                examples.add(
                        wrong.isPresent()
                                ? decided(
                                        operation,
                                        example,
                                        new JobParity.Stopped(wrong.get().sentence()))
                                : example(operation, example, plan.get()));
            }
        }
        return Outcome.of(examples, problems);
    }

    /// What is different about the columns that come out: their number, their names, their order, and their types where
    /// the example states one.
    private static Optional<Problem> otherColumns(TableExample example, Plan plan) {
        List<Column> wanted = columns(example.gives());
        List<Column> found = plan.columns();
        boolean same = wanted.size() == found.size()
                && IntStream.range(0, found.size())
                        .allMatch(i -> wanted.get(i).name().equals(found.get(i).name())
                                && (!statesType(example.gives().heading().get(i))
                                        || wanted.get(i)
                                                .type()
                                                .equals(found.get(i).type())));
        return same
                ? Optional.empty()
                : Optional.of(Problem.about(
                        Code.BAD_CASE,
                        example.title(),
                        "The columns that come out are " + shown(found) + ", not " + shown(wanted) + ".",
                        ""));
    }

    private static String shown(List<Column> columns) {
        return columns.stream()
                .map(c -> c.name()
                        + (c.type().equals(Type.TEXT) ? "" : " " + c.type().label()))
                .collect(Collectors.joining(", "));
    }

    private static boolean statesType(String heading) {
        return !column(heading).name().equals(heading);
    }

    /// A case that ends in a problem: of the plan, or of a check in a line of it.
    private static Example decided(Operation operation, TableExample example, Outcome<Plan> plan, DuckJobs duckdb) {
        Optional<String> why = plan.problems().stream()
                .filter(Problem::isError)
                .findFirst()
                .map(Problem::sentence)
                .or(() -> plan.value().flatMap(p -> broken(example, p, duckdb)));
        JobParity.Verdict verdict = why.isEmpty()
                ? new JobParity.Stopped("it gives a table, and should stop with: " + example.stops())
                : why.get().toLowerCase(Locale.ROOT).contains(example.stops().toLowerCase(Locale.ROOT))
                        ? new JobParity.Same(0)
                        : new JobParity.Stopped("it stops with other words: " + why.get());
        return decided(operation, example, verdict);
    }

    private static Example decided(Operation operation, TableExample example, JobParity.Verdict verdict) {
        JobCode none = new JobCode("example", example.title(), List.of(), List.of());
        return new Example(
                operation, example, none, Map.of(GIVEN, texts(example.given())), List.of(), Optional.of(verdict));
    }

    /// The first check of a line that rows break, in words; empty where all hold.
    private static Optional<String> broken(TableExample example, Plan plan, DuckJobs duckdb) {
        for (Step step : plan.steps()) {
            for (Operation.Report report : step.reports()) {
                Outcome<List<List<@Nullable Object>>> rows =
                        report.breaks() ? looks(example, duckdb).rows(plan, report.relation()) : Outcome.of(List.of());
                if (!rows.isPresent()) {
                    return Optional.of(rows.problems().getFirst().sentence());
                }
                if (!rows.get().isEmpty()) {
                    boolean one = rows.get().size() == 1;
                    return Optional.of(rows.get().size()
                            + (one ? " row " : " rows ")
                            + report.words().replaceFirst("^rows that break", one ? "breaks" : "break"));
                }
            }
        }
        return Optional.empty();
    }

    /// The rows that come out of an example when its call stands `times` times, or why none do.
    static Outcome<Answered> answer(TableExample example, Callables callables, int times, DuckJobs duckdb) {
        Outcome<Plan> planned = plan(example, callables, times, duckdb);
        if (planned.problems().stream().anyMatch(Problem::isError)) {
            return Outcome.failed(planned.problems());
        }
        return planned.then(plan -> {
            Optional<String> broken = broken(example, plan, duckdb);
            return broken.isPresent()
                    ? Outcome.failed(Problem.about(Code.CHECK_BROKEN, "table", broken.get(), ""))
                    : looks(example, duckdb)
                            .rows(plan, plan.last().result())
                            .map(rows -> new Answered(plan.last(), rows));
        });
    }

    /// The last line of an example, and the rows after it.
    record Answered(Step last, List<List<@Nullable Object>> rows) {}

    /// What came of all examples of an operation in a language: the first that is not the same, or that all are.
    public static JobParity check(Operation operation, Callables callables, FixEngine engine) {
        Outcome<List<Example>> examples = of(operation, callables);
        if (!examples.problems().isEmpty()) {
            String why = examples.problems().getFirst().sentence();
            return new JobParity(operation.shown(), engine.language(), new JobParity.Stopped(why), 0);
        }
        List<JobParity> results = in(
                engine,
                examples.get().stream().filter(e -> e.decided().isEmpty()).toList());
        return results.stream()
                .filter(r -> !(r.verdict() instanceof JobParity.Same))
                .min(java.util.Comparator.comparing(r -> !r.differs()))
                .or(() -> results.stream().findFirst())
                .orElse(new JobParity(
                        operation.shown(), engine.language(), new JobParity.NotRun("it has no cases"), 0));
    }

    /// What came of several operations in a language, by their names; its engine is started once.
    public static Map<String, JobParity> board(FixEngine engine, List<Operation> operations, Callables callables) {
        Map<String, JobParity> board = new LinkedHashMap<>();
        List<Example> all = new ArrayList<>();
        for (Operation operation : operations) {
            Outcome<List<Example>> examples = of(operation, callables);
            all.addAll(
                    examples.get().stream().filter(x -> x.decided().isEmpty()).toList());
            if (!examples.problems().isEmpty()) {
                String why = examples.problems().getFirst().sentence();
                board.put(
                        operation.shown(),
                        new JobParity(operation.shown(), engine.language(), new JobParity.Stopped(why), 0));
            }
        }
        // The first that is not the same stands for all.
        for (JobParity result : in(engine, all)) {
            board.merge(
                    result.job(),
                    result,
                    (a, b) -> a.verdict() instanceof JobParity.Same || b.differs() && !a.differs() ? b : a);
        }
        return board;
    }

    /// The columns that a heading names; text where it says no type.
    public static List<Column> columns(TableExample.Table table) {
        return table.heading().stream().map(OperationExamples::column).toList();
    }

    private static final String DECLARED = " declared ";

    /// The types that `n declared integer` says of columns that are texts.
    private static List<Type> declared(TableExample.Table table) {
        return table.heading().stream()
                .map(h -> h.contains(DECLARED)
                        ? Type.parse(h.substring(h.indexOf(DECLARED) + DECLARED.length()))
                                .orElseThrow()
                        : Type.TEXT)
                .toList();
    }

    private static Column column(String heading) {
        if (heading.contains(DECLARED)) {
            return new Column(heading.substring(0, heading.indexOf(DECLARED)), Type.TEXT);
        }
        int space = heading.lastIndexOf(' ');
        Optional<Type> type = space < 0 ? Optional.empty() : Type.parse(heading.substring(space + 1));
        return type.map(t -> new Column(heading.substring(0, space), t)).orElse(new Column(heading, Type.TEXT));
    }

    /// What the lines of an example mean; a plan stands beside its problems.
    static Outcome<Plan> plan(TableExample example, Callables callables, int times, DuckJobs duckdb) {
        List<Column> columns = columns(example.given());
        StringBuilder page = new StringBuilder("job: example\nlines:\n  - read: given\n    name: begin\n");
        List<String> types = columns.stream()
                .filter(c -> !c.type().equals(Type.TEXT))
                .map(c -> c.name() + ": \"" + c.type().label() + '"')
                .toList();
        if (!types.isEmpty()) {
            page.append("  - read_as: {").append(String.join(", ", types)).append("}\n");
        }
        page.append(("  - " + example.call().replace("\n", "\n    ") + '\n').repeat(times));
        JobPage job = JobPages.read(Path.of("example.yaml"), new SourceText("example", page.toString()));
        if (!job.problems().isEmpty()) {
            return Outcome.failed(job.problems());
        }
        List<Planner.PlacedLine> lines =
                job.lines().stream().map(l -> l.in(job.source())).toList();
        List<Column> texts =
                columns.stream().map(c -> new Column(c.name(), Type.TEXT)).toList();
        return Planner.plan(
                Planner.source(GIVEN, texts, declared(example.given()), new Context.Ids(0)),
                lines,
                callables,
                Map.of(),
                sources(example),
                looks(example, duckdb));
    }

    /// Looks by running what is asked in DuckDB over the rows of the example.
    private static Looks looks(TableExample example, DuckJobs duckdb) {
        return (plan, about) -> {
            Example asked = asked(example, plan, about);
            return switch (duckdb.run(asked.code(), asked.rows())) {
                case Answer.OfJob.Rows(var rows) -> Outcome.of(rows);
                case Answer.OfJob.Stopped(String why) ->
                    Outcome.failed(Problem.about(Code.ENGINE_FAILED, "look", why, ""));
                case Answer.OfJob.Unsaid(List<String> why) ->
                    Outcome.failed(Problem.about(Code.ENGINE_FAILED, "look", String.join(" ", why), ""));
            };
        };
    }

    private static Example asked(TableExample example, Plan plan, Relation about) {
        // Without what is told beside them, so that nothing stops on the way.
        List<Step> steps = new ArrayList<>(plan.steps().stream()
                .map(s -> new Step(s.number(), s.line(), s.after(), List.of()))
                .toList());
        Step last = steps.getLast();
        steps.add(new Step(last.number() + 1, last.line(), about, List.of()));
        return example(Operations.find("choose").orElseThrow(), example, new Plan(steps));
    }

    /// What is wrong with the lines of a table fix, as its cases call it, or with these calls; one problem for each
    /// place. What a line asks the data is asked of the rows of the case.
    public static List<Problem> problemsOfLines(TableFix fix, SourceText page, Callables callables) {
        return problemsOfLines(fix, page, List.of(), callables);
    }

    /// As [#problemsOfLines(TableFix, SourceText, Callables)], with the columns that promises of the page name.
    public static List<Problem> problemsOfLines(
            TableFix fix, SourceText page, List<TablePromise> promises, Callables callables) {
        Set<Problem> problems = new LinkedHashSet<>();
        try (DuckJobs duckdb = new DuckJobs()) {
            for (TableExample example : fix.examples()) {
                if (!example.stops().isEmpty() || example.unread().isPresent()) {
                    continue;
                }
                // As the table is before the call.
                plan(example, callables, 0, duckdb).value().ifPresent(begun -> {
                    Problem.Where where = heading(page, example);
                    Operation.Resolution came = called(example, begun, where, callables, duckdb);
                    problems.addAll(problemsOf(came, where));
                    problems.addAll(unknown(came, fix, page, promises));
                });
            }
        }
        return List.copyOf(problems);
    }

    /// What comes of a call, with what it asks of the rows of the case.
    private static Operation.Resolution called(
            TableExample example, Plan begun, Problem.Where where, Callables callables, DuckJobs duckdb) {
        Context context = new Context(
                begun.last().result(),
                callables.fixes(),
                Map.of(),
                sources(example),
                new Context.Ids(begun.steps().size() + 1));
        Operation.Resolution now =
                Planner.inside(new Planner.PlacedLine(JobPages.call(example.call()), where), context, callables);
        while (now instanceof Operation.Resolution.Asks(Relation about, var then)) {
            Outcome<List<List<@Nullable Object>>> seen = looks(example, duckdb).rows(begun, about);
            if (!seen.isPresent()) {
                return now;
            }
            now = then.apply(seen.get());
        }
        return now;
    }

    private static List<Problem> problemsOf(Operation.Resolution resolution, Problem.Where where) {
        return resolution instanceof Operation.Resolution.Refused(List<Problem> why)
                ? why.stream()
                        .map(p -> p.where().source().text().isEmpty() ? p.placed(where) : p)
                        .toList()
                : List.of();
    }

    /// What promises speak of and is neither a parameter nor a column that comes out.
    private static List<Problem> unknown(
            Operation.Resolution resolution, TableFix fix, SourceText page, List<TablePromise> promises) {
        if (!(resolution instanceof Operation.Resolution.Done done)) {
            return List.of();
        }
        List<String> names = done.after().shape().names();
        List<Problem> problems = new ArrayList<>();
        for (TablePromise promise : promises) {
            int at = page.text().indexOf(promise.written());
            Span span = at < 0 ? Span.NONE : new Span(at, at + promise.written().length());
            promise.of().stream()
                    .filter(w -> fix.blank(w).isEmpty() && names.stream().noneMatch(w::equalsIgnoreCase))
                    .forEach(w -> problems.add(Problem.error(
                            Code.NO_SUCH_COLUMN,
                            new Problem.Where(page, span),
                            "Something is promised of " + w + ", which is no parameter, and no column that comes out.",
                            "Name a parameter, or one of " + String.join(", ", names) + ".")));
        }
        return problems;
    }

    private static Problem.Where heading(SourceText page, TableExample example) {
        Matcher heading = Pattern.compile("(?m)^### +" + Pattern.quote(example.title()) + "\\h*$")
                .matcher(page.text());
        return new Problem.Where(page, heading.find() ? new Span(heading.start(), heading.end()) : Span.NONE);
    }

    private static Context.Sources sources(TableExample example) {
        return new Context.Sources() {
            @Override
            public Outcome<Relation> find(String name, Context.Ids ids) {
                TableExample.Table table = example.others().get(name);
                return table == null
                        ? Context.Sources.NONE.find(name, ids)
                        : Outcome.of(Planner.source(name, columns(table), declared(table), ids));
            }

            @Override
            public List<String> names() {
                return List.copyOf(example.others().keySet());
            }

            @Override
            public Outcome<Map<String, @Nullable String>> pairs(String source, String from, String to) {
                return Context.Sources.NONE.pairs(source, from, to);
            }
        };
    }

    /// An example as a job, out of what it means.
    static Example example(Operation operation, TableExample example, Plan plan) {
        List<JobCode.Line> lines = new ArrayList<>();
        for (Step step : plan.steps().subList(1, plan.steps().size())) {
            lines.add(new JobCode.Line(step.number(), Sentences.plain(step.line(), CALLABLES), step));
        }
        List<JobCode.Source> sources = new ArrayList<>(List.of(new JobCode.Source(GIVEN, plan.source())));
        Map<String, List<List<@Nullable String>>> rows = new HashMap<>();
        rows.put(GIVEN, texts(example.given()));
        example.others().forEach((name, table) -> {
            sources.add(new JobCode.Source(name, columns(table)));
            rows.put(name, texts(table));
        });
        List<List<@Nullable Object>> expected =
                example.gives().rows().stream().map(OperationExamples::values).toList();
        JobCode code = new JobCode("example", example.title(), sources, lines);
        return new Example(operation, example, code, rows, expected, Optional.empty());
    }

    private static List<@Nullable Object> values(List<String> row) {
        List<@Nullable Object> values = new ArrayList<>();
        row.forEach(cell -> values.add(value(cell)));
        return values;
    }

    private static @Nullable Object value(String constant) {
        return WrittenConstants.read("example", constant)
                .value()
                .flatMap(v -> v)
                .orElseThrow(() -> new IllegalStateException("no constant: " + constant))
                .value();
    }

    private static List<List<@Nullable String>> texts(TableExample.Table table) {
        List<List<@Nullable String>> rows = new ArrayList<>();
        for (List<String> row : table.rows()) {
            List<@Nullable String> texts = new ArrayList<>();
            for (String cell : row) {
                Object value = value(cell);
                texts.add(value == null ? null : value instanceof String text ? text : plain(value));
            }
            rows.add(texts);
        }
        return rows;
    }

    private static String plain(Object value) {
        String printed = Literals.print(value);
        int quote = printed.indexOf('\'');
        return quote < 0
                ? printed.toLowerCase(java.util.Locale.ROOT)
                : printed.substring(quote + 1, printed.length() - 1);
    }
}
