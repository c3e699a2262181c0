package fixshelf.operations;

import fixshelf.plan.Absent;
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
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/// A row for each of some columns.
final class ColumnsToRows extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");
    static final Blank<String> NAME =
            Blank.needed("names_in", ColumnKinds.NEW_NAME, "The new column that takes the names.");
    static final Blank<String> VALUE =
            Blank.needed("values_in", ColumnKinds.NEW_NAME, "The new column that takes the values.");
    static final Blank<String> MISSING =
            Blank.usually("missing", ValueKinds.choice("drop", "keep"), "drop", "Whether a missing value gives a row.");

    ColumnsToRows() {
        super(
                "columns_to_rows",
                "Make a row for each of {columns}, its name in {names_in} and its value in {values_in}",
                new Meaning(
                        "Unpivot: a table with a column for each year or room becomes one with a row for each. Wide to long, melt.",
                        "drop: a missing value gives no row; keep: it does. A row whose values are all missing vanishes with drop, and is reported.",
                        "An empty text is a value.",
                        "Row by row, and in each the columns as they stand.",
                        "",
                        "The columns have one type; whole and exact numbers become exact.",
                        "The new names must be free.",
                        "vanished: the rows that give none.",
                        "The same in all."),
                List.of(COLUMNS, NAME, VALUE, MISSING, Absent.BLANK),
                List.of(
                        new TableExample(
                                "Missing dropped",
                                Table.of("k | x | y", "'1' | 'a' | NULL", "'2' | 'b' | 'c'"),
                                "columns_to_rows: [x, y]\nnames_in: what\nvalues_in: has",
                                Table.of("k | what | has", "'1' | 'x' | 'a'", "'2' | 'x' | 'b'", "'2' | 'y' | 'c'")),
                        new TableExample(
                                "Missing kept",
                                Table.of("k | x | y", "'1' | 'a' | NULL"),
                                "columns_to_rows: [x, y]\nnames_in: what\nvalues_in: has\nmissing: keep",
                                Table.of("k | what | has", "'1' | 'x' | 'a'", "'1' | 'y' | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = given.get(COLUMNS);
        List<Problem> problems = new ArrayList<>();
        List<Field> others = given.fields().stream()
                .filter(f -> columns.stream().noneMatch(c -> c.id() == f.id()))
                .toList();
        for (String name : List.of(given.get(NAME), given.get(VALUE))) {
            if (new Shape(others).find(name).isPresent()) {
                given.meets(name).ifPresent(problems::add);
            }
        }
        Optional<Type> type = type(columns, problems);
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        boolean keep = given.get(MISSING).equals("keep");
        Relation before = typed(given, columns, type.get());
        Relation rows = new Relation.Unpivot(
                before,
                columns.stream().map(c -> List.of(c.typed(type.get()))).toList(),
                columns.stream().map(Field::name).toList(),
                given.field(given.get(NAME), Type.TEXT),
                List.of(given.field(given.get(VALUE), type.get())),
                keep);
        Expr none = Formula.all(
                columns.stream().map(c -> Formula.isMissing(c.value())).toList());
        return new Resolution.Done(
                rows,
                keep
                        ? List.of()
                        : List.of(new Report("vanished", new Relation.Keep(given.before(), none), "rows that vanish")));
    }

    /// The type that columns have together.
    static Optional<Type> type(List<Field> columns, List<Problem> problems) {
        Optional<Type> type = columns.stream()
                .map(c -> Optional.of(c.type()))
                .reduce((a, b) -> a.flatMap(x -> b.flatMap(y -> Type.together(x, y))))
                .orElse(Optional.empty());
        if (type.isEmpty()) {
            problems.add(Given.problem(
                    Code.WRONG_TYPE,
                    "These columns are of different types: "
                            + columns.stream()
                                    .map(c -> c.name() + " " + c.type().label())
                                    .collect(Collectors.joining(", "))
                            + ".",
                    "Give them one type with read_as before."));
        }
        return type;
    }

    /// The table with these columns as values of one type.
    private static Relation typed(Given given, List<Field> columns, Type type) {
        List<Computed> cells = columns.stream()
                .filter(c -> !c.type().equals(type))
                .map(c -> new Computed(
                        c.typed(type), Readings.as(c.value(), type, "").orElseThrow()))
                .toList();
        return given.computed(cells);
    }
}
