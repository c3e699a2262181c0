package fixshelf.engine;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/// A folder of the system's temporary ones that belongs to this run of the program. Its name says which process made
/// it, so that what a killed run left behind is found and removed by a later one.
public record TemporaryFolder(Path path) implements AutoCloseable {
    private static final Pattern NAME = Pattern.compile("fixshelf-([0-9]+)-.*");

    /// A new folder that only this user can look into.
    ///
    /// @param use a word for what it is for
    public static TemporaryFolder make(String use) throws IOException {
        removeLeftBehind();
        String name = "fixshelf-" + ProcessHandle.current().pid() + "-" + use;
        return new TemporaryFolder(Files.createTempDirectory(name));
    }

    /// Removes the folders of processes that are no more. What belongs to other users cannot be removed, and stays.
    private static void removeLeftBehind() {
        Path all = Path.of(System.getProperty("java.io.tmpdir"));
        try (Stream<Path> folders = Files.list(all)) {
            List<Path> left = folders.filter(TemporaryFolder::isLeftBehind).toList();
            left.forEach(folder -> new TemporaryFolder(folder).close());
        } catch (IOException | UncheckedIOException e) {
            System.getLogger(TemporaryFolder.class.getName())
                    .log(System.Logger.Level.DEBUG, "not looked at: " + all, e);
        }
    }

    private static boolean isLeftBehind(Path folder) {
        Matcher name = NAME.matcher(folder.getFileName().toString());
        return name.matches()
                && name.group(1).length() < 10
                && ProcessHandle.of(Long.parseLong(name.group(1))).isEmpty()
                && Files.isDirectory(folder, java.nio.file.LinkOption.NOFOLLOW_LINKS);
    }

    /// Removes the folder and everything in it; links in it are not followed.
    @Override
    public void close() {
        try (Stream<Path> files = Files.walk(path)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(file);
            }
        } catch (IOException | UncheckedIOException e) {
            System.getLogger(TemporaryFolder.class.getName()).log(System.Logger.Level.DEBUG, "left behind: " + path, e);
        }
    }
}
