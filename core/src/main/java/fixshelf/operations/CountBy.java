package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
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
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/// How often each value comes.
final class CountBy extends BuiltIn {
    static final Blank<List<Field>> KEYS =
            Blank.needed("keys", ColumnKinds.COLUMNS, "The columns whose values are counted.");
    static final Blank<String> INTO = Blank.usually("into", ColumnKinds.NEW_NAME, "rows", "The new column.");

    static final Blank<String> SHARE = Blank.usually(
            "share",
            ValueKinds.choice("none", "all", "known", "both", "within_first", "within_last"),
            "none",
            "Whether per cent stand beside: of all rows, of those without a missing key, of both; or of the rows with the same first, or the same last, key.");
    static final Blank<Long> PLACES =
            Blank.usually("places", ValueKinds.whole(0, 6), "1", "How many digits after the point per cent have.");
    static final Blank<String> COMBINATIONS = Blank.usually(
            "combinations",
            ValueKinds.choice("there", "every"),
            "there",
            "Whether values of several keys that never come together stand there with 0.");

    CountBy() {
        super(
                "count_by",
                "Count rows by {keys} in {into}",
                new Meaning(
                        "How many rows have each value: frequencies, tally, distinct values.",
                        "Is a group of its own, and has no share of what is known. A row of totals is missing in the keys that it is over.",
                        "Is a group of its own.",
                        "The most frequent first; with every combination, by the first rows of the first key, then of the next. Rows of totals come last.",
                        "Groups of the same size stand in the order of their first rows.",
                        "Gives a whole number. Per cent are decimals, rounded half away from zero.",
                        "The new names must differ from the keys; per cent are in share and share_of_known, and total_over is there where totals are asked for.",
                        "",
                        "SQLite has no exact decimals: it cannot say shares."),
                List.of(KEYS, INTO, SHARE, PLACES, COMBINATIONS, GroupRows.TOTALS, GroupRows.TOTALS_IN),
                List.of(
                        new TableExample(
                                "Per cent",
                                Table.of("a", "'x'", "'x'", "'y'", "NULL"),
                                "count_by: [a]\nshare: both",
                                Table.of(
                                        "a | rows integer | share decimal(18,1) | share_of_known decimal(18,1)",
                                        "'x' | 2 | 50.0 | 66.7",
                                        "'y' | 1 | 25.0 | 33.3",
                                        "NULL | 1 | 25.0 | NULL")),
                        new TableExample(
                                "Missing is counted",
                                Table.of("a", "'x'", "NULL", "'y'", "NULL"),
                                "count_by: [a]",
                                Table.of("a | rows integer", "NULL | 2", "'x' | 1", "'y' | 1")),
                        new TableExample(
                                "Every combination, with totals",
                                Table.of("a | b", "'x' | 'p'", "'y' | 'q'", "'x' | NULL", "'x' | 'p'"),
                                "count_by: [a, b]\ncombinations: every\nshare: within_first\ntotals: each",
                                Table.of(
                                        "a | b | rows integer | share decimal(18,1) | total_over integer",
                                        "'x' | 'p' | 2 | 66.7 | 0",
                                        "'x' | 'q' | 0 | 0.0 | 0",
                                        "'x' | NULL | 1 | 33.3 | 0",
                                        "'y' | 'p' | 0 | 0.0 | 0",
                                        "'y' | 'q' | 1 | 100.0 | 0",
                                        "'y' | NULL | 0 | 0.0 | 0",
                                        "'x' | NULL | 3 | 100.0 | 1",
                                        "'y' | NULL | 1 | 100.0 | 1",
                                        "NULL | NULL | 4 | NULL | 2"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> keys = given.get(KEYS);
        String share = given.get(SHARE);
        boolean totals = !given.get(GroupRows.TOTALS).equals("none");
        Set<String> names = new HashSet<>();
        List<String> made = new ArrayList<>(List.of(given.get(INTO)));
        made.addAll(share.equals("none") ? List.of() : List.of("share", "share_of_known"));
        made.addAll(totals ? List.of(given.get(GroupRows.TOTALS_IN)) : List.of());
        keys.forEach(k -> names.add(k.name().toLowerCase(Locale.ROOT)));
        Optional<String> twice = made.stream()
                .filter(n -> !names.add(n.toLowerCase(Locale.ROOT)))
                .findFirst();
        if (twice.isPresent()) {
            return Given.refused(
                    Code.NAME_CLASH, twice.get() + " would be there twice.", "Rename the key before, or name another.");
        }
        boolean every = given.get(COMBINATIONS).equals("every") && keys.size() > 1;
        Field rows = given.field(given.get(INTO), Type.INTEGER);
        Relation counted = every
                ? combinations(given, keys, rows)
                : new Relation.Sort(
                        new Relation.Group(
                                given.before(), keys, List.of(new Grouped(rows, Aggregate.ROWS, Optional.empty()))),
                        List.of(new Sorted(rows, true, false)));
        return new Resolution.Done(new Counts(given, keys, rows).finished(counted, share, totals));
    }

    /// A row for each combination of values, with how many rows have it.
    private static Relation combinations(Given given, List<Field> keys, Field rows) {
        Relation all = values(given, keys.getFirst(), "");
        List<Field> values = new ArrayList<>(List.of(all.shape().fields().getFirst()));
        for (Field key : keys.subList(1, keys.size())) {
            Relation next = values(given, key, "_beside");
            Field taken = given.field(key.name(), key.type());
            all = new Relation.Join(
                    all,
                    next,
                    List.of(new Relation.Pair(
                            all.shape().fields().get(1), next.shape().fields().get(1), false)),
                    Relation.Meeting.PAIRS,
                    List.of(new Relation.Taken(next.shape().fields().getFirst(), taken)));
            values.add(taken);
        }
        List<Computed> copies = keys.stream()
                .map(k -> new Computed(given.helper(k.name() + "_counted", k.type()), k.value()))
                .toList();
        List<Field> copied = copies.stream().map(Computed::made).toList();
        Field there = given.helper("rows_there", Type.INTEGER);
        Field taken = given.helper("rows_taken", Type.INTEGER);
        Relation counts = new Relation.Group(
                new Relation.Compute(given.before(), copies),
                copied,
                List.of(new Grouped(there, Aggregate.ROWS, Optional.empty())));
        List<Relation.Pair> pairs = new ArrayList<>();
        for (int i = 0; i < values.size(); i++) {
            pairs.add(new Relation.Pair(values.get(i), copied.get(i), true));
        }
        Relation joined = new Relation.Join(
                all, counts, pairs, Relation.Meeting.ALL_LEFT, List.of(new Relation.Taken(there, taken)));
        List<Field> shown = new ArrayList<>(values);
        shown.set(0, values.getFirst().named(keys.getFirst().name()));
        shown.add(rows);
        Expr known = Formula.call("coalesce", taken.value(), Expr.Literal.integer(0));
        return new Relation.Pick(new Relation.Compute(joined, List.of(new Computed(rows, known))), new Shape(shown));
    }

    /// The values of a key in the order of their first rows, and a 1 beside each.
    private static Relation values(Given given, Field key, String end) {
        Field value = given.helper(key.name() + "_value", key.type());
        Field one = given.helper("one" + end, Type.INTEGER);
        Relation named = new Relation.Compute(given.before(), List.of(new Computed(value, key.value())));
        return new Relation.Compute(
                new Relation.Group(named, List.of(value), List.of()),
                List.of(new Computed(one, Expr.Literal.integer(1))));
    }

    /// Per cent and totals of counted rows.
    private record Counts(Given given, List<Field> keys, Field rows) {
        Relation finished(Relation counted, String share, boolean totals) {
            List<Field> theirs = counted.shape().fields().subList(0, keys.size());
            if (share.equals("none") && !totals) {
                return counted;
            }
            Field of = given.helper("rows_if_known", Type.INTEGER);
            Field whole = given.helper("all_rows", Type.INTEGER);
            Field known = given.helper("known_rows", Type.INTEGER);
            Expr isKnown = Formula.all(
                    theirs.stream().map(k -> Formula.isKnown(k.value())).toList());
            Relation marked = new Relation.Compute(
                    counted,
                    List.of(new Computed(of, Formula.when(isKnown, rows.value(), Formula.missing(Type.INTEGER)))));
            List<Field> within =
                    switch (share) {
                        case "within_first" -> theirs.subList(0, 1);
                        case "within_last" -> theirs.subList(theirs.size() - 1, theirs.size());
                        default -> List.of();
                    };
            Relation summed = new Relation.Window(
                    new Relation.Window(marked, List.of(sum(known, of)), List.of(), List.of(), false),
                    List.of(sum(whole, rows)),
                    within,
                    List.of(),
                    false);
            Relation levels = totals ? levels(summed, theirs, of, whole, known, share) : summed;
            List<Computed> cells = new ArrayList<>();
            List<Field> shown = new ArrayList<>(levels.shape().fields().subList(0, keys.size() + 1));
            List<Field> all = levels.shape().fields();
            if (!List.of("none", "known").contains(share)) {
                cells.add(percent(given, "share", rows, whole));
            }
            if (List.of("known", "both").contains(share)) {
                cells.add(percent(given, "share_of_known", of, known));
            }
            cells.forEach(c -> shown.add(c.made()));
            shown.addAll(totals ? all.subList(all.size() - 1, all.size()) : List.of());
            return new Relation.Pick(cells.isEmpty() ? levels : new Relation.Compute(levels, cells), new Shape(shown));
        }

        private static Windowed sum(Field made, Field of) {
            return new Windowed(made, Windowed.Kind.OF_ALL, Aggregate.SUM, Optional.of(of), 0);
        }

        /// The counted rows, and those of totals under them, all with what per cent are worked out of.
        private Relation levels(
                Relation counted, List<Field> theirs, Field of, Field whole, Field known, String share) {
            List<Field> plain = new ArrayList<>(theirs);
            plain.addAll(List.of(rows, of, whole, known));
            Field level = given.field(given.get(GroupRows.TOTALS_IN), Type.INTEGER);
            plain.add(level);
            Relation first = new Relation.Compute(counted, List.of(new Computed(level, Expr.Literal.integer(0))));
            List<Relation> levels = new ArrayList<>(List.of(new Relation.Pick(first, new Shape(plain))));
            boolean each = given.get(GroupRows.TOTALS).equals("each");
            for (int kept = each ? theirs.size() - 1 : 0; kept >= 0; kept--) {
                boolean based = share.equals("within_first") && kept > 0 || !share.startsWith("within");
                Field base = based ? whole : given.helper("no_base", Type.INTEGER);
                Relation from = based
                        ? counted
                        : new Relation.Compute(counted, List.of(new Computed(base, Formula.missing(Type.INTEGER))));
                Relation groups = new Relation.Group(
                        from,
                        theirs.subList(0, kept),
                        List.of(
                                total(Aggregate.SUM, rows),
                                total(Aggregate.SUM, of),
                                total(Aggregate.GREATEST, base),
                                total(Aggregate.GREATEST, known)));
                levels.add(Measures.over(given, groups, theirs, kept, level));
            }
            return new Relation.Union(levels);
        }

        private Grouped total(Aggregate aggregate, Field of) {
            return new Grouped(given.helper("total_" + of.name(), Type.INTEGER), aggregate, Optional.of(of));
        }
    }

    private static Computed percent(Given given, String name, Field part, Field whole) {
        Expr hundredfold = Formula.call("*", part.value(), Expr.Literal.integer(100));
        Expr value = Formula.call("divide", hundredfold, whole.value(), Expr.Literal.integer(given.get(PLACES)));
        return new Computed(given.field(name, value.type()), value);
    }
}
