package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.language.catalogue.Functions;
import fixshelf.language.tree.FunctionDef;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;

@Command(
        name = "functions",
        mixinStandardHelpOptions = true,
        description = "List the functions and operators of expressions, or tell all about one.")
final class FunctionsCommand extends CatalogueCommand<FunctionDef> {
    FunctionsCommand() {
        super("function");
    }

    @Override
    Optional<FunctionDef> named(String name) {
        return Functions.find(name);
    }

    @Override
    List<FunctionDef> about(List<String> asked) {
        return allAbout(asked);
    }

    static List<FunctionDef> allAbout(List<String> words) {
        return Functions.ALL.stream()
                .filter(f -> Output.holdsAll(
                        f.name() + " " + String.join(" ", f.aliases()) + " " + f.signature() + " " + f.about() + " "
                                + f.group().title(),
                        words))
                .toList();
    }

    @Override
    void list(List<FunctionDef> functions) {
        for (FunctionDef.Group group : FunctionDef.Group.values()) {
            List<FunctionDef> members =
                    functions.stream().filter(f -> f.group() == group).toList();
            if (!members.isEmpty()) {
                out().println(group.title());
                members.forEach(f -> out().printf("  %-34s %s%n", called(f), firstSentence(f.about())));
            }
        }
    }

    /// How one is written: an operator by its sign.
    private static String called(FunctionDef function) {
        return function.isOperator() ? function.name() : function.signature();
    }

    private static String firstSentence(String text) {
        int end = text.indexOf(". ");
        return end < 0 ? text : text.substring(0, end + 1);
    }

    @Override
    void tell(FunctionDef function) {
        out().println(called(function));
        out().println(function.about());
        if (!function.aliases().isEmpty()) {
            out().println("Also called " + String.join(", ", function.aliases()) + ".");
        }
        if (function.nulls() == FunctionDef.Nulls.IF_ANY) {
            out().println("Null if any argument is.");
        }
        out().println();
        List<List<String>> examples = function.examples().stream()
                .map(e -> List.of(e.call(), e.result()))
                .toList();
        int width = examples.stream().mapToInt(e -> e.getFirst().length()).max().orElse(0);
        examples.forEach(e -> out().printf("  %-" + Math.max(1, width) + "s  →  %s%n", e.getFirst(), e.getLast()));
    }

    @Override
    void json(FunctionDef function, ObjectNode node) {
        node.put("name", function.name())
                .put("signature", called(function))
                .put("group", function.group().title())
                .put("about", function.about());
        ArrayNode examples = node.putArray("examples");
        function.examples()
                .forEach(e -> examples.addObject().put("call", e.call()).put("result", e.result()));
    }
}
