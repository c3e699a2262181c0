package fixshelf.render.sql;

import fixshelf.language.pattern.LikePattern;
import fixshelf.language.pattern.Regex;
import fixshelf.language.pattern.Regex.CharacterSet;
import fixshelf.language.pattern.Replacement;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.render.Quoted;
import fixshelf.render.RegexWriter;
import fixshelf.render.TakenNames;
import fixshelf.render.TypeNames;
import fixshelf.type.Type;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/// Spark SQL 4 and later, with its default settings: ANSI mode, escapes in text.
public final class SparkLanguage extends SqlLanguage {
    /// Words that it reads as a call without parentheses, also where they are in quotes and a parameter is called so.
    private static final TakenNames CALLED = new TakenNames(
            Set.of(
                    "user",
                    "current_user",
                    "session_user",
                    "current_date",
                    "current_time",
                    "current_timestamp",
                    "localtimestamp",
                    "localtime",
                    "current_catalog",
                    "current_database",
                    "current_schema",
                    "current_timezone",
                    "now"),
            true);

    private static final Quoted QUOTED = new Quoted('\'', "\\u%04X", "\\U%08X");
    private static final String BLANKS = "[\\t-\\r ]*";
    private static final String TIME =
            "^[0-9]{4}-[0-9]{2}-[0-9]{2} ([01][0-9]|2[0-3]):[0-5][0-9]:[0-5][0-9]([.][0-9]{1,6})?\\z";

    public SparkLanguage() {
        say("trim", a -> trim(a, "BOTH"));
        say("ltrim", a -> trim(a, "LEADING"));
        say("rtrim", a -> trim(a, "TRAILING"));
        say("upper", a -> Sql.atom(upper(sql(a.getFirst()).text())));
        say("lower", a -> Sql.atom(lower(sql(a.getFirst()).text())));
        say("position", a -> Sql.call("locate", sql(a.get(1)), sql(a.get(0))));
        say("starts_with", a -> Sql.call("startswith", all(a)));
        say("ends_with", a -> Sql.call("endswith", all(a)));
        say("contains", a -> Sql.call("contains", all(a)));
        say("regexp_replace", this::regexpReplace);
        say("regexp_like", a -> Sql.infix(sql(a.get(0)), "RLIKE", patternText(a.get(1)), Sql.COMPARE));
        say("regexp_extract", this::regexpExtract);
        say(
                "to_integer",
                a -> SqlNumbers.cast(
                        this,
                        a.getFirst(),
                        "%s RLIKE " + text("^" + BLANKS + "[+-]?[0-9]{1,38}" + BLANKS + "\\z"),
                        "try_cast(" + bare(a.getFirst()) + " AS BIGINT)"));
        say("to_decimal", this::toDecimal);
        say(
                "to_date",
                a -> Sql.caseWhen(
                        Sql.atom(sql(a.getFirst()).at(Sql.OTHER) + " RLIKE " + text("^[0-9]{4}-[0-9]{2}-[0-9]{2}\\z")
                                + " AND "
                                + Sql.call("left", sql(a.getFirst()), Sql.atom("4"))
                                        .text() + " <> '0000'"),
                        Sql.atom("try_cast(" + sql(a.getFirst()).text() + " AS DATE)")));
        say("format_date", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS STRING)"));
        say("year", a -> Sql.call("year", all(a)));
        say("month", a -> Sql.call("month", all(a)));
        say("day", a -> Sql.call("day", all(a)));
        say("weekday", a -> new Sql(Sql.call("weekday", all(a)).text() + " + 1", Sql.OTHER));
        say(
                "add_days",
                a -> known(
                        List.of(a.get(1)),
                        inCalendar(Sql.call(
                                "date_add",
                                sql(a.get(0)),
                                Sql.atom("CAST(" + days(a.get(1)).text() + " AS INT)")))));
        say("days_between", a -> Sql.call("datediff", sql(a.get(1)), sql(a.get(0))));
        say("initcap", a -> initcap(sql(a.getFirst()).text()));
        SqlParts.addTo(this, this::sortedParts, this::uniqueParts);
        say("week", a -> Sql.call("weekofyear", all(a)));
        say(
                "add_months",
                a -> known(
                        List.of(a.get(1)),
                        inCalendar(Sql.call(
                                "add_months",
                                sql(a.get(0)),
                                Sql.atom("CAST(" + months(a.get(1)).text() + " AS INT)")))));
        say(
                "to_timestamp",
                a -> Sql.caseWhen(
                        Sql.atom(sql(a.getFirst()).at(Sql.OTHER) + " RLIKE " + text(TIME) + " AND "
                                + Sql.call("left", sql(a.getFirst()), Sql.atom("4"))
                                        .text() + " <> '0000'"),
                        Sql.atom("try_cast(" + sql(a.getFirst()).text() + " AS TIMESTAMP_NTZ)")));
        say("format_timestamp", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS STRING)"));
        say("date_of", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS DATE)"));
        say("at_midnight", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS TIMESTAMP_NTZ)"));
        for (String part : List.of("hour", "minute", "second")) {
            say(part, a -> Sql.call(part, all(a)));
        }
        say("add_seconds", a -> later(a, interval(seconds(a.get(1)).text())));
        say(
                "microsecond",
                a -> new Sql(
                        "CAST(extract(SECOND FROM " + sql(a.getFirst()).text() + ") * 1000000 AS BIGINT) % 1000000",
                        Sql.PRODUCT));
        say(
                "add_microseconds",
                a -> later(
                        a,
                        interval("CAST(CAST(" + micros(a.get(1)).text()
                                + " AS DECIMAL(20, 0)) / 1000000 AS DECIMAL(18, 6))")));
        say("seconds_between", a -> Sql.call("timestampdiff", Sql.atom("SECOND"), sql(a.get(0)), sql(a.get(1))));
        say("chr", a -> sql(a.getFirst()));
    }

