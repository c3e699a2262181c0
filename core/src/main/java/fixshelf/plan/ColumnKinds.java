package fixshelf.plan;

import fixshelf.plan.Written.Fields;
import fixshelf.plan.Written.Items;
import fixshelf.plan.Written.Word;
import fixshelf.problem.Outcome;
import fixshelf.table.Field;
import fixshelf.table.Sorted;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/// Blanks that name columns.
public final class ColumnKinds {
    public static final Kind<Field> COLUMN = new One();
    public static final Kind<List<Field>> COLUMNS = new Several(ColumnKinds.EVERY_TEXT);
    /// As [#COLUMNS]; nothing written means all of them.
    public static final Kind<List<Field>> KEYS = new Several(ColumnKinds.ALL);
    public static final Kind<List<Sorted>> ORDER = new Order();
    public static final Kind<String> NEW_NAME = new NewName();
    public static final Kind<List<String>> NEW_NAMES = new NewNames();
    /// Old names with new ones.
    public static final Kind<Map<String, String>> RENAMES = new NamePairs("renames");
    /// Columns here with those of another table.
    public static final Kind<Map<String, String>> MATCHING = new NamePairs("pairs");

    /// What chooses columns: a fix that is given nothing else is given its columns by them.
    public static final Set<String> RULES = Set.of("every", "like", "all_but");

    static final String EVERY_TEXT = "every text column";
    private static final String ALL = "all columns";
    private static final String EVERY = "every column";
    private static final String BUT = " but ";
    private static final String LIKE = "columns like ";

    private ColumnKinds() {}

    /// Whether columns are chosen by what they are, and not by their names.
    static boolean isRule(Written written) {
        return written instanceof Word(String word)
                        && List.of(ALL, EVERY_TEXT, EVERY).contains(word)
                || written instanceof Fields;
    }

    private record One() implements Kind<Field> {
        @Override
        public String name() {
            return "column";
        }

        @Override
        public Outcome<Field> read(Written written, Context context) {
            return written instanceof Word(String name)
                    ? Refusal.column(name, context)
                    : Refusal.field("Here stands the name of one column.", "Write a name.");
        }

        @Override
        public String say(Written written) {
            return Words.joined(written.texts().orElse(List.of("?")));
        }

        @Override
        public Outcome<Written> typed(String text) {
            List<String> names = Words.split(text);
            return names.size() == 1
                    ? Outcome.of(Written.word(names.getFirst()))
                    : Refusal.field("Which column?", "Type one name.");
        }

        @Override
        public List<String> choices(Choices choices) {
            return choices.names();
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return choices.names().stream().findFirst().map(Written::word);
        }
    }

    /// Several columns: named, every one of a type, all but some, or those like a pattern.
    ///
    /// @param first the rule that is proposed before others
    private record Several(String first) implements Kind<List<Field>> {
        @Override
        public String name() {
            return "columns";
        }

        @Override
        public Outcome<List<Field>> read(Written written, Context context) {
            List<Field> fields = context.fields();
            return switch (written) {
                case Word(String word) when word.equals(EVERY_TEXT) -> Outcome.of(every(Type.TEXT, fields));
                case Word _ when isRule(written) -> Outcome.of(fields);
                case Word _, Items _ ->
                    written.texts()
                            .map(names -> named(names, context))
                            .orElseGet(() -> Refusal.field("Here stand names of columns.", "Write [name, name]."));
                case Fields(Map<String, Written> parts) -> selected(parts, fields, context);
            };
        }

        private static List<Field> every(Type type, List<Field> fields) {
            return fields.stream().filter(f -> isOf(f.type(), type)).toList();
        }

        private static Outcome<List<Field>> named(List<String> names, Context context) {
            if (names.isEmpty()) {
                return Refusal.field("Which columns?", "Write [name, name].");
            }
            return Refusal.together(
                            names.stream().map(n -> Refusal.column(n, context)).toList())
                    .map(found -> found.stream().distinct().toList());
        }

