package fixshelf.plan;

import fixshelf.language.tree.Expr;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Column;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;

/// A resolved line: the table afterwards, as worked out of the result of the line before.
///
/// @param number of the line, from 1
/// @param watch gives figures of its table, and of those after it, where they can be worked out
public record Step(
        int number,
        Line line,
        Relation after,
        List<Operation.Report> reports,
        Optional<Operation.Guard> guard,
        Optional<Function<Relation, Optional<Watching.Watched>>> watch) {
    public Step(int number, Line line, Relation after, List<Operation.Report> reports) {
        this(number, line, after, reports, Optional.empty(), Optional.empty());
    }

    public Step {
        reports = List.copyOf(reports);
    }

    public List<Column> columns() {
        return after.shape().columns();
    }

    public List<Field> fields() {
        return after.shape().fields();
    }

    /// Whether it changes nothing.
    public boolean isIdle() {
        return after instanceof Relation.Result;
    }

    /// What it leaves out as repeats, where it does only that with the table before it.
    public Optional<Relation.FirstOf> dropped() {
        return after instanceof Relation.FirstOf first && first.from() instanceof Relation.Result
                ? Optional.of(first)
                : Optional.empty();
    }

    /// Whether its table is that of a line above, but not the one right above it.
    public boolean goesOn() {
        return after instanceof Relation.Result(int line, var _) && line != number - 1;
    }

    /// Whether it begins with other rows than those before it, as [Given#begun] says.
    public boolean begins() {
        return after instanceof Relation.Pick whole
                && whole.from() instanceof Relation.Union(List<Relation> tables)
                && tables.getFirst() instanceof Relation.Pick none
                && none.from() instanceof Relation.Compute columns
                && columns.from() instanceof Relation.Keep keep
                && keep.condition().equals(Expr.Literal.truth(false));
    }

    /// The result that it can be named by in later lines.
    public Relation.Result result() {
        return new Relation.Result(number, after.shape());
    }

    /// The fields of the table before that it gives other values, in the order in which they come out.
    public List<Field> replaced() {
        List<Relation> parts = after.rowsFrom();
        Shape begun = parts.getLast().shape();
        return fields().stream()
                .filter(f -> begun.has(f)
                        && parts.stream().anyMatch(p -> p instanceof Relation.Compute compute && replaces(compute, f)))
                .toList();
    }

    private static boolean replaces(Relation.Compute compute, Field field) {
        return compute.from().shape().has(field)
                && compute.cells().stream().anyMatch(c -> c.made().id() == field.id());
    }

    /// The table afterwards, and what is told beside it.
    Stream<Relation> relations() {
        return Stream.of(
                        Stream.of(after),
                        reports.stream().map(Operation.Report::relation),
                        guard.stream().map(Operation.Guard::rows))
                .flatMap(s -> s);
    }

    /// Cells out of its first tables that more than one of its reports looks at.
    public List<Relation> cellsOfSeveralReports() {
        Map<Relation, Integer> uses = new IdentityHashMap<>();
        reports.stream()
                .flatMap(r -> r.relation().parts().stream())
                .filter(p -> p instanceof Relation.Compute compute
                        && compute.from().inputs().isEmpty())
                .forEach(p -> uses.merge(p, 1, Integer::sum));
        return uses.entrySet().stream()
                .filter(e -> e.getValue() > 1)
                .map(Map.Entry::getKey)
                .toList();
    }

    /// The other tables that it needs.
    public List<Relation.Source> sources() {
        return relations()
                .flatMap(r -> r.parts().stream())
                .filter(Relation.Source.class::isInstance)
                .map(Relation.Source.class::cast)
                .distinct()
                .toList();
    }

    /// What it does with rows.
    public Lineage.Rows rows() {
        return Lineage.rows(after);
    }
}
