package fixshelf.work;

import fixshelf.engine.Answer;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.language.Constants;
import fixshelf.language.Scope;
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
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.render.JobCode;
import fixshelf.render.Languages;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.JobPages;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Column;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Examples of operations as small jobs that every language can be asked for.
public final class OperationExamples {
    private static final String GIVEN = "given";
    private static final Callables CALLABLES =
            new Callables(Operations.ALL, List.of(), Scope.Fixes.NONE, _ -> Optional.empty());

    private OperationExamples() {}

    /// An example as a job, with the rows of its tables and those that have to come out.
    public record Example(
            Operation operation,
            TableExample example,
            JobCode code,
            Map<String, List<List<@Nullable String>>> rows,
            List<List<@Nullable Object>> expected) {}

    /// What came of examples in a language, one by one; its engine is started once.
    public static List<JobParity> in(FixEngine engine, List<Example> examples) {
        List<JobParity.Verdict> verdicts = JobParity.verdicts(
                engine,
                examples.stream()
                        .map(e -> new JobParity.Asked(e.code(), e.rows(), e.expected()))
                        .toList());
        List<JobParity> results = new ArrayList<>();
        for (int i = 0; i < examples.size(); i++) {
            Example example = examples.get(i);
            results.add(new JobParity(
                    example.operation().name(),
                    engine.language(),
                    verdicts.get(i),
                    example.rows().get(GIVEN).size()));
        }
        return results;
    }

    /// All examples of an operation, or what is wrong with them.
    public static Outcome<List<Example>> of(Operation operation) {
        return of(operation, CALLABLES);
    }

    /// As [#of], for what a shelf can call.
    public static Outcome<List<Example>> of(Operation operation, Callables callables) {
        List<Example> examples = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        for (TableExample example : operation.examples()) {
            Outcome<Plan> plan = plan(example, callables);
            problems.addAll(plan.problems());
            plan.value().ifPresent(p -> examples.add(example(operation, example, p)));
        }
        return problems.stream().anyMatch(Problem::isError) ? Outcome.failed(problems) : Outcome.of(examples);
    }

    /// What came of all examples of an operation in a language: the first that is not the same, or that all are.
    public static JobParity check(Operation operation, Callables callables, FixEngine engine) {
        Outcome<List<Example>> examples = of(operation, callables);
        if (!examples.isPresent()) {
            String why = examples.problems().getFirst().sentence();
            return new JobParity(operation.name(), engine.language(), new JobParity.Stopped(why), 0);
        }
        List<JobParity> results = in(engine, examples.get());
        return results.stream()
                .filter(r -> !(r.verdict() instanceof JobParity.Same))
                .min(java.util.Comparator.comparing(r -> !r.differs()))
                .or(() -> results.stream().findFirst())
                .orElse(new JobParity(operation.name(), engine.language(), new JobParity.NotRun("it has no cases"), 0));
    }

    /// The columns that a heading names; text where it says no type.
    public static List<Column> columns(TableExample.Table table) {
        return table.heading().stream().map(OperationExamples::column).toList();
    }

    private static Column column(String heading) {
        int space = heading.lastIndexOf(' ');
        Optional<Type> type = space < 0 ? Optional.empty() : Type.parse(heading.substring(space + 1));
        return type.map(t -> new Column(heading.substring(0, space), t)).orElse(new Column(heading, Type.TEXT));
    }

    private static Outcome<Plan> plan(TableExample example, Callables callables) {
        List<Column> columns = columns(example.given());
        StringBuilder page = new StringBuilder("job: example\nlines:\n  - read: given\n    name: begin\n");
        List<String> types = columns.stream()
                .filter(c -> !c.type().equals(Type.TEXT))
                .map(c -> c.name() + ": \"" + c.type().label() + '"')
                .toList();
        if (!types.isEmpty()) {
            page.append("  - read_as: {").append(String.join(", ", types)).append("}\n");
        }
        page.append("  - ").append(example.call().replace("\n", "\n    ")).append('\n');
        JobPage job = JobPages.read(Path.of("example.yaml"), new SourceText("example", page.toString()));
        if (!job.problems().isEmpty()) {
            return Outcome.failed(job.problems());
        }
        List<Planner.PlacedLine> lines = job.lines().stream()
                .map(l -> new Planner.PlacedLine(l.line(), new Problem.Where(job.source(), l.span())))
                .toList();
        List<Column> texts =
                columns.stream().map(c -> new Column(c.name(), Type.TEXT)).toList();
        return Planner.plan(
                Planner.source(GIVEN, texts, new Context.Ids(0)),
                lines,
                callables,
                Map.of(),
                sources(example),
                looks(example));
    }

    /// Looks by running what is asked in DuckDB over the rows of the example.
    private static Looks looks(TableExample example) {
        return (plan, about) -> {
            Example asked = asked(example, plan, about);
            FixEngine duckdb =
                    FixEngines.of(Languages.find("duckdb").orElseThrow()).orElseThrow();
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
        List<Step> steps = new ArrayList<>(plan.steps());
        Step last = steps.getLast();
        steps.add(new Step(last.number() + 1, last.line(), about, List.of()));
        return example(Operations.find("choose").orElseThrow(), example, new Plan(steps));
    }

    private static Context.Sources sources(TableExample example) {
        return new Context.Sources() {
            @Override
            public Outcome<Relation> find(String name, Context.Ids ids) {
                TableExample.Table table = example.others().get(name);
                return table == null
                        ? Context.Sources.NONE.find(name, ids)
                        : Outcome.of(new Relation.Source(
                                name,
                                new Shape(columns(table).stream()
                                        .map(c -> new Field(ids.next(), c))
                                        .toList())));
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

    private static Example example(Operation operation, TableExample example, Plan plan) {
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
        return new Example(operation, example, new JobCode("example", example.title(), sources, lines), rows, expected);
    }

    private static List<@Nullable Object> values(List<String> row) {
        List<@Nullable Object> values = new ArrayList<>();
        row.forEach(cell -> values.add(value(cell)));
        return values;
    }

    private static @Nullable Object value(String constant) {
        return Constants.read("example", constant)
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
