package fixshelf.shelf;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form;
import fixshelf.plan.Written;
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
import java.util.function.Predicate;

/// The fields that say what kind of file is read, and what is said of that kind alone.
final class FormFields {
    private FormFields() {}

    /// The kind with what is said of it; empty where the file itself will say it.
    ///
    /// @param isWritten whether a field is there
    /// @param field what stands in a field, if anything
    /// @param places those of the field `places`
    static Outcome<Optional<Form>> form(
            Predicate<String> isWritten, Function<String, Optional<String>> field, List<String> places) {
        Optional<String> said = field.apply("kind").map(String::strip).filter(k -> !k.isEmpty());
        if (said.isEmpty() && (isWritten.test("table") || isWritten.test("query"))) {
            return problem("Which kind of database is it?", "Write `kind: sqlite` or `kind: duckdb` beside the table.");
        }
        Optional<String> found = said.or(() -> ReadOptions.kindOf(isWritten));
        if (found.isEmpty()) {
            return Outcome.of(Optional.empty());
        }
        String kind = found.get();
        if (!ReadOptions.KINDS.contains(kind)) {
            return problem(
                    "There is no kind of file " + kind + " here.",
                    "Known: " + String.join(", ", ReadOptions.KINDS) + ".");
        }
        Set<String> own = ReadOptions.FIELDS.get(kind);
        Optional<String> foreign = ReadOptions.FIELDS.values().stream()
                .flatMap(Set::stream)
                .distinct()
                .sorted()
                .filter(f -> isWritten.test(f) && !own.contains(f))
                .findFirst();
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

    /// The fields that say how a file of another kind than delimited text is read.
    static Map<String, Written> written(ReadOptions options) {
        Map<String, Written> fields = new LinkedHashMap<>();
        Form form = options.form().orElseThrow();
        fields.put("kind", Written.word(form.word()));
        switch (form) {
            case Form.Workbook(String sheet, String block, boolean errorsAsText, boolean serials) -> {
                put(fields, "sheet", sheet);
                put(fields, "block", block);
                put(fields, "cell_errors", errorsAsText ? "text" : "");
                put(fields, "dates", serials ? "serials" : "");
            }
            case Form.Json(String rows) -> put(fields, "rows", rows);
            case Form.Places(List<Integer> starts) ->
                fields.put(
                        "places",
                        Written.words(starts.stream().map(String::valueOf).toList()));
            case Form.Database(String _, String table, String query) -> {
                put(fields, "table", table);
                put(fields, "query", query);
            }
            case Form.Parquet(), Form.Delimited() -> {}
        }
        Set<String> known = ReadOptions.FIELDS.get(form.word());
        if (known.contains("encoding")) {
            fields.put("encoding", Written.word(options.encoding()));
        }
        if (known.contains("heading") && !options.heading()) {
            fields.put("heading", Written.word("false"));
        }
        if (known.contains("null_words")) {
            fields.put("null_words", Written.words(options.nullWords()));
        }
        if (known.contains("bad_rows") && options.leaveOutBadRows()) {
            fields.put("bad_rows", Written.word("leave_out"));
        }
        return fields;
    }

    private static void put(Map<String, Written> fields, String name, String value) {
        if (!value.isEmpty()) {
            fields.put(name, Written.word(value));
        }
    }
}
