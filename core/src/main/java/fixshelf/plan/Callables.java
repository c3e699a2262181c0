package fixshelf.plan;

import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Names;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
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

    private static final int FEW = 5;

    /// What to write in the place of a name that nothing has: the nearest names, or those of operations that are for
    /// what it says.
    public String instead(String name) {
        List<String> about = about(name);
        return Names.suggest(
                name,
                names(),
                about.isEmpty()
                        ? "Write it, or name another."
                        : "What is there for that: " + String.join(", ", about) + ".");
    }

    /// Operations that are for what a name says, where there is none of that name: those that all of its words are said
    /// of, else those of which one is, which is no shorter than four letters.
    private List<String> about(String name) {
        List<String> words = Stream.of(name.toLowerCase(Locale.ROOT).split("[_ ]+"))
                .filter(w -> !w.isEmpty())
                .toList();
        List<String> all = about(text -> words.stream().allMatch(text::contains));
        return all.isEmpty() ? about(text -> words.stream().anyMatch(w -> w.length() >= 4 && text.contains(w))) : all;
    }

    private List<String> about(Predicate<String> fits) {
        return builtIn.stream()
                .filter(o -> {
                    String said =
                            (o.name() + " " + o.sentence() + " " + o.about().purpose()).toLowerCase(Locale.ROOT);
                    return fits.test(said + " " + said.replace(" ", ""));
                })
                .map(Operation::name)
                .limit(FEW)
                .toList();
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
