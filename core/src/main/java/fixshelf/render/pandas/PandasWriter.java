package fixshelf.render.pandas;

import fixshelf.language.emulation.Emulations;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.pattern.LikePattern;
import fixshelf.language.pattern.Regex;
import fixshelf.language.pattern.RegexParser;
import fixshelf.language.pattern.Replacement;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.render.Quoted;
import fixshelf.render.RegexWriter;
import fixshelf.render.TakenNames;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Writes expressions as operations on pandas columns.
final class PandasWriter {
    static final TakenNames TAKEN = TakenNames.of(PandasLanguage.class, "pandas", false);

    private static final Quoted QUOTED = new Quoted('"', "\\u%04x", "\\U%08x");

    static final String BLANKS = "[\\t-\\r ]*";

    private final boolean frame;
    private final Set<String> fixed;
    private final String index;

    private PandasWriter(boolean frame, Set<String> fixed, String index) {
        this.frame = frame;
        this.fixed = fixed;
        this.index = index;
    }

    /// Names are columns of a frame `df`.
    static PandasWriter ofFrame() {
        return new PandasWriter(true, Set.of(), "df.index");
    }

    /// Names are the parameters and `SET` names of a fix.
    static PandasWriter ofFunction(Definition fix) {
        Set<String> fixed = new HashSet<>();
        fix.parameters().stream().skip(1).filter(p -> p.fixed()).forEach(p -> fixed.add(p.name()));
        return new PandasWriter(false, fixed, safe(fix.parameters().getFirst().name()) + ".index");
    }

    String index() {
        return index;
    }

    static String safe(String name) {
        return TAKEN.free(name);
    }

    String variable(String name) {
        return safe(name);
    }

    String functionName(Definition fix) {
        return safe(fix.name());
    }

    String assignment(String name, Expr value) {
        return safe(name) + " = " + series(value).text();
    }

    static String dtype(Type type) {
        return switch (type) {
            case Type.Text _, Type.Unknown _ -> "\"string\"";
            case Type.Int _ -> "\"Int64\"";
            case Type.Num _ -> "\"Float64\"";
            case Type.Bool _ -> "\"boolean\"";
            case Type.Decimal _, Type.Date _, Type.Timestamp _, Type.ListOf _, Type.Mapping _ -> "object";
        };
    }

    static String scalar(Expr.Literal literal) {
        return literalText(literal.value());
    }

    static String literalText(@Nullable Object value) {
        return switch (value) {
            case null -> "None";
            case String text -> quoted(text);
            case Boolean truth -> truth ? "True" : "False";
            case BigDecimal number -> "Decimal(\"" + number.toPlainString() + "\")";
            case LocalDate day ->
                "date(" + day.getYear() + ", " + day.getMonthValue() + ", " + day.getDayOfMonth() + ")";
            case LocalDateTime time ->
                "datetime(" + time.getYear() + ", " + time.getMonthValue() + ", " + time.getDayOfMonth() + ", "
                        + time.getHour() + ", " + time.getMinute() + ", " + time.getSecond()
                        + (time.getNano() == 0 ? "" : ", " + time.getNano() / 1000) + ")";
            case List<?> values -> list(values);
            case Map<?, ?> pairs -> dictionary(pairs);
            default -> value.toString();
        };
    }

    private static String list(List<?> values) {
        return values.stream().map(PandasWriter::literalText).collect(Collectors.joining(", ", "[", "]"));
    }

    private static String dictionary(Map<?, ?> pairs) {
        return pairs.entrySet().stream()
                .map(e -> literalText(e.getKey()) + ": " + literalText(e.getValue()))
                .collect(Collectors.joining(", ", "{", "}"));
    }

    static String quoted(String text) {
        return QUOTED.write(text);
    }

    /// A pattern as a raw string where that is possible.
    private static String raw(String pattern) {
        boolean plain = pattern.indexOf('"') < 0 && !pattern.endsWith("\\") && pattern.indexOf('\\') >= 0;
        return plain ? "r\"" + pattern + "\"" : quoted(pattern);
    }

    static ProblemException cannot(String why, String todo) {
        return new ProblemException(
                Problem.about(Code.CANNOT_SAY, "Python, pandas", "Python, pandas cannot say it: " + why, todo));
    }

    /// The expression as a column, also where it is a constant.
    Py series(Expr expr) {
        Py py = py(expr);
        return py.series() ? py : lifted(py, expr.type());
    }

