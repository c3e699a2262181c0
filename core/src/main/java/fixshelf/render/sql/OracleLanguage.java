package fixshelf.render.sql;

import fixshelf.language.pattern.LikePattern;
import fixshelf.language.pattern.Regex;
import fixshelf.language.pattern.Regexes;
import fixshelf.language.pattern.Replacement;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.render.RegexWriter;
import fixshelf.render.TakenNames;
import fixshelf.render.TypeNames;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// Oracle's SQL as its documentation of version 19 and later has it, in a database with UTF-8 text. Not run here.
///
/// It has no empty text: what is or becomes empty is null. A call whose answer for the empty text is another one than
/// for null is refused; in the others the empty text is null before and after.
public final class OracleLanguage extends DocumentedSql {
    private static final Set<String> TELL_EMPTY = Set.of(
            "||",
            "concat",
            "concat_ws",
            "length",
            "position",
            "starts_with",
            "ends_with",
            "contains",
            "split_part",
            "part_count",
            "regexp_extract",
            "remove_prefix",
            "remove_suffix",
            "left",
            "right");
    private static final String BLANKS = "[[:space:]]*";
    private static final int LONGEST_NAME = 128;

    public OracleLanguage() {
        TELL_EMPTY.forEach(f -> say(f, a -> {
            throw noEmptyText(f);
        }));
        for (String function : List.of("coalesce", "nullif", "IS NULL", "IS DISTINCT FROM", "IN", "=", "<>")) {
            Form usual = form(function);
            say(function, a -> {
                boolean text = a.stream().anyMatch(e -> e.type() instanceof Type.Text);
                if (text && !isPlain(function, a)) {
                    throw noEmptyText(function);
                }
                return usual.write(a);
            });
        }
        say("trim", a -> Sql.call("LTRIM", Sql.call("RTRIM", trimmed(a)), characters(a)));
        say("ltrim", a -> Sql.call("LTRIM", trimmed(a)));
        say("rtrim", a -> Sql.call("RTRIM", trimmed(a)));
        say("upper", a -> Sql.call("UPPER", all(a)));
        say("lower", a -> Sql.call("LOWER", all(a)));
        say("substring", this::substring);
        say("repeat", a -> {
            throw noEmptyText("repeat");
        });
        say("replace", a -> Sql.call("REPLACE", sql(a.get(0)), orNull(a.get(1)), orNull(a.get(2))));
        say("translate", this::translate);
        say("reverse", a -> {
            throw cannot("its REVERSE is not documented.", "Use another language.");
        });
        SqlParts.refuse(this);
        say("initcap", a -> {
            throw cannot("its INITCAP has other words.", "Use another language.");
        });
        say("regexp_replace", this::regexpReplace);
        say("regexp_like", a -> Sql.call("REGEXP_LIKE", sql(a.get(0)), patternText(a.get(1)), Sql.atom("'c'")));
        say("to_integer", a -> {
            Sql number = read(a.getFirst(), "[+-]?[0-9]{1,38}");
            return Sql.caseWhen(
                    Sql.atom(number.text() + " BETWEEN -9223372036854775808 AND 9223372036854775807"), number);
        });
        say("to_decimal", a -> {
            Sql number = read(a.getFirst(), "[+-]?([0-9]+([.][0-9]*)?|[.][0-9]+)");
            int scale = a.size() > 1 ? scale(a) : 4;
            String rounded = "ROUND(" + number.text() + ", " + scale + ")";
            return Sql.caseWhen(Sql.atom("ABS(" + rounded + ") < 1" + "0".repeat(18 - scale)), Sql.atom(rounded));
        });
        say("to_text", a -> {
            boolean whole = !(a.getFirst().type() instanceof Type.Decimal);
            if (whole) {
                return Sql.call("TO_CHAR", sql(a.getFirst()));
            }
            throw cannot("its TO_CHAR leaves out zeros.", "Keep the number as text.");
        });
        say("to_date", a -> read(a, "^[0-9]{4}-[0-9]{2}-[0-9]{2}$", "TO_DATE", "FXYYYY-MM-DD"));
        say(
                "to_timestamp",
                a -> read(
                        a,
                        "^[0-9]{4}-[0-9]{2}-[0-9]{2} [0-9]{2}:[0-9]{2}:[0-9]{2}([.][0-9]{1,6})?$",
                        "TO_TIMESTAMP",
                        "FXYYYY-MM-DD HH24:MI:SS.FF6"));
        say("format_date", a -> Sql.call("TO_CHAR", sql(a.getFirst()), Sql.atom("'YYYY-MM-DD'")));
        say(
                "format_timestamp",
                a -> Sql.atom("RTRIM(RTRIM(TO_CHAR(" + sql(a.getFirst()).text()
                        + ", 'YYYY-MM-DD HH24:MI:SS.FF6'), '0'), '.')"));
        say(
                "second",
                a -> Sql.atom("FLOOR(EXTRACT(SECOND FROM " + sql(a.getFirst()).text() + "))"));
        say(
                "microsecond",
                a -> Sql.atom("TO_NUMBER(TO_CHAR(" + sql(a.getFirst()).text() + ", 'FF6'))"));
        for (String part : List.of("year", "month", "day", "hour", "minute")) {
            say(
                    part,
                    a -> Sql.atom("EXTRACT(" + part.toUpperCase(java.util.Locale.ROOT) + " FROM "
                            + sql(a.getFirst()).text() + ")"));
        }
        say(
                "weekday",
                a -> new Sql(
                        "TRUNC(" + sql(a.getFirst()).text() + ") - TRUNC("
                                + sql(a.getFirst()).text() + ", 'IW') + 1",
                        Sql.SUM));
        say("week", a -> Sql.atom("TO_NUMBER(TO_CHAR(" + sql(a.getFirst()).text() + ", 'IW'))"));
        say("days_between", a -> Sql.infix(sql(a.get(1)), "-", sql(a.get(0)), Sql.SUM));
        say("add_days", a -> {
            String count = sql(a.get(1)).at(Sql.OTHER);
            String from = " BETWEEN DATE '0001-01-01' - " + sql(a.get(0)).at(Sql.SUM + 1);
            String to = " AND DATE '9999-12-31' - " + sql(a.get(0)).at(Sql.SUM + 1);
            return Sql.caseWhen(Sql.atom(count + from + to), Sql.infix(sql(a.get(0)), "+", sql(a.get(1)), Sql.SUM));
        });
        say("add_months", a -> {
            throw cannot("its ADD_MONTHS goes from a last day to a last day.", "Use another language.");
        });
        say("date_of", a -> Sql.atom("TRUNC(CAST(" + sql(a.getFirst()).text() + " AS DATE))"));
        say("at_midnight", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS TIMESTAMP(6))"));
        for (String function : List.of("add_seconds", "add_microseconds", "seconds_between")) {
            say(function, a -> {
                throw cannot("its intervals of seconds end at 9 digits of days.", "Use another language.");
            });
        }
        say("mod", a -> Sql.caseWhen(Sql.atom(sql(a.get(1)).at(Sql.OTHER) + " <> 0"), Sql.call("MOD", all(a))));
        say("chr", a -> Sql.call("NCHR", sql(a.getFirst())));
    }

