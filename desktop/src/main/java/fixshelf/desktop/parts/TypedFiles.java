package fixshelf.desktop.parts;

import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.Workbench;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;

/// Files by paths that are typed; one that begins at no root begins at the folder of the shelf.
///
/// @param workbench the shelf that is open, if one is
/// @param reader takes a file whose path was typed
public record TypedFiles(Supplier<Optional<Workbench>> workbench, Consumer<Path> reader) {
    /// Finds what a path could become, away from the interface: a folder can be far away.
    void find(String typed, Consumer<List<TypedPath.Found>> done) {
        workbench.get().ifPresent(w -> w.background()
                .ask(
                        Request.now("paths", "looking for files"),
                        () -> TypedPath.found(typed, w.shelf().root()),
                        done));
    }
}
