package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Given;
import fixshelf.plan.Operation;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.ColumnNames;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// Names for columns, of which no two are the same.
final class Naming {
    private static final int TOGETHER = 64;

    private Naming() {}

    /// The fields under these names, as far as they can be kept.
    static List<Field> named(List<Field> fields, List<String> names) {
        List<String> distinct = ColumnNames.distinct(names);
        return IntStream.range(0, fields.size())
                .mapToObj(i -> fields.get(i).named(distinct.get(i)))
                .toList();
    }

    /// Which columns a line calls otherwise than before: what they were called, and are.
    static List<Operation.Report> report(Given given, List<Field> named) {
        Map<Integer, String> now = new HashMap<>();
        named.forEach(f -> now.put(f.id(), f.name()));
        List<Field> changed = given.fields().stream()
                .filter(f -> now.containsKey(f.id()) && !now.get(f.id()).equals(f.name()))
                .toList();
        if (changed.isEmpty()) {
            return List.of();
        }
        Map<String, String> rows = new LinkedHashMap<>();
        changed.forEach(f -> rows.put(f.name(), Objects.requireNonNull(now.get(f.id()))));
        return List.of(new Operation.Report(
                "names", told(given, "was", "is_now", rows), "columns with another name", false, true));
    }

    /// A table of two columns of texts that are known before any row is seen. Its rows are numbers made of ten digits,
    /// and their texts stand in long ones, so that thousands of rows cost no thousands of queries.
    static Relation told(Given given, String first, String second, Map<String, String> rows) {
        Field number = given.helper("number", Type.INTEGER);
        Relation numbered = upTo(given, number, rows.size());
        Field key = given.field(first, Type.TEXT);
        Field value = given.field(second, Type.TEXT);
        String sign = signThatNoneHas(rows);
        Relation table = new Relation.Compute(
                numbered,
                List.of(
                        new Computed(key, at(number, List.copyOf(rows.keySet()), sign)),
                        new Computed(value, at(number, List.copyOf(rows.values()), sign))));
        return new Relation.Pick(table, new Shape(List.of(key, value)));
    }

    /// The text of a number: some stand together in one text, each filled up to one length with a
    /// sign that none of them has.
    private static Expr at(Field number, List<String> texts, String sign) {
        List<Expr.Branch> branches = new ArrayList<>();
        for (int from = 0; from < texts.size(); from += TOGETHER) {
            List<String> some = texts.subList(from, Math.min(from + TOGETHER, texts.size()));
            int width = some.stream().mapToInt(Naming::length).max().orElse(0);
            String together =
                    some.stream().map(t -> t + sign.repeat(width - length(t))).collect(Collectors.joining());
            Expr before = Formula.call(
                    "*", Formula.call("-", number.value(), Expr.Literal.integer(from)), Expr.Literal.integer(width));
            Expr part = Formula.call(
                    "substr",
                    Expr.Literal.text(together),
                    Formula.call("+", before, Expr.Literal.integer(1)),
                    Expr.Literal.integer(width));
            branches.add(new Expr.Branch(
                    Formula.call("<", number.value(), Expr.Literal.integer(from + some.size())),
                    Formula.call("replace", part, Expr.Literal.text(sign), Expr.Literal.text(""))));
        }
        return new Expr.Case(branches, Formula.missing(Type.TEXT), Type.TEXT);
    }

    private static int length(String text) {
        return text.codePointCount(0, text.length());
    }

    private static String signThatNoneHas(Map<String, String> rows) {
        String all = String.join("", rows.keySet()) + String.join("", rows.values());
        int sign = '\uE000';
        while (all.indexOf(sign) >= 0) {
            sign++;
        }
        return Character.toString(sign);
    }

    /// A table of the numbers from 0 on, fewer than `count`.
    private static Relation upTo(Given given, Field number, int count) {
        Relation digits = TypedRows.numbers(given, 0, 10);
        Field digit = digits.shape().fields().getFirst();
        Relation table = new Relation.Compute(digits, List.of(new Computed(number, digit.value())));
        for (int size = 10; size < count; size *= 10) {
            Relation next = TypedRows.numbers(given, 0, 10);
            Field one = given.helper("one", Type.INTEGER);
            Field oneThere = given.helper("one_there", Type.INTEGER);
            Field last = given.helper("digit", Type.INTEGER);
            Relation beside = new Relation.Join(
                    new Relation.Compute(table, List.of(new Computed(one, Expr.Literal.integer(1)))),
                    new Relation.Compute(next, List.of(new Computed(oneThere, Expr.Literal.integer(1)))),
                    List.of(new Relation.Pair(one, oneThere, false)),
                    Relation.Meeting.PAIRS,
                    List.of(new Relation.Taken(next.shape().fields().getFirst(), last)));
            Expr tens = Formula.call("*", number.value(), Expr.Literal.integer(10));
            table = new Relation.Pick(
                    new Relation.Compute(beside, List.of(new Computed(number, Formula.call("+", tens, last.value())))),
                    new Shape(List.of(number)));
        }
        return new Relation.Keep(table, Formula.call("<", number.value(), Expr.Literal.integer(count)));
    }

    /// The fields under the names that rows of a heading give. In all but the last of them a name goes on to the
    /// right, over cells where nothing stands. What has no name is called by its place: the one that it had is
    /// often a title that was taken for a heading.
    static List<Field> fromRows(List<Field> fields, List<List<@Nullable Object>> rows, String joiner) {
        List<String> names = new ArrayList<>();
        List<String> carried = new ArrayList<>(java.util.Collections.nCopies(rows.size(), ""));
        for (int c = 0; c < fields.size(); c++) {
            List<String> parts = new ArrayList<>();
            for (int r = 0; r < rows.size(); r++) {
                Object cell = rows.get(r).get(c);
                String text = cell == null ? "" : cell.toString().strip();
                boolean last = r == rows.size() - 1;
                carried.set(r, text.isEmpty() && !last ? carried.get(r) : text);
                if (!carried.get(r).isEmpty()) {
                    parts.add(carried.get(r));
                }
            }
            names.add(String.join(joiner, parts));
        }
        return named(fields, names);
    }
}
