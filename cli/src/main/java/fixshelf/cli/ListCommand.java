package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Command;

@Command(name = "list", mixinStandardHelpOptions = true, description = "List the fixes, datasets and jobs of a shelf.")
final class ListCommand extends ShelfOption {
    @Override
    public Integer call() {
        return onShelf(this::list);
    }

    private int list(Shelf shelf) {
        if (json) {
            ObjectNode node = Output.object().put("shelf", shelf.settings().name());
            shelf.fixes().forEach(f -> node.withArray("fixes")
                    .addObject()
                    .put("name", f.name())
                    .put("signature", f.signature())
                    .put("version", f.version())
                    .put("about", f.summary())
                    .put("cases", f.cases().size()));
            shelf.datasets().forEach(d -> node.withArray("datasets")
                    .addObject()
                    .put("name", d.name())
                    .put("about", d.about()));
            shelf.jobs().forEach(j -> node.withArray("jobs")
                    .addObject()
                    .put("name", j.name())
                    .put("title", j.title())
                    .put("lines", j.lines().size()));
            Output.json(out(), node);
            return Output.FINE;
        }
        List<List<String>> rows = new ArrayList<>();
        for (FixPage fix : shelf.fixes()) {
            rows.add(List.of("fix", fix.name(), fix.summary()));
        }
        shelf.datasets().forEach(d -> rows.add(List.of("dataset", d.name(), d.about())));
        shelf.jobs().forEach(j -> rows.add(List.of("job", j.name(), j.about())));
        if (rows.isEmpty()) {
            out().println("The shelf is empty. Write a page into fixes/, or open the window.");
        }
        rows.forEach(r -> out().printf("%-8s %-24s %s%n", r.get(0), r.get(1), r.get(2)));
        return Output.FINE;
    }
}
