package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.operations.Operations;
import fixshelf.plan.Operation;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Every operation is documented and has examples, and every language gives what they say, or names beforehand what it
/// cannot say.
public class OperationExamplesTest {
    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @Test
    void everyOperationIsDocumentedAndCanBeSaid() {
        for (Operation operation : Operations.added()) {
            assertThat(operation.about().purpose()).as(operation.name()).hasSizeGreaterThan(20);
            assertThat(operation.about().languages()).as(operation.name()).isNotBlank();
            assertThat(operation.examples()).as(operation.name()).isNotEmpty();
            assertThat(operation.sentence())
                    .startsWith(operation.sentence().substring(0, 1).toUpperCase(Locale.ROOT));
            operation.blanks().stream().filter(b -> b.needed()).forEach(b -> assertThat(
                            operation.sentence() + operation.examples())
                    .as(operation.name())
                    .contains(b.name()));
            assertThat(OperationExamples.of(operation).problems())
                    .as(operation.name())
                    .isEmpty();
            OperationExamples.of(operation).get().forEach(OperationExamplesTest::hasOneFieldOfAName);
        }
    }

    @ParameterizedTest
    @MethodSource("engines")
    void giveInEveryLanguageWhatTheySay(FixEngine engine) {
        Engines.assumeHere(engine);
        holdIn(engine);
    }

    /// Also for the engines of other modules.
    public static void holdIn(FixEngine engine) {
        List<OperationExamples.Example> examples = Operations.added().stream()
                .flatMap(o -> OperationExamples.of(o).get().stream())
                .toList();
        List<JobParity> results = OperationExamples.in(engine, examples);
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < examples.size(); i++) {
            OperationExamples.Example example = examples.get(i);
            JobParity result = results.get(i);
            boolean right = result.verdict() instanceof JobParity.Same
                    || result.verdict() instanceof JobParity.CannotSay && isNamed(engine, example.operation());
            if (!right) {
                wrong.add(example.operation().name() + ", " + example.example().title() + ": " + result.mark() + " "
                        + result.detail() + "\n"
                        + engine.language().job(example.code()).value().orElse(""));
            }
        }
        assertThat(wrong).isEmpty();
    }

    /// In exported code fields are called as users call them, also those in between.
    private static void hasOneFieldOfAName(OperationExamples.Example example) {
        example.code().lines().forEach(line -> line.step().after().parts().forEach(part -> assertThat(
                        part.shape().names().stream().map(n -> n.toLowerCase(Locale.ROOT)))
                .as(example.operation().name() + ": " + part)
                .doesNotHaveDuplicates()));
    }

    private static boolean isNamed(FixEngine engine, Operation operation) {
        return operation.about().languages().contains(engine.language().title());
    }
}
