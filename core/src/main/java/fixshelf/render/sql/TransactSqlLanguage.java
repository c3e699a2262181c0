package fixshelf.render.sql;

import fixshelf.language.pattern.LikePattern;
import fixshelf.language.pattern.Replacement;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.render.RegexWriter;
import fixshelf.render.TypeNames;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Transact-SQL as SQL Server 2025 and Azure SQL document it, at compatibility level 170. Not run here.
///
/// Text is `nvarchar`. Its `=` passes over spaces at the end and, with most collations, over capitals: both sides
/// get a last character and a binary collation. Its `LEN` does not count spaces at the end, in the same way.
public final class TransactSqlLanguage extends DocumentedSql {
    /// Marks the names of parameters; no column begins so.
    private static final String PARAMETER = "\u0001";

    private static final String EXACT = " COLLATE Latin1_General_100_BIN2";
    /// Counts a character beyond the first 65536 as one.
    private static final String WIDE = " COLLATE Latin1_General_100_CS_AS_SC";
    private static final int LONGEST_NAME = 128;

    public TransactSqlLanguage() {
        for (String sign : List.of("=", "<>", "<", "<=", ">", ">=")) {
            say(sign, a -> compared(a, sign));
        }
        say("IN", a -> among(a));
        say("nullif", a -> Sql.caseWhen(distinct(a, true), sql(a.get(0))));
        say("trim", a -> trim(a, "BOTH"));
        say("ltrim", a -> trim(a, "LEADING"));
        say("rtrim", a -> trim(a, "TRAILING"));
        say("upper", a -> Sql.call("UPPER", all(a)));
        say("lower", a -> Sql.call("LOWER", all(a)));
        say("substring", this::substring);
        say("left", a -> Sql.call("LEFT", wide(a.get(0)), count(a.get(1))));
        say("right", a -> Sql.call("RIGHT", wide(a.get(0)), count(a.get(1))));
        say("position", a -> position(a));
        say("starts_with", a -> equal(Sql.call("LEFT", wide(a.get(0)), lengthOf(a.get(1))), sql(a.get(1))));
        say("ends_with", a -> equal(Sql.call("RIGHT", wide(a.get(0)), lengthOf(a.get(1))), sql(a.get(1))));
        say("contains", a -> new Sql(position(a).text() + " > 0", Sql.COMPARE));
        say("repeat", a -> Sql.call("REPLICATE", sql(a.get(0)), count(a.get(1))));
        say("replace", a -> Sql.call("REPLACE", exactly(sql(a.get(0))), sql(a.get(1)), sql(a.get(2))));
        say("translate", this::translate);
        say("reverse", a -> Sql.call("REVERSE", wide(a.get(0))));
        say("regexp_replace", this::regexpReplace);
        say("regexp_like", a -> Sql.call("REGEXP_LIKE", sql(a.get(0)), patternText(a.get(1))));
        say("regexp_extract", this::regexpExtract);
        SqlParts.refuse(this);
        say("initcap", a -> {
            throw cannot("it has no such function.", "Use upper and lower.");
        });
        say("to_integer", a -> toInteger(sql(a.getFirst())));
        say("to_decimal", this::toDecimal);
        say("to_date", a -> Sql.caseWhen(shaped(a.getFirst(), "^[0-9]{4}-[0-9]{2}-[0-9]{2}$"), tried(a, "date")));
        say(
                "to_timestamp",
                a -> Sql.caseWhen(
                        shaped(a.getFirst(), "^[0-9]{4}-[0-9]{2}-[0-9]{2} [0-9]{2}:[0-9]{2}:[0-9]{2}([.][0-9]{1,6})?$"),
                        tried(a, "datetime2(6)")));
        say(
                "format_date",
                a -> Sql.atom("CONVERT(nvarchar(10), " + sql(a.getFirst()).text() + ", 23)"));
        say(
                "format_timestamp",
                a -> Sql.atom("TRIM(TRAILING '.' FROM TRIM(TRAILING '0' FROM CONVERT(nvarchar(26), "
                        + sql(a.getFirst()).text() + ", 121)))"));
        for (String part : List.of("year", "month", "day", "hour", "minute", "second", "microsecond")) {
            say(
                    part,
                    a -> Sql.atom("DATEPART(" + part + ", " + sql(a.getFirst()).text() + ")"));
        }
        say("week", a -> Sql.atom("DATEPART(iso_week, " + sql(a.getFirst()).text() + ")"));
        say("weekday", a -> new Sql(days("'00010101'", sql(a.getFirst()).text()) + " % 7 + 1", Sql.SUM));
        say(
                "days_between",
                a -> Sql.atom(days(sql(a.get(0)).text(), sql(a.get(1)).text())));
        say("add_days", a -> added("day", a));
        say("add_months", a -> added("month", a));
        say("date_of", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS date)"));
        say("at_midnight", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS datetime2(6))"));
        say(
                "seconds_between",
                a -> new Sql(
                        "DATEDIFF_BIG(microsecond, " + sql(a.get(0)).text() + ", "
                                + sql(a.get(1)).text() + ") / 1000000",
                        Sql.PRODUCT));
        for (String function : List.of("add_seconds", "add_microseconds")) {
            say(function, a -> {
                throw cannot("its DATEADD stops outside the calendar instead of giving null.", "Use another language.");
            });
        }
        say("chr", a -> Sql.call("NCHAR", sql(a.getFirst())));
    }

