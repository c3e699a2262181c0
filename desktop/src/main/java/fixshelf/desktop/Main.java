package fixshelf.desktop;

import fixshelf.cli.FixshelfCommand;
import java.util.List;
import java.util.logging.Level;
import java.util.logging.LogManager;
import java.util.logging.Logger;
import picocli.CommandLine;

/// Where the program begins: the command line, with the commands that need the window.
public final class Main {
    private Main() {}

    public static void main(String[] arguments) {
        LogManager.getLogManager().reset();
        Logger.getLogger("").setLevel(Level.WARNING);
        System.exit(commandLine(arguments).execute(arguments));
    }

    static CommandLine commandLine(String... arguments) {
        CommandLine line = FixshelfCommand.commandLine(
                List.of(
                        WindowCommands.Demo.class,
                        WindowCommands.Prices.class,
                        WindowCommands.Window.class,
                        WindowCommands.Draw.class,
                        WindowCommands.WarmUp.class,
                        WindowCommands.LearnDemo.class),
                arguments);
        line.setCaseInsensitiveEnumValuesAllowed(true);
        return line;
    }
}
