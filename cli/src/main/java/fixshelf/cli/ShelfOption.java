package fixshelf.cli;

import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.fetch.Consent;
import fixshelf.fetch.Secrets;
import fixshelf.problem.Outcome;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Moves;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.shelf.TableFixPage;
import java.io.Console;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.function.ToIntFunction;
import java.util.stream.Stream;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/// What every command that works on a shelf takes.
abstract class ShelfOption implements Callable<Integer> {
    @Option(
            names = "--shelf",
            paramLabel = "DIR",
            defaultValue = ".",
            description = "The shelf's folder; this folder when left out.")
    Path shelfFolder = Path.of(".");

    @Option(names = "--json", description = "Print one JSON document, for machines.")
    boolean json;

    private static final int MOST_NAMED = 30;

    @Spec
    CommandSpec spec = CommandSpec.create();

    @Option(
            names = "--environment",
            paramLabel = "NAME",
            description = "The values of this environment in paths; that of shelf.yaml when left out.")
    Optional<String> environment = Optional.empty();

    @Option(
            names = "--allow",
            paramLabel = "PLACE",
            description = "Let the shelf use a place this once: read from a folder outside of it, use a host.")
    List<String> allowed = new ArrayList<>();

    /// Reads the shelf and goes on with it, or prints why it cannot. What a killed program left half in place is
    /// finished before.
    final int onShelf(ToIntFunction<Shelf> work) {
        allowed.stream().map(Consent.Place::of).forEach(place -> {
            Consent.forNow(place);
            Consent.forNow(place.toWrite());
        });
        Secrets.askWith(ShelfOption::secret);
        Moves.finishLeftBehind().forEach(f -> err().println("Put in place now, after a run was cut off: " + f));
        Outcome<Shelf> shelf = ShelfReader.read(shelfFolder.toAbsolutePath().normalize())
                .then(s -> environment.map(s::withEnvironment).orElseGet(() -> Outcome.of(s)));
        if (!shelf.isPresent()) {
            Output.problems(out(), err(), shelf.problems(), json);
            return Output.WRONG_USE;
        }
        return work.applyAsInt(shelf.get());
    }

    /// Nothing is asked where nobody sits.
    private static Optional<String> secret(String variable) {
        Console console = System.console();
        if (console == null || !console.isTerminal()) {
            return Optional.empty();
        }
        char[] typed = console.readPassword("Password (%s): ", variable);
        return Optional.ofNullable(typed).map(String::new);
    }

    /// Refuses a count below 0 as wrong use.
    final void wantCount(String option, long count) {
        if (count < 0) {
            throw new ParameterException(spec.commandLine(), option + " is 0 or more, not " + count + ".");
        }
    }

    /// The fixes of these names, all of them for none; empty, and said so, when a name is not known.
    final Optional<List<FixPage>> pages(Shelf shelf, List<String> names) {
        List<FixPage> pages = new ArrayList<>();
        for (String name : names) {
            Optional<FixPage> page = shelf.fix(name);
            if (page.isEmpty()) {
                unknown("fix", name, fixNames(shelf).toList());
                return Optional.empty();
            }
            pages.add(page.get());
        }
        return Optional.of(names.isEmpty() ? shelf.fixes() : pages);
    }

    /// The engines of these languages, in that order; empty, and said so, when a language is not known.
    final Optional<List<FixEngine>> engines(List<String> ids) {
        List<FixEngine> engines = new ArrayList<>();
        for (String id : ids) {
            Optional<Language> language = Languages.find(id);
            if (language.isEmpty()) {
                unknown("language", id, Languages.ids());
                return Optional.empty();
            }
            engines.add(FixEngines.of(language.get()).orElseThrow());
        }
        return Optional.of(engines);
    }

    /// The names of all fixes and jobs.
    static List<String> names(Shelf shelf) {
        return Stream.concat(fixNames(shelf), shelf.jobs().stream().map(JobPage::name))
                .toList();
    }

    private static Stream<String> fixNames(Shelf shelf) {
        return Stream.concat(
                shelf.fixes().stream().map(FixPage::name),
                shelf.tableFixes().stream().map(TableFixPage::name));
    }

    final java.io.PrintWriter out() {
        return spec.commandLine().getOut();
    }

    final java.io.PrintWriter err() {
        return spec.commandLine().getErr();
    }

    /// Says that a name is not known, with the nearest ones.
    final int unknown(String kind, String name, java.util.Collection<String> known) {
        String all = known.isEmpty()
                ? "The shelf has none."
                : known.size() > MOST_NAMED
                        ? "There are " + known.size() + ": see `fixshelf list`."
                        : "Known: " + String.join(", ", known) + ".";
        err().println("There is no " + kind + " " + name + ". "
                + fixshelf.language.tree.Names.suggest(name, known, all));
        err().flush();
        return Output.WRONG_USE;
    }
}
