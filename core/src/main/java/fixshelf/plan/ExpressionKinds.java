package fixshelf.plan;

import fixshelf.language.checking.ExpressionParser;
import fixshelf.language.checking.Scope;
import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Lexer;
import fixshelf.plan.Written.Word;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.table.Aggregate;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.type.Type;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/// Blanks that hold SQL: expressions, conditions, new columns, measures.
public final class ExpressionKinds {
    public static final Kind<Expr> CONDITION = new Expression(true, Optional.empty());
    public static final Kind<Expr> EXPRESSION = new Expression(false, Optional.empty());
    public static final Kind<Map<String, Expr>> NEW_COLUMNS =
            new NewColumns<>("new columns", ExpressionKinds::expression);
    public static final Kind<Map<String, Measure>> MEASURES = new NewColumns<>("measures", ExpressionKinds::measure);

    private static final Pattern AGGREGATE = Pattern.compile("(?is)\\s*(\\w+)\\s*\\((.*)\\)\\s*");
    private static final Pattern FILTERED = Pattern.compile("(?is)(.*\\))\\s*filter\\s*\\(\\s*where\\b(.*)\\)\\s*");

    private ExpressionKinds() {}

    /// An expression that may also speak of `name`, with a type that the reader of the blank knows.
    public static Kind<Expr> over(String name) {
        return new Expression(false, Optional.of(name));
    }

    /// A condition that may also speak of `name`.
    public static Kind<Expr> conditionOver(String name) {
        return new Expression(true, Optional.of(name));
    }

    /// What is made of the rows of a group.
    ///
    /// @param of what is looked at in each row; where a FILTER leaves a row out, it is missing there
    /// @param mean whether the sum is divided by the count, to `places` places
    /// @param separator what stands between listed texts
    public record Measure(Aggregate aggregate, Optional<Expr> of, boolean mean, int places, String separator) {
        public Type type() {
            if (mean) {
                return new Type.Decimal(18, places);
            }
            return aggregate.result(of.map(Expr::type).orElse(Type.INTEGER));
        }
    }

    /// The expression over the fields before a line.
    static Outcome<Expr> expression(String text, Context context) {
        return expression(text, context, Map.of());
    }

    /// As [#expression], with more names.
    static Outcome<Expr> expression(String text, Context context, Map<String, Expr> more) {
        Scope scope = new Scope(context.fixes());
        Map<String, Expr> names = new LinkedHashMap<>();
        more.forEach((n, value) -> add(scope, names, n, value, Scope.Kind.COLUMN));
        if (context.names().isPresent()) {
            context.names().get().forEach((n, value) -> add(scope, names, n, value, Scope.Kind.COLUMN));
        } else {
            for (Field field : context.fields()) {
                add(scope, names, field.name(), field.value(), Scope.Kind.COLUMN);
            }
        }
        context.parameters().forEach((n, value) -> add(scope, names, n, value, Scope.Kind.PARAMETER));
        for (String name : context.parameters().keySet()) {
            if (text.contains("{" + name + "}")) {
                return Refusal.of(
                        Code.ARGUMENTS,
                        "This writes {" + name + "}, and braces are ordinary signs in an expression.",
                        "Write " + name + " without braces and quotes.");
            }
        }
        Outcome<Expr> parsed = ExpressionParser.parse("blank", text, scope);
        return new Outcome<>(
                parsed.value()
                        .map(e -> Formula.renamed(
                                e, n -> names.getOrDefault(n.name().toLowerCase(Locale.ROOT), n))),
                parsed.problems());
    }

    private static void add(Scope scope, Map<String, Expr> names, String name, Expr value, Scope.Kind kind) {
        if (scope.add(new Scope.Binding(name, value.type(), kind))) {
            names.put(name.toLowerCase(Locale.ROOT), value);
        }
    }

    /// A short text that does not look like YAML's own signs, in a sentence.
    private record Expression(boolean condition, Optional<String> about) implements Kind<Expr> {
        @Override
        public String name() {
            return condition ? "condition" : "expression";
        }

        @Override
        public Outcome<Expr> read(Written written, Context context) {
            if (!(written instanceof Word(String text)) || text.isBlank()) {
                return Refusal.field(
                        "Here stands " + (condition ? "a condition" : "an expression") + ".", "Write SQL.");
            }
            Map<String, Expr> more = about.map(n -> Map.<String, Expr>of(n, new Expr.Name(n, context.it())))
                    .orElse(Map.of());
            return expression(text, context, more)
                    .then(e -> condition && !isCondition(e)
                            ? Refusal.of(
                                    Code.WRONG_TYPE,
                                    "A condition is true or false, this is "
                                            + e.type().label() + ".",
                                    "Compare it with something: " + text.strip() + " = …")
                            : Outcome.of(e));
        }

