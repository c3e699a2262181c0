package fixshelf.operations;

import fixshelf.table.Field;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/// Names for columns, of which no two are the same.
final class Naming {
    private Naming() {}

    /// The fields under these names; a blank one is called by its place, and repeats get numbers.
    static List<Field> named(List<Field> fields, List<String> names) {
        Set<String> taken = new HashSet<>();
        List<Field> named = new ArrayList<>();
        for (int i = 0; i < fields.size(); i++) {
            String base = names.get(i).isBlank() ? "column_" + (i + 1) : names.get(i);
            String name = base;
            for (int n = 2; !taken.add(name.toLowerCase(Locale.ROOT)); n++) {
                name = base + "_" + n;
            }
            named.add(fields.get(i).named(name));
        }
        return named;
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
