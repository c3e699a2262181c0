package fixshelf.desktop.parts;

import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.Background.Request;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;

/// Files and shelves by paths that are typed.
///
/// @param from the folder at which a path begins that begins at no root: of the shelf that is open, or the user's own
/// @param reader takes a file whose path was typed
/// @param opener takes the folder of a shelf
/// @param remote takes the address of a server or of a page of the web
public record TypedFiles(
        Supplier<Background> background,
        Supplier<Path> from,
        Consumer<Path> reader,
        Consumer<Path> opener,
        Consumer<String> remote) {
    /// Finds what a path could become, away from the interface: a folder can be far away.
    void find(String typed, Consumer<List<TypedPath.Found>> done) {
        Path begins = from.get();
        background.get().ask(Request.now("paths", "looking for files"), () -> TypedPath.found(typed, begins), done);
    }
}
