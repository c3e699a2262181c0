package fixshelf.shelf;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/// The fields that say what kind of file is read, and what is said of that kind alone.
final class FormFields {
    private static final Map<String, Set<String>> OF_KIND = Map.of(
            "workbook", Set.of("sheet", "block", "cell_errors", "dates"),
            "json", Set.of("rows"),
            "places", Set.of("places"),
            "sqlite", Set.of("table", "query"),
            "duckdb", Set.of("table", "query"),
            "parquet", Set.of(),
            "delimited", Set.of());

    private FormFields() {}

    /// The kind with what is said of it; empty where the file itself will say it.
    ///
    /// @param field what stands in a field, if anything
    /// @param places those of the field `places`
    static Outcome<Optional<Form>> form(Function<String, Optional<String>> field, List<String> places) {
        Optional<String> said = field.apply("kind").map(String::strip).filter(k -> !k.isEmpty());
        List<String> only = OF_KIND.values().stream()
                .flatMap(Set::stream)
                .filter(f ->
                        f.equals("places") ? !places.isEmpty() : field.apply(f).isPresent())
                .sorted()
                .toList();
        boolean both = said.isEmpty() && only.stream().anyMatch(Set.of("table", "query")::contains);
        if (both) {
            return problem("Which kind of database is it?", "Write `kind: sqlite` or `kind: duckdb` beside the table.");
        }
        String kind = said.orElseGet(() -> only.stream()
                .findFirst()
                .map(f -> OF_KIND.entrySet().stream()
                        .filter(k -> k.getValue().contains(f))
                        .findFirst()
                        .orElseThrow()
                        .getKey())
                .orElse(""));
        if (kind.isEmpty()) {
            return Outcome.of(Optional.empty());
        }
        if (!ReadOptions.KINDS.contains(kind)) {
            return problem(
                    "There is no kind of file " + kind + " here.",
                    "Known: " + String.join(", ", ReadOptions.KINDS) + ".");
        }
        Optional<String> foreign =
                only.stream().filter(f -> !OF_KIND.get(kind).contains(f)).findFirst();
        if (foreign.isPresent()) {
            return problem("A file of kind " + kind + " has no " + foreign.get() + ".", "Leave it out.");
        }
        return switch (kind) {
            case "workbook" -> workbook(field);
            case "json" ->
                Outcome.of(
                        Optional.of(new Form.Json(field.apply("rows").orElse("").strip())));
            case "parquet" -> Outcome.of(Optional.of(new Form.Parquet()));
            case "places" -> places(places);
            case "sqlite", "duckdb" -> database(kind, field);
            default -> Outcome.of(Optional.of(new Form.Delimited()));
        };
    }

    private static Outcome<Optional<Form>> workbook(Function<String, Optional<String>> field) {
        String errors = field.apply("cell_errors").orElse("missing").strip();
        String dates = field.apply("dates").orElse("dates").strip();
        if (!Set.of("missing", "text").contains(errors)) {
            return problem("cell_errors is missing or text.", "Write one of them.");
        }
        if (!Set.of("dates", "serials").contains(dates)) {
            return problem("dates is dates or serials.", "Write one of them.");
        }
        return Outcome.of(Optional.of(new Form.Workbook(
                field.apply("sheet").orElse("").strip(),
                field.apply("block").orElse("").strip(),
                errors.equals("text"),
                dates.equals("serials"))));
    }

    private static Outcome<Optional<Form>> database(String kind, Function<String, Optional<String>> field) {
        String table = field.apply("table").orElse("").strip();
        String query = field.apply("query").orElse("").strip();
        return table.isEmpty() || query.isEmpty()
                ? Outcome.of(Optional.of(new Form.Database(kind, table, query)))
                : problem("A table and a query cannot both be read.", "Leave out one of them.");
    }

    private static Outcome<Optional<Form>> places(List<String> written) {
        List<Integer> starts = new ArrayList<>();
        for (String place : written) {
            int start = place.strip().matches("[0-9]{1,6}") ? Integer.parseInt(place.strip()) : 0;
            if (start < 1 || !starts.isEmpty() && start <= starts.getLast()) {
                return problem(
                        "Places are numbers from 1 on, each greater than the one before, and " + place.strip()
                                + " is not.",
                        "Write where each column begins: [1, 9, 20].");
            }
            starts.add(start);
        }
        return Outcome.of(Optional.of(new Form.Places(starts.isEmpty() ? List.of(1) : starts)));
    }

    private static Outcome<Optional<Form>> problem(String what, String todo) {
        return Outcome.failed(Problem.about(Code.BAD_FIELD, "kind", what, todo));
    }

    /// The fields of a kind as they are written on a page; none for delimited text.
    static Map<String, String> written(ReadOptions options) {
        Map<String, String> fields = new LinkedHashMap<>();
        options.form().filter(f -> !(f instanceof Form.Delimited)).ifPresent(f -> fields.put("kind", f.word()));
        switch (options.form().orElse(new Form.Delimited())) {
            case Form.Workbook(String sheet, String block, boolean errorsAsText, boolean serials) -> {
                put(fields, "sheet", sheet);
                put(fields, "block", block);
                put(fields, "cell_errors", errorsAsText ? "text" : "");
                put(fields, "dates", serials ? "serials" : "");
            }
            case Form.Json(String rows) -> put(fields, "rows", rows);
            case Form.Places(List<Integer> starts) -> fields.put("places", starts.toString());
            case Form.Database(String _, String table, String query) -> {
                put(fields, "table", table);
                put(fields, "query", query);
            }
            case Form.Parquet(), Form.Delimited() -> {}
        }
        return fields;
    }

    private static void put(Map<String, String> fields, String name, String value) {
        if (!value.isEmpty()) {
            fields.put(name, value);
        }
    }
}
