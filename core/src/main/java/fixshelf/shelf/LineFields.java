package fixshelf.shelf;

import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Names;
import fixshelf.operations.Operations;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Line;
import fixshelf.plan.Operation;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Span;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/// The fields of a line of a job, read and written. Exactly one of them is callable.
final class LineFields {
    /// Fields that belong to every line, and are no blanks.
    private static final Set<String> OWN = Set.of("name", "reason", "strict", "rest");

    private static final Set<String> READS = ReadFields.NAMES.stream()
            .filter(n -> !n.equals("read") && !ReadFields.OF_DATASETS.contains(n))
            .collect(Collectors.toUnmodifiableSet());

    private static final Pattern MAP_FROM = Pattern.compile(
            "\\s*MAP\\s+FROM\\s+(\\w+)\\s*\\(\\s*(\"[^\"]+\"|[^,\"]+?)\\s*,\\s*(\"[^\"]+\"|[^,\")]+?)\\s*\\)\\s*",
            Pattern.CASE_INSENSITIVE);

    private final Yaml.Fields fields;
    /// What a line of a value fix says beside its parameters.
    private static final Set<String> OF_FIXES = Set.of("columns", "into", "if_absent");

    private final Map<String, Written> blanks = new LinkedHashMap<>();
    private final Map<String, Span> spans = new HashMap<>();

    private LineFields(Yaml.Fields fields) {
        this.fields = fields;
    }

    static Optional<JobPage.PlacedLine> read(Yaml.Fields fields) {
        LineFields reader = new LineFields(fields);
        return reader.call()
                .map(call -> new JobPage.PlacedLine(
                        new Line(
                                call,
                                reader.blanks,
                                fields.text("name", ""),
                                fields.flag("strict", false),
                                fields.flag("rest", false)),
                        fields.text("reason", ""),
                        fields.span(),
                        Map.copyOf(reader.spans)));
    }

    private void put(String blank, Written written, String field) {
        put(blank, written, fields.spanOfValue(field));
    }

    private void put(String blank, Written written, Span span) {
        blanks.put(blank, written);
        spans.put(blank, span);
    }

    private void putAll(Set<String> names) {
        names.stream().filter(n -> !OWN.contains(n)).forEach(n -> {
            if (blanks.containsKey(n)) {
                fields.report(
                        Code.BAD_FIELD,
                        fields.spanOfValue(n),
                        n + " is said twice: here, and behind the name that the line calls.",
                        "Leave one of them out.");
            }
            put(n, fields.written(n).orElseThrow(), n);
        });
    }

