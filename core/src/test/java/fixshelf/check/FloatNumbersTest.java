package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.FixEngines;
import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BinaryOperator;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Floating-point numbers against Java's, for the edges and for numbers of every size. The other languages are held to
/// this engine by the parity tests.
class FloatNumbersTest {
    private static final List<Double> NUMBERS = new MadeUpValues(7, List.of())
            .of(Type.NUMBER, 120).stream()
                    .map(Expr.Literal::value)
                    .filter(Double.class::isInstance)
                    .map(Double.class::cast)
                    .toList();

    @Test
    void whatIsPrintedIsReadAsTheSameNumber() {
        for (double number : NUMBERS) {
            String printed = Literals.print(number);
            assertThat(WrittenConstants.read("number", printed)
                            .get()
                            .orElseThrow()
                            .value())
                    .as(printed)
                    .isEqualTo(number);
        }
    }

    record Operation(String sign, BinaryOperator<Double> inJava) {
        @Override
        public String toString() {
            return sign;
        }
    }

    static Stream<Operation> operations() {
        return Stream.of(
                new Operation("+", Double::sum),
                new Operation("-", (x, y) -> x - y),
                new Operation("*", (x, y) -> x * y),
                new Operation("/", (x, y) -> x / y));
    }

    @ParameterizedTest
    @MethodSource("operations")
    void operationsAreThoseOfTheStandardOrNullByTheSizeOfASide(Operation operation) {
        boolean sum = "+-".contains(operation.sign());
        List<List<Double>> pairs = new ArrayList<>();
        for (int i = 0; i < NUMBERS.size(); i++) {
            for (int step : new int[] {0, 1, 7, 40}) {
                pairs.add(List.of(NUMBERS.get(i), NUMBERS.get((i + step) % NUMBERS.size())));
            }
        }
        List<@Nullable Object> answers = answers("f " + operation.sign() + " g", pairs);
        for (int i = 0; i < pairs.size(); i++) {
            double x = pairs.get(i).get(0);
            double y = pairs.get(i).get(1);
            boolean fine =
                    Stream.of(x, y).allMatch(v -> Math.abs(v) <= 1e150 && (sum || v == 0 || Math.abs(v) >= 1e-150))
                            && !(operation.sign().equals("/") && y == 0);
            Object expected = fine ? (Object) (operation.inJava().apply(x, y) + 0.0) : null;
            Object answer = answers.get(i) instanceof Double number ? (Object) (number + 0.0) : answers.get(i);
            assertThat(answer).as(x + " " + operation.sign() + " " + y).isEqualTo(expected);
        }
    }

    @Test
    void theShortestDigitsAreRoundedHalfAwayFromZero() {
        for (int scale : new int[] {0, 2, 4, 12}) {
            List<@Nullable Object> answers = answers("round(f, " + scale + ")", pairs());
            for (int i = 0; i < NUMBERS.size(); i++) {
                double x = NUMBERS.get(i);
                BigDecimal rounded = new BigDecimal(Double.toString(x)).setScale(scale, RoundingMode.HALF_UP);
                boolean fits = Math.abs(x) < Math.min(1e15, Math.pow(10, 18 - scale))
                        && rounded.abs().compareTo(BigDecimal.TEN.pow(18 - scale)) < 0;
                assertThat(answers.get(i)).as(x + " with " + scale).isEqualTo(fits ? rounded : null);
            }
        }
    }

    @Test
    void textIsReadToTheNearestNumber() {
        List<List<Object>> rows = NUMBERS.stream()
                .flatMap(n -> Stream.of(Double.toString(n), Literals.print(n), " +" + Math.abs(n) + "\t"))
                .map(t -> List.<Object>of(t, ""))
                .toList();
        List<@Nullable Object> answers = run("to_number(s)", Type.TEXT, rows);
        for (int i = 0; i < rows.size(); i++) {
            String text = (String) rows.get(i).getFirst();
            assertThat(answers.get(i)).as(text).isEqualTo(Double.parseDouble(text) + 0.0);
        }
    }

    private static List<List<Double>> pairs() {
        return NUMBERS.stream().map(n -> List.of(n, n)).toList();
    }

    private static List<@Nullable Object> answers(String body, List<List<Double>> pairs) {
        return run(body, Type.NUMBER, pairs.stream().map(List::<Object>copyOf).toList());
    }

    private static List<@Nullable Object> run(String body, Type type, List<List<Object>> rows) {
        Definition fix = Expressions.fix(body);
        List<List<Expr.Literal>> literals = rows.stream()
                .map(r -> r.stream()
                        .limit(fix.parameters().size())
                        .map(v -> new Expr.Literal(v, type))
                        .toList())
                .toList();
        return FixEngines.ALL.getFirst().run(List.of(new Evaluation(fix, literals))).getFirst().stream()
                .<@Nullable Object>map(a -> a instanceof Answer.Value(Object value) ? value : String.valueOf(a))
                .toList();
    }
}
