package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.language.Expr;
import fixshelf.language.ExpressionParser;
import fixshelf.language.FunctionDef;
import fixshelf.language.Functions;
import fixshelf.language.Printer;
import fixshelf.language.Scope;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Functions inside functions, put together at random: what each means alone it also means inside another, whatever
/// signs, parentheses and types the languages need for it.
public class NestedExpressionsTest {
    /// Others are tried with `-Dnested.seed=…`, more of them with `-Dnested.count=…`.
    private static final long SEED = Long.getLong("nested.seed", 5);

    private static final int EXPRESSIONS = Integer.getInteger("nested.count", 150);
    private static final int VALUES = 60;

    private static final Map<String, List<String>> NAMES = Map.of(
            "text", List.of("s", "t"),
            "integer", List.of("n", "m"),
            "date", List.of("x", "y"),
            "timestamp", List.of("u", "v"),
            "number", List.of("f", "g"));

    /// The calls of all examples, with what they give.
    private static List<Expr.Call> templates() {
        List<Expr.Call> calls = new ArrayList<>();
        for (FunctionDef function : Functions.ALL) {
            function.examples().stream()
                    .map(e -> ExpressionParser.parse("e", e.call(), new Scope(Scope.Fixes.NONE))
                            .get())
                    .filter(Expr.Call.class::isInstance)
                    .map(Expr.Call.class::cast)
                    .forEach(calls::add);
        }
        return calls;
    }

    private static final List<Expr.Call> TEMPLATES = templates();

    /// An expression of a type: a parameter, or an example whose open arguments are such expressions again.
    private static String node(Type type, int depth, Random random) {
        List<String> names = NAMES.getOrDefault(type.label(), List.of());
        List<Expr.Call> fitting = TEMPLATES.stream()
                .filter(c -> c.type().label().equals(type.label()))
                .toList();
        boolean leaf = depth == 0 || fitting.isEmpty();
        if (leaf && !names.isEmpty()) {
            return names.get(random.nextInt(names.size()));
        }
        if (fitting.isEmpty()) {
            return "NULL";
        }
        Expr.Call call = fitting.get(random.nextInt(fitting.size()));
        List<Expr> arguments = new ArrayList<>();
        Scope scope = new Scope(Scope.Fixes.NONE);
        for (int i = 0; i < call.arguments().size(); i++) {
            Expr argument = call.argument(i);
            boolean open = !call.function().slot(i).fixed() && !(argument.type() instanceof Type.Unknown);
            if (!open || leaf) {
                arguments.add(argument);
                continue;
            }
            // A name that stands for the text of the inner expression until the whole is printed.
            String inner = "(" + node(argument.type(), depth - 1, random) + ")";
            arguments.add(new Expr.Name(inner, argument.type()));
            scope.add(new Scope.Binding(inner, argument.type(), Scope.Kind.PARAMETER));
        }
        String text = Printer.print(new Expr.Call(call.function(), arguments));
        for (Expr argument : arguments) {
            if (argument instanceof Expr.Name(String inner, Type _)) {
                text = text.replace('"' + inner.replace("\"", "\"\"") + '"', inner);
            }
        }
        return text;
    }

    private static List<Subject> subjects() {
        Random random = new Random(SEED);
        List<Type> types = List.of(Type.TEXT, Type.TEXT, Type.INTEGER, Type.BOOLEAN, Type.DATE, Type.TIMESTAMP);
        Set<String> texts = new LinkedHashSet<>();
        List<Subject> subjects = new ArrayList<>();
        for (int i = 0; subjects.size() < EXPRESSIONS && i < 20 * EXPRESSIONS; i++) {
            String text = node(types.get(i % types.size()), 2 + i % 2, random);
            // A pattern or a type that does not fit what came inside makes it no expression.
            if (texts.add(text) && text.length() < 600 && Expressions.isRight(text)) {
                Subject subject = Expressions.subject(text);
                if (!subject.fix().parameters().isEmpty()) {
                    subjects.add(subject);
                }
            }
        }
        return subjects;
    }

    private static final List<Subject> SUBJECTS = subjects();

    static Stream<FixEngine> others() {
        return Engines.all().skip(1);
    }

    @ParameterizedTest
    @MethodSource("others")
    void meanTheSameInsideOneAnother(FixEngine engine) {
        meanTheSameIn(engine, EXPRESSIONS);
    }

    /// Also for the engines of other modules.
    public static void meanTheSameIn(FixEngine engine, int count) {
        Engines.assumeHere(engine);
        assertThat(SUBJECTS).hasSize(EXPRESSIONS);
        List<ParityResult> results = Parity.check(
                FixEngines.ALL.getFirst(), List.of(engine), SUBJECTS.subList(0, count), Parity.Settings.of(VALUES));
        assertThat(Expressions.wrong(results)).as(engine.language().title()).isEmpty();
        assertThat(results.stream().filter(r -> r.verdict() instanceof ParityResult.Same))
                .hasSizeGreaterThan(count / 2);
    }
}
