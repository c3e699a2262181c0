package fixshelf.language.catalogue;

import fixshelf.language.tree.CommonType;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.LinkedHashMap;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Expressions whose value is known without any data.
public final class Constants {
    private Constants() {}

    public static final int MOST_DAYS = 10_000;

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
    public static Optional<Type> common(List<Expr.Literal> values) {
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
    public static List<@Nullable Object> plain(List<Expr.Literal> values) {
        List<@Nullable Object> plain = new ArrayList<>();
        values.forEach(v -> plain.add(v.value()));
        return Collections.unmodifiableList(plain);
    }

    /// A list of these values, if they have one type.
    public static Optional<Expr> list(List<Expr.Literal> values) {
        return common(values).map(element -> new Expr.Literal(plain(values), new Type.ListOf(element)));
    }

    /// A mapping of the first to the second, the third to the fourth and so on; empty where that is none.
    public static Optional<Expr> mapping(List<Expr.Literal> values) {
        List<Expr.Literal> keys = new ArrayList<>();
        List<Expr.Literal> targets = new ArrayList<>();
        Map<@Nullable Object, @Nullable Object> pairs = new LinkedHashMap<>();
        for (int i = 0; i + 1 < values.size(); i += 2) {
            keys.add(values.get(i));
            targets.add(values.get(i + 1));
            pairs.put(values.get(i).value(), values.get(i + 1).value());
        }
        boolean sound = values.size() % 2 == 0 && pairs.size() == keys.size() && !pairs.containsKey(null);
        return sound
                ? common(keys).flatMap(from -> common(targets)
                        .map(to -> new Expr.Literal(Collections.unmodifiableMap(pairs), new Type.Mapping(from, to))))
                : Optional.empty();
    }
}
