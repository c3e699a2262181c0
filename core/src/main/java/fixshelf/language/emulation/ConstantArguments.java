package fixshelf.language.emulation;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.Constants;
import fixshelf.language.catalogue.Conversions;
import fixshelf.language.catalogue.DateFunctions;
import fixshelf.language.catalogue.DateLayout;
import fixshelf.language.catalogue.LetterFunctions;
import fixshelf.language.catalogue.ListFunctions;
import fixshelf.language.catalogue.PartFunctions;
import fixshelf.language.catalogue.PatternFunctions;
import fixshelf.language.catalogue.TimeFunctions;
import fixshelf.language.pattern.Regex;
import fixshelf.language.pattern.RegexParser;
import fixshelf.language.pattern.Regexes;
import fixshelf.language.pattern.Replacement;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.type.Type;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// Looks at arguments whose value is already known: patterns, replacements, scales, code points.
///
/// A pattern that comes through a parameter is looked at where the parameter gets its value.
public final class ConstantArguments {
    private static final int MOST_PARTS = 100;
    private static final Set<FunctionDef> ONE_SIGN = Set.of(
            PartFunctions.FIRST_PARTS, PartFunctions.SKIP_PARTS, PartFunctions.SKIP_PARTS_IN, PartFunctions.KEEP_PARTS);
    private static final Set<FunctionDef> LISTED =
            Set.of(PartFunctions.SKIP_PARTS_IN, PartFunctions.REMOVE_PARTS, PartFunctions.KEEP_PARTS);

    private ConstantArguments() {}

    /// Why a constant argument will not do, and which one.
    public record Refusal(int argument, Code code, String what, String todo) {}

    /// The first constant argument of a call that will not do; arguments that are not constants are passed over.
    public static Optional<Refusal> problemWith(FunctionDef function, List<Expr> arguments) {
        if (function.group() == FunctionDef.Group.PATTERN
                && arguments.get(1) instanceof Expr.Literal(String pattern, Type _)) {
            return pattern(function, pattern, arguments);
        }
        int last = arguments.size() - 1;
        boolean scaled = function.slots().getLast().name().equals("scale")
                && last == function.slots().size() - 1;
        if (scaled) {
            Optional<Refusal> refusal = inRange(arguments, last, 0, 18, "A scale is 0 to 18.");
            return refusal.isPresent() || function != Arithmetic.ROUND_TO_PART
                    ? refusal
                    : inRange(arguments, 1, 1, 1000, "Parts are 1 to 1000.");
        }
        if (function == Arithmetic.NARROW) {
            Optional<Refusal> refusal = inRange(arguments, 1, 1, 38, "A decimal has 1 to 38 digits.");
            long most = arguments.get(1) instanceof Expr.Literal(Long precision, Type _) ? precision : 38;
            boolean open = arguments.stream().skip(1).anyMatch(a -> !(a instanceof Expr.Literal));
            return open
                    ? Optional.of(new Refusal(
                            1, Code.NOT_CONSTANT, "The digits are part of the type.", "Write them as numbers."))
                    : refusal.isPresent()
                            ? refusal
                            : inRange(arguments, 2, 0, most, "So many digits after the point there cannot be.");
        }
        Optional<DateLayout.Use> use = use(function);
        if (use.isPresent()) {
            return layouts(use.get(), arguments);
        }
        boolean inZone = function == TimeFunctions.TO_ZONE || function == TimeFunctions.FROM_ZONE;
        if (inZone && arguments.get(1) instanceof Expr.Literal(String name, Type _)) {
            return Zones.problemWith(name).map(what -> new Refusal(1, Code.ARGUMENTS, what, Zones.suggestion(name)));
        }
        boolean serial = function == DateFunctions.SERIAL_TO_DATE || function == TimeFunctions.SERIAL_TO_TIMESTAMP;
        if (serial && arguments.size() > 1) {
            boolean wrong = arguments.get(1) instanceof Expr.Literal(Long base, Type _) && base != 1900 && base != 1904;
            return wrong
                    ? Optional.of(new Refusal(1, Code.ARGUMENTS, "The base is 1900 or 1904.", "Give one of the two."))
                    : Optional.empty();
        }
        if (function.group() == FunctionDef.Group.LIST) {
            return separated(function, arguments);
        }
        if (function == LetterFunctions.LPAD || function == LetterFunctions.RPAD) {
            return inRange(arguments, 1, 0, 1000, "A length is 0 to 1000.");
        }
        if (function == Conversions.CHR) {
            return code(arguments.getFirst());
        }
        if (function == Comparisons.LIKE
                && arguments.size() > 2
                && arguments.get(2) instanceof Expr.Literal(String escape, Type _)
                && escape.codePointCount(0, escape.length()) != 1) {
            return Optional.of(new Refusal(2, Code.BAD_PATTERN, "ESCAPE takes one character.", "Write ESCAPE '!'."));
        }
        return Optional.empty();
    }

    private static Optional<Refusal> pattern(FunctionDef function, String pattern, List<Expr> arguments) {
        Outcome<Regex> regex = RegexParser.parse(pattern);
        if (!regex.isPresent()) {
            Problem first = regex.problems().getFirst();
            return Optional.of(new Refusal(1, Code.BAD_PATTERN, first.what(), first.todo()));
        }
        if (function == PatternFunctions.REGEXP_REPLACE) {
            if (Regexes.canBeEmpty(regex.get())) {
                return Optional.of(new Refusal(
                        1,
                        Code.BAD_PATTERN,
                        "This pattern can match the empty text, and engines then differ.",
                        "Ask for at least one character, with + instead of *."));
            }
            return replacement(regex.get(), arguments.get(2));
        }
        if (arguments.size() > 2 && arguments.get(2) instanceof Expr.Literal(Long group, Type _)) {
            int groups = Regexes.groups(regex.get());
            return inRange(arguments, 2, 0, groups, "The pattern has " + groups + " groups, not " + group + ".");
        }
        return Optional.empty();
    }

