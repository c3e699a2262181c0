package fixshelf.engine;

import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.render.sql.DuckDbLanguage;
import fixshelf.render.sql.RelationSql;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/// Lines that work on each row alone, or let it through or not, as one query in which rows are counted as they pass, so
/// that they need not stand in a table.
public final class Passing {
    /// Numbers of helper fields, of which no job has so many.
    private static final int HELPERS = 2_000_000_000;

    private static final DuckDbLanguage DUCKDB = new DuckDbLanguage();

    private final List<Step> steps;
    private final List<Tally.Stage> stages = new ArrayList<>();
    private final List<String> columns = new ArrayList<>();
    /// The stages at which lines count, by their numbers and what it is.
    private final Map<String, Integer> places = new HashMap<>();

    /// What is counted of keys, by the number of the line that looks them up.
    private final Map<Integer, KeyTally> met = new HashMap<>();

    private final List<String> queries = new ArrayList<>();
    private String from;
    private final Tally tally;

    /// @param steps those that fit, one after another
    /// @param base what reads the rows, with the fields before the first of them
    /// @param lookups what lines look up, by their numbers
    public Passing(List<Step> steps, String base, Map<Integer, Lookup> lookups) {
        this.steps = List.copyOf(steps);
        this.from = base;
        for (Step step : steps) {
            Lookup lookup = lookups.get(step.number());
            if (lookup == null) {
                add(step);
            } else {
                look(step, lookup);
            }
        }
        Map<Integer, KeyTally> keys = new HashMap<>();
        met.forEach((line, tally) -> keys.put(places.get(line + " met"), tally));
        this.tally = new Tally(stages, keys);
    }

    /// Whether a line can be one of them, also without looking anything up.
    public static boolean fits(Step step) {
        long computes = step.after().parts().stream()
                .filter(Relation.Compute.class::isInstance)
                .count();
        return step.guard().isEmpty()
                && !Rows.countsAnew(step)
                && (isOfRows(step.after()) || Lineage.isByRow(step.after()) && computes <= 1)
                && step.reports().stream().allMatch(r -> !r.breaks() && (r.dear() || isOfRows(r.relation())));
    }

    /// Whether it takes rows of the table before by a condition.
    private static boolean isOfRows(Relation relation) {
        return relation instanceof Relation.Keep keep && keep.from() instanceof Relation.Result;
    }

    private void add(Step step) {
        List<Computed> seen = new ArrayList<>();
        for (Operation.Report report : step.reports()) {
            if (!report.dear() && report.relation() instanceof Relation.Keep keep) {
                seen.add(seen(step, report.name(), Tally.Stage.SHOWS, keep));
            }
        }
        if (step.after() instanceof Relation.Keep keep) {
            seen.add(seen(step, "", Tally.Stage.KEEPS, keep));
            write(step, "seen_", new Relation.Compute(keep.from(), seen), false, step.fields());
            return;
        }
        if (!seen.isEmpty()) {
            Relation before = step.reports().stream()
                    .filter(r -> !r.dear())
                    .map(r -> ((Relation.Keep) r.relation()).from())
                    .findFirst()
                    .orElseThrow();
            write(
                    step,
                    "seen_",
                    new Relation.Compute(before, seen),
                    false,
                    before.shape().fields());
        }
        if (!step.isIdle()) {
            boolean counts = !step.replaced().isEmpty();
            write(step, "line_", step.after(), counts, step.fields());
        }
    }

