package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.text;
import static fixshelf.language.catalogue.Trees.when;

import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.Entry;
import fixshelf.language.catalogue.NullFunctions;
import fixshelf.language.catalogue.TextFunctions;
import fixshelf.language.catalogue.Trees;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/// Lists and mappings as the conditions that they stand for.
final class ListEmulations {
    private ListEmulations() {}

    static Optional<Expr> of(Expr.Call call) {
        List<Expr> a = call.arguments();
        return switch (call.function().name()) {
            case "in_list" -> inList(a);
            case "is_key" -> isKey(a);
            case "lookup" -> lookup(a, call.type());
            case "replace_each" -> replaceEach(a);
            case "replace_until_same" -> replaceUntilSame(a);
            default -> PartEmulations.of(call);
        };
    }

    private static Optional<Expr> inList(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(List<?> values, Type.ListOf(Type element)))) {
            return Optional.empty();
        }
        return Optional.of(oneOf(a.getFirst(), values, element));
    }

    private static Optional<Expr> isKey(List<Expr> a) {
        return a.get(1) instanceof Expr.Literal(Map<?, ?> pairs, Type.Mapping(Type from, Type _))
                ? Optional.of(oneOf(a.getFirst(), pairs.keySet(), from))
                : Optional.empty();
    }

    private static Expr oneOf(Expr value, Collection<?> choices, Type type) {
        List<Expr> in = new ArrayList<>();
        in.add(value);
        choices.stream().filter(Objects::nonNull).forEach(v -> in.add(new Expr.Literal(v, type)));
        return in.size() == 1
                ? when(Trees.isKnown(value), Expr.Literal.truth(false))
                : new Expr.Call(Comparisons.IN, in);
    }

    /// One branch for each value that the mapping leads to.
    private static Optional<Expr> lookup(List<Expr> a, Type type) {
        if (!(a.get(1) instanceof Expr.Literal(Map<?, ?> pairs, Type.Mapping(Type from, Type to)))) {
            return Optional.empty();
        }
        Expr value = a.getFirst();
        Map<Optional<Object>, List<Expr>> byTarget = new LinkedHashMap<>();
        pairs.forEach((key, target) -> byTarget.computeIfAbsent(
                        Optional.ofNullable(target), _ -> new ArrayList<>(List.of(value)))
                .add(new Expr.Literal(key, from)));
        List<Expr.Branch> branches = new ArrayList<>();
        byTarget.forEach((target, choices) -> branches.add(new Expr.Branch(
                choices.size() == 2
                        ? new Expr.Call(Comparisons.EQUAL, choices)
                        : new Expr.Call(Comparisons.IN, choices),
                new Expr.Literal(target.orElse(null), to))));
        Expr otherwise = a.size() > 2 ? a.get(2) : new Expr.Literal(null, type);
        boolean nullStays = otherwise.equals(value) || otherwise instanceof Expr.Literal(Object o, Type _) && o == null;
        if (!nullStays) {
            branches.add(new Expr.Branch(call(NullFunctions.IS_NULL, value), new Expr.Literal(null, type)));
        }
        return Optional.of(branches.isEmpty() ? otherwise : new Expr.Case(branches, otherwise, type));
    }

    private static Optional<Expr> replaceEach(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(Map<?, ?> pairs, Type _))) {
            return Optional.empty();
        }
        Expr replaced = a.getFirst();
        for (Map.Entry<?, ?> pair : pairs.entrySet()) {
            replaced = call(
                    TextFunctions.REPLACE,
                    replaced,
                    text(String.valueOf(pair.getKey())),
                    text(String.valueOf(pair.getValue())));
        }
        return Optional.of(replaced);
    }

    private static Optional<Expr> replaceUntilSame(List<Expr> a) {
        boolean known = a.get(1) instanceof Expr.Literal && a.get(2) instanceof Expr.Literal;
        if (!known || !(a.get(3) instanceof Expr.Literal(Long most, Type _))) {
            return Optional.empty();
        }
        Expr replaced = a.getFirst();
        for (long i = 0; i < most; i++) {
            replaced = call(TextFunctions.REPLACE, replaced, a.get(1), a.get(2));
        }
        if (a.get(1).equals(a.get(2)) || a.get(1).equals(text(""))) {
            return Optional.of(a.getFirst());
        }
        Expr done = call(Comparisons.NOT, call(TextFunctions.CONTAINS, replaced, a.get(1)));
        return Optional.of(when(done, replaced));
    }
}
