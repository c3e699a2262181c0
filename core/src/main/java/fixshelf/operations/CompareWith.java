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
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// What differs between two tables.
final class CompareWith extends BuiltIn {
    static final Blank<Relation> FROM =
            Blank.needed("from", ValueKinds.SOURCE, "The other table, as it was before: an earlier result, say.");
    static final Blank<List<Field>> KEYS =
            Blank.needed("keys", ColumnKinds.COLUMNS, "The columns that tell rows apart, called the same in both.");

    CompareWith() {
        super(
                "compare_with",
                "Compare with {from} by {keys}",
                new Meaning(
                        "What is different from another version of the table: rows added, rows removed, cells changed. Diff, reconcile, compare results.",
                        "Missing equals missing, in keys and in values.",
                        "An empty text differs from a missing one.",
                        "The changed cells as the rows stand here, then the added rows, then the removed ones as they stand there.",
                        "",
                        "Columns of different types are compared as texts; what was and what is are shown as texts.",
                        "Columns that both have are compared, by name without regard to case. The columns that come out are the keys, then what, column, was, now.",
                        "repeated_here, repeated_there: rows whose keys repeat, so that it is not known which are the same; a run stops where there is any.",
                        "The same in all."),
                List.of(FROM, KEYS),
                List.of(
                        new TableExample(
                                "Rows and cells",
                                Table.of(
                                        "k | a | b",
                                        "'1' | 'x' | 'p'",
                                        "'2' | 'y' | NULL",
                                        "'3' | 'z' | 'r'",
                                        "NULL | '1' | 's'"),
                                Map.of(
                                        "before",
                                        Table.of(
                                                "k | A | c",
                                                "'4' | 'w' | '1'",
                                                "'2' | NULL | '1'",
                                                "NULL | '' | '1'",
                                                "'1' | 'x' | '1'")),
                                "compare_with: before\nkeys: [k]",
                                Table.of(
                                        "k | what | column | was | now",
                                        "'2' | 'changed' | 'a' | NULL | 'y'",
                                        "NULL | 'changed' | 'a' | '' | '1'",
                                        "'3' | 'added' | NULL | NULL | NULL",
                                        "'4' | 'removed' | NULL | NULL | NULL")),
                        new TableExample(
                                "Another type there",
                                Table.of("k | n integer", "'1' | 5", "'2' | 7"),
                                Map.of("before", Table.of("k | n", "'1' | '5'", "'2' | '8'")),
                                "compare_with: before\nkeys: [k]",
                                Table.of("k | what | column | was | now", "'2' | 'changed' | 'n' | '8' | '7'"))));
    }

    /// A column of both tables.
    private record Both(Field here, Field there) {}

    @Override
    public Resolution resolve(Given given) {
        Relation other = given.get(FROM);
        List<Field> keys = given.get(KEYS);
        List<Problem> problems = new ArrayList<>();
        List<Relation.Pair> on = new ArrayList<>();
        for (Field key : keys) {
            pairs(given, other, Map.of(key.name(), key.name()), problems)
                    .forEach(p -> on.add(new Relation.Pair(p.left(), p.right(), true)));
            if (List.of("what", "column", "was", "now").contains(key.name().toLowerCase(Locale.ROOT))) {
                problems.add(Given.problem(
                        Code.NAME_CLASH,
                        "A key is called " + key.name() + ", as a column that comes out is.",
                        "Rename it before."));
            }
        }
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        List<Both> both = new ArrayList<>();
        for (Field field : given.fields()) {
            if (keys.stream().noneMatch(k -> k.id() == field.id())) {
                other.shape().find(field.name()).ifPresent(there -> both.add(new Both(field, there)));
            }
        }
        List<Field> made = List.of(
                given.field("what", Type.TEXT),
                given.field("column", Type.TEXT),
                given.field("was", Type.TEXT),
                given.field("now", Type.TEXT));
        List<Relation> parts = new ArrayList<>();
        if (!both.isEmpty()) {
            parts.add(changed(given, other, on, keys, both, made));
        }
        List<Relation.Pair> turned = on.stream()
                .map(p -> new Relation.Pair(p.right(), p.left(), true))
                .toList();
        parts.add(row(
                new Relation.Join(given.before(), other, on, Relation.Meeting.WITHOUT, List.of()),
                keys,
                keys,
                made,
                "added"));
        parts.add(row(
                new Relation.Join(other, given.before(), turned, Relation.Meeting.WITHOUT, List.of()),
                on.stream().map(Relation.Pair::right).toList(),
                keys,
                made,
                "removed"));
        return new Resolution.Done(new Relation.Union(parts), reports(given, other, on));
    }

