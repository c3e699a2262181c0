package fixshelf.desktop.parts;

import fixshelf.shelf.ShelfReader;
import java.io.IOException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;

/// A path that is being typed, and the files and folders that it could become.
public final class TypedPath {
    private static final int MOST_LOOKED_AT = 5_000;

    private TypedPath() {}

    /// A file or folder, and what the field holds when it is taken.
    ///
    /// @param shelf whether it is the folder of a shelf
    public record Found(Path file, String text, boolean folder, boolean shelf) {}

    /// Whether a text is meant as a path: it begins as one, or holds what parts folders.
    public static boolean is(String typed) {
        String text = typed.strip();
        return text.startsWith("~") || text.startsWith("./") || text.indexOf('/') >= 0 || text.indexOf('\\') >= 0;
    }

    /// What begins as it is typed, capitals or not; folders first, none that is hidden unless its dot is typed.
    ///
    /// @param from the folder that a path is taken from which does not begin at a root
    public static List<Found> found(String typed, Path from) {
        String text = typed.strip();
        int cut = Math.max(text.lastIndexOf('/'), text.lastIndexOf('\\')) + 1;
        String before = text.substring(0, cut);
        String begun = text.substring(cut).toLowerCase(Locale.ROOT);
        List<Found> found = new ArrayList<>();
        try {
            Path home = Path.of(System.getProperty("user.home"));
            Path folder = before.startsWith("~")
                    ? home.resolve(before.substring(1).replaceFirst("^[/\\\\]+", ""))
                    : from.resolve(before);
            int looked = 0;
            try (DirectoryStream<Path> entries = Files.newDirectoryStream(folder)) {
                for (Path entry : entries) {
                    String name = entry.getFileName().toString();
                    boolean hidden = name.startsWith(".") && !begun.startsWith(".");
                    if (!hidden && name.toLowerCase(Locale.ROOT).startsWith(begun)) {
                        boolean isFolder = Files.isDirectory(entry);
                        boolean isShelf = isFolder && Files.isRegularFile(entry.resolve(ShelfReader.SETTINGS));
                        found.add(new Found(entry, before + name + (isFolder ? "/" : ""), isFolder, isShelf));
                    }
                    if (++looked == MOST_LOOKED_AT) {
                        break;
                    }
                }
            }
        } catch (IOException | DirectoryIteratorException | InvalidPathException e) {
            return List.of();
        }
        found.sort(Comparator.comparing((Found f) -> !f.folder())
                .thenComparing(f -> f.file().getFileName().toString().toLowerCase(Locale.ROOT)));
        return found;
    }
}
