package fixshelf.work;

import fixshelf.plan.Plan;
import fixshelf.plan.Step;
import fixshelf.plan.Watching.Watched;
import fixshelf.table.Relation;
import fixshelf.type.Literals;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// A watched figure after a line: one for all rows, or one for each group.
///
/// @param by the columns of the groups; none where it is of all rows
/// @param groups those that are there, in the order of their first rows
/// @param before what it was after the line before; none at the first line that tells it
public record Figure(String name, List<String> by, List<Group> groups, Optional<List<Group>> before) {
    /// So many groups are told; a column with more is none to watch by.
    static final int MOST_GROUPS = 1_000;

    private static final int MOST_NAMED = 4;

    public Figure {
        by = List.copyOf(by);
        groups = List.copyOf(groups);
    }

    /// The figure of one group.
    ///
    /// @param key what the rows of the group have in its columns, null where it is missing
    /// @param value missing where there is none, such as the sum of no value
    public record Group(
            List<@Nullable String> key, @Nullable Object value) {
        public Group {
            key = Collections.unmodifiableList(new ArrayList<>(key));
        }

        private String label() {
            return String.join(
                    ", ",
                    key.stream()
                            .map(k -> k == null ? "∅" : k.isEmpty() ? "\"\"" : k)
                            .toList());
        }
    }

    /// The watched figures after each line of a job, from the first; none at lines that are not watched.
    ///
    /// @param ask gives the rows of a table
    static List<List<Figure>> of(Plan plan, Function<Relation, List<List<@Nullable Object>>> ask) {
        List<List<Figure>> all = new ArrayList<>();
        for (Step step : plan.steps()) {
            // In a branch, what was before is what it was where the branch begins.
            List<Figure> before = step.number() == 1
                    ? List.of()
                    : all.get(plan.before(step.number()).number() - 1);
            List<Figure> here = new ArrayList<>();
            for (Step watched : plan.steps().subList(0, step.number())) {
                watched.watch()
                        .flatMap(w -> w.apply(step.result()))
                        .ifPresent(w -> here.addAll(of(w, ask.apply(w.table()), before)));
            }
            all.add(here);
        }
        return all;
    }

    private static List<Figure> of(Watched watched, List<List<@Nullable Object>> rows, List<Figure> before) {
        List<Figure> all = new ArrayList<>();
        List<String> names = watched.table().shape().names();
        for (int i = watched.keys(); i < names.size(); i++) {
            String name = names.get(i);
            List<Group> groups = new ArrayList<>();
            for (List<@Nullable Object> row : rows) {
                List<@Nullable String> key = new ArrayList<>();
                row.subList(0, watched.keys()).forEach(k -> key.add(k == null ? null : k.toString()));
                groups.add(new Group(key, row.get(i)));
            }
            Optional<List<Group>> was = before.stream()
                    .filter(f -> f.name().equals(name) && f.by().size() == watched.keys())
                    .findFirst()
                    .map(Figure::groups);
            all.add(new Figure(name, names.subList(0, watched.keys()), groups, was));
        }
        return all;
    }

    /// What a line did with the figure of one group.
    private record Change(String label, boolean changed, String words) {}

    /// `cost 41,204.10`, or with what a line changed: `cost 41,204.10 → 41,216.50 (+12.40)`. Of
    /// groups, those that a line changed: `cost by village: Sallow 12.00 → gone; 2 as before`.
    public String sentence() {
        if (by.isEmpty()) {
            return name + " " + changes().getFirst().words();
        }
        List<Change> all = changes();
        List<Change> told =
                before.isEmpty() ? all : all.stream().filter(Change::changed).toList();
        List<String> words = new ArrayList<>(told.stream()
                .limit(MOST_NAMED)
                .map(c -> c.label() + " " + c.words())
                .toList());
        if (told.size() > MOST_NAMED) {
            words.add(String.format("%,d more", told.size() - MOST_NAMED));
        }
        if (told.size() < all.size()) {
            words.add(String.format("%,d as before", all.size() - told.size()));
        }
        return name + " by " + String.join(", ", by)
                + (words.isEmpty() ? ": no rows" : ": " + String.join("; ", words));
    }

    public boolean isChanged() {
        return before.isPresent() && changes().stream().anyMatch(Change::changed);
    }

    private List<Change> changes() {
        Map<List<@Nullable String>, Group> was = new LinkedHashMap<>();
        before.ifPresent(b -> b.forEach(g -> was.put(g.key(), g)));
        List<Change> here = groups.stream()
                .map(g -> change(g, Optional.ofNullable(was.remove(g.key()))))
                .toList();
        // Further groups that are not looked at are not gone.
        Stream<Change> gone = groups.size() == MOST_GROUPS
                ? Stream.empty()
                : was.values().stream().map(g -> new Change(g.label(), true, shown(g.value()) + " → gone"));
        return Stream.concat(here.stream(), gone).toList();
    }

    private Change change(Group now, Optional<Group> was) {
        String shown = shown(now.value());
        boolean changed = before.isPresent()
                && was.map(w -> !shown(w.value()).equals(shown)).orElse(true);
        String words = !changed
                ? shown
                : was.map(w -> shown(w.value()) + " → " + shown + difference(now.value(), w.value()))
                        .orElse("new, " + shown);
        return new Change(now.label(), changed, words);
    }

    private static String difference(@Nullable Object now, @Nullable Object was) {
        if (!(now instanceof Number is) || !(was instanceof Number before)) {
            return "";
        }
        BigDecimal by = new BigDecimal(is.toString()).subtract(new BigDecimal(before.toString()));
        return " (" + (by.signum() > 0 ? "+" : "") + shown(by) + ")";
    }

    private static String shown(@Nullable Object value) {
        return switch (value) {
            case null -> "∅";
            case BigDecimal number -> String.format("%,." + Math.max(0, number.scale()) + "f", number);
            case Long number -> String.format("%,d", number);
            default -> Literals.bare(value);
        };
    }
}
