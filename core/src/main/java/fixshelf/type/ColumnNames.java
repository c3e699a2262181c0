package fixshelf.type;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/// Names for columns, of which no two are the same without regard to capitals.
public final class ColumnNames {
    private ColumnNames() {}

    /// The names as far as they can be kept: a blank one becomes `column_3`, by its place, and a
    /// repeat gets `_2`, `_3`. None of those is a name that another column has by itself.
    public static List<String> distinct(List<String> wanted) {
        Set<String> written = new HashSet<>();
        wanted.forEach(n -> written.add(key(n)));
        Set<String> used = new HashSet<>();
        List<String> names = new ArrayList<>();
        for (int i = 0; i < wanted.size(); i++) {
            boolean blank = wanted.get(i).isBlank();
            String base = blank ? "column_" + (i + 1) : wanted.get(i);
            String name = base;
            boolean free = (!blank || !written.contains(key(name))) && used.add(key(name));
            for (int n = 2; !free; n++) {
                name = base + "_" + n;
                free = !written.contains(key(name)) && used.add(key(name));
            }
            names.add(name);
        }
        return names;
    }

    private static String key(String name) {
        return name.toLowerCase(Locale.ROOT);
    }
}