        private static boolean isCondition(Expr expr) {
            return expr.type().equals(Type.BOOLEAN) || expr.type() instanceof Type.Unknown;
        }

        @Override
        public boolean isCode(Written written) {
            return true;
        }

        @Override
        public String say(Written written) {
            return written instanceof Word(String text) ? text : "?";
        }

        @Override
        public Outcome<Written> typed(String text) {
            return text.isBlank()
                    ? Refusal.field(condition ? "Which rows?" : "Which value?", "Type SQL over the columns.")
                    : Outcome.of(Written.word(text));
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            String first = choices.names().stream()
                    .findFirst()
                    .map(fixshelf.language.tree.Printer::name)
                    .orElse("NULL");
            return Optional.of(Written.word(about.orElse(first) + (condition ? " IS NOT NULL" : "")));
        }
    }

    private interface Reader<T> {
        Outcome<T> read(String text, Context context);
    }

    /// New names with what they are.
    private record NewColumns<T>(String name, Reader<T> reader) implements Kind<Map<String, T>> {
        @Override
        public Outcome<Map<String, T>> read(Written written, Context context) {
            Map<String, T> made = new LinkedHashMap<>();
            List<Problem> problems = new java.util.ArrayList<>();
            boolean wrong = false;
            for (Map.Entry<String, String> pair :
                    written.wordPairs().orElse(Map.of()).entrySet()) {
                Outcome<T> value = reader.read(pair.getValue(), context);
                value.problems().forEach(p -> problems.add(Refusal.about(pair.getValue(), p)));
                value.value().ifPresent(v -> made.put(pair.getKey(), v));
                wrong |= !value.isPresent();
            }
            if (made.isEmpty() && !wrong) {
                return Refusal.field("Here stand new names with " + what() + ".", "Write {name: " + example() + "}.");
            }
            return wrong ? Outcome.failed(problems) : Outcome.of(made, problems);
        }

        private String what() {
            return name.equals("measures") ? "what they count" : "expressions";
        }

        private String example() {
            return name.equals("measures") ? "count_rows()" : "upper(a)";
        }

        @Override
        public boolean isCode(Written written) {
            return true;
        }

        @Override
        public String say(Written written) {
            return written.wordPairs().orElse(Map.of()).entrySet().stream()
                    .map(e -> Words.quoted(e.getKey()) + " = " + e.getValue())
                    .collect(Collectors.joining("; "));
        }

        @Override
        public Outcome<Written> typed(String text) {
            Map<String, String> pairs = new LinkedHashMap<>();
            for (String piece : Words.pieces(text, ";", "\"'")) {
                List<String> both = Words.pieces(piece, "=", "\"'");
                if (both.size() < 2) {
                    return Refusal.field("A new column is given with `=`.", "Type name = " + example() + ".");
                }
                String value = piece.substring(
                                piece.indexOf('=', both.getFirst().length()) + 1)
                        .strip();
                pairs.put(Words.unquoted(both.getFirst()), value);
            }
            return pairs.isEmpty()
                    ? Refusal.field("Which columns?", "Type name = " + example() + ".")
                    : Outcome.of(Written.pairs(pairs));
        }

        @Override
        public Optional<Written> beginning(Choices choices) {
            return Optional.of(Written.pairs(Map.of("new", name.equals("measures") ? "count_rows()" : "'a'")));
        }
    }

    /// Reads `sum(parts_cost)`, `mean(x, 2)`, `count_rows() FILTER (WHERE …)`, `count(DISTINCT x)`,
    /// `listagg(x, ', ')`.
    static Outcome<Measure> measure(String text, Context context) {
        Matcher filtered = FILTERED.matcher(text);
        boolean some = filtered.matches();
        Matcher call = AGGREGATE.matcher(some ? filtered.group(1) : text);
        if (!call.matches()) {
            return Refusal.field(
                    text + " is no measure.",
                    "Write count_rows(), count(x), count(DISTINCT x), sum(x), mean(x, 2), min(x), max(x) or"
                            + " listagg(x, ', ').");
        }
        Outcome<Optional<Expr>> condition = some
                ? CONDITION.read(Written.word(filtered.group(2)), context).map(Optional::of)
                : Outcome.of(Optional.empty());
        return condition.then(c ->
                measure(call.group(1).toLowerCase(Locale.ROOT), call.group(2).strip(), c, context));
    }

