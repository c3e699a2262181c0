package fixshelf.cli;

import fixshelf.problem.Outcome;
import fixshelf.shelf.PageFiles;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "init", mixinStandardHelpOptions = true, description = "Make an empty shelf in a folder.")
final class InitCommand implements Callable<Integer> {
    @Parameters(paramLabel = "DIR", description = "The folder; it is made when it is not there.")
    Path folder = Path.of(".");

    @Option(
            names = "--name",
            paramLabel = "NAME",
            description = "What the shelf is called; the folder's name when left out.")
    String name = "";

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
        if (!made.isPresent()) {
            return Output.problems(out, spec.commandLine().getErr(), made.problems(), json);
        }
        if (json) {
            Output.json(out, Output.object().put("shelf", root.toString()));
        } else {
            out.println("A new shelf: " + root);
        }
        return Output.FINE;
    }
}
