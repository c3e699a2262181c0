package fixshelf.operations;

import fixshelf.language.Expr;
import fixshelf.plan.Given;
import fixshelf.plan.Operation.Report;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.table.Sorted;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What is told of the keys of two tables beside a line that matches them. The keys stand first.
final class MatchReports {
    private final Given given;
    private final Matching matching;
    private final Relation other;
    private final List<Relation.Pair> on;
    private final List<Field> left;
    private final List<Field> right;

    private MatchReports(Given given, Matching matching) {
        this.given = given;
        this.matching = matching;
        this.other = matching.right();
        this.on = matching.on();
        this.left = on.stream().map(Relation.Pair::left).toList();
        this.right = on.stream().map(Relation.Pair::right).toList();
    }

    static List<Report> of(Given given, Matching matching) {
        MatchReports reports = new MatchReports(given, matching);
        List<Report> all = new ArrayList<>();
        all.add(new Report("without_match", first(reports.without(), reports.left), "rows without a match"));
        all.add(new Report("unmatched_keys", reports.unmatchedKeys(), "different keys without a match"));
        reports.nearMisses().ifPresent(all::add);
        all.add(new Report("ambiguous", first(reports.ambiguous(), reports.left), "rows that match several"));
        all.add(new Report(
                "unused", first(reports.unused(), reports.right), "rows of the other table that match none"));
        return all;
    }

    /// The table with some fields first.
    private static Relation first(Relation relation, List<Field> fields) {
        List<Field> all = new ArrayList<>(fields);
        relation.shape().fields().stream()
                .filter(f -> fields.stream().noneMatch(k -> k.id() == f.id()))
                .forEach(all::add);
        return new Relation.Pick(relation, new Shape(all));
    }

    private Relation without() {
        return new Relation.Join(matching.left(), other, on, Relation.Meeting.WITHOUT, List.of());
    }

    private Relation unmatchedKeys() {
        Field rows = given.helper("rows", Type.INTEGER);
        Relation grouped =
                new Relation.Group(without(), left, List.of(new Grouped(rows, Aggregate.ROWS, Optional.empty())));
        return new Relation.Sort(grouped, List.of(new Sorted(rows, true, false)));
    }

    private Relation ambiguous() {
        Field size = given.helper("matches", Type.INTEGER);
        Relation several = new Relation.Keep(
                new Relation.Group(other, right, List.of(new Grouped(size, Aggregate.ROWS, Optional.empty()))),
                Formula.call(">", size.value(), Expr.Literal.integer(1)));
        return new Relation.Join(matching.left(), several, on, Relation.Meeting.WITH, List.of());
    }

    private Relation unused() {
        return new Relation.Join(other, matching.left(), matching.turned(), Relation.Meeting.WITHOUT, List.of());
    }

    /// Unmatched keys that would be equal without white space, capitals, accents and marks; one join on the folded
    /// keys.
    private Optional<Report> nearMisses() {
        if (left.stream().noneMatch(f -> f.type().equals(Type.TEXT))) {
            return Optional.empty();
        }
        Field rows = given.helper("rows", Type.INTEGER);
        Relation here =
                new Relation.Group(without(), left, List.of(new Grouped(rows, Aggregate.ROWS, Optional.empty())));
        Relation there = new Relation.Group(other, right, List.of());
        List<Field> foldedHere = new ArrayList<>();
        List<Field> foldedThere = new ArrayList<>();
        List<Relation.Pair> pairs = new ArrayList<>();
        List<Relation.Taken> taken = new ArrayList<>();
        for (Relation.Pair pair : on) {
            boolean text = pair.left().type().equals(Type.TEXT);
            Field a = text ? given.helper(pair.left().name() + "_folded", Type.TEXT) : pair.left();
            Field b = text ? given.helper(pair.right().name() + "_folded_there", Type.TEXT) : pair.right();
            if (text) {
                foldedHere.add(a);
                foldedThere.add(b);
            }
            pairs.add(new Relation.Pair(a, b, false));
            taken.add(new Relation.Taken(
                    pair.right(),
                    given.helper(pair.right().name() + "_there", pair.right().type())));
        }
        Relation joined = new Relation.Join(
                folded(here, left, foldedHere),
                folded(there, right, foldedThere),
                pairs,
                Relation.Meeting.PAIRS,
                taken);
        List<Field> shown = new ArrayList<>(left);
        taken.forEach(t -> shown.add(t.made()));
        shown.add(rows);
        Relation sorted = new Relation.Sort(joined, List.of(new Sorted(rows, true, false)));
        return Optional.of(new Report(
                "near_misses", new Relation.Pick(sorted, new Shape(shown)), "keys that nearly match", false, true));
    }

    private static Relation folded(Relation from, List<Field> keys, List<Field> folded) {
        List<Computed> cells = new ArrayList<>();
        for (Field key : keys) {
            if (key.type().equals(Type.TEXT)) {
                Expr plain = Formula.call("strip_accents", Formula.call("lower", key.value()));
                cells.add(new Computed(
                        folded.get(cells.size()),
                        Formula.call(
                                "regexp_replace", plain, Expr.Literal.text("[^\\p{L}0-9]+"), Expr.Literal.text(""))));
            }
        }
        return new Relation.Compute(from, cells);
    }
}
