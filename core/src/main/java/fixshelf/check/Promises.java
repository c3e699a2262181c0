package fixshelf.check;

import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.FixEngine;
import fixshelf.language.catalogue.Functions;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Promise;
import fixshelf.shelf.Shelf;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// Looks for values that break a promise, and makes the one it finds as small as it can.
public final class Promises {
    public static final int VALUES = 400;
    public static final long SEED = 20_260_207L;

    private final FixEngine engine;
    private final FixPage page;
    private final Definition fix;
    private final Promise promise;
    private final Optional<Definition> other;
    private final List<List<Expr.Literal>> rows;

    private Promises(FixEngine engine, FixPage page, Definition fix, Promise promise, Optional<Definition> other) {
        this.engine = engine;
        this.page = page;
        this.fix = fix;
        this.promise = promise;
        this.other = other;
        this.rows = new Inputs(fix, Optional.of(page), SEED).madeUp(VALUES);
    }

    /// The results for all promises of these fixes; a fix that does not compile has none. All are asked together, as an
    /// engine takes a moment to begin.
    public static List<PromiseResult> run(Shelf shelf, List<FixPage> pages, FixEngine engine) {
        List<Promises> asked = new ArrayList<>();
        for (FixPage page : pages) {
            shelf.definition(page).value().ifPresent(fix -> page.promises().forEach(promise -> {
                Optional<Definition> other = shelf.fix(promise.fix())
                        .flatMap(p -> shelf.definition(p).value());
                asked.add(new Promises(engine, page, fix, promise, other));
            }));
        }
        List<Evaluation> evaluations = new ArrayList<>();
        asked.forEach(p -> evaluations.addAll(p.evaluations()));
        Iterator<List<Answer>> answers = engine.run(evaluations).iterator();
        return asked.stream().map(p -> p.look(answers)).toList();
    }

    /// What has to be run to find the first value that breaks it; nothing where the types do not allow it.
    private List<Evaluation> evaluations() {
        if (impossible().isPresent()) {
            return List.of();
        }
        return ofPairs() ? List.of(new Evaluation(fix, inOrder())) : evaluations(rows);
    }

    private List<Evaluation> evaluations(List<List<Expr.Literal>> some) {
        Evaluation once = new Evaluation(fix, some);
        return after().map(next -> List.of(once, new Evaluation(next, some))).orElseGet(() -> List.of(once));
    }

    private boolean ofPairs() {
        return promise.kind() == Promise.Kind.ORDER_KEPT;
    }

    private PromiseResult look(Iterator<List<Answer>> answers) {
        Optional<String> impossible = impossible();
        if (impossible.isPresent()) {
            return new PromiseResult(page, promise, 0, Optional.empty(), impossible);
        }
        Optional<PromiseResult.Broken> broken =
                ofPairs() ? outOfOrder(inOrder(), answers.next()) : firstBroken(rows, answers);
        while (broken.isPresent()) {
            Optional<PromiseResult.Broken> smaller = ofPairs() ? smallerPair(broken.get()) : smaller(broken.get());
            if (smaller.isEmpty()) {
                break;
            }
            broken = smaller;
        }
        return new PromiseResult(page, promise, rows.size(), broken, Optional.empty());
    }

    /// Why the types of the fix do not allow such a promise.
    private Optional<String> impossible() {
        Type takes = fix.parameters().getFirst().type();
        Optional<String> why =
                switch (promise.kind()) {
                    case IDEMPOTENT ->
                        fix.returns().equals(takes)
                                ? Optional.empty()
                                : Optional.of("it gives another type than it takes");
                    case MATCHES ->
                        fix.returns().equals(Type.TEXT) ? Optional.empty() : Optional.of("its result is not text");
                    case UNDONE_BY -> undoing(takes);
                    case ONE_OF, ORDER_KEPT, NULL_ONLY_FROM_NULL, NEVER_NULL, NEVER_LONGER -> Optional.empty();
                };
        return why;
    }

    private Optional<String> undoing(Type takes) {
        if (other.isEmpty()) {
            return Optional.of("there is no fix " + promise.fix() + " that could be used");
        }
        Definition undo = other.get();
        boolean fits = fix.returns().fits(undo.parameters().getFirst().type())
                && undo.returns().equals(takes)
                && undo.parameters().stream().skip(1).allMatch(p -> p.isOptional());
        return fits ? Optional.empty() : Optional.of(promise.fix() + " does not take what it gives");
    }

    private Optional<PromiseResult.Broken> smaller(PromiseResult.Broken broken) {
        List<List<Expr.Literal>> rows = MadeUpValues.smaller(broken.input().getFirst()).stream()
                .map(first -> with(broken.input(), first))
                .toList();
        return rows.isEmpty()
                ? Optional.empty()
                : firstBroken(rows, engine.run(evaluations(rows)).iterator());
    }

    private Optional<PromiseResult.Broken> firstBroken(List<List<Expr.Literal>> tried, Iterator<List<Answer>> answers) {
        List<Answer> once = answers.next();
        List<Answer> then = after().isPresent() ? answers.next() : once;
        for (int i = 0; i < tried.size(); i++) {
            if (once.get(i) instanceof Answer.Value(Object first)
                    && then.get(i) instanceof Answer.Value(Object second)
                    && isBroken(tried.get(i).getFirst().value(), first, second)) {
                return Optional.of(new PromiseResult.Broken(tried.get(i), first, second));
            }
        }
        return Optional.empty();
    }

