package fixshelf.language.checking;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.Constants;
import fixshelf.language.catalogue.FloatFunctions;
import fixshelf.language.catalogue.Functions;
import fixshelf.language.catalogue.ListFunctions;
import fixshelf.language.catalogue.NullFunctions;
import fixshelf.language.catalogue.TextFunctions;
import fixshelf.language.checking.Scope.Binding;
import fixshelf.language.checking.Scope.Found;
import fixshelf.language.emulation.ConstantArguments;
import fixshelf.language.tree.CommonType;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Digits;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Slot;
import fixshelf.language.tree.FunctionDef.Wants;
import fixshelf.language.tree.Names;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Span;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.apache.calcite.sql.SqlBasicCall;
import org.apache.calcite.sql.SqlCall;
import org.apache.calcite.sql.SqlIdentifier;
import org.apache.calcite.sql.SqlKind;
import org.apache.calcite.sql.SqlLiteral;
import org.apache.calcite.sql.SqlNode;
import org.apache.calcite.sql.SqlNodeList;
import org.apache.calcite.sql.fun.SqlBetweenOperator;
import org.apache.calcite.sql.fun.SqlCase;
import org.apache.calcite.sql.fun.SqlLikeOperator;
import org.apache.calcite.sql.fun.SqlTrimFunction;

/// Turns the parser's tree into a typed [Expr]. It goes on after a problem, so that one look finds all of them.
final class Checker {

    private final ExpressionParser parser;
    private final Scope scope;
    private final Findings findings;
    private final TypeChecks types;
    private final ConstantNodes constants;

    Checker(ExpressionParser parser, Scope scope) {
        this.parser = parser;
        this.scope = scope;
        this.findings = new Findings(parser);
        this.types = new TypeChecks(findings);
        this.constants = new ConstantNodes(findings, this::expr);
    }

    Outcome<Expr> check(SqlNode node) {
        Expr expr = expr(node);
        return findings.all().isEmpty() ? Outcome.of(expr) : Outcome.failed(findings.all());
    }

    /// What can be nothing but null is a null: languages would take it for a text, and refuse it as a condition.
    private Expr expr(SqlNode node) {
        Expr expr =
                switch (node) {
                    case SqlLiteral literal -> constants.literal(literal);
                    case SqlIdentifier identifier -> name(identifier);
                    case SqlCase choice -> choice(choice);
                    case SqlCall call -> call(call);
                    default -> report(Code.SYNTAX, node, "This is not part of the expression language.", "Remove it.");
                };
        return expr instanceof Expr.Case || expr instanceof Expr.Call
                ? expr.type() instanceof Type.Unknown ? Expr.Literal.NULL : expr
                : expr;
    }

    private Expr name(SqlIdentifier identifier) {
        if (!identifier.isSimple()) {
            return report(Code.UNKNOWN_NAME, identifier, "A name has one part.", "Write it without the dot.");
        }
        String name = ExpressionParser.name(identifier.getSimple());
        Optional<Binding> found = scope.find(name);
        if (found.isPresent()) {
            return new Expr.Name(found.get().name(), found.get().type());
        }
        return report(Code.UNKNOWN_NAME, identifier, "no name " + name + ".", nearest(name, scope));
    }

    /// Names that may be meant by one that is not there.
    static String nearest(String name, Scope scope) {
        String known = scope.names().isEmpty()
                ? "There are no names here: write a text in '…'."
                : "Known: " + String.join(", ", scope.names().stream().limit(12).toList()) + ".";
        return Names.suggest(name, scope.names(), known);
    }

