package fixshelf.render;

import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.type.Literals;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/// Which fixes a fix calls.
public final class Calls {
    private Calls() {}

    /// The fixes that a fix calls, each before those that call it, the fix itself last; all as functions have them.
    public static List<Definition> neededBy(Definition fix) {
        Map<String, Definition> needed = new LinkedHashMap<>();
        collect(prepared(fix), needed);
        return new ArrayList<>(needed.values());
    }

    private static void collect(Definition fix, Map<String, Definition> needed) {
        called(fix).forEach(c -> collect(prepared(c), needed));
        needed.putIfAbsent(fix.name(), fix);
    }

    /// A fix that calls one which takes a list has that one's body in its own.
    private static Definition prepared(Definition fix) {
        Definition made = asFunction(fix);
        return called(made).stream().anyMatch(Calls::takesList) ? withBody(made, made.parameters(), Map.of()) : made;
    }

    /// The fix as a function has it: lists and mappings exist only while code is written, and are at their defaults.
    public static Definition asFunction(Definition fix) {
        Map<String, Expr> given = new HashMap<>();
        fix.parameters().stream().filter(p -> p.type().isFixed()).forEach(p -> p.fallback()
                .ifPresent(f -> given.put(p.name().toLowerCase(Locale.ROOT), f)));
        List<Parameter> left = fix.parameters().stream()
                .filter(p -> !given.containsKey(p.name().toLowerCase(Locale.ROOT)))
                .toList();
        return given.isEmpty() ? fix : withBody(fix, left, given);
    }

    /// What a reader of the function has to know of the lists and mappings in it.
    public static String about(Definition fix, String about) {
        String remarks = fix.parameters().stream()
                .filter(p -> p.type().isFixed())
                .flatMap(p -> p.fallback().stream()
                        .map(f -> " " + p.name() + " is always " + Literals.print(f.value()) + " in it."))
                .collect(Collectors.joining());
        return about.isBlank() ? about : about + remarks;
    }

    private static Definition withBody(Definition fix, List<Parameter> parameters, Map<String, Expr> given) {
        return new Definition(
                fix.name(), parameters, fix.returns(), new Body(List.of(), Inliner.body(fix.body(), given)));
    }

    private static boolean takesList(Definition fix) {
        return fix.parameters().stream().anyMatch(p -> p.type().isFixed());
    }

    private static Set<Definition> called(Definition fix) {
        return Stream.concat(
                        fix.body().assignments().stream().map(Body.Assignment::value),
                        Stream.of(fix.body().result()))
                .flatMap(value -> value.parts().stream())
                .filter(Expr.FixCall.class::isInstance)
                .map(call -> ((Expr.FixCall) call).fix())
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }
}
