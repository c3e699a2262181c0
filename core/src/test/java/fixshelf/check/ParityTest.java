package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.language.tree.Expr;
import fixshelf.render.JobCode;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/// What a check of parity says when an engine is wrong, refuses, fails or is not there: the proof can fail.
class ParityTest {
    private static final FixEngine DUCKDB = FixEngines.ALL.getFirst();

    /// DuckDB, with its answers turned into others, under the name of another language.
    private record Twisted(Language language, Presence presence, BiFunction<List<Expr.Literal>, Answer, Answer> twist)
            implements FixEngine {
        static Twisted of(String language, BiFunction<List<Expr.Literal>, Answer, Answer> twist) {
            return new Twisted(Languages.find(language).orElseThrow(), new Presence.Here("1.0"), twist);
        }

        @Override
        public List<List<Answer>> run(List<Evaluation> evaluations) {
            List<List<Answer>> right = DUCKDB.run(evaluations);
            List<List<Answer>> all = new ArrayList<>();
            for (int e = 0; e < right.size(); e++) {
                List<Answer> answers = new ArrayList<>();
                for (int row = 0; row < right.get(e).size(); row++) {
                    answers.add(twist.apply(
                            evaluations.get(e).rows().get(row), right.get(e).get(row)));
                }
                all.add(answers);
            }
            return all;
        }

        @Override
        public Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
            return DUCKDB.run(job, rows);
        }
    }

    private static ParityResult check(String expression, FixEngine engine) {
        return Parity.check(DUCKDB, List.of(engine), List.of(Expressions.subject(expression)), Parity.Settings.of(300))
                .getFirst();
    }

    @Test
    void theFirstDifferenceIsMadeAsSmallAsItCanBe() {
        ParityResult result = check("trim(s, '*')", Twisted.of("sqlite", (row, answer) -> {
            boolean wrong = answer instanceof Answer.Value(String text) && text.contains("a") && text.length() >= 3;
            return wrong ? new Answer.Value(((Answer.Value) answer).value() + "\u00A0") : answer;
        }));
        ParityResult.Differs differs = (ParityResult.Differs) result.verdict();
        String smallest = String.valueOf(differs.input().getFirst().value());
        assertThat(smallest).hasSize(3).contains("a");
        assertThat(differs.expected()).isEqualTo(new Answer.Value(smallest));
        assertThat(differs.got()).isEqualTo(new Answer.Value(smallest + "\u00A0"));
        assertThat(differs.differing()).isGreaterThan(10);
        assertThat(result.mark()).isEqualTo("▲ " + differs.differing() + " differ");
        // What cannot be seen is marked, or nobody would see the difference.
        assertThat(result.detail()).contains("⍽").contains(", not '");
    }

    @Test
    void severalArgumentsAreMadeSmallTogether() {
        ParityResult result = check("n + m", Twisted.of("sqlite", (row, answer) -> {
            boolean wrong = row.getFirst().value() instanceof Long n
                    && row.getLast().value() instanceof Long m
                    && Math.abs(n) >= 10
                    && m != 0;
            return wrong ? new Answer.Value(null) : answer;
        }));
        ParityResult.Differs differs = (ParityResult.Differs) result.verdict();
        assertThat(Math.abs((Long) differs.input().getFirst().value())).isBetween(10L, 20L);
        assertThat(Math.abs((Long) differs.input().getLast().value())).isEqualTo(1);
        assertThat(result.detail()).contains("gives NULL, not ");
    }

    @Test
    void anErrorIsADifferenceButALimitThatTheLanguageNamesIsNone() {
        BiFunction<List<Expr.Literal>, Answer, Answer> fails = (row, answer) ->
                "a".equals(row.getFirst().value()) ? new Answer.Failed("R keeps only 15 digits exactly") : answer;
        assertThat(check("upper(s)", Twisted.of("sqlite", fails))).satisfies(r -> {
            assertThat(r.word()).isEqualTo("differs");
            assertThat(r.detail()).startsWith("'a' gives the error R keeps only 15 digits");
        });
        assertThat(check("upper(s)", Twisted.of("r", fails))).satisfies(r -> {
            assertThat(r.word()).isEqualTo("same_within_range");
            assertThat(r.detail()).contains("1 beyond its range, refused by name");
        });
    }

    @Test
    void whatIsNotSaidOnEveryRowCannotBeSaid() {
        Answer refused = new Answer.NotSaid("it has no such thing.");
        assertThat(check("upper(s)", Twisted.of("sqlite", (_, _) -> refused)).detail())
                .isEqualTo("it has no such thing.");
        assertThat(check(
                                "upper(s)",
                                Twisted.of(
                                        "sqlite",
                                        (row, answer) -> row.getFirst().value() == null ? refused : answer))
                        .word())
                .isEqualTo("same_within_range");
    }

    @Test
    void whatTheReferenceCannotSayIsNoDifference() {
        String tooManyDigits = "divide(d * d, d, 18)";
        assertThat(check(tooManyDigits, Twisted.of("pandas", (_, _) -> new Answer.Value(null)))
                        .detail())
                .startsWith("DuckDB cannot say it: ");
    }

    @Test
    void anEngineThatDiesOrIsNotHereDoesNotStopTheOthers() {
        FixEngine dies = Twisted.of("mariadb", (_, _) -> {
            throw new IllegalStateException("the server went away");
        });
        FixEngine absent = new Twisted(
                Languages.find("sqlite").orElseThrow(), new FixEngine.Presence.Absent("Install it."), (_, a) -> a);
        FixEngine right = Twisted.of("postgresql", (_, answer) -> answer);
        List<ParityResult> results = Parity.check(
                DUCKDB,
                List.of(dies, absent, right),
                List.of(Expressions.subject("upper(s)"), Expressions.subject("round(d, 1)")),
                Parity.Settings.of(100));
        assertThat(results)
                .extracting(ParityResult::word)
                .containsExactly(
                        // SQLite has no exact decimals: that is known without running it.
                        "not_run", "not_run", "not_run", "cannot_say", "same", "same");
        assertThat(results.get(0).detail()).contains("the server went away");
        assertThat(results.get(2).detail()).isEqualTo("Install it.");
        ParityReport report = new ParityReport(results, 100, 7);
        assertThat(report.summary()).isEqualTo("2 same, 0 differ, 1 cannot be said, 3 not run");
        assertThat(report.table())
                .containsExactly(
                        List.of("", "MariaDB", "SQLite", "PostgreSQL"),
                        List.of("upper(s)", "not run", "not run", "="),
                        List.of("round(d, 1)", "not run", "cannot say it", "="));
        assertThat(report.notes())
                .contains("SQLite: not run: Install it.")
                .anyMatch(n -> n.startsWith("MariaDB: not run: ") && n.endsWith("(2 times)"));
    }

    @Test
    void aReportIsATableAlsoWhereABarStandsInIt() {
        ParityResult result = check("s || '|'", Twisted.of("sqlite", (_, answer) -> answer));
        assertThat(new ParityReport(List.of(result), 300, 7).markdown())
                .contains("| `s \\|\\| '\\|'` | = |")
                .contains("1 same, 0 differ");
    }

    /// Nearly the same is not the same, but for the zeros behind a point.
    @Test
    void sameMeansTheSame() {
        Object[][] different = {
            {null, ""},
            {"a", "a "},
            {"é", "e\u0301"},
            {1L, "1"},
            {true, "true"},
            {true, 1L},
            {new BigDecimal("1.5"), new BigDecimal("1.51")},
            {0.1, 0.10000000000000002}
        };
        for (Object[] pair : different) {
            assertThat(CaseResult.same(pair[0], pair[1]))
                    .as(pair[0] + " and " + pair[1])
                    .isFalse();
            assertThat(CaseResult.same(pair[1], pair[0])).isFalse();
            assertThat(CaseResult.same(pair[0], pair[0])).isTrue();
        }
        assertThat(CaseResult.same(new BigDecimal("1.50"), new BigDecimal("1.5")))
                .isTrue();
        assertThat(CaseResult.same(0.0, -0.0)).isTrue();
    }
}
