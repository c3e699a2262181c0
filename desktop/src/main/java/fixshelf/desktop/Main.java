package fixshelf.desktop;

import fixshelf.cli.FixshelfCommand;
import picocli.CommandLine;

/// Where the program begins: the command line, with the commands that need the window.
public final class Main {
    private Main() {}

    public static void main(String[] arguments) {
        java.util.logging.LogManager.getLogManager().reset();
        CommandLine line = FixshelfCommand.commandLine();
        System.exit(line.execute(arguments));
    }
}
