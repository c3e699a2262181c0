package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.DuckJobs;
import fixshelf.engine.FixEngines;
import fixshelf.language.checking.Scope;
import fixshelf.operations.Operations;
import fixshelf.plan.Blank;
import fixshelf.plan.Callables;
import fixshelf.plan.Line;
import fixshelf.plan.Operation;
import fixshelf.plan.Plan;
import fixshelf.plan.TableExample;
import fixshelf.plan.Written;
import fixshelf.plan.Written.Fields;
import fixshelf.plan.Written.Items;
import fixshelf.plan.Written.Word;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.render.Languages;
import fixshelf.shelf.JobPages;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/// Whatever stands in a blank of a line: it is a problem in words, or code in every language, and rows in the engine
/// inside. No program falls over it, and no engine's own message comes out.
class NastyBlanksTest {
    private static final List<Written> NASTY = Stream.concat(
                    Stream.of(
                                    "",
                                    " ",
                                    "'",
                                    "\"",
                                    "''",
                                    "a",
                                    "A",
                                    "nosuch",
                                    "[",
                                    "(",
                                    "(.)(.)",
                                    "(a)|b*",
                                    "zz/yy",
                                    "dd/MM/yyyy",
                                    "xx: d",
                                    "{a}",
                                    "0",
                                    "-1",
                                    "1",
                                    "1.5",
                                    "99999999999999999999",
                                    "9223372036854775807",
                                    "1e5",
                                    "true",
                                    "NULL",
                                    "it",
                                    "a + 1",
                                    "a = ",
                                    "1 = 1",
                                    "count_rows()",
                                    "2026-02-30",
                                    "2026-02-07",
                                    "\\",
                                    "%",
                                    "\u0000",
                                    "\n",
                                    "\uFDD0",
                                    "😀",
                                    "∅",
                                    "descending",
                                    "x'; DROP TABLE a; --",
                                    "every column",
                                    "x".repeat(300))
                            .map(Written::word),
                    Stream.of(
                            new Items(List.of()),
                            Written.words(List.of("")),
                            Written.words(List.of("a", "a")),
                            Written.words(List.of("n1", "n2", "n3", "n4", "n5")),
                            new Items(List.of(new Items(List.of(Written.word("a"))))),
                            new Items(List.of(Written.field("a", Written.word("descending")))),
                            Written.pairs(Map.of()),
                            Written.pairs(Map.of("a", "")),
                            Written.pairs(Map.of("", "a")),
                            Written.pairs(Map.of("a", "'")),
                            Written.pairs(Map.of("a", "integer")),
                            Written.pairs(Map.of("a", "b")),
                            Written.pairs(Map.of("new", "sum(a)")),
                            Written.pairs(Map.of("new", "count_rows()")),
                            Written.field("a", Written.field("b", Written.word("c"))),
                            Written.field("a", Written.words(List.of("b")))))
            .toList();

    @Test
    void areProblemsInWordsOrRows() {
        hold(4);
    }

    /// Each of them.
    @Tag("proof")
    @Test
    void allAre() {
        hold(1);
    }

    /// @param step of how many one is tried
    private static void hold(int step) {
        List<String> wrong = new ArrayList<>();
        List<OperationExamples.Example> all = new ArrayList<>();
        try (DuckJobs duckdb = new DuckJobs()) {
            for (Operation operation : Operations.added()) {
                List<TableExample> calls = calls(operation);
                for (int i = operation.name().length() % step; i < calls.size(); i += step) {
                    TableExample call = calls.get(i);
                    try {
                        Outcome<Plan> plan = OperationExamples.plan(call, CALLABLES, 1, duckdb);
                        if (plan.problems().stream().noneMatch(Problem::isError)) {
                            all.add(OperationExamples.example(operation, call, plan.get()));
                        }
                    } catch (RuntimeException e) {
                        wrong.add(call.call() + ": " + e);
                    }
                }
            }
        }
        for (OperationExamples.Example example : all) {
            try {
                Languages.ALL.forEach(l -> l.job(example.code()));
            } catch (RuntimeException e) {
                wrong.add(example.example().call() + ": " + e);
            }
        }
        List<JobParity> results = OperationExamples.in(FixEngines.ALL.getFirst(), all);
        for (int i = 0; i < all.size(); i++) {
            if (results.get(i).verdict() instanceof JobParity.Stopped(String why)) {
                wrong.add(all.get(i).example().call() + ": " + why);
            }
        }
        assertThat(wrong).isEmpty();
        assertThat(all.size()).as("calls that are none").isGreaterThan(100 / step);
    }

    /// The first example of an operation, with something else in one of its blanks.
    private static List<TableExample> calls(Operation operation) {
        List<TableExample> calls = new ArrayList<>();
        TableExample example = operation.examples().getFirst();
        Line line = line(example.call());
        for (Blank<?> blank : operation.blanks()) {
            for (Written nasty : NASTY) {
                Map<String, Written> blanks = new LinkedHashMap<>(line.blanks());
                blanks.put(blank.name(), nasty);
                calls.add(new TableExample(
                        blank.name(),
                        example.given(),
                        example.others(),
                        operation.name() + ": {}\n" + flow(blanks),
                        new TableExample.Table(List.of(), List.of())));
            }
        }
        return calls;
    }

    private static final Callables CALLABLES =
            new Callables(Operations.ALL, List.of(), Scope.Fixes.NONE, _ -> Optional.empty());

    private static Line line(String call) {
        String page = "job: example\nlines:\n  - read: given\n  - " + call.replace("\n", "\n    ");
        return JobPages.read(Path.of("example.yaml"), new SourceText("example", page))
                .lines()
                .getLast()
                .line();
    }

    private static String flow(Map<String, Written> blanks) {
        return blanks.entrySet().stream()
                .map(e -> e.getKey() + ": " + flow(e.getValue()))
                .collect(Collectors.joining("\n"));
    }

    private static String flow(Written written) {
        return switch (written) {
            case Word(String text) -> quoted(text);
            case Items(List<Written> items) ->
                items.stream().map(NastyBlanksTest::flow).collect(Collectors.joining(", ", "[", "]"));
            case Fields(Map<String, Written> fields) ->
                fields.entrySet().stream()
                        .map(e -> quoted(e.getKey()) + ": " + flow(e.getValue()))
                        .collect(Collectors.joining(", ", "{", "}"));
        };
    }

    private static String quoted(String text) {
        return '"'
                + text.replace("\\", "\\\\")
                        .replace("\"", "\\\"")
                        .replace("\n", "\\n")
                        .replace("\u0000", "\\0")
                + '"';
    }
}
