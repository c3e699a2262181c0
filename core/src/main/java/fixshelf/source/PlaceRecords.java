package fixshelf.source;

import fixshelf.plan.ReadOptions;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Lines of text, cut at fixed places. Blanks at the ends of a field go with the cutting; a field of blanks alone is
/// the empty text. Places count characters, so that letters beyond the basic plane count once.
final class PlaceRecords implements Records {
    private final BufferedReader in;
    private final ReadOptions options;
    private final List<Integer> starts;
    private final List<String> names;
    private int line;

    PlaceRecords(Path file, ReadOptions options, List<Integer> starts) throws IOException {
        this.options = options;
        this.starts = starts.isEmpty() ? List.of(1) : starts;
        this.in = new BufferedReader(SourceFile.reader(file, options));
        this.in.mark(1);
        if (in.read() != 0xFEFF) {
            in.reset();
        }
        List<String> heading = new ArrayList<>();
        if (options.heading()) {
            Optional<List<String>> first = line();
            heading.addAll(first.orElse(List.of()));
        }
        while (heading.size() < this.starts.size()) {
            heading.add("");
        }
        this.names = heading;
    }

    private Optional<List<String>> line() throws IOException {
        String text = in.readLine();
        line++;
        return text == null ? Optional.empty() : Optional.of(cut(text));
    }

    private List<String> cut(String text) {
        int length = text.codePointCount(0, text.length());
        List<String> fields = new ArrayList<>();
        for (int i = 0; i < starts.size(); i++) {
            int from = Math.min(length, starts.get(i) - 1);
            int to = i + 1 < starts.size() ? Math.clamp(starts.get(i + 1) - 1L, from, length) : length;
            String field = text.substring(text.offsetByCodePoints(0, from), text.offsetByCodePoints(0, to));
            fields.add(starts.size() == 1 ? field : field.strip());
        }
        return fields;
    }

    @Override
    public List<String> names() {
        return names;
    }

    @Override
    public Optional<Row> next() throws IOException {
        Optional<List<String>> cut = line();
        if (cut.isEmpty()) {
            return Optional.empty();
        }
        boolean decoded = cut.get().stream().noneMatch(f -> f.indexOf(RecordReader.NOT_DECODED) >= 0);
        List<@Nullable String> cells = new ArrayList<>();
        cut.get().forEach(f -> cells.add(options.nullWords().contains(f) ? null : f));
        return Optional.of(new Row(line, cells, decoded ? "" : RecordReader.Why.NOT_DECODED.sentence(), List.of()));
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
