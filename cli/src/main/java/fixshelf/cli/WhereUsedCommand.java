package fixshelf.cli;

import fixshelf.shelf.Shelf;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(
        name = "where-used",
        mixinStandardHelpOptions = true,
        description = "List the fixes and jobs that use a fix, a dataset or a job.")
final class WhereUsedCommand extends ShelfOption {
    @Parameters(paramLabel = "NAME", description = "The fix, the dataset or the job.")
    String name = "";

    @Override
    public Integer call() {
        return onShelf(this::list);
    }

    private int list(Shelf shelf) {
        List<String> users = new ArrayList<>();
        boolean there = shelf.fix(name).isPresent()
                || shelf.tableFix(name).isPresent()
                || shelf.dataset(name).isPresent()
                || shelf.job(name).isPresent();
        if (!there) {
            List<String> known = new ArrayList<>(names(shelf));
            shelf.datasets().forEach(d -> known.add(d.name()));
            return unknown("fix, dataset or job", name, known);
        }
        users.addAll(shelf.usersOf(name));
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
}