    private static Sql interval(String seconds) {
        return Sql.atom("make_dt_interval(0, 0, 0, " + seconds + ")");
    }

    @Override
    boolean sharesQueries() {
        return false;
    }

    @Override
    public String id() {
        return "spark";
    }

    @Override
    public String title() {
        return "Spark SQL";
    }

    @Override
    String quote() {
        return "`";
    }

    @Override
    Sql within64(List<Expr> a, String sign, Sql plain) {
        String function = sign.equals("+") ? "try_add" : sign.equals("-") ? "try_subtract" : "try_multiply";
        return Sql.call(function, all(a));
    }

    @Override
    Sql approximate(String digits) {
        return SqlSyntax.number(digits + "D");
    }

    @Override
    TypeNames types() {
        return new TypeNames("STRING", "BIGINT", "DOUBLE", "BOOLEAN", "DATE", "TIMESTAMP_NTZ", "DECIMAL");
    }

    @Override
    RegexWriter regexWriter() {
        return RegexWriter.java();
    }

    @Override
    Map<String, Expr> arguments(Definition fix) {
        return fix.parameters().stream()
                .filter(p -> !CALLED.free(p.name()).equals(p.name()))
                .collect(Collectors.toMap(
                        p -> p.name().toLowerCase(Locale.ROOT), p -> new Expr.Name(CALLED.free(p.name()), p.type())));
    }

    @Override
    String definitionOf(Definition fix, String body) {
        String parameters = parameters(
                fix,
                p -> identifier(CALLED.free(p.name())) + " " + typeName(p.type())
                        + p.fallback().map(f -> " DEFAULT " + sql(f).text()).orElse(""));
        return "CREATE OR REPLACE TEMPORARY FUNCTION " + callable(fix) + "(" + parameters + ")\nRETURNS "
                + typeName(fix.returns()) + "\nRETURN " + body + ";\n";
    }

    @Override
    String text(String text) {
        // A dollar before a brace would be taken for a variable, even inside a text.
        return QUOTED.write(text).replace("${", "$\\u007B");
    }

    @Override
    Sql like(List<Expr> arguments, String operator) {
        Optional<LikePattern> pattern = LikePattern.of(arguments);
        if (pattern.isEmpty()) {
            throw cannot(
                    "the pattern of LIKE comes through a parameter, and a backslash means something else there.",
                    "Copy it as an expression, with the pattern filled in.");
        }
        String written =
                pattern.get().write("%", "_", c -> "%_!".indexOf(c) >= 0 ? "!" + (char) c : Character.toString(c));
        return new Sql(
                sql(arguments.getFirst()).at(Sql.OTHER) + " " + operator + " " + text(written) + " ESCAPE '!'",
                Sql.COMPARE);
    }

    private Sql trim(List<Expr> a, String side) {
        String characters = a.size() > 1 ? sql(a.get(1)).text() : "' '";
        return Sql.atom(
                "trim(" + side + " " + characters + " FROM " + sql(a.getFirst()).text() + ")");
    }

    @Override
    Sql bounded(Sql number, long least) {
        return Sql.atom("CAST(" + super.bounded(number, least).text() + " AS INT)");
    }

    private Sql patternText(Expr argument) {
        return Sql.atom(text(regexWriter().write(pattern(argument))));
    }

    private Sql regexpReplace(List<Expr> a) {
        StringBuilder written = new StringBuilder();
        boolean afterGroup = false;
        for (Replacement part : replacement(a.get(2))) {
            switch (part) {
                case Replacement.Plain(String plain) -> {
                    boolean digit = afterGroup && Character.isDigit(plain.charAt(0));
                    String escaped = plain.replace("\\", "\\\\").replace("$", "\\$");
                    written.append(digit ? "\\" : "").append(escaped);
                }
                case Replacement.GroupOf(int number) -> written.append('$').append(number);
            }
            afterGroup = part instanceof Replacement.GroupOf;
        }
        return Sql.call("regexp_replace", sql(a.get(0)), patternText(a.get(1)), Sql.atom(text(written.toString())));
    }

