package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.demo.ReadyMade;
import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.type.Amounts;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "take",
        mixinStandardHelpOptions = true,
        description = "Take ready-made fixes onto the shelf, with those that they call; without names, list them.")
final class TakeCommand extends ShelfOption {
    @Parameters(arity = "0..*", paramLabel = "NAME", description = "The fixes.")
    List<String> names = new ArrayList<>();

    @Option(names = "--all", description = "All of them.")
    boolean all;

    @Override
    public Integer call() {
        return names.isEmpty() && !all ? list() : onShelf(this::take);
    }

    private int list() {
        List<ReadyMade.Fix> fixes = ReadyMade.all();
        if (json) {
            ObjectNode node = Output.object();
            fixes.forEach(f -> node.withArray("fixes")
                    .addObject()
                    .put("name", f.name())
                    .put("group", f.group())
                    .put("about", f.about()));
            Output.json(out(), node);
            return Output.FINE;
        }
        fixes.forEach(f -> out().printf("%-8s %-24s %s%n", f.group(), f.name(), f.about()));
        return Output.FINE;
    }

    private int take(Shelf shelf) {
        List<String> wanted = Stream.concat(
                        names.stream(), all ? ReadyMade.all().stream().map(ReadyMade.Fix::name) : Stream.empty())
                .distinct()
                .toList();
        return told(ReadyMade.take(shelf, wanted));
    }

    private int told(Outcome<ReadyMade.Taken> taken) {
        if (!taken.isPresent()) {
            return Output.problems(out(), err(), taken.problems(), json);
        }
        if (json) {
            ObjectNode node = Output.object();
            taken.get().written().forEach(node.putArray("written")::add);
            taken.get().there().forEach(node.putArray("there")::add);
            Output.json(out(), node);
            return Output.FINE;
        }
        out().println(sentence(taken.get()));
        return Output.FINE;
    }

    /// `Took 2 fixes: …. There already: …, which stays as it is.`
    static String sentence(ReadyMade.Taken taken) {
        String took = taken.written().isEmpty()
                ? "Nothing new."
                : "Took " + Amounts.of(taken.written().size(), "fix", "fixes") + ": "
                        + String.join(", ", taken.written()) + ".";
        return taken.there().isEmpty()
                ? took
                : took + " On the shelf already, and left as they are: " + String.join(", ", taken.there()) + ".";
    }
}
