package fixshelf.language;

import fixshelf.language.FunctionDef.Slot;
import fixshelf.language.FunctionDef.Wants;
import fixshelf.language.Scope.Binding;
import fixshelf.language.Scope.Found;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Span;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.time.format.ResolverStyle;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.apache.calcite.sql.SqlBasicCall;
import org.apache.calcite.sql.SqlCall;
import org.apache.calcite.sql.SqlIdentifier;
import org.apache.calcite.sql.SqlKind;
import org.apache.calcite.sql.SqlLiteral;
import org.apache.calcite.sql.SqlNode;
import org.apache.calcite.sql.SqlNodeList;
import org.apache.calcite.sql.SqlUnknownLiteral;
import org.apache.calcite.sql.fun.SqlBetweenOperator;
import org.apache.calcite.sql.fun.SqlCase;
import org.apache.calcite.sql.fun.SqlLikeOperator;
import org.apache.calcite.sql.fun.SqlTrimFunction;
import org.apache.calcite.util.NlsString;
import org.jspecify.annotations.Nullable;

/// Turns the parser's tree into a typed [Expr]. It goes on after a problem, so that one look finds all of them.
final class Checker {
    private static final Expr BROKEN = Expr.Literal.NULL;
    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss", Locale.ROOT).withResolverStyle(ResolverStyle.STRICT);

    private final ExpressionParser parser;
    private final Scope scope;
    private final List<Problem> problems = new ArrayList<>();

    Checker(ExpressionParser parser, Scope scope) {
        this.parser = parser;
        this.scope = scope;
    }

    Outcome<Expr> check(SqlNode node) {
        Expr expr = expr(node);
        return problems.isEmpty() ? Outcome.of(expr) : Outcome.failed(problems);
    }

    private Expr expr(SqlNode node) {
        return switch (node) {
            case SqlLiteral literal -> literal(literal);
            case SqlIdentifier identifier -> name(identifier);
            case SqlCase choice -> choice(choice);
            case SqlCall call -> call(call);
            default -> report(Code.SYNTAX, node, "This is not part of the expression language.", "Remove it.");
        };
    }

    private Expr literal(SqlLiteral literal) {
        return switch (literal.getTypeName()) {
            case NULL -> Expr.Literal.NULL;
            case BOOLEAN -> Expr.Literal.truth(literal.booleanValue());
            case CHAR -> Expr.Literal.text(literal.getValueAs(NlsString.class).getValue());
            case DECIMAL -> number(literal);
            case DOUBLE -> approximate(literal);
            case UNKNOWN -> date(literal);
            default ->
                report(
                        Code.SYNTAX,
                        literal,
                        "This kind of constant is not known.",
                        "Write text, a number, or DATE '2026-02-07'.");
        };
    }

    /// `DATE '2026-02-07'` or `TIMESTAMP '2026-02-07 10:12:00'`, which the parser hands over as they are written.
    private Expr date(SqlLiteral literal) {
        String tag = literal instanceof SqlUnknownLiteral unknown ? unknown.tag.toUpperCase(Locale.ROOT) : "";
        String written = String.valueOf(literal.getValue());
        try {
            Object value =
                    switch (tag) {
                        case "DATE" -> LocalDate.parse(written);
                        case "TIMESTAMP" -> LocalDateTime.parse(written, TIME);
                        default ->
                            report(
                                    Code.SYNTAX,
                                    literal,
                                    "This kind of constant is not known.",
                                    "Write text, a number, or DATE '2026-02-07'.");
                    };
            return switch (value) {
                case LocalDate day when day.getYear() >= 1 && day.getYear() <= 9999 -> new Expr.Literal(day, Type.DATE);
                case LocalDateTime time
                when time.getYear() >= 1 && time.getYear() <= 9999 -> new Expr.Literal(time, Type.TIMESTAMP);
                case Expr broken -> broken;
                default -> report(Code.SYNTAX, literal, "A day is in the years 0001 to 9999.", "Write another day.");
            };
        } catch (DateTimeParseException e) {
            String usual = tag.equals("DATE") ? "DATE '2026-02-07'" : "TIMESTAMP '2026-02-07 10:12:00'";
            return report(Code.WRONG_TYPE, literal, "There is no such day or time.", "Write " + usual + ", say.");
        }
    }

