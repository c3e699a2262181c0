package fixshelf.render;

import fixshelf.language.Automaton;
import fixshelf.language.Definition;
import fixshelf.language.Expr;
import fixshelf.language.LikePattern;
import fixshelf.language.Regex;
import fixshelf.language.Regexes;
import fixshelf.language.Replacement;
import fixshelf.type.Type;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/// SQLite 3.44 and later as it is, without functions added from outside. It has no functions in SQL: a fix is used as
/// an expression.
public final class SqliteLanguage extends SqlLanguage {
    private static final String BLANKS = "char(9, 10, 11, 12, 13, 32)";
    private static final CaseMaps MAPS = new CaseMaps();

    public SqliteLanguage() {
        say("trim", a -> trim("trim", a));
        say("ltrim", a -> trim("ltrim", a));
        say("rtrim", a -> trim("rtrim", a));
        say("upper", a -> mapped(sql(a.getFirst()), "upper", MAPS.lower(), MAPS.upper()));
        say("lower", a -> mapped(sql(a.getFirst()), "lower", MAPS.capitals(), MAPS.smalls()));
        say("left", a -> Sql.call("substr", sql(a.get(0)), Sql.atom("1"), count(a.get(1))));
        say("right", this::right);
        say("position", a -> Sql.call("instr", all(a)));
        say("starts_with", this::startsWith);
        say("ends_with", this::endsWith);
        say("contains", a -> new Sql(Sql.call("instr", all(a)).text() + " > 0", Sql.COMPARE));
        say("repeat", this::repeat);
        say("regexp_replace", this::regexpReplace);
        say("regexp_like", this::regexpLike);
        say("regexp_extract", this::regexpExtract);
        say("to_integer", a -> toInteger(sql(a.getFirst())));
        say("to_decimal", a -> {
            throw cannot("it has no exact decimal numbers.", "Keep the number as text, or use another language.");
        });
        say("to_date", a -> {
            Sql text = sql(a.getFirst());
            String real = "date(" + text.text() + ", '+0 days') = " + text.at(Sql.OTHER);
            String shape = text.at(Sql.OTHER) + " GLOB '[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]'";
            return caseWhen(Sql.atom(shape + " AND " + text.at(Sql.OTHER) + " >= '0001' AND " + real), text);
        });
        say("format_date", a -> sql(a.getFirst()));
        say("year", a -> part("%Y", a));
        say("month", a -> part("%m", a));
        say("day", a -> part("%d", a));
        say("weekday", a -> new Sql("(strftime('%w', " + sql(a.getFirst()).text() + ") + 6) % 7 + 1", Sql.OTHER));
        say("add_days", a -> {
            Sql day = Sql.atom(
                    "date(" + sql(a.get(0)).text() + ", " + days(a.get(1)).text() + " || ' days')");
            return caseWhen(Sql.atom(day.text() + " BETWEEN '0001-01-01' AND '9999-12-31'"), day);
        });
        say(
                "days_between",
                a -> Sql.atom("CAST(julianday(" + sql(a.get(1)).text() + ") - julianday("
                        + sql(a.get(0)).text() + ") AS INTEGER)"));
        say("to_text", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS TEXT)"));
        say("chr", a -> Sql.call("char", sql(a.getFirst())));
    }

    @Override
    public String id() {
        return "sqlite";
    }

    @Override
    public String title() {
        return "SQLite";
    }

    @Override
    public boolean definesFunctions() {
        return false;
    }

    @Override
    Sql within64(List<Expr> a, String sign, Sql plain) {
        return caseWhen(Sql.atom("typeof(" + plain.text() + ") = 'integer'"), plain);
    }

    @Override
    String typeName(Type type) {
        return switch (type) {
            case Type.Text _, Type.Unknown _ -> "TEXT";
            case Type.Int _, Type.Bool _ -> "INTEGER";
            case Type.Date _ -> "TEXT";
            case Type.Decimal _ -> throw cannot("it has no exact decimal numbers.", "Use another type.");
        };
    }

    @Override
    RegexWriter regexWriter() {
        throw new IllegalStateException("SQLite has no regular expressions");
    }

    @Override
    String definitionOf(Definition fix, String body) {
        String names = fix.parameters().stream().map(p -> p.name()).collect(Collectors.joining(", "));
        return "-- SQLite has no functions in SQL: use this expression, with your columns or values for " + names
                + ".\n" + body + "\n";
    }

    @Override
    String text(String text) {
        if (text.indexOf('\0') >= 0) {
            throw cannot("a text ends at the character U+0000.", "Remove it before, where the data is read.");
        }
        return super.text(text);
    }

    @Override
    String character() {
        return "char";
    }

    @Override
    Sql literal(@org.jspecify.annotations.Nullable Object value, Type type) {
        return value == null ? Sql.atom("NULL") : super.literal(value, type);
    }

    @Override
    String least() {
        return "min";
    }

    @Override
    String greatest() {
        return "max";
    }

    /// Here `min` and `max` of a null are null.
    @Override
    Sql known(List<Expr> numbers, Sql value) {
        return value;
    }

    @Override
    Sql like(List<Expr> arguments, String operator) {
        LikePattern pattern = LikePattern.of(arguments)
                .orElseThrow(() -> cannot(
                        "the pattern of LIKE comes through a parameter, and its own LIKE passes over capitals.",
                        "Copy it as an expression, with the pattern filled in."));
        String glob =
                pattern.write("*", "?", c -> "*?[".indexOf(c) >= 0 ? "[" + (char) c + "]" : Character.toString(c));
        String sign = operator.startsWith("NOT") ? " NOT GLOB " : " GLOB ";
        return new Sql(sql(arguments.getFirst()).at(Sql.OTHER) + sign + text(glob), Sql.COMPARE);
    }

