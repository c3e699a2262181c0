package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.language.checking.BodyParser;
import fixshelf.language.checking.ExpressionParser;
import fixshelf.language.checking.Scope;
import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// What people need done to values, by the numbers of the acceptance list: input, then output, in every language.
public class ValueNeedsTest {
    /// One need: the parameters, the body of a fix, and lines of `arguments -> result`.
    record Need(String id, String parameters, String body, List<String> lines) {}

    private static Need text(String id, String body, String... lines) {
        return new Need(id, "s text", body, List.of(lines));
    }

    private static Need need(String id, String parameters, String body, String... lines) {
        return new Need(id, parameters, body, List.of(lines));
    }

    private static final String THREE = "a text, b text, c text";

    private static final List<Need> NEEDS = List.of(
            // Ends, sets of characters, prefixes, leading zeros, inner runs
            text("E1", "trim(s)", "'  a b  ' -> 'a b'", "'   ' -> ''", "'' -> ''", "NULL -> NULL"),
            text("E1", "ltrim(s)", "'  a b  ' -> 'a b  '"),
            text("E1", "rtrim(s)", "'  a b  ' -> '  a b'"),
            text(
                    "E1",
                    "trim(s, U&' \\0009\\000A\\000D\\00A0')",
                    "U&'\\0009\\00A0a b\\000D\\000A' -> 'a b'",
                    "U&'\\00A0' -> ''"),
            text("E2", "ltrim(s, ':*')", "':*:ab:c' -> 'ab:c'", "'::**' -> ''", "'ab:' -> 'ab:'"),
            text("E2", "ltrim(s, '4')", "'447 Elm' -> '7 Elm'"),
            text("E2", "ltrim(s, 'B')", "'Bale' -> 'ale'", "'bale' -> 'bale'", "'Moss' -> 'Moss'"),
            text("E2", "trim(s, '-')", "'--x-y--' -> 'x-y'"),
            text("E2", "rtrim(ltrim(s, '-'), '-')", "'--x-y--' -> 'x-y'"),
            text("E2b", "remove_prefix(s, 'AB')", "'ABBA' -> 'BA'", "'BABA' -> 'BABA'"),
            text("E2b", "remove_suffix(s, 'BA')", "'ABBA' -> 'AB'", "'BA' -> ''"),
            text("E2b", "ltrim(s, 'AB')", "'ABBA' -> ''"),
            text("E3", "ltrim(s, '0')", "'00120' -> '120'", "'000' -> ''", "'0a0' -> 'a0'"),
            text(
                    "E3",
                    "CASE WHEN regexp_like(s, '^0+$') THEN '0' ELSE ltrim(s, '0') END",
                    "'00120' -> '120'",
                    "'000' -> '0'"),
            text("E4", "regexp_replace(s, ' +', ' ')", "'a   b' -> 'a b'", "'a" + " ".repeat(100) + "b' -> 'a b'"),
            text(
                    "E5",
                    "SET one = regexp_replace(s, ' +', ' '); RETURN trim(one);",
                    "'  a    b ' -> 'a b'",
                    "'a b' -> 'a b'",
                    "'' -> ''",
                    "' ' -> ''",
                    "NULL -> NULL"),
            // Replacing
            text("E6", "replace(s, '<', '')", "'<a<b' -> 'ab'"),
            text("E6", "replace(s, '.*', '+')", "'a.*b.' -> 'a+b.'"),
            text("E6", "replace_any_case(s, 'no', 'yes')", "'No, NO, none' -> 'yes, yes, yesne'"),
            text("E7", "replace_each(s, MAP['a', 'b', 'b', 'c'])", "'ab' -> 'cc'"),
            text("E7", "replace_each(s, MAP['b', 'c', 'a', 'b'])", "'ab' -> 'bc'"),
            text("E8", "regexp_replace(s, '[\\r\\n]+', '')", "U&'\\000A\\000A\\000Aa\\000A' -> 'a'"),
            text("E8", "trim(regexp_replace(s, '[\\r\\n]+', ' '))", "U&'a\\000D\\000Ab\\000Dc\\000A' -> 'a b c'"),
            text(
                    "E9",
                    "regexp_replace(s, '^([0-9]+) *items?$', '\\1')",
                    "'12 items' -> '12'",
                    "'1 item' -> '1'",
                    "'3items' -> '3'",
                    "'items' -> 'items'"),
            text("E10", "regexp_replace(s, '^,', '')", "',a,b' -> 'a,b'", "'a,b' -> 'a,b'", "',,a' -> ',a'"),
            text("E10", "regexp_replace(s, '''|\"', '')", "'it''s \"so\"' -> 'its so'"),
            text("E11", "regexp_like(s, '[0-9]')", "'a1' -> TRUE", "'a' -> FALSE", "NULL -> NULL"),
            text("E11", "regexp_extract(s, '[0-9]+')", "'a12b3' -> '12'", "'ab' -> NULL"),
            text("E11", "regexp_extract(s, '([a-z]+)-([0-9]+)', 2)", "'ab-12' -> '12'", "'ab' -> NULL"),
            text(
                    "E12",
                    "text_between(s, 'rate:', '/')",
                    "'rate:4/5' -> '4'",
                    "'rate:4' -> NULL",
                    "'4/5' -> NULL",
                    "'rate:/' -> ''"),
            // Separated lists
            text(
                    "E13",
                    "remove_part(s, ',', 'zz')",
                    "'zz,a' -> 'a'",
                    "'a,zz,b,zz' -> 'a,b'",
                    "'zz,zz' -> ''",
                    "'azz,1zz,zz' -> 'azz,1zz'",
                    "'zzq,b' -> 'zzq,b'",
                    "'a,b' -> 'a,b'",
                    "NULL -> NULL"),
            text("E13", "nullif(remove_part(s, ',', 'zz'), '')", "'zz,zz' -> NULL", "'a' -> 'a'"),
            text("E13", "remove_part(replace(s, ', ', ','), ',', 'zz')", "'a, zz, b' -> 'a,b'"),
            text("E14", "drop_empty_parts(s, ',')", "',a,,b,' -> 'a,b'", "',,' -> ''", "'a' -> 'a'"),
            text("C10", "first_parts(s, ',', 2)", "'a,b,c' -> 'a,b'", "'a' -> 'a'"),
            text("C10", "skip_parts(s, ',', 1)", "'a,b,c' -> 'b,c'", "'a' -> ''"),
            text("C10", "skip_parts_in(s, ',', ARRAY['', '-'])", "',-,a,-,b' -> 'a,-,b'", "'-' -> ''"),
            text("C10", "keep_parts(s, ',', ARRAY['a', 'ab'])", "'ab,b,a,abc' -> 'ab,a'", "'b' -> ''"),
            text("C10", "remove_parts(s, ',', ARRAY['a', 'b'])", "'a,c,b,a' -> 'c'", "'ab' -> 'ab'"),
            text("C10", "part_count(s, ',')", "'a,b,c' -> 3", "'' -> 1"),
            need(
                    "C10",
                    "d date",
                    "d IN (date_range(DATE '2026-12-30', DATE '2027-01-02'))",
                    "DATE '2026-12-29' -> FALSE",
                    "DATE '2026-12-30' -> TRUE",
                    "DATE '2027-01-02' -> TRUE",
                    "DATE '2027-01-03' -> FALSE",
                    "NULL -> NULL"),
            // Signs, joining, markup, folding
            text("E15", "regexp_replace(s, '[^\\p{L}\\p{N} ]', '')", "'J#o D!oe' -> 'Jo Doe'", "'Zoë_1' -> 'Zoë1'"),
            text("E15", "regexp_replace(s, '[^\\p{L}\\p{N}_.@-]', '')", "'a b_c.d-e@f!' -> 'ab_c.d-e@f'"),
            text("E16", "replace(s, ',', '')", "'12,345' -> '12345'", "'12.5' -> '12.5'", "'-3' -> '-3'"),
            text("E17", "'#' || s", "'25' -> '#25'", "'' -> '#'", "NULL -> NULL"),
            text("E17", "CASE WHEN s <> '' THEN '#' || s ELSE s END", "'25' -> '#25'", "'' -> ''", "NULL -> NULL"),
            need(
                    "E18",
                    THREE,
                    "concat_ws(' ', a, b, c)",
                    "'A', NULL, 'C' -> 'A C'",
                    "NULL, NULL, NULL -> NULL",
                    "'A', '', 'C' -> 'A  C'"),
            need(
                    "E18",
                    THREE,
                    "concat_ws(' ', nullif(a, ''), nullif(b, ''), nullif(c, ''))",
                    "'A', '', 'C' -> 'A C'",
                    "'', '', '' -> NULL"),
            text(
                    "E19",
                    "replace_each(s, MAP['&lt;', '<', '&gt;', '>', '&amp;', '&'])",
                    "'a &lt; b &amp; c' -> 'a < b & c'",
                    "'&amp;lt;' -> '&lt;'"),
            need(
                    "E22",
                    "a text, b text",
                    "lower(strip_accents(a)) = lower(strip_accents(b))",
                    "'Zoë', 'ZOE' -> TRUE",
                    "'Zoe', 'Zo' -> FALSE"),
            need("E24", "n integer", "to_text(n) || ' items'", "12 -> '12 items'", "NULL -> NULL"),
            text("B18", "regexp_replace(s, ' +', '[\\0]')", "'a  b c' -> 'a[  ]b[ ]c'"),
            text("C8", "replace_until_same(s, '((', '(', 4)", "'((((a' -> '(a'", "'(' -> '('"),
            text("C9", "CASE WHEN s = 'x' THEN 'found' END", "'x' -> 'found'", "'y' -> NULL", "NULL -> NULL"),
            // Missing values
            text("H2", "coalesce(s, '')", "NULL -> ''", "'a' -> 'a'", "'' -> ''"),
            need("H2", "n integer", "coalesce(n, 0)", "NULL -> 0", "7 -> 7"),
            text(
                    "H3",
                    "CASE WHEN lower(trim(s)) IN ('', 'n/a', '-') THEN NULL ELSE s END",
                    "'' -> NULL",
                    "' N/A ' -> NULL",
                    "'-' -> NULL",
                    "'a' -> 'a'"),
            need("H7", THREE, "concat_ws(', ', a, b, c)", "NULL, 'b', NULL -> 'b'", "NULL, 'b', 'c' -> 'b, c'"),
            need("H8", "n integer, m integer", "n + m", "1, NULL -> NULL", "1, 2 -> 3"),
            need("H8", "n integer, m integer", "n = m", "1, NULL -> NULL", "NULL, NULL -> NULL"),
            need("H9", "n integer, m integer", "n IS NOT DISTINCT FROM m", "NULL, NULL -> TRUE", "1, NULL -> FALSE"),
            // Dates
            need(
                    "J1",
                    "n integer",
                    "serial_to_date(n)",
                    "1 -> DATE '1900-01-01'",
                    "59 -> DATE '1900-02-28'",
                    "60 -> NULL",
                    "61 -> DATE '1900-03-01'",
                    "0 -> NULL",
                    "45351 -> DATE '2024-02-29'"),
            need("J1", "n integer", "serial_to_date(n, 1904)", "0 -> DATE '1904-01-01'", "1 -> DATE '1904-01-02'"),
            text("J1", "serial_to_date(to_integer(s))", "'45351' -> DATE '2024-02-29'", "'4x' -> NULL"),
            need("J2", "t timestamp", "date_of(t)", "TIMESTAMP '2026-02-07 23:59:59' -> DATE '2026-02-07'"),
            need(
                    "J3",
                    "d date",
                    "format_date(d, 'EEEE d MMMM yyyy')",
                    "DATE '2026-02-07' -> 'Saturday 7 February 2026'"),
            need(
                    "J3",
                    "d date",
                    "format_date(d, 'de: EEE, d. MMMM yyyy')",
                    "DATE '2026-03-07' -> 'Sa, 7. März 2026'",
                    "NULL -> NULL"),
            need("J3", "d date", "format_date(d, 'fr: d MMM')", "DATE '2026-08-07' -> '7 août'"),
            text(
                    "J3",
                    "to_date(s, 'd MMMM yyyy', 'fr: d MMMM yyyy', 'es: d ''de'' MMMM ''de'' yyyy')",
                    "'7 May 2026' -> DATE '2026-05-07'",
                    "'7 mai 2026' -> DATE '2026-05-07'",
                    "'7 de mayo de 2026' -> DATE '2026-05-07'",
                    "'7 maj 2026' -> NULL"),
            need("J4", "d date", "'/' || format_date(d, 'yyyy/M/d')", "DATE '2026-02-07' -> '/2026/2/7'"),
            need("J4", "d date", "format_date(d, 'yyyyMMdd')", "DATE '2026-02-07' -> '20260207'"),
            need("J5", "n integer", "epoch_to_timestamp(n)", "0 -> TIMESTAMP '1970-01-01 00:00:00'"),
            need(
                    "J6",
                    "a date, b date",
                    "working_days(a, b)",
                    "DATE '2026-02-06', DATE '2026-02-09' -> 2",
                    "DATE '2026-02-07', DATE '2026-02-08' -> 0",
                    "DATE '2026-02-06', DATE '2026-02-06' -> 1",
                    "DATE '2026-02-09', DATE '2026-02-06' -> -2",
                    "NULL, DATE '2026-02-06' -> NULL"),
            need(
                    "J6",
                    "a date, b date",
                    "working_days(a, b, ARRAY[DATE '2026-02-09', DATE '2026-02-09', DATE '2026-02-07'])",
                    "DATE '2026-02-06', DATE '2026-02-09' -> 1"),
            need(
                    "J6",
                    "a date, b date",
                    "working_days(a, b, date_range(DATE '2026-12-24', DATE '2027-01-01'))",
                    "DATE '2026-12-23', DATE '2027-01-04' -> 2"),
            // Numbers
            text(
                    "J7",
                    "to_integer(replace(s, ',', ''))",
                    "'12,345' -> 12345",
                    "' 7 ' -> 7",
                    "'12x' -> NULL",
                    "'' -> NULL",
                    "'1.0' -> NULL"),
            text(
                    "J7",
                    "to_decimal(replace(replace(s, '.', ''), ',', '.'), 2)",
                    "'1.234,5' -> 1234.50",
                    "'-0,005' -> -0.01",
                    "'1,2,3' -> NULL"),
            text("J7", """
                    SET bare = regexp_replace(trim(s), '^\\(([0-9]+)\\)$|^([0-9]+)-$', '-\\1\\2');
                    RETURN to_integer(bare);
                    """, "'(7)' -> -7", "'7-' -> -7", "'7' -> 7", "'-7-' -> NULL"),
            text("J7", "to_decimal(remove_suffix(trim(s), '%'), 1)", "'5%' -> 5.0", "'5' -> 5.0", "'%' -> NULL"),
            text("J7", "to_decimal(regexp_replace(s, '^[£€$] *', ''), 2)", "'£ 12.5' -> 12.50", "'12 £' -> NULL"),
            text("J7", "to_number(s)", "'4.7e-3' -> 4.7e-3", "'0x1A' -> NULL", "'NaN' -> NULL"),
            need(
                    "J9",
                    "d decimal(9,2)",
                    "round_to_part(d, 2, 1)",
                    "1.3 -> 1.5",
                    "1.2 -> 1.0",
                    "-1.25 -> -1.5",
                    "NULL -> NULL"),
            need("J10", "d decimal(9,2)", "round(d * 1.1625, 2)", "10.00 -> 11.63", "-10.00 -> -11.63"),
            need("J11", "d decimal(9,3)", "round(d, 2)", "2.675 -> 2.68", "-2.675 -> -2.68", "1.005 -> 1.01"),
            need("J11", "n integer, m integer", "divide(n, m, 1)", "1, 8 -> 0.1", "1, 4 -> 0.3", "1, 0 -> NULL"),
            need("J11", "n integer, m integer", "div(n, m)", "-7, 2 -> -3", "7, 0 -> NULL"),
            need("J11", "n integer, m integer", "mod(n, m)", "-7, 2 -> -1", "7, -2 -> 1"),
            need("J11", "x number", "round(x, 2)", "2.675e0 -> 2.68", "1.005e0 -> 1.01", "1e200 -> NULL"),
            need("J11", "x number, y number", "x - (y - 1.5e0)", "1e1, 2e0 -> 9.5e0", "1e1, NULL -> NULL"),
            need("J11", "x number, y number", "x / (y / 2) * 3", "1e0, 8e0 -> 7.5e-1", "1e0, 0 -> NULL"),
            need(
                    "J11",
                    "n integer, m integer",
                    "approximate(n) / (approximate(m) / (approximate(n) - 2))",
                    "4, 8 -> 1e0",
                    "2, 8 -> NULL"),
            need("F17", "n integer", "divide(n, 1000, 1)", "1250 -> 1.3", "-1250 -> -1.3"),
            // Mappings
            text("K1", "lookup(s, MAP['a', 'x'], s)", "'a' -> 'x'", "'b' -> 'b'", "NULL -> NULL"),
            text("K1", "lookup(s, MAP['a', 'x'])", "'a' -> 'x'", "'b' -> NULL"),
            text("K1", "lookup(s, MAP['a', 'x'], '?')", "'b' -> '?'", "NULL -> NULL"),
            text("K1", "is_key(s, MAP['a', 'x'])", "'a' -> TRUE", "'b' -> FALSE", "NULL -> NULL"),
            text("K4", "lookup(lower(trim(s)), MAP['one', 1, 'two', 2])", "' Two' -> 2", "'three' -> NULL"));