    private Expr choice(SqlCase choice) {
        List<Expr.Branch> branches = new ArrayList<>();
        SqlNodeList whens = choice.getWhenOperands();
        CommonType type = new CommonType();
        for (int i = 0; i < whens.size(); i++) {
            Expr condition = expr(whens.get(i));
            types.wantBoolean(condition, whens.get(i), "WHEN");
            SqlNode then = choice.getThenOperands().get(i);
            Expr result = expr(then);
            types.wantCommon(type, result, then);
            branches.add(new Expr.Branch(condition, result));
        }
        Expr otherwise = choice.getElseOperand() == null ? Expr.Literal.NULL : expr(choice.getElseOperand());
        if (choice.getElseOperand() != null) {
            types.wantCommon(type, otherwise, choice.getElseOperand());
        }
        if (type.type() instanceof Type.Num) {
            branches.replaceAll(b -> new Expr.Branch(b.condition(), CommonType.asNumber(b.result())));
            otherwise = CommonType.asNumber(otherwise);
        }
        return new Expr.Case(branches, otherwise, type.type());
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
            case CAST -> cast(call);
            case PLUS -> function(Arithmetic.PLUS, call, operands);
            case MINUS -> function(Arithmetic.MINUS, call, operands);
            case TIMES -> function(Arithmetic.TIMES, call, operands);
            case MOD -> function(Arithmetic.MOD, call, operands);
            case DIVIDE -> function(FloatFunctions.QUOTIENT, call, operands);
            case ARRAY_VALUE_CONSTRUCTOR -> constants.list(call);
            case MAP_VALUE_CONSTRUCTOR -> constants.mapping(call);
            case SELECT, ORDER_BY, UNION, WITH, SCALAR_QUERY, EXISTS ->
                report(Code.SYNTAX, call, "A fix cannot query tables.", "Give the value as a parameter.");
            default -> named(call);
        };
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
        findings.add(parser.problem(
                Code.UNKNOWN_FUNCTION,
                word,
                "no function " + name + ".",
                Names.suggest(name, known, "`fixshelf functions` lists what there is; or write a fix of that name.")));
        return Findings.BROKEN;
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
            types.wantType(function.name(), slot, argument, operands.get(i));
            wantFixed(function.name(), slot, argument, operands.get(i));
            if (slot.wants() == Wants.SAME) {
                types.wantSame(function.name(), same, argument, operands.get(i));
            }
            if (slot.wants() == Wants.LIST || slot.wants() == Wants.MAPPING) {
                types.wantHolds(function, slot, same.type(), argument, operands.get(i));
                same = function == ListFunctions.LOOKUP && argument.type() instanceof Type.Mapping(Type _, Type to)
                        ? new CommonType(to)
                        : same;
            }
        }
        ConstantArguments.problemWith(function, arguments)
                .ifPresent(r -> findings.report(
                        r.code(), call.operand(Math.min(r.argument(), call.operandCount() - 1)), r.what(), r.todo()));
        boolean approximate = same.type() instanceof Type.Num
                || function.slot(0).wants() == Wants.NUMBER
                || function.slot(0).wants() == Wants.REAL && Digits.isApproximate(arguments);
        if (approximate) {
            for (int i = 0; i < arguments.size(); i++) {
                Wants wants = function.slot(i).wants();
                boolean number = wants == Wants.NUMBER || wants == Wants.REAL || wants == Wants.SAME;
                arguments.set(i, number ? CommonType.asNumber(arguments.get(i)) : arguments.get(i));
            }
            types.wantOneKind(function, arguments, call);
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

    private static String count(int least, FunctionDef function) {
        int most = function.slots().size();
        if (function.variadic()) {
            return "at least " + least;
        }
        return least == most ? "" + least : least + " to " + most;
    }

    private void wantFixed(String function, Slot slot, Expr argument, SqlNode node) {
        if (slot.fixed() && !isFixed(argument, scope)) {
            report(
                    Code.NOT_CONSTANT,
                    node,
                    function + " must know its " + slot.name() + " when the code is written.",
                    "Give a constant or a parameter of the fix, not a column or a computed value.");
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
        argument = Arithmetic.held(argument, parameter.type());
        types.wantFits(fix.name(), parameter.name(), parameter.type(), argument, node);
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

    /// A number as a decimal; other conversions have functions that say what becomes of what cannot be read.
    private Expr cast(SqlCall call) {
        Optional<Type> wanted =
                Type.parse(call.operand(1).toString().replace(" ", "").replace("\"", ""));
        Expr value = expr(call.operand(0));
        if (wanted.orElse(Type.UNKNOWN) instanceof Type.Decimal decimal
                && (value.type().isNumeric() || value.type() instanceof Type.Unknown)) {
            return CommonType.fits(value, decimal) && value instanceof Expr.Literal(Object number, Type _)
                    ? new Expr.Literal(number, decimal)
                    : new Expr.Call(
                            Arithmetic.NARROW,
                            List.of(
                                    value,
                                    Expr.Literal.integer(decimal.precision()),
                                    Expr.Literal.integer(decimal.scale())));
        }
        return report(
                Code.SYNTAX,
                call,
                "CAST makes decimals of numbers here; other conversions differ between languages.",
                "Write to_integer, to_decimal, to_date or to_text; floor or round(…, 0) for whole numbers.");
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
            case Expr value
            when value.type().isNumeric() || value.type() instanceof Type.Unknown ->
                new Expr.Call(Arithmetic.MINUS, List.of(Expr.Literal.integer(0), value));
            case Expr value
            when value.type() instanceof Type.Num ->
                new Expr.Call(Arithmetic.MINUS, List.of(new Expr.Literal(0.0, Type.NUMBER), value));
            default -> report(Code.WRONG_TYPE, call, "Only a number can have a minus before it.", "Remove the minus.");
        };
    }

    private static Expr not(Expr expr) {
        return new Expr.Call(Comparisons.NOT, List.of(expr));
    }

    private Expr report(Code code, SqlNode node, String what, String todo) {
        return findings.report(code, node, what, todo);
    }

    /// Whether the value will be known when code is written: constants, parameters, which are then given
    /// one, and texts joined of these.
    private static boolean isFixed(Expr expr, Scope scope) {
        return switch (expr) {
            case Expr.Literal _ -> true;
            case Expr.Name name ->
                scope.find(name.name())
                        .map(b -> b.kind() == Scope.Kind.PARAMETER)
                        .orElse(false);
            case Expr.Call call
            when isWorkedOut(call.function()) -> call.arguments().stream().allMatch(a -> isFixed(a, scope));
            case Expr.Call _, Expr.Case _, Expr.FixCall _ ->
                Constants.value(expr).isPresent();
        };
    }

    private static boolean isWorkedOut(FunctionDef function) {
        return function == TextFunctions.CONCAT
                || function == TextFunctions.CONCAT_CALL
                || function == ListFunctions.DATE_RANGE;
    }
}
