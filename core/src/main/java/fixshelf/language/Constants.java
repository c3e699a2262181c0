package fixshelf.language;

import fixshelf.problem.Outcome;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/// Expressions whose value is known without any data.
public final class Constants {
    private Constants() {}

    static final int MOST_DAYS = 10_000;

    private static final Pattern WHOLE = Pattern.compile("-?[0-9]{1,18}");
    private static final Pattern EXACT = Pattern.compile("-?[0-9]{1,18}\\.[0-9]{1,18}");
    private static final Pattern DAY = Pattern.compile("(?i)date +'([0-9]{4}-[0-9]{2}-[0-9]{2})'");

    /// The constant that a text writes. The common forms, of which a shelf has thousands in its cases, are read
    /// without the parser.
    public static Outcome<Optional<Expr.Literal>> read(String name, String text) {
        String bare = text.strip();
        if (isText(bare)) {
            String inside = bare.substring(1, bare.length() - 1);
            return Outcome.of(Optional.of(Expr.Literal.text(inside.replace("''", "'"))));
        }
        if (WHOLE.matcher(bare).matches()) {
            return Outcome.of(Optional.of(Expr.Literal.integer(Long.parseLong(bare))));
        }
        if (EXACT.matcher(bare).matches()) {
            BigDecimal value = new BigDecimal(bare);
            Type type = new Type.Decimal(Math.max(value.precision(), value.scale()), value.scale());
            return Outcome.of(Optional.of(new Expr.Literal(value, type)));
        }
        return switch (bare.toUpperCase(Locale.ROOT)) {
            case "NULL" -> Outcome.of(Optional.of(Expr.Literal.NULL));
            case "TRUE" -> Outcome.of(Optional.of(Expr.Literal.truth(true)));
            case "FALSE" -> Outcome.of(Optional.of(Expr.Literal.truth(false)));
            default -> day(bare).map(day -> Outcome.of(Optional.of(day))).orElseGet(() -> parsed(name, text));
        };
    }

    /// Whether it is one text in quotes, in which every quote is written twice. No pattern is used: one that goes
    /// around for every character needs as much of the stack as the text is long.
    private static boolean isText(String bare) {
        int last = bare.length() - 1;
        if (last < 1 || bare.charAt(0) != '\'' || bare.charAt(last) != '\'') {
            return false;
        }
        for (int at = bare.indexOf('\'', 1); at < last; at = bare.indexOf('\'', at + 2)) {
            if (at < 0 || at + 1 == last || bare.charAt(at + 1) != '\'') {
                return false;
            }
        }
        return true;
    }

    /// As [#read], always with the parser.
    static Outcome<Optional<Expr.Literal>> parsed(String name, String text) {
        return ExpressionParser.parse(name, text, new Scope(Scope.Fixes.NONE)).map(Constants::value);
    }

    private static Optional<Expr.Literal> day(String text) {
        Matcher written = DAY.matcher(text);
        if (!written.matches() || written.group(1).startsWith("0000")) {
            return Optional.empty();
        }
        try {
            return Optional.of(new Expr.Literal(LocalDate.parse(written.group(1)), Type.DATE));
        } catch (DateTimeParseException e) {
            return Optional.empty();
        }
    }

    /// Whether the value will be known when code is written: constants, parameters, which are then given
    /// one, and texts joined of these.
    static boolean isFixed(Expr expr, Scope scope) {
        return switch (expr) {
            case Expr.Literal _ -> true;
            case Expr.Name name ->
                scope.find(name.name())
                        .map(b -> b.kind() == Scope.Kind.PARAMETER)
                        .orElse(false);
            case Expr.Call call
            when isWorkedOut(call.function()) -> call.arguments().stream().allMatch(a -> isFixed(a, scope));
            case Expr.Call _, Expr.Case _, Expr.FixCall _ -> value(expr).isPresent();
        };
    }

    private static boolean isWorkedOut(FunctionDef function) {
        return function == TextFunctions.CONCAT
                || function == TextFunctions.CONCAT_CALL
                || function == ListFunctions.DATE_RANGE;
    }

    /// The value of literals joined with `||`, of `chr` and of `date_range`; empty for everything else.
    public static Optional<Expr.Literal> value(Expr expr) {
        return switch (expr) {
            case Expr.Literal literal -> Optional.of(literal);
            case Expr.Call(FunctionDef function, List<Expr> arguments, Type _) -> call(function, arguments);
            case Expr.Name _, Expr.Case _, Expr.FixCall _ -> Optional.empty();
        };
    }

    private static Optional<Expr.Literal> call(FunctionDef function, List<Expr> arguments) {
        if (function == Conversions.CHR && arguments.getFirst() instanceof Expr.Literal(Long code, Type _)) {
            return Optional.of(Expr.Literal.text(Character.toString(code.intValue())));
        }
        if (function == TextFunctions.CONCAT) {
            Optional<Expr.Literal> left = value(arguments.get(0));
            Optional<Expr.Literal> right = value(arguments.get(1));
            return left.flatMap(l -> right.map(r -> joined(l, r)));
        }
        boolean range = function == ListFunctions.DATE_RANGE
                && arguments.get(0) instanceof Expr.Literal(LocalDate first, Type _)
                && arguments.get(1) instanceof Expr.Literal(LocalDate last, Type _);
        return range ? days(arguments) : Optional.empty();
    }

    private static Optional<Expr.Literal> days(List<Expr> arguments) {
        LocalDate first = (LocalDate) ((Expr.Literal) arguments.get(0)).value();
        LocalDate last = (LocalDate) ((Expr.Literal) arguments.get(1)).value();
        return ChronoUnit.DAYS.between(first, last) >= MOST_DAYS
                ? Optional.empty()
                : Optional.of(new Expr.Literal(
                        last.isBefore(first)
                                ? List.of()
                                : first.datesUntil(last.plusDays(1)).toList(),
                        new Type.ListOf(Type.DATE)));
    }

    private static Expr.Literal joined(Expr.Literal left, Expr.Literal right) {
        boolean missing = left.value() == null || right.value() == null;
        return missing ? Expr.Literal.NULL : Expr.Literal.text(left.value() + "" + right.value());
    }

    /// The type that holds all these values, if there is one.
    static Optional<Type> common(List<Expr.Literal> values) {
        CommonType common = new CommonType();
        return values.stream().allMatch(common::add) ? Optional.of(common.type()) : Optional.empty();
    }

    /// Whether a constant may stand where `wanted` is asked for.
    public static boolean fits(Expr value, Type wanted) {
        return CommonType.fits(value, wanted);
    }

    /// The constant as one of a type that it fits.
    public static Expr.Literal converted(Expr.Literal literal, Type wanted) {
        Object value = literal.value();
        if (wanted instanceof Type.Decimal(int _, int scale)) {
            value = switch (value) {
                case Long whole -> BigDecimal.valueOf(whole).setScale(scale);
                case BigDecimal number -> number.setScale(Math.max(scale, number.scale()));
                case null, default -> value;
            };
        } else if (wanted instanceof Type.Num && value instanceof Long whole) {
            value = whole.doubleValue();
        }
        return new Expr.Literal(value, wanted);
    }

    /// The values alone.
    static List<@Nullable Object> plain(List<Expr.Literal> values) {
        List<@Nullable Object> plain = new ArrayList<>();
        values.forEach(v -> plain.add(v.value()));
        return Collections.unmodifiableList(plain);
    }
}
