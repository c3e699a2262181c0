package fixshelf.plan;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Constants;
import fixshelf.language.checking.TypeChecks;
import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.emulation.ConstantArguments;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.language.tree.Printer;
import fixshelf.plan.Written.Fields;
import fixshelf.plan.Written.Items;
import fixshelf.plan.Written.Word;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.table.Formula;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// The argument of a fix: a plain value of its parameter's type, `{column: x}`, or `{sql: …}`; a list or a mapping
/// also out of a table, `{in: table, column: x}` and `{in: table, from: x, to: y}`.
///
/// Typed into a blank, an expression begins with `=`.
public record ArgumentKind(Parameter parameter) implements Kind<Expr> {
    @Override
    public String name() {
        return parameter.type().label();
    }

    @Override
    public Outcome<Expr> read(Written written, Context context) {
        return written(written, context).then(this::fitting);
    }

    private Outcome<Expr> written(Written written, Context context) {
        return switch (written) {
            case Fields(Map<String, Written> parts)
            when parts.size() == 1 && parts.get("sql") instanceof Word(String text) ->
                ExpressionKinds.expression(text, context);
            case Fields(Map<String, Written> parts)
            when parts.size() == 1 && parts.get("column") instanceof Word(String name) ->
                Refusal.column(name, context).map(f -> f.value());
            case Fields(Map<String, Written> parts)
            when parts.get("in") instanceof Word(String source)
                    && parts.get("from") instanceof Word(String from)
                    && parts.get("to") instanceof Word(String to) ->
                context.sources().pairs(source, from, to).then(this::mapping);
            case Fields(Map<String, Written> parts)
            when parts.get("in") instanceof Word(String source) && parts.get("column") instanceof Word(String column) ->
                context.sources().pairs(source, column, column).then(p -> list(List.copyOf(p.keySet())));
            case Fields fields
            when parameter.type() instanceof Type.Mapping ->
                fields.wordPairs().map(this::mapping).orElseGet(() -> Refusal.field("A mapping is of words.", ""));
            case Items items
            when parameter.type() instanceof Type.ListOf ->
                items.texts().map(this::list).orElseGet(() -> Refusal.field("A list is of words.", ""));
            case Word(String text) -> plain(text);
            case Fields _, Items _ ->
                Refusal.field(
                        "Here stands " + parameter.type().label() + ".",
                        "Write a plain value, {column: x} or {sql: …}.");
        };
    }

    /// A plain value; for a text the text itself, else a constant of the type.
    private Outcome<Expr> plain(String text) {
        if (parameter.type() instanceof Type.ListOf) {
            return list(List.of(text));
        }
        return constant(text, parameter.type()).map(c -> c);
    }

    private static Outcome<Expr.Literal> constant(String text, Type type) {
        if (type.equals(Type.TEXT)) {
            return Outcome.of(Expr.Literal.text(text));
        }
        String written = type instanceof Type.Date && !text.contains("'")
                ? "DATE '" + text + "'"
                : type instanceof Type.Timestamp && !text.contains("'") ? "TIMESTAMP '" + text + "'" : text;
        Optional<Expr.Literal> value =
                WrittenConstants.read("blank", written).value().flatMap(v -> v).filter(v -> v.value() != null);
        return value.map(Outcome::of)
                .orElseGet(() -> Refusal.of(
                        Code.WRONG_TYPE,
                        text,
                        text + " is no " + type.label() + ".",
                        "Write " + example(type) + ", say."));
    }

    private Outcome<Expr> list(List<String> texts) {
        Type element = parameter.type() instanceof Type.ListOf(Type of) ? of : Type.TEXT;
        return Refusal.together(texts.stream().map(t -> constant(t, element)).toList())
                .map(all ->
                        new Expr.Literal(all.stream().map(Expr.Literal::value).toList(), new Type.ListOf(element)));
    }

    private Outcome<Expr> mapping(Map<String, @Nullable String> pairs) {
        if (!(parameter.type() instanceof Type.Mapping(Type from, Type to))) {
            return Refusal.of(Code.WRONG_TYPE, "This is a mapping, and " + name() + " is asked for.", "");
        }
        Map<Object, @Nullable Object> values = new LinkedHashMap<>();
        List<Problem> problems = new ArrayList<>();
        pairs.forEach((k, v) -> {
            Outcome<Expr.Literal> key = constant(k, from);
            Outcome<Expr.Literal> value = v == null ? Outcome.of(new Expr.Literal(null, to)) : constant(v, to);
            problems.addAll(key.problems());
            problems.addAll(value.problems());
            if (key.isPresent() && value.isPresent()) {
                values.put(key.get().value(), value.get().value());
            }
        });
        return problems.isEmpty() ? Outcome.of(new Expr.Literal(values, parameter.type())) : Outcome.failed(problems);
    }

