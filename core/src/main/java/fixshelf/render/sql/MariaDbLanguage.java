package fixshelf.render.sql;

import fixshelf.language.catalogue.Separators;
import fixshelf.language.pattern.LikePattern;
import fixshelf.language.pattern.Regex.CharacterSet;
import fixshelf.language.pattern.Regex.Range;
import fixshelf.language.pattern.Regexes;
import fixshelf.language.pattern.Replacement;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.render.Comments;
import fixshelf.render.RegexWriter;
import fixshelf.render.TypeNames;
import fixshelf.type.Type;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/// MariaDB 10.10 and later, with its default SQL mode and utf8mb4 text.
public final class MariaDbLanguage extends SqlLanguage {
    private static final String BLANKS = "[\\t-\\r ]*";
    private static final int MOST_TABLES = 100;
    /// It takes 64 in one WITH; some are for what a query is tried on.
    private static final int MOST_NAMED_TABLES = 56;
    private static final Pattern COLUMN = Pattern.compile("[A-Za-z_][A-Za-z0-9_]*|`([^`]|``)*`");
    private static final String EXACT = " COLLATE utf8mb4_nopad_bin";
    private static final String TIME =
            "(?-i)^[0-9]{4}-[0-9]{2}-[0-9]{2} ([01][0-9]|2[0-3]):[0-5][0-9]:[0-5][0-9]([.][0-9]{1,6})?\\z";
    private static final int LONGEST_NAME = 64;

    @Override
    boolean sharesQueries() {
        return false;
    }

    @Override
    int mostNamedTables() {
        return MOST_NAMED_TABLES;
    }