    private static Optional<Refusal> replacement(Regex regex, Expr argument) {
        if (!(argument instanceof Expr.Literal(String text, Type _))) {
            return Optional.empty();
        }
        int groups = Regexes.groups(regex);
        return Replacement.problemWith(text, groups)
                .map(what ->
                        new Refusal(2, Code.BAD_PATTERN, what, "Write \\\\ for a backslash, \\1 for the first group."));
    }

    private static Optional<DateLayout.Use> use(FunctionDef function) {
        return switch (function.name()) {
            case "to_date" -> Optional.of(DateLayout.Use.READ_DATE);
            case "format_date" -> Optional.of(DateLayout.Use.WRITE_DATE);
            case "to_timestamp" -> Optional.of(DateLayout.Use.READ_TIME);
            case "format_timestamp" -> Optional.of(DateLayout.Use.WRITE_TIME);
            default -> Optional.empty();
        };
    }

    private static Optional<Refusal> layouts(DateLayout.Use use, List<Expr> arguments) {
        for (int i = 1; i < arguments.size(); i++) {
            if (arguments.get(i) instanceof Expr.Literal(String layout, Type _)) {
                Optional<String> problem = DateLayout.problemWith(layout, use);
                if (problem.isPresent()) {
                    return Optional.of(new Refusal(i, Code.BAD_PATTERN, problem.get(), "Write dd/MM/yyyy, say."));
                }
            }
        }
        return Optional.empty();
    }

    private static Optional<Refusal> separated(FunctionDef function, List<Expr> arguments) {
        boolean cuts =
                function.slots().size() > 1 && function.slots().get(1).name().equals("separator");
        if (cuts && arguments.get(1) instanceof Expr.Literal(String separator, Type _)) {
            boolean one = ONE_SIGN.contains(function) && separator.codePointCount(0, separator.length()) != 1;
            if (separator.isEmpty() || one) {
                String wanted = one ? "one character" : "not empty";
                return Optional.of(
                        new Refusal(1, Code.ARGUMENTS, "The separator is " + wanted + ".", "Give ',' or ';', say."));
            }
        }
        if (function == PartFunctions.SPLIT_PART && arguments.get(2).equals(Expr.Literal.integer(0))) {
            return Optional.of(new Refusal(
                    2, Code.ARGUMENTS, "Parts are counted from 1.", "Give 1 for the first, -1 for the last."));
        }
        if (function == PartFunctions.REMOVE_PART && arguments.get(2).equals(Expr.Literal.text(""))) {
            return Optional.of(
                    new Refusal(2, Code.ARGUMENTS, "The part is not empty.", "Write drop_empty_parts(text, ',')."));
        }
        if (function == ListFunctions.DATE_RANGE) {
            return days(arguments);
        }
        if (LISTED.contains(function) && arguments.get(2) instanceof Expr.Literal(List<?> parts, Type _)) {
            return parts(function, parts);
        }
        if (function == PartFunctions.FIRST_PARTS || function == PartFunctions.SKIP_PARTS) {
            return inRange(arguments, 2, 0, 200, "A count is 0 to 200.");
        }
        return function == ListFunctions.REPLACE_UNTIL_SAME
                ? inRange(arguments, 3, 1, 12, "The bound is 1 to 12.")
                : Optional.empty();
    }

    private static Optional<Refusal> days(List<Expr> arguments) {
        boolean tooMany = arguments.get(0) instanceof Expr.Literal(LocalDate first, Type _)
                && arguments.get(1) instanceof Expr.Literal(LocalDate last, Type _)
                && ChronoUnit.DAYS.between(first, last) >= Constants.MOST_DAYS;
        return tooMany
                ? Optional.of(new Refusal(
                        1, Code.ARGUMENTS, "A list has at most 10,000 days.", "Compare with the two days instead."))
                : Optional.empty();
    }

    private static Optional<Refusal> parts(FunctionDef function, List<?> parts) {
        boolean text = !parts.isEmpty() && parts.stream().allMatch(String.class::isInstance);
        boolean empty = function == PartFunctions.REMOVE_PARTS && parts.contains("");
        return text && !empty && parts.size() <= MOST_PARTS
                ? Optional.empty()
                : Optional.of(new Refusal(
                        2,
                        Code.ARGUMENTS,
                        empty ? "The empty part is not in this list." : "The list has 1 to 100 texts, no null.",
                        empty ? "Write drop_empty_parts(text, ',') for that." : "Give ARRAY['n/a', '-'], say."));
    }

    private static Optional<Refusal> inRange(List<Expr> arguments, int index, long low, long high, String what) {
        boolean wrong =
                arguments.get(index) instanceof Expr.Literal(Long value, Type _) && (value < low || value > high);
        return wrong
                ? Optional.of(new Refusal(index, Code.ARGUMENTS, what, "Give " + low + " to " + high + "."))
                : Optional.empty();
    }

    private static Optional<Refusal> code(Expr argument) {
        boolean wrong = argument instanceof Expr.Literal(Long value, Type _)
                && (value < 1 || value > 0x10FFFF || value >= 0xD800 && value <= 0xDFFF);
        return wrong
                ? Optional.of(new Refusal(0, Code.ARGUMENTS, "There is no such character.", "Give 1 to 1114111."))
                : Optional.empty();
    }
}
