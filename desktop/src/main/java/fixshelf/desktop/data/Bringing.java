package fixshelf.desktop.data;

import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.Leave;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.fetch.Consent;
import fixshelf.fetch.RemoteParts;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.source.FileParts;
import fixshelf.work.Datasets;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.layout.Region;

/// How a dataset is brought in: a file, one table of a file that holds several, or what is in no file here.
final class Bringing {
    private final Workbench workbench;
    private final BiConsumer<Region, Supplier<Node>> show;
    private final Consumer<String> brought;
    private final Consumer<String> refused;
    private final PartsPage parts = new PartsPage();
    private final PlacesPage places = new PlacesPage();
    private final RemotePage remote = new RemotePage(this::keepRemote);

    /// @param show shows a page that asks for something, and what of it gets the keyboard
    /// @param brought is told the name of a dataset that was kept
    /// @param refused is told why none was
    Bringing(
            Workbench workbench,
            BiConsumer<Region, Supplier<Node>> show,
            Consumer<String> brought,
            Consumer<String> refused) {
        this.workbench = workbench;
        this.show = show;
        this.brought = brought;
        this.refused = refused;
    }

    /// Keeps a file as a dataset; asks which table it is where the file holds several.
    void bring(Path file) {
        FoundFile found = new FoundFile(workbench, file);
        workbench
                .background()
                .ask(
                        Background.Request.now("begin", "looking at " + file.getFileName()),
                        () -> found.shape().then(shape -> found.parts(shape)
                                .then(p -> found.lines(shape).map(l -> new Shaped(shape, p, l)))),
                        shaped -> {
                            if (shaped.isPresent() && shaped.get().parts().size() > 1) {
                                choose(file, found, shaped.get().parts());
                            } else if (shaped.isPresent()
                                    && !shaped.get().lines().isEmpty()) {
                                mark(file, found, shaped.get());
                            } else {
                                kept(shaped.then(s -> found.keep(s.shape())));
                            }
                        });
    }

    /// A file, the tables in it, and its first lines where these are cut at places.
    private record Shaped(ReadOptions shape, List<FileParts.Part> parts, List<String> lines) {}

    private void mark(Path file, FoundFile found, Shaped shaped) {
        places.show(
                file.getFileName().toString(), shaped.lines(), shaped.shape(), options -> kept(found.keep(options)));
        show.accept(places.view(), places::focusTarget);
    }

    private void choose(Path file, FoundFile found, List<FileParts.Part> tables) {
        parts.show(file.getFileName().toString(), tables, part -> kept(found.keep(part)));
        show.accept(parts.view(), parts::focusTarget);
    }

    private void kept(Outcome<String> name) {
        if (name.isPresent()) {
            brought.accept(name.get());
        } else {
            refused.accept(name.problems().getFirst().sentence());
        }
    }

    /// Shows the blanks of a dataset that is in no file here; at this address, where one is known.
    void askServer(String address) {
        if (!address.isEmpty()) {
            remote.begin(address);
        }
        show.accept(Ui.page(remote.view()), remote::focusTarget);
    }

    /// Shows all tables of a page of the web or of a server to choose from, where it has several. Who types an address
    /// allows it.
    private void lookAround(String name, ReadOptions options) {
        Shelf shelf = workbench.shelf();
        Datasets.place(shelf, options).ifPresent(p -> Leave.give(() -> Consent.keep(shelf.root(), p)));
        workbench
                .background()
                .ask(
                        Background.Request.now("begin", "looking at " + options.path()),
                        () -> Datasets.parts(shelf, options),
                        found -> {
                            if (!found.isPresent()) {
                                remote.wrong(found.problems().getFirst(), () -> lookAround(name, options));
                            } else if (found.get().size() == 1) {
                                kept(workbench.keepDataset(name, options));
                            } else {
                                parts.show(
                                        options.path(),
                                        found.get(),
                                        part -> kept(workbench.keepDataset(name, part.options())));
                                show.accept(parts.view(), parts::focusTarget);
                            }
                        });
    }

    /// Keeps a dataset that is in no file; gives what is wrong if that cannot be.
    private Optional<String> keepRemote(String name, ReadOptions options) {
        if (options.form().filter(RemoteParts::areSeveral).isPresent()) {
            lookAround(name, options);
            return Optional.empty();
        }
        Outcome<String> kept = workbench.keepDataset(name, options);
        kept.value().ifPresent(brought);
        return kept.isPresent()
                ? Optional.empty()
                : Optional.of(kept.problems().getFirst().sentence());
    }
}