    private Sql trim(String function, List<Expr> a) {
        return Sql.call(function, sql(a.get(0)), a.size() > 1 ? sql(a.get(1)) : Sql.atom("' '"));
    }

    private Sql part(String format, List<Expr> a) {
        return Sql.atom("CAST(strftime('" + format + "', " + sql(a.getFirst()).text() + ") AS INTEGER)");
    }

    /// Days are texts here, which sort as days do.
    @Override
    Sql day(java.time.LocalDate day) {
        return Sql.atom("'" + day + "'");
    }

    private Sql mapped(Sql text, String function, String from, String to) {
        String character = "substr(s, i, 1)";
        return Sql.atom("(WITH RECURSIVE walk(s, i, o) AS (\n"
                + "    SELECT " + text.text() + ", 1, ''\n"
                + "    UNION ALL\n"
                + "    SELECT s, i + 1, o || CASE\n"
                + "      WHEN unicode(" + character + ") < 128 THEN " + function + "(" + character + ")\n"
                + "      WHEN instr(" + text(from) + ", " + character + ") > 0\n"
                + "      THEN substr(" + text(to) + ", instr(" + text(from) + ", " + character + "), 1)\n"
                + "      ELSE " + character + " END\n"
                + "    FROM walk WHERE i <= length(s))\n"
                + "  SELECT o FROM walk WHERE i > length(s))");
    }

    private Sql right(List<Expr> a) {
        Sql text = sql(a.get(0));
        Sql count = count(a.get(1));
        return Sql.call(
                "substr", text, Sql.atom("max(length(" + text.text() + ") - " + count.at(Sql.ATOM) + ", 0) + 1"));
    }

    private Sql startsWith(List<Expr> a) {
        Sql head = Sql.call("substr", sql(a.get(0)), Sql.atom("1"), lengthOf(a.get(1)));
        return Sql.infix(head, "=", sql(a.get(1)), Sql.COMPARE);
    }

    private Sql endsWith(List<Expr> a) {
        Sql text = sql(a.get(0));
        Sql length = lengthOf(a.get(1));
        Sql tail =
                Sql.call("substr", text, Sql.atom("max(length(" + text.text() + ") - " + length.text() + ", 0) + 1"));
        return Sql.infix(tail, "=", sql(a.get(1)), Sql.COMPARE);
    }

    private Sql repeat(List<Expr> a) {
        return Sql.call(
                "replace", Sql.call("hex", Sql.call("zeroblob", count(a.get(1)))), Sql.atom("'00'"), sql(a.get(0)));
    }

    private Regex plainPattern(Expr argument) {
        Regex regex = pattern(argument);
        if (!Regexes.sameForLongestMatch(regex)) {
            throw cannot(
                    "it has no regular expressions, and the walk that stands for one finds the longest match.",
                    "Let alternatives begin with different characters and use no lazy repeats.");
        }
        return regex;
    }

    private SqliteRegex walk(Optional<Automaton> automaton) {
        return new SqliteRegex(
                automaton.orElseThrow(() -> cannot(
                        "it has no regular expressions, and this pattern is too large to be walked.",
                        "Make the counts smaller, or split the pattern.")),
                this::text);
    }

    private Sql regexpReplace(List<Expr> a) {
        List<Replacement> replacement = replacement(a.get(2));
        boolean groups = replacement.stream().anyMatch(r -> r instanceof Replacement.GroupOf(int n) && n > 0);
        if (groups) {
            throw cannot(
                    "it has no regular expressions, and a group in the replacement cannot be walked.",
                    "Use \\0 for the whole match, or position and substring.");
        }
        Regex regex = plainPattern(a.get(1));
        return Sql.atom(walk(Automaton.ofMatch(regex, SqliteRegex.MOST_STATES)).replace(sql(a.get(0)), replacement));
    }

    private Sql regexpLike(List<Expr> a) {
        return Sql.atom(walk(Automaton.ofSearch(pattern(a.get(1)), SqliteRegex.MOST_STATES))
                .found(sql(a.get(0))));
    }

    private Sql regexpExtract(List<Expr> a) {
        boolean group = a.size() > 2 && a.get(2) instanceof Expr.Literal(Long g, Type _) && g > 0;
        if (group) {
            throw cannot(
                    "it has no regular expressions, and a group cannot be walked.",
                    "Extract the whole match, then take off what stands around with remove_prefix or trim.");
        }
        Regex regex = plainPattern(a.get(1));
        return Sql.atom(walk(Automaton.ofMatch(regex, SqliteRegex.MOST_STATES)).extract(sql(a.get(0))));
    }

    private static Sql toInteger(Sql text) {
        return Sql.atom(String.format(
                Locale.ROOT,
                "(SELECT CASE WHEN digits <> '' AND digits NOT GLOB '*[^0-9]*' AND length(digits) <= 38\n"
                        + "    AND (length(bare) < 19 OR length(bare) = 19 AND (bare <= '9223372036854775807'\n"
                        + "      OR sign = '-' AND bare = '9223372036854775808'))\n"
                        + "    THEN CAST(CASE WHEN sign = '-' THEN '-' ELSE '' END || bare AS INTEGER) END\n"
                        + "  FROM (SELECT sign, digits, CASE WHEN ltrim(digits, '0') = '' THEN '0' ELSE ltrim(digits, '0') END AS bare\n"
                        + "  FROM (SELECT substr(t, 1, 1) AS sign, CASE WHEN substr(t, 1, 1) IN ('+', '-') THEN substr(t, 2) ELSE t END AS digits\n"
                        + "  FROM (SELECT trim(%s, " + BLANKS + ") AS t))))",
                text.text()));
    }
}