    private Py lifted(Py value, Type type) {
        String text = value.text().equals("None") ? "pd.NA" : value.text();
        String call = "pd.Series(" + text + ", index=" + index + ", dtype=" + dtype(type) + ")";
        return new Py(call, Py.ATOM, true, !text.equals("pd.NA"));
    }

    Py py(Expr expr) {
        return switch (expr) {
            case Expr.Literal(Object value, Type _) -> value(value);
            case Expr.Name(String name, Type _) -> name(name);
            case Expr.Case choice -> choice(choice);
            case Expr.FixCall(Definition fix, List<Expr> arguments) -> fixCall(fix, arguments);
            case Expr.Call call -> call(call);
        };
    }

    private static Py value(@Nullable Object value) {
        String text = literalText(value);
        return new Py(text, text.startsWith("-") ? Py.UNARY : Py.ATOM, false, value != null);
    }

    private Py name(String name) {
        if (frame) {
            return Py.column("df[" + quoted(name) + "]");
        }
        return fixed.contains(name) ? Py.value(safe(name)) : Py.column(safe(name));
    }

    private Py fixCall(Definition fix, List<Expr> arguments) {
        StringBuilder inside = new StringBuilder(series(arguments.getFirst()).text());
        for (int i = 1; i < arguments.size(); i++) {
            var parameter = fix.parameters().get(i);
            boolean same = parameter.fallback().isPresent()
                    && parameter.fallback().get().equals(arguments.get(i));
            if (!same) {
                inside.append(", ")
                        .append(safe(parameter.name()))
                        .append('=')
                        .append(py(arguments.get(i)).text());
            }
        }
        return Py.column(safe(fix.name()) + "(" + inside + ")");
    }

    private Py choice(Expr.Case choice) {
        Py result = as(choice.type(), choice.otherwise());
        for (Expr.Branch branch : choice.branches().reversed()) {
            Py condition = sure(condition(branch.condition()));
            boolean missing = branch.result() instanceof Expr.Literal(Object value, Type _) && value == null;
            result = result.method(
                    "mask(" + condition.text() + (missing ? "" : ", " + value(choice.type(), branch.result())) + ")");
        }
        return result;
    }

    /// The expression as a column of that type: of Python's own numbers where a whole one is to be an exact one.
    private Py as(Type type, Expr expr) {
        return type instanceof Type.Decimal && expr.type() instanceof Type.Int
                ? Py.column(object(expr) + ".map(Decimal, na_action=\"ignore\")")
                : series(typed(expr, type));
    }

    /// As [#as], a constant as it is.
    private String value(Type type, Expr expr) {
        if (type instanceof Type.Decimal && expr instanceof Expr.Literal(Long whole, Type _)) {
            return literalText(BigDecimal.valueOf(whole));
        }
        return expr instanceof Expr.Literal ? py(expr).text() : as(type, expr).text();
    }

    private static Expr typed(Expr expr, Type type) {
        return expr instanceof Expr.Literal(Object value, Type _) && value == null
                ? new Expr.Literal(null, type)
                : expr;
    }

    private static Py sure(Py condition) {
        return condition.certain()
                ? condition
                : condition.method("fillna(False)").sure();
    }

    private Py call(Expr.Call call) {
        if (Inliner.simplified(call) instanceof Expr.Literal known) {
            return py(known);
        }
        if (PandasFloats.says(call)) {
            return PandasFloats.write(this, call);
        }
        Optional<Expr> simpler = Emulations.of(call);
        if (simpler.isPresent()) {
            return py(simpler.get());
        }
        if (Emulations.lacksLayout(call)) {
            throw notYetKnown();
        }
        List<Expr> a = call.arguments();
        return switch (call.function().name()) {
            case "regexp_replace" -> regexpReplace(a);
            case "regexp_like" ->
                text(
                        a,
                        "str.contains("
                                + raw(RegexWriter.python()
                                        .capturing(RegexWriter.NONE)
                                        .write(pattern(a.get(1)))) + ", regex=True)");
            case "regexp_extract" -> regexpExtract(a);
            case "coalesce" -> coalesce(call);
            case "nullif" -> nullif(a, call.type());
            case "IS NULL" -> series(a.get(0)).method("isna()").sure();
            case "IS DISTINCT FROM" -> distinct(a);
            case "IN" -> in(a);
            case "LIKE" -> like(a);
            case "AND" -> Py.infix(condition(a.get(0)), "&", condition(a.get(1)), Py.AND);
            case "OR" -> Py.infix(condition(a.get(0)), "|", condition(a.get(1)), Py.OR);
            case "NOT" -> not(condition(a.get(0)));
            case "=" -> compare(a, "==");
            case "<>" -> compare(a, "!=");
            case "<", "<=", ">", ">=" -> compare(a, call.function().name());
            case "+", "-", "*", "div", "mod", "abs", "round", "floor", "ceil", "divide", "narrow" ->
                new PandasNumbers(this).write(call);
            case "to_integer", "to_decimal", "to_text" -> new PandasNumbers(this).write(call);
            default -> more(call);
        };
    }

