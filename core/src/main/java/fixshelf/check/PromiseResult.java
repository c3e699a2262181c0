package fixshelf.check;

import fixshelf.language.tree.Expr;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Promise;
import fixshelf.type.Literals;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// What came of a promise: kept on so many values, or broken by a smallest one.
///
/// @param impossible why the types of the fix do not allow it, when they do not
public record PromiseResult(
        FixPage page, Promise promise, int values, Optional<Broken> broken, Optional<String> impossible) {

    /// The smallest input that breaks it, and what came of it.
    ///
    /// @param once what the fix gives
    /// @param then what came of that: of the fix again, or of the one that should undo it
    /// @param other for an order, the input that comes after and whose result comes before
    public record Broken(
            List<Expr.Literal> input,
            @Nullable Object once,
            @Nullable Object then,
            Optional<Expr.Literal> other) {
        Broken(List<Expr.Literal> input, @Nullable Object once, @Nullable Object then) {
            this(input, once, then, Optional.empty());
        }
    }

    public boolean holds() {
        return broken.isEmpty() && impossible.isEmpty();
    }

    /// As a sentence with the smallest input that breaks it.
    public String sentence() {
        if (impossible.isPresent()) {
            return promise.sentence() + ": that cannot be, " + impossible.get();
        }
        return broken.map(b -> promise.sentence() + ", but "
                        + CaseResult.shown(b.input().getFirst().value()) + " gives "
                        + CaseResult.shown(b.once()) + after(b))
                .orElse(promise.sentence() + ", on " + values + " made-up values");
    }

    private String after(Broken broken) {
        return switch (promise.kind()) {
            case IDEMPOTENT, UNDONE_BY -> ", and that gives " + CaseResult.shown(broken.then());
            case ORDER_KEPT ->
                broken.other()
                        .map(o -> ", and " + CaseResult.shown(o.value()) + " gives " + CaseResult.shown(broken.then()))
                        .orElse("");
            case NULL_ONLY_FROM_NULL, NEVER_NULL, NEVER_LONGER, ONE_OF, MATCHES -> "";
        };
    }

    /// The input that breaks it as the cells of a case, with the result that the fix gives now: the author writes
    /// what it should be.
    public List<String> asCase(List<String> heading) {
        return broken.stream()
                .flatMap(b -> heading.stream().map(column -> cell(column, b)))
                .toList();
    }

    private String cell(String column, Broken broken) {
        if (column.equalsIgnoreCase("result")) {
            return Literals.print(broken.once());
        }
        for (int p = 0; p < page.parameters().size(); p++) {
            if (page.parameters().get(p).name().equalsIgnoreCase(column)) {
                return Literals.print(broken.input().get(p).value());
            }
        }
        return "";
    }
}
