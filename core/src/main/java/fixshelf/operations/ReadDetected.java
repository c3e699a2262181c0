package fixshelf.operations;

import fixshelf.plan.Absent;
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
import fixshelf.table.Formula;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Columns as values of the types that all their values have.
final class ReadDetected extends BuiltIn {
    private static final int DIGITS = 18;

    static final Blank<List<Field>> COLUMNS =
            Blank.usually("columns", ColumnKinds.COLUMNS, "every text column", "The columns that are looked at.");

    ReadDetected() {
        super(
                "read_detected",
                "Read {columns} by the types of their values",
                new Meaning(
                        "Detect types: a column whose values are all whole numbers, decimals, days or times, or true and false becomes one of them. What was seen can be looked at, and the line taken out.",
                        "Stays missing, and says nothing about the type; a column without any value stays text.",
                        "An empty text, and one of blanks, says nothing, and becomes missing in a column that gets a type.",
                        "Rows stay as they stand.",
                        "",
                        "A number with zeros before it, as 007, is a code: its column stays text. So does one with a comma, or of more than 18 digits. A decimal has as many places as its longest value. Days are yyyy-MM-dd, times yyyy-MM-dd HH:mm:ss, which a fraction of a second may follow.",
                        "",
                        "types: each column with the type that it gets.",
                        "What was seen in the data is written out, as types."),
                List.of(COLUMNS, Absent.BLANK),
                List.of(
                        new TableExample(
                                "Numbers, codes and days",
                                Table.of(
                                        "n | code | d",
                                        "'12' | '007' | '2026-02-07'",
                                        "'-3' | '12' | NULL",
                                        "' ' | '1' | '2026-11-26'"),
                                "read_detected: every text column",
                                Table.of(
                                        "n integer | code | d date",
                                        "12 | '007' | DATE '2026-02-07'",
                                        "-3 | '12' | NULL",
                                        "NULL | '1' | DATE '2026-11-26'")),
                        new TableExample(
                                "What is mixed stays",
                                Table.of("a | b", "'1' | 'true'", "'1,5' | 'FALSE'"),
                                "read_detected: every text column",
                                Table.of("a | b boolean", "'1' | TRUE", "'1,5' | FALSE"))));
    }

    /// What can be found out about a column: how many of its values are of a kind.
    private record Seen(long filled, long whole, long exact, long places, long days, long times, long truths) {
        /// The narrowest type that all values have; none where they are only texts.
        Optional<Type> type() {
            if (filled == 0) {
                return Optional.empty();
            }
            if (whole == filled) {
                return Optional.of(Type.INTEGER);
            }
            if (whole + exact == filled) {
                return Optional.of(new Type.Decimal(DIGITS, (int) Math.min(places, DIGITS - 1)));
            }
            return days == filled
                    ? Optional.of(Type.DATE)
                    : times == filled
                            ? Optional.of(Type.TIMESTAMP)
                            : truths == filled ? Optional.of(Type.BOOLEAN) : Optional.empty();
        }
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = given.get(COLUMNS).stream()
                .filter(c -> c.type().equals(Type.TEXT))
                .toList();
        if (columns.isEmpty()) {
            return new Resolution.Done(given.before());
        }
        List<Computed> cells = new ArrayList<>();
        List<Grouped> counts = new ArrayList<>();
        for (Field column : columns) {
            look(given, column, cells, counts);
        }
        Relation counted = new Relation.Group(given.computed(cells), List.of(), counts);
        return new Resolution.Asks(counted, seen -> read(given, columns, seen));
    }

