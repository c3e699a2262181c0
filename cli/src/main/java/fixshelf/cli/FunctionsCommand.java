package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.language.catalogue.Functions;
import fixshelf.language.tree.FunctionDef;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(
        name = "functions",
        mixinStandardHelpOptions = true,
        description = "List the functions and operators of expressions, or tell all about one.")
final class FunctionsCommand extends ShelfOption {
    @Parameters(arity = "0..*", paramLabel = "WORD", description = "The name of one, or words for what it is for.")
    List<String> words = List.of();

    @Override
    public Integer call() {
        Optional<FunctionDef> one = words.size() == 1 ? Functions.find(words.getFirst()) : Optional.empty();
        List<FunctionDef> found = one.map(List::of).orElseGet(() -> about(words));
        if (json) {
            Output.json(out(), node(found));
            return Output.FINE;
        }
        if (one.isPresent()) {
            tell(one.get());
            return Output.FINE;
        }
        if (found.isEmpty()) {
            err().println("No function is about " + String.join(" ", words) + ". All: fixshelf functions");
            return Output.PROBLEMS;
        }
        for (FunctionDef.Group group : FunctionDef.Group.values()) {
            List<FunctionDef> members =
                    found.stream().filter(f -> f.group() == group).toList();
            if (!members.isEmpty()) {
                out().println(group.title());
                members.forEach(f -> out().printf("  %-34s %s%n", called(f), firstSentence(f.about())));
            }
        }
        return Output.FINE;
    }

    /// The functions that all of some words are about.
    static List<FunctionDef> about(List<String> words) {
        return Functions.ALL.stream()
                .filter(f -> Output.holdsAll(
                        f.name() + " " + String.join(" ", f.aliases()) + " " + f.signature() + " " + f.about() + " "
                                + f.group().title(),
                        words))
                .toList();
    }

    /// How one is written: an operator by its sign.
    private static String called(FunctionDef function) {
        return function.isOperator() ? function.name() : function.signature();
    }

    private static String firstSentence(String text) {
        int end = text.indexOf(". ");
        return end < 0 ? text : text.substring(0, end + 1);
    }

    private void tell(FunctionDef function) {
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

    private static ObjectNode node(List<FunctionDef> functions) {
        ObjectNode node = Output.object();
        ArrayNode array = node.putArray("functions");
        for (FunctionDef function : functions) {
            ObjectNode one = array.addObject()
                    .put("name", function.name())
                    .put("signature", called(function))
                    .put("group", function.group().title())
                    .put("about", function.about());
            ArrayNode examples = one.putArray("examples");
            function.examples()
                    .forEach(e -> examples.addObject().put("call", e.call()).put("result", e.result()));
        }
        return node;
    }
}