    private boolean isBroken(@Nullable Object input, @Nullable Object once, @Nullable Object then) {
        return switch (promise.kind()) {
            case IDEMPOTENT -> !CaseResult.same(once, then);
            case NULL_ONLY_FROM_NULL -> input != null && once == null;
            case NEVER_NULL -> once == null;
            case NEVER_LONGER ->
                input instanceof String before && once instanceof String after && length(after) > length(before);
            case ONE_OF -> once != null && promise.values().stream().noneMatch(v -> CaseResult.same(v.value(), once));
            case MATCHES -> Boolean.FALSE.equals(then);
            case UNDONE_BY -> once != null && !CaseResult.same(input, then);
            case ORDER_KEPT -> false;
        };
    }

    /// The made-up inputs in their order, all else the same.
    private List<List<Expr.Literal>> inOrder() {
        return rows.stream()
                .map(List::getFirst)
                .filter(first -> first.value() != null)
                .map(first -> with(rows.getFirst(), first))
                .sorted((a, b) -> order(a.getFirst().value(), b.getFirst().value()))
                .toList();
    }

    /// Two inputs whose results are in the other order.
    private static Optional<PromiseResult.Broken> outOfOrder(List<List<Expr.Literal>> rows, List<Answer> answers) {
        List<Integer> present = IntStream.range(0, rows.size())
                .filter(i -> answers.get(i) instanceof Answer.Value(Object value) && value != null)
                .boxed()
                .toList();
        for (int i = 1; i < present.size(); i++) {
            int first = present.get(i - 1);
            int next = present.get(i);
            Optional<PromiseResult.Broken> broken =
                    outOfOrder(rows.get(first), answers.get(first), rows.get(next), answers.get(next));
            if (broken.isPresent()) {
                return broken;
            }
        }
        return Optional.empty();
    }

    private static Optional<PromiseResult.Broken> outOfOrder(
            List<Expr.Literal> first, Answer one, List<Expr.Literal> next, Answer other) {
        return one instanceof Answer.Value(Object before)
                        && other instanceof Answer.Value(Object after)
                        && before != null
                        && after != null
                        && order(first.getFirst().value(), next.getFirst().value()) < 0
                        && order(before, after) > 0
                ? Optional.of(new PromiseResult.Broken(first, before, after, Optional.of(next.getFirst())))
                : Optional.empty();
    }

    /// A pair of which one value is smaller, and that is still out of order.
    private Optional<PromiseResult.Broken> smallerPair(PromiseResult.Broken broken) {
        Expr.Literal one = broken.input().getFirst();
        Expr.Literal other = broken.other().orElseThrow();
        List<List<Expr.Literal>> rows = new ArrayList<>();
        MadeUpValues.smaller(one)
                .forEach(s -> rows.addAll(List.of(with(broken.input(), s), with(broken.input(), other))));
        MadeUpValues.smaller(other).forEach(s -> rows.addAll(List.of(broken.input(), with(broken.input(), s))));
        if (rows.isEmpty()) {
            return Optional.empty();
        }
        List<Answer> answers = engine.run(List.of(new Evaluation(fix, rows))).getFirst();
        return IntStream.range(0, rows.size() / 2)
                .mapToObj(i ->
                        outOfOrder(rows.get(2 * i), answers.get(2 * i), rows.get(2 * i + 1), answers.get(2 * i + 1)))
                .flatMap(Optional::stream)
                .findFirst();
    }

    private static List<Expr.Literal> with(List<Expr.Literal> row, Expr.Literal first) {
        List<Expr.Literal> changed = new ArrayList<>(row);
        changed.set(0, first);
        return changed;
    }

    /// Text by code point, all else as it counts; the values are of one type.
    @SuppressWarnings("unchecked")
    private static int order(@Nullable Object a, @Nullable Object b) {
        return a instanceof String x && b instanceof String y
                ? Arrays.compare(x.codePoints().toArray(), y.codePoints().toArray())
                : ((Comparable<Object>) Objects.requireNonNull(a)).compareTo(Objects.requireNonNull(b));
    }

    private static int length(String text) {
        return text.codePointCount(0, text.length());
    }

    /// What is done with the result of the fix, with the other arguments the same both times.
    private Optional<Definition> after() {
        List<Expr> names = fix.parameters().stream()
                .<Expr>map(p -> new Expr.Name(p.name(), p.type()))
                .toList();
        Expr result = new Expr.FixCall(fix, names);
        return switch (promise.kind()) {
            case IDEMPOTENT -> {
                List<Expr> again = new ArrayList<>(names);
                again.set(0, result);
                yield Optional.of(defined(new Expr.FixCall(fix, again)));
            }
            case UNDONE_BY -> {
                Definition undo = other.orElseThrow();
                List<Expr> arguments = new ArrayList<>(List.of(result));
                undo.parameters().stream()
                        .skip(1)
                        .forEach(p -> arguments.add(p.fallback().orElseThrow()));
                yield Optional.of(defined(new Expr.FixCall(undo, arguments)));
            }
            case MATCHES ->
                Optional.of(defined(new Expr.Call(
                        Functions.find("regexp_like").orElseThrow(),
                        List.of(result, promise.values().getFirst()))));
            case NULL_ONLY_FROM_NULL, NEVER_NULL, NEVER_LONGER, ONE_OF, ORDER_KEPT -> Optional.empty();
        };
    }

    private Definition defined(Expr body) {
        return new Definition(fix.name() + "_after", fix.parameters(), body.type(), new Body(List.of(), body));
    }
}
