package fixshelf.language;

import java.util.List;

/// A regular expression of the portable subset: what every engine can be made to match in the same way.
///
/// Characters, classes `[a-z]` and `[^…]`, `.` (any but the line feed), `\d \w \s` (ASCII), `\u00A0` by number,
/// groups `( )` and `(?: )`, alternatives `|`, repeats `* + ? {m} {m,} {m,n}` with or without a lazy `?`, `^` for
/// the start of the text and `$` for its very end.
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

    /// One character out of a set, or out of all others.
    record CharacterSet(List<Range> ranges, boolean negated) implements Regex {
        public CharacterSet {
            ranges = List.copyOf(ranges);
        }

        static CharacterSet of(int codePoint) {
            return new CharacterSet(List.of(new Range(codePoint, codePoint)), false);
        }

        public boolean isSingle() {
            return !negated
                    && ranges.size() == 1
                    && ranges.getFirst().first() == ranges.getFirst().last();
        }

        boolean contains(int c) {
            return negated != ranges.stream().anyMatch(r -> r.first() <= c && c <= r.last());
        }
    }

    /// Code points from `first` to `last`, both included.
    record Range(int first, int last) {}

    /// The start of the text.
    record Start() implements Regex {}

    /// The very end of the text.
    record End() implements Regex {}
}
