package fixshelf.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

/// Lines of a job as sentences with blanks.
public final class Sentences {
    private Sentences() {}

    /// A part of a sentence: plain words, or a blank that can be edited.
    public sealed interface Part {
        String text();

        record Words(String text) implements Part {}

        /// The name of a fix, which leads to its page.
        record Fix(String text) implements Part {}

        /// A blank; `slot` tells which part of the line it stands for.
        record Blank(String text, Slot slot, String name) implements Part {}
    }

    /// What a blank stands for.
    public enum Slot {
        PATH,
        SEPARATOR,
        QUOTE,
        ENCODING,
        HEADING,
        NULL_WORDS,
        DATASET,
        COLUMNS,
        ARGUMENT,
        LOST,
        KEYS,
        KEEP,
        ORDER,
        CHOSEN,
        DROPPED,
        RENAMES
    }

    /// What a blank says of lost values.
    public static final String STOPS = "stops the run";

    public static final String COUNTED = "becomes missing";

    /// The sentence in plain words; `fixSentence` gives what a fix says of itself, with `{parameter}` for blanks.
    public static String plain(Line line, Function<String, Optional<String>> fixSentence) {
        return parts(line, fixSentence).stream().map(Part::text).collect(Collectors.joining());
    }

    public static List<Part> parts(Line line, Function<String, Optional<String>> fixSentence) {
        return switch (line) {
            case Line.ReadFile(ReadOptions o) ->
                List.of(
                        words("Read "),
                        blank(o.path(), Slot.PATH),
                        words(" as delimited text, separator "),
                        blank(sign(o.separator()), Slot.SEPARATOR),
                        words(", quote "),
                        blank(o.quote().isEmpty() ? "none" : o.quote(), Slot.QUOTE),
                        words(", encoding "),
                        blank(o.encoding(), Slot.ENCODING),
                        words(", "),
                        blank(o.heading() ? "with a heading" : "without a heading", Slot.HEADING),
                        words("; missing is "),
                        blank(nullWords(o.nullWords()), Slot.NULL_WORDS));
            case Line.ReadDataset(String dataset) -> List.of(words("Read "), blank(dataset, Slot.DATASET));
            case Line.Apply apply -> apply(apply, fixSentence.apply(apply.fix()));
            case Line.DropRepeats(List<String> keys, Line.Keep keep, List<String> order) ->
                List.of(
                        words("Drop rows that repeat "),
                                blank(keys.isEmpty() ? "all columns" : String.join(", ", keys), Slot.KEYS),
                        words(", keeping the "), blank(keep == Line.Keep.LAST ? "last" : "first", Slot.KEEP),
                        words(" by "),
                                blank(order.isEmpty() ? "place in the file" : String.join(", ", order), Slot.ORDER));
            case Line.Choose(List<String> columns) ->
                List.of(words("Keep only "), blank(String.join(", ", columns), Slot.CHOSEN));
            case Line.Drop(List<String> columns) ->
                List.of(words("Leave out "), blank(String.join(", ", columns), Slot.DROPPED));
            case Line.Rename(Map<String, String> names) ->
                List.of(
                        words("Rename "),
                        blank(
                                names.entrySet().stream()
                                        .map(e -> e.getKey() + " to " + e.getValue())
                                        .collect(Collectors.joining(", ")),
                                Slot.RENAMES));
        };
    }

    private static List<Part> apply(Line.Apply apply, Optional<String> sentence) {
        List<Part> parts = new ArrayList<>();
        String text = sentence.orElse(apply.fix().replace('_', ' ') + " in {}");
        boolean first = true;
        boolean columns = false;
        for (String piece : text.split("(?=\\{)|(?<=})")) {
            boolean blank = piece.startsWith("{") && piece.endsWith("}");
            String name = blank ? piece.substring(1, piece.length() - 1) : "";
            Optional<String> argument = argument(apply, name);
            if (!blank) {
                parts.add(first ? new Part.Fix(piece.stripTrailing()) : words(piece));
                if (first && piece.endsWith(" ")) {
                    parts.add(words(" "));
                }
                first = false;
            } else if (argument.isPresent()) {
                parts.add(new Part.Blank(argument.get(), Slot.ARGUMENT, name));
            } else if (!columns && isLastBlank(text, piece, apply)) {
                parts.add(blank(apply.columns().sentence(), Slot.COLUMNS));
                columns = true;
            } else {
                parts.add(new Part.Blank("the usual " + name, Slot.ARGUMENT, name));
            }
        }
        if (!columns) {
            parts.add(words(" in "));
            parts.add(blank(apply.columns().sentence(), Slot.COLUMNS));
        }
        apply.arguments().forEach((name, value) -> {
            if (!text.contains("{" + name + "}")) {
                parts.add(words(", " + name + " "));
                parts.add(new Part.Blank(value, Slot.ARGUMENT, name));
            }
        });
        if (apply.lost() == Line.Lost.STOPS) {
            parts.add(words("; a lost value "));
            parts.add(blank(STOPS, Slot.LOST));
        }
        return parts;
    }

    /// The blank for the columns is the one that no argument can fill: the last that is left.
    private static boolean isLastBlank(String text, String piece, Line.Apply apply) {
        String rest = text.substring(text.indexOf(piece) + piece.length());
        for (String name : rest.split("(?=\\{)|(?<=})")) {
            boolean blank = name.startsWith("{") && name.endsWith("}");
            if (blank && argument(apply, name.substring(1, name.length() - 1)).isEmpty()) {
                return false;
            }
        }
        return true;
    }

    private static Optional<String> argument(Line.Apply apply, String name) {
        return apply.arguments().entrySet().stream()
                .filter(e -> e.getKey().equalsIgnoreCase(name))
                .map(Map.Entry::getValue)
                .findFirst();
    }

    private static String sign(char separator) {
        return separator == '\t' ? "tab" : String.valueOf(separator);
    }

    private static String nullWords(List<String> words) {
        return words.isEmpty()
                ? "nothing"
                : words.stream().map(w -> w.isEmpty() ? "empty" : w).collect(Collectors.joining(", "));
    }

    private static Part words(String text) {
        return new Part.Words(text);
    }

    private static Part blank(String text, Slot slot) {
        return new Part.Blank(text, slot, "");
    }
}
