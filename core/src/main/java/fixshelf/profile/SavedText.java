package fixshelf.profile;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.stream.Collectors;

/// Texts that a user saves beside a dataset: counts, drawings. They appear whole or not at all, and
/// never over a file of the shelf.
public final class SavedText {
    private SavedText() {}

    /// Writes a text into a file with that ending.
    ///
    /// @param replace whether a file that is there already, and is none of the shelf, may be replaced
    public static Outcome<Path> write(Shelf shelf, Path file, String ending, String text, boolean replace) {
        return write(shelf, file, ending, text.getBytes(StandardCharsets.UTF_8), replace);
    }

    /// Writes bytes into a file with that ending, as above.
    public static Outcome<Path> write(Shelf shelf, Path file, String ending, byte[] bytes, boolean replace) {
        Path to = file.toAbsolutePath().normalize();
        if (!to.toString().endsWith(ending)) {
            return refused(to, "This is written as " + ending + ".", "Choose a name that ends in " + ending + ".");
        }
        if (Files.exists(to, LinkOption.NOFOLLOW_LINKS)) {
            boolean own = to.startsWith(shelf.root());
            boolean other = !Files.isRegularFile(to, LinkOption.NOFOLLOW_LINKS);
            if (own || other || !replace) {
                return refused(
                        to,
                        own
                                ? "There is a file of the shelf at " + to + "."
                                : "There is something at " + to + " already.",
                        own || other ? "Choose another name." : "Choose another name, or say that it may be replaced.");
            }
        }
        try {
            Files.createDirectories(to.getParent());
            Path part = Files.createTempFile(to.getParent(), ".saved", ".new");
            try {
                Files.write(part, bytes);
                Files.move(part, to, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            } finally {
                Files.deleteIfExists(part);
            }
            return Outcome.of(to);
        } catch (IOException e) {
            return refused(to, "It cannot be written: " + e.getMessage() + ".", "Choose another place.");
        }
    }

    private static Outcome<Path> refused(Path file, String what, String todo) {
        return Outcome.failed(Problem.about(Code.TARGET_NOT_WRITABLE, file.toString(), what, todo));
    }

    /// Lines as delimited text, with quotes where a cell needs them.
    public static String delimited(List<List<String>> lines) {
        return lines.stream()
                        .map(l -> l.stream().map(SavedText::cell).collect(Collectors.joining(",")))
                        .collect(Collectors.joining("\n"))
                + "\n";
    }

    private static String cell(String text) {
        return text.matches("[^,\"\r\n]*") ? text : "\"" + text.replace("\"", "\"\"") + "\"";
    }
}
