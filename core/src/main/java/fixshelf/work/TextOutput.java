package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.Stop;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.DelimitedText;
import fixshelf.table.Field;
import fixshelf.type.Type;
import java.io.BufferedOutputStream;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/// Delimited text as its output says. The engine writes the rows; other line ends and encodings are made of its file.
final class TextOutput {
    /// What a spreadsheet would take for the beginning of a formula, but for signs before plain numbers.
    private static final String FORMULA = "^[=+@\t\r-]";

    private static final String PLAIN_NUMBER = "[+-][0-9]+([.,][0-9]+)*";
    private static final int MOST_NAMED = 10;

    private TextOutput() {}

    /// What is said to the engine, behind COPY … TO.
    static String options(DelimitedText text, char usual) {
        String separator = text.separator().isEmpty() ? String.valueOf(usual) : text.separator();
        return "FORMAT csv, HEADER " + text.heading() + ", DELIMITER " + DuckSession.text(separator)
                + (text.missing().isEmpty() ? "" : ", NULLSTR " + DuckSession.text(text.missing()))
                + (text.quoted() ? ", FORCE_QUOTE *" : "");
    }

    /// The fields with their names, as they are written.
    static String named(DelimitedText text, List<Field> fields) {
        return fields.stream()
                .map(f -> (text.guarded() && f.type().equals(Type.TEXT) ? guarded(f.key()) : f.key()) + " AS "
                        + DuckSession.name(text.guarded() && isFormula(f.name()) ? "'" + f.name() : f.name()))
                .collect(Collectors.joining(", "));
    }

    private static boolean isFormula(String name) {
        return !name.isEmpty() && "=+@\t\r-".indexOf(name.charAt(0)) >= 0;
    }

    private static String guarded(String key) {
        return "CASE WHEN regexp_matches(" + key + ", " + DuckSession.text(FORMULA) + ") AND NOT regexp_full_match("
                + key + ", " + DuckSession.text(PLAIN_NUMBER) + ") THEN '''' || " + key + " ELSE " + key + " END";
    }

    /// Makes a file of other bytes out of that of the engine, in its place.
    static void rewrite(DelimitedText text, Path file, Path scratch, Path target, String shown) {
        if (!text.isRewritten()) {
            return;
        }
        Charset charset = text.charset();
        CharsetEncoder encoder = charset.newEncoder();
        Set<String> foreign = new LinkedHashSet<>();
        long lost = 0;
        try {
            try (BufferedReader in = Files.newBufferedReader(file, StandardCharsets.UTF_8);
                    OutputStream out = new BufferedOutputStream(Files.newOutputStream(scratch), 1 << 16)) {
                boolean quoted = false;
                StringBuilder piece = new StringBuilder();
                piece.append(text.needsMark() ? "\uFEFF" : "");
                try (var writer = new java.io.OutputStreamWriter(out, charset)) {
                    for (int c = codePoint(in); c >= 0; c = codePoint(in)) {
                        quoted ^= c == '"';
                        String sign = Character.toString(c);
                        if (!encoder.canEncode(sign)) {
                            lost++;
                            if (foreign.size() < MOST_NAMED) {
                                foreign.add(sign);
                            }
                        }
                        piece.append(c == '\n' && text.crlf() && !quoted ? "\r\n" : sign);
                        if (piece.length() > 1 << 14) {
                            Stop.check();
                            writer.append(piece);
                            piece.setLength(0);
                        }
                    }
                    writer.append(piece);
                }
            }
            if (lost > 0) {
                throw new ProblemException(Problem.about(
                        Code.VALUES_LOST,
                        target.toString(),
                        String.format(
                                "%,d %s of %s cannot be written as %s: %s%s",
                                lost,
                                lost == 1 ? "character" : "characters",
                                shown,
                                text.encoding(),
                                String.join(" ", foreign),
                                foreign.size() < MOST_NAMED ? "" : " …"),
                        "Write utf-8, or replace them in a line before. Nothing was written."));
            }
            Files.move(scratch, file, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            throw new ProblemException(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    target.toString(),
                    shown + " could not be written: " + e.getMessage() + ".",
                    "Look at the room on the disk."));
        }
    }

    private static int codePoint(BufferedReader in) throws IOException {
        int first = in.read();
        return first >= 0 && Character.isHighSurrogate((char) first)
                ? Character.toCodePoint((char) first, (char) in.read())
                : first;
    }
}
