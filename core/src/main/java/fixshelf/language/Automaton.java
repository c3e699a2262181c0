package fixshelf.language;

import fixshelf.language.Regex.CharacterSet;
import fixshelf.language.Regex.Range;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;

/// A pattern as a table of states, for engines that have no regular expressions but can walk through a text.
///
/// It finds the longest match at a place; see [Regexes#sameForLongestMatch] for when that is the same as the first.
/// Made by Thompson's construction and the subset construction (Aho, Lam, Sethi, Ullman, *Compilers*, section 3.7).
public final class Automaton {
    private static final int LAST = 0x10FFFF;
    private static final int MOST_NODES = 4_000;

    /// Where a state leads to for characters of these ranges; all other characters lead nowhere.
    public record Move(List<Range> ranges, int target) {}

    /// A state: where it leads to, and whether a match may end here, anywhere or only at the end of the text.
    public record State(List<Move> moves, boolean accepts, boolean acceptsAtEnd) {}

    private final List<List<Edge>> nodes = new ArrayList<>();
    private final List<State> states = new ArrayList<>();
    private int atStart;
    private int later;

    private Automaton() {}

    /// An edge of the graph that is made first: without a character, under a condition, or for a set of characters.
    private sealed interface Edge {
        int target();

        record Free(int target) implements Edge {}

        record IfStart(int target) implements Edge {}

        record IfEnd(int target) implements Edge {}

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
        Automaton made = new Automaton();
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

    /// The state to begin with anywhere later.
    public int later() {
        return later;
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

    private SortedSet<Integer> closure(SortedSet<Integer> from, boolean start, boolean end) {
        SortedSet<Integer> all = new TreeSet<>(from);
        List<Integer> open = new ArrayList<>(from);
        while (!open.isEmpty()) {
            for (Edge edge : nodes.get(open.removeLast())) {
                boolean passes =
                        switch (edge) {
                            case Edge.Free _ -> true;
                            case Edge.IfStart _ -> start;
                            case Edge.IfEnd _ -> end;
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
        SortedSet<Integer> laterSet = closure(new TreeSet<>(List.of(start)), false, false);
        Map<SortedSet<Integer>, Integer> known = new HashMap<>();
        List<SortedSet<Integer>> open = new ArrayList<>();
        atStart = number(closure(new TreeSet<>(List.of(start)), true, false), known, open);
        later = number(laterSet, known, open);
        for (int i = 0; i < open.size(); i++) {
            SortedSet<Integer> set = open.get(i);
            Map<Integer, List<Range>> moves = new LinkedHashMap<>();
            for (int b = 0; b + 1 < borders.size(); b++) {
                SortedSet<Integer> next = step(set, borders.get(b));
                if (search) {
                    next.addAll(laterSet);
                }
                if (next.isEmpty()) {
                    continue;
                }
                int target = number(closure(next, false, false), known, open);
                if (open.size() > most) {
                    return false;
                }
                add(moves.computeIfAbsent(target, _ -> new ArrayList<>()), borders.get(b), borders.get(b + 1) - 1);
            }
            boolean first = i == atStart;
            states.add(new State(
                    moves.entrySet().stream()
                            .map(m -> new Move(List.copyOf(m.getValue()), m.getKey()))
                            .toList(),
                    set.contains(end),
                    closure(set, first, true).contains(end)));
        }
        return true;
    }

    private static int number(
            SortedSet<Integer> set, Map<SortedSet<Integer>, Integer> known, List<SortedSet<Integer>> open) {
        return known.computeIfAbsent(set, s -> {
            open.add(s);
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
