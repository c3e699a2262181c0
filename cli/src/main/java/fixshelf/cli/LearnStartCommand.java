package fixshelf.cli;

import fixshelf.engine.TemporaryFolder;
import fixshelf.shelf.PageFiles;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.Writer;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/// Runs the commands that are asked for most, so that what they load can be recorded for faster starts.
@Command(name = "learn-start", hidden = true)
final class LearnStartCommand implements Callable<Integer> {
    @Parameters(arity = "0..1", paramLabel = "DIR", description = "A shelf to learn on; a small one when left out.")
    Optional<Path> shelf = Optional.empty();

    @Override
    public Integer call() throws IOException {
        if (shelf.isPresent()) {
            learn(shelf.get().toString());
            return Output.FINE;
        }
        try (TemporaryFolder folder = TemporaryFolder.make("learn")) {
            Path small = folder.path().resolve("shelf");
            PageFiles.initShelf(small, "Learn");
            learn(small.toString());
        }
        return Output.FINE;
    }

    private static void learn(String at) {
        for (List<String> arguments : List.of(
                List.of("--help"),
                List.of("--version"),
                List.of("list", "--shelf", at),
                List.of("show", "squeeze_spaces", "--shelf", at),
                List.of("show", "squeeze_spaces", "--in", "postgresql", "--shelf", at),
                List.of("show", "tidy_spaces", "--in", "pandas", "--shelf", at),
                List.of("where-used", "squeeze_spaces", "--shelf", at),
                List.of("check", "--shelf", at, "--json"),
                List.of("check", "--shelf", at))) {
            CommandLine line = FixshelfCommand.commandLine(List.of(), arguments.toArray(String[]::new));
            line.setOut(new PrintWriter(Writer.nullWriter()));
            line.setErr(new PrintWriter(Writer.nullWriter()));
            line.execute(arguments.toArray(String[]::new));
        }
    }
}
