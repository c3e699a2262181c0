package fixshelf.source;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Optional;

/// What a file is that is no delimited text, so that this can be said instead of blaming its encoding.
final class SourceKind {
    private SourceKind() {}

    /// Why this cannot be read as delimited text; empty where it may be, or is not there at all.
    static Optional<Problem> objection(Path file) {
        if (Files.isDirectory(file)) {
            return problem(file, "is a folder, not a file.", "Name a file in it.");
        }
        if (Files.isSymbolicLink(file) && !Files.exists(file)) {
            return problem(file, "is a link to a file that is not there.", "Mend the link, or name the file itself.");
        }
        if (Files.exists(file, LinkOption.NOFOLLOW_LINKS) && !Files.isRegularFile(file)) {
            return problem(
                    file, "is no file with rows in it, but a pipe or a device.", "Save its rows into a file first.");
        }
        return Files.isRegularFile(file) ? kind(file) : Optional.empty();
    }

    private static Optional<Problem> kind(Path file) {
        byte[] start;
        try (InputStream in = Files.newInputStream(file)) {
            start = in.readNBytes(8);
        } catch (IOException e) {
            return Optional.empty();
        }
        if (begins(start, 0x1F, 0x8B)) {
            return problem(file, "is compressed (gzip).", "Unpack it first: gunzip -k " + file.getFileName() + ".");
        }
        if (begins(start, 'P', 'K', 3, 4)) {
            return problem(
                    file,
                    "is a workbook or another zip file.",
                    "Save the sheet as delimited text, UTF-8, and read that.");
        }
        if (begins(start, 0xD0, 0xCF, 0x11, 0xE0)) {
            return problem(file, "is an old or an encrypted workbook.", "Save the sheet as delimited text, UTF-8.");
        }
        if (begins(start, 'P', 'A', 'R', '1')) {
            return problem(file, "is a Parquet file.", "Export it as delimited text, and read that.");
        }
        if (begins(start, '%', 'P', 'D', 'F')) {
            return problem(file, "is a PDF.", "Export its table as delimited text, and read that.");
        }
        return begins(start, 'S', 'Q', 'L', 'i', 't', 'e')
                ? problem(file, "is an SQLite database.", "Export its table as delimited text, and read that.")
                : Optional.empty();
    }

    private static boolean begins(byte[] start, int... with) {
        if (start.length < with.length) {
            return false;
        }
        for (int i = 0; i < with.length; i++) {
            if ((start[i] & 0xFF) != with[i]) {
                return false;
            }
        }
        return true;
    }

    private static Optional<Problem> problem(Path file, String what, String todo) {
        return Optional.of(Problem.about(Code.FILE_MISSING, file.toString(), file.getFileName() + " " + what, todo));
    }
}