    @Override
    Sql sorted(Expr.Name column) {
        return column.type() instanceof Type.Text
                ? Sql.call("NLSSORT", sql(column), Sql.atom("'NLS_SORT=BINARY'"))
                : super.sorted(column);
    }

    @Override
    public String id() {
        return "oracle";
    }

    @Override
    public String title() {
        return "Oracle SQL";
    }

    /// Comparing with a constant that is not empty is clear for every text but the empty one, where null is as good
    /// as false.
    private static boolean isPlain(String function, List<Expr> a) {
        boolean constants =
                a.stream().skip(1).allMatch(e -> e instanceof Expr.Literal(String text, Type _) && !text.isEmpty());
        return constants && (function.equals("=") || function.equals("IN") || function.equals("nullif"));
    }

    private fixshelf.problem.ProblemException noEmptyText(String function) {
        return cannot(
                "it has no empty text, and the answer of " + function + " for it is another one than for null.",
                "Use another language.");
    }

    @Override
    Sql approximate(String digits) {
        return SqlSyntax.number(digits + "d");
    }

    @Override
    Sql shortest(Expr number, int scale) {
        throw cannot("it has no way to the shortest digits of a floating-point number.", "Use another language.");
    }

    @Override
    TypeNames types() {
        return new TypeNames(
                "VARCHAR2(4000 CHAR)", "NUMBER(19)", "BINARY_DOUBLE", "NUMBER(1)", "DATE", "TIMESTAMP(6)", "NUMBER");
    }

