package fixshelf.render.sql;

import fixshelf.language.emulation.Emulations;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.pattern.Regex;
import fixshelf.language.pattern.Regex.CharacterSet;
import fixshelf.language.pattern.RegexParser;
import fixshelf.language.pattern.Replacement;
import fixshelf.language.pattern.UnicodeClass;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.render.Calls;
import fixshelf.render.Comments;
import fixshelf.render.JobCode;
import fixshelf.render.RegexWriter;
import fixshelf.render.TakenNames;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/// What SQL languages have in common. A language adds the forms that it says differently.
public abstract class SqlLanguage extends SqlBounds {
    /// How a call of a function is written.
    interface Form {
        Sql write(List<Expr> arguments);
    }

    /// The characters that begin a word, whose first one `initcap` makes a capital.
    static final CharacterSet WORD = new CharacterSet(List.of(), List.of(UnicodeClass.L, UnicodeClass.ND), false);

    /// The characters that go on with a word: combining marks do not end it.
    static final CharacterSet IN_WORD =
            new CharacterSet(List.of(), List.of(UnicodeClass.L, UnicodeClass.ND, UnicodeClass.M), false);

    /// A word as a pattern, for languages that know categories.
    static final String WORD_PATTERN = "[\\p{L}\\p{Nd}][\\p{L}\\p{Nd}\\p{M}]*";

    /// No rendered text is longer; a fix that repeats its parts too often is refused instead.
    private static final int LONGEST = 400_000;

    private final Map<String, Form> forms = new HashMap<>();
    /// The expression in hand, as far as it is written.
    private final ThreadLocal<SharedParts> written = ThreadLocal.withInitial(() -> new SharedParts(Map.of(), false));

    SqlLanguage() {
        addCommonForms();
    }

