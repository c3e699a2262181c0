package fixshelf.render;

import fixshelf.language.Expr;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/// What has been written of one expression, and which parts of it have a name: those that would otherwise be written
/// out again wherever they are used, until no server reads the code any more.
final class SharedParts {
    private final Map<Expr, Integer> uses;
    private final boolean ofParameters;
    private final Map<Expr, Sql> written = new IdentityHashMap<>();
    private final List<Part> named = new ArrayList<>();
    private final Set<String> taken = new HashSet<>();

    /// A part with its name; it may use those that come before it.
    record Part(String name, Sql value) {}

    SharedParts(Map<Expr, Integer> uses, boolean ofParameters) {
        this.uses = uses;
        this.ofParameters = ofParameters;
        uses.keySet().forEach(e -> {
            if (e instanceof Expr.Name(String name, Type _)) {
                taken.add(name.toLowerCase(Locale.ROOT));
            }
        });
    }

    /// How often each part of an expression is used in it; parts are told apart as objects.
    static Map<Expr, Integer> uses(Expr expr) {
        Map<Expr, Integer> uses = new IdentityHashMap<>();
        count(expr, uses);
        return uses;
    }

    private static void count(Expr expr, Map<Expr, Integer> uses) {
        if (uses.merge(expr, 1, Integer::sum) > 1) {
            return;
        }
        switch (expr) {
            case Expr.Literal _, Expr.Name _ -> {}
            case Expr.Call call -> call.arguments().forEach(a -> count(a, uses));
            case Expr.FixCall call -> call.arguments().forEach(a -> count(a, uses));
            case Expr.Case(List<Expr.Branch> branches, Expr otherwise, Type _) -> {
                branches.forEach(b -> {
                    count(b.condition(), uses);
                    count(b.result(), uses);
                });
                count(otherwise, uses);
            }
        }
    }

    /// Whether the names in the expression are the parameters of a function, not columns.
    boolean isOfParameters() {
        return ofParameters;
    }

    boolean isShared(Expr expr) {
        return uses.getOrDefault(expr, 1) > 1;
    }

    Optional<Sql> known(Expr expr) {
        return Optional.ofNullable(written.get(expr));
    }

    Sql keep(Expr expr, Sql sql) {
        written.put(expr, sql);
        return sql;
    }

    /// A name of ours, with signs behind it where the expression has one like it.
    String free(String name) {
        String free = name;
        while (taken.contains(free)) {
            free += "_";
        }
        return free;
    }

    /// Gives the part a name, by which it is written from now on; `reference` says how the language says that name.
    Sql name(Expr expr, Sql sql, UnaryOperator<String> reference) {
        int number = named.size() + 1;
        String name = free("part_" + number);
        named.add(new Part(name, sql));
        return keep(expr, Sql.atom(reference.apply(name)));
    }

    List<Part> named() {
        return named;
    }
}
