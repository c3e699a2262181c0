package fixshelf.language.tree;

import fixshelf.type.Type;
import java.util.List;
import java.util.Objects;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// One entry of the catalogue: all that help, completion, checking, documentation and tests need to know.
///
/// @param name the name in expressions; operators have their sign as name
/// @param aliases other names that mean the same
/// @param slots the parameters in order
/// @param variadic whether the last slot may be given more than once
/// @param result the type of the result
/// @param nulls when the result is null
/// @param group what it is for
/// @param about the exact meaning, with edges
/// @param examples calls with their results, run in every language by the tests
public record FunctionDef(
        String name,
        List<String> aliases,
        List<Slot> slots,
        boolean variadic,
        Result result,
        Nulls nulls,
        Group group,
        String about,
        List<Example> examples) {

    /// What a slot asks for. All `SAME` slots of a call share one type.
    public enum Wants {
        TEXT,
        INTEGER,
        BOOLEAN,
        DATE,
        TIMESTAMP,
        /// A whole or an exact number.
        NUMERIC,
        /// A floating-point number.
        NUMBER,
        /// A number of any kind; all of a call are of one kind, or whole and exact.
        REAL,
        LIST,
        MAPPING,
        SAME,
        ANY
    }

    /// A parameter of a function.
    ///
    /// @param fixed its value must be known when code is written: a literal, or a parameter of the fix
    /// @param optional it may be left out
    public record Slot(String name, Wants wants, boolean fixed, boolean optional) {}

    /// The type of the result: always the same (`DATES` is a list of them), or that of the `SAME` slots; for numbers,
    /// one that holds every sum or product of its arguments; for a mapping, that of what it leads to.
    public enum Result {
        TEXT,
        INTEGER,
        DECIMAL,
        NUMBER,
        BOOLEAN,
        DATE,
        TIMESTAMP,
        DATES,
        SAME,
        SUM,
        PRODUCT,
        /// A decimal with the precision and scale that its second and third argument say.
        NARROWED,
        MAPPED
    }

    /// When the result is null: if any argument is, or as `about` says.
    public enum Nulls {
        IF_ANY,
        AS_DESCRIBED
    }

    /// What a function is for; the catalogue and the documentation are grouped by it.
    public enum Group {
        TEXT("Text"),
        PATTERN("Patterns"),
        NULL("Missing values"),
        COMPARISON("Comparison and logic"),
        CONVERSION("Conversion"),
        NUMBER("Numbers"),
        DATE("Dates and times"),
        LIST("Lists, mappings and separated text");

        private final String title;

        Group(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /// A call and its result, both as expressions.
    public record Example(String call, String result) {}

    /// An entry is the same as itself only: there is one of each.
    @Override
    public boolean equals(@Nullable Object other) {
        return this == other;
    }

    @Override
    public int hashCode() {
        return name.hashCode();
    }

    public Slot slot(int index) {
        return slots.get(Math.min(index, slots.size() - 1));
    }

    public int fewest() {
        return (int) slots.stream().filter(s -> !s.optional()).count();
    }

    public boolean isOperator() {
        return !Character.isLetter(name.charAt(0)) || name.equals(name.toUpperCase(java.util.Locale.ROOT));
    }

    /// `replace(text, search, replacement)`
    public String signature() {
        StringBuilder out = new StringBuilder(name).append('(');
        for (Slot slot : slots) {
            out.append(out.charAt(out.length() - 1) == '(' ? "" : ", ").append(slot.name());
            out.append(slot.optional() ? "?" : "");
        }
        return out.append(variadic ? ", …)" : ")").toString();
    }

    Type resultOf(List<Expr> arguments) {
        return switch (result) {
            case TEXT -> Type.TEXT;
            case INTEGER -> Type.INTEGER;
            case NUMBER -> Type.NUMBER;
            case BOOLEAN -> Type.BOOLEAN;
            case DATE -> Type.DATE;
            case TIMESTAMP -> Type.TIMESTAMP;
            case DATES -> new Type.ListOf(Type.DATE);
            case DECIMAL -> new Type.Decimal(18, scaleOf(arguments));
            case SAME -> common(arguments);
            case SUM -> Digits.sum(arguments);
            case PRODUCT -> Digits.product(arguments);
            case NARROWED -> narrowed(arguments);
            case MAPPED -> mapped(arguments);
        };
    }

    /// What stands in the last slot, which is that of the scale.
    private int scaleOf(List<Expr> arguments) {
        boolean given = arguments.size() == slots.size()
                && arguments.getLast() instanceof Expr.Literal(Long scale, Type _)
                && scale >= 0
                && scale <= 18;
        return given ? ((Long) ((Expr.Literal) arguments.getLast()).value()).intValue() : 4;
    }

    private static Type narrowed(List<Expr> arguments) {
        boolean known = arguments.size() == 3
                && arguments.get(1) instanceof Expr.Literal(Long precision, Type _)
                && arguments.get(2) instanceof Expr.Literal(Long scale, Type _)
                && precision >= 1
                && precision <= 38
                && scale >= 0
                && scale <= precision;
        return known ? new Type.Decimal(number(arguments.get(1)), number(arguments.get(2))) : Type.DECIMAL;
    }

    private static int number(Expr constant) {
        return ((Long) Objects.requireNonNull(((Expr.Literal) constant).value())).intValue();
    }

    private Type mapped(List<Expr> arguments) {
        for (Expr argument : arguments) {
            if (argument.type() instanceof Type.Mapping(Type _, Type to)) {
                CommonType common = new CommonType(to);
                if (arguments.size() > 2) {
                    common.add(arguments.getLast());
                }
                return common.type();
            }
        }
        return Type.UNKNOWN;
    }

    private static boolean isCommon(Wants wants) {
        return wants == Wants.SAME || wants == Wants.NUMERIC || wants == Wants.REAL;
    }

    private Type common(List<Expr> arguments) {
        return CommonType.of(IntStream.range(0, arguments.size())
                .filter(i -> isCommon(slot(i).wants()))
                .mapToObj(arguments::get)
                .toList());
    }
}
