package fixshelf.render;

import fixshelf.language.Definition;
import fixshelf.language.Emulations;
import fixshelf.language.Expr;
import fixshelf.language.LikePattern;
import fixshelf.language.Regex;
import fixshelf.language.RegexParser;
import fixshelf.language.Replacement;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
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
    private static final Set<String> TAKEN = Set.of(
            ("False None True and as assert async await break class continue def del elif else except finally for from"
                            + " global if import in is lambda nonlocal not or pass raise return try while with yield pd re"
                            + " Decimal date datetime timedelta iso_date iso_time later months_later seconds_later whole nearest float_number initcap EXACT digits units len int abs str zip max min df list dict set type")
                    .split(" "));

    private static final Quoted QUOTED = new Quoted('"', "\\u%04x", "\\U%08x");

    static final String BLANKS = "[\\t-\\r ]*";

    private static final long MOST = 1_000_000_000;

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
        return TAKEN.contains(name) ? name + "_" : name;
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
                        + time.getHour() + ", " + time.getMinute() + ", " + time.getSecond() + ")";
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
        Py result = series(typed(choice.otherwise(), choice.type()));
        for (Expr.Branch branch : choice.branches().reversed()) {
            Py condition = sure(series(branch.condition()));
            boolean missing = branch.result() instanceof Expr.Literal(Object value, Type _) && value == null;
            result = result.method("mask(" + condition.text()
                    + (missing ? "" : ", " + py(branch.result()).text()) + ")");
        }
        return result;
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
            case "trim" -> text(a, "str.strip(" + characters(a) + ")");
            case "ltrim" -> text(a, "str.lstrip(" + characters(a) + ")");
            case "rtrim" -> text(a, "str.rstrip(" + characters(a) + ")");
            case "remove_prefix" -> text(a, "str.removeprefix(" + one(a.get(1)) + ")");
            case "remove_suffix" -> text(a, "str.removesuffix(" + one(a.get(1)) + ")");
            case "replace" -> replace(a);
            case "upper" ->
                text(
                        a,
                        "map(lambda v: \"\".join(u if len(u := c.upper()) == 1 else t if len(t := c.title()) == 1 else"
                                + " c for c in v), na_action=\"ignore\").astype(\"string\")");
            case "lower" ->
                text(
                        a,
                        "map(lambda v: \"\".join(c.lower() if c != \"\\u0130\" else \"i\" for c in v),"
                                + " na_action=\"ignore\").astype(\"string\")");
            case "length" -> text(a, "str.len()");
            case "substring" -> substring(a);
            case "left" -> left(a);
            case "right" -> right(a);
            case "position" ->
                new Py(
                        series(a.get(0))
                                        .method("str.find(" + one(a.get(1)) + ")")
                                        .text() + " + 1",
                        Py.PLUS,
                        true,
                        false);
            case "starts_with" -> text(a, "str.startswith(" + one(a.get(1)) + ")");
            case "ends_with" -> text(a, "str.endswith(" + one(a.get(1)) + ")");
            case "contains" -> text(a, "str.contains(" + one(a.get(1)) + ", regex=False)");
            case "repeat" -> text(a, "str.repeat(" + one(a.get(1)) + ")");
            case "||", "concat" -> joined(a);
            case "concat_ws" -> concatWs(a);
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
            case "nullif" -> nullif(a);
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
            case "reverse" -> Py.column(series(a.get(0)).at(Py.ATOM) + ".str[::-1]");
            case "initcap" -> text(a, "map(initcap, na_action=\"ignore\").astype(\"string\")");
            case "translate" -> translate(a);
            case "normalize" -> text(a, "str.normalize(\"NFC\")");
            case "split_part" -> part(a);
            case "+", "-", "*", "div", "mod", "abs", "round", "floor", "ceil", "divide" ->
                new PandasNumbers(this).write(call);
            case "to_integer", "to_decimal", "to_text" -> new PandasNumbers(this).write(call);
            default -> more(call);
        };
    }

    private static ProblemException notYetKnown() {
        return cannot(
                "a list, a mapping, a layout or a separator comes through a parameter.",
                "Copy it as an expression, with the values filled in.");
    }

    private Py more(Expr.Call call) {
        return switch (call.function().group()) {
            case DATE -> new PandasDates(this).write(call);
            case LIST -> throw notYetKnown();
            case TEXT, PATTERN, NULL, COMPARISON, CONVERSION, NUMBER ->
                throw cannot("It has no form for " + call.function().name() + ".", "Use another function.");
        };
    }

    Py text(List<Expr> a, String call) {
        return series(a.getFirst()).method(call);
    }

    private String one(Expr expr) {
        Py py = py(expr);
        if (py.series()) {
            throw cannot("an argument must be one value here, not a column.", "Give a constant.");
        }
        return py.text();
    }

    /// A column, or one text where all parts are.
    private Py joined(List<Expr> a) {
        boolean one = a.stream().map(this::py).allMatch(p -> !p.series() && p.certain());
        Py joined = a.stream()
                .map(e -> one ? py(e) : series(e))
                .reduce((x, y) -> Py.infix(x, "+", y, Py.PLUS))
                .orElseThrow();
        return one ? new Py(joined.text(), Py.PLUS, false, true) : joined;
    }

    private String characters(List<Expr> a) {
        return a.size() > 1 ? one(a.get(1)) : "\" \"";
    }

    private Py condition(Expr expr) {
        return series(typed(expr, Type.BOOLEAN));
    }

    private static Py not(Py condition) {
        return new Py("~" + condition.at(Py.UNARY + 1), Py.UNARY, true, condition.certain());
    }

    private Py replace(List<Expr> a) {
        Py text = series(a.get(0));
        if (a.get(1) instanceof Expr.Literal(String search, Type _) && search.isEmpty()) {
            return text;
        }
        Py replaced = text.method("str.replace(" + one(a.get(1)) + ", " + one(a.get(2)) + ", regex=False)");
        if (a.get(1) instanceof Expr.Literal) {
            return replaced;
        }
        return new Py(replaced.text() + " if " + one(a.get(1)) + " else " + text.text(), Py.LAMBDA, true, false);
    }

    private static @Nullable Long number(Expr expr) {
        return expr instanceof Expr.Literal(Long n, Type _) ? n : null;
    }

    private Py substring(List<Expr> a) {
        Long start = number(a.get(1));
        Long length = a.size() > 2 ? number(a.get(2)) : Long.valueOf(MOST);
        if (start == null || length == null) {
            return substringByRow(a);
        }
        long from = within(start, -MOST);
        long first = Math.max(0, from - 1);
        long end = Math.max(first, from - 1 + within(length, 0));
        return text(a, "str.slice(" + first + (a.size() > 2 ? ", " + end : "") + ")");
    }

    /// Numbers beyond a billion count as a billion, as in every language.
    private static long within(long number, long least) {
        return Math.max(least, Math.min(number, MOST));
    }

    private Py substringByRow(List<Expr> a) {
        String columns = a.stream().map(e -> series(e).text()).collect(Collectors.joining(", "));
        String names = a.size() > 2 ? "t, i, n" : "t, i";
        String start = "max(min(int(i), 10**9), -(10**9))";
        String end =
                a.size() > 2 ? "max(max(" + start + " - 1, 0), " + start + " - 1 + max(min(int(n), 10**9), 0))" : "";
        return byRow("t[max(" + start + " - 1, 0):" + end + "]", names, columns);
    }

    private Py byRow(String value, String names, String columns) {
        return byRow(value, names, columns, "\"string\"");
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

    private Py left(List<Expr> a) {
        Long count = number(a.get(1));
        return count != null
                ? Py.column(
                        series(a.get(0)).at(Py.ATOM) + ".str[:" + Math.max(0, Math.min(count, Integer.MAX_VALUE)) + "]")
                : byRow(
                        "t[: max(int(n), 0)]",
                        "t, n",
                        series(a.get(0)).text() + ", " + series(a.get(1)).text());
    }

    private Py right(List<Expr> a) {
        Long count = number(a.get(1));
        if (count == null) {
            return byRow(
                    "t[max(len(t) - max(int(n), 0), 0) :]",
                    "t, n",
                    series(a.get(0)).text() + ", " + series(a.get(1)).text());
        }
        String slice = count < 1 ? "[:0]" : "[-" + Math.min(count, Integer.MAX_VALUE) + ":]";
        return Py.column(series(a.get(0)).at(Py.ATOM) + ".str" + slice);
    }

    private Py concatWs(List<Expr> a) {
        String columns = a.stream().skip(1).map(e -> series(e).text()).collect(Collectors.joining(", "));
        String parts = "[v for v in row if not pd.isna(v)]";
        return Py.column("pd.Series([" + one(a.get(0)) + ".join(kept) if (kept := " + parts
                + ") else pd.NA for row in zip(" + columns + ")], index=" + index + ", dtype=\"string\")");
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
        long group = a.size() > 2 ? java.util.Objects.requireNonNullElse(number(a.get(2)), 0L) : 0;
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
        Py result = series(a.getFirst());
        for (Expr next : a.subList(1, a.size())) {
            result = result.method("fillna(" + py(next).text() + ")");
        }
        return result;
    }

    private Py nullif(List<Expr> a) {
        boolean never = a.get(1) instanceof Expr.Literal(Object value, Type _) && value == null;
        return never
                ? series(a.get(0))
                : series(typed(a.get(0), Type.TEXT))
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
        String columns = series(a.get(0)).text() + ", " + series(a.get(1)).text();
        return byRow("x " + sign + " y", "x, y", columns, "\"boolean\"");
    }

    private Py distinct(List<Expr> a) {
        Py left = series(typed(a.get(0), a.get(1).type()));
        Py right = series(typed(a.get(1), a.get(0).type()));
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

    private Py translate(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(String from, Type _)
                && a.get(2) instanceof Expr.Literal(String to, Type _))) {
            throw cannot("the characters come through a parameter.", "Copy it with the characters filled in.");
        }
        int[] characters = from.codePoints().distinct().toArray();
        StringBuilder found = new StringBuilder();
        StringBuilder written = new StringBuilder();
        StringBuilder dropped = new StringBuilder();
        for (int c : characters) {
            int at = from.codePointCount(0, from.indexOf(Character.toString(c)));
            if (at < to.codePointCount(0, to.length())) {
                found.appendCodePoint(c);
                written.appendCodePoint(to.codePointAt(to.offsetByCodePoints(0, at)));
            } else {
                dropped.appendCodePoint(c);
            }
        }
        String third = dropped.isEmpty() ? "" : ", " + quoted(dropped.toString());
        String table = "str.maketrans(" + quoted(found.toString()) + ", " + quoted(written.toString()) + third + ")";
        return text(a, "str.translate(" + table + ")");
    }

    private Py part(List<Expr> a) {
        Long wanted = number(a.get(2));
        if (wanted == null) {
            throw cannot("the number of the part comes through a parameter.", "Copy it with the number filled in.");
        }
        long index = wanted > 0 ? wanted - 1 : wanted;
        return text(a, "str.split(" + one(a.get(1)) + ", regex=False).str[" + index + "].astype(\"string\")");
    }
}
