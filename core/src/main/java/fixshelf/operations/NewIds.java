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
import fixshelf.problem.Problem;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Numbers for values.
final class NewIds extends BuiltIn {
    static final Blank<List<Field>> COLUMNS =
            Blank.needed("columns", ColumnKinds.COLUMNS, "The columns whose values get a number.");
    static final Blank<String> INTO = Blank.usually("into", ColumnKinds.NEW_NAME, "id", "The new column.");
    static final Blank<Relation> KNOWN = Blank.optional(
            "known",
            ValueKinds.SOURCE,
            "A table with the same columns, and the numbers that were given before in one called like the new column.");
    static final Blank<Long> FIRST = Blank.usually(
            "first", ValueKinds.whole(0, 1_000_000_000_000L), "1", "The first number, where none was given before.");

    NewIds() {
        super(
                "new_ids",
                "Give {columns} numbers in {into}",
                new Meaning(
                        "A number for each different value: build a lookup table, surrogate key, generated id. With known the numbers of before stay, and new values get the next ones.",
                        "A row where a value is missing gets no number.",
                        "An empty text is a value.",
                        "Rows stay as they stand; numbers go by the first row of each value.",
                        "",
                        "Gives a whole number. Numbers given before are read as whole numbers.",
                        "The new name must be free.",
                        "numbers: each different value with its number, to be written and known next time. new: those that were not known.",
                        "The same in all."),
                List.of(COLUMNS, INTO, KNOWN, FIRST),
                List.of(
                        new TableExample(
                                "By first rows",
                                Table.of("a", "'y'", "'x'", "NULL", "'y'"),
                                "new_ids: [a]\ninto: no",
                                Table.of("a | no integer", "'y' | 1", "'x' | 2", "NULL | NULL", "'y' | 1")),
                        new TableExample(
                                "Numbers of before stay",
                                Table.of("a", "'new'", "'x'"),
                                Map.of("before", Table.of("a | no", "'x' | '7'", "'y' | '9'")),
                                "new_ids: [a]\ninto: no\nknown: before",
                                Table.of("a | no integer", "'new' | 10", "'x' | 7"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = given.get(COLUMNS);
        List<Problem> problems = new ArrayList<>();
        given.meets(given.get(INTO)).ifPresent(problems::add);
        Optional<Relation> known = given.find(KNOWN);
        List<Relation.Pair> on = new ArrayList<>();
        List<Field> numbers = new ArrayList<>();
        known.ifPresent(k -> {
            columns.forEach(c -> on.addAll(pairs(given, k, Map.of(c.name(), c.name()), problems)));
            other(given.get(INTO), k, problems).ifPresent(numbers::add);
        });
        Optional<Expr> number = numbers.stream().findFirst().flatMap(n -> Readings.as(n.value(), Type.INTEGER, ""));
        if (problems.isEmpty() && known.isPresent() && number.isEmpty()) {
            problems.add(
                    Given.problem(Code.WRONG_TYPE, given.get(INTO) + " is no number there.", "Name another table."));
        }
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        Expr allKnown = Formula.all(
                columns.stream().map(c -> Formula.isKnown(c.value())).toList());
        Relation values = new Relation.Pick(
                new Relation.FirstOf(new Relation.Keep(given.before(), allKnown), columns, List.of(), false),
                new Shape(columns));
        Field id = given.helper("id_of_value", Type.INTEGER);
        Relation fresh;
        Relation all;
        if (known.isEmpty()) {
            fresh = numbered(given, values, Expr.Literal.integer(given.get(FIRST) - 1), id);
            all = fresh;
        } else {
            Relation before = before(given, known.get(), on, number.get(), id);
            Relation left = new Relation.Join(values, known.get(), on, Relation.Meeting.WITHOUT, List.of());
            fresh = after(given, left, before, id);
            all = new Relation.Union(List.of(before, fresh));
        }
        List<Relation.Pair> pairs = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            pairs.add(new Relation.Pair(columns.get(i), all.shape().fields().get(i), false));
        }
        Field made = given.field(given.get(INTO), Type.INTEGER);
        Field taken = all.shape().fields().getLast();
        return new Resolution.Done(
                new Relation.Join(
                        given.before(),
                        all,
                        pairs,
                        Relation.Meeting.ALL_LEFT,
                        List.of(new Relation.Taken(taken, made))),
                List.of(
                        new Report("numbers", named(all, given.get(INTO)), "values with numbers"),
                        new Report("new", named(fresh, given.get(INTO)), "new values")));
    }

    /// A table whose last column is called as users see it.
    private static Relation named(Relation relation, String name) {
        List<Field> fields = new ArrayList<>(relation.shape().fields());
        fields.set(fields.size() - 1, fields.getLast().named(name));
        return new Relation.Pick(relation, new Shape(fields));
    }

    /// The values with numbers from the one after `last` on.
    private static Relation numbered(Given given, Relation values, Expr last, Field id) {
        Field nth = given.helper("nth_value", Type.INTEGER);
        Relation counted = new Relation.Window(
                values, List.of(Windowed.number(nth, Windowed.Kind.NUMBER)), List.of(), List.of(), false);
        return Given.without(
                new Relation.Compute(counted, List.of(new Computed(id, Formula.call("+", last, nth.value())))),
                List.of(nth));
    }

    /// The known values with their numbers, each once.
    private static Relation before(Given given, Relation known, List<Relation.Pair> on, Expr number, Field id) {
        List<Field> keys = on.stream().map(Relation.Pair::right).toList();
        Field read = given.helper("known_id", Type.INTEGER);
        List<Field> shown = new ArrayList<>();
        on.forEach(p -> shown.add(p.right().named(p.left().name())));
        shown.add(read.named(id.name()));
        Relation numbers = new Relation.Keep(
                new Relation.Compute(known, List.of(new Computed(read, number))), Formula.isKnown(read.value()));
        return new Relation.Pick(new Relation.FirstOf(numbers, keys, List.of(), false), new Shape(shown));
    }

    /// The other values with the numbers after the greatest of before.
    private static Relation after(Given given, Relation values, Relation before, Field id) {
        Field greatest = given.helper("greatest", Type.INTEGER);
        Field one = given.helper("one_here", Type.INTEGER);
        Field one2 = given.helper("one_there", Type.INTEGER);
        Field last = given.helper("last_id", Type.INTEGER);
        Field of = before.shape().fields().getLast();
        Relation most = new Relation.Compute(
                new Relation.Group(
                        before, List.of(), List.of(new Grouped(greatest, Aggregate.GREATEST, Optional.of(of)))),
                List.of(new Computed(one2, Expr.Literal.integer(1))));
        Relation beside = new Relation.Join(
                new Relation.Compute(values, List.of(new Computed(one, Expr.Literal.integer(1)))),
                most,
                List.of(new Relation.Pair(one, one2, false)),
                Relation.Meeting.PAIRS,
                List.of(new Relation.Taken(greatest, last)));
        Expr from = Formula.call("coalesce", last.value(), Expr.Literal.integer(given.get(FIRST) - 1));
        return Given.without(numbered(given, beside, from, id), List.of(one, last));
    }
}
