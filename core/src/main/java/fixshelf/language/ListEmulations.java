package fixshelf.language;

import static fixshelf.language.Trees.call;
import static fixshelf.language.Trees.number;
import static fixshelf.language.Trees.text;
import static fixshelf.language.Trees.when;

import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/// Lists and mappings as the conditions that they stand for, and separated text as plain text.
final class ListEmulations {
    private ListEmulations() {}

    static Optional<Expr> of(Expr.Call call) {
        List<Expr> a = call.arguments();
        return switch (call.function().name()) {
            case "part_count" -> Optional.of(partCount(a.get(0), a.get(1)));
            case "first_parts" -> firstParts(a);
            case "remove_part" -> Optional.of(removePart(a.get(0), a.get(1), a.get(2)));
            case "drop_empty_parts" -> dropEmptyParts(a);
            case "in_list" -> inList(a);
            case "lookup" -> lookup(a, call.type());
            case "replace_each" -> replaceEach(a);
            case "replace_until_same" -> replaceUntilSame(a);
            default -> Optional.empty();
        };
    }

    private static Expr partCount(Expr text, Expr separator) {
        Expr without = call(TextFunctions.REPLACE, text, separator, text(""));
        Expr taken = call(Arithmetic.MINUS, call(TextFunctions.LENGTH, text), call(TextFunctions.LENGTH, without));
        boolean one =
                separator instanceof Expr.Literal(String sign, Type _) && sign.codePointCount(0, sign.length()) == 1;
        Expr times = one ? taken : call(Arithmetic.DIV, taken, call(TextFunctions.LENGTH, separator));
        return call(Arithmetic.PLUS, times, number(1));
    }

    private static Optional<Expr> firstParts(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(String sign, Type _)
                && a.get(2) instanceof Expr.Literal(Long count, Type _))) {
            return Optional.empty();
        }
        if (count < 1) {
            return Optional.of(call(TextFunctions.LEFT, a.getFirst(), number(0)));
        }
        String other = "[^" + ("\\[]^-".contains(sign) ? "\\" : "") + sign + "]*";
        String more = count == 1 ? "" : "(?:" + PatternHelp.escaped(sign) + other + "){0," + (count - 1) + "}";
        return Optional.of(call(PatternFunctions.REGEXP_EXTRACT, a.getFirst(), text("^" + other + more)));
    }

    /// Each part is put between separators of its own, so that whole parts can be found as text.
    private static Expr removePart(Expr text, Expr separator, Expr part) {
        Expr twice = call(TextFunctions.CONCAT, separator, separator);
        Expr inner = call(TextFunctions.REPLACE, text, separator, twice);
        Expr wrapped = new Expr.Call(TextFunctions.CONCAT_CALL, List.of(separator, inner, separator));
        Expr whole = new Expr.Call(TextFunctions.CONCAT_CALL, List.of(separator, part, separator));
        Expr left = call(TextFunctions.REPLACE, wrapped, whole, text(""));
        Expr bare = call(TextFunctions.REMOVE_SUFFIX, call(TextFunctions.REMOVE_PREFIX, left, separator), separator);
        return call(TextFunctions.REPLACE, bare, twice, separator);
    }

    private static Optional<Expr> dropEmptyParts(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(String separator, Type _))) {
            return Optional.empty();
        }
        String run = "(?:" + PatternHelp.escaped(separator) + ")+";
        Expr single =
                call(PatternFunctions.REGEXP_REPLACE, a.getFirst(), text(run), text(separator.replace("\\", "\\\\")));
        return Optional.of(
                call(TextFunctions.REMOVE_SUFFIX, call(TextFunctions.REMOVE_PREFIX, single, a.get(1)), a.get(1)));
    }

    private static Optional<Expr> inList(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(List<?> values, Type.ListOf(Type element)))) {
            return Optional.empty();
        }
        List<Expr> in = new ArrayList<>();
        in.add(a.getFirst());
        values.stream().filter(Objects::nonNull).forEach(v -> in.add(new Expr.Literal(v, element)));
        if (in.size() == 1) {
            return Optional.of(when(Trees.isKnown(a.getFirst()), Expr.Literal.truth(false)));
        }
        return Optional.of(new Expr.Call(Comparisons.IN, in));
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
