package fixshelf.cli;

import fixshelf.engine.DuckSession;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
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
        exitCodeList = {"0:fine", "1:cases fail or problems were found", "2:wrong use", "3:a fault of the program"})
public final class FixshelfCommand implements Runnable {
    private static final Set<String> VERSION = Set.of("-V", "--version");

    private static final List<Class<?>> COMMANDS = List.of(
            InitCommand.class,
            TakeCommand.class,
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
            FunctionsCommand.class,
            LedgerCommand.class,
            WhereCommand.class,
            LearnStartCommand.class,
            GenerateCompletion.class,
            HelpCommand.class);

    /// Those that work on rows, so that the engine is loaded while the shelf is read.
    private static final Set<Class<?>> ON_ROWS = Set.of(
            RunCommand.class,
            PreviewCommand.class,
            LookCommand.class,
            ReadCommand.class,
            LedgerCommand.class,
            WhereCommand.class,
            StandInCommand.class,
            DeleteCommand.class);

    @Spec
    CommandSpec spec = CommandSpec.create();

    /// The command line for these arguments: it knows one command where they name one, and else all
    /// of them, as for help and suggestions, since looking at a command takes as long as many a
    /// command itself.
    ///
    /// @param more commands of the window
    public static CommandLine commandLine(List<Class<?>> more, String... arguments) {
        CommandLine line = new CommandLine(new FixshelfCommand());
        List<Class<?>> all = new ArrayList<>(COMMANDS);
        all.addAll(more);
        Optional<Class<?>> named = all.stream()
                .filter(c -> arguments.length > 0
                        && c != HelpCommand.class
                        && c != GenerateCompletion.class
                        && c.getAnnotation(Command.class).name().equals(arguments[0]))
                .findFirst();
        if (named.filter(ON_ROWS::contains).isPresent()) {
            DuckSession.prepare();
        }
        boolean version = arguments.length == 1 && VERSION.contains(arguments[0]);
        List<Class<?>> known =
                version ? List.of() : named.<List<Class<?>>>map(List::of).orElse(all);
        known.forEach(line::addSubcommand);
        line.setCaseInsensitiveEnumValuesAllowed(true);
        line.setOut(TerminalWriter.over(line.getOut()));
        line.setErr(TerminalWriter.over(line.getErr()));
        Optional.ofNullable(line.getSubcommands().get("generate-completion")).ifPresent(c -> c.getCommandSpec()
                .usageMessage()
                .description("Print a completion script for bash and zsh: source <(fixshelf generate-completion)."));
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
