package fixshelf.language.emulation;

import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.PatternFunctions;
import fixshelf.language.catalogue.TextFunctions;
import fixshelf.language.catalogue.Trees;
import fixshelf.language.pattern.Regex;
import fixshelf.language.pattern.Regex.CharacterSet;
import fixshelf.language.pattern.RegexParser;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/// Asks first, where that is cheap, whether a text would be changed at all.
///
/// Most values of a column are clean already. A search for the few signs that a replacement or a trim could touch
/// takes a fraction of what the replacement takes, so `trim(regexp_replace(x, ' +', ' '))` is worked out only where
/// `x` holds two spaces side by side, or one at an end. The answer is the same for every value.
public final class Untouched {
    private static final int MOST_TESTS = 4;

    private Untouched() {}

    /// The expression with such questions before the chains of replacements and trims that are its results.
    ///
    /// Only chains with a pattern are worth it, over a plain name, which can be written again at no cost, and only
    /// where no more than four questions are needed.
    public static Expr tested(Expr expr) {
        return switch (expr) {
            case Expr.Case(List<Expr.Branch> branches, Expr otherwise, Type type) ->
                new Expr.Case(
                        branches.stream()
                                .map(b -> new Expr.Branch(b.condition(), tested(b.result())))
                                .toList(),
                        tested(otherwise),
                        type);
            case Expr.Call call -> chain(call);
            case Expr.Literal _, Expr.Name _, Expr.FixCall _ -> expr;
        };
    }

    private static Expr chain(Expr.Call last) {
        List<Expr.Call> calls = new ArrayList<>();
        Expr at = last;
        while (at instanceof Expr.Call call) {
            calls.add(call);
            at = call.arguments().isEmpty() ? Expr.Literal.NULL : call.argument(0);
        }
        boolean slow = calls.stream().anyMatch(c -> c.function() == PatternFunctions.REGEXP_REPLACE);
        if (!slow || !(at instanceof Expr.Name name)) {
            return last;
        }
        Set<Expr> tests = new LinkedHashSet<>();
        for (Expr.Call call : calls) {
            Optional<List<Expr>> questions = questions(call, name);
            if (questions.isEmpty()) {
                return last;
            }
            tests.addAll(questions.get());
        }
        return tests.stream()
                .reduce((a, b) -> Trees.call(Comparisons.OR, a, b))
                .filter(_ -> tests.size() <= MOST_TESTS)
                .map(touched -> Trees.when(touched, last, name))
                .orElse(last);
    }

    /// Of which one at least is true for every text of that name that the call would change; empty when that is not
    /// known.
    private static Optional<List<Expr>> questions(Expr.Call call, Expr.Name name) {
        FunctionDef function = call.function();
        boolean known = call.arguments().stream().skip(1).allMatch(Untouched::isText);
        if (!known) {
            return Optional.empty();
        }
        if (function == TextFunctions.REPLACE && !text(call, 1).isEmpty()) {
            return Optional.of(asked(TextFunctions.CONTAINS, name, List.of(text(call, 1))));
        }
        if (function == PatternFunctions.REGEXP_REPLACE) {
            return RegexParser.parse(text(call, 1))
                    .value()
                    .flatMap(regex -> needles(regex, text(call, 2)))
                    .map(needles -> asked(TextFunctions.CONTAINS, name, needles));
        }
        boolean atStart = function == TextFunctions.TRIM || function == TextFunctions.LTRIM;
        boolean atEnd = function == TextFunctions.TRIM || function == TextFunctions.RTRIM;
        if (!atStart && !atEnd) {
            return Optional.empty();
        }
        String characters = call.arguments().size() > 1 ? text(call, 1) : " ";
        List<String> signs =
                characters.codePoints().mapToObj(Character::toString).toList();
        List<Expr> questions = new ArrayList<>();
        if (atStart) {
            questions.addAll(asked(TextFunctions.STARTS_WITH, name, signs));
        }
        if (atEnd) {
            questions.addAll(asked(TextFunctions.ENDS_WITH, name, signs));
        }
        return Optional.of(questions);
    }

    private static boolean isText(Expr argument) {
        return argument instanceof Expr.Literal(String _, Type _);
    }

