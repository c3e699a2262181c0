package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.language.Body;
import fixshelf.language.Definition;
import fixshelf.language.Expr;
import fixshelf.language.ExpressionParser;
import fixshelf.language.FunctionDef;
import fixshelf.language.Functions;
import fixshelf.language.Parameter;
import fixshelf.language.Scope;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// On the edges of every type and on made-up values, each language answers as DuckDB does, or says that it cannot.
public class GeneratedParityTest {
    private static final int VALUES = 400;

    /// Expressions over a text `s`, a text `t` and an integer `n`.
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
            "CASE WHEN s < t THEN length(s) END");

    static Stream<FixEngine> others() {
        return Engines.all().skip(1);
    }

    @ParameterizedTest
    @MethodSource("others")
    void answersAsDuckDbDoes(FixEngine engine) {
        answersAsTheReference(engine);
    }

    /// Also for the engines of other modules.
    public static void answersAsTheReference(FixEngine engine) {
        Engines.assumeHere(engine);
        List<ParityResult> results =
                Parity.check(FixEngines.ALL.getFirst(), List.of(engine), subjects(), Parity.Settings.of(VALUES));
        assertThat(results.stream()
                        .filter(r -> r.differs() || r.verdict() instanceof ParityResult.NotRun)
                        .map(r -> r.subject().name() + ": " + r.mark() + ", " + r.detail()))
                .as(engine.language().title())
                .isEmpty();
        assertThat(results.stream().filter(r -> r.verdict() instanceof ParityResult.Same))
                .as("most can be said")
                .hasSizeGreaterThan(results.size() * 9 / 10);
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
        List<Subject> subjects = new ArrayList<>(
                EXPRESSIONS.stream().map(GeneratedParityTest::subject).toList());
        Functions.ALL.forEach(f -> subjects.addAll(Subject.ofFunction(f)));
        return subjects;
    }

    private static Subject subject(String text) {
        List<Parameter> parameters =
                List.of(parameter("s", Type.TEXT), parameter("t", Type.TEXT), parameter("n", Type.INTEGER));
        Scope scope = new Scope(Scope.Fixes.NONE);
        parameters.forEach(p -> scope.add(new Scope.Binding(p.name(), p.type(), Scope.Kind.PARAMETER)));
        Expr body = ExpressionParser.parse("e", text, scope).get();
        return new Subject(
                text, new Definition("tried", parameters, body.type(), new Body(List.of(), body)), Optional.empty());
    }

    private static Parameter parameter(String name, Type type) {
        return new Parameter(name, type, Optional.empty(), "", false);
    }
}
