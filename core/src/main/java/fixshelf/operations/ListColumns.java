package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What columns there are.
final class ListColumns extends BuiltIn {
    static final Blank<List<Field>> COLUMNS =
            Blank.usually("columns", ColumnKinds.COLUMNS, "every column", "The columns that are listed.");

    ListColumns() {
        super(
                "list_columns",
                "List {columns}",
                new Meaning(
                        "A row for each column: its place, name and type, in how many rows it is filled, and how many different values it has.",
                        "Is not filled, and is no value.",
                        "An empty text is filled.",
                        "The columns as they stand.",
                        "",
                        "Whole numbers and texts.",
                        "The columns that come out are column, position, type, filled, distinct.",
                        "",
                        "The same in all."),
                List.of(COLUMNS),
                List.of(new TableExample(
                        "Two columns",
                        Table.of("a | n integer", "'x' | 1", "'x' | NULL"),
                        "list_columns: every column",
                        Table.of(
                                "column | position integer | type | filled integer | distinct integer",
                                "'a' | 1 | 'text' | 2 | 1",
                                "'n' | 2 | 'integer' | 1 | 1"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = given.get(COLUMNS);
        List<Grouped> counts = new ArrayList<>();
        List<Computed> said = new ArrayList<>();
        List<List<Field>> sets = new ArrayList<>();
        for (Field column : columns) {
            int number = sets.size() + 1;
            Field filled = given.helper("filled_" + number, Type.INTEGER);
            Field distinct = given.helper("distinct_" + number, Type.INTEGER);
            Field position = given.helper("position_" + number, Type.INTEGER);
            Field type = given.helper("type_" + number, Type.TEXT);
            counts.add(new Grouped(filled, Aggregate.COUNT, Optional.of(column)));
            counts.add(new Grouped(distinct, Aggregate.DISTINCT, Optional.of(column)));
            said.add(new Computed(position, Expr.Literal.integer(given.fields().indexOf(column) + 1L)));
            said.add(new Computed(type, Expr.Literal.text(column.type().label())));
            sets.add(List.of(position, type, filled, distinct));
        }
        Relation counted = new Relation.Group(given.before(), List.of(), counts);
        return new Resolution.Done(new Relation.Unpivot(
                new Relation.Compute(counted, said),
                sets,
                columns.stream().map(Field::name).toList(),
                given.field("column", Type.TEXT),
                List.of(
                        given.field("position", Type.INTEGER),
                        given.field("type", Type.TEXT),
                        given.field("filled", Type.INTEGER),
                        given.field("distinct", Type.INTEGER)),
                true));
    }
}
