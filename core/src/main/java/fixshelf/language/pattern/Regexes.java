package fixshelf.language.pattern;

import fixshelf.language.pattern.Regex.CharacterSet;
import java.util.ArrayList;
import java.util.List;
import java.util.SortedSet;
import java.util.TreeSet;

/// Questions about a regular expression that decide which language can say it.
public final class Regexes {
    private Regexes() {}

    /// Whether it can match without taking a character.
    public static boolean canBeEmpty(Regex regex) {
        return switch (regex) {
            case Regex.Sequence(List<Regex> parts) -> parts.stream().allMatch(Regexes::canBeEmpty);
            case Regex.Alternatives(List<Regex> choices) -> choices.stream().anyMatch(Regexes::canBeEmpty);
            case Regex.Repeat(Regex part, int least, int _, boolean _) -> least == 0 || canBeEmpty(part);
            case Regex.Group(Regex part, int _) -> canBeEmpty(part);
            case CharacterSet _ -> false;
            case Regex.Start _, Regex.End _, Regex.Boundary _ -> true;
        };
    }

    /// Whether it asks for the edge of a word anywhere.
    public static boolean hasBoundary(Regex regex) {
        return switch (regex) {
            case Regex.Sequence(List<Regex> parts) -> parts.stream().anyMatch(Regexes::hasBoundary);
            case Regex.Alternatives(List<Regex> choices) -> choices.stream().anyMatch(Regexes::hasBoundary);
            case Regex.Repeat(Regex part, int _, int _, boolean _) -> hasBoundary(part);
            case Regex.Group(Regex part, int _) -> hasBoundary(part);
            case CharacterSet _, Regex.Start _, Regex.End _ -> false;
            case Regex.Boundary _ -> true;
        };
    }

    /// How many groups are counted.
    public static int groups(Regex regex) {
        return switch (regex) {
            case Regex.Sequence(List<Regex> parts) ->
                parts.stream().mapToInt(Regexes::groups).sum();
            case Regex.Alternatives(List<Regex> choices) ->
                choices.stream().mapToInt(Regexes::groups).sum();
            case Regex.Repeat(Regex part, int _, int _, boolean _) -> groups(part);
            case Regex.Group(Regex part, int number) -> groups(part) + (number > 0 ? 1 : 0);
            case CharacterSet _, Regex.Start _, Regex.End _, Regex.Boundary _ -> 0;
        };
    }

    /// Whether an engine that prefers the longest match finds the same as one that prefers the first.
    ///
    /// They can differ where alternatives begin alike, where lazy and greedy repeats are mixed, and where an
    /// optional group could begin inside the repeat before it. The answer is on the safe side.
    public static boolean sameForLongestMatch(Regex regex) {
        boolean lazy = repeats(regex).stream().anyMatch(Regex.Repeat::lazy);
        return !lazy && plainAlternatives(regex) && plainSequences(regex);
    }

    private static boolean plainAlternatives(Regex regex) {
        return switch (regex) {
            case Regex.Sequence(List<Regex> parts) -> parts.stream().allMatch(Regexes::plainAlternatives);
            case Regex.Repeat(Regex part, int _, int _, boolean _) -> plainAlternatives(part);
            case Regex.Group(Regex part, int _) -> plainAlternatives(part);
            case Regex.Alternatives(List<Regex> choices) -> plainChoices(choices);
            case CharacterSet _, Regex.Start _, Regex.End _, Regex.Boundary _ -> true;
        };
    }

    private static boolean plainChoices(List<Regex> choices) {
        for (int i = 0; i < choices.size(); i++) {
            for (int j = i + 1; j < choices.size(); j++) {
                boolean apart = !canBeEmpty(choices.get(i))
                        && !canBeEmpty(choices.get(j))
                        && !overlap(first(choices.get(i)), first(choices.get(j)));
                boolean anchored = startsAnchored(choices.get(i)) && endsAnchored(choices.get(j));
                if (!apart && !anchored) {
                    return false;
                }
            }
        }
        return choices.stream().allMatch(Regexes::plainAlternatives);
    }

    private static boolean startsAnchored(Regex regex) {
        return regex instanceof Regex.Sequence(List<Regex> parts)
                && !parts.isEmpty()
                && parts.getFirst() instanceof Regex.Start
                && parts.stream().skip(1).allMatch(Regexes::isRun);
    }

    private static boolean endsAnchored(Regex regex) {
        return regex instanceof Regex.Sequence(List<Regex> parts)
                && !parts.isEmpty()
                && parts.getLast() instanceof Regex.End
                && parts.stream().limit(parts.size() - 1L).allMatch(Regexes::isRun);
    }

    private static boolean isRun(Regex regex) {
        return regex instanceof CharacterSet
                || regex instanceof Regex.Repeat(CharacterSet _, int _, int most, boolean _) && most < 0;
    }

