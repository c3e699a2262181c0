package fixshelf.export;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.Optional;

/// A file that Fix Shelf makes. Its first line says so, with a number that is made from all lines after it.
///
/// @param comment how a comment begins in its language
record MadeFile(Path file, String comment, String text) {
    private static final String WORDS = " Made by Fix Shelf; change the fix and export again. Number ";

    /// The whole file.
    String whole() {
        return comment + WORDS + number(text) + "\n" + text;
    }

    /// Why the file that is there must not be replaced; empty when it may be.
    Optional<Problem> objection() throws IOException {
        if (!Files.exists(file)) {
            return Optional.empty();
        }
        String there = Files.readString(file, StandardCharsets.UTF_8);
        int end = there.indexOf('\n');
        String first = end < 0 ? there : there.substring(0, end);
        String rest = end < 0 ? "" : there.substring(end + 1);
        if (!first.contains(WORDS.strip())) {
            return Optional.of(Problem.about(
                    Code.TARGET_EXISTS,
                    file.toString(),
                    "There is a file " + file.getFileName() + " that Fix Shelf did not make.",
                    "Export into another folder, or move the file away."));
        }
        boolean changed = !first.endsWith(number(rest));
        return changed
                ? Optional.of(
                        Problem.about(
                                Code.DIVERGED,
                                file.toString(),
                                file.getFileName() + " was changed by hand since it was made.",
                                "Bring the change into the fix, then export with --replace; or keep the file under another name."))
                : Optional.empty();
    }

    /// The number in its first line.
    String number() {
        return number(text);
    }

    /// The MD5 digest of the whole file, which R can make by itself.
    String md5() {
        return HexFormat.of().formatHex(digest("MD5", whole()));
    }

    private static String number(String text) {
        return HexFormat.of().formatHex(digest("SHA-256", text), 0, 8);
    }

    private static byte[] digest(String kind, String text) {
        try {
            return MessageDigest.getInstance(kind).digest(text.getBytes(StandardCharsets.UTF_8));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