    private Optional<String> call() {
        if (fields.has("fix")) {
            return olderFix();
        }
        if (fields.has("dataset")) {
            fields.allow(Set.of("dataset", "name", "reason"));
            put("source", Written.word(fields.required("dataset", "Name a dataset.")), "dataset");
            return Optional.of(Line.READ);
        }
        if (fields.has("read")) {
            return Optional.of(reading());
        }
        Optional<String> call = fields.names().stream()
                .filter(n -> !OWN.contains(n))
                .filter(n -> Operations.find(n).isPresent())
                .findFirst()
                .or(() -> fields.names().stream()
                        .filter(n -> !OWN.contains(n) && !OF_FIXES.contains(n))
                        .findFirst());
        if (call.isEmpty()) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.span(),
                    "This line says no operation.",
                    "Begin it with the name of an operation or a fix: read, keep_rows, drop_repeats …");
            return call;
        }
        called(call.get());
        return call;
    }

    private void called(String call) {
        Written value = fields.written(call).orElseThrow();
        Optional<Operation> operation = Operations.find(call);
        if (operation.isPresent()) {
            // With nothing behind the name, what belongs there is left out, or stands under its own name.
            if (!value.equals(new Written.Fields(Map.of()))) {
                put(operation.get().blanks().getFirst().name(), value, call);
            }
        } else if (value instanceof Written.Fields(Map<String, Written> arguments)
                && (arguments.isEmpty() || !ColumnKinds.RULES.containsAll(arguments.keySet()))) {
            Yaml.Fields inside = fields.fields(call).orElseThrow();
            arguments.forEach((n, w) -> {
                blanks.put(n, w);
                spans.put(n, inside.spanOfValue(n));
            });
        } else if (!value.equals(Written.word(""))) {
            put("columns", value, call);
        }
        List<String> others =
                fields.names().stream().filter(n -> !n.equals(call)).toList();
        putAll(new java.util.LinkedHashSet<>(others));
    }

    /// `fix: name`, with `columns:` and `with:`, whose values are SQL.
    private Optional<String> olderFix() {
        fields.allow(Set.of("fix", "columns", "with", "if_absent", "strict", "reason", "name", "rest"));
        if (!fields.has("columns")) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.span(),
                    "Which columns?",
                    "Add `columns: [name]` or `columns: every text column`.");
        }
        fields.written("columns").ifPresent(w -> put("columns", w, "columns"));
        fields.written("if_absent").ifPresent(w -> put("if_absent", w, "if_absent"));
        fields.pairs("with").forEach((name, sql) -> blanks.put(name, argument(sql)));
        return Optional.of(fields.required("fix", "Name a fix."));
    }

    /// A constant as the plain value, anything else as the SQL that it is.
    private static Written argument(String sql) {
        Matcher from = MAP_FROM.matcher(sql);
        if (from.matches()) {
            Map<String, String> pairs = new LinkedHashMap<>();
            pairs.put("in", from.group(1));
            pairs.put("from", from.group(2).replace("\"", ""));
            pairs.put("to", from.group(3).replace("\"", ""));
            return Written.pairs(pairs);
        }
        boolean quoted = sql.strip().startsWith("'");
        Optional<Expr.Literal> constant =
                quoted ? WrittenConstants.read("with", sql).value().flatMap(v -> v) : Optional.empty();
        if (constant.isPresent() && constant.get().value() instanceof String text) {
            return Written.word(text);
        }
        return sql.strip().matches("-?[0-9]+(\\.[0-9]+)?|(?i:true|false)")
                ? Written.word(sql.strip())
                : Written.field("sql", Written.word(sql));
    }

    /// `read: name`, `read: {file: path}`, or `read: path` with its options beside.
    private String reading() {
        if (fields.isMapping("read")) {
            Yaml.Fields inside = fields.fields("read").orElseThrow();
            Set<String> known = new java.util.HashSet<>(READS);
            known.addAll(Set.of("file", "page"));
            inside.allow(known);
            if (inside.has("page")) {
                return readingPage(inside);
            }
            inside.required("file", "Name the file: `read: {file: data/visits.csv}`.");
            inside.names().stream().filter(known::contains).forEach(n -> {
                blanks.put(n, inside.written(n).orElseThrow());
                spans.put(n, inside.spanOfValue(n));
            });
            return Line.READ_FILE;
        }
        String path = fields.required("read", "Name a dataset, or a file: `read: data/visits.csv`.");
        boolean name = Names.problemWith(path).isEmpty() && READS.stream().noneMatch(fields::has);
        Set<String> known = new java.util.HashSet<>(name ? Set.of() : READS);
        known.addAll(Set.of("read", "reason", "name"));
        fields.allow(known);
        put(name ? "source" : "file", Written.word(path), "read");
        READS.stream().filter(fields::has).forEach(n -> put(n, fields.written(n).orElseThrow(), n));
        return name ? Line.READ : Line.READ_FILE;
    }

    /// `read: {page: https://host/page}`: a file of kind web.
    private String readingPage(Yaml.Fields inside) {
        if (inside.has("file") || inside.has("kind")) {
            inside.report(
                    Code.BAD_FIELD,
                    inside.spanOfField("page"),
                    "A page of the web is no file, and its kind is web.",
                    "Write either `page`, or `file` and `kind`.");
        }
        put("file", Written.word(inside.required("page", "Name the page.")), inside.spanOfValue("page"));
        put("kind", Written.word("web"), inside.spanOfField("page"));
        inside.names().stream()
                .filter(READS::contains)
                .forEach(n -> put(n, inside.written(n).orElseThrow(), inside.spanOfValue(n)));
        return Line.READ_FILE;
    }

    /// The lines of text that say a line, each a field, as this program writes it.
    static List<String> write(Line line, String reason, String indent) {
        List<String> written = new ArrayList<>();
        Map<String, Written> blanks = new LinkedHashMap<>(line.blanks());
        Optional<Operation> operation = Operations.find(line.call());
        if (line.call().equals(Line.READ_FILE)) {
            written.add("read: " + YamlText.written(new Written.Fields(blanks)));
        } else if (operation.isPresent()) {
            String main = operation.get().blanks().getFirst().name();
            Written first = Optional.ofNullable(blanks.remove(main))
                    .or(() -> operation.get().blanks().getFirst().fallback())
                    .orElse(Written.word(""));
            written.add(YamlText.field(line.call(), first, indent));
            blanks.forEach((n, w) -> written.add(YamlText.field(n, w, indent)));
        } else if (blanks.keySet().equals(Set.of("columns")) && !(blanks.get("columns") instanceof Written.Fields)) {
            written.add(YamlText.field(line.call(), blanks.get("columns"), indent));
        } else if (blanks.size() <= 1) {
            written.add(YamlText.field(line.call(), new Written.Fields(blanks), indent));
        } else {
            StringBuilder fix = new StringBuilder(YamlText.scalar(line.call())).append(":");
            String inner = indent + "  ";
            blanks.forEach((n, w) -> fix.append('\n').append(inner).append(YamlText.field(n, w, inner)));
            written.add(fix.toString());
        }
        if (!line.name().isEmpty()) {
            written.add("name: " + YamlText.scalar(line.name()));
        }
        if (line.strict()) {
            written.add("strict: true");
        }
        if (line.rest()) {
            written.add("rest: true");
        }
        if (!reason.isEmpty()) {
            written.add("reason: " + YamlText.scalar(reason));
        }
        return written;
    }

    /// The same on one line, as it stands in brackets.
    static String flow(Line line, String reason) {
        Map<String, Written> all = new LinkedHashMap<>();
        Map<String, Written> blanks = new LinkedHashMap<>(line.blanks());
        Optional<Blank<?>> main =
                Operations.find(line.call()).map(o -> o.blanks().getFirst());
        if (line.call().equals(Line.READ_FILE)) {
            all.put("read", new Written.Fields(blanks));
        } else if (main.isPresent()) {
            all.put(
                    line.call(),
                    Optional.ofNullable(blanks.remove(main.get().name()))
                            .or(main.get()::fallback)
                            .orElse(Written.word("")));
            all.putAll(blanks);
        } else {
            all.put(line.call(), new Written.Fields(blanks));
        }
        if (!line.name().isEmpty()) {
            all.put("name", Written.word(line.name()));
        }
        if (line.strict()) {
            all.put("strict", Written.word("true"));
        }
        if (line.rest()) {
            all.put("rest", Written.word("true"));
        }
        if (!reason.isEmpty()) {
            all.put("reason", Written.word(reason));
        }
        return YamlText.written(new Written.Fields(all)).replace("\"true\"", "true");
    }

    /// The options of a line that reads a file.
    static ReadOptions options(Line line, List<String> nullWords) {
        ReadOptions plain = ReadOptions.of(word(line, "file", ""));
        String separator = word(line, "separator", ",").replace("\\t", "\t");
        ReadOptions options = plain.withShape(
                        ReadOptions.isSeparator(separator) ? separator : ",",
                        word(line, "quote", "\""),
                        word(line, "encoding", "utf-8").toLowerCase(java.util.Locale.ROOT),
                        !word(line, "heading", "true").equals("false"))
                .withNullWords(
                        line.written("null_words").flatMap(Written::texts).orElse(nullWords))
                .withLeaveOutBadRows(word(line, "bad_rows", "stop").equals("leave_out"));
        return form(line).value().flatMap(f -> f).map(options::withForm).orElse(options);
    }

    /// The kind of file that a line reads, or what is wrong with what it says of that.
    static Outcome<Optional<ReadOptions.Form>> form(Line line) {
        return FormFields.form(
                word(line, "file", ""),
                name -> line.written(name).isPresent(),
                name -> line.written(name)
                        .filter(Written.Word.class::isInstance)
                        .map(w -> ((Written.Word) w).text()),
                line.written("places").flatMap(Written::texts).orElse(List.of()));
    }

    private static String word(Line line, String blank, String fallback) {
        return line.written(blank)
                .filter(Written.Word.class::isInstance)
                .map(w -> ((Written.Word) w).text())
                .orElse(fallback);
    }

    /// The line that reads a file with these options.
    static Line reading(ReadOptions options) {
        Map<String, Written> blanks = new LinkedHashMap<>();
        blanks.put("file", Written.word(options.path()));
        if (options.form()
                .filter(f -> !(f instanceof ReadOptions.Form.Delimited))
                .isPresent()) {
            blanks.putAll(FormFields.written(options));
            return new Line(Line.READ_FILE, blanks);
        }
        blanks.put("separator", Written.word(options.separator()));
        blanks.put("quote", Written.word(options.quote()));
        blanks.put("encoding", Written.word(options.encoding()));
        blanks.put("heading", Written.word(String.valueOf(options.heading())));
        blanks.put("null_words", Written.words(options.nullWords()));
        if (options.leaveOutBadRows()) {
            blanks.put("bad_rows", Written.word("leave_out"));
        }
        return new Line(Line.READ_FILE, blanks);
    }
}