    private static List<Report> reports(Given given, Relation other, List<Relation.Pair> on) {
        List<Report> reports = new ArrayList<>();
        List<Field> left = on.stream().map(Relation.Pair::left).toList();
        List<Field> right = on.stream().map(Relation.Pair::right).toList();
        reports.add(new Report(
                "repeated_here",
                DropRepeats.repeats(given, given.before(), left),
                "rows whose keys repeat here",
                true));
        reports.add(new Report(
                "repeated_there", DropRepeats.repeats(given, other, right), "rows whose keys repeat there", true));
        return reports;
    }

    /// A row for each cell that differs.
    private static Relation changed(
            Given given, Relation other, List<Relation.Pair> on, List<Field> keys, List<Both> both, List<Field> made) {
        List<Relation.Taken> taken = new ArrayList<>();
        List<Computed> texts = new ArrayList<>();
        List<List<Field>> sets = new ArrayList<>();
        for (Both one : both) {
            int number = sets.size() + 1;
            Field there = given.helper("there_" + number, one.there().type());
            taken.add(new Relation.Taken(one.there(), there));
            Field was = given.helper("was_" + number, Type.TEXT);
            Field now = given.helper("now_" + number, Type.TEXT);
            Field differs = given.helper("differs_" + number, Type.BOOLEAN);
            Expr wasText = text(there.value());
            Expr nowText = text(one.here().value());
            boolean same = one.here().type().equals(one.there().type());
            texts.add(new Computed(was, wasText));
            texts.add(new Computed(now, nowText));
            texts.add(new Computed(
                    differs,
                    Formula.call(
                            "IS DISTINCT FROM", same ? one.here().value() : nowText, same ? there.value() : wasText)));
            sets.add(List.of(was, now, differs));
        }
        Field differs = given.helper("differs", Type.BOOLEAN);
        Relation pairs = new Relation.Join(given.before(), other, on, Relation.Meeting.PAIRS, taken);
        Relation cells = new Relation.Unpivot(
                new Relation.Compute(pairs, texts),
                sets,
                both.stream().map(b -> b.here().name()).toList(),
                given.helper("of_column", Type.TEXT),
                List.of(given.helper("was_there", Type.TEXT), given.helper("now_here", Type.TEXT), differs),
                true);
        List<Field> last = cells.shape().fields();
        last = last.subList(last.size() - 4, last.size());
        Field what = given.helper("what_it_is", Type.TEXT);
        Relation changed = new Relation.Compute(
                new Relation.Keep(cells, differs.value()), List.of(new Computed(what, Expr.Literal.text("changed"))));
        List<Field> shown = new ArrayList<>(keys);
        shown.add(what.named(made.get(0).name()));
        shown.add(last.get(0).named(made.get(1).name()));
        shown.add(last.get(1).named(made.get(2).name()));
        shown.add(last.get(2).named(made.get(3).name()));
        return new Relation.Pick(changed, new Shape(shown));
    }

    private static Expr text(Expr value) {
        return Readings.as(value, Type.TEXT, "").orElse(value);
    }

    /// Rows that only one of the tables has, with the columns that come out.
    private static Relation row(Relation rows, List<Field> theirs, List<Field> keys, List<Field> made, String what) {
        List<Field> shown = new ArrayList<>();
        for (int i = 0; i < keys.size(); i++) {
            shown.add(theirs.get(i).named(keys.get(i).name()));
        }
        Relation only = new Relation.Pick(rows, new Shape(shown));
        List<Computed> cells = new ArrayList<>();
        for (Field field : made) {
            cells.add(new Computed(field, cells.isEmpty() ? Expr.Literal.text(what) : Formula.missing(Type.TEXT)));
        }
        return new Relation.Compute(only, cells);
    }
}
