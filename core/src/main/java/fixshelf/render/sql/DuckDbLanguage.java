package fixshelf.render.sql;

import fixshelf.language.emulation.Untouched;
import fixshelf.language.pattern.Replacement;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.render.RegexWriter;
import fixshelf.render.TypeNames;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/// DuckDB: the engine of previews and runs.
public final class DuckDbLanguage extends SqlLanguage {
    private static final String BLANKS = "[\\t-\\r ]*";
    private static final String TIME =
            "[0-9]{4}-[0-9]{2}-[0-9]{2} ([01][0-9]|2[0-3]):[0-5][0-9]:[0-5][0-9]([.][0-9]{1,6})?";

    public DuckDbLanguage() {
        say("trim", a -> trim("trim", a));
        say("ltrim", a -> trim("ltrim", a));
        say("rtrim", a -> trim("rtrim", a));
        say("upper", a -> upper(sql(a.getFirst())));
        say("position", a -> Sql.call("instr", all(a)));
        say("ends_with", a -> Sql.call("ends_with", all(a)));
        say("contains", a -> Sql.call("contains", all(a)));
        say("regexp_replace", this::regexpReplace);
        say("regexp_like", a -> Sql.call("regexp_matches", sql(a.get(0)), patternText(a.get(1))));
        say("regexp_extract", this::regexpExtract);
        say("to_integer", a -> toNumber(a.getFirst(), "[+-]?[0-9]{1,38}", "BIGINT"));
        say("approximate", a -> approximate(a.getFirst()));
        say("to_decimal", a -> toDecimal(a));
        say(
                "to_date",
                a -> Sql.caseWhen(
                        Sql.atom(
                                "regexp_full_match(" + sql(a.getFirst()).text() + ", '[0-9]{4}-[0-9]{2}-[0-9]{2}') AND "
                                        + Sql.call("left", sql(a.getFirst()), Sql.atom("4"))
                                                .text() + " <> '0000'"),
                        Sql.atom("try_cast(" + sql(a.getFirst()).text() + " AS DATE)")));
        say("format_date", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS VARCHAR)"));
        say("year", a -> Sql.call("year", all(a)));
        say("month", a -> Sql.call("month", all(a)));
        say("day", a -> Sql.call("day", all(a)));
        say("weekday", a -> Sql.call("isodow", all(a)));
        say(
                "add_days",
                a -> known(
                        List.of(a.get(1)),
                        inCalendar(Sql.infix(
                                sql(a.get(0)),
                                "+",
                                Sql.atom("CAST(" + days(a.get(1)).text() + " AS INTEGER)"),
                                Sql.OTHER))));
        say("days_between", a -> Sql.infix(sql(a.get(1)), "-", sql(a.get(0)), Sql.OTHER));
        say(
                "reverse",
                a -> Sql.atom("array_to_string(list_reverse(regexp_extract_all("
                        + sql(a.getFirst()).text() + ", '(?s).')), '')"));
        say("initcap", a -> initcap(sql(a.getFirst()).text()));
        SqlParts.addTo(this, this::sortedParts, this::uniqueParts);
        say("normalize", a -> Sql.call("nfc_normalize", all(a)));
        say("week", a -> Sql.call("week", all(a)));
        say(
                "add_months",
                a -> known(
                        List.of(a.get(1)),
                        inCalendar(Sql.atom("CAST(" + sql(a.get(0)).at(Sql.SUM) + " + to_months(CAST("
                                + months(a.get(1)).text() + " AS INTEGER)) AS DATE)"))));
        say(
                "to_timestamp",
                a -> Sql.caseWhen(
                        Sql.atom("regexp_full_match(" + sql(a.getFirst()).text() + ", '" + TIME + "') AND "
                                + Sql.call("left", sql(a.getFirst()), Sql.atom("4"))
                                        .text() + " <> '0000'"),
                        Sql.atom("try_cast(" + sql(a.getFirst()).text() + " AS TIMESTAMP)")));
        say("format_timestamp", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS VARCHAR)"));
        say("date_of", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS DATE)"));
        say("at_midnight", a -> Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS TIMESTAMP)"));
        for (String part : List.of("hour", "minute", "second")) {
            say(part, a -> Sql.call(part, all(a)));
        }
        say("add_seconds", a -> later(a, Sql.call("to_seconds", seconds(a.get(1)))));
        say("microsecond", a -> Sql.infix(Sql.call("microsecond", all(a)), "%", Sql.atom("1000000"), Sql.PRODUCT));
        say("add_microseconds", a -> later(a, Sql.call("to_microseconds", micros(a.get(1)))));
        say("seconds_between", a -> Sql.call("date_sub", Sql.atom("'second'"), sql(a.get(0)), sql(a.get(1))));
        say("chr", a -> Sql.call("chr", Sql.atom("CAST(" + sql(a.getFirst()).text() + " AS INTEGER)")));
    }

