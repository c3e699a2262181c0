package fixshelf.render.sql;

import fixshelf.language.tree.Expr;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.table.Aggregate;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.table.Sorted;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/// Fields as SQL: their names, expressions over them, what is made of their values, and what rows go by.
final class FieldSql {
    private final SqlLanguage language;
    private final RelationSql.Manner manner;

    FieldSql(SqlLanguage language, RelationSql.Manner manner) {
        this.language = language;
        this.manner = manner;
    }

    String id(String name) {
        return language.identifier(name);
    }

    String id(Field field) {
        return id(manner.field().apply(field));
    }

    /// The name of a field as an expression speaks of it.
    Expr.Name value(Field field) {
        return new Expr.Name(manner.field().apply(field), field.type());
    }

    /// An expression over the fields of a relation.
    String code(Expr expr, Relation from) {
        Map<String, Expr> values = new HashMap<>();
        from.shape().fields().forEach(f -> values.put(f.key(), value(f)));
        Expr named = Formula.renamed(expr, n -> values.getOrDefault(n.name(), n));
        return code(named);
    }

    String code(Expr expr) {
        if (expr instanceof Expr.Literal(Object value, Type type) && value == null) {
            return language.cast("NULL", type instanceof Type.Unknown ? Type.TEXT : type);
        }
        Outcome<String> code = language.expression(expr);
        return code.value()
                .orElseThrow(() -> new ProblemException(code.problems().getFirst()));
    }

    /// What begins a window over rows that are equal in these.
    String partition(List<Field> within) {
        return within.isEmpty()
                ? ""
                : "PARTITION BY " + within.stream().map(this::key).collect(Collectors.joining(", ")) + " ";
    }

    /// A field as rows are told apart by it.
    String key(Field field) {
        return language.grouped(value(field)).text();
    }

    /// What rows go by, without their places. Missing comes last in either direction.
    List<String> orderOnly(List<Sorted> by, boolean backwards) {
        List<String> parts = new ArrayList<>();
        for (Sorted sorted : by) {
            boolean last = sorted.missingFirst() == backwards;
            parts.add("CASE WHEN " + id(sorted.field()) + " IS NULL THEN " + (last ? "1 ELSE 0" : "0 ELSE 1") + " END");
            parts.add(
                    language.sorted(value(sorted.field())).text() + (sorted.descending() != backwards ? " DESC" : ""));
        }
        return parts;
    }

    /// What is made of the values of rows; `over` writes the call, maybe over a window.
    String aggregate(Aggregate aggregate, Optional<Field> of, UnaryOperator<String> over) {
        return switch (aggregate) {
            case ROWS -> over.apply("count(*)");
            case COUNT -> over.apply("count(" + id(of.orElseThrow()) + ")");
            case DISTINCT -> over.apply("count(DISTINCT " + key(of.orElseThrow()) + ")");
            case SUM -> language.sum(id(of.orElseThrow()), of.orElseThrow().type(), over);
            case LEAST ->
                over.apply("min(" + language.sorted(value(of.orElseThrow())).text() + ")");
            case GREATEST ->
                over.apply("max(" + language.sorted(value(of.orElseThrow())).text() + ")");
            case LISTED -> throw new IllegalStateException("listed over a window");
        };
    }

    /// A name that no field of a shape has.
    String free(String wanted, Shape... shapes) {
        String name = wanted;
        while (isTaken(name, shapes)) {
            name = name + "_";
        }
        return name;
    }

    boolean isTaken(String name, Shape... shapes) {
        String lower = name.toLowerCase(Locale.ROOT);
        return manner.place().filter(lower::equals).isPresent()
                || Arrays.stream(shapes)
                        .flatMap(s -> s.fields().stream())
                        .anyMatch(f ->
                                manner.field().apply(f).toLowerCase(Locale.ROOT).equals(lower));
    }
}