        private static Outcome<List<Field>> selected(Map<String, Written> parts, List<Field> fields, Context context) {
            if (parts.get("all_but") != null) {
                Map<String, Written> others = new LinkedHashMap<>(parts);
                Written without = others.remove("all_but");
                Outcome<List<Field>> chosen = others.isEmpty() ? Outcome.of(fields) : selected(others, fields, context);
                return chosen.then(
                        all -> named(without.texts().orElse(List.of()), context).map(out -> all.stream()
                                .filter(f -> out.stream().noneMatch(o -> o.id() == f.id()))
                                .toList()));
            }
            if (parts.size() == 1 && parts.get("like") instanceof Word(String pattern)) {
                Pattern regex = Pattern.compile(
                        Pattern.quote(pattern).replace("*", "\\E.*\\Q"), Pattern.CASE_INSENSITIVE | Pattern.DOTALL);
                return Outcome.of(fields.stream()
                        .filter(f -> regex.matcher(f.name()).matches())
                        .toList());
            }
            if (parts.size() == 1 && parts.get("every") instanceof Word(String type)) {
                boolean any = type.equals("true");
                Optional<Type> wanted = Type.parse(type);
                return any || wanted.isPresent()
                        ? Outcome.of(wanted.map(w -> every(w, fields)).orElse(fields))
                        : Refusal.field("There is no type " + type + ".", "Write {every: text}, or {every: true}.");
            }
            return Refusal.field(
                    "Columns are named, or chosen by every, all_but or like.",
                    "Write [name, name], {every: text}, {all_but: [name]}, {every: text, all_but: [name]} or {like:"
                            + " \"wk*\"}.");
        }

        private static boolean isOf(Type type, Type wanted) {
            return type.equals(wanted) || type instanceof Type.Decimal && wanted instanceof Type.Decimal;
        }

        @Override
        public String say(Written written) {
            if (written instanceof Word(String word) && isRule(written)) {
                return word;
            }
            if (written instanceof Fields(Map<String, Written> parts)) {
                String without = Optional.ofNullable(parts.get("all_but"))
                        .flatMap(Written::texts)
                        .map(names -> BUT + Words.joined(names))
                        .orElse("");
                if (parts.get("like") != null) {
                    return LIKE + Words.joined(parts.get("like").texts().orElse(List.of())) + without;
                }
                String type = parts.get("every") instanceof Word(String text) ? text : "true";
                return (type.equals("true") ? EVERY : "every " + type + " column") + without;
            }
            return Words.joined(written.texts().orElse(List.of()));
        }

        @Override
        public Outcome<Written> typed(String typed) {
            String text = typed.strip();
            String lower = text.toLowerCase(Locale.ROOT);
            if (isRule(Written.word(lower))) {
                return Outcome.of(Written.word(lower));
            }
            List<String> rule =
                    lower.startsWith("every ") || lower.startsWith(LIKE) ? Words.pieces(text, BUT, "\"") : List.of();
            if (!rule.isEmpty() && rule.size() <= 2) {
                String chosen = rule.getFirst().toLowerCase(Locale.ROOT);
                Map<String, Written> parts = new LinkedHashMap<>();
                if (chosen.startsWith(LIKE)) {
                    parts.put(
                            "like", Written.word(Words.unquoted(rule.getFirst().substring(LIKE.length()))));
                } else if (!chosen.equals(EVERY)) {
                    parts.put(
                            "every",
                            Written.word(chosen.replaceFirst("^every ", "").replaceFirst(" column$", "")));
                }
                if (rule.size() == 2) {
                    parts.put("all_but", Written.words(Words.split(rule.getLast())));
                }
                return Outcome.of(new Fields(parts));
            }
            List<String> names = Words.split(text);
            return names.isEmpty()
                    ? Refusal.field("Which columns?", "Type their names, with commas between.")
                    : Outcome.of(Written.words(names));
        }

        @Override
        public List<String> choices(Choices choices) {
            List<String> words = new ArrayList<>(List.of(first));
            words.addAll(Stream.of(EVERY_TEXT, EVERY)
                    .filter(w -> !w.equals(first) && !first.equals(ALL))
                    .toList());
            words.addAll(choices.names());
            return words;
        }

        @Override
        public boolean isList() {
            return true;
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return choices.names().stream().findFirst().map(n -> Written.words(List.of(n)));
        }
    }

    /// Columns with directions; missing comes after everything else.
    private record Order() implements Kind<List<Sorted>> {
        private static final String DESCENDING = " descending";

        @Override
        public String name() {
            return "order";
        }

        @Override
        public Outcome<List<Sorted>> read(Written written, Context context) {
            List<Written> items = written instanceof Items(List<Written> all) ? all : List.of(written);
            return Refusal.together(items.stream().map(i -> sorted(i, context)).toList());
        }

        private static Outcome<Sorted> sorted(Written item, Context context) {
            return switch (item) {
                case Word(String name) -> Refusal.column(name, context).map(f -> new Sorted(f, false, false));
                case Fields(Map<String, Written> parts)
                when parts.size() == 1
                        && parts.values().iterator().next() instanceof Word(String direction)
                        && List.of("ascending", "descending").contains(direction) ->
                    Refusal.column(parts.keySet().iterator().next(), context)
                            .map(f -> new Sorted(f, direction.equals("descending"), false));
                case Fields _, Items _ ->
                    Refusal.field("An order is a list of columns.", "Write [recorded_at, {visit_no: descending}].");
            };
        }