    /// Rows beside those of another table that they meet.
    private void look(Step step, Lookup lookup) {
        Relation.Join join = lookup.join();
        if (!(join.left() instanceof Relation.Result)) {
            write(step, "keys_", join.left(), false, join.left().shape().fields());
        }
        String fields = Rows.keys(join.left().shape().fields());
        String number = "n" + step.number();
        String meets = "m" + step.number();
        boolean keepsAll = join.meeting() == Relation.Meeting.ALL_LEFT;
        String keeps = join.meeting() == Relation.Meeting.WITHOUT ? " < 0" : " >= 0";
        List<String> before = new ArrayList<>(columns);
        before.add(fields);
        before.add(lookup.number() + " AS " + number);
        stage(step.number() + " met", Tally.Stage.MEETS, number);
        met.put(step.number(), lookup.tally());
        List<String> shown = new ArrayList<>(columns);
        if (!keepsAll) {
            stage(step.number() + " ", Tally.Stage.KEEPS, meets);
            shown.add(number + keeps + " AS " + meets);
        }
        shown.add(fields);
        shown.addAll(lookup.taken(number));
        from = "(SELECT " + String.join(", ", before) + " FROM " + from + ")";
        from = "(SELECT " + String.join(", ", shown) + " FROM " + from + ")";
    }

    private Computed seen(Step step, String name, Tally.Stage stage, Relation.Keep keep) {
        Field field = new Field(HELPERS + columns.size(), "seen", Type.BOOLEAN);
        stage(step.number() + " " + name, stage, field.key());
        return new Computed(field, keep.condition());
    }

    private void stage(String place, Tally.Stage stage, String column) {
        places.put(place, stages.size());
        stages.add(stage);
        columns.add(column);
    }

    /// One more query over those before, with what was seen so far beside its fields.
    private void write(Step step, String name, Relation relation, boolean counts, List<Field> fields) {
        List<String> carried = new ArrayList<>(columns);
        relation.shape().fields().forEach(f -> carried.remove(f.key()));
        String base = from;
        RelationSql sql = new RelationSql(DUCKDB, RelationSql.Manner.inside(false, false, counts, carried), _ -> base);
        String last = sql.write(relation, name + step.number());
        queries.addAll(sql.queries());
        List<String> shown = new ArrayList<>(columns);
        if (counts) {
            shown.add("k AS " + Rows.changed(step));
            shown.add("l AS " + Rows.lost(step));
            stage(step.number() + " k", Tally.Stage.ADDS, Rows.changed(step));
            stage(step.number() + " l", Tally.Stage.ADDS, Rows.lost(step));
        }
        shown.add(Rows.keys(fields));
        from = "(SELECT " + String.join(", ", shown) + " FROM " + last + ")";
    }

    public Tally tally() {
        return tally;
    }

    /// The rows that pass all lines.
    ///
    /// @param told the function that counts
    /// @param shown what is selected
    public String query(String told, String shown) {
        List<String> arguments = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            arguments.add(columns.get(i) + (stages.get(i) == Tally.Stage.ADDS ? "::BIGINT" : ""));
        }
        String with = queries.isEmpty() ? "" : "WITH " + String.join(",\n", queries) + "\n";
        // Also without anything to ask, rows are counted.
        return with + "SELECT " + shown + " FROM " + from + " WHERE " + told + "(" + String.join(", ", arguments) + ")";
    }

    /// How many rows go on after a line.
    public long rows(int line) {
        long rows = tally.rows();
        for (Step step : steps) {
            Integer keeps = places.get(step.number() + " ");
            rows = keeps == null || step.number() > line ? rows : tally.sum(keeps);
        }
        return rows;
    }

    public long changed(int line) {
        return sum(places.get(line + " k"));
    }

    public long lost(int line) {
        return sum(places.get(line + " l"));
    }

    /// How many rows a report has.
    public long shown(int line, String report) {
        KeyTally keys = met.get(line);
        return keys != null ? keys.rows(report) : sum(places.get(line + " " + report));
    }

    /// Whether a report has more rows than were counted.
    public boolean mayBeMore(int line, String report) {
        KeyTally keys = met.get(line);
        return keys != null && keys.mayBeMore(report);
    }

    private long sum(@Nullable Integer stage) {
        return stage == null ? 0 : tally.sum(stage);
    }
}
