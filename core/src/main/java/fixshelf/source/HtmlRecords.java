package fixshelf.source;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jspecify.annotations.Nullable;

/// A table of a page of the web that was saved as a file.
final class HtmlRecords implements Records {
    private static final int MOST_BYTES = 50_000_000;
    private static final int START = 2_048;

    private final List<List<@Nullable String>> rows;
    private final List<String> names;
    private final List<String> nullWords;
    private int at;

    HtmlRecords(Path file, ReadOptions options, ReadOptions.Form.Html form) throws IOException {
        this(new PageTables(page(file), file.getFileName().toString()), options, form.table());
    }

    /// A table of a page that was read before.
    HtmlRecords(PageTables page, ReadOptions options, String table) {
        rows = page.rows(table);
        nullWords = options.nullWords();
        int width = rows.stream().mapToInt(List::size).max().orElse(0);
        if (options.heading() && !rows.isEmpty()) {
            List<String> first = new ArrayList<>();
            for (String name : Records.cells(rows.getFirst(), width, List.of())) {
                first.add(name == null ? "" : name);
            }
            names = first;
            at = 1;
        } else {
            names = Collections.nCopies(width, "");
        }
    }

    /// The page, in the encoding that it says; where it says none and is no UTF-8, in that of old pages.
    static Document page(Path file) throws IOException {
        byte[] bytes;
        try (InputStream in = SourceFile.unpacked(file)) {
            bytes = in.readNBytes(MOST_BYTES + 1);
        }
        if (bytes.length > MOST_BYTES) {
            throw new ProblemException(Problem.about(
                    Code.FILE_BROKEN,
                    file.toString(),
                    String.format("%s is larger than %,d MB.", file.getFileName(), MOST_BYTES / 1_000_000),
                    "Save the table alone, or as delimited text."));
        }
        Document page = Jsoup.parse(new java.io.ByteArrayInputStream(bytes), null, "");
        boolean said = page.selectFirst("meta[charset], meta[http-equiv=content-type]") != null;
        return !said
                        && page.charset().equals(StandardCharsets.UTF_8)
                        && page.text().indexOf('\uFFFD') >= 0
                ? Jsoup.parse(new java.io.ByteArrayInputStream(bytes), "windows-1252", "")
                : page;
    }

    /// Whether a file begins as a page does, or as a part of one that is a table.
    static boolean is(Path file) {
        return begins(file, "!doctype\\s+html|html|head|body|table");
    }

    /// Whether a file begins as a whole page does.
    static boolean isWhole(Path file) {
        return begins(file, "!doctype\\s+html|html");
    }

    private static boolean begins(Path file, String elements) {
        try (InputStream in = SourceFile.unpacked(file)) {
            String start = new String(in.readNBytes(START), StandardCharsets.ISO_8859_1);
            return start.replaceFirst("^\u00EF\u00BB\u00BF", "")
                    .replaceAll("(?s)^\\s*(<\\?xml.*?\\?>|<!--.*?-->|\\s)*", "")
                    .matches("(?is)<(" + elements + ")\\b.*");
        } catch (IOException e) {
            return false;
        }
    }

    @Override
    public List<String> names() {
        return names;
    }

    @Override
    public Optional<Row> next() {
        if (at >= rows.size()) {
            return Optional.empty();
        }
        List<@Nullable String> cells = Records.cells(rows.get(at++), names.size(), nullWords);
        return Optional.of(new Row(at, cells));
    }

    @Override
    public void close() {
        // All was read before.
    }
}
