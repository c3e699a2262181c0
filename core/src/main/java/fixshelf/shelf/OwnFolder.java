package fixshelf.shelf;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;

/// The shelf's own folder, `.fixshelf`, for what is not shared: the run log, drafts. Links in it are not followed, as
/// a shelf that somebody sent could lead writes anywhere with them.
public final class OwnFolder {
    private OwnFolder() {}

    /// A file in it, whose folders are made; fails where one of them, or the file, is a link.
    public static Path file(Path shelf, String... names) throws IOException {
        Path path = shelf.resolve(".fixshelf");
        makeFolder(path);
        for (int i = 0; i < names.length - 1; i++) {
            path = path.resolve(names[i]);
            makeFolder(path);
        }
        Path file = path.resolve(names[names.length - 1]);
        if (Files.isSymbolicLink(file)) {
            throw new IOException(file + " is a link");
        }
        return file;
    }

    private static void makeFolder(Path folder) throws IOException {
        if (!Files.exists(folder, LinkOption.NOFOLLOW_LINKS)) {
            Files.createDirectories(folder);
        }
        if (!Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS)) {
            throw new IOException(folder + " is no folder of its own");
        }
    }
}
