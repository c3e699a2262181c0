package fixshelf.desktop;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.stream.Collectors;

/// Writes lines of counts as delimited text: whole, or not at all, and never over a file that is a source or a page.
final class CountFile {
    private CountFile() {}

    static Outcome<Path> write(Shelf shelf, Path file, List<List<String>> lines) {
        boolean page = file.normalize().startsWith(shelf.root()) && Files.exists(file);
        if (page || !file.toString().endsWith(".csv")) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    file.toString(),
                    page ? "There is a file of the shelf at " + file + "." : "Counts are written as .csv.",
                    "Choose another name that ends in .csv."));
        }
        String text = lines.stream()
                        .map(l -> l.stream().map(CountFile::cell).collect(Collectors.joining(",")))
                        .collect(Collectors.joining("\n"))
                + "\n";
        try {
            Path part = Files.createTempFile(file.toAbsolutePath().getParent(), ".counts", ".new");
            try {
                Files.writeString(part, text);
                Files.move(part, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            } finally {
                Files.deleteIfExists(part);
            }
            return Outcome.of(file);
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    file.toString(),
                    "It cannot be written: " + e.getMessage() + ".",
                    "Choose another place."));
        }
    }

    private static String cell(String text) {
        return text.matches("[^,\"\r\n]*") ? text : "\"" + text.replace("\"", "\"\"") + "\"";
    }
}
