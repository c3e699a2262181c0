package fixshelf.check;

import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Lexer;
import fixshelf.language.tree.Parameter;
import fixshelf.shelf.FixPage;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;

/// Rows of arguments for a fix: those of its cases, the edges of every type, and made-up ones into which the texts
/// that stand in the fix are woven. The same seed makes the same rows.
final class Inputs {
    private final Definition fix;
    private final Optional<FixPage> page;
    private final long seed;

    Inputs(Definition fix, Optional<FixPage> page, long seed) {
        this.fix = fix;
        this.page = page;
        this.seed = seed;
    }

    /// The arguments of the cases, defaults filled in.
    List<List<Expr.Literal>> ofCases() {
        return page.stream()
                .flatMap(p -> p.cases().stream())
                .map(c -> Cases.row(fix, c))
                .toList();
    }

    /// At least all edges for the first parameter, and `count` rows where its type has that many values.
    List<List<Expr.Literal>> madeUp(int count) {
        Random random = new Random(seed);
        return new MadeUpValues(seed, words())
                .of(fix.parameters().getFirst().type(), count).stream()
                        .map(first -> row(first, random))
                        .toList();
    }

    /// The texts that stand in the body and in the cases.
    private List<String> words() {
        String body = page.map(FixPage::bodyText).orElse("");
        Stream<String> inBody = Lexer.tokens(body).stream()
                .filter(t -> t.kind() == Lexer.Kind.TEXT)
                .map(t -> t.in(body))
                .filter(t -> t.startsWith("'"))
                .map(t -> t.substring(1, t.length() - 1).replace("''", "'"));
        Stream<String> inCases = ofCases().stream()
                .flatMap(List::stream)
                .map(Expr.Literal::value)
                .filter(String.class::isInstance)
                .map(String.class::cast);
        return Stream.concat(inBody, inCases).distinct().toList();
    }

    /// The value with the other parameters: their defaults, or those of a case, or a made-up value.
    private List<Expr.Literal> row(Expr.Literal first, Random random) {
        List<Expr.Literal> row = new ArrayList<>();
        row.add(first);
        for (Parameter parameter : fix.parameters().subList(1, fix.parameters().size())) {
            List<Expr.Literal> known = known(parameter);
            boolean made = known.isEmpty() || page.isEmpty() && !parameter.fixed();
            row.add(made ? madeUp(parameter, random) : known.get(random.nextInt(known.size())));
        }
        return row;
    }

    private List<Expr.Literal> known(Parameter parameter) {
        return Stream.concat(
                        parameter.fallback().stream(),
                        page.stream()
                                .flatMap(p -> p.cases().stream())
                                .flatMap(
                                        c -> Optional.ofNullable(c.arguments()
                                                        .get(parameter.name().toLowerCase(Locale.ROOT)))
                                                .stream()))
                .filter(v -> v.value() != null)
                .toList();
    }

    private Expr.Literal madeUp(Parameter parameter, Random random) {
        if (parameter.fixed()) {
            return new Expr.Literal("a", parameter.type());
        }
        List<Expr.Literal> values = new MadeUpValues(random.nextLong(), words()).of(parameter.type(), 60);
        return values.get(random.nextInt(values.size()));
    }
}