    public MariaDbLanguage() {
        say("trim", a -> trim(a, "BOTH"));
        say("ltrim", a -> trim(a, "LEADING"));
        say("rtrim", a -> trim(a, "TRAILING"));
        say("upper", a -> mapped("upper", a.getFirst()));
        say("lower", a -> mapped("lower", a.getFirst()));
        say("replace", this::replace);
        say("position", this::position);
        say(
                "starts_with",
                a -> Sql.infix(
                        exact(Sql.call("left", sql(a.get(0)), lengthOf(a.get(1)))), "=", sql(a.get(1)), Sql.COMPARE));
        say(
                "ends_with",
                a -> Sql.infix(
                        exact(Sql.call("right", sql(a.get(0)), lengthOf(a.get(1)))), "=", sql(a.get(1)), Sql.COMPARE));
        say("contains", a -> new Sql(position(a).text() + " > 0", Sql.COMPARE));
        say("nullif", this::nullif);
        say("regexp_replace", this::regexpReplace);
        say("regexp_like", a -> Sql.infix(sql(a.get(0)), "REGEXP", patternText(a.get(1)), Sql.COMPARE));
        say("regexp_extract", this::regexpExtract);
        say("to_integer", a -> toInteger(a.getFirst()));
        say("approximate", a -> Sql.atom(cast(cast(sql(a.getFirst()).text(), Type.TEXT), Type.NUMBER)));
        say("to_decimal", this::toDecimal);
        say("to_date", a -> toDate(sql(a.getFirst())));
        say("format_date", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS CHAR)"));
        say("year", a -> Sql.call("year", all(a)));
        say("month", a -> Sql.call("month", all(a)));
        say("day", a -> Sql.call("day", all(a)));
        say("weekday", a -> new Sql(Sql.call("weekday", all(a)).text() + " + 1", Sql.OTHER));
        say(
                "add_days",
                a -> inCalendar(Sql.atom("date_add(" + sql(a.get(0)).text() + ", INTERVAL "
                        + days(a.get(1)).text() + " DAY)")));
        say("days_between", a -> Sql.call("datediff", sql(a.get(1)), sql(a.get(0))));
        say("initcap", a -> initcap(sql(a.getFirst()).text()));
        MariaDbParts.addTo(this);
        MariaDbLetters.addTo(this);
        say("week", a -> Sql.atom("week(" + sql(a.getFirst()).text() + ", 3)"));
        say("add_months", a -> inCalendar(later(a.get(0), months(a.get(1)), "MONTH")));
        say(
                "to_timestamp",
                a -> Sql.caseWhen(
                        Sql.atom(sql(a.getFirst()).at(Sql.OTHER) + " REGEXP " + text(TIME)),
                        Sql.caseWhen(
                                Sql.atom(toDate(Sql.call("left", sql(a.getFirst()), Sql.atom("10")))
                                                .text() + " IS NOT NULL"),
                                Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS DATETIME(6))"))));
        say(
                "format_timestamp",
                a -> Sql.atom("trim(TRAILING '.' FROM trim(TRAILING '0' FROM date_format("
                        + sql(a.getFirst()).text() + ", '%Y-%m-%d %H:%i:%s.%f')))"));
        say("date_of", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS DATE)"));
        say("at_midnight", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS DATETIME)"));
        for (String part : List.of("hour", "minute", "second")) {
            say(part, a -> Sql.call(part, all(a)));
        }
        say("microsecond", a -> Sql.call("microsecond", all(a)));
        say("add_microseconds", a -> inCalendarOfTimes(later(a.get(0), micros(a.get(1)), "MICROSECOND")));
        say("add_seconds", a -> inCalendarOfTimes(later(a.get(0), seconds(a.get(1)), "SECOND")));
        say("seconds_between", a -> Sql.call("timestampdiff", Sql.atom("SECOND"), sql(a.get(0)), sql(a.get(1))));
        say("chr", a -> Sql.atom("char(" + sql(a.getFirst()).text() + " USING utf32)"));
    }

    @Override
    public String id() {
        return "mariadb";
    }

    @Override
    public String title() {
        return "MariaDB";
    }

    @Override
    String quote() {
        return "`";
    }

    /// Each inner table is a file that the server holds open.
    @Override
    Sql finished(Expr expr) {
        Sql sql = sql(expr);
        if (sql.text().split("json_table\\(", -1).length - 1 > MOST_TABLES) {
            throw cannot(
                    "one value would need more than " + MOST_TABLES + " inner tables.",
                    "Use initcap, sort_parts or unique_parts in a fix of its own, on a line before.");
        }
        return sql;
    }

    @Override
    Optional<String> objection(String name) {
        boolean beyond = name.codePoints().anyMatch(c -> c > 0xFFFF);
        boolean blank = name.endsWith(" ") || !name.isEmpty() && name.charAt(0) <= ' ';
        return beyond || blank
                ? Optional.of("a name has no characters beyond U+FFFF there, and no space at its ends: '" + name + "'.")
                : Optional.empty();
    }

    @Override
    boolean tooLong(String name) {
        return name.codePointCount(0, name.length()) > LONGEST_NAME;
    }

    @Override
    Sql within64(List<Expr> a, String sign, Sql plain) {
        return within64(a, sign, plain, "CAST(" + sql(a.get(0)).text() + " AS DECIMAL(40, 0))");
    }

    @Override
    TypeNames types() {
        return new TypeNames("CHAR", "SIGNED", "DOUBLE", "SIGNED", "DATE", "DATETIME(6)", "DECIMAL");
    }

    /// As a column or a parameter is declared; a cast has names of its own.
    private static final TypeNames DECLARED = new TypeNames(
            "LONGTEXT CHARACTER SET utf8mb4", "BIGINT", "DOUBLE", "BOOLEAN", "DATE", "DATETIME(6)", "DECIMAL");

    private String declared(Type type) {
        return type.isFixed() ? typeName(type) : DECLARED.of(type);
    }

    @Override
    Sql shortest(Expr number, int scale) {
        return Sql.atom("CAST(" + cast(sql(number).text(), Type.TEXT) + " AS DECIMAL(60, " + (scale + 17) + "))");
    }

    /// An inner query cannot use a column from outside (error 1109), but it can use the parameters of a function.
    @Override
    boolean namesParts(boolean ofParameters) {
        return ofParameters;
    }

    @Override
    String keptApart() {
        return " LIMIT 1";
    }

    @Override
    RegexWriter regexWriter() {
        return RegexWriter.pcre();
    }

    @Override
    String definitionOf(Definition fix, String body) {
        String parameters = parameters(fix, p -> identifier(p.name()) + " " + declared(p.type()));
        String defaults = fix.parameters().stream()
                .flatMap(p -> p.fallback().stream().map(f -> p.name() + " usually " + sql(f).text()))
                .collect(Collectors.joining(", "));
        String note =
                defaults.isEmpty() ? "" : Comments.line("--", "MariaDB asks for every argument: " + defaults + ".");
        return note + "CREATE OR REPLACE FUNCTION " + callable(fix) + "(" + parameters + ")\nRETURNS "
                + declared(fix.returns()) + "\nDETERMINISTIC NO SQL\nRETURN " + body + ";\n";
    }

    /// What cannot be seen, beside white space, stands as its bytes: in code it could turn what is read.
    @Override
    String text(String text) {
        List<String> pieces = new ArrayList<>();
        StringBuilder run = new StringBuilder();
        text.codePoints().forEach(c -> {
            boolean unseen = c != '\n'
                    && c != '\t'
                    && c != '\r'
                    && c != 0
                    && (Character.getType(c) == Character.CONTROL || Character.getType(c) == Character.FORMAT);
            if (!unseen) {
                run.appendCodePoint(c);
                return;
            }
            if (!run.isEmpty()) {
                pieces.add(plain(run.toString()));
                run.setLength(0);
            }
            byte[] bytes = Character.toString(c).getBytes(StandardCharsets.UTF_8);
            pieces.add("_utf8mb4 X'" + HexFormat.of().withUpperCase().formatHex(bytes) + "'");
        });
        if (!run.isEmpty() || pieces.isEmpty()) {
            pieces.add(plain(run.toString()));
        }
        return pieces.size() == 1 ? pieces.getFirst() : "concat(" + String.join(", ", pieces) + ")";
    }

    private static String plain(String text) {
        StringBuilder out = new StringBuilder("'");
        text.codePoints().forEach(c -> {
            switch (c) {
                case '\'' -> out.append("''");
                case '\\' -> out.append("\\\\");
                case '\n' -> out.append("\\n");
                case '\t' -> out.append("\\t");
                case '\r' -> out.append("\\r");
                case 0 -> out.append("\\0");
                default -> out.appendCodePoint(c);
            }
        });
        return out.append('\'').toString();
    }

    @Override
    Sql exact(Expr expr, boolean ordering) {
        return expr.type().equals(Type.TEXT) ? exact(sql(expr)) : sql(expr);
    }

    private static Sql exact(Sql text) {
        return new Sql(text.at(Sql.ATOM) + EXACT, Sql.OTHER);
    }

    @Override
    Sql length(Sql text) {
        return Sql.call("char_length", text);
    }

    @Override
    Sql joined(List<Expr> texts) {
        return Sql.call("concat", all(texts));
    }

    @Override
    Sql distinct(List<Expr> a, boolean differ) {
        Expr left = a.get(0).type().equals(Type.TEXT) ? a.get(0) : a.get(1);
        Expr right = left == a.get(0) ? a.get(1) : a.get(0);
        Sql same = Sql.infix(exact(left, false), "<=>", sql(right), Sql.COMPARE);
        return differ ? new Sql("NOT " + same.at(Sql.NOT), Sql.NOT) : same;
    }

    /// Here `least` and `greatest` of a null are null.
    @Override
    Sql known(List<Expr> numbers, Sql value) {
        return value;
    }

    @Override
    Sql like(List<Expr> arguments, String operator) {
        Optional<LikePattern> pattern = LikePattern.of(arguments);
        Sql text = exact(sql(arguments.getFirst()));
        if (pattern.isEmpty()) {
            String escape = arguments.size() > 2 ? sql(arguments.get(2)).text() : "''";
            String written = sql(arguments.get(1)).at(Sql.OTHER) + " ESCAPE " + escape;
            return new Sql(text.text() + " " + operator + " " + written, Sql.COMPARE);
        }
        String written =
                pattern.get().write("%", "_", c -> "%_!".indexOf(c) >= 0 ? "!" + (char) c : Character.toString(c));
        return new Sql(text.text() + " " + operator + " " + text(written) + " ESCAPE '!'", Sql.COMPARE);
    }

    private Sql nullif(List<Expr> a) {
        boolean never = a.get(1) instanceof Expr.Literal(Object value, Type _) && value == null;
        return never ? sql(a.get(0)) : Sql.caseWhen(distinct(a, true), sql(a.get(0)));
    }

    private Sql trim(List<Expr> a, String side) {
        Sql text = sql(a.get(0));
        if (a.size() < 2
                || a.get(1) instanceof Expr.Literal(String one, Type _) && one.codePointCount(0, one.length()) == 1) {
            String sign = a.size() < 2 ? "' '" : sql(a.get(1)).text();
            return Sql.atom("trim(" + side + " " + sign + " FROM " + text.text() + ")");
        }
        if (!(a.get(1) instanceof Expr.Literal(String characters, Type _))) {
            throw cannot(
                    "its trim takes off one text only, and the characters come through a parameter.", "Fill them in.");
        }
        if (characters.isEmpty()) {
            return text;
        }
        List<Range> ranges = characters
                .codePoints()
                .distinct()
                .mapToObj(c -> new Range(c, c))
                .toList();
        String set = regexWriter().write(new CharacterSet(ranges, false));
        String start = side.equals("TRAILING") ? "" : "^" + set + "+";
        String end = side.equals("LEADING") ? "" : set + "+\\z";
        String pattern = "(?-i)" + start + (start.isEmpty() || end.isEmpty() ? "" : "|") + end;
        return Sql.call("regexp_replace", text, Sql.atom(text(pattern)), Sql.atom("''"));
    }

    /// Only this collation knows the letters beyond the first 65536 characters.
    private Sql mapped(String function, Expr text) {
        return Sql.atom("CONVERT(" + function + "(CONVERT(" + sql(text).text()
                + " USING utf8mb4) COLLATE utf8mb4_uca1400_ai_ci) USING utf8mb4)");
    }

    /// Its `replace` writes into the text that it was given where that is an expression of an inner query, so that
    /// the same column beside it changes too: a column is copied first.
    private Sql replace(List<Expr> a) {
        Sql text = a.get(0) instanceof Expr.Name ? Sql.call("concat", sql(a.get(0))) : sql(a.get(0));
        return Sql.call("replace", text, sql(a.get(1)), sql(a.get(2)));
    }

    /// Its `concat_ws` writes into its first text that is there in the same way.
    @Override
    Sql[] pieces(List<Expr> arguments) {
        return arguments.stream()
                .map(this::sql)
                .map(s -> COLUMN.matcher(s.text()).matches() ? Sql.call("concat", s) : s)
                .toArray(Sql[]::new);
    }

    private Sql position(List<Expr> a) {
        return Sql.call("locate", exact(sql(a.get(1))), sql(a.get(0)));
    }

    private Sql patternText(Expr argument) {
        return Sql.atom(text("(?-i)" + regexWriter().write(pattern(argument))));
    }

    private Sql regexpReplace(List<Expr> a) {
        String written = replacement(a.get(2)).stream()
                .map(part -> switch (part) {
                    case Replacement.Plain(String plain) -> plain.replace("\\", "\\\\");
                    case Replacement.GroupOf(int number) -> "\\" + number;
                })
                .collect(Collectors.joining());
        return Sql.call("regexp_replace", sql(a.get(0)), patternText(a.get(1)), Sql.atom(text(written)));
    }

    private Sql regexpExtract(List<Expr> a) {
        Sql found = Sql.infix(sql(a.get(0)), "REGEXP", patternText(a.get(1)), Sql.COMPARE);
        long group = a.size() > 2 && a.get(2) instanceof Expr.Literal(Long g, Type _) ? g : 0;
        if (group == 0) {
            return Sql.caseWhen(found, Sql.call("regexp_substr", sql(a.get(0)), patternText(a.get(1))));
        }
        var regex = pattern(a.get(1));
        String whole =
                "(?-i)^(?s:.*?)(?:" + regexWriter().capturing((int) group).write(regex) + ")(?s:.*)\\z";
        boolean anchored = Regexes.canBeEmpty(regex);
        if (anchored) {
            throw cannot("a group of a pattern that can be empty.", "Let the pattern match at least one character.");
        }
        return Sql.caseWhen(
                found, Sql.call("regexp_replace", sql(a.get(0)), Sql.atom(text(whole)), Sql.atom("'\\\\1'")));
    }

    /// Inside a function, its own reading fails for a day that is not real; so the day is compared with the month's
    /// last.
    private Sql toDate(Sql text) {
        String shape = text("(?-i)^[0-9]{4}-(0[1-9]|1[0-2])-(0[1-9]|[12][0-9]|3[01])\\z");
        Sql shaped = Sql.atom(text.at(Sql.OTHER) + " REGEXP " + shape + " AND left(" + text.text() + ", 4) <> '0000'");
        String last = "day(last_day(concat(left(" + text.text() + ", 8), '01')))";
        Sql real = Sql.atom("substr(" + text.text() + ", 9, 2) + 0 <= " + last);
        return Sql.caseWhen(shaped, Sql.caseWhen(real, Sql.atom("CAST(" + text.text() + " AS DATE)")));
    }

    private Sql toInteger(Expr text) {
        String bare = "trim(BOTH ' ' FROM regexp_replace(" + sql(text).text() + ", '[\\\\t-\\\\r]', ' '))";
        String value = "CAST(" + bare + " AS DECIMAL(40, 0))";
        Sql inRange = Sql.atom(value + " BETWEEN -9223372036854775808 AND 9223372036854775807");
        Sql cast = Sql.caseWhen(inRange, Sql.atom("CAST(" + bare + " AS SIGNED)"));
        String shape =
                text("(?-i)^" + BLANKS + "[+-]?[0-9]{1,38}" + BLANKS + "\\z").replace("%", "%%");
        return SqlNumbers.cast(this, text, "%s REGEXP " + shape, cast.text());
    }

    private Sql toDecimal(List<Expr> a) {
        Type.Decimal type = (Type.Decimal) new Expr.Call(
                        fixshelf.language.catalogue.Functions.find("to_decimal").orElseThrow(), a)
                .type();
        String text = sql(a.getFirst()).text();
        String shape = text("(?-i)^" + BLANKS + "[+-]?([0-9]+([.][0-9]*)?|[.][0-9]+)" + BLANKS + "\\z");
        Sql said = Sql.atom(
                "char_length(" + text + ") <= 100 AND " + sql(a.getFirst()).at(Sql.OTHER) + " REGEXP " + shape);
        String bare = "trim(BOTH ' ' FROM regexp_replace(" + text + ", '[\\\\t-\\\\r]', ' '))";
        String head = "CASE WHEN char_length(substring_index(" + bare + ", '.', 1)) <= 40 THEN " + bare + " END";
        String rounded = "round(CAST(" + head + " AS DECIMAL(65, 24)), " + type.scale() + ")";
        Sql fits = Sql.atom("abs(" + rounded + ") < 1" + "0".repeat(type.precision() - type.scale()));
        return Sql.caseWhen(said, Sql.caseWhen(fits, Sql.atom("CAST(" + rounded + " AS " + typeName(type) + ")")));
    }

    private Sql later(Expr from, Sql count, String unit) {
        return Sql.atom("date_add(" + sql(from).text() + ", INTERVAL " + count.text() + " " + unit + ")");
    }

    @Override
    String quotient(String dividend, String divisor) {
        return dividend + " DIV " + divisor;
    }

    /// Its division gives four more digits than the dividend has.
    @Override
    Sql exactQuotient(Expr dividend, Expr divisor, int scale) {
        String wide = "CAST(" + sql(dividend).text() + " AS DECIMAL(65, 30))";
        return Sql.call(
                "round", Sql.atom(wide + " / " + sql(divisor).at(Sql.PRODUCT + 1)), Sql.atom(String.valueOf(scale)));
    }

    @Override
    Sql part(Expr text, Expr separator, long number) {
        boolean plain = separator instanceof Expr.Literal(String sign, Type _) && !Separators.overlapItself(sign);
        if (!plain) {
            throw cannot("it counts separators that overlap in its own way.", "Give a plain separator, as ','.");
        }
        Sql upTo = Sql.call("substring_index", sql(text), sql(separator), Sql.atom(String.valueOf(number)));
        return Math.abs(number) == 1
                ? upTo
                : Sql.call("substring_index", upTo, sql(separator), Sql.atom(number > 0 ? "-1" : "1"));
    }

    /// The text is cut into runs, which become a list in JSON, which becomes a table.
    private Sql initcap(String text) {
        String mark = text(Character.toString(SqlParts.SET_ASIDE));
        String pieces = "concat('[', replace(json_quote(regexp_replace(" + text + ", " + text("(" + WORD_PATTERN + ")")
                + ", concat(" + mark + ", " + text("\\1") + ", " + mark + "))), " + mark + ", '\",\"'), ']')";
        String word = "CASE WHEN v REGEXP " + text("^[\\p{L}\\p{Nd}]") + " THEN concat(upper(left(v, 1) COLLATE"
                + " utf8mb4_uca1400_ai_ci), lower(substr(v, 2) COLLATE utf8mb4_uca1400_ai_ci)) ELSE v END";
        return Sql.caseWhen(
                Sql.atom(text + " IS NOT NULL"),
                // As new text, so that the order by which the letters were changed goes no further.
                Sql.atom("convert(coalesce((SELECT group_concat(" + word
                        + " ORDER BY o SEPARATOR '')\n  FROM json_table("
                        + pieces + ", '$[*]' COLUMNS(o FOR ORDINALITY, v LONGTEXT PATH '$')) AS runs), '')"
                        + " USING utf8mb4)"));
    }

    @Override
    String listed(String text, String separator, String place) {
        return "group_concat(" + text + " ORDER BY " + place + " SEPARATOR " + text(separator) + ")";
    }
}
