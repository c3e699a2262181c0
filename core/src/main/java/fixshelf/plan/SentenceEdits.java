package fixshelf.plan;

import fixshelf.plan.Sentences.Slot;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// Fills a blank of a sentence with what the user typed.
public final class SentenceEdits {
    private static final String BUT = "every text column but ";

    private SentenceEdits() {}

    /// The line with the blank filled; `name` is the argument that the blank stands for, if it stands for one.
    public static Outcome<Line> fill(Line line, Slot slot, String name, String typed) {
        String text = typed.strip();
        return switch (line) {
            case Line.ReadFile(ReadOptions options) -> read(options, slot, text).map(Line.ReadFile::new);
            case Line.ReadDataset _ -> Outcome.of(new Line.ReadDataset(text));
            case Line.Apply apply -> apply(apply, slot, name, text);
            case Line.DropRepeats(List<String> keys, Line.Keep keep, List<String> order) ->
                switch (slot) {
                    case KEYS ->
                        Outcome.of(
                                new Line.DropRepeats(text.equals("all columns") ? List.of() : list(text), keep, order));
                    case KEEP ->
                        text.equals("first") || text.equals("last")
                                ? Outcome.of(new Line.DropRepeats(
                                        keys, text.equals("last") ? Line.Keep.LAST : Line.Keep.FIRST, order))
                                : refused("Which row stays: first or last?", "Type first or last.");
                    default ->
                        Outcome.of(new Line.DropRepeats(
                                keys,
                                keep,
                                text.isEmpty() || text.equals("place in the file") ? List.of() : list(text)));
                };
            case Line.Choose _ -> named(text).map(Line.Choose::new);
            case Line.Drop _ -> named(text).map(Line.Drop::new);
            case Line.Rename _ -> renames(text).map(Line.Rename::new);
        };
    }

    private static Outcome<Line> apply(Line.Apply apply, Slot slot, String name, String text) {
        if (slot == Slot.ARGUMENT) {
            Map<String, String> arguments = new LinkedHashMap<>(apply.arguments());
            arguments.keySet().removeIf(k -> k.equalsIgnoreCase(name));
            if (!text.isEmpty() && !text.equals("the usual " + name)) {
                arguments.put(name, text);
            }
            return Outcome.of(apply.withArguments(arguments));
        }
        if (slot == Slot.LOST) {
            return switch (text.toLowerCase(Locale.ROOT)) {
                case Sentences.STOPS -> Outcome.of(apply.withLost(Line.Lost.STOPS));
                case Sentences.COUNTED, "" -> Outcome.of(apply.withLost(Line.Lost.COUNTED));
                default ->
                    refused(
                            "What happens at a lost value?",
                            "Type " + Sentences.STOPS + " or " + Sentences.COUNTED + ".");
            };
        }
        if (text.equalsIgnoreCase("every text column")) {
            return Outcome.of(apply.withColumns(new Columns.EveryText()));
        }
        if (text.toLowerCase(Locale.ROOT).startsWith(BUT)) {
            return Outcome.of(apply.withColumns(new Columns.AllBut(list(text.substring(BUT.length())))));
        }
        return named(text).map(names -> apply.withColumns(new Columns.Named(names)));
    }

    private static Outcome<ReadOptions> read(ReadOptions options, Slot slot, String text) {
        return switch (slot) {
            case SEPARATOR -> {
                String sign = text.equalsIgnoreCase("tab") ? "\t" : text;
                yield sign.length() == 1
                        ? Outcome.of(options.withShape(
                                sign.charAt(0), options.quote(), options.encoding(), options.heading()))
                        : refused("A separator is one character.", "Type , or ; or | or tab.");
            }
            case QUOTE ->
                text.length() == 1 || text.equals("none")
                        ? Outcome.of(options.withShape(
                                options.separator(),
                                text.equals("none") ? "" : text,
                                options.encoding(),
                                options.heading()))
                        : refused("A quote is one character, or none.", "Type \" or ' or none.");
            case ENCODING ->
                ReadOptions.isEncoding(text.toLowerCase(Locale.ROOT))
                        ? Outcome.of(options.withShape(
                                options.separator(), options.quote(), text.toLowerCase(Locale.ROOT), options.heading()))
                        : refused(
                                "This encoding is not known.",
                                "Type " + String.join(", ", ReadOptions.ENCODINGS) + ".");
            case HEADING ->
                Outcome.of(options.withShape(
                        options.separator(),
                        options.quote(),
                        options.encoding(),
                        !text.toLowerCase(Locale.ROOT).startsWith("without")));
            case NULL_WORDS ->
                Outcome.of(options.withNullWords(
                        text.equals("nothing")
                                ? List.of()
                                : list(text).stream()
                                        .map(w -> w.equals("empty") ? "" : w)
                                        .toList()));
            default -> text.isEmpty() ? refused("Which file?", "Type its path.") : Outcome.of(options.withPath(text));
        };
    }

    private static Outcome<Map<String, String>> renames(String text) {
        Map<String, String> names = new LinkedHashMap<>();
        for (String pair : list(text)) {
            int at = pair.indexOf(" to ");
            if (at < 0) {
                return refused("A new name is given with `to`.", "Type old to new, old to new.");
            }
            String was = pair.substring(0, at);
            names.put(was.isBlank() ? was : was, pair.substring(at + 4).strip());
        }
        return names.isEmpty() ? refused("Which names?", "Type old to new.") : Outcome.of(names);
    }

    private static Outcome<List<String>> named(String text) {
        List<String> names = list(text);
        return names.isEmpty()
                ? refused("Which columns?", "Type their names, with commas between.")
                : Outcome.of(names);
    }

    /// Splits at commas; a name that holds one stands in double quotes.
    private static List<String> list(String text) {
        List<String> parts = new ArrayList<>();
        StringBuilder part = new StringBuilder();
        boolean quoted = false;
        for (char c : (text + ",").toCharArray()) {
            if (c == '"') {
                quoted = !quoted;
            } else if (c == ',' && !quoted) {
                if (!part.toString().isBlank()) {
                    parts.add(part.toString().strip());
                }
                part.setLength(0);
            } else {
                part.append(c);
            }
        }
        return parts;
    }

    private static <T> Outcome<T> refused(String what, String todo) {
        return Outcome.failed(Problem.about(Code.BAD_FIELD, "blank", what, todo));
    }
}