    @Override
    public String id() {
        return "tsql";
    }

    @Override
    public String title() {
        return "Transact-SQL";
    }

    @Override
    Sql shortest(Expr number, int scale) {
        throw cannot("it has no way to the shortest digits of a floating-point number.", "Use another language.");
    }

    @Override
    TypeNames types() {
        return new TypeNames("nvarchar(max)", "bigint", "float(53)", "bit", "date", "datetime2(6)", "decimal");
    }

    @Override
    boolean namesParts(boolean ofParameters) {
        return false;
    }

    @Override
    RegexWriter regexWriter() {
        return RegexWriter.re2();
    }

    @Override
    boolean tooLong(String name) {
        return name.length() > LONGEST_NAME;
    }

    /// Parameters have a sign before their names.
    @Override
    Map<String, Expr> arguments(Definition fix) {
        Map<String, Expr> names = new HashMap<>();
        fix.parameters()
                .forEach(p ->
                        names.put(p.name().toLowerCase(Locale.ROOT), new Expr.Name(PARAMETER + p.name(), p.type())));
        return names;
    }

    @Override
    public String identifier(String name) {
        return name.startsWith(PARAMETER) ? variable(name.substring(PARAMETER.length())) : super.identifier(name);
    }

    private String variable(String name) {
        if (!name.matches("[A-Za-z_][A-Za-z0-9_]*") || tooLong(name + "@")) {
            throw cannot("a parameter cannot be called " + name + ".", "Use letters, digits and _.");
        }
        return "@" + name;
    }

    /// A default value; it can be no expression.
    private String constant(Expr.Literal literal) {
        return switch (literal.value()) {
            case null -> "NULL";
            case Boolean truth -> truth ? "1" : "0";
            case LocalDate day -> "'" + day + "'";
            case LocalDateTime time -> "'" + Literals.time(time) + "'";
            case BigDecimal number -> number.toPlainString();
            case String text
            when !text(text).startsWith("N'") || text(text).contains(joining()) ->
                throw cannot("a default value cannot be put together.", "Copy it as an expression.");
            default -> sql(literal).text();
        };
    }

    @Override
    String callable(Definition fix) {
        return "dbo." + identifier(fix.name());
    }

    @Override
    String definitionOf(Definition fix, String body) {
        String parameters = parameters(
                fix,
                p -> variable(p.name()) + " " + typeName(p.type())
                        + p.fallback().map(f -> " = " + constant(f)).orElse(""));
        return "CREATE OR ALTER FUNCTION " + callable(fix) + "(" + parameters + ")\nRETURNS " + typeName(fix.returns())
                + "\nAS\nBEGIN\n  RETURN " + Sql.indent(body, 2) + ";\nEND;\nGO\n";
    }

    @Override
    String text(String text) {
        if (text.indexOf('\0') >= 0) {
            throw cannot("a text cannot hold the character U+0000.", "Remove it before, where the data is read.");
        }
        return super.text(text);
    }

    @Override
    String joining() {
        return " + ";
    }

    @Override
    String quoted(String text) {
        return "N" + super.quoted(text);
    }

    @Override
    String character() {
        return "NCHAR";
    }

    @Override
    Sql day(LocalDate day) {
        return Sql.atom("CAST('" + day + "' AS date)");
    }

    @Override
    Sql time(String time) {
        return Sql.atom("CAST('" + time + "' AS datetime2(6))");
    }

    @Override
    Sql literal(@Nullable Object value, Type type) {
        return value instanceof BigDecimal number
                ? Sql.atom("CAST(" + number.toPlainString() + " AS " + typeName(type) + ")")
                : super.literal(value, type);
    }

