package fixshelf.language;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Span;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;
import org.apache.calcite.sql.SqlCall;

/// Looks at arguments whose value is already known: patterns, replacements, scales, code points.
///
/// A pattern that comes through a parameter is looked at where the parameter gets its value, with
/// [#problemWith].
public final class ConstantArguments {
    private final ExpressionParser parser;
    private final SqlCall call;

    ConstantArguments(ExpressionParser parser, SqlCall call) {
        this.parser = parser;
        this.call = call;
    }

    List<Problem> check(FunctionDef function, List<Expr> arguments) {
        Optional<Refusal> refusal = problemWith(function, arguments);
        if (refusal.isEmpty()) {
            return List.of();
        }
        Span span = parser.spanOf(call.operand(Math.min(refusal.get().argument(), call.operandCount() - 1))
                .getParserPosition());
        return List.of(parser.problem(
                refusal.get().code(), span, refusal.get().what(), refusal.get().todo()));
    }

    /// Why a constant argument will not do, and which one.
    public record Refusal(int argument, Code code, String what, String todo) {}

    /// The first constant argument of a call that will not do; arguments that are not constants are passed over.
    public static Optional<Refusal> problemWith(FunctionDef function, List<Expr> arguments) {
        if (function.group() == FunctionDef.Group.PATTERN
                && arguments.get(1) instanceof Expr.Literal(String pattern, Type _)) {
            return pattern(function, pattern, arguments);
        }
        if (function == Conversions.TO_DECIMAL && arguments.size() > 1) {
            return inRange(arguments.get(1), 0, 18, "A scale is 0 to 18.");
        }
        if (function == DateFunctions.TO_DATE || function == DateFunctions.FORMAT_DATE) {
            return layouts(function == DateFunctions.TO_DATE, arguments);
        }
        if (function == DateFunctions.SERIAL_TO_DATE && arguments.size() > 1) {
            boolean wrong = arguments.get(1) instanceof Expr.Literal(Long base, Type _) && base != 1900 && base != 1904;
            return wrong
                    ? Optional.of(new Refusal(1, Code.ARGUMENTS, "The base is 1900 or 1904.", "Give one of the two."))
                    : Optional.empty();
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
            return inRange(arguments.get(2), 0, groups, "The pattern has " + groups + " groups, not " + group + ".");
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

    private static Optional<Refusal> layouts(boolean reading, List<Expr> arguments) {
        for (int i = 1; i < arguments.size(); i++) {
            if (arguments.get(i) instanceof Expr.Literal(String layout, Type _)) {
                Optional<String> problem = DateLayout.problemWith(layout, reading);
                if (problem.isPresent()) {
                    return Optional.of(new Refusal(i, Code.BAD_PATTERN, problem.get(), "Write dd/MM/yyyy, say."));
                }
            }
        }
        return Optional.empty();
    }

    private static Optional<Refusal> inRange(Expr argument, long low, long high, String what) {
        boolean wrong = argument instanceof Expr.Literal(Long value, Type _) && (value < low || value > high);
        return wrong
                ? Optional.of(new Refusal(2, Code.ARGUMENTS, what, "Give " + low + " to " + high + "."))
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
