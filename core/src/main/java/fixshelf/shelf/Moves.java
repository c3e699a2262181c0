package fixshelf.shelf;

import java.io.IOException;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/// Puts several files in place together: all of them, also when the program is killed between two.
///
/// What is to be moved is written down first, in the user's own folder, and taken away when it is done. What a killed
/// program left written down is finished by the next one. It is never read from a shelf: a shelf may come from anybody.
public final class Moves {
    private static final Pattern NAME = Pattern.compile("moves-([0-9]{1,9})-.*");

    private Moves() {}

    /// A whole file beside its target, and the target.
    public record Move(Path part, Path target) {}

    /// Moves all parts into place.
    public static void together(List<Move> moves) throws IOException {
        together(UserFolder.path().resolve("moves"), moves);
    }

    static void together(Path folder, List<Move> moves) throws IOException {
        if (moves.size() < 2) {
            for (Move move : moves) {
                move(move);
            }
            return;
        }
        Path journal = written(folder, moves);
        for (Move move : moves) {
            move(move);
        }
        Files.deleteIfExists(journal);
    }

    private static Path written(Path folder, List<Move> moves) throws IOException {
        Files.createDirectories(folder);
        StringBuilder text = new StringBuilder();
        for (Move move : moves) {
            text.append(encoded(move.part()))
                    .append('\t')
                    .append(encoded(move.target()))
                    .append('\n');
        }
        String name = "moves-" + ProcessHandle.current().pid() + "-" + UUID.randomUUID();
        Path draft = folder.resolve("draft-" + name);
        Files.writeString(draft, text, StandardOpenOption.CREATE_NEW, StandardOpenOption.SYNC);
        return Files.move(draft, folder.resolve(name), StandardCopyOption.ATOMIC_MOVE);
    }

    private static String encoded(Path path) {
        return URLEncoder.encode(path.toAbsolutePath().normalize().toString(), StandardCharsets.UTF_8);
    }

    /// Keeps the rights of a file that is replaced.
    private static void move(Move move) throws IOException {
        if (Files.isRegularFile(move.target(), LinkOption.NOFOLLOW_LINKS)
                && Files.getFileStore(move.target()).supportsFileAttributeView("posix")) {
            Files.setPosixFilePermissions(move.part(), Set.copyOf(Files.getPosixFilePermissions(move.target())));
        }
        Files.move(move.part(), move.target(), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }

    /// Finishes what programs began that are no more, and gives the files that are in place now.
    public static List<Path> finishLeftBehind() {
        return finishLeftBehind(UserFolder.path().resolve("moves"));
    }

    static List<Path> finishLeftBehind(Path folder) {
        List<Path> finished = new ArrayList<>();
        if (!Files.isDirectory(folder)) {
            return finished;
        }
        try (Stream<Path> journals = Files.list(folder)) {
            for (Path journal : journals.filter(Moves::isLeftBehind).toList()) {
                for (String line : Files.readAllLines(journal)) {
                    finish(line, finished);
                }
                Files.deleteIfExists(journal);
            }
        } catch (IOException e) {
            System.getLogger(Moves.class.getName())
                    .log(System.Logger.Level.WARNING, "not all files that belong together are in place: " + e);
        }
        return finished;
    }

    private static boolean isLeftBehind(Path journal) {
        Matcher name = NAME.matcher(journal.getFileName().toString());
        return name.matches() && ProcessHandle.of(Long.parseLong(name.group(1))).isEmpty();
    }

    private static void finish(String line, List<Path> finished) throws IOException {
        String[] paths = line.split("\t");
        Path part = Path.of(URLDecoder.decode(paths[0], StandardCharsets.UTF_8));
        Path target = Path.of(URLDecoder.decode(paths[1], StandardCharsets.UTF_8));
        if (Files.exists(part)) {
            move(new Move(part, target));
            finished.add(target);
        }
    }
}
