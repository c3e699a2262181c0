package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.number;
import static fixshelf.language.catalogue.Trees.text;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.PatternFunctions;
import fixshelf.language.catalogue.Separators;
import fixshelf.language.catalogue.TextFunctions;
import fixshelf.language.pattern.PatternHelp;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.BinaryOperator;
import java.util.stream.Collectors;

/// Separated text with the functions of plain text and with patterns.
final class PartEmulations {
    private PartEmulations() {}

    static Optional<Expr> of(Expr.Call call) {
        List<Expr> a = call.arguments();
        return switch (call.function().name()) {
            case "part_count" -> Optional.of(partCount(a.get(0), a.get(1)));
            case "first_parts" -> firstParts(a);
            case "skip_parts" -> skipParts(a);
            case "skip_parts_in" -> parts(a).map(p -> skipPartsIn(a.get(0), p));
            case "remove_part" -> Optional.of(removePart(a.get(0), a.get(1), a.get(2)));
            case "remove_parts" -> parts(a).map(p -> removeParts(a.get(0), p));
            case "keep_parts" -> parts(a).map(p -> keepParts(a.get(0), p));
            case "drop_empty_parts" ->
                a.get(1) instanceof Expr.Literal
                        ? Optional.of(
                                withClearSeparator(a.get(0), a.get(1), (text, sign) -> dropEmptyParts(text, sign)))
                        : Optional.empty();
            default -> Optional.empty();
        };
    }

    /// A separator and a list of parts, when both are known.
    private record Parts(String separator, List<String> all) {}

    private static Optional<Parts> parts(List<Expr> a) {
        return a.get(1) instanceof Expr.Literal(String separator, Type _)
                        && a.get(2) instanceof Expr.Literal(List<?> values, Type _)
                ? Optional.of(new Parts(
                        separator,
                        values.stream()
                                .filter(String.class::isInstance)
                                .map(String.class::cast)
                                .distinct()
                                .toList()))
                : Optional.empty();
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
        String other = "[^" + inSet(sign) + "]*";
        String more = count == 1 ? "" : "(?:" + PatternHelp.escaped(sign) + other + "){0," + (count - 1) + "}";
        return Optional.of(call(PatternFunctions.REGEXP_EXTRACT, a.getFirst(), text("^" + other + more)));
    }

    /// A character that Unicode reserves and no text is to hold. It stands for separators while parts are looked for.
    private static final String RESERVED = "\uFDD0";

    /// Works on a text whose separator cannot be read in two ways. Beside a text that begins or ends with a part of it,
    /// `--` could begin one sign earlier; such separators, and those that are not known yet, are set aside as one
    /// character before, and put back after.
    private static Expr withClearSeparator(Expr text, Expr separator, BinaryOperator<Expr> work) {
        if (separator instanceof Expr.Literal(String sign, Type _) && !Separators.overlapItself(sign)) {
            return work.apply(text, separator);
        }
        Expr reserved = text(RESERVED);
        Expr result = work.apply(call(TextFunctions.REPLACE, text, separator, reserved), reserved);
        return call(TextFunctions.REPLACE, result, reserved, separator);
    }

    /// What is not known yet, or holds the separator, is looked for where every separator has become another sign.
    private static Expr removePart(Expr text, Expr separator, Expr part) {
        boolean known = separator instanceof Expr.Literal(String sign, Type _)
                && part instanceof Expr.Literal(String whole, Type _)
                && !whole.contains(sign);
        boolean none = separator instanceof Expr.Literal && part instanceof Expr.Literal && !known;
        return none ? text : withClearSeparator(text, separator, (t, sign) -> withoutPart(t, sign, part));
    }

    /// Each part is put between separators of its own, so that whole parts can be found as text.
    private static Expr withoutPart(Expr text, Expr separator, Expr part) {
        Expr twice = joined(separator, separator);
        Expr inner = call(TextFunctions.REPLACE, text, separator, twice);
        Expr wrapped = new Expr.Call(TextFunctions.CONCAT_CALL, List.of(separator, inner, separator));
        Expr whole = joined(separator, part, separator);
        Expr left = call(TextFunctions.REPLACE, wrapped, whole, text(""));
        Expr bare = call(TextFunctions.REMOVE_SUFFIX, call(TextFunctions.REMOVE_PREFIX, left, separator), separator);
        return call(TextFunctions.REPLACE, bare, twice, separator);
    }

    private static Expr joined(Expr... texts) {
        StringBuilder whole = new StringBuilder();
        for (Expr text : texts) {
            if (!(text instanceof Expr.Literal(String known, Type _))) {
                return new Expr.Call(TextFunctions.CONCAT_CALL, List.of(texts));
            }
            whole.append(known);
        }
        return text(whole.toString());
    }

