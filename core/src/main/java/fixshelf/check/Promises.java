package fixshelf.check;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.FixEngine;
import fixshelf.language.Body;
import fixshelf.language.Definition;
import fixshelf.language.Expr;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.FixPage.Promise;
import fixshelf.shelf.Shelf;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Looks for values that break a promise, and makes the one it finds as small as it can.
public final class Promises {
    public static final int VALUES = 400;
    public static final long SEED = 20_260_207L;

    private final FixEngine engine;
    private final FixPage page;
    private final Definition fix;
    private final Promise promise;

    private Promises(FixEngine engine, FixPage page, Definition fix, Promise promise) {
        this.engine = engine;
        this.page = page;
        this.fix = fix;
        this.promise = promise;
    }

    /// The results for all promises of these fixes; a fix that does not compile has none.
    public static List<PromiseResult> run(Shelf shelf, List<FixPage> pages, FixEngine engine) {
        List<PromiseResult> results = new ArrayList<>();
        for (FixPage page : pages) {
            shelf.definition(page).value().ifPresent(fix -> page.promises()
                    .forEach(promise -> results.add(new Promises(engine, page, fix, promise).look())));
        }
        return results;
    }

    private PromiseResult look() {
        if (promise == Promise.IDEMPOTENT
                && !fix.returns().equals(fix.parameters().getFirst().type())) {
            return new PromiseResult(
                    page,
                    promise,
                    0,
                    Optional.of(new PromiseResult.Broken(
                            List.of(new Expr.Literal(null, fix.returns())),
                            "it gives another type than it takes",
                            null)));
        }
        List<List<Expr.Literal>> rows = new Inputs(fix, Optional.of(page), SEED).madeUp(VALUES);
        Optional<PromiseResult.Broken> broken = firstBroken(rows);
        while (broken.isPresent()) {
            Optional<PromiseResult.Broken> smaller = smaller(broken.get());
            if (smaller.isEmpty()) {
                break;
            }
            broken = smaller;
        }
        return new PromiseResult(page, promise, rows.size(), broken);
    }

    private Optional<PromiseResult.Broken> smaller(PromiseResult.Broken broken) {
        List<List<Expr.Literal>> rows = MadeUpValues.smaller(broken.input().getFirst()).stream()
                .<List<Expr.Literal>>map(first -> {
                    List<Expr.Literal> row = new ArrayList<>(broken.input());
                    row.set(0, first);
                    return row;
                })
                .toList();
        return rows.isEmpty() ? Optional.empty() : firstBroken(rows);
    }

    private Optional<PromiseResult.Broken> firstBroken(List<List<Expr.Literal>> rows) {
        List<Answer> once = engine.run(List.of(new Evaluation(fix, rows))).getFirst();
        List<Answer> twice = promise == Promise.IDEMPOTENT
                ? engine.run(List.of(new Evaluation(twice(), rows))).getFirst()
                : once;
        for (int i = 0; i < rows.size(); i++) {
            if (once.get(i) instanceof Answer.Value(Object first)
                    && twice.get(i) instanceof Answer.Value(Object second)
                    && isBroken(rows.get(i).getFirst().value(), first, second)) {
                return Optional.of(new PromiseResult.Broken(rows.get(i), first, second));
            }
        }
        return Optional.empty();
    }

    private boolean isBroken(@Nullable Object input, @Nullable Object once, @Nullable Object twice) {
        return switch (promise) {
            case IDEMPOTENT -> !CaseResult.same(once, twice);
            case NULL_ONLY_FROM_NULL -> input != null && once == null;
            case NEVER_NULL -> once == null;
            case NEVER_LONGER ->
                input instanceof String before && once instanceof String after && length(after) > length(before);
        };
    }

    private static int length(String text) {
        return text.codePointCount(0, text.length());
    }

    /// The fix of the fix, with the other arguments the same both times.
    private Definition twice() {
        List<Expr> names = fix.parameters().stream()
                .<Expr>map(p -> new Expr.Name(p.name(), p.type()))
                .toList();
        List<Expr> again = new ArrayList<>(names);
        again.set(0, new Expr.FixCall(fix, names));
        return new Definition(
                fix.name() + "_twice",
                fix.parameters(),
                fix.returns(),
                new Body(List.of(), new Expr.FixCall(fix, again)));
    }
}