    /// An inner query two levels down cannot use a column from outside.
    @Override
    boolean namesParts(boolean ofParameters) {
        return false;
    }

    @Override
    RegexWriter regexWriter() {
        return RegexWriter.posix();
    }

    @Override
    Regex pattern(Expr argument) {
        Regex regex = super.pattern(argument);
        if (Regexes.hasBoundary(regex)) {
            throw cannot(
                    "its patterns look neither back nor ahead, so they do not know where a word ends.",
                    "Write what stands around the word, such as (^|[^a-z]) before it.");
        }
        return regex;
    }

    @Override
    boolean tooLong(String name) {
        return name.length() > LONGEST_NAME;
    }

    /// A scalar SQL macro, of version 21 and later: the expression is put in place of the call.
    /// Its functions are much the same; one name too many does no harm.
    @Override
    TakenNames taken() {
        return TakenNames.of(getClass(), "mariadb", true);
    }

    @Override
    String definitionOf(Definition fix, String body) {
        String parameters = parameters(
                fix,
                p -> identifier(p.name()) + " " + bareName(p.type())
                        + p.fallback()
                                .map(f -> " DEFAULT " + finished(f).text())
                                .orElse(""));
        String sign = Stream.of("~", "!", "^", "|", "#")
                .filter(s -> !body.contains(s + "'"))
                .findFirst()
                .orElseThrow(() -> cannot("no sign is left to quote it with.", "Copy it as an expression."));
        return "CREATE OR REPLACE FUNCTION " + callable(fix) + "(" + parameters + ")\nRETURN "
                + bareName(fix.returns()) + " SQL_MACRO(SCALAR) IS\nBEGIN\n  RETURN q'" + sign + Sql.indent(body, 2)
                + sign + "';\nEND;\n/\n";
    }

    /// A type of a parameter or a result has no length there.
    private String bareName(Type type) {
        return typeName(type).replaceFirst("\\(.*", "");
    }

    @Override
    String text(String text) {
        if (text.isEmpty()) {
            throw noEmptyText("a constant");
        }
        return super.text(text);
    }

    @Override
    String character() {
        return "NCHR";
    }

    @Override
    Sql literal(@Nullable Object value, Type type) {
        return value instanceof BigDecimal number && number.signum() < 0
                ? new Sql(number.toPlainString(), Sql.OTHER)
                : super.literal(value, type);
    }

    @Override
    Sql within64(List<Expr> a, String sign, Sql plain) {
        return Sql.caseWhen(Sql.atom(plain.text() + " BETWEEN -9223372036854775808 AND 9223372036854775807"), plain);
    }

    @Override
    String quotient(String dividend, String divisor) {
        return "TRUNC(" + dividend + " / " + divisor + ")";
    }

    @Override
    Sql exactQuotient(Expr dividend, Expr divisor, int scale) {
        Sql plain = Sql.infix(sql(dividend), "/", sql(divisor), Sql.PRODUCT);
        return Sql.call("ROUND", plain, Sql.atom(String.valueOf(scale)));
    }

    private String orNullText(Expr argument) {
        return known(argument).isEmpty() ? "NULL" : text(known(argument));
    }

    private Sql orNull(Expr argument) {
        return Sql.atom(orNullText(argument));
    }

    private Sql characters(List<Expr> a) {
        return a.size() > 1 ? Sql.atom(text(known(a.get(1)))) : Sql.atom("' '");
    }

    private Sql[] trimmed(List<Expr> a) {
        return new Sql[] {sql(a.getFirst()), characters(a)};
    }

