package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.language.catalogue.Functions;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.Parameter;
import fixshelf.language.tree.Printer;
import fixshelf.type.Literals;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Operators and functions inside one another, put together at random: what each means alone it also means inside
/// another, whatever signs, parentheses and types the languages need for it. Every engine, that of the previews too,
/// is held to [TreeMeaning], so that none is judge in its own case.
public class NestedExpressionsTest {
    /// Others are tried with `-Dnested.seed=…`, more of them with `-Dnested.count=…`.
    private static final long SEED = Long.getLong("nested.seed", 5);

    private static final int EXPRESSIONS = Integer.getInteger("nested.count", 150);
    private static final int ROWS = 40;

    private static final RandomTrees TREES = new RandomTrees(SEED);
    private static final List<Subject> SUBJECTS = TREES.subjects(EXPRESSIONS);

    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @ParameterizedTest
    @MethodSource("engines")
    void meanInEveryEngineWhatTheyMeanInJava(FixEngine engine) {
        meanTheSameIn(engine, EXPRESSIONS);
    }

    /// As above, with many more expressions.
    @Tag("proof")
    @ParameterizedTest
    @MethodSource("engines")
    void manyMeanTheSame(FixEngine engine) {
        meanTheSameIn(engine, new RandomTrees(SEED + 1).subjects(PROOF), PROOF);
    }

    private static final int PROOF = 1_000;

    /// Also for the engines of other modules.
    public static void meanTheSameIn(FixEngine engine, int count) {
        assertThat(SUBJECTS).hasSize(EXPRESSIONS);
        meanTheSameIn(engine, SUBJECTS, count);
    }

    private static void meanTheSameIn(FixEngine engine, List<Subject> subjects, int count) {
        Engines.assumeHere(engine);
        List<Evaluation> evaluations = subjects.subList(0, count).stream()
                .map(NestedExpressionsTest::evaluation)
                .toList();
        List<List<Answer>> answers = engine.run(evaluations);
        List<String> wrong = new ArrayList<>();
        int said = 0;
        for (int i = 0; i < count; i++) {
            Outcome outcome = compare(engine, subjects.get(i), evaluations.get(i), answers.get(i));
            said += outcome.said() > 0 ? 1 : 0;
            wrong.addAll(outcome.wrong().stream().limit(1).toList());
        }
        assertThat(wrong).as(engine.language().title()).isEmpty();
        assertThat(said).as("expressions that it can say").isGreaterThan(count / 3);
    }

    private static Evaluation evaluation(Subject subject) {
        Random random = new Random(subject.name().hashCode());
        List<List<Expr.Literal>> rows = new ArrayList<>();
        List<List<Expr.Literal>> values = new ArrayList<>();
        for (Parameter parameter : subject.fix().parameters()) {
            values.add(new MadeUpValues(random.nextLong(), List.of("a", ",", "12")).of(parameter.type(), 70));
        }
        for (int i = 0; i < ROWS; i++) {
            rows.add(values.stream().map(v -> v.get(random.nextInt(v.size()))).toList());
        }
        return new Evaluation(subject.fix(), rows);
    }

    private record Outcome(int said, List<String> wrong) {}

    private static Outcome compare(FixEngine engine, Subject subject, Evaluation asked, List<Answer> answers) {
        List<String> wrong = new ArrayList<>();
        int said = 0;
        for (int i = 0; i < answers.size(); i++) {
            List<Expr.Literal> row = asked.rows().get(i);
            Object expected = TreeMeaning.of(subject.fix().body().result(), named(subject, row));
            boolean refused = answers.get(i) instanceof Answer.NotSaid
                    || answers.get(i) instanceof Answer.Failed(String why)
                            && engine.language().isLimit(why);
            said += refused ? 0 : 1;
            boolean same =
                    refused || answers.get(i) instanceof Answer.Value(Object got) && CaseResult.same(expected, got);
            if (!same) {
                wrong.add(subject.name() + "\n    of "
                        + row.stream().map(v -> Literals.print(v.value())).toList() + " gives " + answers.get(i)
                        + ", not " + Literals.print(expected));
            }
        }
        return new Outcome(said, wrong);
    }

    private static Map<String, Object> named(Subject subject, List<Expr.Literal> row) {
        Map<String, Object> values = new HashMap<>();
        for (int p = 0; p < row.size(); p++) {
            values.put(subject.fix().parameters().get(p).name(), row.get(p).value());
        }
        return values;
    }

    @Test
    void whatIsPrintedIsReadBackAsTheSameTree() {
        for (Subject subject : SUBJECTS) {
            Expr tree = subject.fix().body().result();
            String printed = Printer.print(tree);
            assertThat(Expressions.fix(printed).body().result()).as(printed).isEqualTo(tree);
        }
    }

    /// Which function stood in which place is counted, so that one that never stood inside another is seen.
    @Test
    void everyFunctionStandsInsideAnother() {
        Map<String, Integer> used = use();
        assertThat(Functions.ALL.stream()
                        .map(FunctionDef::name)
                        // Gives a list, which only stands where the parser asks for one.
                        .filter(f -> !f.equals("date_range"))
                        .filter(f -> Stream.of("operand", "argument")
                                .noneMatch(place -> used.containsKey(f + " as " + place))))
                .isEmpty();
    }

    private static Map<String, Integer> use() {
        RandomTrees trees = new RandomTrees(SEED);
        trees.subjects(1_000);
        return trees.used();
    }
}
