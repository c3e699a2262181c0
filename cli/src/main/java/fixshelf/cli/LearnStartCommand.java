package fixshelf.cli;

import fixshelf.engine.TemporaryFolder;
import fixshelf.shelf.PageFiles;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.Writer;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/// Runs the commands that are asked for most, so that what they load can be recorded for faster starts.
@Command(name = "learn-start", hidden = true)
final class LearnStartCommand implements Callable<Integer> {
    @Override
    public Integer call() throws IOException {
        try (TemporaryFolder folder = TemporaryFolder.make("learn")) {
            Path shelf = folder.path().resolve("shelf");
            PageFiles.initShelf(shelf, "Learn");
            String at = shelf.toString();
            for (List<String> arguments : List.of(
                    List.of("--help"),
                    List.of("list", "--shelf", at),
                    List.of("show", "tidy_spaces", "--shelf", at),
                    List.of("show", "tidy_spaces", "--in", "postgresql", "--shelf", at),
                    List.of("where-used", "tidy_spaces", "--shelf", at),
                    List.of("check", "--shelf", at, "--json"),
                    List.of("check", "--shelf", at))) {
                CommandLine line = FixshelfCommand.commandLine();
                line.setOut(new PrintWriter(Writer.nullWriter()));
                line.setErr(new PrintWriter(Writer.nullWriter()));
                line.execute(arguments.toArray(String[]::new));
            }
        }
        return Output.FINE;
    }
}
