package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.table.Sorted;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// The names of columns as a row.
final class NamesToRow extends BuiltIn {
    static final Blank<String> BEGINNING = Blank.usually(
            "beginning", ValueKinds.TEXT, "column_", "What the new names begin with, before their numbers.");

    NamesToRow() {
        super(
                "names_to_row",
                "Make the names of columns the first row",
                new Meaning(
                        "Demote the heading: what was read as names is a row of data, and the columns get neutral names.",
                        "",
                        "",
                        "The names stand first; the rows stay as they stand.",
                        "",
                        "All columns are texts.",
                        "The new names are column_1, column_2 and so on.",
                        "",
                        "The same in all."),
                List.of(BEGINNING),
                List.of(
                        new TableExample(
                                "A file without a heading",
                                Table.of("7 | lamp", "'8' | 'kettle'"),
                                "names_to_row: column_",
                                Table.of("column_1 | column_2", "'7' | 'lamp'", "'8' | 'kettle'")),
                        new TableExample("No rows", Table.of("a"), "names_to_row: c", Table.of("c1", "'a'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Optional<Field> number =
                given.fields().stream().filter(f -> !f.type().equals(Type.TEXT)).findFirst();
        if (number.isPresent()) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    number.get().name() + " is " + number.get().type().label() + ", and a name is a text.",
                    "Read it as text before.");
        }
        Field part = given.helper("part", Type.INTEGER);
        Field rows = given.helper("rows", Type.INTEGER);
        Field first = given.helper("first", Type.INTEGER);
        List<Computed> names = new ArrayList<>();
        List<Field> below = new ArrayList<>(given.fields());
        List<Field> above = new ArrayList<>();
        for (Field field : given.fields()) {
            Field made = given.helper("name_" + (names.size() + 1), Type.TEXT);
            names.add(new Computed(made, Expr.Literal.text(field.name())));
            above.add(made);
        }
        names.add(new Computed(first, Expr.Literal.integer(0)));
        above.add(first);
        below.add(part);
        Relation one = new Relation.Group(
                given.before(), List.of(), List.of(new Grouped(rows, Aggregate.ROWS, Optional.empty())));
        Relation heading = new Relation.Pick(new Relation.Compute(one, names), new Shape(above));
        Relation numbered = given.computed(List.of(new Computed(part, Expr.Literal.integer(1))));
        Relation all = new Relation.Sort(
                new Relation.Union(List.of(new Relation.Pick(numbered, new Shape(below)), heading)),
                List.of(new Sorted(part, false, false)));
        List<Field> shown = new ArrayList<>();
        for (Field field : given.fields()) {
            shown.add(field.named(given.get(BEGINNING) + (shown.size() + 1)));
        }
        return new Resolution.Done(new Relation.Pick(all, new Shape(shown)));
    }
}
