package fixshelf.shelf;

import fixshelf.language.checking.WrittenConstants;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/// A small table that is typed into the page of a dataset: names of columns, with types where they are to be held to,
/// and rows.
final class TypedTable {
    private static final int MOST_ROWS = 10_000;

    private TypedTable() {}

    static ReadOptions read(Yaml.Fields fields) {
        fields.names().stream()
                .filter(n -> ReadFields.NAMES.contains(n) && !ReadFields.OF_DATASETS.contains(n) && !n.equals("kind"))
                .findFirst()
                .ifPresent(n -> fields.report(
                        Code.BAD_FIELD,
                        fields.spanOfField(n),
                        "A table that is typed in has no " + n + ".",
                        "Leave it out."));
        Map<String, String> columns = columns(fields);
        String missing = fields.text("missing", "∅");
        List<List<@Nullable String>> rows = new ArrayList<>();
        Optional<Written> written = fields.written("values");
        if (columns.isEmpty() || !(written.orElse(null) instanceof Written.Items(List<Written> items))) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.span(),
                    "A table that is typed in needs columns and values.",
                    "Write `columns: [part, rate]` and `values: [[AQ, '4.20'], [BQ, ∅]]`.");
            return options(Map.of("column_1", "text"), List.of());
        }
        for (Written item : items) {
            row(fields, item, columns, missing, rows);
        }
        if (rows.size() > MOST_ROWS) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfField("values"),
                    String.format("%,d rows are more than the 10,000 that can be typed in.", rows.size()),
                    "Put them into a file.");
        }
        return options(columns, rows);
    }

    private static ReadOptions options(Map<String, String> columns, List<List<@Nullable String>> rows) {
        List<Type> types = columns.values().stream()
                .map(t -> Type.parse(t).filter(known -> !known.isFixed()).orElse(Type.TEXT))
                .toList();
        return ReadOptions.of("").withForm(new ReadOptions.Form.Typed(List.copyOf(columns.keySet()), types, rows));
    }

    /// Names with types; text where none is said.
    private static Map<String, String> columns(Yaml.Fields fields) {
        Map<String, String> columns = new LinkedHashMap<>();
        if (fields.isMapping("columns")) {
            columns.putAll(fields.pairs("columns"));
        } else {
            fields.texts("columns").forEach(c -> {
                if (columns.put(c, "text") != null) {
                    twice(fields, c);
                }
            });
        }
        Set<String> seen = new HashSet<>();
        columns.forEach((name, type) -> {
            if (name.isBlank() || !seen.add(name.toLowerCase(Locale.ROOT))) {
                twice(fields, name);
            }
            if (Type.parse(type).filter(t -> !t.isFixed()).isEmpty()) {
                fields.report(
                        Code.BAD_FIELD,
                        fields.spanOfField("columns"),
                        "There is no type " + type + " for a column.",
                        "Write text, integer, decimal(9,2), date, timestamp or boolean.");
            }
        });
        return columns;
    }

    private static void twice(Yaml.Fields fields, String name) {
        fields.report(
                Code.BAD_FIELD,
                fields.spanOfField("columns"),
                name.isBlank() ? "A column has no name." : "There are two columns " + name + ".",
                "Give each a name of its own.");
    }

    private static boolean is(String cell, Type type) {
        String written = type.equals(Type.DATE)
                ? "DATE '" + cell.replace("'", "") + "'"
                : type.equals(Type.TIMESTAMP) ? "TIMESTAMP '" + cell.replace("'", "") + "'" : cell;
        return type.equals(Type.TEXT)
                || WrittenConstants.read("values", written)
                        .value()
                        .flatMap(v -> v)
                        .filter(v -> v.type().equals(type) && !(type instanceof Type.Decimal) || fits(v.value(), type))
                        .isPresent();
    }

    /// Whether a number is held without a digit less.
    private static boolean fits(@Nullable Object value, Type type) {
        BigDecimal number =
                switch (value) {
                    case Long whole -> BigDecimal.valueOf(whole);
                    case BigDecimal exact -> exact.stripTrailingZeros();
                    case null, default -> null;
                };
        if (number == null || !(type instanceof Type.Decimal(int precision, int scale))) {
            return number != null && type.equals(Type.NUMBER);
        }
        return number.scale() <= scale && number.precision() - number.scale() <= precision - scale;
    }

    private static void row(
            Yaml.Fields fields,
            Written item,
            Map<String, String> columns,
            String missing,
            List<List<@Nullable String>> rows) {
        List<String> cells = item.texts().orElse(List.of());
        int number = rows.size() + 1;
        if (cells.size() != columns.size()) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfField("values"),
                    "Row " + number + " has " + cells.size() + (cells.size() == 1 ? " value" : " values")
                            + ", and there are " + columns.size() + " columns.",
                    "Write one for each, " + missing + " for what is missing.");
            return;
        }
        @Nullable
        String[] row = cells.stream().map(c -> c.equals(missing) ? null : c).toArray(String[]::new);
        int i = 0;
        for (Map.Entry<String, String> column : columns.entrySet()) {
            String cell = row[i++];
            Optional<Type> type = Type.parse(column.getValue());
            if (cell != null && type.filter(t -> !is(cell, t)).isPresent()) {
                fields.report(
                        Code.BAD_FIELD,
                        fields.spanOfField("values"),
                        "Row " + number + ", " + column.getKey() + ": " + cell + " is no " + column.getValue() + ".",
                        "Write it as 42, 4.20, 2026-02-07 or true.");
            }
        }
        rows.add(Arrays.asList(row));
    }
}
