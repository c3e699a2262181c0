package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.check.CaseResult;
import fixshelf.check.Cases;
import fixshelf.check.JUnitXml;
import fixshelf.check.PromiseResult;
import fixshelf.check.Promises;
import fixshelf.engine.Answer;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.plan.TableExample;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.work.JobParity;
import fixshelf.work.LoaderCases;
import fixshelf.work.OperationExamples;
import fixshelf.work.TablePromiseResult;
import fixshelf.work.TablePromises;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "test",
        mixinStandardHelpOptions = true,
        description = "Run the cases and promises of fixes, in DuckDB or in other languages too.")
final class TestCommand extends ShelfOption {
    @Parameters(paramLabel = "FIX", description = "The fixes; all of them when left out.")
    List<String> names = new ArrayList<>();

    @Option(
            names = "--in",
            paramLabel = "LANGUAGE",
            split = ",",
            description = "Where to run the cases; duckdb when left out. See fixshelf engines.")
    List<String> languages = new ArrayList<>();

    @Option(names = "--junit", paramLabel = "FILE", description = "Write the results as JUnit XML too.")
    @Nullable
    Path junit;

    private final List<JUnitXml.Test> tests = new ArrayList<>();
    private final ObjectNode document = Output.object();
    private int failed;
    private int unsaid;

    @Option(names = "--strict", description = "Count what a language cannot say as a failure.")
    boolean strict;

    @Option(names = "--alone", description = "Only the fixes that are named, without those that call them.")
    boolean alone;

    private int held;

    @Override
    public Integer call() {
        return onShelf(this::test);
    }

    private int test(Shelf shelf) {
        List<String> tables = names.stream()
                .flatMap(n -> shelf.tableFix(n).stream())
                .map(TableFixPage::name)
                .toList();
        List<String> others =
                names.stream().filter(n -> shelf.tableFix(n).isEmpty()).toList();
        boolean only = !tables.isEmpty() && others.isEmpty();
        Optional<List<FixPage>> pages = only ? Optional.of(List.of()) : pages(shelf, others);
        Optional<List<FixEngine>> engines = engines(languages.isEmpty() ? List.of("duckdb") : languages);
        if (pages.isEmpty() || engines.isEmpty()) {
            return Output.WRONG_USE;
        }
        Set<String> named = new LinkedHashSet<>(tables);
        if (!others.isEmpty()) {
            pages.get().forEach(p -> named.add(p.name()));
        }
        Set<String> callers = alone ? named : withCallers(shelf, named);
        List<FixPage> chosen = others.isEmpty() || alone
                ? pages.get()
                : callers.stream().flatMap(n -> shelf.fix(n).stream()).toList();
        List<TableFixPage> chosenTables = shelf.tableFixes().stream()
                .filter(t -> names.isEmpty() || callers.contains(t.name()))
                .toList();
        List<Problem> problems = new ArrayList<>();
        chosen.forEach(p -> problems.addAll(shelf.definition(p).problems()));
        chosenTables.forEach(t -> problems.addAll(t.problems()));
        if (!only) {
            engines.get().forEach(e -> cases(shelf, chosen, e));
            promises(shelf, chosen);
        }
        engines.get().forEach(e -> tableCases(shelf, chosenTables, e));
        tablePromises(shelf, chosenTables);
        problems.forEach(p -> tests.add(new JUnitXml.Test(p.where().source().name(), "is right", p.sentence())));
        return finish(problems);
    }

    /// What is named, and all fixes, table fixes and loaders that call it: a change can break those too.
    private static Set<String> withCallers(Shelf shelf, Set<String> named) {
        Set<String> all = new LinkedHashSet<>(named);
        List<String> open = new ArrayList<>(named);
        while (!open.isEmpty()) {
            shelf.usersOf(open.removeFirst()).stream()
                    .filter(u -> shelf.fix(u).isPresent() || shelf.tableFix(u).isPresent())
                    .filter(all::add)
                    .forEach(open::add);
        }
        return all;
    }

    private void cases(Shelf shelf, List<FixPage> pages, FixEngine engine) {
        String title = engine.language().title();
        if (!engine.presence().isHere()) {
            document.withArray("not_run")
                    .addObject()
                    .put("language", engine.language().id())
                    .put("why", engine.presence().sentence());
            say(title + ": not run, " + engine.presence().sentence());
            return;
        }
        List<CaseResult> results = Cases.run(shelf, pages, engine);
        for (CaseResult result : results) {
            String suite = result.page().name() + " in " + title;
            String name = "case " + (result.index() + 1) + ": "
                    + String.join(" | ", result.example().cells());
            String failure = result.holds() ? "" : "expected " + result.expected() + ", got " + result.got();
            tests.add(new JUnitXml.Test(suite, name, failure));
            this.document
                    .withArray("cases")
                    .addObject()
                    .put("fix", result.page().name())
                    .put("language", engine.language().id())
                    .put("case", result.index() + 1)
                    .put("holds", result.holds())
                    .put("can_say", !(result.answer() instanceof Answer.NotSaid));
            var document = (ObjectNode) this.document
                    .withArray("cases")
                    .get(this.document.withArray("cases").size() - 1);
            Output.raw(document, "expected", result.example().expected().value());
            Output.value(document, "got", result.answer());
            if (result.answer() instanceof Answer.NotSaid && !strict) {
                unsaid++;
                continue;
            }
            count(result.holds());
            if (!result.holds()) {
                say(suite + ", " + name + "\n    expected " + result.expected() + "\n    got      " + result.got());
            }
        }
        long holds = results.stream().filter(CaseResult::holds).count();
        long cannot = results.stream()
                .filter(r -> r.answer() instanceof Answer.NotSaid)
                .count();
        say(title + " (" + engine.presence().sentence() + "): " + holds + " of " + results.size() + " cases hold"
                + (cannot == 0 ? "" : ", " + cannot + " cannot be said"));
    }

