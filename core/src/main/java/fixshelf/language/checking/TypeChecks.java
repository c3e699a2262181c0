package fixshelf.language.checking;

import fixshelf.language.tree.CommonType;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Slot;
import fixshelf.language.tree.FunctionDef.Wants;
import fixshelf.problem.Code;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.apache.calcite.sql.SqlCall;
import org.apache.calcite.sql.SqlNode;

/// What is asked of the types of arguments and results, and what to do where it is not so.
public final class TypeChecks {
    private final Findings findings;

    TypeChecks(Findings findings) {
        this.findings = findings;
    }

    void wantCommon(CommonType so, Expr result, SqlNode node) {
        if (!so.add(result)) {
            findings.report(
                    Code.WRONG_TYPE,
                    node,
                    "The results of a CASE have one type: this is "
                            + result.type().label() + ", the one before is "
                            + so.type().label() + ".",
                    hint(result.type(), so.type()));
        }
    }

    void wantBoolean(Expr condition, SqlNode node, String where) {
        if (!condition.type().fits(Type.BOOLEAN)) {
            findings.report(
                    Code.WRONG_TYPE,
                    node,
                    where + " asks for a condition, this is " + condition.type().label() + ".",
                    "Compare it with something.");
        }
    }

    /// Floating-point numbers beside exact ones would change those without a word.
    void wantOneKind(FunctionDef function, List<Expr> arguments, SqlCall call) {
        for (int i = 0; i < arguments.size(); i++) {
            Type type = arguments.get(i).type();
            if (function.slot(i).wants() == Wants.REAL && type.isNumeric()) {
                findings.report(
                        Code.WRONG_TYPE,
                        call,
                        "`" + function.name() + "` has a number beside " + type.label() + ".",
                        "Write approximate(…) to make a number of that, or round(…, 2) to make the other exact.");
            }
        }
    }

    void wantType(String function, Slot slot, Expr argument, SqlNode node) {
        Type given = argument.type();
        boolean wrong =
                switch (slot.wants()) {
                    case NUMERIC -> !given.isNumeric();
                    case REAL -> !given.isNumeric() && !(given instanceof Type.Num);
                    case NUMBER -> !(given instanceof Type.Num) && !CommonType.isExactly(argument);
                    case LIST -> !(given instanceof Type.ListOf);
                    case MAPPING -> !(given instanceof Type.Mapping);
                    case TEXT, INTEGER, BOOLEAN, DATE, TIMESTAMP, SAME, ANY -> false;
                };
        if (wrong && !(given instanceof Type.Unknown)) {
            findings.report(
                    Code.WRONG_TYPE,
                    node,
                    function + " asks for " + wanted(slot.wants()) + " as " + slot.name() + ", this is " + given.label()
                            + ".",
                    numberHint(slot.wants(), given));
        }
        Optional<Type> wanted =
                switch (slot.wants()) {
                    case TEXT -> Optional.of(Type.TEXT);
                    case INTEGER -> Optional.of(Type.INTEGER);
                    case BOOLEAN -> Optional.of(Type.BOOLEAN);
                    case DATE -> Optional.of(Type.DATE);
                    case TIMESTAMP -> Optional.of(Type.TIMESTAMP);
                    case SAME, ANY, NUMERIC, NUMBER, REAL, LIST, MAPPING -> Optional.empty();
                };
        wanted.ifPresent(type -> wantFits(function, slot.name(), type, argument, node));
    }

    private static String wanted(Wants wants) {
        return switch (wants) {
            case NUMERIC -> "a whole or exact number";
            case NUMBER -> "a floating-point number";
            case REAL -> "a number";
            case TEXT, INTEGER, BOOLEAN, DATE, TIMESTAMP, LIST, MAPPING, SAME, ANY ->
                "a " + wants.name().toLowerCase(Locale.ROOT);
        };
    }

    private static String numberHint(Wants wants, Type given) {
        return switch (wants) {
            case LIST -> "Write ARRAY['a', 'b'], or give a parameter of type list.";
            case MAPPING -> "Write MAP['a', 'x'], or give a parameter of type mapping.";
            case NUMBER ->
                given.isNumeric()
                        ? "Write div(a, b) for whole numbers, divide(a, b, scale) for exact ones; or approximate(…)."
                        : "Write to_number(…).";
            default ->
                given.equals(Type.TEXT)
                        ? "Write to_decimal(…) or to_integer(…)."
                        : given instanceof Type.Num ? "Make it exact first: round(…, 2)." : "Give a number.";
        };
    }

