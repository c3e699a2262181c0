package fixshelf.work;

import fixshelf.plan.Plan;
import fixshelf.plan.Step;
import fixshelf.table.Relation;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/// A watched figure after a line.
///
/// @param value missing where there is none, such as the sum of no value
/// @param before what it was after the line before; none at the first line that tells it
public record Figure(String name, @Nullable Object value, Optional<Object> before) {
    /// The watched figures after each line of a job, from the first; none at lines that are not watched.
    ///
    /// @param ask gives the row of a table that has one
    static List<List<Figure>> of(Plan plan, Function<Relation, List<@Nullable Object>> ask) {
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
                        .ifPresent(f -> here.addAll(of(f.shape().names(), ask.apply(f), before)));
            }
            all.add(here);
        }
        return all;
    }

    private static List<Figure> of(List<String> names, List<@Nullable Object> values, List<Figure> before) {
        List<Figure> all = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            String name = names.get(i);
            Optional<Object> was = before.stream()
                    .filter(f -> f.name().equals(name))
                    .findFirst()
                    .flatMap(f -> Optional.ofNullable(f.value()));
            all.add(new Figure(name, values.get(i), was));
        }
        return all;
    }

    /// `cost 41,204.10`, or with what a line changed: `cost 41,204.10 → 41,216.50 (+12.40)`.
    public String sentence() {
        String now = shown(value);
        if (before.isEmpty() || Objects.equals(now, shown(before.get()))) {
            return name + " " + now;
        }
        return name + " " + shown(before.get()) + " → " + now + difference();
    }

    public boolean isChanged() {
        return before.isPresent() && !Objects.equals(shown(value), shown(before.get()));
    }

    private String difference() {
        if (!(value instanceof Number now) || !(before.orElseThrow() instanceof Number was)) {
            return "";
        }
        BigDecimal by = new BigDecimal(now.toString()).subtract(new BigDecimal(was.toString()));
        return " (" + (by.signum() > 0 ? "+" : "") + shown(by) + ")";
    }

    private static String shown(@Nullable Object value) {
        return switch (value) {
            case null -> "∅";
            case BigDecimal number -> String.format("%,." + Math.max(0, number.scale()) + "f", number);
            case Long number -> String.format("%,d", number);
            default -> value.toString();
        };
    }
}
