package fixshelf.cli;

import fixshelf.demo.ReadyMade;
import fixshelf.problem.Outcome;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "init",
        mixinStandardHelpOptions = true,
        description = "Make a shelf in a folder, with a small dataset, a first fix and a job that runs.")
final class InitCommand implements Callable<Integer> {
    @Parameters(paramLabel = "DIR", description = "The folder; it is made when it is not there.")
    Path folder = Path.of(".");

    @Option(
            names = "--name",
            paramLabel = "NAME",
            description = "What the shelf is called; the folder's name when left out.")
    String name = "";

    @Option(names = "--ready-made", description = "With the ready-made fixes, too.")
    boolean readyMade;

    @Option(names = "--json", description = "Print one JSON document, for machines.")
    boolean json;

    @Spec
    CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() {
        Path root = folder.toAbsolutePath().normalize();
        String title = name.isBlank() ? root.getFileName().toString() : name;
        Outcome<Path> made = PageFiles.initShelf(root, title);
        var out = spec.commandLine().getOut();
        Outcome<ReadyMade.Taken> taken = !readyMade
                ? Outcome.of(new ReadyMade.Taken(List.of(), List.of()))
                : made.then(ShelfReader::read).then(ReadyMade::takeAll);
        if (made.isPresent() && !taken.isPresent()) {
            return Output.problems(out, spec.commandLine().getErr(), taken.problems(), json);
        }
        if (!made.isPresent()) {
            return Output.problems(out, spec.commandLine().getErr(), made.problems(), json);
        }
        if (json) {
            Output.json(
                    out,
                    Output.object()
                            .put("shelf", root.toString())
                            .put("taken", taken.get().written().size()));
        } else {
            out.println("A new shelf: " + root);
            if (readyMade) {
                out.println("Took " + taken.get().written().size() + " ready-made fixes.");
            }
        }
        return Output.FINE;
    }
}