    /// Why a call has no form of its own: what it is written with is not known yet, or there is none.
    static ProblemException noForm(Expr.Call call) {
        return Emulations.lacksConstant(call)
                ? notYetKnown()
                : cannot("It has no form for " + call.function().name() + ".", "Use another function.");
    }

    private static ProblemException notYetKnown() {
        return cannot(
                "a list, a mapping, a layout or a separator comes through a parameter.",
                "Copy it as an expression, with the values filled in.");
    }

    private static final Set<String> OF_PARTS = Set.of("split_part", "sort_parts", "unique_parts");

    private Py more(Expr.Call call) {
        return switch (call.function().group()) {
            case DATE -> new PandasDates(this).write(call);
            case TEXT -> new PandasTexts(this).write(call);
            case LIST -> {
                if (OF_PARTS.contains(call.function().name())) {
                    yield new PandasTexts(this).write(call);
                }
                throw notYetKnown();
            }
            case PATTERN, NULL, COMPARISON, CONVERSION, NUMBER -> throw noForm(call);
        };
    }

    Py text(List<Expr> a, String call) {
        return series(a.getFirst()).method(call);
    }

    String one(Expr expr) {
        Py py = py(expr);
        if (py.series()) {
            throw cannot("an argument must be one value here, not a column.", "Give a constant.");
        }
        return py.text();
    }

    private Py condition(Expr expr) {
        return series(typed(expr, Type.BOOLEAN));
    }

    private static Py not(Py condition) {
        return new Py("~" + condition.at(Py.UNARY + 1), Py.UNARY, true, condition.certain());
    }

    /// A value worked out row by row, that says itself what missing ones give; never missing.
    private Py byRow(String value, List<String> names, String columns, String dtype) {
        String all = String.join(", ", names);
        return Py.column("pd.Series([" + value + " for " + all + " in zip(" + columns + ")], index=" + index
                        + ", dtype=" + dtype + ")")
                .sure();
    }

    Py byRow(String value, String names, String columns, String dtype) {
        String missing = java.util.Arrays.stream(names.split(", "))
                .map(n -> "pd.isna(" + n + ")")
                .collect(Collectors.joining(" or "));
        boolean several = names.indexOf(',') > 0;
        String rows = several ? "zip(" + columns + ")" : columns;
        return Py.column("pd.Series([pd.NA if " + missing + " else " + value + " for " + names + " in " + rows
                + "], index=" + index + ", dtype=" + dtype + ")");
    }

    private Regex pattern(Expr argument) {
        if (argument instanceof Expr.Literal(String text, Type _)) {
            return RegexParser.parse(text).get();
        }
        throw cannot(
                "the pattern comes through a parameter, and every language writes patterns in its own way.",
                "Copy it as an expression, with the pattern filled in.");
    }

    private Py regexpReplace(List<Expr> a) {
        if (!(a.get(2) instanceof Expr.Literal(String text, Type _))) {
            throw cannot(
                    "the replacement comes through a parameter, and every language writes groups in its own way.",
                    "Copy it as an expression, with the replacement filled in.");
        }
        String replacement = Replacement.parse(text).stream()
                .map(part -> switch (part) {
                    case Replacement.Plain(String plain) -> plain.replace("\\", "\\\\");
                    case Replacement.GroupOf(int number) -> "\\g<" + number + ">";
                })
                .collect(Collectors.joining());
        String pattern = RegexWriter.python().write(pattern(a.get(1)));
        boolean oneCharacter = pattern.codePointCount(0, pattern.length()) == 1;
        String shown = oneCharacter ? "(?:" + pattern + ")" : pattern;
        return text(a, "str.replace(" + raw(shown) + ", " + raw(replacement) + ", regex=True)");
    }

    private Py regexpExtract(List<Expr> a) {
        Regex regex = pattern(a.get(1));
        long group = a.size() > 2 && a.get(2) instanceof Expr.Literal(Long given, Type _) ? given : 0;
        RegexWriter writer = RegexWriter.python().capturing(group == 0 ? RegexWriter.NONE : (int) group);
        String pattern = writer.write(regex);
        String captured = group == 0 ? "(" + pattern + ")" : pattern;
        Py match = text(a, "str.extract(" + raw(captured) + ", expand=False)");
        if (group == 0) {
            return match;
        }
        String found = series(a.get(0))
                .method("str.contains("
                        + raw(RegexWriter.python().capturing(RegexWriter.NONE).write(regex)) + ", regex=True)")
                .text();
        return match.method("fillna(\"\")").method("where(" + found + ".fillna(False))");
    }