    @Override
    Sql within64(List<Expr> a, String sign, Sql plain) {
        String wide = "CAST(" + sql(a.get(0)).text() + " AS decimal(38, 0)) " + sign + " "
                + sql(a.get(1)).at(sign.equals("*") ? Sql.PRODUCT + 1 : Sql.SUM + 1);
        return Sql.atom("TRY_CAST(" + wide + " AS bigint)");
    }

    @Override
    java.util.Optional<Sql> tryCast(Sql number, Type type) {
        return java.util.Optional.of(Sql.atom("TRY_CAST(" + number.text() + " AS " + typeName(type) + ")"));
    }

    @Override
    String ceiling() {
        return "CEILING";
    }

    @Override
    Sql exactQuotient(Expr dividend, Expr divisor, int scale) {
        throw cannot("its division cuts digits by the types of both sides.", "Divide in another language.");
    }

    private static Sql exactly(Sql text) {
        return new Sql(text.at(Sql.ATOM) + EXACT, Sql.OTHER);
    }

    private Sql wide(Expr text) {
        return new Sql(sql(text).at(Sql.ATOM) + WIDE, Sql.OTHER);
    }

    private static Sql equal(Sql left, Sql right) {
        return new Sql(whole(left) + " = " + right.at(Sql.SUM) + " + N'.'", Sql.COMPARE);
    }

    /// A text with an end that is no space, as spaces at the end do not count.
    private static String whole(Sql text) {
        return "(" + text.at(Sql.SUM) + " + N'.')" + EXACT;
    }

    @Override
    Sql grouped(Expr.Name column) {
        return column.type() instanceof Type.Text ? new Sql(whole(sql(column)), Sql.OTHER) : super.grouped(column);
    }

    @Override
    Sql sorted(Expr.Name column) {
        if (column.type() instanceof Type.Text) {
            throw cannot("its order of text is not by code point.", "Order by a number or a day.");
        }
        return super.sorted(column);
    }

    private Sql compared(List<Expr> a, String sign) {
        boolean text = a.stream().anyMatch(e -> e.type() instanceof Type.Text);
        if (!text) {
            return Sql.infix(sql(a.get(0)), sign, sql(a.get(1)), Sql.COMPARE);
        }
        return switch (sign) {
            case "=" -> equal(sql(a.get(0)), sql(a.get(1)));
            case "<>" -> new Sql("NOT " + equal(sql(a.get(0)), sql(a.get(1))).at(Sql.NOT), Sql.NOT);
            default ->
                throw cannot(
                        "it fills up the shorter text with spaces before comparing.", "Compare lengths, or use =.");
        };
    }

    private Sql among(List<Expr> a) {
        List<Expr> choices = a.subList(1, a.size()).stream()
                .filter(c -> !(c instanceof Expr.Literal(Object v, Type _) && v == null))
                .toList();
        return choices.stream()
                .map(c -> compared(List.of(a.getFirst(), c), "="))
                .reduce((x, y) -> Sql.infix(x, "OR", y, Sql.OR))
                .map(any -> Sql.atom("(" + any.text() + ")"))
                .orElseGet(() -> new Sql("1 = 0", Sql.COMPARE));
    }

    @Override
    Sql distinct(List<Expr> a, boolean differ) {
        boolean text = a.stream().anyMatch(e -> e.type() instanceof Type.Text);
        if (!text) {
            return super.distinct(a, differ);
        }
        String sign = differ ? " IS DISTINCT FROM " : " IS NOT DISTINCT FROM ";
        String left = whole(sql(a.get(0)));
        return new Sql(left + sign + sql(a.get(1)).at(Sql.SUM) + " + N'.'", Sql.COMPARE);
    }

    @Override
    Sql joined(List<Expr> texts) {
        return texts.stream()
                .map(this::sql)
                .reduce((x, y) -> Sql.infix(x, "+", y, Sql.SUM))
                .orElseThrow();
    }

    @Override
    Sql length(Sql text) {
        return new Sql("LEN((" + text.at(Sql.SUM) + " + N'.')" + WIDE + ") - 1", Sql.SUM);
    }

    @Override
    Sql like(List<Expr> arguments, String operator) {
        LikePattern pattern = LikePattern.of(arguments)
                .orElseThrow(
                        () -> cannot("the pattern comes through a parameter.", "Copy it with the pattern filled in."));
        String written = pattern.write("%", "_", c -> "%_[!".indexOf(c) >= 0 ? "!" + (char) c : Character.toString(c));
        return new Sql(
                exactly(sql(arguments.getFirst())).text() + " " + operator + " " + text(written) + " ESCAPE N'!'",
                Sql.COMPARE);
    }