    private Sql substring(List<Expr> a) {
        boolean plain = a.stream().skip(1).allMatch(e -> e instanceof Expr.Literal(Long n, Type _) && n >= 1);
        if (!plain) {
            throw cannot("its SUBSTR counts from the end below 1.", "Give places that are constants from 1.");
        }
        return Sql.call("SUBSTR", all(a));
    }

    private Sql translate(List<Expr> a) {
        String from = known(a.get(1));
        // A first character that is itself: with nothing to become, all would be null.
        return Sql.call(
                "TRANSLATE",
                sql(a.get(0)),
                Sql.atom(text("\u0001" + from)),
                Sql.atom(text("\u0001" + known(a.get(2)))));
    }

    private String writtenPattern(Expr argument) {
        Regex regex = pattern(argument);
        String written = regexWriter().write(regex);
        boolean escapes = written.matches("(?s).*\\[[^\\]]*\\\\.*") || written.contains("\\u");
        if (escapes || !Regexes.sameForLongestMatch(regex)) {
            throw cannot(
                    "its patterns have no escapes inside sets, and find the longest of several alternatives.",
                    "Write a plainer pattern.");
        }
        return written;
    }

    private Sql patternText(Expr argument) {
        return Sql.atom(text(writtenPattern(argument)));
    }

    private Sql regexpReplace(List<Expr> a) {
        String written = replacement(a.get(2)).stream()
                .map(part -> switch (part) {
                    case Replacement.Plain(String plain) -> plain.replace("\\", "\\\\");
                    case Replacement.GroupOf(int number) -> "\\" + number;
                })
                .collect(Collectors.joining());
        boolean whole = written.contains("\\0");
        if (whole) {
            throw cannot("it has no sign for the whole match.", "Put the pattern in ( ) and write \\1.");
        }
        Sql replacement = Sql.atom(written.isEmpty() ? "NULL" : text(written));
        return Sql.call(
                "REGEXP_REPLACE",
                sql(a.get(0)),
                patternText(a.get(1)),
                replacement,
                Sql.atom("1"),
                Sql.atom("0"),
                Sql.atom("'c'"));
    }

    @Override
    Sql like(List<Expr> arguments, String operator) {
        LikePattern pattern = LikePattern.of(arguments)
                .orElseThrow(
                        () -> cannot("the pattern comes through a parameter.", "Copy it with the pattern filled in."));
        String written = pattern.write("%", "_", c -> "%_!".indexOf(c) >= 0 ? "!" + (char) c : Character.toString(c));
        return new Sql(
                sql(arguments.getFirst()).at(Sql.OTHER) + " " + operator + " " + text(written) + " ESCAPE '!'",
                Sql.COMPARE);
    }

    private Sql read(Expr text, String shape) {
        String said = "REGEXP_LIKE(" + sql(text).text() + ", '^" + BLANKS + shape + BLANKS + "$', 'c')";
        String bare = "REGEXP_REPLACE(" + sql(text).text() + ", '[[:space:]]', NULL)";
        return Sql.caseWhen(Sql.atom(said), Sql.atom("TO_NUMBER(" + bare + " DEFAULT NULL ON CONVERSION ERROR)"));
    }

    private Sql read(List<Expr> a, String shape, String function, String layout) {
        String text = sql(a.getFirst()).text();
        Sql said = Sql.atom("REGEXP_LIKE(" + text + ", '" + shape + "') AND SUBSTR(" + text + ", 1, 4) <> '0000'");
        String whole = layout.endsWith("FF6")
                ? "RPAD(" + text + " || CASE WHEN LENGTH(" + text + ") = 19 THEN '.' END, 26, '0')"
                : text;
        return Sql.caseWhen(
                said, Sql.atom(function + "(" + whole + " DEFAULT NULL ON CONVERSION ERROR, '" + layout + "')"));
    }

    @Override
    String listed(String text, String separator, String place) {
        return "LISTAGG(" + text + ", " + text(separator) + ") WITHIN GROUP (ORDER BY " + place + ")";
    }
}