    private Sql regexpExtract(List<Expr> a) {
        Sql found = Sql.infix(sql(a.get(0)), "RLIKE", patternText(a.get(1)), Sql.COMPARE);
        Sql group = a.size() > 2 ? sql(a.get(2)) : Sql.atom("0");
        return Sql.caseWhen(found, Sql.call("regexp_extract", sql(a.get(0)), patternText(a.get(1)), group));
    }

    /// Its casts pass over control characters at the ends; here only ASCII white space can stand there.
    private String bare(Expr text) {
        return "trim(BOTH " + text("\t\n\u000B\f\r ") + " FROM " + sql(text).text() + ")";
    }

    private Sql toDecimal(List<Expr> a) {
        Type type = new Expr.Call(
                        fixshelf.language.catalogue.Functions.find("to_decimal").orElseThrow(), a)
                .type();
        Sql text = sql(a.getFirst());
        String shape = "^" + BLANKS + "[+-]?([0-9]+([.][0-9]*)?|[.][0-9]+)" + BLANKS + "\\z";
        Sql said = Sql.atom("length(" + text.text() + ") <= 100 AND " + text.at(Sql.OTHER) + " RLIKE " + text(shape));
        return Sql.caseWhen(said, Sql.atom("try_cast(" + bare(a.getFirst()) + " AS " + typeName(type) + ")"));
    }

    /// By each character alone: of a whole text, it makes SS of ß.
    private static String upper(String text) {
        return "array_join(transform(split(" + text + ", ''), c -> CASE WHEN length(upper(c)) = 1 THEN upper(c)"
                + " WHEN length(initcap(c)) = 1 THEN initcap(c) ELSE c END), '')";
    }

    private static String lower(String text) {
        return "array_join(transform(split(replace(" + text + ", 'İ', 'i'), ''), c -> lower(c)), '')";
    }

    private Sql sortedParts(String text, String separator) {
        return together("array_sort", text, separator);
    }

    private Sql uniqueParts(String text, String separator) {
        return together("array_distinct", text, separator);
    }

    private Sql together(String change, String text, String separator) {
        String pattern = separator
                .codePoints()
                .mapToObj(c -> regexWriter().write(new CharacterSet(List.of(new Regex.Range(c, c)), false)))
                .collect(Collectors.joining());
        return Sql.atom(
                "array_join(" + change + "(split(" + text + ", " + text(pattern) + ")), " + text(separator) + ")");
    }

    /// Runs of letters and digits, and what stands between them, one after the other.
    private Sql initcap(String text) {
        return Sql.atom("array_join(transform(regexp_extract_all(" + text + ", "
                + text("(" + WORD_PATTERN + "|[^\\p{L}\\p{Nd}]+)") + ", 1), w -> CASE WHEN w RLIKE "
                + text("^[\\p{L}\\p{Nd}]") + " THEN concat(" + upper("substr(w, 1, 1)") + ", "
                + lower("substr(w, 2)") + ") ELSE w END), '')");
    }

    @Override
    String reference(String part) {
        return parts().inRow(part);
    }

    @Override
    Sql withParts(SharedParts parts, Sql result) {
        Sql made = parts.asRow(
                result,
                row -> row.entrySet().stream()
                        .map(e -> "'" + e.getKey() + "', " + e.getValue())
                        .collect(Collectors.joining(", ", "named_struct(", ")")),
                "array(%s)",
                "transform(%1$s, %2$s -> %3$s)");
        return Sql.atom(made.text() + "[0]");
    }

    @Override
    Sql time(String time) {
        return Sql.atom("TIMESTAMP_NTZ '" + time + "'");
    }

    @Override
    String quotient(String dividend, String divisor) {
        return dividend + " div " + divisor;
    }

    @Override
    Optional<Sql> tryCast(Sql number, Type type) {
        return Optional.of(Sql.atom("try_cast(" + number.text() + " AS " + typeName(type) + ")"));
    }

    /// Its own division rounds at a digit that depends on the types.
    @Override
    Sql exactQuotient(Expr dividend, Expr divisor, int scale) {
        String units = SqlNumbers.roundedQuotient(this, dividend, divisor, scale, "DECIMAL(38, 0)")
                .text();
        String unit = scale == 0 ? "" : " * 0." + "0".repeat(scale - 1) + "1";
        String about =
                "CAST(" + sql(dividend).text() + " AS DOUBLE) / " + sql(divisor).at(Sql.PRODUCT + 1) + " * 1e" + scale;
        return Sql.atom(
                "CASE WHEN abs(" + about + ") < 2e18 THEN CAST(" + units + " AS DECIMAL(19, 0))" + unit + " END");
    }

    @Override
    String listed(String text, String separator, String place) {
        String texts = "array_sort(collect_list(CASE WHEN " + text + " IS NOT NULL THEN struct(" + place + " AS place, "
                + text + " AS text) END))";
        return "CASE WHEN count(" + text + ") > 0 THEN array_join(transform(" + texts + ", t -> t.text), "
                + text(separator) + ") END";
    }
}
