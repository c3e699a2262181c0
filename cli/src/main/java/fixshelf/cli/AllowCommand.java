package fixshelf.cli;

import fixshelf.work.OutputPlace;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "allow",
        mixinStandardHelpOptions = true,
        description = {
            "Let jobs write into a folder outside their shelf.",
            "The folder is remembered for you, outside every shelf; a shelf cannot allow anything itself. Without a folder,"
                    + " those that are allowed are listed. The variable FIXSHELF_ALLOW names more."
        })
final class AllowCommand implements Callable<Integer> {
    @Parameters(paramLabel = "DIR", arity = "0..1", description = "The folder.")
    Path folder;

    @Option(names = "--take-back", description = "Do not let jobs write there any more.")
    boolean takeBack;

    @Spec
    CommandSpec spec = CommandSpec.create();

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        if (folder == null) {
            OutputPlace.allowed().forEach(out::println);
            return Output.FINE;
        }
        Path whole = folder.toAbsolutePath().normalize();
        if (!takeBack && !Files.isDirectory(whole)) {
            spec.commandLine().getErr().println("There is no folder " + whole + ". Make it first, or name another.");
            return Output.WRONG_USE;
        }
        if (takeBack) {
            OutputPlace.forbid(whole);
            out.println("Jobs no longer write into " + whole + ".");
        } else {
            OutputPlace.allow(whole);
            out.println("Jobs may write into " + whole + " and the folders in it.");
        }
        return Output.FINE;
    }
}
