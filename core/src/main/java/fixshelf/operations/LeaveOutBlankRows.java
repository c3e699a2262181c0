package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.List;

/// Rows in which nothing stands.
final class LeaveOutBlankRows extends BuiltIn {
    static final Blank<List<Field>> COLUMNS =
            Blank.usually("columns", ColumnKinds.KEYS, "all columns", "The columns that are looked at.");

    static final Blank<String> BLANK = Blank.usually(
            "blank",
            ValueKinds.choice("missing", "empty", "white_space"),
            "white_space",
            "What counts as blank: missing; empty, an empty text too; white_space, a text of white space only too.");

    LeaveOutBlankRows() {
        super(
                "leave_out_blank_rows",
                "Leave out rows that are blank in {columns}",
                new Meaning(
                        "Remove empty rows: rows in which nothing stands in any of some columns.",
                        "A missing value is blank.",
                        "An empty text, and one of white space only, no-break spaces too, is blank, unless `blank` says less.",
                        "Rows stay as they stand.",
                        "",
                        "A value of another type than text is never blank.",
                        "",
                        "The rows that leave.",
                        "The same in all."),
                List.of(COLUMNS, BLANK),
                List.of(
                        new TableExample(
                                "Only what is missing",
                                Table.of("a | b", "' ' | NULL", "NULL | NULL", "NULL | ''"),
                                "leave_out_blank_rows: all columns\nblank: missing",
                                Table.of("a | b", "' ' | NULL", "NULL | ''")),
                        new TableExample(
                                "Empty too",
                                Table.of("a | b", "' ' | NULL", "NULL | NULL", "NULL | ''"),
                                "leave_out_blank_rows: all columns\nblank: empty",
                                Table.of("a | b", "' ' | NULL")),
                        new TableExample(
                                "Spaces only",
                                Table.of("a | b", "' ' | NULL", "'x' | NULL", "NULL | ''"),
                                "leave_out_blank_rows: all columns",
                                Table.of("a | b", "'x' | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Expr> filled = given.get(COLUMNS).stream()
                .map(f -> isFilled(f, given.get(BLANK)))
                .toList();
        return new Resolution.Done(new Relation.Keep(given.before(), Formula.any(filled)));
    }

    /// Whether anything can be seen in it.
    static Expr isFilled(Field field) {
        return isFilled(field, "white_space");
    }

    /// Whether more than what counts as blank stands in it.
    static Expr isFilled(Field field, String blank) {
        Expr known = Formula.isKnown(field.value());
        if (blank.equals("missing")) {
            return known;
        }
        if (blank.equals("empty")) {
            return field.type().equals(Type.TEXT)
                    ? Formula.call("AND", known, Formula.call("<>", field.value(), Expr.Literal.text("")))
                    : known;
        }
        Expr seen = Formula.call(
                "regexp_like",
                field.value(),
                Expr.Literal.text("[^\\s\u00A0\u1680\u2000-\u200A\u2028\u2029\u202F\u205F\u3000]"));
        return field.type().equals(Type.TEXT) ? Formula.call("AND", known, seen) : known;
    }
}
