package fixshelf.render.sql;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/// What has been written of one expression, and which parts of it have a name: those that would otherwise be written
/// out again wherever they are used, until no server reads the code any more.
final class SharedParts {
    private static final String HOLDER = "parts";

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
        uses.put(expr, 1);
        expr.parts().forEach(p -> p.children().forEach(c -> uses.merge(c, 1, Integer::sum)));
        return uses;
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

    boolean isEmpty() {
        return named.isEmpty();
    }

    /// The result over inner queries, one around the other; each hands on the parts before it, as some servers let no
    /// query see what is around it.
    ///
    /// @param apart what makes the optimizer take a query's rows as they are, or it would write the values out
    /// again
    Sql asInnerQueries(Sql result, String apart) {
        String from = "";
        String handedOn = "";
        for (Part part : named) {
            from = "\n  FROM (SELECT " + handedOn + Sql.indent(part.value().text(), 4) + " AS " + part.name()
                    + Sql.indent(from, 2) + apart + ") AS of_" + part.name();
            handedOn += part.name() + ", ";
        }
        return Sql.atom("(SELECT " + Sql.indent(result.text(), 2) + from + ")");
    }

    /// As [#asInnerQueries], for languages that would run those as joins: a list of one row of parts, to which one part
    /// after the other is added, and at last the function of them all.
    ///
    /// @param row how a row of values is written, of their names and texts
    /// @param first a list of one such row
    /// @param of the list with a function of its element: the list, the name of the element, what becomes of it
    Sql asRow(Sql result, Function<Map<String, String>, String> row, String first, String of) {
        String list = "";
        List<String> known = new ArrayList<>();
        for (Part part : named) {
            Map<String, String> more = new LinkedHashMap<>();
            known.forEach(name -> more.put(name, inRow(name)));
            more.put(part.name(), part.value().text());
            known.add(part.name());
            String made = row.apply(more);
            list = list.isEmpty()
                    ? String.format(Locale.ROOT, first, made)
                    : String.format(Locale.ROOT, of, list, free(HOLDER), made);
        }
        return Sql.atom(String.format(Locale.ROOT, of, list, free(HOLDER), Sql.indent(result.text(), 2)));
    }

    /// How a part is called where [#asRow] is used.
    String inRow(String part) {
        return free(HOLDER) + "['" + part + "']";
    }
}
