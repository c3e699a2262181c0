package fixshelf.shelf;

import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.pattern.RegexParser;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Names;
import fixshelf.problem.Outcome;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/// A property of a fix that must hold for every input.
///
/// @param values what it names: the values that a result may have, or a pattern
/// @param fix the other fix that it names, or empty
/// @param written as it stands on the page
public record Promise(Kind kind, List<Expr.Literal> values, String fix, String written) {
    public Promise {
        values = List.copyOf(values);
    }

    /// What is promised. Those that take nothing are one word; after the others stands what they take, as in
    /// `matches '^[0-9]+$'`, `one_of 'yes', 'no'` and `undone_by read_price`.
    public enum Kind {
        IDEMPOTENT("idempotent", "Twice is the same as once", Takes.NOTHING),
        NULL_ONLY_FROM_NULL("null_only_from_null", "Nothing present becomes missing", Takes.NOTHING),
        NEVER_NULL("never_null", "Never missing", Takes.NOTHING),
        NEVER_LONGER("never_longer", "Never longer than before", Takes.NOTHING),
        ORDER_KEPT("order_kept", "What comes first stays first", Takes.NOTHING),
        ONE_OF("one_of", "Always one of", Takes.VALUES),
        MATCHES("matches", "Always matches", Takes.PATTERN),
        UNDONE_BY("undone_by", "Undone by", Takes.FIX);

        private final String word;
        private final String sentence;
        private final Takes takes;

        Kind(String word, String sentence, Takes takes) {
            this.word = word;
            this.sentence = sentence;
            this.takes = takes;
        }

        public String word() {
            return word;
        }

        public String sentence() {
            return sentence;
        }

        public boolean takesNothing() {
            return takes == Takes.NOTHING;
        }
    }

    private enum Takes {
        NOTHING,
        VALUES,
        PATTERN,
        FIX
    }

    /// A promise that takes nothing.
    public static Promise of(Kind kind) {
        return new Promise(kind, List.of(), "", kind.word());
    }

    /// Reads a promise as it is written on a page; empty when it is not one.
    static Optional<Promise> read(String written) {
        String text = written.strip();
        String word = text.split("\\s", 2)[0].toLowerCase(Locale.ROOT);
        String rest = text.substring(word.length()).strip();
        Optional<Kind> kind =
                Arrays.stream(Kind.values()).filter(k -> k.word.equals(word)).findFirst();
        if (kind.isEmpty() || kind.get().takesNothing() != rest.isEmpty()) {
            return Optional.empty();
        }
        return switch (kind.get().takes) {
            case NOTHING -> Optional.of(of(kind.get()));
            case FIX ->
                Names.problemWith(rest).isEmpty()
                        ? Optional.of(new Promise(kind.get(), List.of(), rest, text))
                        : Optional.empty();
            case VALUES -> constants(rest).map(values -> new Promise(kind.get(), values, "", text));
            case PATTERN ->
                constants(rest)
                        .filter(v -> v.size() == 1
                                && v.getFirst().value() instanceof String pattern
                                && RegexParser.parse(pattern).isPresent())
                        .map(values -> new Promise(kind.get(), values, "", text));
        };
    }

    private static Optional<List<Expr.Literal>> constants(String text) {
        Outcome<Optional<Expr.Literal>> list = WrittenConstants.read("promise", "ARRAY[" + text + "]");
        return list.value().flatMap(l -> l).map(l -> {
            Type element = l.type() instanceof Type.ListOf(Type of) ? of : Type.UNKNOWN;
            return ((List<?>) l.value())
                    .stream().map(v -> new Expr.Literal(v, element)).toList();
        });
    }

    /// The words that can be written, for messages and completion.
    public static String known() {
        return Arrays.stream(Kind.values())
                .map(k -> switch (k.takes) {
                    case NOTHING -> k.word;
                    case VALUES -> k.word + " 'yes', 'no'";
                    case PATTERN -> k.word + " '^[0-9]+$'";
                    case FIX -> k.word + " other_fix";
                })
                .collect(Collectors.joining("; "));
    }

    /// As a sentence, with what it names.
    public String sentence() {
        String named = fix.isEmpty()
                ? values.stream().map(v -> Literals.print(v.value())).collect(Collectors.joining(", "))
                : fix;
        return kind.takesNothing() ? kind.sentence : kind.sentence + " " + named;
    }
}
