package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.problem.Outcome;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.Shelf;
import fixshelf.standin.JobsAlike;
import fixshelf.standin.SharedWord;
import fixshelf.standin.Staged;
import fixshelf.standin.StandIn;
import fixshelf.type.Visible;
import fixshelf.work.Preview;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "stand-in",
        mixinStandardHelpOptions = true,
        description = {
            "Make rows that may be sent to somebody who must not see the data: laid out alike, as odd, as often repeated, "
                    + "and made up. Without --to, list the words that could stay, and make nothing."
        })
final class StandInCommand extends ShelfOption {
    @Parameters(
            paramLabel = "DATASET",
            arity = "1..*",
            description = "Datasets of the shelf; what stands in several of them becomes the same in all.")
    List<String> names = List.of();

    @Option(
            names = "--to",
            paramLabel = "FOLDER",
            description = "Where the files go: for each dataset its rows, and a page that reads them.")
    Optional<Path> folder = Optional.empty();

    @Option(
            names = "--keep",
            paramLabel = "WORD",
            description = "A word or value that may stay, as at least one row in a hundred has it; repeatable.")
    List<String> kept = new ArrayList<>();

    @Option(names = "--keep-all", description = "All words that are listed may stay.")
    boolean keepAll;

    @Option(names = "--rows", paramLabel = "N", description = "The first N rows only; all rows when left out.")
    long rows;

    @Option(names = "--replace", description = "Files of an earlier stand-in may be replaced.")
    boolean replace;

    @Option(names = "--no-jobs", description = "Do not try what the jobs that read the datasets do with it.")
    boolean noJobs;

    @Override
    public Integer call() {
        wantCount("--rows", rows);
        return onShelf(this::make);
    }

    private int make(Shelf shelf) {
        names = names.stream().distinct().toList();
        Optional<String> other =
                names.stream().filter(n -> shelf.dataset(n).isEmpty()).findFirst();
        if (other.isPresent()) {
            return unknown(
                    "dataset",
                    other.get(),
                    shelf.datasets().stream().map(DatasetPage::name).toList());
        }
        Outcome<Integer> done = Staged.with(
                shelf,
                List.of(),
                names,
                rows == 0 ? Long.MAX_VALUE : rows,
                datasets -> Outcome.of(make(shelf, datasets)));
        return done.isPresent() ? done.get() : Output.problems(out(), err(), done.problems(), json);
    }

    private int make(Shelf shelf, List<Staged> datasets) {
        boolean lists = folder.isEmpty() || keepAll || !kept.isEmpty();
        Outcome<List<SharedWord>> shared = lists ? SharedWord.of(datasets) : Outcome.of(List.of());
        if (shared.isPresent() && folder.isEmpty()) {
            list(shared.get());
            return Output.FINE;
        }
        Outcome<StandIn.Made> made = shared.then(all -> keepAll ? Outcome.of(all) : SharedWord.named(all, kept))
                .then(keep -> StandIn.make(shelf, datasets, new StandIn.Wanted(keep, folder.orElseThrow(), replace)));
        if (!made.isPresent()) {
            return Output.problems(out(), err(), made.problems(), json);
        }
        long most = rows == 0 ? Preview.STAGED_ROWS : rows;
        List<JobsAlike.Job> jobs = noJobs ? List.of() : JobsAlike.of(shelf, made.get(), most);
        if (json) {
            Output.json(out(), node(made.get(), jobs));
        } else {
            print(made.get(), jobs);
        }
        return Output.FINE;
    }

    private void list(List<SharedWord> shared) {
        if (json) {
            ObjectNode node = Output.object();
            ArrayNode words = node.putArray("words");
            shared.forEach(w -> words.addObject()
                    .put("dataset", w.dataset())
                    .put("column", w.column())
                    .put("word", w.text())
                    .put("rows", w.rows()));
            Output.json(out(), node);
            return;
        }
        if (shared.isEmpty()) {
            out().println("No word is shared by one row in a hundred: nothing could stay.");
        } else {
            List<List<String>> table = new ArrayList<>();
            table.add(List.of("dataset", "column", "could stay", "rows", "of all"));
            shared.forEach(w -> table.add(List.of(
                    w.dataset(),
                    Visible.markOddities(w.column()),
                    Visible.markOddities(w.text()),
                    String.format(Locale.ROOT, "%,d", w.rows()),
                    String.format(Locale.ROOT, "%.1f %%", 100 * w.share()))));
            Output.table(out(), table);
        }
        out().println(
                        "Make it with --to FOLDER; name what may stay with --keep WORD, or --keep-all. Jobs that ask for a"
                                + " word by name need it.");
    }

    private void print(StandIn.Made made, List<JobsAlike.Job> jobs) {
        out().printf(Locale.ROOT, "%,d %s, made up, in:%n", made.rows(), made.rows() == 1 ? "row" : "rows");
        made.files().forEach(w -> out().println(
                        "  " + w.file() + ", read by " + w.page().getFileName()));
        made.notes().forEach(out()::println);
        jobs.forEach(j -> j.sentences().forEach(out()::println));
        out().println("Look through it before it is sent: what makes somebody known by the shape of a row stays.");
    }

    private ObjectNode node(StandIn.Made made, List<JobsAlike.Job> jobs) {
        ObjectNode node = Output.object().put("rows", made.rows());
        made.files().forEach(w -> node.withArray("files")
                .addObject()
                .put("dataset", w.dataset())
                .put("file", w.file().toString())
                .put("page", w.page().toString()));
        made.notes().forEach(node.putArray("notes")::add);
        ArrayNode array = node.putArray("jobs");
        for (JobsAlike.Job job : jobs) {
            ObjectNode one = array.addObject().put("job", job.name()).put("lines", job.lines());
            ArrayNode lines = one.putArray("other");
            job.other().forEach(l -> lines.addObject()
                    .put("line", l.number())
                    .put("here", l.here())
                    .put("with_stand_in", l.there()));
        }
        return node;
    }
}
