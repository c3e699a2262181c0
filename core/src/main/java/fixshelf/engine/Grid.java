package fixshelf.engine;

import fixshelf.type.Column;
import java.util.List;
import org.jspecify.annotations.Nullable;

/// Some rows of a result, with its columns. Values are plain Java objects, null for missing.
public record Grid(List<Column> columns, List<List<@Nullable Object>> rows) {
    public static final Grid EMPTY = new Grid(List.of(), List.of());

    public int indexOf(String column) {
        for (int i = 0; i < columns.size(); i++) {
            if (columns.get(i).name().equals(column)) {
                return i;
            }
        }
        return -1;
    }
}
