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
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;

/// Puts texts on disk so that a reader finds the old one or the new one, whatever happens in between.
public final class PageFiles {
    private PageFiles() {}

    /// Writes beside the target, makes sure that it is on disk, then moves it into place.
    public static Outcome<Path> write(Path file, String text) {
        Path beside = file.resolveSibling("." + file.getFileName() + ".new");
        try {
            Files.createDirectories(file.toAbsolutePath().getParent());
            try (FileChannel channel = FileChannel.open(
                    beside,
                    StandardOpenOption.CREATE,
                    StandardOpenOption.WRITE,
                    StandardOpenOption.TRUNCATE_EXISTING)) {
                ByteBuffer bytes = ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8));
                while (bytes.hasRemaining()) {
                    channel.write(bytes);
                }
                channel.force(true);
            }
            Files.move(beside, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            return Outcome.of(file);
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    file.toString(),
                    "The page could not be written: " + e.getMessage() + ". The old one is as it was.",
                    "Look at the folder's rights and at the room on the disk."));
        }
    }

    /// Makes an empty shelf; refuses a folder that holds one already.
    public static Outcome<Path> initShelf(Path root, String name) {
        if (Files.exists(root.resolve(ShelfReader.SETTINGS))) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_EXISTS,
                    root.toString(),
                    "There is a shelf in this folder already.",
                    "Open it, or name another folder."));
        }
        String settings = "shelf: " + YamlText.scalar(name)
                + "\nnull_words: [\"\"]\nenvironment: dev\nenvironments:\n  dev: {data: data}\n";
        try {
            for (String folder : java.util.List.of("fixes", "datasets", "jobs", "data")) {
                Files.createDirectories(root.resolve(folder));
            }
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    root.toString(),
                    "The folder could not be made: " + e.getMessage() + ".",
                    "Name another place."));
        }
        return write(root.resolve(ShelfReader.SETTINGS), settings)
                .then(_ -> write(root.resolve(".gitignore"), ".fixshelf/\n"))
                .map(_ -> root);
    }
}
