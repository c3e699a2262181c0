package fixshelf.plan;

import fixshelf.plan.Written.Word;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Blanks that hold several values: lists, rows, and values by their names.
final class ListKinds {
    private ListKinds() {}

    record Texts() implements Kind<List<String>> {
        @Override
        public String name() {
            return "texts";
        }

        @Override
        public Outcome<List<String>> read(Written written, Context context) {
            return written.texts()
                    .map(Outcome::of)
                    .orElseGet(() -> Refusal.field("Here stand texts.", "Write [a, b]."));
        }

        @Override
        public String say(Written written) {
            return Words.joined(written.texts().orElse(List.of()));
        }

        @Override
        public Outcome<Written> typed(String text) {
            List<String> texts = Words.split(text);
            return texts.isEmpty()
                    ? Refusal.field("Which values?", "Type them, with commas between.")
                    : Outcome.of(Written.words(texts));
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(Written.words(List.of("-")));
        }
    }

    /// Values with those that they become.
    record Pairs() implements Kind<Map<String, @Nullable String>> {
        @Override
        public String name() {
            return "mapping";
        }

        @Override
        public Outcome<Map<String, @Nullable String>> read(Written written, Context context) {
            if (written instanceof Written.Fields(Map<String, Written> parts)
                    && parts.get("in") instanceof Word(String source)
                    && parts.get("from") instanceof Word(String from)
                    && parts.get("to") instanceof Word(String to)) {
                return context.sources().pairs(source, from, to);
            }
            return written.wordPairs()
                    .filter(p -> !p.isEmpty())
                    .map(p ->
                            Outcome.of((Map<String, @Nullable String>) new LinkedHashMap<String, @Nullable String>(p)))
                    .orElseGet(() -> Refusal.field(
                            "Here stand values with those that they become.",
                            "Write {a: b}, or {in: table, from: column, to: column}."));
        }

        @Override
        public String say(Written written) {
            Map<String, String> pairs = written.wordPairs().orElse(Map.of());
            if (pairs.keySet().equals(java.util.Set.of("in", "from", "to"))) {
                return "from " + Words.quoted(pairs.get("in")) + ": " + Words.quoted(pairs.get("from")) + " to "
                        + Words.quoted(pairs.get("to"));
            }
            return pairs.entrySet().stream()
                    .map(e -> Words.quoted(e.getKey()) + " to " + Words.quoted(e.getValue()))
                    .collect(Collectors.joining(", "));
        }

        @Override
        public Outcome<Written> typed(String text) {
            Map<String, String> pairs = new LinkedHashMap<>();
            String rest = text.strip();
            if (rest.toLowerCase(java.util.Locale.ROOT).startsWith("from ")) {
                List<String> parts = Words.pieces(rest.substring(5), ":", "\"");
                List<String> both = parts.size() == 2 ? Words.pieces(parts.getLast(), " to ", "\"") : List.of();
                return both.size() == 2
                        ? Outcome.of(Written.pairs(inOrder(
                                "in", Words.unquoted(parts.getFirst()),
                                "from", Words.unquoted(both.getFirst()),
                                "to", Words.unquoted(both.getLast()))))
                        : Refusal.field("From which columns?", "Type from table: column to column.");
            }
            for (String pair : Words.pieces(rest, ",", "\"")) {
                List<String> both = Words.pieces(pair, " to ", "\"");
                if (both.size() != 2) {
                    return Refusal.field("What does it become?", "Type old to new, old to new.");
                }
                pairs.put(Words.unquoted(both.getFirst()), Words.unquoted(both.getLast()));
            }
            return pairs.isEmpty()
                    ? Refusal.field("Which values?", "Type old to new.")
                    : Outcome.of(Written.pairs(pairs));
        }

        private static Map<String, String> inOrder(String... parts) {
            Map<String, String> pairs = new LinkedHashMap<>();
            for (int i = 0; i < parts.length; i += 2) {
                pairs.put(parts[i], parts[i + 1]);
            }
            return pairs;
        }

        @Override
        public boolean isList() {
            return true;
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(Written.pairs(Map.of("old", "new")));
        }
    }

    /// Columns with mappings.
    record Mappings() implements Kind<Map<String, Map<String, @Nullable String>>> {
        @Override
        public String name() {
            return "mappings";
        }

        @Override
        public Outcome<Map<String, Map<String, @Nullable String>>> read(Written written, Context context) {
            if (!(written instanceof Written.Fields(Map<String, Written> columns)) || columns.isEmpty()) {
                return Refusal.field("Here stand columns with mappings.", "Write {column: {a: b}}.");
            }
            Map<String, Map<String, @Nullable String>> all = new LinkedHashMap<>();
            for (Map.Entry<String, Written> column : columns.entrySet()) {
                Outcome<Map<String, @Nullable String>> pairs = ValueKinds.PAIRS.read(column.getValue(), context);
                if (!pairs.isPresent()) {
                    return Outcome.failed(pairs.problems());
                }
                all.put(column.getKey(), pairs.get());
            }
            return Outcome.of(all);
        }

