package fixshelf.check;

import fixshelf.language.checking.ExpressionParser;
import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/// Expressions of the tests as fixes over parameters of every type, which are known by their letters.
final class Expressions {
    private static final List<Parameter> PARAMETERS = List.of(
            parameter("s", Type.TEXT),
            parameter("t", Type.TEXT),
            parameter("n", Type.INTEGER),
            parameter("m", Type.INTEGER),
            parameter("d", new Type.Decimal(18, 4)),
            parameter("e", new Type.Decimal(9, 2)),
            parameter("x", Type.DATE),
            parameter("y", Type.DATE),
            parameter("u", Type.TIMESTAMP),
            parameter("v", Type.TIMESTAMP),
            parameter("f", Type.NUMBER),
            parameter("g", Type.NUMBER),
            parameter("p", Type.BOOLEAN),
            parameter("q", Type.BOOLEAN));

    private Expressions() {}

    /// Whether it can be read, and its types fit.
    static boolean isRight(String text) {
        return ExpressionParser.parse("e", text, scope(named(text))).isPresent();
    }

    private static List<Parameter> named(String text) {
        return PARAMETERS.stream()
                .filter(p -> Pattern.compile("\\b" + p.name() + "\\b(?![('])")
                        .matcher(text)
                        .find())
                .toList();
    }

    private static Scope scope(List<Parameter> parameters) {
        Scope scope = new Scope(Scope.Fixes.NONE);
        parameters.forEach(p -> scope.add(new Scope.Binding(p.name(), p.type(), Scope.Kind.PARAMETER)));
        return scope;
    }

    /// A fix with the parameters that the expression names, in their order above.
    static Definition fix(String text) {
        List<Parameter> parameters = named(text);
        Expr body = ExpressionParser.parse("e", text, scope(parameters)).get();
        return new Definition("tried", parameters, body.type(), new Body(List.of(), body));
    }

    static Subject subject(String text) {
        return new Subject(text, fix(text), Optional.empty());
    }

    /// What differs, or was not run.
    static List<String> wrong(List<ParityResult> results) {
        return results.stream()
                .filter(r -> r.differs() || r.verdict() instanceof ParityResult.NotRun)
                .map(r -> r.subject().name() + ": " + r.mark() + ", " + r.detail())
                .toList();
    }

    private static Parameter parameter(String name, Type type) {
        return new Parameter(name, type, Optional.empty(), "", false);
    }
}
