package fixshelf.desktop;

import fixshelf.cli.FixshelfCommand;
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
        System.exit(commandLine().execute(arguments));
    }

    static CommandLine commandLine() {
        CommandLine line = FixshelfCommand.commandLine();
        line.addSubcommand(new WindowCommands.Demo());
        line.addSubcommand(new WindowCommands.Prices());
        line.addSubcommand(new WindowCommands.Window());
        line.addSubcommand(new WindowCommands.Draw());
        line.addSubcommand(new WindowCommands.WarmUp());
        line.setCaseInsensitiveEnumValuesAllowed(true);
        return line;
    }
}
