package fixshelf.check;

import fixshelf.language.Expr;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.FixPage.Promise;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// What came of a promise: kept on so many values, or broken by a smallest one.
public record PromiseResult(FixPage page, Promise promise, int values, Optional<Broken> broken) {

    /// The smallest input that breaks it, and what came of it.
    public record Broken(
            List<Expr.Literal> input,
            @Nullable Object once,
            @Nullable Object twice) {}

    public boolean holds() {
        return broken.isEmpty();
    }

    /// As a sentence with the smallest input that breaks it.
    public String sentence() {
        return broken.map(b -> promise.sentence() + ", but "
                        + CaseResult.shown(b.input().getFirst().value()) + " gives "
                        + CaseResult.shown(b.once())
                        + (promise == Promise.IDEMPOTENT ? ", and that gives " + CaseResult.shown(b.twice()) : ""))
                .orElse(promise.sentence() + ", on " + values + " made-up values");
    }
}