    private Expr number(SqlLiteral literal) {
        BigDecimal value = literal.getValueAs(BigDecimal.class);
        if (value.scale() > 0) {
            boolean fits = value.precision() <= 38 && value.scale() <= 38;
            return fits
                    ? new Expr.Literal(
                            value, new Type.Decimal(Math.max(value.precision(), value.scale()), value.scale()))
                    : report(Code.WRONG_TYPE, literal, "A number has at most 38 digits.", "Shorten it.");
        }
        BigInteger whole = value.toBigInteger();
        return whole.bitLength() < 64
                ? Expr.Literal.integer(whole.longValue())
                : report(Code.WRONG_TYPE, literal, "A whole number has at most 64 bits.", "Write it as text.");
    }

    /// `1.5e0`, the standard's way to write a floating-point number.
    private Expr approximate(SqlLiteral literal) {
        double value = literal.getValueAs(BigDecimal.class).doubleValue();
        boolean fits = value == 0 || Math.abs(value) >= FloatFunctions.LEAST && Math.abs(value) <= FloatFunctions.MOST;
        return fits
                ? new Expr.Literal(value + 0.0, Type.NUMBER)
                : report(Code.WRONG_TYPE, literal, "A number is 0, or 1e-300 to 1e300 in size.", "Write another one.");
    }

    private Expr name(SqlIdentifier identifier) {
        if (!identifier.isSimple()) {
            return report(Code.UNKNOWN_NAME, identifier, "A name has one part.", "Write it without the dot.");
        }
        Optional<Binding> found = scope.find(identifier.getSimple());
        if (found.isPresent()) {
            return new Expr.Name(found.get().name(), found.get().type());
        }
        String known = scope.names().isEmpty()
                ? "There are no names here: write a text in '…'."
                : "Known: " + String.join(", ", scope.names().stream().limit(12).toList()) + ".";
        return report(
                Code.UNKNOWN_NAME,
                identifier,
                "no name " + identifier.getSimple() + ".",
                Names.suggest(identifier.getSimple(), scope.names(), known));
    }

    private Expr choice(SqlCase choice) {
        List<Expr.Branch> branches = new ArrayList<>();
        SqlNodeList whens = choice.getWhenOperands();
        CommonType type = new CommonType();
        for (int i = 0; i < whens.size(); i++) {
            Expr condition = expr(whens.get(i));
            wantBoolean(condition, whens.get(i), "WHEN");
            SqlNode then = choice.getThenOperands().get(i);
            Expr result = expr(then);
            wantCommon(type, result, then);
            branches.add(new Expr.Branch(condition, result));
        }
        Expr otherwise = choice.getElseOperand() == null ? Expr.Literal.NULL : expr(choice.getElseOperand());
        if (choice.getElseOperand() != null) {
            wantCommon(type, otherwise, choice.getElseOperand());
        }
        if (type.type() instanceof Type.Num) {
            branches.replaceAll(b -> new Expr.Branch(b.condition(), CommonType.asNumber(b.result())));
            otherwise = CommonType.asNumber(otherwise);
        }
        return new Expr.Case(branches, otherwise, type.type());
    }

    private void wantCommon(CommonType so, Expr result, SqlNode node) {
        if (!so.add(result)) {
            report(
                    Code.WRONG_TYPE,
                    node,
                    "The results of a CASE have one type: this is "
                            + result.type().label() + ", the one before is "
                            + so.type().label() + ".",
                    convertHint(result.type(), so.type()));
        }
    }

    private void wantBoolean(Expr condition, SqlNode node, String where) {
        if (!condition.type().fits(Type.BOOLEAN)) {
            report(
                    Code.WRONG_TYPE,
                    node,
                    where + " asks for a condition, this is " + condition.type().label() + ".",
                    "Compare it with something.");
        }
    }

    private Expr call(SqlCall call) {
        List<SqlNode> operands = call.getOperandList();
        return switch (call.getKind()) {
            case TRIM -> trim(call);
            case IN -> list(call);
            case NOT_IN -> not(list(call));
            case LIKE -> like(call);
            case BETWEEN -> between(call);
            case IS_NOT_NULL -> not(function(NullFunctions.IS_NULL, call, operands));
            case IS_NOT_DISTINCT_FROM -> not(function(Comparisons.DISTINCT, call, operands));
            case POSITION -> function(TextFunctions.POSITION, call, operands.reversed());
            case MINUS_PREFIX -> negative(call);
            case CAST ->
                report(
                        Code.SYNTAX,
                        call,
                        "CAST differs between languages.",
                        "Write to_integer, to_decimal or to_text.");
            case PLUS -> function(Arithmetic.PLUS, call, operands);
            case MINUS -> function(Arithmetic.MINUS, call, operands);
            case TIMES -> function(Arithmetic.TIMES, call, operands);
            case MOD -> function(Arithmetic.MOD, call, operands);
            case DIVIDE -> function(FloatFunctions.QUOTIENT, call, operands);
            case ARRAY_VALUE_CONSTRUCTOR -> constants(call, this::list);
            case MAP_VALUE_CONSTRUCTOR -> constants(call, this::mapping);
            case SELECT, ORDER_BY, UNION, WITH, SCALAR_QUERY, EXISTS ->
                report(Code.SYNTAX, call, "A fix cannot query tables.", "Give the value as a parameter.");
            default -> named(call);
        };
    }

