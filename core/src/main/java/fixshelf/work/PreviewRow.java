package fixshelf.work;

import fixshelf.engine.Grid;
import fixshelf.table.Field;
import fixshelf.type.Literals;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/// A row as a grid shows it.
///
/// @param number its place in the table, from 1
/// @param mark whether it stays or leaves, where that is the question
public record PreviewRow(long number, Mark mark, List<Cell> cells) {
    /// What happens to a row.
    public enum Mark {
        NONE,
        STAYS,
        LEAVES,
        /// Only the later of two tables has it.
        ONLY_LATER
    }

    /// A value, and what it was before the line if the line changed it.
    public record Cell(@Nullable Object value, @Nullable Object was, boolean changed) {}

    /// What a field was before the line.
    static String was(Field field) {
        return "w" + field.id();
    }

    static List<PreviewRow> of(Grid grid, List<Field> fields) {
        Map<String, Integer> places = new HashMap<>();
        for (int i = 0; i < grid.columns().size(); i++) {
            places.put(grid.columns().get(i).name(), i);
        }
        int row = places.get("p");
        int stays = places.getOrDefault("stays", -1);
        List<PreviewRow> rows = new ArrayList<>();
        for (List<@Nullable Object> values : grid.rows()) {
            List<Cell> cells = new ArrayList<>();
            for (Field field : fields) {
                Object value = values.get(places.get(field.key()));
                int was = places.getOrDefault(was(field), -1);
                Object before = was < 0 ? value : values.get(was);
                boolean changed = was >= 0 && !Objects.equals(text(value), text(before));
                cells.add(new Cell(value, before, changed));
            }
            Mark mark = stays < 0 ? Mark.NONE : Boolean.TRUE.equals(values.get(stays)) ? Mark.STAYS : Mark.LEAVES;
            rows.add(new PreviewRow(((Number) Objects.requireNonNull(values.get(row))).longValue() + 1, mark, cells));
        }
        return rows;
    }

    private static @Nullable String text(@Nullable Object value) {
        return value == null ? null : Literals.bare(value);
    }
}
