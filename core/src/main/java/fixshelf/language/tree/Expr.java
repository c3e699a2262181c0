package fixshelf.language.tree;

import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// A typed expression, checked against the catalogue. It knows no places: those are in the problems of its checking.
public sealed interface Expr {
    Type type();

    /// The parameters, columns and `SET` names that it speaks of.
    default Set<String> names() {
        return parts().stream()
                .filter(Name.class::isInstance)
                .map(p -> ((Name) p).name())
                .collect(Collectors.toSet());
    }

    /// What stands directly in it, in the order in which it is written.
    default List<Expr> children() {
        return switch (this) {
            case Literal _, Name _ -> List.of();
            case Call call -> call.arguments();
            case FixCall call -> call.arguments();
            case Case(List<Branch> branches, Expr otherwise, Type _) ->
                Stream.concat(
                                branches.stream().flatMap(b -> Stream.of(b.condition(), b.result())),
                                Stream.of(otherwise))
                        .toList();
        };
    }

    /// The same over other children of the same types.
    default Expr withChildren(UnaryOperator<Expr> change) {
        return switch (this) {
            case Literal _, Name _ -> this;
            case Call(FunctionDef function, List<Expr> arguments, Type type) ->
                new Call(function, arguments.stream().map(change).toList(), type);
            case FixCall(Definition fix, List<Expr> arguments) ->
                new FixCall(fix, arguments.stream().map(change).toList());
            case Case(List<Branch> branches, Expr otherwise, Type type) ->
                new Case(
                        branches.stream()
                                .map(b -> new Branch(change.apply(b.condition()), change.apply(b.result())))
                                .toList(),
                        change.apply(otherwise),
                        type);
        };
    }

    /// Itself and all that stands in it; a part that stands in several places is one object, and comes once.
    default List<Expr> parts() {
        List<Expr> parts = new ArrayList<>();
        collect(parts, Collections.newSetFromMap(new IdentityHashMap<>()));
        return parts;
    }

    private void collect(List<Expr> parts, Set<Expr> seen) {
        if (seen.add(this)) {
            parts.add(this);
            children().forEach(c -> c.collect(parts, seen));
        }
    }

    /// A constant; `value` is null for NULL.
    record Literal(@Nullable Object value, Type type) implements Expr {
        /// The pairs of a mapping have an order, and two that differ in it are not the same.
        @Override
        public boolean equals(@Nullable Object other) {
            return other instanceof Literal(Object otherValue, Type otherType)
                    && type.equals(otherType)
                    && Objects.equals(ordered(value), ordered(otherValue));
        }

        @Override
        public int hashCode() {
            return Objects.hash(value, type);
        }

        private static @Nullable Object ordered(@Nullable Object value) {
            return value instanceof Map<?, ?> pairs ? List.copyOf(pairs.entrySet()) : value;
        }

        public static final Literal NULL = new Literal(null, Type.UNKNOWN);

        public static Literal text(String value) {
            return new Literal(value, Type.TEXT);
        }

        public static Literal integer(long value) {
            return new Literal(value, Type.INTEGER);
        }

        public static Literal truth(boolean value) {
            return new Literal(value, Type.BOOLEAN);
        }
    }

    /// A parameter, a column or the name of a `SET`, with the capitals of its declaration.
    record Name(String name, Type type) implements Expr {}

    /// A call of a catalogue function; operators are functions too.
    record Call(FunctionDef function, List<Expr> arguments, Type type) implements Expr {
        public Call {
            arguments = List.copyOf(arguments);
        }

        public Call(FunctionDef function, List<Expr> arguments) {
            this(function, arguments, function.resultOf(arguments));
        }

        public Expr argument(int index) {
            return arguments.get(index);
        }
    }

    /// The first branch whose condition is true; a null condition counts as false.
    record Case(List<Branch> branches, Expr otherwise, Type type) implements Expr {
        public Case {
            branches = List.copyOf(branches);
        }
    }

    /// One `WHEN condition THEN result`.
    record Branch(Expr condition, Expr result) {}

    /// A call of another fix; one argument for each parameter, defaults filled in.
    record FixCall(Definition fix, List<Expr> arguments) implements Expr {
        public FixCall {
            arguments = List.copyOf(arguments);
        }

        @Override
        public Type type() {
            return fix.returns();
        }
    }
}
