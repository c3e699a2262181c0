package fixshelf.shelf;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;

/// Where the program keeps what belongs to its user and to no shelf.
public final class UserFolder {
    private UserFolder() {}

    /// The folder that `FIXSHELF_SETTINGS` names, or the usual one for settings of this user.
    public static Path path() {
        String named = System.getenv("FIXSHELF_SETTINGS");
        String config = System.getenv("XDG_CONFIG_HOME");
        if (named != null) {
            return Path.of(named);
        }
        return config != null
                ? Path.of(config, "fixshelf")
                : Path.of(System.getProperty("user.home"), ".config", "fixshelf");
    }

    /// The lines that are kept in a file of it, in no order; none where it is not there, or cannot be read.
    public static Set<String> lines(String name) {
        Path file = path().resolve(name);
        try {
            return Files.isRegularFile(file) ? new TreeSet<>(Files.readAllLines(file)) : new TreeSet<>();
        } catch (IOException e) {
            System.getLogger(UserFolder.class.getName()).log(System.Logger.Level.WARNING, "not read: " + file, e);
            return new TreeSet<>();
        }
    }

    /// Keeps one more line in a file of it.
    public static void add(String name, String line) throws IOException {
        Set<String> lines = lines(name);
        lines.add(line);
        keep(name, lines);
    }

    /// Keeps lines no longer.
    public static void remove(String name, Set<String> gone) throws IOException {
        Set<String> lines = lines(name);
        if (lines.removeAll(gone)) {
            keep(name, lines);
        }
    }

    private static void keep(String name, Set<String> lines) throws IOException {
        Files.createDirectories(path());
        Files.writeString(path().resolve(name), lines.isEmpty() ? "" : String.join("\n", lines) + "\n");
    }

    /// The folders that the variable `FIXSHELF_ALLOW` of the system names, for jobs to write to and
    /// shelves to read from.
    public static List<Path> allowedBySystem() {
        String named = System.getenv("FIXSHELF_ALLOW");
        return named == null
                ? List.of()
                : Stream.of(named.split(File.pathSeparator))
                        .filter(p -> !p.isBlank())
                        .map(Path::of)
                        .toList();
    }
}
