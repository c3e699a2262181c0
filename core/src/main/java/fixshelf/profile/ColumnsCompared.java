package fixshelf.profile;

import fixshelf.problem.Outcome;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// The columns of several tables beside each other, by their names without regard to capitals.
///
/// @param tables what the tables are called
/// @param rows the columns, in the order in which they come first
public record ColumnsCompared(List<String> tables, List<Row> rows) {
    public ColumnsCompared {
        tables = List.copyOf(tables);
        rows = List.copyOf(rows);
    }

    /// A column by name.
    ///
    /// @param in what it is in each table; none where it is not there
    public record Row(String name, List<Optional<ColumnLook>> in) {
        public Row {
            in = List.copyOf(in);
        }

        /// Whether it is in every table, written and read alike.
        public boolean isSame() {
            return in.stream().allMatch(Optional::isPresent)
                    && in.stream().map(c -> kind(c.orElseThrow())).distinct().count() == 1
                    && in.stream().map(c -> c.orElseThrow().name()).distinct().count() == 1;
        }

        /// What differs, in words; empty where nothing does.
        public String difference(List<String> tables) {
            List<String> absent = new ArrayList<>();
            for (int i = 0; i < in.size(); i++) {
                if (in.get(i).isEmpty()) {
                    absent.add(tables.get(i));
                }
            }
            if (!absent.isEmpty()) {
                return "not in " + String.join(", ", absent);
            }
            List<ColumnLook> all = in.stream().map(Optional::orElseThrow).toList();
            if (all.stream().map(ColumnLook::name).distinct().count() > 1) {
                return "written otherwise";
            }
            return isSame() ? "" : "reads otherwise";
        }

        /// Two decimals of other sizes are read alike.
        private static String kind(ColumnLook column) {
            return column.readsAs().replaceAll("\\(.*\\)", "").replaceAll(", .*", "");
        }
    }

    static ColumnsCompared of(List<String> tables, List<TableLook> looks) {
        Map<String, List<Optional<ColumnLook>>> byName = new LinkedHashMap<>();
        for (int i = 0; i < looks.size(); i++) {
            int table = i;
            for (ColumnLook column : looks.get(i).columns()) {
                byName.computeIfAbsent(key(column.name()), _ -> {
                            List<Optional<ColumnLook>> none = new ArrayList<>();
                            looks.forEach(_ -> none.add(Optional.empty()));
                            return none;
                        })
                        .set(table, Optional.of(column));
            }
        }
        List<Row> rows = byName.values().stream()
                .map(in -> new Row(
                        in.stream()
                                .flatMap(Optional::stream)
                                .findFirst()
                                .orElseThrow()
                                .name(),
                        in))
                .toList();
        return new ColumnsCompared(tables, rows);
    }

    private static String key(String name) {
        return name.strip().toLowerCase(Locale.ROOT);
    }

    /// Looks at every table, and sets their columns beside each other.
    public static Outcome<ColumnsCompared> look(List<String> tables, List<DataLook> data) {
        List<TableLook> looks = new ArrayList<>();
        for (DataLook one : data) {
            Outcome<TableLook> look = one.columns(List.of());
            if (!look.isPresent()) {
                return Outcome.failed(look.problems());
            }
            looks.add(look.get());
        }
        return Outcome.of(of(tables, looks));
    }
}
