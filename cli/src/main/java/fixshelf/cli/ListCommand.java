package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "list", mixinStandardHelpOptions = true, description = "List the fixes, datasets and jobs of a shelf.")
final class ListCommand extends ShelfOption {
    @Override
    public Integer call() {
        return onShelf(this::list);
    }

    @Parameters(
            arity = "0..1",
            paramLabel = "WORD",
            description = "Only what has this, or all words of it, in its name or words.")
    String word = "";

    @Option(names = "--tag", paramLabel = "TAG", description = "Only fixes with this tag.")
    String tag = "";

    @Option(names = "--folder", paramLabel = "DIR", description = "Only pages in this folder of the shelf.")
    String folder = "";

    private boolean isAsked(Path file, Shelf shelf, List<String> tags, String... words) {
        String place = shelf.root().relativize(file).toString().replace('\\', '/');
        boolean inFolder = folder.isEmpty() || place.startsWith(folder.replaceAll("/+$", "") + "/");
        return inFolder
                && (tag.isEmpty() || tags.contains(tag))
                && Output.holdsAll(String.join(" ", words), List.of(word));
    }

    private int list(Shelf whole) {
        List<FixPage> fixes = whole.fixes().stream()
                .filter(f -> isAsked(
                        f.file(),
                        whole,
                        f.tags(),
                        f.name(),
                        f.summary(),
                        f.reads(),
                        f.tags().toString()))
                .toList();
        List<DatasetPage> datasets = whole.datasets().stream()
                .filter(d -> isAsked(d.file(), whole, List.of(), d.name(), d.about()))
                .toList();
        List<JobPage> jobs = whole.jobs().stream()
                .filter(j -> isAsked(j.file(), whole, List.of(), j.name(), j.title(), j.about()))
                .toList();
        List<TableFixPage> tables = whole.tableFixes().stream()
                .filter(t -> isAsked(t.file(), whole, List.of(), t.name(), t.summary(), t.reads()))
                .toList();
        return list(whole, fixes, tables, datasets, jobs);
    }

    private int list(
            Shelf shelf,
            List<FixPage> fixes,
            List<TableFixPage> tables,
            List<DatasetPage> datasets,
            List<JobPage> jobs) {
        if (json) {
            ObjectNode node = Output.object().put("shelf", shelf.settings().name());
            fixes.forEach(f -> node.withArray("fixes")
                    .addObject()
                    .put("name", f.name())
                    .put("signature", f.signature())
                    .put("version", f.version())
                    .put("about", f.summary())
                    .put("cases", f.cases().size()));
            tables.forEach(t -> node.withArray("table_fixes")
                    .addObject()
                    .put("name", t.name())
                    .put("kind", t.isLoader() ? "loader" : "table")
                    .put("about", t.summary())
                    .put("cases", t.cases().size()));
            datasets.forEach(d ->
                    node.withArray("datasets").addObject().put("name", d.name()).put("about", d.about()));
            jobs.forEach(j -> node.withArray("jobs")
                    .addObject()
                    .put("name", j.name())
                    .put("title", j.title())
                    .put("lines", j.lines().size()));
            Output.json(out(), node);
            return Output.FINE;
        }
        List<List<String>> rows = new ArrayList<>();
        for (FixPage fix : fixes) {
            rows.add(List.of("fix", fix.name(), fix.summary()));
        }
        tables.forEach(t -> rows.add(List.of(t.isLoader() ? "loader" : "table", t.name(), t.summary())));
        datasets.forEach(d -> rows.add(List.of("dataset", d.name(), d.about())));
        jobs.forEach(j -> rows.add(List.of("job", j.name(), j.about())));
        if (rows.isEmpty()) {
            out().println(
                            word.isEmpty() && tag.isEmpty() && folder.isEmpty()
                                    ? "The shelf is empty. Write a page into fixes/, or open the window."
                                    : "Nothing on the shelf is like that.");
        }
        rows.forEach(r -> out().printf("%-8s %-24s %s%n", r.get(0), r.get(1), r.get(2)));
        return Output.FINE;
    }
}
