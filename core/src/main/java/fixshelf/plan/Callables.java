package fixshelf.plan;

import fixshelf.language.checking.Scope;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;

/// What lines can call, by name: built-in operations, then the fixes of a shelf.
///
/// @param tables the table fixes of the shelf
/// @param words what a fix says of itself: its sentence, with `{parameter}` for its blanks
public record Callables(
        List<Operation> builtIn, List<Operation> tables, Scope.Fixes fixes, Function<String, Optional<String>> words) {
    public Callables {
        tables = List.copyOf(tables);
        builtIn = List.copyOf(builtIn);
    }

    /// What a line calls by that name. Names of fixes are matched without regard to case, as in expressions.
    public Optional<Operation> find(String name) {
        Optional<Operation> operation = Stream.concat(
                        builtIn.stream().filter(o -> o.name().equals(name)),
                        tables.stream().filter(o -> o.name().equalsIgnoreCase(name)))
                .findFirst();
        if (operation.isPresent()) {
            return operation;
        }
        return fixes.find(name) instanceof Scope.Found.Ready(var fix)
                ? Optional.of(new FixOperation(fix, words.apply(fix.name()).orElse("")))
                : Optional.empty();
    }

    /// All names, for suggestions.
    public List<String> names() {
        List<String> names =
                new ArrayList<>(builtIn.stream().map(Operation::name).toList());
        tables.forEach(t -> names.add(t.name()));
        names.addAll(fixes.names());
        return names;
    }
}
