package fixshelf.shelf;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;

/// Puts texts on disk so that a reader finds the old one or the new one, whatever happens in between.
public final class PageFiles {
    private PageFiles() {}

    /// Writes beside the target, makes sure that it is on disk, then moves it into place.
    public static Outcome<Path> write(Path file, String text) {
        return write(Map.of(file, text)).map(_ -> file);
    }

    /// Writes several pages that belong together: all of them are new afterwards, or none.
    public static Outcome<List<Path>> write(Map<Path, String> pages) {
        List<Moves.Move> moves = new ArrayList<>();
        Path file = Path.of("");
        try {
            for (Map.Entry<Path, String> page : pages.entrySet()) {
                file = page.getKey();
                if (Files.isSymbolicLink(file)) {
                    throw new IOException(file.getFileName() + " is a link");
                }
                moves.add(new Moves.Move(beside(file, page.getValue()), file));
            }
            Moves.together(moves);
            return Outcome.of(List.copyOf(pages.keySet()));
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    file.toString(),
                    "The page could not be written: " + e.getMessage() + ". The old one is as it was.",
                    "Look at the folder's rights and at the room on the disk."));
        }
    }

    /// Writes a text beside its file, under a name that nobody can know before.
    private static Path beside(Path file, String text) throws IOException {
        Files.createDirectories(file.toAbsolutePath().getParent());
        Path beside = file.resolveSibling("." + file.getFileName() + "." + UUID.randomUUID() + ".new");
        try (FileChannel channel = FileChannel.open(beside, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
            ByteBuffer bytes = ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8));
            while (bytes.hasRemaining()) {
                channel.write(bytes);
            }
            channel.force(true);
        } catch (IOException e) {
            Files.deleteIfExists(beside);
            throw e;
        }
        return beside;
    }

    /// Makes a shelf without any page; refuses a folder that holds a shelf already.
    public static Outcome<Path> emptyShelf(Path root, String name) {
        return shelf(root, FirstPages.settings(name));
    }

    /// Makes a shelf with a small dataset, a fix and a job that runs; refuses a folder that holds a shelf already.
    public static Outcome<Path> initShelf(Path root, String name) {
        return shelf(root, FirstPages.all(name));
    }

    private static Outcome<Path> shelf(Path root, Map<String, String> texts) {
        if (Files.exists(root.resolve(ShelfReader.SETTINGS))) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_EXISTS,
                    root.toString(),
                    "There is a shelf in this folder already.",
                    "Open it, or name another folder."));
        }
        Map<Path, String> pages = new LinkedHashMap<>();
        texts.forEach((file, text) -> {
            if (!Files.exists(root.resolve(file))) {
                pages.put(root.resolve(file), text);
            }
        });
        try {
            Files.createDirectories(root.resolve("out"));
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    root.toString(),
                    "The folder could not be made: " + e.getMessage() + ".",
                    "Name another place."));
        }
        return write(pages).map(_ -> root);
    }
}