    private static Expr dropEmptyParts(Expr text, Expr separator) {
        String sign = (String) Objects.requireNonNull(((Expr.Literal) separator).value());
        String run = "(?:" + PatternHelp.escaped(sign) + ")+";
        Expr single = call(PatternFunctions.REGEXP_REPLACE, text, text(run), text(sign.replace("\\", "\\\\")));
        return call(TextFunctions.REMOVE_SUFFIX, call(TextFunctions.REMOVE_PREFIX, single, separator), separator);
    }

    private static Optional<Expr> skipParts(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(String sign, Type _)
                && a.get(2) instanceof Expr.Literal(Long count, Type _))) {
            return Optional.empty();
        }
        if (count < 1) {
            return Optional.of(a.getFirst());
        }
        String part = "[^" + inSet(sign) + "]*" + PatternHelp.escaped(sign);
        return Optional.of(skipped(a.getFirst(), sign, "^(?:" + part + "){1," + count + "}"));
    }

    private static Expr skipPartsIn(Expr text, Parts parts) {
        if (parts.all().stream().allMatch(p -> p.contains(parts.separator()))) {
            return text;
        }
        String each = one(parts.all(), parts.separator()) + PatternHelp.escaped(parts.separator());
        return skipped(text, parts.separator(), "^(?:" + each + ")+");
    }

    /// Every part is given a separator after it, so that whole parts can be taken away at the beginning.
    private static Expr skipped(Expr text, String separator, String pattern) {
        Expr closed = call(TextFunctions.CONCAT, text, text(separator));
        Expr rest = call(PatternFunctions.REGEXP_REPLACE, closed, text(pattern), text(""));
        return call(TextFunctions.REMOVE_SUFFIX, rest, text(separator));
    }

    private static Expr removeParts(Expr text, Parts parts) {
        Expr left = text;
        for (String part : parts.all()) {
            left = removePart(left, text(parts.separator()), text(part));
        }
        return left;
    }

    /// As [#removePart], with a pattern for all parts that are not wanted. Where empty parts go too, what is left has
    /// no separators at its ends but those that were put there.
    private static Expr keepParts(Expr text, Parts parts) {
        String sign = parts.separator();
        boolean empty = parts.all().contains("");
        Expr inner = empty
                ? call(TextFunctions.REPLACE, text, text(sign), text(sign + sign))
                : call(
                        PatternFunctions.REGEXP_REPLACE,
                        text,
                        text(PatternHelp.escaped(sign) + "+"),
                        text((sign + sign).replace("\\", "\\\\")));
        Expr wrapped = new Expr.Call(TextFunctions.CONCAT_CALL, List.of(text(sign), inner, text(sign)));
        String one = PatternHelp.escaped(sign);
        Expr left = call(
                PatternFunctions.REGEXP_REPLACE, wrapped, text(one + other(parts.all(), sign, true) + one), text(""));
        if (!empty) {
            return call(
                    TextFunctions.TRIM, call(TextFunctions.REPLACE, left, text(sign + sign), text(sign)), text(sign));
        }
        Expr bare = call(TextFunctions.REMOVE_SUFFIX, call(TextFunctions.REMOVE_PREFIX, left, text(sign)), text(sign));
        return call(TextFunctions.REPLACE, bare, text(sign + sign), text(sign));
    }

    /// What follows the first character of these texts, by that character; those that hold the separator are no parts.
    private static Map<String, List<String>> byFirst(List<String> texts, String separator) {
        Map<String, List<String>> rests = new TreeMap<>();
        texts.stream().filter(t -> !t.isEmpty() && !t.contains(separator)).forEach(t -> {
            String first = Character.toString(t.codePointAt(0));
            rests.computeIfAbsent(first, _ -> new ArrayList<>()).add(t.substring(first.length()));
        });
        return rests;
    }

    /// A pattern for these texts, whose alternatives always begin differently, as some languages look for the longest.
    private static String one(List<String> texts, String separator) {
        String ways = byFirst(texts, separator).entrySet().stream()
                .map(e -> PatternHelp.escaped(e.getKey()) + one(e.getValue(), separator))
                .collect(Collectors.joining("|"));
        return ways.isEmpty() ? "" : "(?:" + ways + ")" + (texts.contains("") ? "?" : "");
    }

    /// A pattern for every text without the separator that is none of these: letter by letter, where it leaves them.
    /// The empty text, which is between two separators that touch, is never found.
    private static String other(List<String> wanted, String separator, boolean whole) {
        List<String> ways = new ArrayList<>();
        StringBuilder known = new StringBuilder();
        byFirst(wanted, separator).forEach((first, rests) -> {
            ways.add(PatternHelp.escaped(first) + other(rests, separator, false));
            known.append(inSet(first));
        });
        ways.add("[^" + inSet(separator) + known + "][^" + inSet(separator) + "]*");
        return "(?:" + String.join("|", ways) + ")" + (whole || wanted.contains("") ? "" : "?");
    }

    private static String inSet(String sign) {
        return ("\\[]^-".contains(sign) ? "\\" : "") + sign;
    }
}
