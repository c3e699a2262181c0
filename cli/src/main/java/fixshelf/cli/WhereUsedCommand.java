package fixshelf.cli;

import fixshelf.plan.Line;
import fixshelf.plan.Written;
import fixshelf.shelf.Shelf;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(
        name = "where-used",
        mixinStandardHelpOptions = true,
        description = "List the fixes and jobs that use a fix, or the jobs that read a dataset.")
final class WhereUsedCommand extends ShelfOption {
    @Parameters(paramLabel = "NAME", description = "The fix or the dataset.")
    String name = "";

    @Override
    public Integer call() {
        return onShelf(this::list);
    }

    private int list(Shelf shelf) {
        List<String> users = new ArrayList<>();
        if (shelf.fix(name).isPresent()) {
            users.addAll(shelf.usersOf(name));
        } else if (shelf.dataset(name).isPresent()) {
            shelf.jobs().stream()
                    .filter(j -> j.lines().stream().anyMatch(l -> names(l.line(), name)))
                    .forEach(j -> users.add(j.name()));
        } else {
            List<String> known = new ArrayList<>(names(shelf));
            shelf.datasets().forEach(d -> known.add(d.name()));
            return unknown("fix or dataset", name, known);
        }
        if (json) {
            var node = Output.object().put("name", name);
            var array = node.putArray("users");
            users.forEach(array::add);
            Output.json(out(), node);
        } else if (users.isEmpty()) {
            out().println("Nothing uses " + name + ".");
        } else {
            users.forEach(out()::println);
        }
        return Output.FINE;
    }

    /// Whether a line names a dataset in one of its blanks: to read it, to bring it in, or to take a mapping from it.
    private static boolean names(Line line, String dataset) {
        return line.blanks().entrySet().stream().anyMatch(b -> switch (b.getValue()) {
            case Written.Word(String text) ->
                text.equalsIgnoreCase(dataset) && TABLES.contains(b.getKey())
                        || b.getKey().equals(line.call()) && text.equalsIgnoreCase(dataset);
            case Written.Fields(var fields) ->
                fields.get("in") instanceof Written.Word(String text) && text.equalsIgnoreCase(dataset);
            case Written.Items _ -> false;
        });
    }

    private static final List<String> TABLES = List.of("source", "from");
}
