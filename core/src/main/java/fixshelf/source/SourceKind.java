package fixshelf.source;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;

/// What kind of file it is, so that it is read as that, or that can be said instead of blaming its encoding.
final class SourceKind {
    private SourceKind() {}

    /// Why no rows can be read of it; empty where they may be, or where it is not there at all.
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
        return Optional.empty();
    }

    /// What kind of file it is, as far as its first bytes and its name say.
    static ReadOptions.Form form(Path file) {
        byte[] start = start(file);
        String name = file.getFileName().toString().toLowerCase(Locale.ROOT).replaceFirst("\\.gz$", "");
        if (begins(start, 'P', 'K', 3, 4)) {
            return new ReadOptions.Form.Workbook("", "", false, false);
        }
        if (begins(start, 'P', 'A', 'R', '1')) {
            return new ReadOptions.Form.Parquet();
        }
        if (begins(start, 'S', 'Q', 'L', 'i', 't', 'e')) {
            return new ReadOptions.Form.Database("sqlite", "", "");
        }
        if (start.length >= 12 && new String(start, 8, 4, StandardCharsets.ISO_8859_1).equals("DUCK")) {
            return new ReadOptions.Form.Database("duckdb", "", "");
        }
        if (begins(start, '%', 'P', 'D', 'F')) {
            return new ReadOptions.Form.Pdf("", 0);
        }
        if (name.matches(".*\\.x?html?") || HtmlRecords.is(file)) {
            return new ReadOptions.Form.Html("");
        }
        return name.endsWith(".json") || name.endsWith(".jsonl") || name.endsWith(".ndjson")
                ? new ReadOptions.Form.Json("", "")
                : new ReadOptions.Form.Delimited();
    }

    static boolean isGzip(Path file) {
        return begins(start(file), 0x1F, 0x8B);
    }

    private static byte[] start(Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            return in.readNBytes(12);
        } catch (IOException e) {
            return new byte[0];
        }
    }

    /// Why a file is not read as text; empty where it may be some.
    static Optional<Problem> noText(Path file) {
        byte[] start = start(file);
        if (begins(start, 'P', 'K', 3, 4)) {
            return problem(file, "is a workbook or another zip file.", "Read it as a workbook: `kind: workbook`.");
        }
        if (begins(start, 0xD0, 0xCF, 0x11, 0xE0)) {
            return problem(
                    file,
                    "is an old or an encrypted workbook.",
                    "Open it, take its password off, and save it as .xlsx.");
        }
        if (begins(start, 'P', 'A', 'R', '1')) {
            return problem(file, "is a Parquet file.", "Read it as one: `kind: parquet`.");
        }
        if (begins(start, '%', 'P', 'D', 'F')) {
            return problem(file, "is a PDF.", "Read its tables: `kind: pdf`.");
        }
        if (HtmlRecords.isWhole(file)) {
            return problem(file, "is a page of the web.", "Read its tables: `kind: html`.");
        }
        return begins(start, 'S', 'Q', 'L', 'i', 't', 'e')
                ? problem(file, "is an SQLite database.", "Read it as one: `kind: sqlite`.")
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