    /// The languages that cannot do what a need asks for, and say so.
    private static final Set<String> SQLITE_LACKS = Set.of("E9", "E11", "J7", "J9", "J10", "J11", "F17");

    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @ParameterizedTest
    @MethodSource("engines")
    void isMetInEveryLanguage(FixEngine engine) {
        isMetBy(engine);
    }

    /// Also for the engines of other modules.
    public static void isMetBy(FixEngine engine) {
        Engines.assumeHere(engine);
        List<Evaluation> evaluations =
                NEEDS.stream().map(ValueNeedsTest::evaluation).toList();
        List<List<Answer>> answers = engine.run(evaluations);
        List<String> unmet = new ArrayList<>();
        for (int n = 0; n < NEEDS.size(); n++) {
            Need need = NEEDS.get(n);
            for (int i = 0; i < need.lines().size(); i++) {
                Answer answer = answers.get(n).get(i);
                boolean lacks = engine.language().id().equals("sqlite")
                        && SQLITE_LACKS.contains(need.id())
                        && answer instanceof Answer.NotSaid;
                Object expected = result(need.lines().get(i)).value();
                boolean met = answer instanceof Answer.Value(Object value) && CaseResult.same(value, expected);
                if (!met && !lacks) {
                    unmet.add(
                            need.id() + " " + need.body() + ": " + need.lines().get(i) + ", but " + shown(answer));
                }
            }
        }
        assertThat(unmet).as(engine.language().title()).isEmpty();
    }