    @Override
    public Outcome<String> expression(Expr expr) {
        try {
            return Outcome.of(whole(Inliner.inline(expr, Map.of()), false));
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    @Override
    public Outcome<String> definition(Definition asked, String about) {
        try {
            Definition fix = Calls.asFunction(asked);
            Expr body = Inliner.body(fix.body(), arguments(fix));
            String comment = about.isBlank() ? "" : Comments.line("--", Calls.about(asked, about));
            String remark = taken().remark(title(), fix.name());
            return Outcome.of(comment
                    + (remark.isEmpty() || !definesFunctions() ? "" : Comments.line("--", remark))
                    + definitionOf(fix, whole(body, true)));
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    /// The whole expression, with the parts that are used several times before it, where the language can name them.
    private String whole(Expr expr, boolean ofParameters) {
        SharedParts outer = written.get();
        SharedParts parts = new SharedParts(SharedParts.uses(expr), ofParameters);
        written.set(parts);
        try {
            Sql result = finished(expr);
            result = parts.isEmpty() ? result : withParts(parts, result);
            return tooLong(result) ? refused(ofParameters) : result.text();
        } finally {
            written.set(outer);
        }
    }

    private String refused(boolean ofParameters) {
        throw cannot(
                "The code would be longer than " + LONGEST + " characters.",
                namesParts(true) && !ofParameters
                        ? "Use it as a function of its own, where a part is written once."
                        : "Use a SET name less often, or split it into several fixes.");
    }

    private static boolean tooLong(Sql sql) {
        return sql.text().length() > LONGEST;
    }

    /// From how many characters on a part that is needed more than once gets a name.
    int longPart() {
        return 600;
    }

    /// Whether parts can have names, in an expression over columns or only in a function of parameters.
    boolean namesParts(boolean ofParameters) {
        return true;
    }

    /// How a part is called in the code that uses it.
    String reference(String part) {
        return part;
    }

    /// The result after its parts, each worked out once, under its name.
    Sql withParts(SharedParts parts, Sql result) {
        return parts.asInnerQueries(result, keptApart());
    }

    final SharedParts parts() {
        return written.get();
    }

    /// What keeps an inner query from being merged with the outer one.
    String keptApart() {
        return " OFFSET 0";
    }

    /// What stands in a definition for the names of its parameters, where they are not called as they are named.
    Map<String, Expr> arguments(Definition fix) {
        return Map.of();
    }

    /// The name by which a defined fix is called.
    String callable(Definition fix) {
        return identifier(taken().free(fix.name()));
    }

    /// The names of functions that the language has itself.
    TakenNames taken() {
        return TakenNames.of(getClass(), id(), true);
    }

    @Override
    public String module(List<Described> fixes) {
        return fixes.stream().map(f -> definition(f.fix(), f.about()).get()).collect(Collectors.joining("\n"));
    }

    @Override
    public Outcome<String> job(JobCode job) {
        return said(() -> SqlJobs.write(this, job));
    }

    /// A view that gives what the job gives.
    public final Outcome<String> view(JobCode job) {
        return said(() -> SqlJobs.view(this, job));
    }

    /// The query of a job, to be run over the tables in `before`, of which the last is its source.
    public final Outcome<String> jobQuery(JobCode job, List<String> before) {
        return said(() -> SqlJobs.query(this, job, before));
    }

    private Outcome<String> said(Supplier<Outcome<String>> work) {
        try {
            return work.get();
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    @Override
    public Outcome<String> call(Definition fix, List<Expr> arguments) {
        try {
            List<Expr> given = IntStream.range(0, arguments.size())
                    .filter(i -> !fix.parameters().get(i).type().isFixed())
                    .mapToObj(arguments::get)
                    .toList();
            return Outcome.of(Sql.call(callable(fix), all(given)).text());
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    /// The left side of an operation whose result has that type; most languages make room for it themselves.
    Sql widened(Expr left, Type.Decimal result) {
        return sql(left);
    }

    /// The result of an operation on decimals as one of its type, where the language would take it for a wider one.
    Sql ofType(Sql result, Type.Decimal type) {
        return result;
    }

    /// The whole part of a quotient of whole numbers, both written so that they bind tightly.
    String quotient(String dividend, String divisor) {
        return dividend + " / " + divisor;
    }

    /// The quotient with at least `scale` exact digits after the point; the divisor is not 0.
    abstract Sql exactQuotient(Expr dividend, Expr divisor, int scale);

    /// A number as one of that type, rounded, or null where it does not fit; empty where the language would stop.
    Optional<Sql> tryCast(Sql number, Type type) {
        return Optional.empty();
    }

    /// The shortest digits that mean a floating-point number, as an exact one with `scale` and 17 more places, which
    /// is enough to round it once.
    Sql shortest(Expr number, int scale) {
        Type digits = new Type.Decimal(Math.max(18 - scale, 0) + scale + 17, scale + 17);
        return Sql.atom(cast(cast(sql(number).text(), Type.TEXT), digits));
    }

    /// The function that gives the smallest whole number that is not smaller.
    String ceiling() {
        return "ceil";
    }

    /// The scale that the last argument says.
    final int scale(List<Expr> arguments) {
        if (arguments.getLast() instanceof Expr.Literal(Long scale, Type _)) {
            return scale.intValue();
        }
        throw cannot(
                "the scale comes through a parameter, and it is part of the type.",
                "Copy it as an expression, with the scale filled in.");
    }

    private Sql toText(Expr number) {
        String value = sql(number).text();
        if (number.type() instanceof Type.Decimal(int precision, int scale)) {
            // With a digit before the point, which some leave out where the type has none.
            value = cast(value, new Type.Decimal(Math.max(precision, Math.min(38, scale + 1)), scale));
        }
        return Sql.atom(cast(value, Type.TEXT));
    }

    /// The result of `+`, `-` or `*`, null where it is beyond 64 bits; `plain` is the operation itself.
    abstract Sql within64(List<Expr> a, String sign, Sql plain);

    /// For languages with wide exact numbers: `wide` is the left side as one of them.
    final Sql within64(List<Expr> a, String sign, Sql plain, String wide) {
        String result = wide + " " + sign + " " + sql(a.get(1)).at(sign.equals("*") ? Sql.PRODUCT + 1 : Sql.SUM + 1);
        return Sql.caseWhen(Sql.atom(result + " BETWEEN -9223372036854775808 AND 9223372036854775807"), plain);
    }

    abstract String definitionOf(Definition fix, String body);

    abstract RegexWriter regexWriter();

    /// Says how a function is written, in place of what was said before.
    final void say(String function, Form form) {
        forms.put(function, form);
    }

    /// Whether this language has a form of its own for every way to call the function.
    final boolean knows(FunctionDef function) {
        return forms.containsKey(function.name());
    }

    /// How a function has been said so far.
    final Form form(String function) {
        return Objects.requireNonNull(forms.get(function));
    }

    /// An expression as it stands alone, as a result.
    Sql finished(Expr expr) {
        return sql(expr);
    }

    /// How a language writes an expression for which the common ways will not do.
    Optional<Sql> before(Expr expr) {
        return Optional.empty();
    }

    @Override
    final Sql sql(Expr expr) {
        if (expr instanceof Expr.Literal || expr instanceof Expr.Name) {
            return write(expr);
        }
        SharedParts parts = parts();
        Optional<Sql> before = parts.known(expr);
        if (before.isPresent()) {
            return before.get();
        }
        Sql sql = write(expr);
        boolean several = parts.isShared(expr) && sql.text().length() > longPart() / 4;
        return several && canBeNamed(expr, sql) ? parts.name(expr, sql, this::reference) : parts.keep(expr, sql);
    }

    private boolean canBeNamed(Expr expr, Sql sql) {
        return namesParts(parts().isOfParameters())
                && sql.text().length() > 0
                && !(expr.type().isFixed());
    }

    /// An argument that is long gets a name before it is written into a call, which may need it several times.
    private void nameLongArguments(Expr.Call call) {
        for (Expr argument : call.arguments()) {
            boolean part = !(argument instanceof Expr.Literal) && !(argument instanceof Expr.Name);
            if (part && !argument.type().isFixed()) {
                Sql sql = sql(argument);
                if (sql.text().length() > longPart() && canBeNamed(argument, sql)) {
                    parts().name(argument, sql, this::reference);
                }
            }
        }
    }

    private Sql write(Expr expr) {
        Optional<Sql> own = before(expr);
        if (own.isPresent()) {
            return own.get();
        }
        Sql sql =
                switch (expr) {
                    case Expr.Literal(Object value, Type type) -> literal(value, type);
                    case Expr.Name(String name, Type _) -> Sql.atom(identifier(name));
                    case Expr.FixCall(Definition fix, List<Expr> arguments) -> sql(Inliner.call(fix, arguments));
                    case Expr.Case choice -> choice(choice);
                    case Expr.Call call -> call(call);
                };
        if (tooLong(sql)) {
            refused(parts().isOfParameters());
        }
        return sql;
    }

    private Sql call(Expr.Call call) {
        nameLongArguments(call);
        Optional<Expr> simpler = Emulations.of(call);
        if (simpler.isPresent()) {
            return sql(simpler.get());
        }
        Form form = forms.get(call.function().name());
        if (Emulations.lacksLayout(call) || form == null && Emulations.lacksConstant(call)) {
            throw cannot(
                    "what " + call.function().name() + " works with comes through a parameter.",
                    "Copy it as an expression, with the values filled in.");
        }
        if (form == null) {
            throw cannot("It has no form for " + call.function().name() + ".", "Use another function.");
        }
        return form.write(call.arguments());
    }

    /// Whether a named query that is read in several places is worked out once.
    boolean sharesQueries() {
        return true;
    }

    /// A side of a comparison as it must be written so that text is compared code point by code point.
    Sql exact(Expr expr, boolean ordering) {
        return sql(expr);
    }

    /// A column as it must be written so that only equal values are one group.
    Sql grouped(Expr.Name column) {
        return exact(column, false);
    }

    /// A column as it must be written so that text goes by code point.
    Sql sorted(Expr.Name column) {
        return exact(column, true);
    }

    /// The number of code points.
    Sql length(Sql text) {
        return Sql.call("length", text);
    }

    private Sql choice(Expr.Case choice) {
        List<String> parts = new ArrayList<>();
        for (Expr.Branch branch : choice.branches()) {
            parts.add("WHEN " + sql(branch.condition()).text() + " THEN "
                    + sql(branch.result()).text());
        }
        if (!(choice.otherwise() instanceof Expr.Literal(Object value, Type _) && value == null)) {
            parts.add("ELSE " + sql(choice.otherwise()).text());
        }
        return Sql.caseOf(parts);
    }

    private void addCommonForms() {
        for (String sign : List.of("=", "<>", "<", "<=", ">", ">=")) {
            boolean ordering = !sign.equals("=") && !sign.equals("<>");
            say(sign, a -> Sql.infix(exact(a.get(0), ordering), sign, sql(a.get(1)), Sql.COMPARE));
        }
        SqlNumbers.addTo(this);
        SqlFloats.addTo(this);
        SqlConditions.addTo(this);
        SqlTexts.addTo(this);
        say("||", this::joined);
        say("concat", this::joined);
        say("AND", a -> Sql.infix(sql(a.get(0)), "AND", sql(a.get(1)), Sql.AND));
        say("OR", a -> Sql.infix(sql(a.get(0)), "OR", sql(a.get(1)), Sql.OR));
        say("IS NULL", a -> new Sql(sql(a.getFirst()).at(Sql.OTHER) + " IS NULL", Sql.COMPARE));
        say("IS DISTINCT FROM", a -> distinct(a, true));
        say("LIKE", a -> like(a, "LIKE"));
        say("coalesce", a -> Sql.call("coalesce", all(a)));
        say("nullif", a -> Sql.call("nullif", all(a)));
        say("replace", a -> Sql.call("replace", all(a)));
        say("lower", a -> Sql.call("lower", all(a)));
        say("length", a -> length(sql(a.getFirst())));
        say("starts_with", a -> Sql.call("starts_with", all(a)));
        say("left", a -> Sql.call("left", sql(a.get(0)), count(a.get(1))));
        say("right", a -> Sql.call("right", sql(a.get(0)), count(a.get(1))));
        say("repeat", a -> Sql.call("repeat", sql(a.get(0)), count(a.get(1))));
        say("reverse", a -> Sql.call("reverse", all(a)));
        say("translate", a -> Sql.call("translate", all(a)));
        say("normalize", a -> {
            throw cannot("it has no Unicode normal forms.", "Use translate or strip_accents for the letters you need.");
        });
        say("to_text", a -> toText(a.getFirst()));
    }

    /// The part of a separated text with that number, which exists.
    Sql part(Expr text, Expr separator, long number) {
        return Sql.call("split_part", sql(text), sql(separator), Sql.atom(String.valueOf(number)));
    }

    /// The texts one after another; null when one is.
    Sql joined(List<Expr> texts) {
        return texts.stream()
                .map(this::sql)
                .reduce((x, y) -> Sql.infix(x, "||", y, Sql.OTHER))
                .orElseThrow();
    }

    /// Whether two values differ, or are the same, where nulls are the same.
    Sql distinct(List<Expr> a, boolean differ) {
        String sign = differ ? "IS DISTINCT FROM" : "IS NOT DISTINCT FROM";
        return Sql.infix(sql(a.get(0)), sign, sql(a.get(1)), Sql.COMPARE);
    }

    final Sql[] all(List<Expr> arguments) {
        return arguments.stream().map(this::sql).toArray(Sql[]::new);
    }

    Sql like(List<Expr> arguments, String operator) {
        String escape =
                arguments.size() > 2 ? " ESCAPE " + sql(arguments.get(2)).text() : "";
        return new Sql(
                sql(arguments.get(0)).at(Sql.OTHER) + " " + operator + " "
                        + sql(arguments.get(1)).at(Sql.OTHER) + escape,
                Sql.COMPARE);
    }

    /// The arguments of `concat_ws`.
    Sql[] pieces(List<Expr> arguments) {
        return all(arguments);
    }

    final Sql lengthOf(Expr part) {
        if (part instanceof Expr.Literal(String text, Type _)) {
            return Sql.atom(String.valueOf(text.codePointCount(0, text.length())));
        }
        return length(sql(part));
    }

    /// The pattern of a call, read; one that is not known yet cannot be written in this language's flavour.
    Regex pattern(Expr argument) {
        if (argument instanceof Expr.Literal(String text, Type _)) {
            return RegexParser.parse(text).get();
        }
        throw cannot(
                "the pattern comes through a parameter, and every language writes patterns in its own way.",
                "Copy it as an expression, with the pattern filled in.");
    }

    /// The replacement of a call as the parts it consists of.
    final List<Replacement> replacement(Expr argument) {
        if (argument instanceof Expr.Literal(String text, Type _)) {
            return Replacement.parse(text);
        }
        throw cannot(
                "the replacement comes through a parameter, and every language writes groups in its own way.",
                "Copy it as an expression, with the replacement filled in.");
    }

    final String parameters(Definition fix, Function<Parameter, String> writer) {
        return fix.parameters().stream().map(writer).collect(Collectors.joining(", "));
    }
}
