package fixshelf.cli;

import picocli.AutoComplete.GenerateCompletion;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.HelpCommand;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

/// The root of the command line.
@Command(
        name = "fixshelf",
        version = "Fix Shelf 0.1.0",
        mixinStandardHelpOptions = true,
        description = "Write a fix once, prove it, and use it in every query language.",
        synopsisSubcommandLabel = "COMMAND",
        exitCodeListHeading = "%nExit codes:%n",
        exitCodeList = {"0:fine", "1:cases fail or problems were found", "2:wrong use", "3:a fault of the program"},
        subcommands = {
            InitCommand.class,
            ListCommand.class,
            CheckCommand.class,
            TestCommand.class,
            ShowCommand.class,
            ParityCommand.class,
            ExportCommand.class,
            EnginesCommand.class,
            PreviewCommand.class,
            RunCommand.class,
            AllowCommand.class,
            DeleteCommand.class,
            TryCommand.class,
            ReadCommand.class,
            LookCommand.class,
            StandInCommand.class,
            WhereUsedCommand.class,
            RenameCommand.class,
            OperationsCommand.class,
            LedgerCommand.class,
            WhereCommand.class,
            LearnStartCommand.class,
            GenerateCompletion.class,
            HelpCommand.class
        })
public final class FixshelfCommand implements Runnable {
    @Spec
    CommandSpec spec = CommandSpec.create();

    /// The whole command line; the window adds its own commands to it.
    public static CommandLine commandLine() {
        CommandLine line = new CommandLine(new FixshelfCommand());
        line.setCaseInsensitiveEnumValuesAllowed(true);
        line.setOut(TerminalWriter.over(line.getOut()));
        line.setErr(TerminalWriter.over(line.getErr()));
        line.getSubcommands()
                .get("generate-completion")
                .getCommandSpec()
                .usageMessage()
                .description("Print a completion script for bash and zsh: source <(fixshelf generate-completion).");
        CommandLine.IExecutionStrategy usual = line.getExecutionStrategy();
        line.setExecutionStrategy(parsed -> {
            try {
                return usual.execute(parsed);
            } catch (StackOverflowError | OutOfMemoryError e) {
                line.getErr()
                        .println("A fault of the program, please report it: there was not enough memory for this.");
                return Output.FAULT;
            }
        });
        line.setExecutionExceptionHandler((e, command, _) -> {
            System.getLogger(FixshelfCommand.class.getName()).log(System.Logger.Level.DEBUG, "fault", e);
            command.getErr().println("A fault of the program, please report it: " + e);
            return Output.FAULT;
        });
        return line;
    }

    @Override
    public void run() {
        throw new CommandLine.ParameterException(spec.commandLine(), "Which command?");
    }
}
