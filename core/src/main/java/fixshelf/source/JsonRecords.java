package fixshelf.source;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParseException;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.io.JsonEOFException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/// Objects as rows: a list of them, or one after another (JSON lines). Objects inside become columns `a_b`; a list
/// inside stays its JSON as text, or gives a row for each of its elements, which carries all else
/// of its object. Numbers are the digits that stand there. The columns are all names that occur, in
/// the order in which they do, for which the file is read once before.
final class JsonRecords implements Records {
    private static final int DEEPEST = 200;
    private static final String VALUE = "value";

    private static final ObjectMapper MAPPER = JsonMapper.builder(com.fasterxml.jackson.core.JsonFactory.builder()
                    .streamReadConstraints(StreamReadConstraints.builder()
                            .maxNestingDepth(DEEPEST)
                            .maxStringLength(RecordReader.LONGEST_FIELD)
                            .build())
                    .build())
            .build();

    private final Path file;
    private final JsonParser parser;
    private final List<String> names;
    private final String each;
    private final Deque<Map<String, @Nullable String>> elements = new ArrayDeque<>();
    private boolean inList;

    /// @param each the column whose list gives rows; empty for none
    /// @param names of all columns, as [#namesOf] gives them
    JsonRecords(Path file, String rows, String each, List<String> names) throws IOException {
        this.file = file;
        this.names = names;
        this.each = each;
        this.parser = begin(SourceFile.unpacked(file), rows);
    }

    /// The elements of a list that stands in a file.
    private JsonRecords(Path file, String list) throws IOException {
        this.file = file;
        this.names = List.of();
        this.each = "";
        this.parser = begin(new ByteArrayInputStream(list.getBytes(StandardCharsets.UTF_8)), "");
    }

    /// All names that occur, in order; more than `most` are not looked for.
    static List<String> namesOf(Path file, String rows, String each, int most) throws IOException {
        Set<String> names = new LinkedHashSet<>();
        try (JsonRecords looking = new JsonRecords(file, rows, each, List.of())) {
            for (Optional<Map<String, @Nullable String>> row = looking.object();
                    row.isPresent() && names.size() <= most;
                    row = looking.object()) {
                names.addAll(row.get().keySet());
            }
        }
        return List.copyOf(names);
    }

    /// The parser, before the first row.
    private JsonParser begin(InputStream in, String rows) throws IOException {
        JsonParser begun = MAPPER.getFactory().createParser(in);
        try {
            if (!rows.isEmpty()) {
                for (String name : rows.split("\\.")) {
                    wantField(begun, name, rows);
                }
            }
            JsonToken first = rows.isEmpty() ? begun.nextToken() : begun.nextValue();
            inList = first == JsonToken.START_ARRAY;
            if (!rows.isEmpty() && !inList) {
                throw problem(
                        begun, "There is no list at " + rows + ".", "Name the names that lead to the list of rows.");
            }
            if (inList) {
                begun.nextToken();
            }
            return begun;
        } catch (IOException | ProblemException e) {
            begun.close();
            throw e instanceof IOException io ? broken(io, begun) : (ProblemException) e;
        }
    }

    private void wantField(JsonParser at, String name, String rows) throws IOException {
        if (at.currentToken() == null || at.currentToken() == JsonToken.FIELD_NAME) {
            at.nextToken();
        }
        if (at.currentToken() != JsonToken.START_OBJECT) {
            throw problem(
                    at, "There is no object in which to find " + name + " of " + rows + ".", "Look at its names.");
        }
        List<String> seen = new ArrayList<>();
        while (at.nextToken() == JsonToken.FIELD_NAME) {
            if (at.currentName().equals(name)) {
                return;
            }
            seen.add(at.currentName());
            at.nextToken();
            at.skipChildren();
        }
        throw problem(
                at,
                "There is no " + name + " of " + rows + " in the file.",
                fixshelf.language.tree.Names.suggest(name, seen, "Names there: " + String.join(", ", seen) + "."));
    }

    private ProblemException problem(JsonParser at, String what, String todo) {
        int line = Math.max(1, at.currentLocation().getLineNr());
        return new ProblemException(Problem.about(Code.FILE_BROKEN, file + ":" + line, what, todo));
    }

    private ProblemException broken(IOException e, JsonParser at) {
        boolean cut = e instanceof JsonEOFException;
        int line = Math.max(1, at.currentLocation().getLineNr());
        int column = Math.max(1, at.currentLocation().getColumnNr());
        String why =
                e instanceof JsonParseException parse ? parse.getOriginalMessage() : String.valueOf(e.getMessage());
        return new ProblemException(Problem.about(
                Code.FILE_BROKEN,
                file + ":" + line,
                file.getFileName() + " is no JSON from line " + line + ", column " + column + " on: "
                        + (cut
                                ? "it ends in the middle of a value"
                                : why.lines().findFirst().orElse("")) + ".",
                cut ? "Ask for the file again: it is cut off." : "Mend it there, or read it as another kind of file."));
    }