    private Expr constants(SqlCall call, Function<List<Expr.Literal>, Optional<Expr>> made) {
        List<Expr.Literal> values = new ArrayList<>();
        for (SqlNode operand : call.getOperandList()) {
            Optional<Expr.Literal> value = Constants.value(expr(operand));
            if (value.isEmpty()) {
                return report(
                        Code.NOT_CONSTANT, operand, "A list or mapping holds constants.", "Use coalesce, or CASE.");
            }
            values.add(value.get());
        }
        return made.apply(values)
                .orElseGet(() -> report(
                        Code.WRONG_TYPE,
                        call,
                        "These values do not make one.",
                        "A list has values of one type; a mapping has keys of one type, each once and not null, and"
                                + " values of one type."));
    }

    private Optional<Expr> list(List<Expr.Literal> values) {
        return Constants.common(values)
                .map(element -> new Expr.Literal(Constants.plain(values), new Type.ListOf(element)));
    }

    private Optional<Expr> mapping(List<Expr.Literal> values) {
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
                ? Constants.common(keys).flatMap(from -> Constants.common(targets)
                        .map(to -> new Expr.Literal(Collections.unmodifiableMap(pairs), new Type.Mapping(from, to))))
                : Optional.empty();
    }

    private Expr named(SqlCall call) {
        String name = call.getOperator().getName();
        List<SqlNode> operands = call.getOperandList();
        if (call instanceof SqlBasicCall basic && basic.getFunctionQuantifier() != null) {
            return report(Code.SYNTAX, call, "DISTINCT has no place in a value fix.", "Remove it.");
        }
        Optional<FunctionDef> function = Functions.find(name);
        if (function.isPresent()) {
            return function(function.get(), call, operands);
        }
        return switch (scope.fixes().find(name)) {
            case Found.Ready(Definition fix) -> fixCall(fix, call);
            case Found.Broken(String why) ->
                report(
                        Code.UNKNOWN_FUNCTION,
                        call,
                        "The fix " + name + " cannot be used: " + why,
                        "Mend that fix first.");
            case Found.Cyclic(List<String> path) ->
                report(
                        Code.CYCLE,
                        call,
                        "Fixes call each other in a circle: " + String.join(" → ", path) + ".",
                        "Take one of the calls out.");
            case Found.Missing() -> unknownFunction(name, call);
        };
    }

    private Expr unknownFunction(String name, SqlCall call) {
        List<String> known = new ArrayList<>(Functions.callableNames());
        known.addAll(scope.fixes().names());
        Span whole = parser.spanOf(call.getParserPosition());
        Span word = new Span(whole.start(), Math.min(whole.end(), whole.start() + name.length()));
        problems.add(parser.problem(
                Code.UNKNOWN_FUNCTION,
                word,
                "no function " + name + ".",
                Names.suggest(name, known, "See the catalogue, or write a fix of that name.")));
        return BROKEN;
    }

