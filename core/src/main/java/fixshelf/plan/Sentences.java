package fixshelf.plan;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/// Lines of a job as sentences with blanks.
public final class Sentences {
    /// What a blank says of lost values.
    public static final String STOPS = "stops the run";

    private Sentences() {}

    /// A part of a sentence: plain words, or a blank that can be edited.
    public sealed interface Part {
        String text();

        record Words(String text) implements Part {}

        /// The first words of a line, which lead to what it calls.
        record Call(String text) implements Part {}

        /// A blank of the line, by its name.
        record Gap(String text, Blank<?> blank) implements Part {}
    }

    /// The sentence in plain words.
    public static String plain(Line line, Callables callables) {
        return parts(line, callables).stream().map(Part::text).collect(Collectors.joining());
    }

    public static List<Part> parts(Line line, Callables callables) {
        Optional<Operation> operation = callables.find(line.call());
        if (operation.isEmpty()) {
            return List.of(new Part.Words(line.call().replace('_', ' ') + " …"));
        }
        List<Part> parts = new ArrayList<>();
        Set<String> shown = new HashSet<>();
        for (String piece : operation.get().sentence().split("(?=\\{)|(?<=})")) {
            Optional<Blank<?>> blank = piece.startsWith("{") && piece.endsWith("}")
                    ? operation.get().blank(piece.substring(1, piece.length() - 1))
                    : Optional.empty();
            if (blank.isPresent()) {
                parts.add(gap(line, blank.get()));
                shown.add(blank.get().name());
            } else {
                words(piece, parts);
            }
        }
        for (Blank<?> blank : operation.get().blanks()) {
            if (!shown.contains(blank.name()) && line.written(blank.name()).isPresent()) {
                parts.add(new Part.Words(", " + blank.name().replace('_', ' ') + " "));
                parts.add(gap(line, blank));
            }
        }
        if (line.strict()) {
            parts.add(new Part.Words("; a lost value " + STOPS));
        }
        return parts;
    }

    private static void words(String piece, List<Part> parts) {
        if (!parts.isEmpty()) {
            boolean one = parts.getLast().text().equals("1");
            parts.add(new Part.Words(one ? piece.replaceFirst("^ rows\\b", " row") : piece));
            return;
        }
        parts.add(new Part.Call(piece.stripTrailing()));
        if (piece.endsWith(" ")) {
            parts.add(new Part.Words(" "));
        }
    }

    private static Part gap(Line line, Blank<?> blank) {
        String text = line.written(blank.name())
                .or(blank::fallback)
                .map(blank.kind()::say)
                .orElse(blank.needed() ? "…" : blank.unsaid());
        return new Part.Gap(text, blank);
    }

    /// The line with what was typed into a blank. What says nothing, or what the blank says already, leaves it as it
    /// is; a blank that may be left out is emptied by an empty text.
    public static fixshelf.problem.Outcome<Line> fill(Line line, Blank<?> blank, String typed) {
        Optional<Written> now = line.written(blank.name()).or(blank::fallback);
        boolean same = typed.equals(now.map(blank.kind()::say).orElse(blank.unsaid()));
        if (same) {
            return fixshelf.problem.Outcome.of(line);
        }
        if (typed.isBlank() && !blank.needed()) {
            return fixshelf.problem.Outcome.of(line.with(blank.name(), Optional.empty()));
        }
        return blank.kind().typed(typed).map(w -> line.with(blank.name(), Optional.of(w)));
    }
}
