package fixshelf.language.pattern;

import java.util.ArrayList;
import java.util.List;

/// A regular expression of the portable subset: what every engine can be made to match in the same way.
///
/// Characters, classes `[a-z]` and `[^…]`, `.` (any but the line feed), `\d \w \s` (ASCII), `\p{L}` and the other
/// categories of [UnicodeClass], `\u00A0` by number, `(?i)` at the very start to pass over small and capital letters,
/// groups `( )` and `(?: )`, alternatives `|`, repeats `* + ? {m} {m,} {m,n}` with or without a lazy `?`, `^` for
/// the start of the text, `$` for its very end, `\b` for a place between `\w` and anything else, the ends of the
/// text included, and `\B` for any other place.
public sealed interface Regex {
    /// One after the other.
    record Sequence(List<Regex> parts) implements Regex {
        public Sequence {
            parts = List.copyOf(parts);
        }
    }

    /// The first of the alternatives that leads to a match.
    record Alternatives(List<Regex> choices) implements Regex {
        public Alternatives {
            choices = List.copyOf(choices);
        }
    }

    /// `part` at least `least` and at most `most` times; `most` is -1 for no bound.
    record Repeat(Regex part, int least, int most, boolean lazy) implements Regex {}

    /// A group; `number` from 1, or 0 for one that is not counted.
    record Group(Regex part, int number) implements Regex {}

    /// One character out of a set, or out of all others. `own` are the ranges that the pattern writes itself, beside
    /// the categories that it names.
    record CharacterSet(List<Range> own, List<UnicodeClass> classes, boolean negated) implements Regex {
        public CharacterSet {
            own = List.copyOf(own);
            classes = List.copyOf(classes);
        }

        public CharacterSet(List<Range> ranges, boolean negated) {
            this(ranges, List.of(), negated);
        }

        static CharacterSet of(int codePoint) {
            return new CharacterSet(List.of(new Range(codePoint, codePoint)), false);
        }

        /// All ranges, those of the categories included.
        public List<Range> ranges() {
            if (classes.isEmpty()) {
                return own;
            }
            List<Range> all = new ArrayList<>(own);
            classes.forEach(c -> all.addAll(c.ranges()));
            return all;
        }

        public boolean isSingle() {
            return !negated
                    && classes.isEmpty()
                    && own.size() == 1
                    && own.getFirst().first() == own.getFirst().last();
        }

        boolean contains(int c) {
            return negated != ranges().stream().anyMatch(r -> r.first() <= c && c <= r.last());
        }
    }

    /// Code points from `first` to `last`, both included.
    record Range(int first, int last) {}

    /// The start of the text.
    record Start() implements Regex {}

    /// The very end of the text.
    record End() implements Regex {}

    /// A place where a word begins or ends; for `inside`, any other place. The characters of a word are those of `\w`:
    /// ASCII letters, digits and `_`, as that is what every engine can be made to say.
    record Boundary(boolean inside) implements Regex {
        static final List<Range> WORD =
                List.of(new Range('A', 'Z'), new Range('a', 'z'), new Range('0', '9'), new Range('_', '_'));

        static boolean isWord(int c) {
            return WORD.stream().anyMatch(r -> r.first() <= c && c <= r.last());
        }
    }
}
