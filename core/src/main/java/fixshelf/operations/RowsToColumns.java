package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.ExpressionKinds;
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
import fixshelf.table.Relation;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// A column for each of some values.
final class RowsToColumns extends BuiltIn {
    static final Blank<Field> NAME =
            Blank.needed("names_from", ColumnKinds.COLUMN, "The column whose values become columns; text.");
    static final Blank<List<String>> VALUES = Blank.optional(
                    "values",
                    ValueKinds.TEXTS,
                    "The values that become columns; all that are in the data, where none is named.")
            .leftOutAs("the values");
    private static final int MOST_COLUMNS = 200;

    static final Blank<List<Field>> KEYS = Blank.needed("keys", ColumnKinds.COLUMNS, "The columns that make a row.");
    static final Blank<Map<String, ExpressionKinds.Measure>> MEASURE = Blank.optional(
                    "measure", ExpressionKinds.MEASURES, "One measure, {value: sum(x)}.")
            .leftOutAs("the value itself");
    static final Blank<Field> VALUE = Blank.optional(
            "value",
            ColumnKinds.COLUMN,
            "Instead of a measure: the column whose values stand there, of which there is one for each key and name.");
    static final Blank<String> ABSENT = Blank.optional(
            "absent",
            ValueKinds.TEXT,
            "What stands where a key has no row of that name; missing, where nothing is said.");

    RowsToColumns() {
        super(
                "rows_to_columns",
                "Make a column for each of {values} of {names_from}, with {measure}, for each {keys}",
                new Meaning(
                        "Pivot: a row for each year or room becomes a column for each. Long to wide, cross table.",
                        "A combination that does not come is missing, or 0 for a count, or what `absent` says; a value that is missing stays missing.",
                        "An empty text can be named as a value.",
                        "Groups stand in the order of their first rows.",
                        "",
                        "That of the measure, or of the value.",
                        "The new columns are called like the values; names that meet are a problem.",
                        "others: the rows with a value that is not named. repeats: the rows that meet in one cell, where values stand there by themselves; a run stops where there are any.",
                        "The same in all."),
                List.of(NAME, VALUES, KEYS, MEASURE, VALUE, ABSENT),
                List.of(
                        new TableExample(
                                "Sums by room",
                                Table.of(
                                        "k | room | n integer",
                                        "'1' | 'a' | 2",
                                        "'1' | 'b' | 3",
                                        "'2' | 'a' | 5",
                                        "'1' | 'a' | 1"),
                                "rows_to_columns: room\nvalues: [a, b]\nkeys: [k]\nmeasure: {n: sum(n)}",
                                Table.of("k | a integer | b integer", "'1' | 3 | 3", "'2' | 5 | NULL")),
                        new TableExample(
                                "The values of the data",
                                Table.of("k | room", "'1' | 'b'", "'1' | 'a'", "'2' | 'b'"),
                                "rows_to_columns: room\nkeys: [k]\nmeasure: {n: count_rows()}",
                                Table.of("k | b integer | a integer", "'1' | 1 | 1", "'2' | 1 | 0")),
                        new TableExample(
                                "The values themselves, absent apart from missing",
                                Table.of("k | room | v", "'1' | 'a' | 'p'", "'1' | 'b' | NULL", "'2' | 'b' | 'q'"),
                                "rows_to_columns: room\nkeys: [k]\nvalue: v\nabsent: none",
                                Table.of("k | a | b", "'1' | 'p' | NULL", "'2' | 'none' | 'q'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Field name = given.get(NAME);
        if (!name.type().equals(Type.TEXT)) {
            return Given.refused(
                    Code.ARGUMENTS,
                    name.name() + " is " + name.type().label() + ", and names are texts.",
                    "Read it as text before.");
        }
        if (given.find(VALUE).filter(v -> !Aggregate.LEAST.takes(v.type())).isPresent()) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    given.find(VALUE).get().name() + " is "
                            + given.find(VALUE).get().type().label() + ", which cannot stand there.",
                    "Read it as text before.");
        }
        int measures = given.find(MEASURE).map(Map::size).orElse(0);
        if (measures + given.find(VALUE).stream().count() != 1) {
            return Given.refused(
                    Code.ARGUMENTS,
                    "One measure or one value stands in each cell.",
                    "Write `measure: {n: sum(x)}`, or `value: x` for the values of a column as they are.");
        }
        Optional<List<String>> values = given.find(VALUES);
        if (values.isPresent()) {
            return resolve(given, values.get());
        }
        Relation distinct = new Relation.Group(
                new Relation.Keep(given.before(), Formula.isKnown(name.value())), List.of(name), List.of());
        return new Resolution.Asks(distinct, seen -> {
            if (seen.isEmpty() || seen.size() > MOST_COLUMNS) {
                return Given.refused(
                        Code.ARGUMENTS,
                        name.name() + " has " + seen.size() + " values; 1 to " + MOST_COLUMNS + " become columns.",
                        "Name the values that are wanted.");
            }
            return resolve(
                    given, seen.stream().map(r -> String.valueOf(r.getFirst())).toList());
        });
    }

    private static Resolution resolve(Given given, List<String> values) {
        Field name = given.get(NAME);
        ExpressionKinds.Measure measure = given.find(MEASURE)
                .map(m -> m.values().iterator().next())
                .orElseGet(() -> new ExpressionKinds.Measure(
                        Aggregate.LEAST, given.find(VALUE).map(Field::value), false, 0, ""));
        Map<String, ExpressionKinds.Measure> measures = new LinkedHashMap<>();
        List<Expr> named = new ArrayList<>();
        for (String value : values) {
            Expr isIt = Formula.call("=", name.value(), Expr.Literal.text(value));
            Expr of = measure.of().orElse(Expr.Literal.integer(1));
            Aggregate aggregate = measure.aggregate() == Aggregate.ROWS ? Aggregate.COUNT : measure.aggregate();
            named.add(isIt);
            measures.put(
                    value,
                    new ExpressionKinds.Measure(
                            aggregate,
                            Optional.of(Formula.when(isIt, of, Formula.missing(of.type()))),
                            measure.mean(),
                            measure.places(),
                            measure.separator()));
        }
        Optional<Expr> absent = given.find(ABSENT).flatMap(text -> given.constant(text, measure.type()));
        if (given.find(ABSENT).isPresent() && absent.isEmpty()) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    given.find(ABSENT).get() + " is no " + measure.type().label()
                            + ", as the others in these columns are.",
                    "Write one, or leave `absent` out.");
        }
        Map<String, String> counts = new LinkedHashMap<>();
        Set<String> taken = new HashSet<>(values);
        given.fields().forEach(f -> taken.add(f.name()));
        values.forEach(value -> {
            String count = "rows_" + (counts.size() + 1);
            while (!taken.add(count)) {
                count += "_";
            }
            counts.put(value, count);
        });
        absent.ifPresent(_ -> values.forEach(value -> measures.put(
                counts.get(value),
                new ExpressionKinds.Measure(
                        Aggregate.COUNT,
                        Optional.of(Formula.when(
                                Formula.call("=", name.value(), Expr.Literal.text(value)),
                                Expr.Literal.integer(1),
                                Formula.missing(Type.INTEGER))),
                        false,
                        0,
                        ""))));
        if (!(Measures.grouped(given, given.get(KEYS), measures)
                instanceof Resolution.Done(Relation grouped, var _, var _))) {
            return Given.refused(Code.NAME_CLASH, "A value is called like a key.", "Rename the key before.");
        }
        Relation after = absent.map(a -> filled(grouped, counts, a)).orElse(grouped);
        Expr other = Formula.when(Formula.any(named), Expr.Literal.truth(false), Expr.Literal.truth(true));
        List<Report> reports = new ArrayList<>(List.of(
                new Report("others", new Relation.Keep(given.before(), other), "rows with a value that is not named")));
        if (given.find(VALUE).isPresent()) {
            reports.add(new Report("repeats", repeats(given, Formula.any(named)), "rows that meet in one cell", true));
        }
        return new Resolution.Done(after, reports);
    }

