package fixshelf.problem;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/// What came of an attempt: a value, or problems, or both when the problems are only warnings.
///
/// `value` is empty exactly when something stopped the attempt.
public record Outcome<T>(Optional<T> value, List<Problem> problems) {
    public Outcome {
        problems = List.copyOf(problems);
    }

    public static <T> Outcome<T> of(T value) {
        return new Outcome<>(Optional.of(value), List.of());
    }

    public static <T> Outcome<T> of(T value, List<Problem> problems) {
        return new Outcome<>(Optional.of(value), problems);
    }

    public static <T> Outcome<T> failed(Problem problem) {
        return new Outcome<>(Optional.empty(), List.of(problem));
    }

    public static <T> Outcome<T> failed(List<Problem> problems) {
        return new Outcome<>(Optional.empty(), problems);
    }

    /// Goes on with the value if there is one; the problems of both attempts are kept.
    public <R> Outcome<R> then(Function<T, Outcome<R>> next) {
        if (value.isEmpty()) {
            return failed(problems);
        }
        Outcome<R> after = next.apply(value.get());
        List<Problem> all = new ArrayList<>(problems);
        all.addAll(after.problems);
        return new Outcome<>(after.value, all);
    }

    public <R> Outcome<R> map(Function<T, R> change) {
        return new Outcome<>(value.map(change), problems);
    }

    public boolean isPresent() {
        return value.isPresent();
    }

    /// The value; asking for one that is not there is a fault of the caller, and says what the problems were.
    public T get() {
        return value.orElseThrow(() -> new IllegalStateException(problems.toString()));
    }
}