    private Outcome<Expr> fitting(Expr written) {
        Expr value = Arithmetic.held(Constants.value(written).<Expr>map(v -> v).orElse(written), parameter.type());
        if (!Constants.fits(value, parameter.type())) {
            return Refusal.of(
                    Code.WRONG_TYPE,
                    parameter.name() + " is " + parameter.type().label() + ", this is "
                            + value.type().label() + ".",
                    value instanceof Expr.Literal && value.type().equals(Type.TEXT)
                            ? "Write it without the quotes inside, as " + parameter.name() + ": "
                                    + example(parameter.type()) + ", say."
                            : TypeChecks.hint(value.type(), parameter.type()));
        }
        if (parameter.fixed() && !(value instanceof Expr.Literal)) {
            return Refusal.of(Code.NOT_CONSTANT, parameter.name() + " must be a constant.", "Write the value itself.");
        }
        return Outcome.of(value);
    }

    /// A plain value of that type, as it is written.
    private static String example(Type type) {
        return switch (type) {
            case Type.Int _ -> "5";
            case Type.Decimal _ -> "0.5";
            case Type.Num _ -> "1.5e0";
            case Type.Bool _ -> "true";
            case Type.Date _ -> "2026-02-07";
            case Type.Timestamp _ -> "2026-02-07 10:12:00";
            case Type.ListOf(Type element) -> "[" + example(element) + "]";
            case Type.Mapping(Type from, Type to) -> "{" + example(from) + ": " + example(to) + "}";
            case Type.Text _, Type.Unknown _ -> "a";
        };
    }

    @Override
    public boolean isCode(Written written) {
        return written instanceof Fields(Map<String, Written> parts) && parts.containsKey("sql");
    }

    @Override
    public String say(Written written) {
        return switch (written) {
            case Word(String text) ->
                text.startsWith("=") || text.isEmpty() || !text.equals(text.strip()) || text.contains("\"")
                        ? '"' + text.replace("\"", "\"\"") + '"'
                        : parameter.type().isFixed() || text.startsWith("the usual ") ? Words.quoted(text) : text;
            case Items(List<Written> items) ->
                Words.joined(items.stream()
                        .flatMap(i -> i.texts().orElse(List.of("?")).stream())
                        .toList());
            case Fields(Map<String, Written> parts)
            when parts.size() == 1 && parts.get("sql") instanceof Word(String text) -> "= " + text;
            case Fields(Map<String, Written> parts)
            when parts.size() == 1 && parts.get("column") instanceof Word(String column) -> "= " + Printer.name(column);
            case Fields(Map<String, Written> parts)
            when parts.get("in") instanceof Word(String source) && parts.get("column") instanceof Word(String column) ->
                "from " + Words.quoted(source) + ": " + Words.quoted(column);
            case Fields fields -> ValueKinds.PAIRS.say(fields);
        };
    }

    @Override
    public Outcome<Written> typed(String typed) {
        String text = typed.strip();
        if (text.startsWith("=")) {
            return Outcome.of(
                    Written.field("sql", Written.word(text.substring(1).strip())));
        }
        if (parameter.type() instanceof Type.Mapping) {
            return ValueKinds.PAIRS.typed(text);
        }
        if (parameter.type() instanceof Type.ListOf) {
            List<String> parts = text.toLowerCase(java.util.Locale.ROOT).startsWith("from ")
                    ? Words.pieces(text.substring(5), ":", "\"")
                    : List.of();
            if (parts.size() == 2) {
                Map<String, String> from = new LinkedHashMap<>();
                from.put("in", Words.unquoted(parts.getFirst()));
                from.put("column", Words.unquoted(parts.getLast()));
                return Outcome.of(Written.pairs(from));
            }
            return Outcome.of(Written.words(Words.split(text)));
        }
        return Outcome.of(Written.word(Words.unquoted(text)));
    }

    @Override
    public List<String> choices(Choices choices) {
        return parameter.type().equals(Type.BOOLEAN) ? List.of("true", "false") : List.of();
    }

    @Override
    public Optional<Written> beginning(Choices choices) {
        return Optional.of(
                switch (parameter.type()) {
                    case Type.ListOf _ -> Written.words(List.of(example(Type.TEXT)));
                    case Type.Mapping _ -> Written.pairs(Map.of("a", "b"));
                    case Type.Text _, Type.Unknown _ -> Written.word("");
                    default -> Written.word(example(parameter.type()));
                });
    }

    /// The problems of a constant that a function cannot take, such as a broken pattern.
    static List<Problem> constants(Expr expr) {
        return expr.parts().stream()
                .filter(Expr.Call.class::isInstance)
                .map(Expr.Call.class::cast)
                .flatMap(c -> ConstantArguments.problemWith(c.function(), c.arguments()).stream()
                        .map(r -> Refusal.about(
                                c.arguments().get(r.argument()) instanceof Expr.Literal(String text, var _) ? text : "",
                                Problem.about(r.code(), Refusal.BLANK, r.what(), r.todo()))))
                .collect(Collectors.toList());
    }

    static Expr value(Parameter parameter, Optional<Expr> given) {
        return given.orElseGet(() -> parameter.fallback().<Expr>map(f -> f).orElse(Formula.missing(parameter.type())));
    }
}