    private static String text(Expr.Call call, int index) {
        return call.argument(index) instanceof Expr.Literal(String text, Type _) ? text : "";
    }

    private static List<Expr> asked(FunctionDef question, Expr.Name name, List<String> signs) {
        return signs.stream()
                .map(sign -> Trees.call(question, name, Trees.text(sign)))
                .toList();
    }

    /// Texts of which one at least stands in every text that the replacement changes; empty when there are none, too
    /// many, or only such as stand in nearly every text.
    static Optional<List<String>> needles(Regex regex, String replacement) {
        return itself(regex, replacement)
                .or(() -> needles(regex))
                .filter(n -> !n.isEmpty() && n.size() <= MOST_TESTS)
                .filter(n -> n.stream().noneMatch(Untouched::isEverywhere));
    }

    private static boolean isEverywhere(String needle) {
        return needle.length() == 1 && (needle.equals(" ") || Character.isLetterOrDigit(needle.charAt(0)));
    }

    /// A run of signs that becomes one of them: that one alone is not changed, two of them are.
    private static Optional<List<String>> itself(Regex regex, String replacement) {
        boolean run = regex instanceof Regex.Repeat(CharacterSet _, int least, int _, boolean _) && least == 1;
        Optional<List<String>> signs = run ? needles(((Regex.Repeat) regex).part()) : Optional.empty();
        return signs.filter(s -> s.contains(replacement)).map(s -> s.stream()
                .map(sign -> sign.equals(replacement) ? sign + sign : sign)
                .toList());
    }

    /// Texts of which one at least stands in every match.
    private static Optional<List<String>> needles(Regex regex) {
        return switch (regex) {
            case CharacterSet set -> members(set);
            case Regex.Group(Regex part, int _) -> needles(part);
            case Regex.Repeat(CharacterSet set, int least, int _, boolean _)
            when least > 1 && set.isSingle() -> Optional.of(List.of(sign(set).repeat(least)));
            case Regex.Repeat(Regex part, int least, int _, boolean _) -> least == 0 ? Optional.empty() : needles(part);
            case Regex.Alternatives(List<Regex> choices) -> all(choices);
            case Regex.Sequence(List<Regex> parts) -> best(parts);
            case Regex.Start _, Regex.End _, Regex.Boundary _ -> Optional.empty();
        };
    }

    private static Optional<List<String>> members(CharacterSet set) {
        int count =
                set.ranges().stream().mapToInt(r -> r.last() - r.first() + 1).sum();
        if (set.negated() || count > MOST_TESTS) {
            return Optional.empty();
        }
        return Optional.of(set.ranges().stream()
                .flatMap(r -> IntStream.rangeClosed(r.first(), r.last()).mapToObj(Character::toString))
                .distinct()
                .toList());
    }

    private static String sign(CharacterSet single) {
        return Character.toString(single.own().getFirst().first());
    }

    private static Optional<List<String>> all(List<Regex> choices) {
        List<Optional<List<String>>> each =
                choices.stream().map(Untouched::needles).toList();
        return each.stream().allMatch(Optional::isPresent)
                ? Optional.of(
                        each.stream().flatMap(n -> n.get().stream()).distinct().toList())
                : Optional.empty();
    }

    /// Of what the parts need, and of the signs that follow one another, the rarest: few texts, long ones.
    private static Optional<List<String>> best(List<Regex> parts) {
        List<List<String>> candidates = new ArrayList<>();
        StringBuilder run = new StringBuilder();
        for (Regex part : parts) {
            if (part instanceof CharacterSet set && set.isSingle()) {
                run.append(sign(set));
                continue;
            }
            flush(run, candidates);
            needles(part).ifPresent(candidates::add);
        }
        flush(run, candidates);
        return candidates.stream()
                .min(Comparator.<List<String>>comparingInt(List::size)
                        .thenComparing(
                                n -> -n.stream().mapToInt(String::length).min().orElse(0)));
    }

    private static void flush(StringBuilder run, List<List<String>> candidates) {
        if (!run.isEmpty()) {
            candidates.add(List.of(run.toString()));
            run.setLength(0);
        }
    }
}
