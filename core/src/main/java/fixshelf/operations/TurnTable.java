package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.problem.Code;
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
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Rows as columns and columns as rows.
final class TurnTable extends BuiltIn {
    private static final int MOST = 1_000;

    static final Blank<Field> NAMES_FROM = Blank.optional(
            "names_from",
            ColumnKinds.COLUMN,
            "The column whose values are the new names; else row_1, row_2 and so on.");
    static final Blank<String> NAMES_IN = Blank.usually(
            "names_in", ColumnKinds.NEW_NAME, "column", "The new column that takes the names of the old ones.");

    TurnTable() {
        super(
                "turn_table",
                "Turn rows into columns, with names of columns in {names_in}",
                new Meaning(
                        "Transpose: each row becomes a column, and each column a row.",
                        "Stays missing. A row without a name is called by its place.",
                        "An empty text is a value.",
                        "The rows that come out stand as the columns stood, and the columns as the rows.",
                        "",
                        "The columns have one type.",
                        "Of rows that would be called the same, later ones get _2, _3.",
                        "",
                        "What was seen in the data is written out, as many columns as there were rows."),
                List.of(NAMES_IN, NAMES_FROM),
                List.of(
                        new TableExample(
                                "Two rows",
                                Table.of("a | b", "'1' | NULL", "'2' | 'y'"),
                                "turn_table: column",
                                Table.of("column | row_1 | row_2", "'a' | '1' | '2'", "'b' | NULL | 'y'")),
                        new TableExample(
                                "No rows", Table.of("a | b"), "turn_table: column", Table.of("column", "'a'", "'b'")),
                        new TableExample(
                                "Names from a column",
                                Table.of("what | mon | tue", "'visits' | '3' | '4'", "'mended' | '2' | '4'"),
                                "turn_table: day\nnames_from: what",
                                Table.of("day | visits | mended", "'mon' | '3' | '2'", "'tue' | '4' | '4'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Optional<Field> names = given.find(NAMES_FROM);
        List<Field> turned = given.fields().stream()
                .filter(f -> names.filter(n -> n.id() == f.id()).isEmpty())
                .toList();
        long types = turned.stream().map(Field::type).distinct().count();
        if (types != 1) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    types == 0 ? "There is no column to turn." : "The columns are of different types.",
                    "Give them one type with read_as before.");
        }
        Field number = given.helper("row_number", Type.INTEGER);
        Relation numbered = new Relation.Window(
                given.before(), List.of(Windowed.number(number, Windowed.Kind.NUMBER)), List.of(), List.of(), false);
        Relation few = new Relation.Keep(numbered, Formula.call("<=", number.value(), Expr.Literal.integer(MOST + 1L)));
        Relation asked = new Relation.Pick(few, new Shape(List.of(names.orElse(number))));
        return new Resolution.Asks(asked, seen -> {
            if (seen.size() > MOST) {
                return Given.refused(
                        Code.BAD_FIELD,
                        "There are more than " + MOST + " rows at this line, and each would be a column.",
                        "Keep fewer rows before.");
            }
            return turned(given, numbered, number, turned, names(given, names.isPresent(), seen));
        });
    }

    private static List<Field> names(Given given, boolean fromColumn, List<List<@Nullable Object>> seen) {
        List<Field> fields = new ArrayList<>(List.of(given.field(given.get(NAMES_IN), Type.TEXT)));
        List<String> names = new ArrayList<>(List.of(given.get(NAMES_IN)));
        for (List<@Nullable Object> row : seen) {
            Object name = row.getFirst();
            boolean named = fromColumn && name != null && !name.toString().isBlank();
            names.add(named ? name.toString().strip() : "row_" + names.size());
            fields.add(given.field(names.getLast(), Type.TEXT));
        }
        return Naming.named(fields, names);
    }

    private static Resolution turned(
            Given given, Relation numbered, Field number, List<Field> turned, List<Field> shown) {
        Type type = turned.getFirst().type();
        Field value = given.helper("value", type);
        Relation unpivoted = new Relation.Unpivot(
                numbered,
                turned.stream().map(List::of).toList(),
                turned.stream().map(Field::name).toList(),
                shown.getFirst(),
                List.of(value),
                true);
        List<Computed> cells = new ArrayList<>();
        List<Grouped> made = new ArrayList<>();
        List<Field> all = new ArrayList<>(List.of(shown.getFirst()));
        for (Field field : shown.subList(1, shown.size())) {
            Field of = given.helper("of_row_" + (cells.size() + 1), type);
            Expr isHere = Formula.call("=", number.value(), Expr.Literal.integer(cells.size() + 1L));
            cells.add(new Computed(of, Formula.when(isHere, value.value(), Formula.missing(type))));
            made.add(new Grouped(field.typed(type), Aggregate.GREATEST, Optional.of(of)));
            all.add(field.typed(type));
        }
        if (cells.isEmpty()) {
            return namesOnly(given, turned, shown.getFirst());
        }
        Relation apart = new Relation.Compute(unpivoted, cells);
        return new Resolution.Done(
                new Relation.Pick(new Relation.Group(apart, List.of(shown.getFirst()), made), new Shape(all)));
    }

    /// Without any row there is a row for each column all the same, out of the one row that a group of no rows has.
    private static Resolution namesOnly(Given given, List<Field> turned, Field name) {
        List<String> names = turned.stream().map(Field::name).toList();
        return new Resolution.Done(new Relation.Pick(TypedRows.named(given, names, name), new Shape(List.of(name))));
    }
}
