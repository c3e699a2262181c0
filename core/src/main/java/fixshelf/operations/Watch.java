package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.Watching;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Figures that are told beside every line from here on.
final class Watch extends BuiltIn implements Watching {
    static final Blank<Map<String, ExpressionKinds.Measure>> FIGURES = Blank.needed(
            "figures", ExpressionKinds.MEASURES, "Names with aggregates of all rows: {cost: sum(parts_cost)}.");
    static final Blank<List<Field>> WITHIN =
            Blank.optional("within", ColumnKinds.COLUMNS, "One for each group of rows that are equal in these.");

    Watch() {
        super(
                "watch",
                "Watch {figures} from here on",
                new Meaning(
                        "A sum, a count or a mean that stands beside this line and every one after it, so that a line that changes it is seen: control figure, running check. It changes nothing.",
                        "As in group: missing values are passed over; missing in a column of `within` is a group.",
                        "An empty text is a value.",
                        "Rows stay as they stand.",
                        "",
                        "The figures follow their columns, also under other names; where a column is gone or has another type, there is none. Of groups, those that are new, gone or changed are named, at most the first 1,000.",
                        "",
                        "",
                        "Is left out of code; a run does not work it out."),
                List.of(FIGURES, WITHIN),
                List.of(
                        new TableExample(
                                "Nothing changes",
                                Table.of("n integer", "1", "2"),
                                "watch: {total: sum(n), rows: count_rows()}",
                                Table.of("n integer", "1", "2")),
                        new TableExample(
                                "For each group",
                                Table.of("k | n integer", "'a' | 1", "'b' | 2"),
                                "watch: {total: sum(n)}\nwithin: [k]",
                                Table.of("k | n integer", "'a' | 1", "'b' | 2"))));
    }

    @Override
    public Resolution resolve(Given given) {
        return new Resolution.Done(given.before());
    }

    @Override
    public Optional<Watched> figures(Given given, Relation table) {
        List<Field> keys = new ArrayList<>();
        for (Field key : given.find(WITHIN).orElse(List.of())) {
            Optional<Field> now = table.shape().find(key.id());
            if (now.isEmpty()) {
                return Optional.empty();
            }
            keys.add(now.get());
        }
        Map<String, ExpressionKinds.Measure> there = new LinkedHashMap<>();
        given.get(FIGURES).forEach((name, measure) -> over(measure, table).ifPresent(m -> there.put(name, m)));
        return there.isEmpty()
                ? Optional.empty()
                : Optional.of(new Watched(Measures.within(given, table, keys, there), keys.size()));
    }

    /// The measure over a later table, where that has all its columns with their types; a single column may have become
    /// a number of another type.
    private static Optional<ExpressionKinds.Measure> over(ExpressionKinds.Measure measure, Relation table) {
        if (measure.of().isEmpty()) {
            return Optional.of(measure);
        }
        Map<String, Field> fields = new HashMap<>();
        table.shape().fields().forEach(f -> fields.put(f.key(), f));
        if (measure.of().get() instanceof Expr.Name name) {
            return Optional.ofNullable(fields.get(name.name()))
                    .filter(f -> f.type().equals(name.type())
                            || f.type().isNumeric() && name.type().isNumeric())
                    .map(f -> new ExpressionKinds.Measure(
                            measure.aggregate(),
                            Optional.of(f.value()),
                            measure.mean(),
                            measure.places(),
                            measure.separator()));
        }
        List<Expr.Name> used = new ArrayList<>();
        Formula.renamed(measure.of().get(), name -> {
            used.add(name);
            return name;
        });
        boolean same = used.stream()
                .allMatch(n -> fields.containsKey(n.name())
                        && fields.get(n.name()).type().equals(n.type()));
        return same ? Optional.of(measure) : Optional.empty();
    }
}
