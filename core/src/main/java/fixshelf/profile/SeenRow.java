package fixshelf.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/// A row of a dataset as it is read.
///
/// @param place its place among the rows that are read, from 0
/// @param cells its values as texts, null for missing
public record SeenRow(long place, List<@Nullable String> cells) {
    static SeenRow of(List<@Nullable Object> row) {
        List<@Nullable String> cells = new ArrayList<>();
        row.stream().skip(1).forEach(c -> cells.add(c == null ? null : c.toString()));
        return new SeenRow((Long) Objects.requireNonNull(row.getFirst()), cells);
    }
}
