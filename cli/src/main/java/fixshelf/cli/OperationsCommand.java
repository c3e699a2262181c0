package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.operations.Operations;
import fixshelf.plan.Blank;
import fixshelf.plan.Operation;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;

@Command(
        name = "operations",
        mixinStandardHelpOptions = true,
        description = "List what a line of a job can do with a table, or tell all about one operation.")
final class OperationsCommand extends CatalogueCommand<Operation> {
    OperationsCommand() {
        super("operation");
    }

    @Override
    Optional<Operation> named(String name) {
        return Operations.find(name);
    }

    @Override
    List<Operation> about(List<String> asked) {
        return Operations.ALL.stream()
                .filter(o -> Output.holdsAll(
                        o.name() + " " + o.sentence() + " " + o.about().purpose(), asked))
                .toList();
    }

    @Override
    void list(List<Operation> operations) {
        operations.forEach(o -> out().printf("%-22s %s%n", o.name(), o.sentence()));
    }

    @Override
    void tellOthers() {
        if (!FunctionsCommand.allAbout(words).isEmpty()) {
            err().println("Functions of expressions are: fixshelf functions " + String.join(" ", words));
        }
    }

    @Override
    void tell(Operation operation) {
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

    @Override
    void json(Operation operation, ObjectNode node) {
        node.put("name", operation.name())
                .put("sentence", operation.sentence())
                .put("about", operation.about().purpose());
        ArrayNode blanks = node.putArray("blanks");
        operation.blanks().forEach(b -> blanks.addObject()
                .put("name", b.name())
                .put("kind", b.kind().name())
                .put("needed", b.needed())
                .put("about", b.about()));
    }
}
