package fixshelf.language.checking;

import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.CommonType;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.Lexer;
import fixshelf.language.tree.Lexer.Kind;
import fixshelf.language.tree.Lexer.Token;
import fixshelf.language.tree.Names;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// Reads the body of a value fix: one expression, or `SET name = …; RETURN …;`.
public final class BodyParser {
    private final SourceText page;
    private final Span span;
    private final Scope scope;
    private final List<Problem> problems = new ArrayList<>();
    private final List<Body.Assignment> assignments = new ArrayList<>();
    private Optional<Expr> result = Optional.empty();

    private BodyParser(SourceText page, Span span, Scope scope) {
        this.page = page;
        this.span = span;
        this.scope = scope;
    }

    /// Reads the body at `span` of `page`; the result must fit the type that the fix returns.
    public static Outcome<Body> parse(SourceText page, Span span, Scope scope, Type returns) {
        BodyParser parser = new BodyParser(page, span, scope);
        parser.statements();
        if (!parser.problems.isEmpty()) {
            return Outcome.failed(parser.problems);
        }
        Expr result = parser.result.orElseThrow();
        if (!CommonType.fits(result, returns)) {
            return Outcome.failed(parser.problem(
                    Code.WRONG_TYPE,
                    span,
                    "The fix says that it returns " + returns.label() + ", the body gives "
                            + result.type().label() + ".",
                    result.type().isNumeric() && returns instanceof Type.Decimal
                            ? "Change `returns:`, or write CAST(… AS " + returns.label()
                                    + "), with round(…, scale) inside where digits may go."
                            : "Change `returns:` or convert the result."));
        }
        return Outcome.of(new Body(parser.assignments, result));
    }

    private void statements() {
        String text = page.text().substring(span.start(), span.end());
        List<Token> tokens = Lexer.tokens(text);
        List<List<Token>> statements = new ArrayList<>();
        List<Token> current = new ArrayList<>();
        for (Token token : tokens) {
            if (token.kind() == Kind.COMMENT) {
                continue;
            }
            if (token.in(text).equals(";")) {
                statements.add(current);
                current = new ArrayList<>();
            } else {
                current.add(token);
            }
        }
        statements.add(current);
        statements.removeIf(List::isEmpty);
        if (statements.isEmpty()) {
            problems.add(problem(Code.NO_BODY, span, "The body is empty.", "Write an expression such as trim(text)."));
        }
        for (int i = 0; i < statements.size(); i++) {
            statement(text, statements.get(i), i == statements.size() - 1);
        }
    }

    private void statement(String text, List<Token> tokens, boolean last) {
        String first = tokens.getFirst().in(text);
        Span whole = tokens.getFirst().span().cover(tokens.getLast().span()).shift(span.start());
        if (first.equalsIgnoreCase("set")) {
            assignment(text, tokens, whole);
            if (last) {
                problems.add(
                        problem(Code.SYNTAX, whole, "The body ends without RETURN.", "Add RETURN and an expression."));
            }
        } else if (!last) {
            problems.add(problem(
                    Code.SYNTAX, whole, "Only SET may stand before the last line.", "Begin it with SET name = "));
        } else {
            boolean keyword = first.equalsIgnoreCase("return");
            int start = keyword ? tokens.getFirst().span().end() + span.start() : whole.start();
            result = expression(new Span(start, whole.end()));
        }
    }

    private void assignment(String text, List<Token> tokens, Span whole) {
        boolean shaped = tokens.size() > 3
                && (tokens.get(1).kind() == Kind.NAME || tokens.get(1).kind() == Kind.QUOTED_NAME)
                && tokens.get(2).in(text).equals("=");
        if (!shaped) {
            problems.add(
                    problem(Code.SYNTAX, whole, "This is not SET name = expression.", "Give it a name and a value."));
            return;
        }
        String written = tokens.get(1).in(text);
        String name = tokens.get(1).kind() == Kind.QUOTED_NAME
                ? written.substring(1, written.length() - 1).replace("\"\"", "\"")
                : written;
        Span nameSpan = tokens.get(1).span().shift(span.start());
        Names.problemWith(name)
                .ifPresent(why -> problems.add(problem(Code.BAD_FIELD, nameSpan, why, "Write SET tidy = …, say.")));
        Optional<Expr> value = expression(new Span(tokens.get(2).span().end() + span.start(), whole.end()));
        Type type = value.map(Expr::type).orElse(Type.UNKNOWN);
        if (!scope.add(new Scope.Binding(name, type, Scope.Kind.INTERMEDIATE))) {
            problems.add(
                    problem(Code.DUPLICATE_NAME, nameSpan, "There is already a " + name + ".", "Choose another name."));
        }
        value.ifPresent(v -> assignments.add(new Body.Assignment(name, v)));
    }

    private Optional<Expr> expression(Span where) {
        Outcome<Expr> outcome = ExpressionParser.parse(page, where, scope);
        problems.addAll(outcome.problems());
        return outcome.value();
    }

    private Problem problem(Code code, Span where, String what, String todo) {
        return Problem.error(code, new Where(page, where), what, todo);
    }

    /// The parameters that stand where a value must be known when code is written, also through called fixes.
    public static Set<String> fixedNames(Body body) {
        Set<String> names = new HashSet<>();
        body.assignments().forEach(a -> collectFixed(a.value(), names));
        collectFixed(body.result(), names);
        return names;
    }

    private static void collectFixed(Expr expr, Set<String> names) {
        switch (expr) {
            case Expr.Literal _, Expr.Name _ -> {}
            case Expr.Case choice -> choice.children().forEach(c -> collectFixed(c, names));
            case Expr.Call(FunctionDef function, List<Expr> arguments, Type _) -> {
                for (int i = 0; i < arguments.size(); i++) {
                    collect(arguments.get(i), function.slot(i).fixed(), names);
                }
            }
            case Expr.FixCall(Definition fix, List<Expr> arguments) -> {
                for (int i = 0; i < arguments.size(); i++) {
                    collect(arguments.get(i), fix.parameters().get(i).fixed(), names);
                }
            }
        }
    }

    private static void collect(Expr argument, boolean fixed, Set<String> names) {
        if (fixed && argument instanceof Expr.Name name) {
            names.add(Inliner.key(name.name()));
        } else if (fixed && argument instanceof Expr.Call joined) {
            joined.arguments().forEach(a -> collect(a, true, names));
        } else {
            collectFixed(argument, names);
        }
    }
}