    void wantFits(String function, String parameter, Type wanted, Expr argument, SqlNode node) {
        if (!CommonType.fits(argument, wanted)) {
            findings.report(
                    Code.WRONG_TYPE,
                    node,
                    function + " asks for " + wanted.label() + " as " + parameter + ", this is "
                            + argument.type().label() + ".",
                    hint(argument.type(), wanted));
        }
    }

    /// A list or a mapping of the values that the function compares with.
    void wantHolds(FunctionDef function, Slot slot, Type value, Expr argument, SqlNode node) {
        Type held =
                switch (argument.type()) {
                    case Type.ListOf(Type element) -> element;
                    case Type.Mapping(Type from, Type _) -> from;
                    default -> Type.UNKNOWN;
                };
        Type wanted =
                switch (function.name()) {
                    case "replace_each" -> Type.TEXT;
                    case "working_days" -> slot.name().equals("weekend") ? Type.INTEGER : Type.DATE;
                    default -> value;
                };
        if (Type.common(held, wanted).isEmpty()) {
            findings.report(
                    Code.WRONG_TYPE,
                    node,
                    function.name() + " compares " + wanted.label() + " with " + slot.name() + ", which holds "
                            + held.label() + ".",
                    hint(held, wanted));
        }
    }

    /// How a value of one type becomes one of another.
    public static String hint(Type from, Type to) {
        if (to.equals(Type.TEXT) && from.equals(Type.INTEGER)) {
            return "Write to_text(…).";
        }
        if (to.equals(Type.INTEGER) && from.equals(Type.TEXT)) {
            return "Write to_integer(…).";
        }
        if (to.equals(Type.DATE) && from.equals(Type.TEXT)) {
            return "Write to_date(…), or DATE '2026-02-07' for a constant.";
        }
        if (to.equals(Type.TEXT) && from.equals(Type.DATE)) {
            return "Write format_date(…).";
        }
        if (to.equals(Type.DATE) && from.equals(Type.TIMESTAMP)) {
            return "Write date_of(…).";
        }
        if (to.equals(Type.TIMESTAMP)) {
            return from.equals(Type.DATE) ? "Write at_midnight(…)." : "Write to_timestamp(…).";
        }
        if (to instanceof Type.Num) {
            return from.equals(Type.TEXT) ? "Write to_number(…)." : "Write approximate(…), or 1.5e0 for a constant.";
        }
        if (from instanceof Type.Num) {
            return "Write round(…, scale), which gives decimal(18, scale).";
        }
        if (to instanceof Type.Decimal && from.isNumeric()) {
            return "Write CAST(… AS " + to.label() + "), with round(…, scale) inside where digits may go.";
        }
        if (to instanceof Type.Decimal && from.equals(Type.TEXT)) {
            return "Write to_decimal(…).";
        }
        return "Give a value of type " + to.label() + ".";
    }

    void wantSame(String function, CommonType so, Expr argument, SqlNode node) {
        if (!so.add(argument)) {
            findings.report(
                    Code.WRONG_TYPE,
                    node,
                    "`" + function + "` asks for values of one type: "
                            + so.type().label() + " before, this is "
                            + argument.type().label() + ".",
                    argument instanceof Expr.Literal literal
                            ? hint(literal, so.type())
                            : hint(argument.type(), so.type()));
        }
    }

    /// How a constant would be written in the other type, where it is one of it.
    private static String hint(Expr.Literal literal, Type to) {
        String bare = literal.value() == null ? "" : Literals.bare(literal.value());
        Optional<String> written = to.equals(Type.TEXT) && literal.type().isNumeric()
                ? Optional.of("'" + bare + "'")
                : to.isNumeric() && literal.type().equals(Type.TEXT) && bare.matches("-?[0-9]+([.][0-9]+)?")
                        ? Optional.of(bare)
                        : Optional.empty();
        return written.map(w -> "Write " + w + ".").orElseGet(() -> hint(literal.type(), to));
    }
}