    /// A missing value of that type.
    public String missing(Type type) {
        return "CAST(NULL AS " + typeName(type) + ")";
    }

    @Override
    public String id() {
        return "duckdb";
    }

    @Override
    public String title() {
        return "DuckDB";
    }

    /// Its replacements are slow beside its searches.
    @Override
    Sql finished(Expr expr) {
        return sql(Untouched.tested(expr));
    }

    /// Its columns are worked out once wherever they stand, so only long parts are worth a name.
    @Override
    int longPart() {
        return 3_000;
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
                        .map(e -> e.getKey() + " := " + e.getValue())
                        .collect(Collectors.joining(", ", "struct_pack(", ")")),
                "[%s]",
                "list_transform(%1$s, lambda %2$s: %3$s)");
        return Sql.atom(made.text() + "[1]");
    }

    @Override
    Sql within64(List<Expr> a, String sign, Sql plain) {
        String wide = "CAST(" + sql(a.get(0)).text() + " AS HUGEINT) " + sign + " "
                + sql(a.get(1)).at(sign.equals("*") ? Sql.PRODUCT + 1 : Sql.SUM + 1);
        return Sql.atom("try_cast(" + wide + " AS BIGINT)");
    }

    @Override
    TypeNames types() {
        return new TypeNames("VARCHAR", "BIGINT", "DOUBLE", "BOOLEAN", "DATE", "TIMESTAMP", "DECIMAL");
    }

    @Override
    RegexWriter regexWriter() {
        return RegexWriter.re2();
    }

    @Override
    String definitionOf(Definition fix, String body) {
        String parameters = parameters(
                fix,
                p -> identifier(p.name())
                        + p.fallback().map(f -> " := " + sql(f).text()).orElse(""));
        return "CREATE OR REPLACE MACRO " + callable(fix) + "(" + parameters + ") AS\n  " + Sql.indent(body, 2) + ";\n";
    }

    private Sql trim(String function, List<Expr> a) {
        return Sql.call(function, sql(a.get(0)), a.size() > 1 ? sql(a.get(1)) : Sql.atom("' '"));
    }

    /// The engine makes ß a capital ẞ; Unicode's simple mapping leaves it. The parts between are mapped one by one.
    private static Sql upper(Sql text) {
        return Sql.caseWhen(
                Sql.call("contains", text, Sql.atom("'ß'")),
                Sql.atom("array_to_string(list_transform(string_split(" + text.text()
                        + ", 'ß'), lambda part: upper(part)), 'ß')"),
                Sql.call("upper", text));
    }

    private Sql patternText(Expr argument) {
        return Sql.atom(text(regexWriter().write(pattern(argument))));
    }

    private Sql regexpReplace(List<Expr> a) {
        String replacement = replacement(a.get(2)).stream()
                .map(part -> switch (part) {
                    case Replacement.Plain(String plain) -> plain.replace("\\", "\\\\");
                    case Replacement.GroupOf(int number) -> "\\" + number;
                })
                .collect(Collectors.joining());
        return Sql.call(
                "regexp_replace", sql(a.get(0)), patternText(a.get(1)), Sql.atom(text(replacement)), Sql.atom("'g'"));
    }

    private Sql regexpExtract(List<Expr> a) {
        Sql matches = Sql.call("regexp_matches", sql(a.get(0)), patternText(a.get(1)));
        Sql group = a.size() > 2 ? sql(a.get(2)) : Sql.atom("0");
        return Sql.caseWhen(matches, Sql.call("regexp_extract", sql(a.get(0)), patternText(a.get(1)), group));
    }

    private Sql toNumber(Expr text, String shape, String type) {
        String pattern = "regexp_full_match(%s, '" + BLANKS + shape + BLANKS + "')";
        return SqlNumbers.cast(this, text, pattern, "try_cast(" + sql(text).text() + " AS " + type + ")");
    }

    /// Its own way from exact numbers rounds twice where there are more than 15 digits.
    private Sql approximate(Expr number) {
        String digits = number.type() instanceof Type.Decimal
                ? cast(sql(number).text(), Type.TEXT)
                : sql(number).text();
        return Sql.atom(cast(digits, Type.NUMBER));
    }

    private Sql toDecimal(List<Expr> a) {
        Type type = new Expr.Call(
                        fixshelf.language.catalogue.Functions.find("to_decimal").orElseThrow(), a)
                .type();
        String text = sql(a.getFirst()).text();
        Sql shape = Sql.atom("length(" + text + ") <= 100 AND regexp_full_match(" + text + ", '" + BLANKS
                + "[+-]?([0-9]+([.][0-9]*)?|[.][0-9]+)" + BLANKS + "')");
        return Sql.caseWhen(shape, Sql.atom("try_cast(" + text + " AS " + typeName(type) + ")"));
    }

    /// Its results keep to the width of what goes in, and stop beyond.
    @Override
    Sql widened(Expr left, Type.Decimal result) {
        if (result.precision() <= 18) {
            return sql(left);
        }
        int scale = left.type() instanceof Type.Decimal(int _, int own) ? own : 0;
        return Sql.atom(cast(sql(left).text(), new Type.Decimal(result.precision(), scale)));
    }

    /// A result that is taken for wider than it is leaves others no room for the digits after their point.
    @Override
    Sql ofType(Sql result, Type.Decimal type) {
        return type.precision() <= 18 ? result : Sql.atom(cast(result.text(), type));
    }

    @Override
    String quotient(String dividend, String divisor) {
        return dividend + " // " + divisor;
    }

    /// Its own division of exact numbers goes through inexact ones.
    @Override
    Sql exactQuotient(Expr dividend, Expr divisor, int scale) {
        String units = SqlNumbers.roundedQuotient(this, dividend, divisor, scale, "HUGEINT")
                .text();
        String unit = scale == 0 ? "" : " * 0." + "0".repeat(scale - 1) + "1";
        return Sql.atom("try_cast(" + units + " AS DECIMAL(19, 0))" + unit);
    }

    @Override
    Optional<Sql> tryCast(Sql number, Type type) {
        return Optional.of(Sql.atom("try_cast(" + number.text() + " AS " + typeName(type) + ")"));
    }

    @Override
    Sql part(Expr text, Expr separator, long number) {
        return Sql.atom(
                "string_split(" + sql(text).text() + ", " + sql(separator).text() + ")[" + number + "]");
    }

    private Sql sortedParts(String text, String separator) {
        String sign = text(separator);
        return Sql.atom("array_to_string(list_sort(string_split(" + text + ", " + sign + ")), " + sign + ")");
    }

    private Sql uniqueParts(String text, String separator) {
        String sign = text(separator);
        String parts = "string_split(" + text + ", " + sign + ")";
        return Sql.atom("array_to_string(list_filter(" + parts + ",\n  lambda part, place: list_position(" + parts
                + ", part) = place), " + sign + ")");
    }

    /// Runs of letters and digits, and what stands between them, one after the other.
    private Sql initcap(String text) {
        String head = "substr(w, 1, 1)";
        String capital = "CASE WHEN " + head + " = 'ß' THEN 'ß' ELSE upper(" + head + ") END";
        return Sql.atom("array_to_string(list_transform(regexp_extract_all(" + text
                + ", '" + WORD_PATTERN
                + "|[^\\p{L}\\p{Nd}]+'),\n  lambda w: CASE WHEN regexp_matches(w, '^[\\p{L}\\p{Nd}]') THEN "
                + capital + " || lower(substr(w, 2)) ELSE w END), '')");
    }

    /// So it is still a join by hashed keys.
    @Override
    String sameOrMissing(String left, String right) {
        return left + " IS NOT DISTINCT FROM " + right;
    }
}