    private Sql trim(List<Expr> a, String side) {
        String characters = a.size() > 1 ? text(known(a.get(1))) : "N' '";
        return Sql.atom("TRIM(" + side + " " + characters + " FROM "
                + exactly(sql(a.getFirst())).text() + ")");
    }

    private Sql substring(List<Expr> a) {
        Sql length = a.size() > 2 ? sql(a.get(2)) : Sql.atom("2147483647");
        boolean plain = a.size() < 3 || a.get(2) instanceof Expr.Literal(Long n, Type _) && n >= 0;
        if (!plain) {
            throw cannot("its SUBSTRING stops at a negative length.", "Give a length that is a constant.");
        }
        return Sql.call("SUBSTRING", wide(a.get(0)), sql(a.get(1)), length);
    }

    private Sql position(List<Expr> a) {
        if (known(a.get(1)).isEmpty()) {
            return Sql.caseWhen(new Sql(sql(a.get(0)).at(Sql.OTHER) + " IS NOT NULL", Sql.COMPARE), Sql.atom("1"));
        }
        return Sql.call("CHARINDEX", sql(a.get(1)), exactly(wide(a.get(0))));
    }

    private Sql translate(List<Expr> a) {
        boolean sameLength = known(a.get(1)).length() == known(a.get(2)).length();
        if (!sameLength) {
            throw cannot("its TRANSLATE asks for as many characters on both sides.", "Remove the others by replace.");
        }
        return Sql.call("TRANSLATE", exactly(sql(a.get(0))), sql(a.get(1)), sql(a.get(2)));
    }

    private Sql patternText(Expr argument) {
        return Sql.atom(text(regexWriter().write(pattern(argument))));
    }

    private Sql regexpReplace(List<Expr> a) {
        String written = replacement(a.get(2)).stream()
                .map(part -> switch (part) {
                    case Replacement.Plain(String plain) -> plain.replace("\\", "\\\\");
                    case Replacement.GroupOf(int number) -> "\\" + number;
                })
                .collect(Collectors.joining());
        return Sql.call("REGEXP_REPLACE", sql(a.get(0)), patternText(a.get(1)), Sql.atom(text(written)));
    }

    private Sql regexpExtract(List<Expr> a) {
        Sql group = a.size() > 2 ? sql(a.get(2)) : Sql.atom("0");
        return Sql.call(
                "REGEXP_SUBSTR",
                sql(a.get(0)),
                patternText(a.get(1)),
                Sql.atom("1"),
                Sql.atom("1"),
                Sql.atom("N'c'"),
                group);
    }

    private Sql shaped(Expr text, String pattern) {
        return Sql.call("REGEXP_LIKE", sql(text), Sql.atom(text(pattern)));
    }

    private Sql tried(List<Expr> a, String type) {
        return Sql.atom("TRY_CAST(" + sql(a.getFirst()).text() + " AS " + type + ")");
    }

    private Sql toInteger(Sql text) {
        String bare = "TRIM(NCHAR(9) + NCHAR(10) + NCHAR(11) + NCHAR(12) + NCHAR(13) + N' ' FROM " + text.text() + ")";
        String shape = text("^[\\t-\\r ]*[+-]?[0-9]{1,38}[\\t-\\r ]*$");
        return Sql.caseWhen(
                Sql.call("REGEXP_LIKE", text, Sql.atom(shape)),
                Sql.atom("TRY_CAST(TRY_CAST(" + bare + " AS decimal(38, 0)) AS bigint)"));
    }

    private Sql toDecimal(List<Expr> a) {
        throw cannot("its casts cut digits instead of refusing a text.", "Use another language.");
    }

    private static String days(String from, String to) {
        return "DATEDIFF(day, " + from + ", " + to + ")";
    }

    /// Its DATEADD stops outside the calendar; so it is asked first how far away its ends are.
    private Sql added(String unit, List<Expr> a) {
        String count = sql(a.get(1)).text();
        String from = "DATEDIFF(" + unit + ", " + sql(a.get(0)).text() + ", CAST('0001-01-01' AS date))";
        String to = "DATEDIFF(" + unit + ", " + sql(a.get(0)).text() + ", CAST('9999-12-31' AS date))";
        Sql within = Sql.atom(count + " BETWEEN " + from + " AND " + to);
        return Sql.caseWhen(
                within,
                Sql.atom("DATEADD(" + unit + ", " + count + ", " + sql(a.get(0)).text() + ")"));
    }

    @Override
    String listed(String text, String separator, String place) {
        return "STRING_AGG(" + text + ", " + text(separator) + ") WITHIN GROUP (ORDER BY " + place + ")";
    }
}
