package fixshelf.operations;

import fixshelf.language.Expr;
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
            ValueKinds.choice("none", "all", "known", "both"),
            "none",
            "Whether per cent stand beside: of all rows, of those without a missing key, or both.");
    static final Blank<Long> PLACES =
            Blank.usually("places", ValueKinds.whole(0, 6), "1", "How many digits after the point per cent have.");

    CountBy() {
        super(
                "count_by",
                "Count rows by {keys} in {into}",
                new Meaning(
                        "How many rows have each value: frequencies, tally, distinct values.",
                        "Is a group of its own, and has no share of what is known.",
                        "Is a group of its own.",
                        "The most frequent first.",
                        "Groups of the same size stand in the order of their first rows.",
                        "Gives a whole number. Per cent are decimals, rounded half away from zero.",
                        "The new names must differ from the keys; per cent are in share and share_of_known.",
                        "",
                        "SQLite has no exact decimals: it cannot say shares."),
                List.of(KEYS, INTO, SHARE, PLACES),
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
                                Table.of("a | rows integer", "NULL | 2", "'x' | 1", "'y' | 1"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> keys = given.get(KEYS);
        Field rows = given.field(given.get(INTO), Type.INTEGER);
        String share = given.get(SHARE);
        Set<String> names = new HashSet<>();
        List<String> made = new ArrayList<>(List.of(given.get(INTO)));
        made.addAll(share.equals("none") ? List.of() : List.of("share", "share_of_known"));
        keys.forEach(k -> names.add(k.name().toLowerCase(Locale.ROOT)));
        Optional<String> twice = made.stream()
                .filter(n -> !names.add(n.toLowerCase(Locale.ROOT)))
                .findFirst();
        if (twice.isPresent()) {
            return Given.refused(
                    Code.NAME_CLASH, twice.get() + " would be there twice.", "Rename the key before, or name another.");
        }
        Relation counted =
                new Relation.Group(given.before(), keys, List.of(new Grouped(rows, Aggregate.ROWS, Optional.empty())));
        Relation sorted = new Relation.Sort(counted, List.of(new Sorted(rows, true, false)));
        return new Resolution.Done(share.equals("none") ? sorted : shares(given, sorted, keys, rows, share));
    }

    private static Relation shares(Given given, Relation counted, List<Field> keys, Field rows, String share) {
        Field total = given.helper("all_rows", Type.INTEGER);
        Field known = given.helper("known_rows", Type.INTEGER);
        Field of = given.helper("rows_if_known", Type.INTEGER);
        Expr isKnown =
                Formula.all(keys.stream().map(k -> Formula.isKnown(k.value())).toList());
        Relation marked = new Relation.Compute(
                counted, List.of(new Computed(of, Formula.when(isKnown, rows.value(), Formula.missing(Type.INTEGER)))));
        Relation summed = new Relation.Window(
                marked,
                List.of(
                        new Windowed(total, Windowed.Kind.OF_ALL, Aggregate.SUM, Optional.of(rows), 0),
                        new Windowed(known, Windowed.Kind.OF_ALL, Aggregate.SUM, Optional.of(of), 0)),
                List.of(),
                List.of(),
                false);
        List<Computed> cells = new ArrayList<>();
        if (!share.equals("known")) {
            cells.add(percent(given, "share", rows, total));
        }
        if (!share.equals("all")) {
            cells.add(percent(given, "share_of_known", of, known));
        }
        return Given.without(new Relation.Compute(summed, cells), List.of(total, known, of));
    }

    private static Computed percent(Given given, String name, Field part, Field whole) {
        Expr hundredfold = Formula.call("*", part.value(), Expr.Literal.integer(100));
        Expr value = Formula.call("divide", hundredfold, whole.value(), Expr.Literal.integer(given.get(PLACES)));
        return new Computed(given.field(name, value.type()), value);
    }
}
