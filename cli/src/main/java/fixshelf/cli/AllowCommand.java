package fixshelf.cli;

import fixshelf.fetch.Consent;
import fixshelf.shelf.Shelf;
import fixshelf.work.Datasets;
import fixshelf.work.OutputPlace;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "allow",
        mixinStandardHelpOptions = true,
        description = {
            "Let jobs write into a folder outside their shelf; with --read, let this shelf read there; with --write, let its"
                    + " jobs write to a database server.",
            "Places are remembered for you, outside every shelf; a shelf cannot allow anything itself. Without a place,"
                    + " those that are allowed are listed, and with --read those that the shelf asks for. The variable"
                    + " FIXSHELF_ALLOW names more."
        })
final class AllowCommand extends ShelfOption {
    @Parameters(
            paramLabel = "PLACE",
            arity = "0..1",
            description = "A folder; with --read also a host, as db.example:5432.")
    String place = "";

    @Option(names = "--read", description = "Let this shelf read there: files of a folder, or a host.")
    boolean read;

    @Option(names = "--write", description = "Let jobs of this shelf write to a database server: a host.")
    boolean write;

    @Option(names = "--take-back", description = "Do not let it any more.")
    boolean takeBack;

    @Override
    public Integer call() throws IOException {
        if (read || write) {
            return onShelf(this::ofShelf);
        }
        if (place.isEmpty()) {
            OutputPlace.allowed().forEach(out()::println);
            return Output.FINE;
        }
        Path whole = Path.of(place).toAbsolutePath().normalize();
        if (!takeBack && !Files.isDirectory(whole)) {
            err().println("There is no folder " + whole + ". Make it first, or name another.");
            return Output.WRONG_USE;
        }
        if (takeBack) {
            OutputPlace.forbid(whole);
            out().println("Jobs no longer write into " + whole + ".");
        } else {
            OutputPlace.allow(whole);
            out().println("Jobs may write into " + whole + " and the folders in it.");
        }
        return Output.FINE;
    }

    private int ofShelf(Shelf shelf) {
        try {
            if (place.isEmpty()) {
                list(shelf);
            } else if (takeBack) {
                Consent.takeBack(shelf.root(), Consent.Place.of(place));
                out().println("This shelf no longer reads from " + place + ", and its jobs do not write to it.");
            } else {
                Consent.Place allowed = Consent.Place.of(place);
                Consent.keep(shelf.root(), write ? allowed.toWrite() : allowed);
                out().println((write ? "Jobs of this shelf may write to " : "This shelf may read from ")
                        + allowed.name() + ".");
            }
            return Output.FINE;
        } catch (IOException e) {
            throw new UncheckedIOException("the settings of this user cannot be written", e);
        }
    }

    private void list(Shelf shelf) {
        List<Consent.Place> given = Consent.of(shelf.root());
        given.forEach(p -> out().println("allowed: " + p.shown()));
        List<Consent.Place> asked = Datasets.asked(shelf);
        asked.forEach(p -> out().println("asked for: " + p.shown()));
        if (given.isEmpty() && asked.isEmpty()) {
            out().println("This shelf uses nothing outside of its folder.");
        }
    }
}
