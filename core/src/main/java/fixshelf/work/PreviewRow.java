package fixshelf.work;

import fixshelf.engine.Grid;
import fixshelf.engine.PlanSql;
import fixshelf.type.Column;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/// A row as a grid shows it.
///
/// @param number its place in the source, from 1
/// @param mark whether it stays or leaves, where that is the question
public record PreviewRow(long number, Mark mark, List<Cell> cells) {
    static final String WAS = "fixshelf was ";

    /// What happens to a row.
    public enum Mark {
        NONE,
        STAYS,
        LEAVES
    }

    /// A value, and what it was before the line if the line changed it.
    public record Cell(@Nullable Object value, @Nullable Object was, boolean changed) {}

    static List<PreviewRow> of(Grid grid, List<Column> columns) {
        int row = grid.indexOf(PlanSql.ROW);
        int stays = grid.indexOf("fixshelf stays");
        List<PreviewRow> rows = new ArrayList<>();
        for (List<@Nullable Object> values : grid.rows()) {
            List<Cell> cells = new ArrayList<>();
            for (Column column : columns) {
                Object value = values.get(grid.indexOf(column.name()));
                int was = grid.indexOf(WAS + column.name());
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
        return value == null ? null : value.toString();
    }
}
