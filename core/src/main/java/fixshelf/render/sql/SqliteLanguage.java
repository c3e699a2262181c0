package fixshelf.render.sql;

import fixshelf.language.catalogue.Separators;
import fixshelf.language.pattern.Automaton;
import fixshelf.language.pattern.LikePattern;
import fixshelf.language.pattern.Regex;
import fixshelf.language.pattern.Regexes;
import fixshelf.language.pattern.Replacement;
import fixshelf.language.pattern.UnicodeClass;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.render.CaseMaps;
import fixshelf.render.RegexWriter;
import fixshelf.render.TypeNames;
import fixshelf.type.Type;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;

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
        say("concat_ws", this::concatWs);
        say("regexp_replace", this::regexpReplace);
        say("regexp_like", this::regexpLike);
        say("regexp_extract", this::regexpExtract);
        say("to_integer", a -> toInteger(sql(a.getFirst())));
        say("to_decimal", a -> {
            throw noDecimals();
        });
        say("to_date", a -> {
            Sql text = sql(a.getFirst());
            String real = "date(" + text.text() + ", '+0 days') = " + text.at(Sql.OTHER);
            String shape = text.at(Sql.OTHER) + " GLOB '[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]'";
            return Sql.caseWhen(Sql.atom(shape + " AND " + text.at(Sql.OTHER) + " >= '0001' AND " + real), text);
        });
        say("format_date", a -> sql(a.getFirst()));
        say("year", a -> part("%Y", a));
        say("month", a -> part("%m", a));
        say("day", a -> part("%d", a));
        say("weekday", a -> new Sql("(strftime('%w', " + sql(a.getFirst()).text() + ") + 6) % 7 + 1", Sql.OTHER));
        say("add_days", a -> {
            Sql day = Sql.atom(
                    "date(" + sql(a.get(0)).text() + ", " + days(a.get(1)).text() + " || ' days')");
            return Sql.caseWhen(Sql.atom(day.text() + " BETWEEN '0001-01-01' AND '9999-12-31'"), day);
        });
        say(
                "days_between",
                a -> Sql.atom("CAST(julianday(" + sql(a.get(1)).text() + ") - julianday("
                        + sql(a.get(0)).text() + ") AS INTEGER)"));
        say("reverse", a -> reverse(sql(a.getFirst())));
        say("initcap", a -> initcap(sql(a.getFirst())));
        SqlParts.addTo(this, this::sortedParts, this::uniqueParts);
        say("translate", this::translate);
        for (String function : List.of("round", "divide", "floor", "ceil")) {
            Form common = form(function);
            say(function, a -> {
                boolean whole = a.getFirst().type() instanceof Type.Num && !function.equals("round");
                if (whole) {
                    return common.write(a);
                }
                throw noDecimals();
            });
        }
        say(
                "week",
                a -> new Sql(
                        "(strftime('%j', date(" + sql(a.getFirst()).text() + ", '-3 days', 'weekday 4')) - 1) / 7 + 1",
                        Sql.SUM));
        say("add_months", a -> addMonths(sql(a.get(0)).text(), months(a.get(1)).text()));
        SqliteTimes.addTo(this);
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
        return Sql.caseWhen(Sql.atom("typeof(" + plain.text() + ") = 'integer'"), plain);
    }

    @Override
    String typeName(Type type) {
        if (type instanceof Type.Decimal) {
            throw noDecimals();
        }
        return super.typeName(type);
    }

    @Override
    TypeNames types() {
        return new TypeNames("TEXT", "INTEGER", "REAL", "INTEGER", "TEXT", "TEXT", "");
    }

    @Override
    RegexWriter regexWriter() {
        throw new IllegalStateException("SQLite has no regular expressions");
    }

    /// In double quotes a name that it does not find would be taken for a text.
    @Override
    String quote() {
        return "`";
    }

    @Override
    Optional<String> objection(String name) {
        boolean truth = name.equalsIgnoreCase("true") || name.equalsIgnoreCase("false");
        return truth ? Optional.of("a column of a query loses the name " + name + " there.") : Optional.empty();
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
        if (value instanceof java.math.BigDecimal) {
            throw noDecimals();
        }
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
        return walk(text, "o || " + mappedCharacter(function, from, to), "o");
    }

    private String mappedCharacter(String function, String from, String to) {
        String character = "substr(s, i, 1)";
        return "CASE\n"
                + "      WHEN unicode(" + character + ") < 128 THEN " + function + "(" + character + ")\n"
                + "      WHEN instr(" + text(from) + ", " + character + ") > 0\n"
                + "      THEN substr(" + text(to) + ", instr(" + text(from) + ", " + character + "), 1)\n"
                + "      ELSE " + character + " END";
    }

    private Sql right(List<Expr> a) {
        Sql text = sql(a.get(0));
        Sql count = count(a.get(1));
        return Sql.call(
                "substr", text, Sql.atom("max(length(" + text.text() + ") - " + count.at(Sql.ATOM) + ", 0) + 1"));
    }

    /// Each text with the separator before it, and the first separator cut off: `concat_ws` is known since 3.44 only.
    private Sql concatWs(List<Expr> arguments) {
        Sql separator = sql(arguments.getFirst());
        List<Expr> texts = arguments.subList(1, arguments.size());
        String pieces = texts.stream()
                .map(t -> Sql.call("coalesce", Sql.infix(separator, "||", sql(t), Sql.PRODUCT), Sql.atom("''"))
                        .text())
                .collect(Collectors.joining(" || "));
        Sql any = new Sql(Sql.call("coalesce", all(texts)).text() + " IS NOT NULL", Sql.COMPARE);
        Sql after = new Sql(lengthOf(arguments.getFirst()).at(Sql.SUM) + " + 1", Sql.SUM);
        return Sql.caseWhen(any, Sql.call("substr", new Sql(pieces, Sql.PRODUCT), after));
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

    private fixshelf.problem.ProblemException noDecimals() {
        return cannot("it has no exact decimal numbers.", "Keep the number as text, or use another language.");
    }

    @Override
    String keptApart() {
        return " LIMIT 1 OFFSET 0";
    }

    @Override
    Sql exactQuotient(Expr dividend, Expr divisor, int scale) {
        throw noDecimals();
    }

    @Override
    Sql time(String time) {
        return Sql.atom("'" + time + "'");
    }

    /// Its own months run over into the next one where the day is missing.
    private Sql addMonths(String date, String months) {
        String plain = "date(" + date + ", (" + months + ") || ' months')";
        String last = "date(" + date + ", 'start of month', (" + months + " + 1) || ' months', '-1 days')";
        // Beyond the last month there is no day to go back from; that month has all days that there can be.
        String found = "min(" + plain + ", coalesce(" + last + ", '9999-12-31'))";
        return Sql.caseWhen(Sql.atom(found + " BETWEEN '0001-01-01' AND '9999-12-31'"), Sql.atom(found));
    }

    @Override
    Sql part(Expr text, Expr separator, long number) {
        boolean plain = separator instanceof Expr.Literal(String sign, Type _) && !Separators.overlapItself(sign);
        if (!plain) {
            throw cannot("a separator that overlaps itself cannot be walked.", "Give a plain separator, as ','.");
        }
        String sign = sql(separator).text();
        return Sql.atom("(WITH RECURSIVE parts(n, part, rest) AS (\n"
                + "    SELECT 0, '', " + sql(text).at(Sql.OTHER) + " || " + sign + "\n"
                + "    UNION ALL\n"
                + "    SELECT n + 1, substr(rest, 1, instr(rest, " + sign + ") - 1), substr(rest, instr(rest, " + sign
                + ") + " + lengthOf(separator).text() + ")\n"
                + "    FROM parts WHERE rest <> '')\n"
                + "  SELECT part FROM parts WHERE n > 0 ORDER BY n" + (number < 0 ? " DESC" : "") + " LIMIT 1 OFFSET "
                + (Math.abs(number) - 1) + ")");
    }

    private Sql reverse(Sql text) {
        return walk(text, "substr(s, i, 1) || o", "o");
    }

    /// A walk through the text: what is written after each character, and what at the end.
    private static Sql walk(Sql text, String step, String result) {
        return Sql.atom("(WITH RECURSIVE walk(s, i, o) AS (\n"
                + "    SELECT " + text.text() + ", 1, ''\n"
                + "    UNION ALL\n"
                + "    SELECT s, i + 1, " + step + "\n"
                + "    FROM walk WHERE i <= length(s))\n"
                + "  SELECT " + result + " FROM walk WHERE i > length(s))");
    }

    private Sql translate(List<Expr> a) {
        String from = sql(a.get(1)).text();
        String to = sql(a.get(2)).text();
        String place = "instr(" + from + ", substr(s, i, 1))";
        return walk(
                sql(a.get(0)),
                "o || CASE WHEN " + place + " > 0 THEN substr(" + to + ", " + place + ", 1) ELSE substr(s, i, 1) END",
                "o");
    }

    /// Whether a character goes on with a word is kept while walking.
    private Sql initcap(Sql text) {
        String c = "substr(s, i, 1)";
        String small = mappedCharacter("lower", MAPS.capitals(), MAPS.smalls());
        String capital = mappedCharacter("upper", MAPS.lower(), MAPS.upper());
        String far = Stream.of(new Regex.CharacterSet(List.of(), List.of(UnicodeClass.M), false), WORD)
                .flatMap(set -> set.ranges().stream()
                        .filter(r -> r.last() > 127)
                        .map(r -> "(" + r.first() + "," + r.last() + "," + (set == WORD ? 1 : 0) + ")"))
                .collect(Collectors.joining(","));
        String kind = "(SELECT k FROM kinds WHERE unicode(" + c + ") BETWEEN a AND z)";
        String word = "CASE WHEN unicode(" + c + ") < 128 THEN " + c + " GLOB '[A-Za-z0-9]'\n      ELSE coalesce("
                + kind + ", 0) END";
        String goesOn = "CASE WHEN " + word + "\n      OR w AND " + kind + " = 0 THEN 1 ELSE 0 END";
        return Sql.atom("(WITH RECURSIVE kinds(a, z, k) AS (VALUES " + far + "),\n  walk(s, i, o, w) AS (\n"
                + "    SELECT " + text.text() + ", 1, '', 0\n"
                + "    UNION ALL\n"
                + "    SELECT s, i + 1, o || CASE WHEN NOT " + word + " THEN " + c + "\n      WHEN w THEN " + small
                + "\n      ELSE " + capital + " END,\n      " + goesOn + "\n"
                + "    FROM walk WHERE i <= length(s))\n"
                + "  SELECT o FROM walk WHERE i > length(s))");
    }

    private Sql sortedParts(String text, String separator) {
        return Sql.atom("(SELECT group_concat(value, " + text(separator) + " ORDER BY value)\n  FROM json_each('[' || "
                + SqlParts.asJson(this, text, separator) + " || ']'))");
    }

    private Sql uniqueParts(String text, String separator) {
        return Sql.atom("(SELECT group_concat(part, " + text(separator)
                + " ORDER BY place)\n  FROM (SELECT value AS part," + " min(key) AS place FROM json_each('[' || "
                + SqlParts.asJson(this, text, separator) + " || ']') GROUP BY value))");
    }

    @Override
    String sum(String number, Type type, UnaryOperator<String> over) {
        if (!type.equals(Type.INTEGER)) {
            throw noDecimals();
        }
        return over.apply("sum(" + number + ")");
    }

    @Override
    String listed(String text, String separator, String place) {
        return "group_concat(" + text + ", " + text(separator) + " ORDER BY " + place + ")";
    }

    /// It takes so many queries inside of each other, and no more.
    @Override
    public boolean isLimit(String error) {
        return error.contains("nested too deep");
    }
}