    /// The cases of table fixes: those that are named, or all where none is.
    private void tableCases(Shelf shelf, List<TableFixPage> pages, FixEngine engine) {
        if (pages.isEmpty() || !engine.presence().isHere()) {
            return;
        }
        int before = held;
        List<OperationExamples.Example> all = new ArrayList<>();
        for (TableFixPage page : pages) {
            Outcome<List<OperationExamples.Example>> examples =
                    OperationExamples.of(LoaderCases.ready(shelf, page), shelf.callables());
            // Cases that end in a problem are tried here only.
            examples.value().orElse(List.of()).stream()
                    .filter(e -> e.decided().isEmpty() || engine == FixEngines.ALL.getFirst())
                    .forEach(all::add);
        }
        List<JobParity> results = OperationExamples.in(engine, all);
        for (int i = 0; i < all.size(); i++) {
            tableCase(all.get(i), results.get(i), engine);
        }
        say(engine.language().title() + ": " + (held - before) + " of " + all.size() + " cases of table fixes hold");
    }

    private void tableCase(OperationExamples.Example example, JobParity result, FixEngine engine) {
        boolean holds = result.isSame();
        String suite = example.operation().shown() + " in " + engine.language().title();
        String name = "case " + example.example().title();
        tests.add(new JUnitXml.Test(suite, name, holds ? "" : result.detail()));
        document.withArray("table_cases")
                .addObject()
                .put("fix", example.operation().shown())
                .put("language", engine.language().id())
                .put("case", example.example().title())
                .put("holds", holds)
                .put("detail", result.detail());
        if (result.verdict() instanceof JobParity.CannotSay && !strict) {
            unsaid++;
            return;
        }
        count(holds);
        if (!holds) {
            say(suite + ", " + name + ": " + result.detail());
        }
    }

    private void tablePromises(Shelf shelf, List<TableFixPage> pages) {
        List<TablePromiseResult> results = pages.stream()
                .flatMap(t -> TablePromises.run(shelf, t).stream())
                .toList();
        for (TablePromiseResult result : results) {
            String fix = result.page().name();
            tests.add(new JUnitXml.Test(
                    fix + " promises", result.promise().written(), result.holds() ? "" : result.sentence()));
            ObjectNode told = document.withArray("table_promises")
                    .addObject()
                    .put("fix", fix)
                    .put("promise", result.promise().written())
                    .put("holds", result.holds())
                    .put("tables", result.tables())
                    .put("sentence", result.sentence());
            count(result.holds());
            if (!result.holds()) {
                say(fix + " breaks a promise: " + result.sentence());
                result.broken().ifPresent(b -> {
                    table(told, "given", b.given());
                    table(told, "gives", b.gives());
                });
            }
        }
        long holds = results.stream().filter(TablePromiseResult::holds).count();
        if (!results.isEmpty()) {
            say("Promises of table fixes: " + holds + " of " + results.size() + " hold");
        }
    }

    /// A small table, printed and as JSON.
    private void table(ObjectNode told, String label, TableExample.Table table) {
        say("    " + label + "  " + String.join(" | ", table.heading()));
        table.rows().forEach(r -> say("    " + " ".repeat(label.length() + 2) + String.join(" | ", r)));
        ObjectNode shown = told.putObject(label);
        table.heading().forEach(shown.putArray("heading")::add);
        table.rows().forEach(r -> {
            var row = shown.withArray("rows").addArray();
            r.forEach(row::add);
        });
    }

    private void promises(Shelf shelf, List<FixPage> pages) {
        FixEngine duckdb = FixEngines.ALL.getFirst();
        List<PromiseResult> results = Promises.run(shelf, pages, duckdb);
        for (PromiseResult result : results) {
            tests.add(new JUnitXml.Test(
                    result.page().name() + " promises",
                    result.promise().written(),
                    result.holds() ? "" : result.sentence()));
            document.withArray("promises")
                    .addObject()
                    .put("fix", result.page().name())
                    .put("promise", result.promise().written())
                    .put("holds", result.holds())
                    .put("sentence", result.sentence());
            count(result.holds());
            if (!result.holds()) {
                say(result.page().name() + " breaks a promise: " + result.sentence());
            }
        }
        long holds = results.stream().filter(PromiseResult::holds).count();
        say("Promises: " + holds + " of " + results.size() + " hold, each on " + Promises.VALUES + " made-up values");
    }

    private void count(boolean holds) {
        held += holds ? 1 : 0;
        failed += holds ? 0 : 1;
    }

    private void say(String line) {
        if (!json) {
            out().println(line);
        }
    }

    private int finish(List<Problem> problems) {
        int code = failed > 0 || problems.stream().anyMatch(Problem::isError) ? Output.PROBLEMS : Output.FINE;
        if (json) {
            document.put("hold", held).put("fail", failed).put("cannot_say", unsaid);
            Output.problems(document, problems);
            Output.json(out(), document);
        } else {
            Output.problems(out(), err(), problems, false);
        }
        if (junit != null) {
            Outcome<Path> written = PageFiles.write(junit.toAbsolutePath(), JUnitXml.print(tests));
            if (!written.isPresent()) {
                Output.problems(out(), err(), written.problems(), false);
                return Output.PROBLEMS;
            }
        }
        return code;
    }
}