    private Expr function(FunctionDef function, SqlCall call, List<SqlNode> operands) {
        int least = function.fewest();
        boolean tooMany = operands.size() > function.slots().size() && !function.variadic();
        if (operands.size() < least || tooMany) {
            return report(
                    Code.ARGUMENTS,
                    call,
                    function.name() + " takes " + count(least, function) + ", here are " + operands.size() + ".",
                    "It is " + function.signature() + ".");
        }
        List<Expr> arguments = new ArrayList<>();
        CommonType same = new CommonType();
        for (int i = 0; i < operands.size(); i++) {
            Expr argument = expr(operands.get(i));
            arguments.add(argument);
            Slot slot = function.slot(i);
            wantType(function.name(), slot, argument, operands.get(i));
            wantFixed(function.name(), slot, argument, operands.get(i));
            if (slot.wants() == Wants.SAME) {
                wantSame(function.name(), same, argument, operands.get(i));
            }
            if (slot.wants() == Wants.LIST || slot.wants() == Wants.MAPPING) {
                wantHolds(function, slot, same.type(), argument, operands.get(i));
                same = function == ListFunctions.LOOKUP && argument.type() instanceof Type.Mapping(Type _, Type to)
                        ? new CommonType(to)
                        : same;
            }
        }
        problems.addAll(new ConstantArguments(parser, call).check(function, arguments));
        boolean approximate = same.type() instanceof Type.Num
                || function.slot(0).wants() == Wants.NUMBER
                || function.slot(0).wants() == Wants.REAL && Digits.isApproximate(arguments);
        if (approximate) {
            for (int i = 0; i < arguments.size(); i++) {
                Wants wants = function.slot(i).wants();
                boolean number = wants == Wants.NUMBER || wants == Wants.REAL || wants == Wants.SAME;
                arguments.set(i, number ? CommonType.asNumber(arguments.get(i)) : arguments.get(i));
            }
            wantOneKind(function, arguments, call);
        }
        Expr.Call checked = new Expr.Call(function, arguments);
        if (Digits.tooMany(checked.type())) {
            return report(
                    Code.WRONG_TYPE,
                    call,
                    "The result can have more than " + Digits.MOST + " digits, which languages cut in different ways.",
                    "Round one of the sides first: round(…, 2).");
        }
        return checked;
    }

    /// Floating-point numbers beside exact ones would change those without a word.
    private void wantOneKind(FunctionDef function, List<Expr> arguments, SqlCall call) {
        for (int i = 0; i < arguments.size(); i++) {
            Type type = arguments.get(i).type();
            if (function.slot(i).wants() == Wants.REAL && type.isNumeric()) {
                report(
                        Code.WRONG_TYPE,
                        call,
                        "`" + function.name() + "` has a number beside " + type.label() + ".",
                        "Write approximate(…) to make a number of that, or round(…, 2) to make the other exact.");
            }
        }
    }

    private static String count(int least, FunctionDef function) {
        int most = function.slots().size();
        if (function.variadic()) {
            return "at least " + least;
        }
        return least == most ? "" + least : least + " to " + most;
    }

    private void wantType(String function, Slot slot, Expr argument, SqlNode node) {
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
            report(
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

    private void wantFits(String function, String parameter, Type wanted, Expr argument, SqlNode node) {
        if (!CommonType.fits(argument, wanted)) {
            report(
                    Code.WRONG_TYPE,
                    node,
                    function + " asks for " + wanted.label() + " as " + parameter + ", this is "
                            + argument.type().label() + ".",
                    convertHint(argument.type(), wanted));
        }
    }

    /// A list or a mapping of the values that the function compares with.
    private void wantHolds(FunctionDef function, Slot slot, Type value, Expr argument, SqlNode node) {
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
            report(
                    Code.WRONG_TYPE,
                    node,
                    function.name() + " compares " + wanted.label() + " with " + slot.name() + ", which holds "
                            + held.label() + ".",
                    convertHint(held, wanted));
        }
    }

    private static String convertHint(Type from, Type to) {
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
            return "Write round(…, scale), which gives decimal(18, scale).";
        }
        if (to instanceof Type.Decimal && from.equals(Type.TEXT)) {
            return "Write to_decimal(…).";
        }
        return "Give a value of type " + to.label() + ".";
    }

    private void wantFixed(String function, Slot slot, Expr argument, SqlNode node) {
        if (slot.fixed() && !Constants.isFixed(argument, scope)) {
            report(
                    Code.NOT_CONSTANT,
                    node,
                    function + " must know its " + slot.name() + " when the code is written.",
                    "Give a constant or a parameter of the fix, not a column or a computed value.");
        }
    }

    private void wantSame(String function, CommonType so, Expr argument, SqlNode node) {
        if (!so.add(argument)) {
            report(
                    Code.WRONG_TYPE,
                    node,
                    "`" + function + "` asks for values of one type: "
                            + so.type().label() + " before, this is "
                            + argument.type().label() + ".",
                    convertHint(argument.type(), so.type()));
        }
    }

    private Expr fixCall(Definition fix, SqlCall call) {
        List<Parameter> parameters = fix.parameters();
        Expr[] given = new Expr[parameters.size()];
        int next = 0;
        for (SqlNode operand : call.getOperandList()) {
            SqlNode value = operand;
            int index = next++;
            if (operand.getKind() == SqlKind.ARGUMENT_ASSIGNMENT) {
                value = ((SqlCall) operand).operand(0);
                SqlNode label = ((SqlCall) operand).operand(1);
                index = indexOf(parameters, label.toString());
            }
            if (index < 0 || index >= given.length || given[index] != null) {
                return report(Code.ARGUMENTS, operand, "This argument has no place.", "It is " + fix.signature() + ".");
            }
            given[index] = argument(fix, parameters.get(index), value);
        }
        return completed(fix, given, call);
    }

