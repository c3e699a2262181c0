package fixshelf.language.pattern;

import fixshelf.language.pattern.Regex.CharacterSet;
import fixshelf.language.pattern.Regex.Range;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/// A pattern as a table of states, for engines that have no regular expressions but can walk through a text.
///
/// It finds the longest match at a place; see [Regexes#sameForLongestMatch] for when that is the same as the first.
/// Made by Thompson's construction and the subset construction (Aho, Lam, Sethi, Ullman, *Compilers*, section 3.7).
public final class Automaton {
    private static final int LAST = 0x10FFFF;
    private static final int MOST_NODES = 4_000;

    /// Where a state leads to for characters of these ranges; all other characters lead nowhere.
    public record Move(List<Range> ranges, int target) {}

    /// A state: where it leads to, and whether a match may end here: anywhere, only at the end of the text, only before
    /// a character of a word as [Regex.Boundary] has them, or only before another character.
    public record State(
            List<Move> moves,
            boolean accepts,
            boolean acceptsAtEnd,
            boolean acceptsBeforeWord,
            boolean acceptsBeforeOther) {

        /// Whether a match may end before that character; -1 for the end of the text.
        public boolean acceptsBefore(int next) {
            return accepts
                    || (next < 0 ? acceptsAtEnd : Regex.Boundary.isWord(next) ? acceptsBeforeWord : acceptsBeforeOther);
        }
    }

    /// The nodes of a state, and whether the character before it belongs to a word; no matter, so false, where the
    /// pattern does not ask.
    private record Place(SortedSet<Integer> nodes, boolean afterWord, boolean start) {}

    private final List<List<Edge>> nodes = new ArrayList<>();
    private final List<State> states = new ArrayList<>();
    private final boolean asksForWords;
    private int atStart;
    private int later;
    private int laterInWord;

    private Automaton(boolean asksForWords) {
        this.asksForWords = asksForWords;
    }

    /// An edge of the graph that is made first: without a character, under a condition, or for a set of characters.
    private sealed interface Edge {
        int target();

        record Free(int target) implements Edge {}

        record IfStart(int target) implements Edge {}

        record IfEnd(int target) implements Edge {}

        record IfBoundary(boolean inside, int target) implements Edge {}

        record Taking(CharacterSet set, int target) implements Edge {}
    }

    /// The table for matches that begin at a place; empty when it would have more than `most` states.
    public static Optional<Automaton> ofMatch(Regex regex, int most) {
        return make(regex, most, false);
    }

    /// The table that finds whether a match begins anywhere.
    public static Optional<Automaton> ofSearch(Regex regex, int most) {
        return make(regex, most, true);
    }

    private static Optional<Automaton> make(Regex regex, int most, boolean search) {
        Automaton made = new Automaton(Regexes.hasBoundary(regex));
        int start = made.node();
        int end = made.node();
        made.connect(regex, start, end);
        if (made.nodes.size() > MOST_NODES) {
            return Optional.empty();
        }
        return made.determine(start, end, most, search) ? Optional.of(made) : Optional.empty();
    }

    public List<State> states() {
        return List.copyOf(states);
    }

    /// The state to begin with at the start of the text.
    public int atStart() {
        return atStart;
    }

    /// The state to begin with anywhere later, after a character that is in no word.
    public int later() {
        return later;
    }

    /// The state to begin with later, after a character of a word; mostly the same.
    public int laterInWord() {
        return laterInWord;
    }

    private int node() {
        nodes.add(new ArrayList<>());
        return nodes.size() - 1;
    }

    private void connect(Regex regex, int from, int to) {
        if (nodes.size() > MOST_NODES) {
            return;
        }
        switch (regex) {
            case Regex.Sequence(List<Regex> parts) -> {
                int at = from;
                for (Regex part : parts) {
                    int next = node();
                    connect(part, at, next);
                    at = next;
                }
                nodes.get(at).add(new Edge.Free(to));
            }
            case Regex.Alternatives(List<Regex> choices) -> choices.forEach(c -> connect(c, from, to));
            case Regex.Group(Regex part, int _) -> connect(part, from, to);
            case Regex.Repeat(Regex part, int least, int many, boolean _) -> repeat(part, least, many, from, to);
            case CharacterSet set -> nodes.get(from).add(new Edge.Taking(set, to));
            case Regex.Start() -> nodes.get(from).add(new Edge.IfStart(to));
            case Regex.End() -> nodes.get(from).add(new Edge.IfEnd(to));
            case Regex.Boundary(boolean inside) -> nodes.get(from).add(new Edge.IfBoundary(inside, to));
        }
    }

    private void repeat(Regex part, int least, int most, int from, int to) {
        int at = from;
        for (int i = 0; i < least; i++) {
            int next = node();
            connect(part, at, next);
            at = next;
        }
        if (most < 0) {
            int loop = node();
            nodes.get(at).add(new Edge.Free(loop));
            int next = node();
            connect(part, loop, next);
            nodes.get(next).add(new Edge.Free(loop));
            nodes.get(loop).add(new Edge.Free(to));
            return;
        }
        for (int i = least; i < most; i++) {
            nodes.get(at).add(new Edge.Free(to));
            int next = node();
            connect(part, at, next);
            at = next;
        }
        nodes.get(at).add(new Edge.Free(to));
    }