    private static Outcome<Measure> measure(String name, String inside, Optional<Expr> where, Context context) {
        Optional<Aggregate> aggregate = Optional.ofNullable(
                switch (name) {
                    case "count_rows" -> Aggregate.ROWS;
                    case "count" -> Aggregate.COUNT;
                    case "sum", "mean" -> Aggregate.SUM;
                    case "min" -> Aggregate.LEAST;
                    case "max" -> Aggregate.GREATEST;
                    case "listagg" -> Aggregate.LISTED;
                    default -> null;
                });
        if (aggregate.isEmpty()) {
            return Refusal.of(
                    Code.UNKNOWN_FUNCTION,
                    "There is no aggregate " + name + ".",
                    "Known: count_rows, count, sum, mean, min, max, listagg.");
        }
        if (aggregate.get() == Aggregate.ROWS) {
            UnaryOperator<Expr> one = w -> Formula.when(w, Expr.Literal.integer(1), Formula.missing(Type.INTEGER));
            return inside.isEmpty()
                    ? Outcome.of(
                            where.isEmpty()
                                    ? new Measure(Aggregate.ROWS, Optional.empty(), false, 0, "")
                                    : new Measure(Aggregate.COUNT, where.map(one), false, 0, ""))
                    : Refusal.field("count_rows takes nothing.", "Write count_rows(), or count(" + inside + ").");
        }
        boolean distinct = aggregate.get() == Aggregate.COUNT && inside.matches("(?is)distinct\\s.*");
        List<String> parts = arguments(distinct ? inside.substring(8) : inside);
        boolean two = name.equals("mean") || name.equals("listagg");
        if (parts.isEmpty() || parts.size() > (two ? 2 : 1)) {
            return Refusal.field(name + " takes one value.", "Write " + name + "(x).");
        }
        return expression(parts.getFirst(), context)
                .then(of -> made(name, distinct ? Aggregate.DISTINCT : aggregate.get(), of, where, parts));
    }

    private static Outcome<Measure> made(
            String name, Aggregate aggregate, Expr of, Optional<Expr> where, List<String> parts) {
        if (!aggregate.takes(of.type())) {
            return Refusal.of(
                    Code.WRONG_TYPE,
                    name + " does not take " + of.type().label() + ".",
                    aggregate == Aggregate.SUM ? "Read it as a number before, with read_as." : "Convert it before.");
        }
        Expr filtered =
                where.map(w -> Formula.when(w, of, Formula.missing(of.type()))).orElse(of);
        String second = parts.size() > 1 ? parts.getLast() : name.equals("mean") ? "2" : "', '";
        Optional<Expr.Literal> constant =
                WrittenConstants.read("blank", second).value().flatMap(v -> v);
        if (name.equals("mean")) {
            boolean fits = constant.isPresent() && constant.get().value() instanceof Long n && n >= 0 && n <= 9;
            return fits && constant.get().value() instanceof Long places
                    ? Outcome.of(new Measure(aggregate, Optional.of(filtered), true, places.intValue(), ""))
                    : Refusal.field("mean takes the places after the point, 0 to 9.", "Write mean(x, 2).");
        }
        if (name.equals("listagg")) {
            return constant.isPresent() && constant.get().value() instanceof String separator
                    ? Outcome.of(new Measure(aggregate, Optional.of(filtered), false, 0, separator))
                    : Refusal.field("listagg takes a separator.", "Write listagg(x, ', ').");
        }
        return Outcome.of(new Measure(aggregate, Optional.of(filtered), false, 0, ""));
    }

    /// The arguments between commas that stand in no parentheses and no quotes.
    private static List<String> arguments(String text) {
        List<String> parts = new java.util.ArrayList<>();
        int depth = 0;
        int from = 0;
        for (Lexer.Token token : Lexer.tokens(text)) {
            String sign = token.in(text);
            depth += sign.equals("(") || sign.equals("[") ? 1 : sign.equals(")") || sign.equals("]") ? -1 : 0;
            if (sign.equals(",") && depth == 0) {
                parts.add(text.substring(from, token.span().start()).strip());
                from = token.span().end();
            }
        }
        parts.add(text.substring(from).strip());
        return parts.stream().filter(p -> !p.isEmpty()).toList();
    }
}