    private static int indexOf(List<Parameter> parameters, String name) {
        for (int i = 0; i < parameters.size(); i++) {
            if (parameters.get(i).name().equalsIgnoreCase(name)) {
                return i;
            }
        }
        return -1;
    }

    private Expr argument(Definition fix, Parameter parameter, SqlNode node) {
        Expr argument = expr(node);
        wantFits(fix.name(), parameter.name(), parameter.type(), argument, node);
        argument = parameter.type() instanceof Type.Num ? CommonType.asNumber(argument) : argument;
        wantFixed(fix.name(), new Slot(parameter.name(), Wants.ANY, parameter.fixed(), false), argument, node);
        return argument;
    }

    private Expr completed(Definition fix, Expr[] given, SqlCall call) {
        for (int i = 0; i < given.length; i++) {
            Parameter parameter = fix.parameters().get(i);
            if (given[i] == null && parameter.fallback().isEmpty()) {
                return report(
                        Code.ARGUMENTS,
                        call,
                        fix.name() + " needs " + parameter.name() + ".",
                        "It is " + fix.signature() + ".");
            }
            given[i] = given[i] == null ? parameter.fallback().get() : given[i];
        }
        return new Expr.FixCall(fix, Arrays.asList(given));
    }

    private Expr trim(SqlCall call) {
        String flag = call.operand(0).toString().toUpperCase(Locale.ROOT);
        FunctionDef function = flag.contains(SqlTrimFunction.Flag.LEADING.name())
                ? TextFunctions.LTRIM
                : flag.contains(SqlTrimFunction.Flag.TRAILING.name()) ? TextFunctions.RTRIM : TextFunctions.TRIM;
        SqlNode characters = call.operand(1);
        boolean spaceOnly = characters instanceof SqlLiteral literal && " ".equals(literal.toValue());
        return function(function, call, spaceOnly ? List.of(call.operand(2)) : List.of(call.operand(2), characters));
    }

    private Expr list(SqlCall call) {
        if (!(call.operand(1) instanceof SqlNodeList choices)) {
            return report(Code.SYNTAX, call, "IN takes a list of values here.", "Write IN ('a', 'b').");
        }
        boolean inList = choices.size() == 1 && expr(choices.get(0)).type() instanceof Type.ListOf;
        if (inList) {
            return function(ListFunctions.IN_LIST, call, List.of(call.operand(0), choices.get(0)));
        }
        List<SqlNode> operands = new ArrayList<>();
        operands.add(call.operand(0));
        choices.forEach(operands::add);
        return function(Comparisons.IN, call, operands);
    }

    private Expr like(SqlCall call) {
        SqlLikeOperator operator = (SqlLikeOperator) call.getOperator();
        if (!operator.getName().endsWith("LIKE") || operator.getName().contains("ILIKE")) {
            return report(Code.SYNTAX, call, operator.getName() + " is not known here.", "Write LIKE or regexp_like.");
        }
        Expr like = function(Comparisons.LIKE, call, call.getOperandList());
        return operator.isNegated() ? not(like) : like;
    }

    private Expr between(SqlCall call) {
        SqlBetweenOperator operator = (SqlBetweenOperator) call.getOperator();
        Expr low = function(Comparisons.AT_LEAST, call, List.of(call.operand(0), call.operand(1)));
        Expr high = function(Comparisons.AT_MOST, call, List.of(call.operand(0), call.operand(2)));
        Expr both = new Expr.Call(Comparisons.AND, List.of(low, high));
        return operator.isNegated() ? not(both) : both;
    }

    private Expr negative(SqlCall call) {
        return switch (expr(call.operand(0))) {
            case Expr.Literal(Long value, Type _) -> Expr.Literal.integer(-value);
            case Expr.Literal(BigDecimal value, Type type) -> new Expr.Literal(value.negate(), type);
            case Expr.Literal(Double value, Type type) -> new Expr.Literal(0.0 - value, type);
            default -> report(Code.SYNTAX, call, "Only a number can have a minus before it.", "Remove the minus.");
        };
    }

    private static Expr not(Expr expr) {
        return new Expr.Call(Comparisons.NOT, List.of(expr));
    }

    private Expr report(Code code, SqlNode node, String what, String todo) {
        problems.add(parser.problem(code, parser.spanOf(node.getParserPosition()), what, todo));
        return BROKEN;
    }
}