    /// What can be reached without a character. `boundary` is whether a word begins or ends here;
    /// null where that is not known yet, as it depends on the next character.
    private SortedSet<Integer> closure(
            SortedSet<Integer> from, boolean start, boolean end, @Nullable Boolean boundary) {
        SortedSet<Integer> all = new TreeSet<>(from);
        List<Integer> open = new ArrayList<>(from);
        while (!open.isEmpty()) {
            for (Edge edge : nodes.get(open.removeLast())) {
                boolean passes =
                        switch (edge) {
                            case Edge.Free _ -> true;
                            case Edge.IfStart _ -> start;
                            case Edge.IfEnd _ -> end;
                            case Edge.IfBoundary(boolean inside, int _) -> boundary != null && boundary != inside;
                            case Edge.Taking _ -> false;
                        };
                if (passes && all.add(edge.target())) {
                    open.add(edge.target());
                }
            }
        }
        return all;
    }

    private boolean determine(int start, int end, int most, boolean search) {
        List<Integer> borders = borders();
        SortedSet<Integer> first = new TreeSet<>(List.of(start));
        SortedSet<Integer> laterSet = closure(first, false, false, null);
        Map<Place, Integer> known = new HashMap<>();
        List<Place> open = new ArrayList<>();
        boolean asksForStart = nodes.stream().flatMap(List::stream).anyMatch(Edge.IfStart.class::isInstance);
        atStart = number(new Place(closure(first, true, false, null), false, asksForStart), known, open);
        later = number(new Place(laterSet, false, false), known, open);
        laterInWord = asksForWords ? number(new Place(laterSet, true, false), known, open) : later;
        for (int i = 0; i < open.size(); i++) {
            Place place = open.get(i);
            Map<Integer, List<Range>> moves = new LinkedHashMap<>();
            for (int b = 0; b + 1 < borders.size(); b++) {
                boolean word = asksForWords && Regex.Boundary.isWord(borders.get(b));
                SortedSet<Integer> next = step(before(place, word), borders.get(b));
                if (search) {
                    next.addAll(laterSet);
                }
                if (next.isEmpty()) {
                    continue;
                }
                int target = number(new Place(closure(next, false, false, null), word, false), known, open);
                if (open.size() > most) {
                    return false;
                }
                add(moves.computeIfAbsent(target, _ -> new ArrayList<>()), borders.get(b), borders.get(b + 1) - 1);
            }
            states.add(new State(
                    moves.entrySet().stream()
                            .map(m -> new Move(List.copyOf(m.getValue()), m.getKey()))
                            .toList(),
                    place.nodes().contains(end),
                    closure(place.nodes(), place.start(), true, place.afterWord())
                            .contains(end),
                    before(place, true).contains(end),
                    before(place, false).contains(end)));
        }
        return true;
    }

    /// What can be reached when it is known whether the next character belongs to a word.
    private SortedSet<Integer> before(Place place, boolean word) {
        return asksForWords ? closure(place.nodes(), place.start(), false, place.afterWord() != word) : place.nodes();
    }

    private static int number(Place place, Map<Place, Integer> known, List<Place> open) {
        return known.computeIfAbsent(place, p -> {
            open.add(p);
            return open.size() - 1;
        });
    }

    private static void add(List<Range> ranges, int first, int last) {
        if (!ranges.isEmpty() && ranges.getLast().last() + 1 == first) {
            ranges.set(ranges.size() - 1, new Range(ranges.getLast().first(), last));
        } else {
            ranges.add(new Range(first, last));
        }
    }

    private SortedSet<Integer> step(SortedSet<Integer> from, int character) {
        SortedSet<Integer> next = new TreeSet<>();
        for (int node : from) {
            for (Edge edge : nodes.get(node)) {
                if (edge instanceof Edge.Taking(CharacterSet set, int target) && set.contains(character)) {
                    next.add(target);
                }
            }
        }
        return next;
    }

    /// The first characters of stretches that all sets of the pattern treat alike, and one past the last.
    private List<Integer> borders() {
        SortedSet<Integer> borders = new TreeSet<>(List.of(1, LAST + 1));
        if (asksForWords) {
            Regex.Boundary.WORD.forEach(r -> borders.addAll(List.of(r.first(), r.last() + 1)));
        }
        for (List<Edge> edges : nodes) {
            for (Edge edge : edges) {
                if (edge instanceof Edge.Taking(CharacterSet set, int _)) {
                    set.ranges().forEach(r -> {
                        borders.add(Math.max(1, r.first()));
                        borders.add(r.last() + 1);
                    });
                }
            }
        }
        return List.copyOf(borders);
    }
}
