package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.problem.Outcome;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Renames;
import fixshelf.shelf.Shelf;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;

@Command(
        name = "rename",
        mixinStandardHelpOptions = true,
        description = "Give a fix, a table fix, a loader, a dataset or a job another name, on all pages that name it.")
final class RenameCommand extends ShelfOption {
    @Parameters(index = "0", paramLabel = "OLD", description = "What it is called.")
    String old = "";

    @Parameters(index = "1", paramLabel = "NEW", description = "What it will be called.")
    String now = "";

    @Option(names = "--kind", paramLabel = "KIND", description = "fix, dataset or job, where several have the name.")
    Optional<Renames.Kind> kind = Optional.empty();

    @Option(names = "--dry-run", description = "Only tell which pages would change.")
    boolean dryRun;

    @Override
    public Integer call() {
        return onShelf(this::rename);
    }

    private int rename(Shelf shelf) {
        List<Renames.Kind> kinds = Renames.kinds(shelf, old).stream()
                .filter(k -> kind.isEmpty() || kind.get() == k)
                .toList();
        if (kinds.isEmpty()) {
            List<String> known = new ArrayList<>(names(shelf));
            shelf.datasets().forEach(d -> known.add(d.name()));
            return unknown("fix, dataset or job", old, known);
        }
        if (kinds.size() > 1) {
            throw new ParameterException(
                    spec.commandLine(), "Several things are called " + old + ": say --kind fix, dataset or job.");
        }
        Outcome<Map<Path, String>> texts = Renames.of(shelf, kinds.getFirst(), old, now);
        Outcome<?> done = dryRun ? texts : texts.then(PageFiles::write);
        if (!done.isPresent()) {
            return Output.problems(out(), err(), done.problems(), json);
        }
        List<String> pages = texts.get().keySet().stream()
                .map(f -> shelf.root().relativize(f).toString())
                .sorted()
                .toList();
        if (json) {
            ObjectNode node = Output.object().put("written", !dryRun);
            pages.forEach(node.putArray("pages")::add);
            Output.json(out(), node);
        } else {
            pages.forEach(p -> out().println((dryRun ? "would change " : "changed ") + p));
        }
        return Output.FINE;
    }
}
