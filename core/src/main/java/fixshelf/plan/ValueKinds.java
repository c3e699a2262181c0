package fixshelf.plan;

import fixshelf.language.Definition;
import fixshelf.plan.Written.Word;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Blanks that hold plain values: texts, numbers, choices, pairs, types, names of tables.
public final class ValueKinds {
    public static final Kind<String> TEXT = new Text();
    public static final Kind<Boolean> FLAG = new Flag();
    /// Values with those that they become, which may be missing.
    public static final Kind<Map<String, @Nullable String>> PAIRS = new Pairs();
    public static final Kind<Map<String, Type>> TYPES = new Types();
    /// Columns, each with its own values and those that they become.
    public static final Kind<Map<String, Map<String, @Nullable String>>> MAPPINGS = new Mappings();
    /// Rows of plain values.
    public static final Kind<List<List<String>>> ROWS = new RowsOfValues();
    public static final Kind<Relation> SOURCE = new Source(false);
    /// The table after a line above that has a name.
    public static final Kind<Relation> LINE = new Source(true);
    public static final Kind<List<String>> TEXTS = new Texts();
    /// A value fix of one text.
    public static final Kind<Definition> FIX = new FixKind();

    private ValueKinds() {}

    /// One of these words.
    public static Kind<String> choice(String... words) {
        return new Choice(List.of(words));
    }

    /// A whole number between two, both included.
    public static Kind<Long> whole(long least, long most) {
        return new Whole(least, most);
    }

    /// One character, or none where the empty text is among these.
    public static Kind<String> sign(String... common) {
        return new Sign(List.of(common));
    }

    /// A word for which something is true; `common` are offered.
    public static Kind<String> word(List<String> common, java.util.function.Predicate<String> isKnown) {
        return new Known(common, isKnown);
    }

    private static String word(Written written) {
        return written instanceof Word(String text) ? text : "?";
    }

    /// A text; in a sentence it stands in double quotes where it is empty or has blanks at its ends.
    private record Text() implements Kind<String> {
        @Override
        public String name() {
            return "text";
        }

        @Override
        public Outcome<String> read(Written written, Context context) {
            return written instanceof Word(String text)
                    ? Outcome.of(text)
                    : Refusal.field("Here stands a text.", "Write a single value.");
        }

        @Override
        public String say(Written written) {
            String text = word(written);
            boolean plain = !text.isBlank() && text.equals(text.strip()) && !text.startsWith("\"");
            return plain ? text : '"' + text.replace("\"", "\"\"") + '"';
        }

        @Override
        public Outcome<Written> typed(String text) {
            return Outcome.of(Written.word(Words.unquoted(text)));
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(Written.word(""));
        }
    }

    private record Texts() implements Kind<List<String>> {
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

    private record Flag() implements Kind<Boolean> {
        @Override
        public String name() {
            return "yes or no";
        }

        @Override
        public Outcome<Boolean> read(Written written, Context context) {
            return List.of("true", "false").contains(word(written))
                    ? Outcome.of(word(written).equals("true"))
                    : Refusal.field("Here stands true or false.", "Write true or false.");
        }

        @Override
        public String say(Written written) {
            return word(written).equals("true") ? "yes" : "no";
        }

        @Override
        public Outcome<Written> typed(String text) {
            return switch (text.strip().toLowerCase(java.util.Locale.ROOT)) {
                case "yes", "true" -> Outcome.of(Written.word("true"));
                case "no", "false" -> Outcome.of(Written.word("false"));
                default -> Refusal.field("Yes or no?", "Type yes or no.");
            };
        }

        @Override
        public List<String> choices(Choices choices) {
            return List.of("yes", "no");
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(Written.word("true"));
        }
    }

    private record Choice(List<String> words) implements Kind<String> {
        @Override
        public String name() {
            return "one of " + String.join(", ", words);
        }

        @Override
        public Outcome<String> read(Written written, Context context) {
            return words.contains(word(written))
                    ? Outcome.of(word(written))
                    : Refusal.field(
                            "Here stands " + String.join(" or ", words) + ".", "Write " + words.getFirst() + ", say.");
        }

        @Override
        public String say(Written written) {
            return word(written).replace('_', ' ');
        }

        @Override
        public Outcome<Written> typed(String text) {
            String wanted = text.strip().replace(' ', '_');
            return words.contains(wanted)
                    ? Outcome.of(Written.word(wanted))
                    : Refusal.field(
                            "Which of them?",
                            "Type " + String.join(" or ", words).replace('_', ' ') + ".");
        }

        @Override
        public List<String> choices(Choices choices) {
            return words.stream().map(w -> w.replace('_', ' ')).toList();
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(Written.word(words.getFirst()));
        }
    }

    private record Whole(long least, long most) implements Kind<Long> {
        @Override
        public String name() {
            return "whole number";
        }

        @Override
        public Outcome<Long> read(Written written, Context context) {
            return typed(word(written)).map(w -> Long.valueOf(word(w)));
        }

