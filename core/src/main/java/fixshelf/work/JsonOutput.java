package fixshelf.work;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.StreamWriteFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import fixshelf.engine.DuckSession;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.table.Field;
import fixshelf.type.Literals;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import org.jspecify.annotations.Nullable;

/// Rows as JSON, each on a line: a list of objects, or the objects alone. Numbers keep all their digits, also decimals,
/// which the engine itself would write as binary fractions; days and moments are texts; what is missing is `null`.
final class JsonOutput {
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(StreamWriteFeature.WRITE_BIGDECIMAL_AS_PLAIN)
            .build();

    private final DuckSession session;
    private final Path target;
    private final List<Field> fields;
    private final String query;
    private final boolean asList;

    /// @param target the file as it will be called
    /// @param query gives the fields, in order
    /// @param asList whether the objects stand in a list
    JsonOutput(DuckSession session, Path target, List<Field> fields, String query, boolean asList) {
        this.session = session;
        this.target = target;
        this.fields = fields;
        this.query = query;
        this.asList = asList;
    }

    /// Writes the rows into a file.
    void write(Path file) {
        try (Writer out = new BufferedWriter(Files.newBufferedWriter(file), 1 << 16)) {
            out.write(asList ? "[" : "");
            boolean[] first = {true};
            session.each(query, cells -> {
                try {
                    out.write(first[0] ? asList ? "\n" : "" : asList ? ",\n" : "\n");
                    first[0] = false;
                    out.write(object(cells));
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
            out.write(asList ? "\n]\n" : first[0] ? "" : "\n");
        } catch (IOException | UncheckedIOException e) {
            throw new ProblemException(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    target.toString(),
                    target.getFileName() + " could not be written: " + e.getMessage() + ".",
                    "Look at the room on the disk."));
        }
    }

    private String object(List<@Nullable Object> cells) throws IOException {
        java.io.StringWriter text = new java.io.StringWriter();
        try (JsonGenerator out = MAPPER.createGenerator(text)) {
            out.writeStartObject();
            for (int c = 0; c < cells.size(); c++) {
                out.writeFieldName(fields.get(c).name());
                value(out, cells.get(c));
            }
            out.writeEndObject();
        }
        return text.toString();
    }

    private static void value(JsonGenerator out, @Nullable Object value) throws IOException {
        switch (value) {
            case null -> out.writeNull();
            case Boolean truth -> out.writeBoolean(truth);
            case BigDecimal number -> out.writeNumber(number);
            case Long number -> out.writeNumber(number);
            case Double number -> out.writeNumber(number);
            case LocalDate day -> out.writeString(day.toString());
            case LocalDateTime moment -> out.writeString(Literals.time(moment));
            default -> out.writeString(value.toString());
        }
    }
}
