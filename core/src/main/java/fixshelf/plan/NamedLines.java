package fixshelf.plan;

import fixshelf.language.tree.Names;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// The lines above that have a name, as tables, beside the other tables there are.
///
/// @param steps the lines so far; more come
public record NamedLines(Context.Sources others, Looks looks, List<Step> steps) implements Context.Sources {
    private static final int MOST_PAIRS = 10_000;

    private Optional<Step> step(String name) {
        return name.isEmpty()
                ? Optional.empty()
                : steps.stream().filter(s -> s.line().name().equals(name)).findFirst();
    }

    @Override
    public Outcome<Relation> find(String name, Context.Ids ids) {
        return line(name).map(Outcome::of).orElseGet(() -> others.find(name, ids));
    }

    @Override
    public Outcome<Relation> call(Line loader, Context.Ids ids) {
        return others.call(loader, ids);
    }

    @Override
    public Optional<Relation> line(String name) {
        return step(name).map(Step::result);
    }

    @Override
    public List<String> names() {
        List<String> names = new ArrayList<>();
        steps.stream().map(s -> s.line().name()).filter(n -> !n.isEmpty()).forEach(names::add);
        names.addAll(others.names());
        return names;
    }

    @Override
    public Outcome<Map<String, @Nullable String>> pairs(String source, String from, String to) {
        return step(source)
                .map(s -> pairs(new Plan(steps), looks, s, from, to))
                .orElseGet(() -> others.pairs(source, from, to));
    }

    /// Two columns of the table after a line as pairs. Rows without a key say nothing; a key with two values is a
    /// problem.
    public static Outcome<Map<String, @Nullable String>> pairs(
            Plan plan, Looks looks, Step step, String from, String to) {
        Relation table = step.result();
        List<Field> both = new ArrayList<>();
        for (String name : List.of(from, to)) {
            Optional<Field> field = table.shape().find(name);
            if (field.isEmpty()) {
                return Refusal.of(
                        Code.NO_SUCH_COLUMN,
                        "There is no column " + name + " at line " + step.number() + ".",
                        Names.suggest(name, table.shape().names(), "Name a column of that line."));
            }
            both.add(field.get());
        }
        Relation known =
                new Relation.Keep(table, Formula.isKnown(both.getFirst().value()));
        List<Field> keys = both.stream().distinct().toList();
        return looks.rows(plan, new Relation.Group(known, keys, List.of()))
                .then(rows -> pairs(step, rows, both.size() > keys.size()));
    }

    private static Outcome<Map<String, @Nullable String>> pairs(
            Step step, List<List<@Nullable Object>> rows, boolean same) {
        Map<String, @Nullable String> pairs = new LinkedHashMap<>();
        for (List<@Nullable Object> row : rows) {
            String key = String.valueOf(row.getFirst());
            Object value = row.get(same ? 0 : 1);
            if (pairs.containsKey(key)) {
                return Refusal.of(
                        Code.ARGUMENTS,
                        "At line " + step.number() + " " + key + " has more than one value.",
                        "Mend the rows above it: each key needs one value.");
            }
            pairs.put(key, value == null ? null : value.toString());
        }
        return pairs.isEmpty() || pairs.size() > MOST_PAIRS
                ? Refusal.of(
                        Code.ARGUMENTS,
                        String.format(
                                "Line %d gives %,d pairs; a mapping takes 1 to %,d.",
                                step.number(), pairs.size(), MOST_PAIRS),
                        "Name another line.")
                : Outcome.of(pairs);
    }
}