    @Override
    public List<String> names() {
        return names;
    }

    @Override
    public Optional<Row> next() throws IOException {
        int line = Math.max(1, parser.currentTokenLocation().getLineNr());
        return object().map(row -> {
            List<@Nullable String> cells = new ArrayList<>();
            names.forEach(n -> cells.add(row.get(n)));
            return new Row(line, cells);
        });
    }

    private Optional<Map<String, @Nullable String>> object() throws IOException {
        if (!elements.isEmpty()) {
            return Optional.of(elements.removeFirst());
        }
        Optional<Map<String, @Nullable String>> row = whole();
        if (each.isEmpty() || row.isEmpty()) {
            return row;
        }
        String list = row.get().get(each);
        if (list == null) {
            row.get().remove(each);
        }
        if (list == null || !list.startsWith("[")) {
            return row;
        }
        addElements(row.get(), list);
        return Optional.of(elements.removeFirst());
    }

    /// A row for each element of a list, with all else of the object that it stands in; where it has none, the object
    /// is one row, and nothing stands for the element.
    private void addElements(Map<String, @Nullable String> row, String list) throws IOException {
        try (JsonRecords inside = new JsonRecords(file, list)) {
            for (Optional<Map<String, @Nullable String>> element = inside.whole();
                    element.isPresent();
                    element = inside.whole()) {
                Map<String, @Nullable String> whole = new LinkedHashMap<>();
                row.forEach((name, value) -> {
                    if (!name.equals(each)) {
                        whole.put(name, value);
                    }
                });
                for (Map.Entry<String, @Nullable String> cell : element.get().entrySet()) {
                    String name = cell.getKey().equals(VALUE) ? each : each + "_" + cell.getKey();
                    if (whole.containsKey(name)) {
                        throw problem(
                                parser,
                                "Two values of one row would stand in " + name + ".",
                                "Give one of them another name in the file.");
                    }
                    whole.put(name, cell.getValue());
                }
                elements.addLast(whole);
            }
        }
        if (elements.isEmpty()) {
            row.remove(each);
            elements.addLast(row);
        }
    }

    private Optional<Map<String, @Nullable String>> whole() throws IOException {
        try {
            JsonToken now = parser.currentToken();
            if (now == null || inList && now == JsonToken.END_ARRAY) {
                return Optional.empty();
            }
            Map<String, @Nullable String> row = new LinkedHashMap<>();
            if (now == JsonToken.START_OBJECT) {
                fill("", row);
            } else {
                row.put(VALUE, text());
            }
            parser.nextToken();
            return Optional.of(row);
        } catch (IOException e) {
            throw broken(e, parser);
        }
    }

    /// The fields of the object that begins here, up to its end.
    private void fill(String before, Map<String, @Nullable String> row) throws IOException {
        while (parser.nextToken() != JsonToken.END_OBJECT) {
            String name = before + parser.currentName();
            if (parser.nextToken() == JsonToken.START_OBJECT) {
                fill(name + "_", row);
            } else {
                put(name, row);
            }
        }
    }

    /// Two values of one name would leave one of them out in silence.
    private void put(String name, Map<String, @Nullable String> row) throws IOException {
        if (row.containsKey(name)) {
            throw problem(
                    parser,
                    "Two values of one row would stand in " + name + ".",
                    "Give one of them another name in the file.");
        }
        row.put(name, text());
    }

    /// The value here, and up to its end.
    private @Nullable String text() throws IOException {
        return switch (parser.currentToken()) {
            case VALUE_NULL -> null;
            case START_ARRAY, START_OBJECT -> {
                StringWriter out = new StringWriter();
                try (var generator = MAPPER.getFactory().createGenerator(out)) {
                    copy(generator);
                }
                yield out.toString();
            }
            default -> parser.getText();
        };
    }

    /// The list or object here, with numbers as the digits that stand there.
    private void copy(JsonGenerator to) throws IOException {
        int depth = 0;
        while (true) {
            JsonToken token = parser.currentToken();
            if (token == JsonToken.VALUE_NUMBER_INT || token == JsonToken.VALUE_NUMBER_FLOAT) {
                to.writeNumber(parser.getText());
            } else {
                to.copyCurrentEvent(parser);
            }
            depth += token.isStructStart() ? 1 : token.isStructEnd() ? -1 : 0;
            if (depth == 0) {
                return;
            }
            if (parser.nextToken() == null) {
                throw new JsonEOFException(parser, null, "it ends in the middle of a value");
            }
        }
    }

    @Override
    public void close() throws IOException {
        parser.close();
    }
}