    /// The cells of keys that have no row of a name, with what stands there; the counts of such rows are gone.
    private static Relation filled(Relation grouped, Map<String, String> counts, Expr absent) {
        List<Computed> cells = new ArrayList<>();
        List<Field> gone = new ArrayList<>();
        counts.forEach((value, counted) -> {
            Field cell = field(grouped, value);
            Field count = field(grouped, counted);
            Expr none = Formula.call("=", count.value(), Expr.Literal.integer(0));
            cells.add(new Computed(cell, Formula.when(none, absent, cell.value())));
            gone.add(count);
        });
        return Given.without(new Relation.Compute(grouped, cells), gone);
    }

    private static Field field(Relation relation, String name) {
        return relation.shape().fields().stream()
                .filter(f -> f.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    /// The rows of which several have the same keys and one of the names.
    private static Relation repeats(Given given, Expr isNamed) {
        List<Field> cell = new ArrayList<>(given.get(KEYS));
        cell.add(given.get(NAME));
        Field size = given.helper("rows_of_cell", Type.INTEGER);
        Relation sized = new Relation.Window(
                new Relation.Keep(given.before(), isNamed),
                List.of(new Windowed(size, Windowed.Kind.OF_ALL, Aggregate.ROWS, Optional.empty(), 0)),
                cell,
                List.of(),
                false);
        return Given.without(
                new Relation.Keep(sized, Formula.call(">", size.value(), Expr.Literal.integer(1))), List.of(size));
    }
}
