package fixshelf.render.sql;

import fixshelf.language.pattern.Regex;
import fixshelf.language.pattern.Regexes;
import fixshelf.language.pattern.Replacement;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.render.RegexWriter;
import fixshelf.render.TypeNames;
import fixshelf.type.Type;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Collectors;

/// PostgreSQL 14 and later, in a database with UTF-8 encoding.
public final class PostgresLanguage extends SqlLanguage {
    private static final String BLANKS = "[\\t-\\r ]*";
    /// In bytes; a longer name would be cut without a word.
    private static final int LONGEST_NAME = 63;

    public PostgresLanguage() {
        say("trim", a -> trim("btrim", a));
        say("ltrim", a -> trim("ltrim", a));
        say("rtrim", a -> trim("rtrim", a));
        say("upper", a -> Sql.call("upper", sql(a.getFirst())));
        say("position", a -> Sql.call("strpos", all(a)));
        say("ends_with", this::endsWith);
        say("contains", a -> new Sql(Sql.call("strpos", all(a)).text() + " > 0", Sql.COMPARE));
        say("regexp_replace", this::regexpReplace);
        // Whether there is a match does not depend on which one is preferred.
        say(
                "regexp_like",
                a -> Sql.infix(
                        sql(a.get(0)), "~", Sql.atom(text(regexWriter().write(pattern(a.get(1))))), Sql.COMPARE));
        say("regexp_extract", this::regexpExtract);
        say("to_integer", a -> toInteger(a.getFirst()));
        say("read number", a -> readNumber(a.getFirst()));
        say("to_decimal", this::toDecimal);
        say("to_date", a -> toDate(a.getFirst()));
        say("format_date", a -> Sql.call("to_char", sql(a.getFirst()), Sql.atom("'YYYY-MM-DD'")));
        say("year", a -> part("year", a));
        say("month", a -> part("month", a));
        say("day", a -> part("day", a));
        say("weekday", a -> part("isodow", a));
        say(
                "add_days",
                a -> Sql.caseWhen(
                        Sql.atom(sql(a.get(1)).at(Sql.OTHER) + " BETWEEN DATE '0001-01-01' - "
                                + sql(a.get(0)).at(Sql.OTHER + 1) + " AND DATE '9999-12-31' - "
                                + sql(a.get(0)).at(Sql.OTHER + 1)),
                        Sql.infix(
                                sql(a.get(0)),
                                "+",
                                Sql.atom("CAST(" + sql(a.get(1)).text() + " AS integer)"),
                                Sql.OTHER)));
        say(
                "days_between",
                a -> Sql.atom("CAST("
                        + Sql.infix(sql(a.get(1)), "-", sql(a.get(0)), Sql.OTHER)
                                .text() + " AS bigint)"));
        say("initcap", a -> initcap(sql(a.getFirst()).text()));
        SqlParts.addTo(this, this::sortedParts, this::uniqueParts);
        say("normalize", a -> Sql.atom("normalize(" + sql(a.getFirst()).text() + ", NFC)"));
        say("week", a -> part("week", a));
        say(
                "add_months",
                a -> Sql.caseWhen(
                        Sql.atom("extract(year FROM " + sql(a.get(0)).text() + ") * 12 + extract(month FROM "
                                + sql(a.get(0)).text() + ") - 1 + "
                                + sql(a.get(1)).at(Sql.PRODUCT)
                                + " BETWEEN 12 AND 119999"),
                        later(a.get(0), "months", "CAST(" + sql(a.get(1)).text() + " AS integer)", "date")));
        say(
                "to_timestamp",
                a -> Sql.caseWhen(
                        Sql.atom(
                                sql(a.getFirst()).at(Sql.OTHER)
                                        + " ~ '^[0-9]{4}-[0-9]{2}-[0-9]{2} ([01][0-9]|2[0-3]):[0-5][0-9]:[0-5][0-9]([.][0-9]{1,6})?$'"),
                        Sql.infix(
                                toDate(leftOf(a.getFirst())),
                                "+",
                                Sql.atom("CAST(substr(" + typedText(a.getFirst()) + ", 12) AS time)"),
                                Sql.SUM)));
        say(
                "format_timestamp",
                a -> Sql.atom("rtrim(rtrim(to_char(" + sql(a.getFirst()).text()
                        + ", 'YYYY-MM-DD HH24:MI:SS.US'), '0'), '.')"));
        say("date_of", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS date)"));
        say("at_midnight", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS timestamp)"));
        for (String field : List.of("hour", "minute")) {
            say(field, a -> part(field, a));
        }
        say(
                "second",
                a -> Sql.atom(
                        "CAST(floor(extract(second FROM " + sql(a.getFirst()).text() + ")) AS bigint)"));
        say(
                "add_seconds",
                a -> Sql.caseWhen(
                        Sql.atom("extract(epoch FROM " + sql(a.get(0)).text() + ") + "
                                + sql(a.get(1)).at(Sql.PRODUCT) + " BETWEEN -62135596800 AND 253402300799.999999"),
                        later(a.get(0), "secs", sql(a.get(1)).text(), "timestamp")));
        say(
                "microsecond",
                a -> new Sql(
                        "CAST(extract(microseconds FROM " + sql(a.getFirst()).text() + ") AS bigint) % 1000000",
                        Sql.PRODUCT));
        say("add_microseconds", a -> {
            String micros = sql(a.get(1)).at(Sql.PRODUCT);
            String steps = " + make_interval(secs => " + micros + " / 1000000) + make_interval(secs => " + micros
                    + " % 1000000 / 1000000.0)";
            return Sql.caseWhen(
                    Sql.atom("extract(epoch FROM " + sql(a.get(0)).text() + ") + " + micros
                            + " / 1000000.0 BETWEEN -62135596800 AND 253402300799.999999"),
                    Sql.atom("CAST(" + sql(a.get(0)).at(Sql.SUM) + steps + " AS timestamp)"));
        });
        say(
                "seconds_between",
                a -> Sql.atom("CAST(trunc(extract(epoch FROM "
                        + Sql.infix(sql(a.get(1)), "-", sql(a.get(0)), Sql.SUM).text() + ")) AS bigint)"));
        say("chr", a -> Sql.call("chr", Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS integer)")));
    }

    @Override
    public String id() {
        return "postgresql";
    }

    @Override
    public String title() {
        return "PostgreSQL";
    }

    @Override
    Sql within64(List<Expr> a, String sign, Sql plain) {
        return within64(a, sign, plain, "CAST(" + sql(a.get(0)).text() + " AS numeric)");
    }

    @Override
    TypeNames types() {
        return new TypeNames("text", "bigint", "double precision", "boolean", "date", "timestamp", "numeric");
    }

    @Override
    RegexWriter regexWriter() {
        return RegexWriter.posix();
    }

    @Override
    String text(String text) {
        if (text.indexOf('\0') >= 0) {
            throw cannot("a text cannot hold the character U+0000.", "Remove it before, where the data is read.");
        }
        return super.text(text);
    }

    @Override
    String definitionOf(Definition fix, String body) {
        String parameters = parameters(
                fix,
                p -> identifier(p.name()) + " " + typeName(p.type())
                        + p.fallback().map(f -> " DEFAULT " + sql(f).text()).orElse(""));
        return "CREATE OR REPLACE FUNCTION " + callable(fix) + "(" + parameters + ")\nRETURNS "
                + typeName(fix.returns()) + "\nLANGUAGE sql IMMUTABLE PARALLEL SAFE\nRETURN " + body + ";\n";
    }

    private Sql trim(String function, List<Expr> a) {
        return Sql.call(function, sql(a.get(0)), a.size() > 1 ? sql(a.get(1)) : Sql.atom("' '"));
    }

    /// Text goes by code point, whatever the database's own order is.
    @Override
    Sql exact(Expr expr, boolean ordering) {
        boolean text = ordering && expr.type().equals(Type.TEXT);
        return text ? new Sql(sql(expr).at(Sql.ATOM) + " COLLATE \"C\"", Sql.OTHER) : sql(expr);
    }

    @Override
    boolean tooLong(String name) {
        return name.getBytes(StandardCharsets.UTF_8).length > LONGEST_NAME;
    }

    @Override
    Sql like(List<Expr> arguments, String operator) {
        boolean backslash = arguments.size() < 3
                && (!(arguments.get(1) instanceof Expr.Literal(String pattern, Type _)) || pattern.indexOf('\\') >= 0);
        Sql like = super.like(arguments, operator);
        return backslash ? new Sql(like.text() + " ESCAPE ''", Sql.COMPARE) : like;
    }

    private Sql part(String field, List<Expr> a) {
        return Sql.atom("CAST(extract(" + field + " FROM " + sql(a.getFirst()).text() + ") AS bigint)");
    }

    /// Its own reading fails for a day that is not real, and then the whole query does.
    /// A day that there is, from the year 1 on.
    private static final String DAY = "^(?!0000)([0-9]{4}-(0[13578]|1[02])-(0[1-9]|[12][0-9]|3[01])"
            + "|[0-9]{4}-(0[469]|11)-(0[1-9]|[12][0-9]|30)|[0-9]{4}-02-(0[1-9]|1[0-9]|2[0-8])"
            + "|([0-9]{2}(0[48]|[2468][048]|[13579][26])|([02468][048]|[13579][26])00)-02-29)$";

    private Sql toDate(Expr text) {
        return Sql.caseWhen(
                Sql.atom(sql(text).at(Sql.OTHER) + " ~ '" + DAY + "'"),
                Sql.atom("CAST(" + typedText(text) + " AS date)"));
    }

    @Override
    Sql bounded(Sql number, long least) {
        return Sql.atom("CAST(" + super.bounded(number, least).text() + " AS integer)");
    }

    private Regex checked(Expr argument) {
        Regex regex = pattern(argument);
        if (!Regexes.sameForLongestMatch(regex)) {
            throw cannot(
                    "it looks for the longest match, and this pattern could then match something else.",
                    "Let alternatives begin with different characters and use no lazy repeats.");
        }
        return regex;
    }

    private Sql patternText(Expr argument) {
        return Sql.atom(text(regexWriter().write(checked(argument))));
    }

    private Sql regexpReplace(List<Expr> a) {
        String replacement = replacement(a.get(2)).stream()
                .map(part -> switch (part) {
                    case Replacement.Plain(String plain) -> plain.replace("\\", "\\\\");
                    case Replacement.GroupOf(int number) -> number == 0 ? "\\&" : "\\" + number;
                })
                .collect(Collectors.joining());
        return Sql.call(
                "regexp_replace", sql(a.get(0)), patternText(a.get(1)), Sql.atom(text(replacement)), Sql.atom("'g'"));
    }

    private Sql regexpExtract(List<Expr> a) {
        Regex regex = checked(a.get(1));
        long group = a.size() > 2 && a.get(2) instanceof Expr.Literal(Long g, Type _) ? g : 0;
        String pattern = regexWriter()
                .capturing(group == 0 ? RegexWriter.NONE : (int) group)
                .write(regex);
        Sql match = Sql.atom("("
                + Sql.call("regexp_match", sql(a.get(0)), Sql.atom(text(pattern)))
                        .text() + ")[1]");
        if (group == 0) {
            return match;
        }
        Sql found = Sql.infix(sql(a.get(0)), "~", Sql.atom(text(pattern)), Sql.COMPARE);
        return Sql.caseWhen(found, Sql.call("coalesce", match, Sql.atom("''")));
    }

    /// A bare constant would be read as a number before any condition is looked at.
    private String typedText(Expr text) {
        return text instanceof Expr.Literal
                ? "CAST(" + sql(text).text() + " AS text)"
                : sql(text).text();
    }

    private Sql toInteger(Expr text) {
        String value = "CAST(" + typedText(text) + " AS numeric)";
        Sql inRange = Sql.atom(value + " BETWEEN -9223372036854775808 AND 9223372036854775807");
        Sql cast = Sql.caseWhen(inRange, Sql.atom("CAST(" + value + " AS bigint)"));
        return SqlNumbers.cast(this, text, "%s ~ '^" + BLANKS + "[+-]?[0-9]{1,38}" + BLANKS + "$'", cast.text());
    }

    /// Its own reading stops beyond the range, so that an exact number is looked at first.
    private Sql readNumber(Expr text) {
        String size = "abs(CAST(" + typedText(text) + " AS numeric))";
        String number = cast(typedText(text), Type.NUMBER);
        return Sql.caseOf(List.of(
                "WHEN " + size + " < 1e-300 THEN " + cast("0", Type.NUMBER),
                "WHEN " + size + " <= 1e300 THEN " + number));
    }

    @Override
    Sql approximate(String digits) {
        return Sql.atom(cast("'" + digits + "'", Type.NUMBER));
    }

    @Override
    Sql shortest(Expr number, int scale) {
        return Sql.atom("CAST(" + cast(sql(number).text(), Type.TEXT) + " AS numeric)");
    }

    private Sql toDecimal(List<Expr> a) {
        Type.Decimal type = (Type.Decimal) new Expr.Call(
                        fixshelf.language.catalogue.Functions.find("to_decimal").orElseThrow(), a)
                .type();
        String text = sql(a.getFirst()).text();
        Sql shape =
                Sql.atom("length(" + text + ") <= 100 AND " + sql(a.getFirst()).at(Sql.OTHER) + " ~ '^" + BLANKS
                        + "[+-]?([0-9]+([.][0-9]*)?|[.][0-9]+)" + BLANKS + "$'");
        String rounded = "round(CAST(" + typedText(a.getFirst()) + " AS numeric), " + type.scale() + ")";
        Sql fits = Sql.atom("abs(" + rounded + ") < 1e" + (type.precision() - type.scale()));
        return Sql.caseWhen(shape, Sql.caseWhen(fits, Sql.atom("CAST(" + rounded + " AS " + typeName(type) + ")")));
    }

    private Sql endsWith(List<Expr> a) {
        Sql tail = Sql.call("right", sql(a.get(0)), Sql.call("length", sql(a.get(1))));
        return Sql.infix(tail, "=", sql(a.get(1)), Sql.COMPARE);
    }

    private static Expr leftOf(Expr text) {
        return new Expr.Call(
                fixshelf.language.catalogue.Functions.find("left").orElseThrow(),
                List.of(text, Expr.Literal.integer(10)));
    }

    private Sql later(Expr from, String unit, String count, String type) {
        String step = "make_interval(" + unit + " => " + count + ")";
        return Sql.atom("CAST(" + sql(from).at(Sql.SUM) + " + " + step + " AS " + type + ")");
    }

    @Override
    Sql exactQuotient(Expr dividend, Expr divisor, int scale) {
        String wide = "CAST(" + sql(dividend).text() + " AS numeric(80, 40))";
        return Sql.call(
                "round", Sql.atom(wide + " / " + sql(divisor).at(Sql.PRODUCT + 1)), Sql.atom(String.valueOf(scale)));
    }

    private Sql sortedParts(String text, String separator) {
        String sign = text(separator);
        return parts(
                text,
                "(SELECT string_agg(part, " + sign + " ORDER BY part COLLATE \"C\")\n  FROM"
                        + " unnest(string_to_array(" + text + ", " + sign + ")) AS parts(part))");
    }

    private Sql uniqueParts(String text, String separator) {
        String sign = text(separator);
        return parts(
                text,
                "(SELECT string_agg(part, " + sign + " ORDER BY place)\n  FROM (SELECT part, min(o) AS place"
                        + " FROM unnest(string_to_array(" + text + ", " + sign
                        + ")) WITH ORDINALITY AS parts(part, o) GROUP BY part) AS once)");
    }

    /// The empty text is one empty part; its own function finds none.
    private static Sql parts(String text, String together) {
        return Sql.caseOf(List.of("WHEN " + text + " = '' THEN ''", "ELSE " + together));
    }

    /// Runs of letters and digits, and what stands between them, one after the other.
    private Sql initcap(String text) {
        String word = regexWriter().write(WORD);
        String other = "[^" + word.substring(1);
        String inside = regexWriter().write(IN_WORD);
        return Sql.caseWhen(
                Sql.atom(text + " = ''"),
                Sql.atom("''"),
                Sql.atom(
                        "(SELECT string_agg(coalesce(upper(left(m[1], 1)) || lower(substr(m[1], 2)), m[2]), '' ORDER BY o)\n  FROM"
                                + " regexp_matches(" + text + ", " + text("(" + word + inside + "*)|(" + other + "+)")
                                + ", 'g') WITH ORDINALITY AS runs(m, o))"));
    }

    @Override
    String onlyValue(String column, Type type, String over) {
        return type.equals(Type.BOOLEAN) ? "bool_or(" + column + ") " + over : super.onlyValue(column, type, over);
    }
}
