package fixshelf.plan;

import fixshelf.language.tree.Definition;
import fixshelf.plan.Written.Word;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Blanks that hold plain values: texts, numbers, choices, pairs, types, names of tables.
public final class ValueKinds {
    public static final Kind<String> TEXT = new Text();
    public static final Kind<Boolean> FLAG = new Flag();
    /// Values with those that they become, which may be missing.
    public static final Kind<Map<String, @Nullable String>> PAIRS = new ListKinds.Pairs();
    public static final Kind<Map<String, Type>> TYPES = new ListKinds.Types();
    /// Columns, each with its own values and those that they become.
    public static final Kind<Map<String, Map<String, @Nullable String>>> MAPPINGS = new ListKinds.Mappings();
    /// Rows of plain values.
    public static final Kind<List<List<String>>> ROWS = new ListKinds.RowsOfValues();
    public static final Kind<Relation> SOURCE = new Source(false);
    /// The table after a line above that has a name.
    public static final Kind<Relation> LINE = new Source(true);
    public static final Kind<List<String>> TEXTS = new ListKinds.Texts();
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
