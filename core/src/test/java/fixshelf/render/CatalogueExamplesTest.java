package fixshelf.render;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.language.catalogue.Functions;
import fixshelf.language.checking.ExpressionParser;
import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Every example of the catalogue is true in every language, run for real: with constants, and with each text
/// constant that need not be fixed put into a column.
public class CatalogueExamplesTest {
    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    record Checked(String call, String expected, Evaluation evaluation) {}

    @ParameterizedTest
    @MethodSource("engines")
    void everyExampleHolds(FixEngine engine) {
        everyExampleHoldsIn(engine);
    }

    /// Also for the engines of other modules.
    public static void everyExampleHoldsIn(FixEngine engine) {
        Engines.assumeHere(engine);
        List<Checked> examples = examples();
        List<List<Answer>> answers =
                engine.run(examples.stream().map(Checked::evaluation).toList());
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < examples.size(); i++) {
            Checked example = examples.get(i);
            Answer answer = answers.get(i).getFirst();
            String got =
                    switch (answer) {
                        case Answer.Value(Object value) -> Literals.print(value);
                        case Answer.Failed(String why) -> "failed: " + why;
                        case Answer.NotSaid(String why) -> "not said: " + why;
                    };
            boolean refused = answer instanceof Answer.NotSaid && Refusals.isKnown(engine.language(), example.call());
            if (!refused && !isSame(got, example.expected())) {
                wrong.add(example.call() + " should be " + example.expected() + ", is " + got + "\n      "
                        + engine.language()
                                .expression(example.evaluation().fix().body().result()));
            }
        }
        assertThat(wrong).as(engine.language().title()).isEmpty();
    }

    private static final String NUMBER = "-?[0-9]+([.][0-9]+)?";

    /// 1.2 is 1.20: how many zeros a language shows is no difference.
    private static boolean isSame(String got, String expected) {
        boolean numbers = got.matches(NUMBER) && expected.matches(NUMBER);
        return numbers ? new BigDecimal(got).compareTo(new BigDecimal(expected)) == 0 : got.equals(expected);
    }

    @Test
    void everyFunctionHasThreeExamplesAndAMeaning() {
        assertThat(Functions.ALL).allSatisfy(f -> {
            assertThat(f.examples()).as(f.name()).hasSizeGreaterThanOrEqualTo(3);
            assertThat(f.about()).as(f.name()).endsWith(".");
        });
    }

    @Test
    void everyFunctionIsSaidByEveryLanguageOrRefusedForAReason() {
        for (Language language : Languages.ALL) {
            for (FunctionDef function : Functions.ALL) {
                String call = function.examples().getFirst().call();
                Outcome<String> code = language.expression(parse(call));
                boolean refused = code.problems().stream()
                        .anyMatch(p -> p.code() == Code.CANNOT_SAY
                                && !p.what().contains("no form")
                                && !p.todo().isBlank());
                assertThat(code.isPresent() || refused && Refusals.isKnown(language, call))
                        .as(language.title() + ": " + function.name() + " " + code.problems())
                        .isTrue();
            }
        }
    }

    /// What a language cannot say at all, so that nothing more is refused by mistake.
    private static final class Refusals {
        static boolean isKnown(Language language, String call) {
            boolean normal = call.contains("normalize");
            boolean decimal = call.matches(".*\\b(to_decimal|round|divide|round_to_part)\\(.*")
                    || call.matches(".*[0-9][.][0-9].*") && !call.contains("'");
            return switch (language.id()) {
                case "sqlite" -> normal || decimal || call.contains("\\2-\\1") || call.contains(")/', 1)");
                case "mariadb", "spark" -> normal;
                case "r" -> call.contains("922337203685477580") || call.contains("12345678901234567.5");
                default -> !language.isRunHere();
            };
        }
    }

    private static List<Checked> examples() {
        List<Checked> all = new ArrayList<>();
        for (FunctionDef function : Functions.ALL) {
            for (FunctionDef.Example example : function.examples()) {
                Expr call = parse(example.call());
                Expr.Literal expected = fixshelf.language.catalogue.Constants.value(parse(example.result()))
                        .orElseThrow();
                String wanted = Literals.print(expected.value());
                all.add(new Checked(example.call(), wanted, asConstant(call)));
                asColumns(call).ifPresent(e -> all.add(new Checked(example.call() + " on columns", wanted, e)));
            }
        }
        return all;
    }

    private static Evaluation asConstant(Expr call) {
        Parameter unused = new Parameter("unused", Type.TEXT, Optional.empty(), "", false);
        Definition fix = new Definition("example", List.of(unused), call.type(), new Body(List.of(), call));
        return new Evaluation(fix, List.of(List.of(Expr.Literal.text("x"))));
    }

    /// The call with every constant that need not be fixed in a column of its own.
    private static Optional<Evaluation> asColumns(Expr expr) {
        if (!(expr instanceof Expr.Call call)) {
            return Optional.empty();
        }
        List<Parameter> parameters = new ArrayList<>();
        List<Expr.Literal> row = new ArrayList<>();
        List<Expr> arguments = new ArrayList<>();
        for (int i = 0; i < call.arguments().size(); i++) {
            boolean free = !call.function().slot(i).fixed();
            if (free && call.argument(i) instanceof Expr.Literal literal && !(literal.type() instanceof Type.Unknown)) {
                String name = "x" + parameters.size();
                parameters.add(new Parameter(name, literal.type(), Optional.empty(), "", false));
                row.add(literal);
                arguments.add(new Expr.Name(name, literal.type()));
            } else {
                arguments.add(call.argument(i));
            }
        }
        if (parameters.isEmpty()) {
            return Optional.empty();
        }
        Expr body = new Expr.Call(call.function(), arguments);
        Definition fix = new Definition("example", parameters, body.type(), new Body(List.of(), body));
        return Optional.of(new Evaluation(fix, List.of(row)));
    }

    private static Expr parse(String text) {
        Outcome<Expr> outcome = ExpressionParser.parse("example", text, new Scope(Scope.Fixes.NONE));
        assertThat(outcome.problems()).as(text).isEmpty();
        return outcome.get();
    }
}
