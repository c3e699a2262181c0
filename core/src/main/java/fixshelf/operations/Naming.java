package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Given;
import fixshelf.plan.Operation;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/// Names for columns, of which no two are the same.
final class Naming {
    private Naming() {}

    /// The fields under these names; a blank one is called by its place, and repeats get numbers,
    /// of which none is a name that another of them has.
    static List<Field> named(List<Field> fields, List<String> names) {
        List<String> bases = new ArrayList<>();
        Set<String> wanted = new HashSet<>();
        for (int i = 0; i < fields.size(); i++) {
            bases.add(names.get(i).isBlank() ? "column_" + (i + 1) : names.get(i));
            wanted.add(bases.get(i).toLowerCase(Locale.ROOT));
        }
        Set<String> taken = new HashSet<>();
        List<Field> named = new ArrayList<>();
        for (int i = 0; i < fields.size(); i++) {
            String base = bases.get(i);
            String name = base;
            boolean free = taken.add(name.toLowerCase(Locale.ROOT));
            for (int n = 2; !free; n++) {
                name = base + "_" + n;
                String key = name.toLowerCase(Locale.ROOT);
                free = !wanted.contains(key) && taken.add(key);
            }
            named.add(fields.get(i).named(name));
        }
        return named;
    }

    /// Which columns a line calls otherwise than before: what they were called, and are.
    static List<Operation.Report> report(Given given, List<Field> named) {
        Map<Integer, String> now = new HashMap<>();
        named.forEach(f -> now.put(f.id(), f.name()));
        List<Field> changed = given.fields().stream()
                .filter(f -> now.containsKey(f.id()) && !now.get(f.id()).equals(f.name()))
                .toList();
        if (changed.isEmpty()) {
            return List.of();
        }
        Map<String, String> rows = new LinkedHashMap<>();
        changed.forEach(f -> rows.put(f.name(), Objects.requireNonNull(now.get(f.id()))));
        return List.of(new Operation.Report(
                "names", told(given, "was", "is_now", rows), "columns with another name", false, true));
    }

    /// A table of two columns of texts that are known before any row is seen.
    static Relation told(Given given, String first, String second, Map<String, String> rows) {
        Relation one = new Relation.Group(
                given.before(),
                List.of(),
                List.of(new Grouped(given.helper("rows_before", Type.INTEGER), Aggregate.ROWS, Optional.empty())));
        List<Computed> cells = new ArrayList<>();
        rows.values()
                .forEach(text -> cells.add(
                        new Computed(given.helper("told_" + (cells.size() + 1), Type.TEXT), Expr.Literal.text(text))));
        Field key = given.field(first, Type.TEXT);
        Field value = given.field(second, Type.TEXT);
        Relation unpivoted = new Relation.Unpivot(
                new Relation.Compute(one, cells),
                cells.stream().map(c -> List.of(c.made())).toList(),
                List.copyOf(rows.keySet()),
                key,
                List.of(value),
                true);
        return new Relation.Pick(unpivoted, new Shape(List.of(key, value)));
    }

    /// The fields under the names that rows of a heading give. In all but the last of them a name goes on to the
    /// right, over cells where nothing stands.
    static List<Field> fromRows(List<Field> fields, List<List<@Nullable Object>> rows, String joiner) {
        List<String> names = new ArrayList<>();
        List<String> carried = new ArrayList<>(java.util.Collections.nCopies(rows.size(), ""));
        for (int c = 0; c < fields.size(); c++) {
            List<String> parts = new ArrayList<>();
            for (int r = 0; r < rows.size(); r++) {
                Object cell = rows.get(r).get(c);
                String text = cell == null ? "" : cell.toString().strip();
                boolean last = r == rows.size() - 1;
                carried.set(r, text.isEmpty() && !last ? carried.get(r) : text);
                if (!carried.get(r).isEmpty()) {
                    parts.add(carried.get(r));
                }
            }
            names.add(parts.isEmpty() ? fields.get(c).name() : String.join(joiner, parts));
        }
        return named(fields, names);
    }
}
