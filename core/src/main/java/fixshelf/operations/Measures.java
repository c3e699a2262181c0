package fixshelf.operations;

import fixshelf.language.Expr;
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
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Measures as relations: what they look at is worked out first, and means afterwards.
final class Measures {
    private final Given given;
    private final List<Computed> before = new ArrayList<>();
    private final List<Part> parts = new ArrayList<>();
    private final List<Computed> after = new ArrayList<>();
    private final List<Field> shown = new ArrayList<>();

    /// An aggregate of a field.
    private record Part(Field made, Aggregate aggregate, Optional<Field> of, String separator) {}

    private Measures(Given given, Map<String, Measure> measures) {
        this.given = given;
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
        Measures all = new Measures(given, measures);
        Relation grouped = new Relation.Group(
                given.computed(all.before),
                keys,
                all.parts.stream()
                        .map(p -> new Grouped(p.made(), p.aggregate(), p.of(), p.separator()))
                        .toList());
        List<Field> fields = new ArrayList<>(keys);
        fields.addAll(all.shown);
        return new Resolution.Done(all.finished(grouped, fields));
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
        Measures all = new Measures(given, measures);
        Relation windowed = new Relation.Window(
                given.computed(all.before),
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
        Optional<Field> there = given.fields().stream()
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
