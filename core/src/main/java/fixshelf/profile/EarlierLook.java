package fixshelf.profile;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.shelf.OwnFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// What a dataset looked like when all of it was looked at before: counts and digests only, none of its values. Kept in
/// the shelf's own folder.
///
/// @param at when it was looked at
/// @param columns by name, in the order of the table
public record EarlierLook(Instant at, long rows, Map<String, Column> columns) {
    private static final ObjectMapper JSON = new ObjectMapper();

    /// The counts of a column, and a digest of its values.
    public record Column(String readsAs, long filled, long distinct, long digest) {}

    static EarlierLook of(TableLook table, Instant at) {
        Map<String, Column> columns = new LinkedHashMap<>();
        table.columns()
                .forEach(c -> columns.put(c.name(), new Column(c.readsAs(), c.filled(), c.distinct(), c.digest())));
        return new EarlierLook(at, table.rows(), columns);
    }

    /// The last look at a dataset that was kept; none where there is none, or where it cannot be read.
    public static Optional<EarlierLook> last(Path shelf, String dataset) {
        Path file = shelf.resolve(".fixshelf/looks/" + dataset + ".json");
        try {
            return Files.isRegularFile(file)
                    ? Optional.of(read(JSON.readTree(Files.readString(file))))
                    : Optional.empty();
        } catch (IOException | DateTimeException | IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private static EarlierLook read(JsonNode node) {
        Map<String, Column> columns = new LinkedHashMap<>();
        for (JsonNode column : node.path("columns")) {
            columns.put(
                    column.path("name").asText(),
                    new Column(
                            column.path("reads_as").asText(),
                            column.path("filled").asLong(),
                            column.path("distinct").asLong(),
                            Long.parseUnsignedLong(column.path("digest").asText("0"), 16)));
        }
        return new EarlierLook(
                Instant.parse(node.path("at").asText()), node.path("rows").asLong(), columns);
    }

    /// Keeps a look at all rows of a dataset, unless nothing is other than when it was last kept.
    public static void keep(Path shelf, String dataset, TableLook table, Instant now) {
        if (!table.whole()
                || last(shelf, dataset)
                        .filter(e -> e.differences(table).isEmpty())
                        .isPresent()) {
            return;
        }
        EarlierLook look = of(table, now);
        ObjectNode node = JSON.createObjectNode().put("at", now.toString()).put("rows", look.rows());
        look.columns().forEach((name, c) -> node.withArray("columns")
                .addObject()
                .put("name", name)
                .put("reads_as", c.readsAs())
                .put("filled", c.filled())
                .put("distinct", c.distinct())
                .put("digest", Long.toHexString(c.digest())));
        try {
            Files.writeString(OwnFolder.file(shelf, "looks", dataset + ".json"), JSON.writeValueAsString(node));
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        } catch (IOException e) {
            System.getLogger(EarlierLook.class.getName())
                    .log(System.Logger.Level.WARNING, "the look is not kept: " + e.getMessage());
        }
    }

    /// What is other now, in sentences; none where nothing is.
    public List<String> differences(TableLook now) {
        List<String> all = new ArrayList<>();
        if (rows != now.rows()) {
            all.add(String.format(Locale.ROOT, "rows: %,d → %,d", rows, now.rows()));
        }
        Map<String, ColumnLook> there = new LinkedHashMap<>();
        now.columns().forEach(c -> there.put(c.name(), c));
        columns.keySet().stream().filter(n -> !there.containsKey(n)).forEach(n -> all.add("gone: the column " + n));
        there.forEach((name, column) -> {
            Column then = columns.get(name);
            if (then == null) {
                all.add("new: the column " + name);
            } else {
                difference(name, then, column).ifPresent(all::add);
            }
        });
        return all;
    }

    private static Optional<String> difference(String name, Column then, ColumnLook now) {
        List<String> parts = new ArrayList<>();
        if (!then.readsAs().equals(now.readsAs())) {
            parts.add("reads as " + then.readsAs() + " → " + now.readsAs());
        }
        if (then.filled() != now.filled()) {
            parts.add(String.format(Locale.ROOT, "filled %,d → %,d", then.filled(), now.filled()));
        }
        if (then.distinct() != now.distinct()) {
            parts.add(String.format(Locale.ROOT, "distinct %,d → %,d", then.distinct(), now.distinct()));
        }
        if (parts.isEmpty() && then.digest() != now.digest()) {
            parts.add("other values");
        }
        return parts.isEmpty() ? Optional.empty() : Optional.of(name + ": " + String.join(", ", parts));
    }
}
