package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.operations.Operations;
import fixshelf.plan.Blank;
import fixshelf.plan.Operation;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(
        name = "operations",
        mixinStandardHelpOptions = true,
        description = "List what a line of a job can do with a table, or tell all about one operation.")
final class OperationsCommand extends ShelfOption {
    @Parameters(arity = "0..*", paramLabel = "WORD", description = "The name of one, or words for what it is for.")
    List<String> words = List.of();

    @Override
    public Integer call() {
        Optional<Operation> one = words.size() == 1 ? Operations.find(words.getFirst()) : Optional.empty();
        if (one.isPresent() && !json) {
            tell(one.get());
            return Output.FINE;
        }
        List<Operation> found = Operations.ALL.stream()
                .filter(o -> one.map(o::equals).orElseGet(() -> isAbout(o)))
                .toList();
        if (json) {
            Output.json(out(), node(found));
            return Output.FINE;
        }
        if (found.isEmpty()) {
            String said = String.join(" ", words);
            err().println("No operation is about " + said + ". All: fixshelf operations");
            if (!FunctionsCommand.about(words).isEmpty()) {
                err().println("Functions of expressions are: fixshelf functions " + said);
            }
            return Output.PROBLEMS;
        }
        found.forEach(o -> out().printf("%-22s %s%n", o.name(), o.sentence()));
        return Output.FINE;
    }

    private boolean isAbout(Operation operation) {
        return Output.holdsAll(
                operation.name() + " " + operation.sentence() + " "
                        + operation.about().purpose(),
                words);
    }

    private void tell(Operation operation) {
        out().println(operation.name() + ": " + operation.sentence());
        out().println(operation.about().purpose());
        out().println();
        for (Blank<?> blank : operation.blanks()) {
            String usual = blank.fallback()
                    .map(f -> "usually " + fallback(blank))
                    .orElse(blank.needed() ? "needed" : "may be left out");
            out().printf(
                            "  %-16s %s (%s; %s)%n",
                            blank.name(), blank.about(), blank.kind().name(), usual);
        }
        out().println();
        operation.about().answers().forEach((question, answer) -> out().printf("  %-16s %s%n", question, answer));
        operation.examples().forEach(e -> {
            out().println();
            out().println("  " + e.title() + ":");
            e.call().lines().forEach(l -> out().println("    " + l));
        });
    }

    private static <T> String fallback(Blank<T> blank) {
        return blank.fallback().map(blank.kind()::say).orElse("");
    }

    private static ObjectNode node(List<Operation> operations) {
        ObjectNode node = Output.object();
        ArrayNode array = node.putArray("operations");
        for (Operation operation : operations) {
            ObjectNode one = array.addObject()
                    .put("name", operation.name())
                    .put("sentence", operation.sentence())
                    .put("about", operation.about().purpose());
            ArrayNode blanks = one.putArray("blanks");
            operation.blanks().forEach(b -> blanks.addObject()
                    .put("name", b.name())
                    .put("kind", b.kind().name())
                    .put("needed", b.needed())
                    .put("about", b.about()));
        }
        return node;
    }
}
