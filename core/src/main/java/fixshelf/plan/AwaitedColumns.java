package fixshelf.plan;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// What lines with problems would have given: a later line that misses it has no fault of its own, and says once which
/// line it waits for.
final class AwaitedColumns {
    private final Map<String, Integer> lines = new HashMap<>();
    private Optional<Integer> anything = Optional.empty();

    /// Notes a line that could not be understood. One that brings in columns of another table, or calls what is not
    /// there, could have given any column.
    void add(int number, Line line, Optional<Operation> operation) {
        line.blanks().values().forEach(w -> note(number, w));
        operation.ifPresent(o -> o.blanks().forEach(b -> b.fallback().ifPresent(w -> note(number, w))));
        boolean open = operation.isEmpty()
                || operation.get().blanks().stream()
                        .anyMatch(b -> b.kind() == ValueKinds.SOURCE || b.kind() == ValueKinds.LINE);
        anything = anything.or(() -> open ? Optional.of(number) : Optional.empty());
    }

    private void note(int number, Written written) {
        switch (written) {
            case Written.Word(String text) -> lines.putIfAbsent(text.toLowerCase(Locale.ROOT), number);
            case Written.Items(List<Written> items) -> items.forEach(w -> note(number, w));
            case Written.Fields(Map<String, Written> fields) ->
                fields.forEach((name, value) -> {
                    note(number, Written.word(name));
                    note(number, value);
                });
        }
    }

    /// Puts one problem in the place of all those of a line that only miss such columns.
    void settle(List<Problem> found, int number) {
        List<Problem> own = new ArrayList<>();
        Optional<Problem> waits = Optional.empty();
        for (Problem problem : found) {
            Optional<Integer> other = missing(problem);
            if (other.isEmpty()) {
                own.add(problem);
            } else if (waits.isEmpty()) {
                waits = Optional.of(Problem.error(
                        Code.NO_SUCH_COLUMN,
                        problem.where(),
                        "Line " + number + " waits for line " + other.get() + ", which has a problem: there is no "
                                + "column " + problem.words() + " yet.",
                        "Mend line " + other.get() + " first."));
            }
        }
        found.clear();
        found.addAll(own);
        waits.ifPresent(found::add);
    }

    /// The line that would have given what a problem misses.
    private Optional<Integer> missing(Problem problem) {
        boolean about = problem.code() == Code.NO_SUCH_COLUMN && problem.what().endsWith(Refusal.HERE)
                || problem.code() == Code.UNKNOWN_NAME;
        return about && !problem.words().isEmpty()
                ? Optional.ofNullable(lines.get(problem.words().toLowerCase(Locale.ROOT)))
                        .or(() -> anything)
                : Optional.empty();
    }
}
