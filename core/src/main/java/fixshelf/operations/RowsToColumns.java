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
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

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
    static final Blank<Map<String, ExpressionKinds.Measure>> MEASURE =
            Blank.needed("measure", ExpressionKinds.MEASURES, "One measure, {value: sum(x)}.");

    RowsToColumns() {
        super(
                "rows_to_columns",
                "Make a column for each of {values} of {names_from}, with {measure}, for each {keys}",
                new Meaning(
                        "Pivot: a row for each year or room becomes a column for each. Long to wide, cross table.",
                        "A combination that does not come is missing, or 0 for a count.",
                        "An empty text can be named as a value.",
                        "Groups stand in the order of their first rows.",
                        "",
                        "That of the measure.",
                        "The new columns are called like the values; names that meet are a problem.",
                        "others: the rows with a value that is not named.",
                        "The same in all."),
                List.of(NAME, VALUES, KEYS, MEASURE),
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
                                Table.of("k | b integer | a integer", "'1' | 1 | 1", "'2' | 1 | 0"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Field name = given.get(NAME);
        if (!name.type().equals(Type.TEXT) || given.get(MEASURE).size() != 1) {
            return Given.refused(
                    Code.ARGUMENTS,
                    name.type().equals(Type.TEXT)
                            ? "There is one measure here."
                            : name.name() + " is " + name.type().label() + ", and names are texts.",
                    "Write {value: sum(x)}, over a column of text.");
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
        ExpressionKinds.Measure measure = given.get(MEASURE).values().iterator().next();
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
        Expr other = Formula.when(Formula.any(named), Expr.Literal.truth(false), Expr.Literal.truth(true));
        if (!(Measures.grouped(given, given.get(KEYS), measures)
                instanceof Resolution.Done(Relation after, var _, var _))) {
            return Given.refused(Code.NAME_CLASH, "A value is called like a key.", "Rename the key before.");
        }
        Relation others = new Relation.Keep(given.before(), other);
        return new Resolution.Done(after, List.of(new Report("others", others, "rows with a value that is not named")));
    }
}