    /// How many values are of each kind, and the most digits after a point.
    private static void look(Given given, Field column, List<Computed> cells, List<Grouped> counts) {
        Expr text = Formula.call("trim", column.value());
        Expr filled = Formula.call("<>", text, Expr.Literal.text(""));
        Expr whole = matches(text, "^-?(0|[1-9][0-9]{0,17})$");
        Expr exact = matches(text, "^-?(0|[1-9][0-9]{0,11})\\.[0-9]{1,6}$");
        Expr day = Formula.isKnown(Formula.call("to_date", text, Expr.Literal.text("yyyy-MM-dd")));
        Expr time = Formula.isKnown(Formula.call("to_timestamp", text));
        Expr truth = matches(Formula.call("lower", text), "^(true|false)$");
        Expr places = Formula.when(
                exact,
                Formula.call(
                        "length", Formula.call("split_part", text, Expr.Literal.text("."), Expr.Literal.integer(2))),
                Formula.missing(Type.INTEGER));
        for (Expr condition : List.of(filled, whole, exact)) {
            count(given, condition, cells, counts);
        }
        Field longest = given.helper("places_" + counts.size(), Type.INTEGER);
        cells.add(new Computed(longest, places));
        counts.add(new Grouped(
                given.helper("most_" + counts.size(), Type.INTEGER), Aggregate.GREATEST, Optional.of(longest)));
        for (Expr condition : List.of(day, time, truth)) {
            count(given, condition, cells, counts);
        }
    }

    private static Expr matches(Expr text, String pattern) {
        return Formula.call("regexp_like", text, Expr.Literal.text(pattern));
    }

    private static void count(Given given, Expr condition, List<Computed> cells, List<Grouped> counts) {
        Field is = given.helper("is_" + counts.size(), Type.INTEGER);
        cells.add(new Computed(is, Formula.when(condition, Expr.Literal.integer(1), Formula.missing(Type.INTEGER))));
        counts.add(new Grouped(given.helper("count_" + counts.size(), Type.INTEGER), Aggregate.COUNT, Optional.of(is)));
    }

    private static Resolution read(Given given, List<Field> columns, List<List<@Nullable Object>> seen) {
        List<Computed> cells = new ArrayList<>();
        Map<String, String> types = new LinkedHashMap<>();
        for (int i = 0; i < columns.size(); i++) {
            Field column = columns.get(i);
            int at = 7 * i;
            Seen one = new Seen(
                    count(seen, at),
                    count(seen, at + 1),
                    count(seen, at + 2),
                    count(seen, at + 3),
                    count(seen, at + 4),
                    count(seen, at + 5),
                    count(seen, at + 6));
            types.put(column.name(), one.type().map(Type::label).orElse("text"));
            one.type().ifPresent(type -> {
                Expr trimmed = Formula.call("trim", column.value());
                Expr blank = Formula.call("=", trimmed, Expr.Literal.text(""));
                Expr value = Readings.as(trimmed, type, "").orElseThrow();
                cells.add(new Computed(column.typed(type), value, Optional.of(blank)));
            });
        }
        return new Resolution.Done(
                given.computed(cells), List.of(new Report("types", listed(given, types), "columns with types")));
    }

    /// The columns with the types that they get.
    private static Relation listed(Given given, Map<String, String> types) {
        List<Computed> said = new ArrayList<>();
        List<List<Field>> sets = new ArrayList<>();
        types.values().forEach(type -> {
            Field field = given.helper("type_" + (said.size() + 1), Type.TEXT);
            said.add(new Computed(field, Expr.Literal.text(type)));
            sets.add(List.of(field));
        });
        Relation one = new Relation.Group(
                given.before(),
                List.of(),
                List.of(new Grouped(given.helper("rows", Type.INTEGER), Aggregate.ROWS, Optional.empty())));
        Field column = given.helper("column", Type.TEXT);
        Field type = given.helper("type", Type.TEXT);
        Relation rows = new Relation.Unpivot(
                new Relation.Compute(one, said), sets, List.copyOf(types.keySet()), column, List.of(type), true);
        return new Relation.Pick(rows, new Shape(List.of(column, type)));
    }

    @Override
    public boolean losesValues() {
        return true;
    }
}
