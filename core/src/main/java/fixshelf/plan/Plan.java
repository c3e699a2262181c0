package fixshelf.plan;

import fixshelf.table.Relation;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/// The steps of a job, one for each line, the first of them reads.
///
/// @param resultLine the line, from 1, whose table is the result
public record Plan(List<Step> steps, int resultLine) {
    public Plan {
        steps = List.copyOf(steps);
    }

    /// A plan whose result is the table of its last line.
    public Plan(List<Step> steps) {
        this(steps, steps.size());
    }

    public Step last() {
        return steps.getLast();
    }

    /// The step whose table is the result.
    public Step result() {
        return steps.get(resultLine - 1);
    }

    public Plan withResult(int line) {
        return new Plan(steps, line);
    }

    /// The line whose result a line works on: the one above it, or the one that it goes on from.
    public Step before(int line) {
        Relation first = steps.get(line - 1).after();
        while (!first.inputs().isEmpty()) {
            first = first.inputs().getFirst();
        }
        return first instanceof Relation.Result(int number, var _) ? steps.get(number - 1) : steps.get(line - 2);
    }

    /// The lines on whose results others work than the one below them.
    public Set<Integer> named() {
        Set<Integer> named = new TreeSet<>();
        for (Step step : steps) {
            step.relations()
                    .flatMap(r -> r.parts().stream())
                    .filter(r -> r instanceof Relation.Result result && result.line() != step.number() - 1)
                    .forEach(r -> named.add(((Relation.Result) r).line()));
        }
        return named;
    }

    /// The lines that the result goes back to, from the first to the last.
    public List<Integer> path() {
        List<Integer> path = new ArrayList<>();
        for (int line = resultLine; line > 1; line = before(line).number()) {
            path.addFirst(line);
        }
        path.addFirst(1);
        return path;
    }

    public List<Column> columns() {
        return last().columns();
    }

    /// The table that is read.
    public Relation.Source read() {
        Relation first = steps.getFirst().after();
        while (!first.inputs().isEmpty()) {
            first = first.inputs().getFirst();
        }
        return (Relation.Source) first;
    }

    /// Whether the first line reads another job, whose lines are then part of it.
    public boolean readsJob() {
        return !(steps.getFirst().after() instanceof Relation.Source);
    }

    /// Whether what the first line gives are the rows of the table that is read, with nothing but other cells: where
    /// its columns get types.
    public boolean readsRows() {
        Relation first = steps.getFirst().after();
        return first instanceof Relation.Source
                || first instanceof Relation.Compute typed && typed.from() instanceof Relation.Source;
    }

    /// Whether it reads another job, or a dataset whose columns get types, that gives the rows of its table.
    public boolean readsTyped() {
        return readsJob() && readsRows();
    }

    /// Whether its columns get the types that the source declares, all of them and no others.
    public boolean readsDeclared() {
        return readsTyped()
                && ((Relation.Compute) steps.getFirst().after())
                        .cells().stream()
                                .allMatch(c -> c.made().type().equals(c.made().declared()))
                && read().shape().fields().stream()
                        .allMatch(f -> f.declared().equals(Type.TEXT)
                                || steps.getFirst()
                                        .after()
                                        .shape()
                                        .find(f.id())
                                        .filter(now -> now.type().equals(f.declared()))
                                        .isPresent());
    }

    /// The columns of the table that is read.
    public List<Column> source() {
        return read().shape().columns();
    }

    /// The other tables that lines bring in.
    public List<Relation.Source> others() {
        Relation.Source read = read();
        return steps.stream()
                .flatMap(s -> s.sources().stream())
                .filter(s -> s != read)
                .distinct()
                .toList();
    }
}