    private static boolean plainSequences(Regex regex) {
        return switch (regex) {
            case Regex.Alternatives(List<Regex> choices) -> choices.stream().allMatch(Regexes::plainSequences);
            case Regex.Repeat(Regex part, int _, int _, boolean _) -> plainSequences(part);
            case Regex.Group(Regex part, int _) -> plainSequences(part);
            case CharacterSet _, Regex.Start _, Regex.End _, Regex.Boundary _ -> true;
            case Regex.Sequence(List<Regex> parts) -> plainParts(parts);
        };
    }

    private static boolean plainParts(List<Regex> parts) {
        List<CharacterSet> before = new ArrayList<>();
        for (Regex part : parts) {
            boolean optionalGroup = part instanceof Regex.Repeat(Regex inner, int least, int most, boolean _)
                    && least != most
                    && !(inner instanceof CharacterSet);
            if (optionalGroup && overlap(before, first(part))) {
                return false;
            }
            if (part instanceof Regex.Repeat(Regex _, int least, int most, boolean _) && least != most) {
                before.addAll(first(part));
            }
        }
        return parts.stream().allMatch(Regexes::plainSequences);
    }

    /// The sets that a match can begin with.
    private static List<CharacterSet> first(Regex regex) {
        return switch (regex) {
            case CharacterSet set -> List.of(set);
            case Regex.Start _, Regex.End _, Regex.Boundary _ -> List.of();
            case Regex.Group(Regex part, int _) -> first(part);
            case Regex.Repeat(Regex part, int _, int _, boolean _) -> first(part);
            case Regex.Alternatives(List<Regex> choices) ->
                choices.stream().flatMap(c -> first(c).stream()).toList();
            case Regex.Sequence(List<Regex> parts) -> firstOf(parts);
        };
    }

    private static List<CharacterSet> firstOf(List<Regex> parts) {
        List<CharacterSet> sets = new ArrayList<>();
        for (Regex part : parts) {
            sets.addAll(first(part));
            if (!canBeEmpty(part)) {
                break;
            }
        }
        return sets;
    }

    private static boolean overlap(List<CharacterSet> some, List<CharacterSet> others) {
        return some.stream().anyMatch(a -> others.stream().anyMatch(b -> overlap(a, b)));
    }

    private static boolean overlap(CharacterSet a, CharacterSet b) {
        if (a.negated() && b.negated()) {
            return true;
        }
        CharacterSet plain = a.negated() ? b : a;
        CharacterSet other = a.negated() ? a : b;
        return plain.ranges().stream()
                .anyMatch(r -> other.negated()
                        ? !other.ranges().stream().anyMatch(o -> o.first() <= r.first() && r.last() <= o.last())
                        : other.ranges().stream().anyMatch(o -> o.first() <= r.last() && r.first() <= o.last()));
    }

    private static List<Regex.Repeat> repeats(Regex regex) {
        return switch (regex) {
            case Regex.Sequence(List<Regex> parts) ->
                parts.stream().flatMap(p -> repeats(p).stream()).toList();
            case Regex.Alternatives(List<Regex> choices) ->
                choices.stream().flatMap(c -> repeats(c).stream()).toList();
            case Regex.Group(Regex part, int _) -> repeats(part);
            case CharacterSet _, Regex.Start _, Regex.End _, Regex.Boundary _ -> List.of();
            case Regex.Repeat repeat -> {
                List<Regex.Repeat> all = new ArrayList<>(repeats(repeat.part()));
                all.add(repeat);
                yield all;
            }
        };
    }

    /// The pattern with the small and the capital form of each of its letters, by Unicode's simple mappings, beside
    /// it. Categories stay as they are.
    static Regex anyCase(Regex regex) {
        return switch (regex) {
            case Regex.Sequence(List<Regex> parts) ->
                new Regex.Sequence(parts.stream().map(Regexes::anyCase).toList());
            case Regex.Alternatives(List<Regex> choices) ->
                new Regex.Alternatives(choices.stream().map(Regexes::anyCase).toList());
            case Regex.Group(Regex part, int number) -> new Regex.Group(anyCase(part), number);
            case Regex.Repeat(Regex part, int least, int most, boolean lazy) ->
                new Regex.Repeat(anyCase(part), least, most, lazy);
            case CharacterSet set -> anyCase(set);
            case Regex.Start _, Regex.End _, Regex.Boundary _ -> regex;
        };
    }

    private static CharacterSet anyCase(CharacterSet set) {
        SortedSet<Integer> added = new TreeSet<>();
        for (Regex.Range range : set.own()) {
            for (int c = range.first(); c <= range.last(); c++) {
                added.add(Character.toLowerCase(c));
                added.add(Character.toUpperCase(c));
            }
        }
        List<Regex.Range> ranges = new ArrayList<>();
        set.own().forEach(r -> {
            ranges.add(r);
            added.subSet(r.first(), r.last() + 1).clear();
        });
        for (int c : added) {
            boolean next = !ranges.isEmpty()
                    && ranges.size() > set.own().size()
                    && ranges.getLast().last() + 1 == c;
            if (next) {
                ranges.set(ranges.size() - 1, new Regex.Range(ranges.getLast().first(), c));
            } else {
                ranges.add(new Regex.Range(c, c));
            }
        }
        return new CharacterSet(ranges, set.classes(), set.negated());
    }
}
