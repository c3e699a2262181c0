package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.language.catalogue.Functions;
import fixshelf.language.emulation.ConstantArguments;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Wants;
import fixshelf.language.tree.Parameter;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Every function whose texts must be known when code is written, with each of them through a parameter: the empty
/// text, one that begins again in itself, and signs that mean something in patterns, replacements and sets.
class FixedArgumentsTest {
    private static final List<String> GIVEN =
            List.of("", "a", " ", "aa", "é", "😀", "]", "^-", "\\", ".", "$1", "\\1", "a]^-\\", "%", "''", "--", ", ");
    private static final List<String> TEXTS = List.of(
            "", " ", "a", "aaa", "-a]^b", "a\\b", "\\1a$1", "x.y", " é 😀 ", "5%_", "''a''", "^-^-a^-", "a]a", "\\\\",
            "a---", "--a--", "a, b,, ");

    private record Asked(FunctionDef function, Evaluation evaluation) {}

    /// A call of each function with all its fixed texts as parameters; numbers are those of an example.
    private static List<Asked> all() {
        List<Asked> all = new ArrayList<>();
        for (FunctionDef function : Functions.ALL) {
            boolean texts = function.slots().stream().anyMatch(s -> s.fixed() && s.wants() == Wants.TEXT);
            boolean read = function.group() == FunctionDef.Group.TEXT || function.group() == FunctionDef.Group.LIST;
            boolean known =
                    function.slots().stream().noneMatch(s -> s.wants() == Wants.LIST || s.wants() == Wants.MAPPING);
            if (texts && read && known) {
                all.add(asked(function));
            }
        }
        return all;
    }

    private static Asked asked(FunctionDef function) {
        List<Parameter> parameters = new ArrayList<>();
        List<Expr> arguments = new ArrayList<>();
        // The text that is worked on comes first, also where the function has its separator there.
        List<Parameter> fixed = new ArrayList<>();
        for (int i = 0; i < function.slots().size(); i++) {
            FunctionDef.Slot slot = function.slot(i);
            boolean text = slot.wants() == Wants.TEXT;
            Parameter parameter = new Parameter("p" + i, Type.TEXT, Optional.empty(), "", slot.fixed());
            if (text) {
                (slot.fixed() ? fixed : parameters).add(parameter);
            }
            arguments.add(text ? new Expr.Name(parameter.name(), Type.TEXT) : Expr.Literal.integer(2));
        }
        parameters.addAll(fixed);
        Expr body = new Expr.Call(function, arguments);
        Definition fix = new Definition("tried", parameters, body.type(), new Body(List.of(), body));
        return new Asked(function, new Evaluation(fix, rows(fix, function)));
    }

    private static List<List<Expr.Literal>> rows(Definition fix, FunctionDef function) {
        List<List<Expr.Literal>> rows = new ArrayList<>(List.of(List.of()));
        for (Parameter parameter : fix.parameters()) {
            List<String> values = parameter.fixed() ? GIVEN : TEXTS;
            boolean second = parameter.fixed()
                    && rows.getFirst().stream().skip(1).findAny().isPresent();
            rows = rows.stream()
                    .flatMap(r -> values.stream()
                            .filter(v -> !second || v.length() < 2)
                            .map(v -> Stream.concat(r.stream(), Stream.of(Expr.Literal.text(v)))
                                    .toList()))
                    .toList();
        }
        return rows.stream().filter(r -> isTaken(fix, function, r)).toList();
    }

    private static boolean isTaken(Definition fix, FunctionDef function, List<Expr.Literal> row) {
        Map<String, Object> values = named(fix, row);
        List<Expr> arguments = ((Expr.Call) fix.body().result())
                .arguments().stream()
                        .map(a -> a instanceof Expr.Name(String name, Type _)
                                ? Expr.Literal.text((String) values.get(name))
                                : a)
                        .toList();
        return ConstantArguments.problemWith(function, arguments).isEmpty();
    }

    private static Map<String, Object> named(Definition fix, List<Expr.Literal> row) {
        Map<String, Object> values = new HashMap<>();
        for (int i = 0; i < row.size(); i++) {
            values.put(fix.parameters().get(i).name(), row.get(i).value());
        }
        return values;
    }

    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @ParameterizedTest
    @MethodSource("engines")
    void meanTheSameThroughAParameter(FixEngine engine) {
        Engines.assumeHere(engine);
        List<Asked> all = all();
        assertThat(all).hasSizeGreaterThan(18);
        List<List<Answer>> answers =
                engine.run(all.stream().map(Asked::evaluation).toList());
        List<String> wrong = new ArrayList<>();
        for (int f = 0; f < all.size(); f++) {
            Definition fix = all.get(f).evaluation().fix();
            for (int i = 0; i < answers.get(f).size(); i++) {
                List<Expr.Literal> row = all.get(f).evaluation().rows().get(i);
                Object expected = TreeMeaning.of(fix.body().result(), named(fix, row));
                Answer answer = answers.get(f).get(i);
                if (!(answer instanceof Answer.NotSaid) && !answer.equals(new Answer.Value(expected))) {
                    wrong.add(all.get(f).function().name()
                            + row.stream().map(v -> Literals.print(v.value())).toList() + " gives " + answer + ", not "
                            + Literals.print(expected));
                }
            }
        }
        assertThat(wrong).as(engine.language().title()).isEmpty();
    }
}
