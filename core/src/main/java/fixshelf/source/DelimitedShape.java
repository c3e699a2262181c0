package fixshelf.source;

import fixshelf.plan.ReadOptions;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringReader;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/// Finds out how a file of delimited text is formed by looking at its beginning. What it finds is shown, and can be
/// changed.
public final class DelimitedShape {
    private static final int BYTES = 1 << 18;
    private static final int RECORDS = 200;
    /// A separator that so many rows agree on is one.
    private static final double WELL = 0.8;

    /// Taken only where all rows agree on them, and not on a usual one: these signs stand in texts too.
    private static final List<String> RARE = List.of("\u0001", "\u001F", "~", "^", "¦", "::", "~|~", "^^", "##");

    private static final char[] SEPARATORS = {',', ';', '\t', '|'};

    private DelimitedShape() {}

    /// The options that fit the file best; `nullWords` are taken over as they are.
    public static ReadOptions detect(Path file, String path, List<String> nullWords) throws IOException {
        if (FilePattern.is(file)) {
            List<Path> files = FilePattern.files(file);
            return files.isEmpty() ? ReadOptions.of(path) : detect(files.getFirst(), path, nullWords);
        }
        ReadOptions.Form form = SourceKind.form(file);
        if (!(form instanceof ReadOptions.Form.Delimited)) {
            return ReadOptions.of(path).withNullWords(nullWords).withForm(form);
        }
        byte[] start;
        try (InputStream in = SourceFile.unpacked(file)) {
            start = in.readNBytes(BYTES);
        }
        String encoding = encoding(start);
        String text = new String(
                start, ReadOptions.of(path).withShape(",", "\"", encoding, true).charset());
        boolean whole = start.length < BYTES;
        String separator = ",";
        double best = -1;
        for (char sign : SEPARATORS) {
            String candidate = twice(text, sign) ? "" + sign + sign : String.valueOf(sign);
            double score = score(rows(text, candidate, whole));
            if (score > best) {
                best = score;
                separator = candidate;
            }
        }
        if (best < 1) {
            String other = separator;
            separator = RARE.stream()
                    .filter(c -> text.contains(c) && agree(rows(text, c, whole), c.length() > 1 ? 3 : 2))
                    .findFirst()
                    .orElse(other);
            best = separator.equals(other) ? best : 1;
        }
        Optional<ReadOptions.Form> places =
                best < WELL && !text.contains("\"") ? FixedPlaces.form(text, whole) : Optional.empty();
        if (places.isPresent()) {
            List<Integer> starts = ((ReadOptions.Form.Places) places.get()).starts();
            boolean printed =
                    ((ReadOptions.Form.Places) places.get()).pages() == ReadOptions.Form.Places.Pages.LEAVE_OUT_HEADS;
            List<List<String>> cut = text.lines()
                    .filter(l -> !l.isBlank())
                    .limit(RECORDS)
                    .map(l -> FixedPlaces.cut(l, starts))
                    .toList();
            return ReadOptions.of(path)
                    .withShape(",", "\"", encoding, starts.size() > 1 && (printed || looksLikeHeading(cut)))
                    .withNullWords(nullWords)
                    .withForm(places.get());
        }
        boolean heading = looksLikeHeading(rows(text, separator, whole).stream()
                .map(r -> r.stream().map(RecordReader.Field::text).toList())
                .toList());
        return ReadOptions.of(path)
                .withShape(separator, "\"", encoding, heading)
                .withNullWords(nullWords);
    }

    /// Whether a sign stands in pairs only, so that two of them are one separator.
    private static boolean twice(String text, char sign) {
        String pair = "" + sign + sign;
        return text.contains(pair) && text.replace(pair, "").indexOf(sign) < 0;
    }

    static String encoding(byte[] start) {
        boolean utf16 = start.length > 1
                && (start[0] == (byte) 0xFF && start[1] == (byte) 0xFE
                        || start[0] == (byte) 0xFE && start[1] == (byte) 0xFF);
        if (utf16) {
            return "utf-16";
        }
        Optional<String> wide = withoutMark(start);
        if (wide.isPresent()) {
            return wide.get();
        }
        CharsetDecoder decoder = StandardCharsets.UTF_8.newDecoder();
        CharBuffer out = CharBuffer.allocate(start.length + 1);
        CoderResult result = decoder.decode(ByteBuffer.wrap(start), out, start.length < BYTES);
        try {
            if (result.isError()) {
                result.throwException();
            }
            return "utf-8";
        } catch (CharacterCodingException e) {
            // Spreadsheets on Windows write this one; it differs from latin-1 where that has control characters.
            return "windows-1252";
        }
    }

    /// UTF-16 that does not say so: every second byte of plain letters and signs is zero.
    private static Optional<String> withoutMark(byte[] start) {
        int pairs = Math.min(start.length / 2, 500);
        int[] zeros = new int[2];
        for (int i = 0; i < 2 * pairs; i++) {
            zeros[i % 2] += start[i] == 0 ? 1 : 0;
        }
        if (pairs < 2 || Math.max(zeros[0], zeros[1]) * 2 < pairs) {
            return Optional.empty();
        }
        return Optional.of(zeros[0] > zeros[1] ? "utf-16be" : "utf-16le");
    }

    private static List<List<RecordReader.Field>> rows(String text, String separator, boolean whole) {
        List<List<RecordReader.Field>> rows = new ArrayList<>();
        try {
            RecordReader reader = new RecordReader(new StringReader(text), separator, "\"");
            Optional<RecordReader.Item> item = reader.next();
            while (item.isPresent() && rows.size() < RECORDS) {
                if (item.get() instanceof RecordReader.Item.Row(int _, List<RecordReader.Field> fields)) {
                    rows.add(fields);
                }
                item = reader.next();
            }
        } catch (IOException e) {
            throw new IllegalStateException("a text in memory cannot fail", e);
        }
        if (!whole && rows.size() > 1 && rows.size() < RECORDS) {
            rows.removeLast();
        }
        return rows;
    }

    private static boolean agree(List<List<RecordReader.Field>> rows, int least) {
        int width = rows.isEmpty() ? 0 : rows.getFirst().size();
        return rows.size() > 1 && width >= least && rows.stream().allMatch(r -> r.size() == width);
    }

    /// How well the rows agree on a number of fields above one; more fields win where they agree as well.
    private static double score(List<List<RecordReader.Field>> rows) {
        if (rows.isEmpty()) {
            return 0;
        }
        int width = rows.getFirst().size();
        long same = rows.stream().filter(r -> r.size() == width).count();
        return width < 2 ? 0 : (double) same / rows.size() + Math.min(width, 100) / 1000.0;
    }

    /// A first row is a heading when its fields are filled, differ, and are no numbers, while it is not like the
    /// rest.
    private static boolean looksLikeHeading(List<List<String>> rows) {
        if (rows.isEmpty()) {
            return true;
        }
        Set<String> seen = new HashSet<>();
        int blank = 0;
        for (String field : rows.getFirst()) {
            String text = field.strip().toLowerCase(Locale.ROOT);
            if (text.matches("[-+]?[0-9][0-9.,:/ -]*")) {
                return false;
            }
            blank += text.isEmpty() ? 1 : 0;
            seen.add(text);
        }
        boolean again = rows.stream().skip(1).anyMatch(r -> r.equals(rows.getFirst()));
        return !again
                && blank * 2 < rows.getFirst().size()
                && seen.size() * 2 > rows.getFirst().size();
    }
}
