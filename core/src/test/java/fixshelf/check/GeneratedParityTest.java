package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.language.catalogue.Functions;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.type.Literals;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// On the edges of every type and on made-up values, each language answers as DuckDB does, or says that it cannot.
@Tag("proof")
public class GeneratedParityTest {
    private static final int VALUES = 400;

    private static final List<String> EXPRESSIONS = List.of(
            "trim(s)",
            "trim(s, ' x0\"')",
            "ltrim(s, 'a]^-\\')",
            "rtrim(s, '. ')",
            "trim(s, '')",
            "remove_prefix(s, ' ')",
            "remove_suffix(s, '%')",
            "replace(s, ' ', '')",
            "replace(s, 'a', '\\1$')",
            "replace(s, '', 'x')",
            "upper(s)",
            "lower(s)",
            "length(s)",
            "substring(s, 2, 3)",
            "substring(s, 0, 2)",
            "substring(s, -1)",
            "substring(s, n, 2)",
            "substring(s, 2, n)",
            "left(s, 3)",
            "left(s, n)",
            "right(s, 2)",
            "right(s, n)",
            "position(s, 'a')",
            "position(s, '')",
            "starts_with(s, ' ')",
            "ends_with(s, ' ')",
            "contains(s, '%')",
            "repeat(s, 2)",
            "repeat(s, -1)",
            "s || t",
            "concat(s, '-', t)",
            "concat_ws('-', s, t)",
            "concat_ws(', ', s, nullif(t, ''), 'end')",
            "regexp_replace(s, ' +', ' ')",
            "regexp_replace(s, '[^A-Za-z0-9]', '_')",
            "regexp_replace(s, '([a-z])([A-Z0-9])', '\\2\\1')",
            "regexp_replace(s, '^ +| +$', '')",
            "regexp_replace(s, '\\s', '<\\0>')",
            "regexp_replace(s, '\\.', '\\\\')",
            "regexp_replace(s, '.', 'x')",
            "regexp_like(s, '^[0-9]+$')",
            "regexp_like(s, 'a$')",
            "regexp_like(s, '\\W')",
            "regexp_extract(s, '[0-9]+')",
            "regexp_extract(s, '([a-z]+) *([0-9]*)', 2)",
            "regexp_extract(s, 'a(b)?', 1)",
            "coalesce(s, t)",
            "coalesce(s, 'none')",
            "nullif(s, t)",
            "nullif(s, '')",
            "s IS NULL",
            "s = t",
            "s <> t",
            "s < t",
            "s >= t",
            "s < 'b'",
            "n > 0",
            "n = length(s)",
            "s IS DISTINCT FROM t",
            "s IN ('a', '', NULL)",
            "s NOT IN (t, 'a')",
            "s LIKE '%a_%'",
            "s LIKE '%\\%'",
            "s LIKE '%!%%' ESCAPE '!'",
            "s NOT LIKE ' %'",
            "s = '' AND t = ''",
            "s = '' OR NOT (t > 'a')",
            "NOT (s = t)",
            "s BETWEEN 'A' AND 'a'",
            "to_integer(s)",
            "to_integer(trim(s, ' kg'))",
            "to_decimal(s, 2)",
            "to_decimal(replace(s, ',', ''), 0)",
            "to_text(n)",
            "to_text(to_integer(s)) || '.'",
            "CASE WHEN s = '' THEN 'empty' WHEN t IS NULL THEN s ELSE t END",
            "CASE s WHEN 'a' THEN 'A' ELSE upper(s) END",
            "CASE WHEN s < t THEN length(s) END",
            "regexp_replace(s, '(?i)[a-f]', '_')",
            "regexp_replace(s, '\\p{L}+', 'w')",
            "regexp_like(s, '^[\\p{L}\\p{N} ]+$')",
            "regexp_replace(s, '[^\\p{L}\\p{Nd}_]', '')",
            "initcap(s || t)",
            "reverse(s || t)",
            "translate(s, 'abx,.', 'bay.')",
            "strip_accents(s || 'é')",
            "split_part(s, ',', 2)",
            "split_part(s, ' ', -2)",
            "remove_part(replace(s, ' ', ','), ',', 'a')",
            "drop_empty_parts(s, ',')",
            "sort_parts(s || ',a,A,é,' || t, ',')",
            "unique_parts(s || 'na' || t, 'n')",
            "sort_parts(replace(s || t, ' ', ', '), ', ')",
            "regexp_replace(s || t, '\\b[a-z]+\\b', 'w')",
            "regexp_like(s, '[\\p{Sc}\\p{Sm}]')",
            "skip_parts(replace(s, ' ', ','), ',', 2)",
            "skip_parts_in(replace(s, ' ', ','), ',', ARRAY['', 'a', 'ab'])",
            "remove_parts(replace(s, ' ', ','), ',', ARRAY['a', 'b'])",
            "keep_parts(replace(s, ' ', ','), ',', ARRAY['a', 'ab', 'A'])",
            "keep_parts(replace(s, ' ', ','), ',', ARRAY['', '0'])",
            "is_key(s, MAP['a', 'x', '', 'y'])",
            "x IN (date_range(DATE '2000-01-01', DATE '2000-12-31'))",
            "to_date(s, 'd MMM yyyy', 'fr: d MMMM yyyy')",
            "to_date(replace(format_date(x, 'de: d. MMMM yyyy'), 'August', 'AUGUST'), 'de: d. MMMM yyyy')",
            "format_date(x, 'pl: EEEE, d MMMM yyyy')",
            "part_count(s, ', ')",
            "lookup(s, MAP['a', 'x', 'A', 'x', '', 'nothing'], s)",
            "lookup(n, MAP[0, 'none', 1, 'one'], 'many')",
            "s IN (ARRAY['a', 'é', NULL])",
            "replace_until_same(s, '  ', ' ', 6)",
            "concat_ws('-', s, replace(s, 'a', 'b'), s)",
            "replace(s, 'a', 'aa') = s",
            "n + m",
            "n * m",
            "div(n, m)",
            "mod(n, m)",
            "div(n, 7) * 7 + mod(n, 7)",
            "abs(n)",
            "d + e",
            "d - n",
            "d * e",
            "round(d * e, 2)",
            "round(d, 1)",
            "floor(d) + ceil(d)",
            "divide(d, e, 3)",
            "divide(n, m, 2)",
            "divide(n, 3, 4)",
            "round_to_part(e, 4, 2)",
            "to_text(d - e)",
            "d < e",
            "d = 0.5 OR e IN (1, 2.5)",
            "coalesce(d, e)",
            "to_number(s)",
            "round(to_number(s) * 2, 4)",
            "f + g",
            "f - 1.5e0",
            "f * g",
            "f / g",
            "1e0 / f",
            "abs(f)",
            "round(f, 3)",
            "round(f, 0)",
            "floor(f)",
            "ceil(f)",
            "approximate(d) / 3",
            "approximate(n)",
            "f < g",
            "f IN (1, 2.5e0) OR g = 0",
            "coalesce(f, 0)",
            "nullif(f, 0.5e0)",
            "CASE WHEN f > 0 THEN 1 ELSE g END",
            "week(x)",
            "add_months(x, n)",
            "last_day(x)",
            "working_days(x, y)",
            "working_days(x, y, ARRAY[DATE '2000-01-03', DATE '2000-01-01'], ARRAY[7])",
            "format_date(x, 'EEE d MMM yyyy')",
            "to_timestamp(s)",
            "to_timestamp(s, 'yyyy-MM-dd HH:mm', 'd/M/yyyy H:mm')",
            "format_timestamp(u, 'EEEE d MMMM yyyy H:mm:ss')",
            "date_of(u) = x",
            "hour(u) * 3600 + minute(u) * 60 + second(u)",
            "add_seconds(u, n)",
            "microsecond(u)",
            "add_microseconds(u, n)",
            "microseconds_between(u, v)",
            "epoch_micros_to_timestamp(n)",
            "epoch_millis_to_timestamp(n)",
            "timestamp_to_epoch(u)",
            "to_timestamp(s, 'yyyy-MM-dd HH:mm:ss.SSS', 'd/M/yyyy H:mm:ss,S')",
            "format_timestamp(u, 'HH:mm:ss.SSSS')",
            "u < v OR u = TIMESTAMP '1969-12-31 23:59:59.5'",
            "seconds_between(u, v)",
            "epoch_to_timestamp(n)",
            "serial_to_timestamp(d)",
            "to_zone(u, 'Europe/Dublin')",
            "from_zone(add_seconds(u, n), 'Australia/Lord_Howe')",
            "u < v",
            "u IS DISTINCT FROM v",
            "coalesce(u, v)",
            "CASE WHEN u > v THEN at_midnight(x) ELSE v END");

