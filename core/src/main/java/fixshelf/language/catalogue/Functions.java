package fixshelf.language.catalogue;

import fixshelf.language.tree.FunctionDef;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/// The function catalogue: one list, from which everything else is made.
public final class Functions {
    private Functions() {}

    public static final List<FunctionDef> ALL = Stream.of(
                    TextFunctions.ALL,
                    LetterFunctions.ALL,
                    PatternFunctions.ALL,
                    NullFunctions.ALL,
                    Comparisons.ALL,
                    Conversions.ALL,
                    Arithmetic.ALL,
                    FloatFunctions.ALL,
                    DateFunctions.ALL,
                    TimeFunctions.ALL,
                    PartFunctions.ALL,
                    ListFunctions.ALL)
            .flatMap(List::stream)
            .toList();

    private static final Map<String, FunctionDef> BY_NAME = byName();

    /// The function of that name or alias, without regard to case.
    public static Optional<FunctionDef> find(String name) {
        return Optional.ofNullable(BY_NAME.get(name.toLowerCase(Locale.ROOT)));
    }

    /// The names that can be written as a call, for completion and suggestions.
    public static List<String> callableNames() {
        return ALL.stream().filter(f -> !f.isOperator()).map(FunctionDef::name).toList();
    }

    private static Map<String, FunctionDef> byName() {
        Map<String, FunctionDef> all = new HashMap<>();
        for (FunctionDef function : ALL) {
            List<String> names = new ArrayList<>(function.aliases());
            names.add(function.name());
            for (String name : names) {
                if (all.put(name.toLowerCase(Locale.ROOT), function) != null) {
                    throw new IllegalStateException("two functions are called " + name);
                }
            }
        }
        return all;
    }
}