        @Override
        public String say(Written written) {
            List<Written> items = written instanceof Items(List<Written> all) ? all : List.of(written);
            return items.stream().map(Order::said).collect(Collectors.joining(", "));
        }

        private static String said(Written item) {
            if (item instanceof Fields(Map<String, Written> parts)) {
                String direction = parts.values().iterator().next() instanceof Word(String word) ? word : "";
                return Words.quoted(parts.keySet().iterator().next())
                        + (direction.equals("descending") ? DESCENDING : "");
            }
            return Words.joined(item.texts().orElse(List.of()));
        }

        @Override
        public Outcome<Written> typed(String text) {
            List<Written> items = new ArrayList<>();
            for (String piece : Words.pieces(text, ",", "\"")) {
                boolean down = piece.toLowerCase(Locale.ROOT).endsWith(DESCENDING);
                String name = Words.unquoted(down ? piece.substring(0, piece.length() - DESCENDING.length()) : piece);
                items.add(down ? Written.field(name, Written.word("descending")) : Written.word(name));
            }
            return items.isEmpty()
                    ? Refusal.field("By which columns?", "Type names, with ` descending` behind where it is wanted.")
                    : Outcome.of(new Items(items));
        }

        @Override
        public List<String> choices(Choices choices) {
            return choices.names();
        }

        @Override
        public boolean isList() {
            return true;
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return choices.names().stream().findFirst().map(n -> Written.words(List.of(n)));
        }
    }

    private record NewName() implements Kind<String> {
        @Override
        public String name() {
            return "new name";
        }

        @Override
        public Outcome<String> read(Written written, Context context) {
            return written instanceof Word(String name) && !name.isBlank()
                    ? Outcome.of(name)
                    : Refusal.field("Here stands a new name.", "Write a name.");
        }

        @Override
        public String say(Written written) {
            return Words.joined(written.texts().orElse(List.of()));
        }

        @Override
        public Outcome<Written> typed(String text) {
            List<String> names = Words.split(text);
            return names.size() == 1
                    ? Outcome.of(Written.word(names.getFirst()))
                    : Refusal.field("Which name?", "Type one name.");
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(Written.word("new"));
        }
    }

    private record NewNames() implements Kind<List<String>> {
        @Override
        public String name() {
            return "new names";
        }

        @Override
        public Outcome<List<String>> read(Written written, Context context) {
            return written.texts()
                    .filter(t -> t.stream().noneMatch(String::isBlank))
                    .map(Outcome::of)
                    .orElseGet(() -> Refusal.field("Here stand new names.", "Write [name, name]."));
        }

        @Override
        public String say(Written written) {
            return Words.joined(written.texts().orElse(List.of()));
        }

        @Override
        public Outcome<Written> typed(String text) {
            List<String> names = Words.split(text);
            return names.isEmpty()
                    ? Refusal.field("Which names?", "Type names, with commas between.")
                    : Outcome.of(Written.words(names));
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(Written.words(List.of("new")));
        }
    }

    private record NamePairs(String name) implements Kind<Map<String, String>> {

        @Override
        public Outcome<Map<String, String>> read(Written written, Context context) {
            return written.wordPairs()
                    .filter(p -> !p.isEmpty())
                    .map(Outcome::of)
                    .orElseGet(() -> Refusal.field("Here stand old names with new ones.", "Write {old: new}."));
        }

        @Override
        public String say(Written written) {
            return written.wordPairs().orElse(Map.of()).entrySet().stream()
                    .map(e -> Words.quoted(e.getKey()) + " to " + Words.quoted(e.getValue()))
                    .collect(Collectors.joining(", "));
        }

        @Override
        public Outcome<Written> typed(String text) {
            Map<String, String> names = new LinkedHashMap<>();
            for (String pair : Words.pieces(text, ",", "\"")) {
                List<String> both = Words.pieces(pair, " to ", "\"");
                if (both.size() != 2) {
                    return Refusal.field("A new name is given with `to`.", "Type old to new, old to new.");
                }
                names.put(Words.unquoted(both.getFirst()), Words.unquoted(both.getLast()));
            }
            return names.isEmpty()
                    ? Refusal.field("Which names?", "Type old to new.")
                    : Outcome.of(Written.pairs(names));
        }

        @Override
        public List<String> choices(Choices choices) {
            return choices.names().stream().map(n -> Words.quoted(n) + " to ").toList();
        }

        @Override
        public boolean isList() {
            return true;
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return choices.names().stream().findFirst().map(n -> Written.pairs(Map.of(n, n)));
        }
    }
}
