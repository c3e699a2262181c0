package fixshelf.shelf;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The fields that say what kind of file is read, and what is said of that kind alone.
final class FormFields {
    private FormFields() {}

    /// The kind with what is said of it; empty where the file itself will say it.
    ///
    /// @param path or address of what is read
    /// @param isWritten whether a field is there
    /// @param field what stands in a field, if anything
    /// @param places those of the field `places`
    static Outcome<Optional<Form>> form(
            String path, Predicate<String> isWritten, Function<String, Optional<String>> field, List<String> places) {
        Optional<String> said = field.apply("kind").map(String::strip).filter(k -> !k.isEmpty());
        Optional<String> found = said.or(() -> ReadOptions.kindOf(path, isWritten));
        if (found.isEmpty() && (isWritten.test("table") || isWritten.test("query"))) {
            return problem(
                    "table",
                    "Which kind of database is it?",
                    "Write `kind:` and sqlite, duckdb, postgresql, mariadb, jdbc, web or pdf beside the table.");
        }
        if (found.isEmpty()) {
            return Outcome.of(Optional.empty());
        }
        String kind = found.get();
        if (!ReadOptions.KINDS.contains(kind)) {
            return problem(
                    "kind",
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
            return problem(foreign.get(), "A file of kind " + kind + " has no " + foreign.get() + ".", "Leave it out.");
        }
        return switch (kind) {
            case "workbook" -> workbook(field);
            case "json" ->
                Outcome.of(Optional.of(new Form.Json(
                        field.apply("rows").orElse("").strip(),
                        field.apply("each").orElse("").strip())));
            case "parquet" -> Outcome.of(Optional.of(new Form.Parquet()));
            case "places" -> places(places, field.apply("page_heads").orElse("").strip());
            case "sqlite", "duckdb" -> database(kind, field);
            case "web" -> web(field);
            case "pdf" -> pdf(field);
            case "html" ->
                Outcome.of(Optional.of(
                        new Form.Html(field.apply("table").orElse("").strip())));
            case "postgresql", "mariadb", "jdbc" -> server(kind, field);
            default -> Outcome.of(Optional.of(new Form.Delimited()));
        };
    }

    private static Outcome<Optional<Form>> workbook(Function<String, Optional<String>> field) {
        String errors = field.apply("cell_errors").orElse("missing").strip();
        String dates = field.apply("dates").orElse("dates").strip();
        if (!Set.of("missing", "text").contains(errors)) {
            return problem("cell_errors", "cell_errors is missing or text.", "Write one of them.");
        }
        if (!Set.of("dates", "serials").contains(dates)) {
            return problem("dates", "dates is dates or serials.", "Write one of them.");
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
                : problem("query", "A table and a query cannot both be read.", "Leave out one of them.");
    }

    private static final Pattern KEEP = Pattern.compile("([1-9][0-9]{0,4}) (minute|hour|day)s?");

    private static Outcome<Optional<Form>> server(String kind, Function<String, Optional<String>> field) {
        String table = field.apply("table").orElse("").strip();
        String query = field.apply("query").orElse("").strip();
        if (!table.isEmpty() && !query.isEmpty()) {
            return problem("query", "A table and a query cannot both be read.", "Leave out one of them.");
        }
        String seconds = field.apply("seconds").orElse("300").strip();
        if (!seconds.matches("[1-9][0-9]{0,4}")) {
            return problem(
                    "seconds", "`seconds` is a whole number from 1 to 99999.", "Write how long the query may take.");
        }
        String variable = field.apply("password_from").orElse("").strip();
        if (!variable.matches("|[A-Za-z_][A-Za-z0-9_]*")) {
            return problem(
                    "password_from",
                    "`password_from` is the name of a variable of the system, and no password.",
                    "Write BRINDLE_PASSWORD, say, and set that variable before Fix Shelf is started.");
        }
        Optional<Duration> keep = keep(field.apply("keep").orElse("live").strip());
        return keep.isEmpty()
                ? problem(
                        "keep",
                        "`keep` says how long a copy is good.",
                        "Write live, or a time such as 30 minutes, 12 hours, 7 days.")
                : Outcome.of(Optional.of(new Form.Server(
                        kind,
                        table,
                        query,
                        field.apply("user").orElse("").strip(),
                        variable,
                        Integer.parseInt(seconds),
                        keep.get())));
    }

    private static Outcome<Optional<Form>> web(Function<String, Optional<String>> field) {
        String seconds = field.apply("seconds").orElse("30").strip();
        Optional<Duration> keep = keep(field.apply("keep").orElse("live").strip());
        if (!seconds.matches("[1-9][0-9]{0,3}")) {
            return problem(
                    "seconds", "`seconds` is a whole number from 1 to 9999.", "Write how long the page may take.");
        }
        return keep.isEmpty()
                ? problem(
                        "keep",
                        "`keep` says how long a copy is good.",
                        "Write live, or a time such as 30 minutes, 12 hours, 7 days.")
                : Outcome.of(Optional.of(new Form.Web(
                        field.apply("table").orElse("").strip(),
                        !field.apply("heading").orElse("true").strip().equals("false"),
                        Integer.parseInt(seconds),
                        keep.get())));
    }

    private static final Pattern PAGES =
            Pattern.compile("|[1-9][0-9]{0,4}(-[1-9][0-9]{0,4})?( *, *[1-9][0-9]{0,4}(-[1-9][0-9]{0,4})?)*");

    private static Outcome<Optional<Form>> pdf(Function<String, Optional<String>> field) {
        String pages = field.apply("pages").orElse("").strip();
        String table = field.apply("table").orElse("0").strip();
        if (!PAGES.matcher(pages).matches()) {
            return problem("pages", "`pages` are numbers from 1.", "Write 2, or 2-4, or \"2, 4\".");
        }
        return table.matches("[0-9]{1,3}")
                ? Outcome.of(Optional.of(new Form.Pdf(pages, Integer.parseInt(table))))
                : problem(
                        "table",
                        "A table of a PDF is the number that it has on its page, from 1.",
                        "Write `table: 1`.");
    }

    private static Optional<Duration> keep(String written) {
        Matcher matcher = KEEP.matcher(written);
        if (!matcher.matches()) {
            return written.equals("live") ? Optional.of(Duration.ZERO) : Optional.empty();
        }
        long number = Long.parseLong(matcher.group(1));
        return Optional.of(
                switch (matcher.group(2)) {
                    case "minute" -> Duration.ofMinutes(number);
                    case "hour" -> Duration.ofHours(number);
                    default -> Duration.ofDays(number);
                });
    }

    /// How long a copy is good, as it is written.
    static String keepWritten(Duration keep) {
        if (keep.isZero()) {
            return "";
        }
        boolean days = keep.toMinutes() % (24 * 60) == 0;
        boolean hours = keep.toMinutes() % 60 == 0;
        long number = days ? keep.toDays() : hours ? keep.toHours() : keep.toMinutes();
        return number + (days ? " day" : hours ? " hour" : " minute") + (number == 1 ? "" : "s");
    }

    private static Outcome<Optional<Form>> places(List<String> written, String heads) {
        List<Integer> starts = new ArrayList<>();
        for (String place : written) {
            int start = place.strip().matches("[0-9]{1,6}") ? Integer.parseInt(place.strip()) : 0;
            if (start < 1 || !starts.isEmpty() && start <= starts.getLast()) {
                return problem(
                        "places",
                        "Places are numbers from 1 on, each greater than the one before, and " + place.strip()
                                + " is not.",
                        "Write where each column begins: [1, 9, 20].");
            }
            starts.add(start);
        }
        Optional<Form.Places.Pages> pages =
                switch (heads) {
                    case "" -> Optional.of(Form.Places.Pages.NONE);
                    case "keep" -> Optional.of(Form.Places.Pages.KEEP_HEADS);
                    case "leave_out" -> Optional.of(Form.Places.Pages.LEAVE_OUT_HEADS);
                    default -> Optional.empty();
                };
        return pages.isEmpty()
                ? problem("page_heads", "page_heads is keep or leave_out.", "Write one of them.")
                : Outcome.of(Optional.of(new Form.Places(starts.isEmpty() ? List.of(1) : starts, pages.get())));
    }

    /// A problem of a field, which it is about.
    private static Outcome<Optional<Form>> problem(String field, String what, String todo) {
        return Outcome.failed(Problem.about(Code.BAD_FIELD, field, what, todo));
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
            case Form.Json(String rows, String each) -> {
                put(fields, "rows", rows);
                put(fields, "each", each);
            }
            case Form.Places(List<Integer> starts, Form.Places.Pages pages) -> {
                fields.put(
                        "places",
                        Written.words(starts.stream().map(String::valueOf).toList()));
                put(
                        fields,
                        "page_heads",
                        switch (pages) {
                            case NONE -> "";
                            case KEEP_HEADS -> "keep";
                            case LEAVE_OUT_HEADS -> "leave_out";
                        });
            }
            case Form.Database(String _, String table, String query) -> {
                put(fields, "table", table);
                put(fields, "query", query);
            }
            case Form.Server server -> {
                put(fields, "table", server.table());
                put(fields, "query", server.query());
                put(fields, "user", server.user());
                put(fields, "password_from", server.passwordFrom());
                put(fields, "seconds", server.seconds() == 300 ? "" : String.valueOf(server.seconds()));
                put(fields, "keep", keepWritten(server.keep()));
            }
            case Form.Web(String table, boolean heading, int seconds, Duration keep) -> {
                put(fields, "table", table);
                put(fields, "heading", heading ? "" : "false");
                put(fields, "seconds", seconds == 30 ? "" : String.valueOf(seconds));
                put(fields, "keep", keepWritten(keep));
            }
            case Form.Html(String table) -> put(fields, "table", table);
            case Form.Pdf(String pages, int table) -> {
                put(fields, "pages", pages);
                put(fields, "table", table == 0 ? "" : String.valueOf(table));
            }
            case Form.Parquet(), Form.Delimited(), Form.Typed _ -> {}
        }
        Set<String> known = ReadOptions.FIELDS.get(form.word());
        if (known.contains("encoding")) {
            fields.put("encoding", Written.word(options.encoding()));
        }
        if (known.contains("heading") && !options.heading() && !(form instanceof Form.Web)) {
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