    private static String shown(Answer answer) {
        return answer instanceof Answer.Value(Object value) ? Literals.print(value) : String.valueOf(answer);
    }

    private static Evaluation evaluation(Need need) {
        List<Parameter> parameters = Stream.of(need.parameters().split(", "))
                .map(p -> p.split(" ", 2))
                .map(p -> new Parameter(p[0], Type.parse(p[1]).orElseThrow(), Optional.empty(), "", false))
                .toList();
        Body body = body(need, parameters);
        Definition fix = new Definition("need", parameters, body.result().type(), body);
        return new Evaluation(
                fix, need.lines().stream().map(l -> arguments(l, parameters)).toList());
    }

    private static Body body(Need need, List<Parameter> parameters) {
        Scope scope = new Scope(Scope.Fixes.NONE);
        parameters.forEach(p -> scope.add(new Scope.Binding(p.name(), p.type(), Scope.Kind.COLUMN)));
        if (!need.body().contains("RETURN")) {
            return new Body(
                    List.of(),
                    ExpressionParser.parse(need.id(), need.body(), scope).get());
        }
        SourceText page = new SourceText(need.id(), need.body());
        Type returns = result(need.lines().getFirst()).type();
        return BodyParser.parse(page, new Span(0, need.body().length()), scope, returns)
                .get();
    }

    private static List<Expr.Literal> arguments(String line, List<Parameter> parameters) {
        List<String> written = parts(line.substring(0, line.indexOf(" -> ")));
        assertThat(written).as(line).hasSameSizeAs(parameters);
        List<Expr.Literal> arguments = new ArrayList<>();
        for (int i = 0; i < written.size(); i++) {
            Type type = parameters.get(i).type();
            arguments.add(new Expr.Literal(constant(written.get(i)).value(), type));
        }
        return arguments;
    }

    private static Expr.Literal result(String line) {
        return constant(line.substring(line.indexOf(" -> ") + 4));
    }

    private static Expr.Literal constant(String text) {
        return WrittenConstants.read("need", text).get().orElseThrow();
    }

    /// Cuts at commas outside texts.
    private static List<String> parts(String text) {
        List<String> parts = new ArrayList<>();
        int from = 0;
        boolean quoted = false;
        for (int i = 0; i <= text.length(); i++) {
            boolean end = i == text.length() || !quoted && text.startsWith(", ", i);
            if (end) {
                parts.add(text.substring(from, i));
                from = i + 2;
            } else if (text.charAt(i) == '\'') {
                quoted = !quoted;
            }
        }
        return parts;
    }
}
