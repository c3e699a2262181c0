package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.check.Parity;
import fixshelf.check.ParityReport;
import fixshelf.check.ParityResult;
import fixshelf.check.Subject;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.engine.Stop;
import fixshelf.language.Functions;
import fixshelf.problem.Outcome;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Shelf;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "parity",
        mixinStandardHelpOptions = true,
        description = {
            "Show that fixes answer the same in every language, by running them.",
            "Each is tried on its cases, on the edges of its types and on made-up values. DuckDB is the reference."
        })
final class ParityCommand extends ShelfOption {
    @Parameters(paramLabel = "FIX", description = "The fixes; all of them when left out.")
    List<String> names = new ArrayList<>();

    @Option(names = "--all", description = "All fixes, and every function of the catalogue.")
    boolean all;

    @Option(
            names = "--in",
            paramLabel = "LANGUAGE",
            arity = "1..*",
            description = "Where to run them; every language that is here when left out.")
    List<String> languages = new ArrayList<>();

    @Option(names = "--values", paramLabel = "N", defaultValue = "200", description = "Made-up values for each.")
    int values = 200;

    @Option(names = "--seed", paramLabel = "N", description = "The same seed makes the same values.")
    long seed = Parity.Settings.SEED;

    @Option(names = "--to", paramLabel = "FILE", description = "Write the table as Markdown too.")
    @Nullable
    Path file;

    @Override
    public Integer call() {
        return onShelf(this::check);
    }

    private int check(Shelf shelf) {
        Optional<List<FixPage>> pages = pages(shelf, names);
        Optional<List<FixEngine>> engines = languages.isEmpty()
                ? Optional.of(FixEngines.ALL.stream().skip(1).toList())
                : engines(languages);
        if (pages.isEmpty() || engines.isEmpty()) {
            return Output.WRONG_USE;
        }
        List<Subject> subjects = new ArrayList<>(Subject.ofFixes(shelf, pages.get()));
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
        ParityReport report = new ParityReport(results, values, seed);
        if (json) {
            Output.json(out(), document(report));
        } else {
            Output.table(out(), report.table());
            report.notes().forEach(n -> out().println(n));
            out().printf("%s, in %.1f s%n", report.summary(), (System.nanoTime() - start) / 1e9);
        }
        if (file != null) {
            Outcome<Path> written = PageFiles.write(file.toAbsolutePath(), report.markdown());
            if (!written.isPresent()) {
                return Output.problems(out(), err(), written.problems(), false);
            }
        }
        return results.stream().anyMatch(ParityResult::differs) ? Output.PROBLEMS : Output.FINE;
    }

    private static ObjectNode document(ParityReport report) {
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
        return document;
    }
}