    static Stream<FixEngine> others() {
        return Engines.all().skip(1);
    }

    @ParameterizedTest
    @MethodSource("others")
    void answersAsDuckDbDoes(FixEngine engine) {
        answersAsTheReference(engine, VALUES);
    }

    /// Also for the engines of other modules.
    ///
    /// @param values of each function
    public static void answersAsTheReference(FixEngine engine, int values) {
        Engines.assumeHere(engine);
        List<ParityResult> results =
                Parity.check(FixEngines.ALL.getFirst(), List.of(engine), subjects(), Parity.Settings.of(values));
        assertThat(Expressions.wrong(results)).as(engine.language().title()).isEmpty();
        assertThat(results.stream().filter(r -> r.verdict() instanceof ParityResult.Same))
                .as("most can be said, also where there are no exact decimals")
                .hasSizeGreaterThan(results.size() * 17 / 20);
    }

    @Test
    void strictFunctionsAreNullForEveryNull() {
        List<String> wrong = new ArrayList<>();
        for (FunctionDef function : Functions.ALL) {
            for (Subject subject : Subject.ofFunction(function)) {
                if (function.nulls() == FunctionDef.Nulls.IF_ANY) {
                    List<List<Expr.Literal>> rows = subject.rows(VALUES, 11).stream()
                            .filter(r -> r.stream().anyMatch(v -> v.value() == null))
                            .toList();
                    List<Answer> answers = FixEngines.ALL
                            .getFirst()
                            .run(List.of(new Evaluation(subject.fix(), rows)))
                            .getFirst();
                    for (int i = 0; i < rows.size(); i++) {
                        if (!answers.get(i).equals(new Answer.Value(null))) {
                            List<String> row = rows.get(i).stream()
                                    .map(v -> Literals.print(v.value()))
                                    .toList();
                            wrong.add(subject.name() + " of " + row + " gives " + answers.get(i));
                        }
                    }
                }
            }
        }
        assertThat(wrong).isEmpty();
    }

    private static List<Subject> subjects() {
        List<Subject> subjects =
                new ArrayList<>(EXPRESSIONS.stream().map(Expressions::subject).toList());
        Functions.ALL.forEach(f -> subjects.addAll(Subject.ofFunction(f)));
        return subjects;
    }
}
