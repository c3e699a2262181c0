package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.ExpressionKinds.Measure;
import fixshelf.plan.Given;
import fixshelf.plan.Operation.Resolution;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.table.Sorted;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/// Measures as relations: what they look at is worked out first, and means afterwards.
final class Measures {
    private final Given given;
    private final Relation table;
    private final List<Computed> before = new ArrayList<>();
    private final List<Part> parts = new ArrayList<>();
    private final List<Computed> after = new ArrayList<>();
    private final List<Field> shown = new ArrayList<>();

    /// An aggregate of a field.
    private record Part(Field made, Aggregate aggregate, Optional<Field> of, String separator) {}

    private Measures(Given given, Relation table, Map<String, Measure> measures) {
        this.given = given;
        this.table = table;
        measures.forEach(this::add);
    }

    /// One row for each group.
    static Resolution grouped(Given given, List<Field> keys, Map<String, Measure> measures) {
        Optional<String> twice = measures.keySet().stream()
                .filter(n -> new Shape(keys).find(n).isPresent())
                .findFirst();
        if (twice.isPresent()) {
            return Given.refused(
                    Code.NAME_CLASH, twice.get() + " is a key and a measure.", "Give the measure another name.");
        }
        Measures all = new Measures(given, given.before(), measures);
        return new Resolution.Done(all.grouped(keys));
    }

    /// One row for a whole table. Expressions over the table here become those of the other by `names`.
    static Relation totals(
            Given given, Relation table, Map<String, Measure> measures, Function<Expr.Name, Expr> names) {
        Map<String, Measure> theirs = new LinkedHashMap<>();
        measures.forEach((name, m) -> theirs.put(
                name,
                new Measure(
                        m.aggregate(),
                        m.of().map(e -> Formula.renamed(e, names)),
                        m.mean(),
                        m.places(),
                        m.separator())));
        return new Measures(given, table, theirs).grouped(List.of());
    }

    /// One row for each group of a table that has what the measures look at; one row for all where there are no keys.
    static Relation within(Given given, Relation table, List<Field> keys, Map<String, Measure> measures) {
        return new Measures(given, table, measures).grouped(keys);
    }

    private Relation grouped(List<Field> keys) {
        Relation grouped = new Relation.Group(
                worked(),
                keys,
                parts.stream()
                        .map(p -> new Grouped(p.made(), p.aggregate(), p.of(), p.separator()))
                        .toList());
        List<Field> fields = new ArrayList<>(keys);
        fields.addAll(shown);
        return finished(grouped, fields);
    }

    /// The table with what is looked at.
    private Relation worked() {
        return before.isEmpty() ? table : new Relation.Compute(table, before);
    }

    /// Groups by the first `kept` keys in the columns of groups by all of them: the other keys are missing, and `level`
    /// says over how many keys they are.
    static Relation over(Given given, Relation groups, List<Field> keys, int kept, Field level) {
        List<Field> fields = groups.shape().fields();
        List<Computed> cells = new ArrayList<>();
        List<Field> shown = new ArrayList<>(fields.subList(0, kept));
        for (Field key : keys.subList(kept, keys.size())) {
            Field none = given.field(key.name(), key.type());
            cells.add(new Computed(none, Formula.missing(key.type())));
            shown.add(none);
        }
        Field over = given.field(level.name(), Type.INTEGER);
        cells.add(new Computed(over, Expr.Literal.integer(keys.size() - kept)));
        shown.addAll(fields.subList(kept, fields.size()));
        shown.add(over);
        return new Relation.Pick(new Relation.Compute(groups, cells), new Shape(shown));
    }

    /// Beside each row.
    static Resolution windowed(
            Given given, Map<String, Measure> measures, Windowed.Kind kind, List<Field> within, List<Sorted> by) {
        List<Problem> problems = new ArrayList<>();
        measures.keySet().forEach(n -> given.meets(n).ifPresent(problems::add));
        measures.forEach((name, measure) -> {
            if (measure.aggregate() == Aggregate.LISTED || measure.aggregate() == Aggregate.DISTINCT) {
                problems.add(Given.problem(
                        Code.ARGUMENTS,
                        name + ": " + (measure.aggregate() == Aggregate.LISTED ? "listagg" : "count(DISTINCT)")
                                + " is for whole groups.",
                        "Use it in group, and bring it in."));
            }
        });
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        Measures all = new Measures(given, given.before(), measures);
        Relation windowed = new Relation.Window(
                all.worked(),
                all.parts.stream()
                        .map(p -> new Windowed(p.made(), kind, p.aggregate(), p.of(), 0))
                        .toList(),
                within,
                by,
                false);
        List<Field> fields = new ArrayList<>(given.fields());
        fields.addAll(all.shown);
        return new Resolution.Done(all.finished(windowed, fields));
    }

    private Relation finished(Relation relation, List<Field> fields) {
        Relation computed = after.isEmpty() ? relation : new Relation.Compute(relation, after);
        return computed.shape().fields().equals(fields) ? computed : new Relation.Pick(computed, new Shape(fields));
    }

    private void add(String name, Measure measure) {
        Optional<Field> of = measure.of().map(this::field);
        if (!measure.mean()) {
            Field made = given.field(name, measure.type());
            shown.add(made);
            parts.add(new Part(made, measure.aggregate(), of, measure.separator()));
            return;
        }
        Field sum = given.helper(
                name + "_sum", Aggregate.SUM.result(of.orElseThrow().type()));
        Field count = given.helper(name + "_count", Type.INTEGER);
        parts.add(new Part(sum, Aggregate.SUM, of, ""));
        parts.add(new Part(count, Aggregate.COUNT, of, ""));
        Field made = given.field(name, measure.type());
        Expr places = Expr.Literal.integer(measure.places());
        after.add(new Computed(made, Formula.call("divide", sum.value(), count.value(), places)));
        shown.add(made);
    }

    /// The field that holds what is looked at.
    private Field field(Expr of) {
        Optional<Field> there = table.shape().fields().stream()
                .filter(f ->
                        of instanceof Expr.Name(String name, Type _) && f.key().equals(name))
                .findFirst();
        return there.orElseGet(() -> {
            Field made = given.helper("measured_" + (before.size() + 1), of.type());
            before.add(new Computed(made, of));
            return made;
        });
    }
}