        @Override
        public String say(Written written) {
            Map<String, Written> columns = written instanceof Written.Fields(var fields) ? fields : Map.of();
            return columns.entrySet().stream()
                    .map(e -> Words.quoted(e.getKey()) + " = " + ValueKinds.PAIRS.say(e.getValue()))
                    .collect(Collectors.joining("; "));
        }

        @Override
        public Outcome<Written> typed(String text) {
            Map<String, Written> columns = new LinkedHashMap<>();
            for (String piece : Words.pieces(text, ";", "\"")) {
                List<String> both = Words.pieces(piece, "=", "\"");
                Outcome<Written> pairs = both.size() == 2
                        ? ValueKinds.PAIRS.typed(both.getLast())
                        : Refusal.field("Which column?", "Type column = old to new; column = from table: a to b.");
                if (!pairs.isPresent()) {
                    return pairs;
                }
                columns.put(Words.unquoted(both.getFirst()), pairs.get());
            }
            return columns.isEmpty()
                    ? Refusal.field("Which columns?", "Type column = old to new; column = from table: a to b.")
                    : Outcome.of(new Written.Fields(columns));
        }

        @Override
        public List<String> choices(Choices choices) {
            return choices.names().stream().map(n -> Words.quoted(n) + " = ").toList();
        }

        @Override
        public boolean isList() {
            return true;
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return choices.names().stream().findFirst().map(n -> Written.field(n, Written.pairs(Map.of("old", "new"))));
        }
    }

    /// Rows that are typed in.
    record RowsOfValues() implements Kind<List<List<String>>> {
        @Override
        public String name() {
            return "rows";
        }

        @Override
        public Outcome<List<List<String>>> read(Written written, Context context) {
            List<List<String>> rows = new ArrayList<>();
            for (Written row : written instanceof Written.Items(var items) ? items : List.<Written>of()) {
                Optional<List<String>> cells = row.texts();
                if (cells.isEmpty()) {
                    return Refusal.field("Here stand rows.", "Write [[a, 1], [b, 2]].");
                }
                rows.add(cells.get());
            }
            return rows.isEmpty() ? Refusal.field("Here stand rows.", "Write [[a, 1], [b, 2]].") : Outcome.of(rows);
        }

        @Override
        public String say(Written written) {
            List<Written> rows = written instanceof Written.Items(var items) ? items : List.of();
            return rows.stream()
                    .map(row -> Words.joined(row.texts().orElse(List.of())))
                    .collect(Collectors.joining("; "));
        }

        @Override
        public Outcome<Written> typed(String text) {
            List<Written> rows = Words.pieces(text, ";", "\"").stream()
                    .map(row -> Written.words(Words.split(row)))
                    .toList();
            return rows.isEmpty()
                    ? Refusal.field("Which rows?", "Type values with commas between, and rows with semicolons.")
                    : Outcome.of(new Written.Items(rows));
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(new Written.Items(List.of(Written.words(List.of("a", "b")))));
        }
    }

    /// Columns with types.
    record Types() implements Kind<Map<String, Type>> {
        @Override
        public String name() {
            return "types";
        }

        @Override
        public Outcome<Map<String, Type>> read(Written written, Context context) {
            Map<String, Type> types = new LinkedHashMap<>();
            for (Map.Entry<String, String> pair :
                    written.wordPairs().orElse(Map.of()).entrySet()) {
                Optional<Type> type = Type.parse(pair.getValue()).filter(t -> !t.isFixed());
                if (type.isEmpty()) {
                    return Refusal.of(
                            Code.BAD_FIELD,
                            pair.getValue(),
                            "There is no type " + pair.getValue() + ".",
                            "Write text, integer, decimal(12,2), number, boolean, date or timestamp.");
                }
                types.put(pair.getKey(), type.get());
            }
            return types.isEmpty()
                    ? Refusal.field("Here stand columns with types.", "Write {column: integer}.")
                    : Outcome.of(types);
        }

        @Override
        public String say(Written written) {
            return written.wordPairs().orElse(Map.of()).entrySet().stream()
                    .map(e -> Words.quoted(e.getKey()) + " as " + e.getValue())
                    .collect(Collectors.joining("; "));
        }

        @Override
        public Outcome<Written> typed(String text) {
            Map<String, String> types = new LinkedHashMap<>();
            for (String pair : Words.pieces(text, ";", "\"")) {
                List<String> both = Words.pieces(pair, " as ", "\"");
                if (both.size() != 2) {
                    return Refusal.field("A type is given with `as`.", "Type column as integer; column as date.");
                }
                types.put(Words.unquoted(both.getFirst()), both.getLast());
            }
            return types.isEmpty()
                    ? Refusal.field("Which columns?", "Type column as integer.")
                    : Outcome.of(Written.pairs(types));
        }

        @Override
        public List<String> choices(Choices choices) {
            return choices.names().stream().map(n -> Words.quoted(n) + " as ").toList();
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return choices.names().stream().findFirst().map(n -> Written.pairs(Map.of(n, "text")));
        }
    }
}
