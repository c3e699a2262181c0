package fixshelf.cli;

import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import java.util.function.ToIntFunction;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
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

    @Spec
    CommandSpec spec = CommandSpec.create();

    /// Reads the shelf and goes on with it, or prints why it cannot.
    final int onShelf(ToIntFunction<Shelf> work) {
        Outcome<Shelf> shelf = ShelfReader.read(shelfFolder.toAbsolutePath().normalize());
        if (!shelf.isPresent()) {
            Output.problems(out(), err(), shelf.problems(), json);
            return Output.WRONG_USE;
        }
        return work.applyAsInt(shelf.get());
    }

    final java.io.PrintWriter out() {
        return spec.commandLine().getOut();
    }

    final java.io.PrintWriter err() {
        return spec.commandLine().getErr();
    }

    /// Says that a name is not known, with the nearest ones.
    final int unknown(String kind, String name, java.util.Collection<String> known) {
        err().println("There is no " + kind + " " + name + ". "
                + fixshelf.language.Names.suggest(name, known, "Known: " + String.join(", ", known) + "."));
        err().flush();
        return Output.WRONG_USE;
    }
}
