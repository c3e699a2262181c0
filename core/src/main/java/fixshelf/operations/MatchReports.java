package fixshelf.operations;

import fixshelf.language.tree.Expr;
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
    /// How many rows have a key, in each report that says so.
    private final Field rows;

    private MatchReports(Given given, Matching matching) {
        this.given = given;
        this.matching = matching;
        this.other = matching.right();
        this.on = matching.on();
        this.left = on.stream().map(Relation.Pair::left).toList();
        this.right = on.stream().map(Relation.Pair::right).toList();
        this.rows = given.helper("rows", Type.INTEGER);
    }

    static List<Report> of(Given given, Matching matching) {
        return of(given, matching, false);
    }

    /// @param stops whether a run stops where a row matches several
    static List<Report> of(Given given, Matching matching, boolean stops) {
        MatchReports reports = new MatchReports(given, matching);
        List<Report> all = new ArrayList<>();
        all.add(new Report(Report.WITHOUT_MATCH, first(reports.without(), reports.left), "rows without a match"));
        all.add(new Report(Report.UNMATCHED_KEYS, reports.unmatchedKeys(), "different keys without a match"));
        reports.nearMisses().ifPresent(all::add);
        all.add(new Report(
                Report.AMBIGUOUS, first(reports.ambiguous(), reports.left), "rows that match several", stops));
        all.add(new Report(
                Report.UNUSED, first(reports.unused(), reports.right), "rows of the other table that match none"));
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

    /// What is left out of a key, one after another, until two are equal.
    private enum Fold {
        WHITE_SPACE("white space"),
        CAPITALS("capitals"),
        ACCENTS("accents"),
        MARKS("marks"),
        LEADING_ZEROS("leading zeros");

        private final String words;

        Fold(String words) {
            this.words = words;
        }

        /// A key that was folded so far, folded further.
        Expr of(Expr key) {
            return switch (this) {
                case WHITE_SPACE -> replaced(key, "[\\s\\p{Z}\u200B\uFEFF]+", "");
                case CAPITALS -> Formula.call("lower", key);
                case ACCENTS -> Formula.call("strip_accents", key);
                case MARKS -> replaced(key, "[^\\p{L}\\p{N}]+", "");
                case LEADING_ZEROS -> replaced(key, "(^|[^0-9])0+([0-9])", "\\1\\2");
            };
        }

        private static Expr replaced(Expr key, String pattern, String by) {
            return Formula.call("regexp_replace", key, Expr.Literal.text(pattern), Expr.Literal.text(by));
        }
    }

    /// Unmatched keys that are equal without white space, capitals, accents, marks or leading zeros: one join on the
    /// keys that are folded to the end, and the first fold after which they are equal.
    private Optional<Report> nearMisses() {
        if (left.stream().noneMatch(f -> f.type().equals(Type.TEXT))) {
            return Optional.empty();
        }
        Relation here =
                new Relation.Group(without(), left, List.of(new Grouped(rows, Aggregate.ROWS, Optional.empty())));
        Relation there = new Relation.Group(other, right, List.of());
        Folded mine = folded(here, left);
        Folded theirs = folded(there, right);
        List<Relation.Pair> pairs = new ArrayList<>();
        List<Relation.Taken> taken = new ArrayList<>();
        List<List<Expr>> equal = new ArrayList<>();
        for (Fold _ : Fold.values()) {
            equal.add(new ArrayList<>());
        }
        List<Field> shown = new ArrayList<>(left);
        for (int key = 0; key < on.size(); key++) {
            Field a = left.get(key);
            Field b = right.get(key);
            Field shownThere = given.helper(b.name() + "_there", b.type());
            taken.add(new Relation.Taken(b, shownThere));
            shown.add(shownThere);
            List<Field> foldsHere = mine.folds().get(key);
            List<Field> foldsThere = theirs.folds().get(key);
            pairs.add(new Relation.Pair(
                    foldsHere.isEmpty() ? a : foldsHere.getLast(),
                    foldsThere.isEmpty() ? b : foldsThere.getLast(),
                    false));
            for (int fold = 0; fold < foldsHere.size(); fold++) {
                Field folded = given.helper("folded_there", Type.TEXT);
                taken.add(new Relation.Taken(foldsThere.get(fold), folded));
                equal.get(fold).add(Formula.call("=", foldsHere.get(fold).value(), folded.value()));
            }
        }
        Relation joined = new Relation.Join(mine.table(), theirs.table(), pairs, Relation.Meeting.PAIRS, taken);
        List<Expr.Branch> branches = new ArrayList<>();
        for (Fold fold : Fold.values()) {
            branches.add(new Expr.Branch(Formula.all(equal.get(fold.ordinal())), Expr.Literal.text(fold.words)));
        }
        Field why = given.helper("differ_in", Type.TEXT);
        Expr first = new Expr.Case(branches, Formula.missing(Type.TEXT), Type.TEXT);
        Relation told = new Relation.Compute(
                joined,
                List.of(new Computed(
                        why, Formula.call("coalesce", needed(left, shown.subList(left.size(), shown.size())), first))));
        shown.add(why);
        shown.add(rows);
        Relation all = new Relation.Pick(told, new Shape(shown));
        if (on.size() == 1) {
            all = withSmallChanges(all, mine, theirs);
        }
        Relation sorted = new Relation.Sort(all, List.of(new Sorted(rows, true, false)));
        return Optional.of(new Report("near_misses", sorted, "keys that nearly match", false, true));
    }

    /// All that keys differ in: the folds without which they would not be equal after all others. There may be none,
    /// where each of two folds takes away the same.
    private static Expr needed(List<Field> here, List<Field> there) {
        List<Expr> words = new ArrayList<>(List.of(Expr.Literal.text(", ")));
        for (Fold fold : Fold.values()) {
            List<Expr> differ = new ArrayList<>();
            for (int key = 0; key < here.size(); key++) {
                if (here.get(key).type().equals(Type.TEXT)) {
                    differ.add(Formula.call(
                            "<>",
                            foldedBut(fold, here.get(key).value()),
                            foldedBut(fold, there.get(key).value())));
                }
            }
            words.add(Formula.when(Formula.any(differ), Expr.Literal.text(fold.words), Formula.missing(Type.TEXT)));
        }
        return Formula.call("concat_ws", words.toArray(Expr[]::new));
    }

    private static Expr foldedBut(Fold left, Expr key) {
        Expr folded = key;
        for (Fold fold : Fold.values()) {
            // White space is no letter either; where it is asked for, only other marks go.
            boolean keepsBlanks = left == Fold.WHITE_SPACE && fold == Fold.MARKS;
            folded = keepsBlanks
                    ? Fold.replaced(folded, "[^\\p{L}\\p{N}\\s\\p{Z}\u200B\uFEFF]+", "")
                    : fold == left ? folded : fold.of(folded);
        }
        return folded;
    }

    /// The same, with the keys that differ by a letter, or by having the initial of a word.
    private Relation withSmallChanges(Relation found, Folded mine, Folded theirs) {
        SmallChanges small = new SmallChanges(given);
        Field key = left.getFirst();
        SmallChanges.Side there = new SmallChanges.Side(
                theirs.table(), right.getFirst(), theirs.folds().getFirst().getLast(), List.of());
        Relation rest = new Relation.Join(
                mine.table(),
                new Relation.Group(found, List.of(key), List.of()),
                List.of(new Relation.Pair(key, key, false)),
                Relation.Meeting.WITHOUT,
                List.of());
        SmallChanges.Side here =
                new SmallChanges.Side(rest, key, mine.folds().getFirst().getLast(), List.of(rows));
        List<Relation> all = new ArrayList<>(List.of(found));
        for (SmallChanges.Close close : List.of(small.pairs(here, there), small.initials(here, there))) {
            all.add(new Relation.Pick(
                    close.table(), new Shape(List.of(close.here(), close.there(), close.why(), rows))));
        }
        return new Relation.Union(all);
    }

    /// A table with its keys after each fold; none for keys that are no texts.
    private record Folded(Relation table, List<List<Field>> folds) {}

    private Folded folded(Relation from, List<Field> keys) {
        Relation table = from;
        List<List<Field>> folds = new ArrayList<>();
        keys.forEach(_ -> folds.add(new ArrayList<>()));
        for (Fold fold : Fold.values()) {
            List<Computed> cells = new ArrayList<>();
            for (int key = 0; key < keys.size(); key++) {
                List<Field> before = folds.get(key);
                if (keys.get(key).type().equals(Type.TEXT)) {
                    Expr value = before.isEmpty()
                            ? keys.get(key).value()
                            : before.getLast().value();
                    Field made = given.helper("folded", Type.TEXT);
                    cells.add(new Computed(made, fold.of(value)));
                    before.add(made);
                }
            }
            table = new Relation.Compute(table, cells);
        }
        return new Folded(table, folds);
    }
}