        @Override
        public String say(Written written) {
            return word(written);
        }

        @Override
        public Outcome<Written> typed(String text) {
            String digits = text.strip().replace("_", "");
            boolean fits = digits.matches("-?[0-9]{1,18}")
                    && Long.parseLong(digits) >= least
                    && Long.parseLong(digits) <= most;
            return fits
                    ? Outcome.of(Written.word(digits))
                    : Refusal.field(
                            String.format("Here stands a whole number from %,d to %,d.", least, most), "Write digits.");
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(Written.word(String.valueOf(Math.max(1, least))));
        }
    }

    /// Values with those that they become.
    private record Pairs() implements Kind<Map<String, @Nullable String>> {
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
    private record Mappings() implements Kind<Map<String, Map<String, @Nullable String>>> {
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
                Outcome<Map<String, @Nullable String>> pairs = PAIRS.read(column.getValue(), context);
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
                    .map(e -> Words.quoted(e.getKey()) + " = " + PAIRS.say(e.getValue()))
                    .collect(Collectors.joining("; "));
        }

        @Override
        public Outcome<Written> typed(String text) {
            Map<String, Written> columns = new LinkedHashMap<>();
            for (String piece : Words.pieces(text, ";", "\"")) {
                List<String> both = Words.pieces(piece, "=", "\"");
                Outcome<Written> pairs = both.size() == 2
                        ? PAIRS.typed(both.getLast())
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
    private record RowsOfValues() implements Kind<List<List<String>>> {
        @Override
        public String name() {
            return "rows";
        }

        @Override
        public Outcome<List<List<String>>> read(Written written, Context context) {
            List<List<String>> rows = new java.util.ArrayList<>();
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
    private record Types() implements Kind<Map<String, Type>> {
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
                    return Refusal.field(
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

    /// Another table by its name.
    private record Source(boolean line) implements Kind<Relation> {
        @Override
        public String name() {
            return line ? "line" : "table";
        }

        @Override
        public Outcome<Relation> read(Written written, Context context) {
            return line
                    ? context.sources()
                            .line(word(written))
                            .map(Outcome::of)
                            .orElseGet(() -> Refusal.of(
                                    Code.NO_SUCH,
                                    "There is no line " + word(written) + " above.",
                                    "Give that line a `name`; a dataset or a job is brought in, joined or put under."))
                    : context.sources().find(word(written), context.ids());
        }

        @Override
        public String say(Written written) {
            return word(written);
        }

        @Override
        public Outcome<Written> typed(String text) {
            return text.isBlank()
                    ? Refusal.field("Which " + name() + "?", "Type its name.")
                    : Outcome.of(Written.word(text.strip()));
        }

        @Override
        public List<String> choices(Choices choices) {
            return choices.sources();
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return choices.sources().stream().findFirst().map(Written::word);
        }
    }

    private record Sign(List<String> common) implements Kind<String> {
        @Override
        public String name() {
            return "one character";
        }

        @Override
        public Outcome<String> read(Written written, Context context) {
            return typed(say(written)).map(ValueKinds::word);
        }

        @Override
        public String say(Written written) {
            return said(word(written));
        }

        private static String said(String sign) {
            return sign.equals("\t") ? "tab" : sign.isEmpty() ? "none" : sign.equals(" ") ? "blank" : sign;
        }

        @Override
        public Outcome<Written> typed(String text) {
            String sign =
                    switch (text.toLowerCase(java.util.Locale.ROOT)) {
                        case "tab" -> "\t";
                        case "none" -> "";
                        case "blank" -> " ";
                        default -> text;
                    };
            boolean fits = sign.length() == 1 || sign.isEmpty() && common.contains("");
            return fits
                    ? Outcome.of(Written.word(sign))
                    : Refusal.field(
                            "Here stands one character.",
                            "Type " + String.join(" or ", choices(new Choices(List.of(), List.of()))) + ".");
        }

        @Override
        public List<String> choices(Choices choices) {
            return common.stream().map(Sign::said).toList();
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(Written.word(common.getFirst()));
        }
    }

    private record Known(List<String> common, java.util.function.Predicate<String> isKnown) implements Kind<String> {
        @Override
        public String name() {
            return "word";
        }

        @Override
        public Outcome<String> read(Written written, Context context) {
            return typed(word(written)).map(ValueKinds::word);
        }

        @Override
        public String say(Written written) {
            return word(written);
        }

        @Override
        public Outcome<Written> typed(String text) {
            String wanted = text.strip().toLowerCase(java.util.Locale.ROOT);
            return isKnown.test(wanted)
                    ? Outcome.of(Written.word(wanted))
                    : Refusal.field(text + " is not known.", "Type " + String.join(", ", common) + ".");
        }

        @Override
        public List<String> choices(Choices choices) {
            return common;
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(Written.word(common.getFirst()));
        }
    }
}