    private Py coalesce(Expr.Call call) {
        List<Expr> a = call.arguments().stream()
                .filter(e -> !(e instanceof Expr.Literal(Object value, Type _) && value == null))
                .toList();
        if (a.isEmpty()) {
            return value(null);
        }
        Py result = as(call.type(), a.getFirst());
        for (Expr next : a.subList(1, a.size())) {
            result = result.method("fillna(" + value(call.type(), next) + ")");
        }
        return result;
    }

    private Py nullif(List<Expr> a, Type type) {
        boolean never = a.get(1) instanceof Expr.Literal(Object value, Type _) && value == null;
        return never
                ? as(type, a.get(0))
                : as(type, typed(a.get(0), Type.TEXT))
                        .method("mask(" + sure(compare(a, "==")).text() + ")");
    }

    private Py compare(List<Expr> a, String sign) {
        boolean objects = a.stream().anyMatch(e -> dtype(e.type()).equals("object"));
        if (objects) {
            return compareObjects(a, sign);
        }
        boolean missing = a.stream().anyMatch(e -> e instanceof Expr.Literal(Object value, Type _) && value == null);
        if (missing) {
            return lifted(value(null), Type.BOOLEAN);
        }
        return Py.infix(series(a.get(0)), sign, py(a.get(1)), Py.COMPARE);
    }

    private Py compareObjects(List<Expr> a, String sign) {
        return byRow("x " + sign + " y", "x, y", object(a.get(0)) + ", " + object(a.get(1)), "\"boolean\"");
    }

    /// A column of Python's own values: an exact number can be compared with Python's whole numbers, but not with
    /// those of numpy.
    String object(Expr expr) {
        Expr typed = typed(expr, Type.INTEGER);
        return dtype(typed.type()).equals("object")
                ? series(typed).text()
                : series(typed).at(Py.ATOM) + ".astype(object)";
    }

    private Py distinct(List<Expr> a) {
        Py left = series(typed(a.get(0), a.get(1).type()));
        Py right = series(typed(a.get(1), a.get(0).type()));
        if (a.stream().anyMatch(e -> dtype(e.type()).equals("object"))) {
            return byRow(
                    "(pd.isna(x) != pd.isna(y)) if pd.isna(x) or pd.isna(y) else x != y",
                    List.of("x", "y"),
                    object(typed(a.get(0), a.get(1).type())) + ", "
                            + object(typed(a.get(1), a.get(0).type())),
                    "\"boolean\"");
        }
        Py differ = sure(Py.infix(left, "!=", right, Py.COMPARE));
        Py oneMissing = new Py(
                left.method("isna()").text() + " ^ " + right.method("isna()").text(), Py.OR, true, true);
        return Py.infix(differ, "|", oneMissing, Py.OR).sure();
    }

    private Py in(List<Expr> a) {
        Py value = series(a.get(0));
        List<Expr> choices = a.stream()
                .skip(1)
                .filter(e -> !(e instanceof Expr.Literal(Object v, Type _) && v == null))
                .toList();
        Py found;
        if (choices.stream().allMatch(e -> e instanceof Expr.Literal)) {
            String list = choices.stream().map(c -> py(c).text()).collect(Collectors.joining(", ", "[", "]"));
            found = value.method("isin(" + list + ")").method("astype(\"boolean\")");
        } else {
            found = choices.stream()
                    .map(c -> sure(compare(List.of(a.get(0), c), "==")))
                    .reduce((x, y) -> Py.infix(x, "|", y, Py.OR))
                    .orElseThrow();
        }
        return found.method("mask(" + value.method("isna()").text() + ")");
    }

    private Py like(List<Expr> a) {
        LikePattern pattern = LikePattern.of(a)
                .orElseThrow(() -> cannot(
                        "the pattern of LIKE comes through a parameter.",
                        "Copy it as an expression, with the pattern filled in."));
        String regex = pattern.write("(?s:.*)", "(?s:.)", PandasWriter::plain);
        return text(a, "str.fullmatch(" + raw(regex) + ")");
    }

    private static String plain(int c) {
        return RegexWriter.python().write(new Regex.CharacterSet(List.of(new Regex.Range(c, c)), false));
    }
}
