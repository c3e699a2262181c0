package fixshelf.shelf;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/// Reads the page of a dataset.
public final class DatasetPages {
    private static final String TYPES = "types";
    private static final String DECLARED = "declared";
    private static final String TEXTS = "texts";
    private static final String STRICT = "strict";

    private DatasetPages() {}

    /// A page that reads a file with these options.
    public static String write(String name, ReadOptions options) {
        return "dataset: " + YamlText.scalar(name) + "\n" + String.join("\n", JobEdits.readFields(options)) + "\n";
    }

    /// As [#write(String, ReadOptions)], with the types that the source declares.
    public static String writeDeclared(String name, ReadOptions options) {
        return write(name, options) + TYPES + ": " + DECLARED + "\n";
    }

    /// As [#write(String, ReadOptions)], with types of columns; those that are texts need none.
    public static String write(String name, ReadOptions options, List<Column> columns) {
        List<String> types = columns.stream()
                .filter(c -> !c.type().equals(Type.TEXT))
                .map(c -> "  " + YamlText.scalar(c.name()) + ": "
                        + YamlText.scalar(c.type().label()) + "\n")
                .toList();
        return write(name, options) + (types.isEmpty() ? "" : TYPES + ":\n" + String.join("", types));
    }

    /// What a page with these fields would read.
    public static Outcome<ReadOptions> options(Map<String, String> fields) {
        StringBuilder text = new StringBuilder();
        fields.forEach((name, value) ->
                text.append(name).append(": ").append(YamlText.scalar(value)).append('\n'));
        DatasetPage page = read(Path.of("page.yaml"), new SourceText("page.yaml", text.toString()), List.of(""));
        return page.problems().stream().anyMatch(Problem::isError)
                ? Outcome.failed(page.problems())
                : Outcome.of(page.options());
    }

    /// The page that reads as `base` says, but for these fields, with the types that the source declares.
    ///
    /// @param fields of the page, with their texts; a kind among them leaves nothing of `base` but what is read
    public static DatasetPage with(
            String name, Path file, ReadOptions base, Map<String, String> fields, List<String> nullWords) {
        List<String> lines = new ArrayList<>(List.of("dataset: " + YamlText.scalar(name)));
        JobEdits.readFields(base).stream()
                .filter(l -> l.startsWith("read:") || !fields.containsKey("kind"))
                .filter(l -> !fields.containsKey(l.replaceFirst("(?s):.*", "")))
                .forEach(lines::add);
        fields.forEach((field, value) ->
                lines.add(field + ": " + (value.matches("true|false") ? value : YamlText.scalar(value))));
        String text = String.join("\n", lines) + "\n";
        DatasetPage page = read(file, new SourceText(base.path(), text), nullWords);
        return page.options().mayDeclare() && !fields.containsKey(TYPES)
                ? read(file, new SourceText(base.path(), text + TYPES + ": " + DECLARED + "\n"), nullWords)
                : page;
    }

    /// Why a dataset cannot be kept under a name; empty when it can.
    public static Optional<Problem> objection(String name, Path to) {
        Optional<String> wrong = fixshelf.language.tree.Names.problemWith(name);
        if (wrong.isPresent()) {
            return Optional.of(Problem.about(Code.BAD_FIELD, name, wrong.get(), "Write visits_alder_quay, say."));
        }
        return Files.exists(to)
                ? Optional.of(Problem.about(
                        Code.TARGET_EXISTS,
                        to.toString(),
                        "There is a dataset " + name + " already.",
                        "Choose another name."))
                : Optional.empty();
    }

    /// `types: declared`, or the types of columns; rows that are typed in have the types that stand beside them.
    private static Optional<DatasetPage.Typed> typed(Yaml.Fields fields, ReadOptions options) {
        boolean typedIn = options.form().orElse(null) instanceof ReadOptions.Form.Typed(var _, List<Type> types, var _)
                && types.stream().anyMatch(t -> !t.equals(Type.TEXT));
        Map<String, String> named = fields.isMapping(TYPES) ? fields.pairs(TYPES) : Map.of();
        named.forEach((column, type) -> {
            if (Type.parse(type).filter(t -> !t.isFixed()).isEmpty()) {
                fields.report(
                        Code.BAD_FIELD,
                        fields.spanOfField(TYPES),
                        "There is no type " + type + " for the column " + column + ".",
                        "Write text, integer, decimal(9,2), number, date, timestamp or boolean.");
            }
        });
        String said = !named.isEmpty()
                ? DECLARED
                : fields.choice(TYPES, typedIn ? List.of(DECLARED, TEXTS) : List.of(TEXTS, DECLARED));
        if (!said.equals(DECLARED)) {
            if (fields.has(STRICT)) {
                fields.report(
                        Code.BAD_FIELD,
                        fields.spanOfField(STRICT),
                        "Texts lose nothing, so that reading them cannot be strict.",
                        "Leave out `strict`, or write `types: declared`, or types by columns.");
            }
            return Optional.empty();
        }
        Span at = fields.has(TYPES) ? fields.spanOfValue(TYPES) : fields.span();
        return Optional.of(new DatasetPage.Typed(named, fields.flag(STRICT, true), at));
    }

    /// `load: day_prices` with its arguments in `with`.
    private static Optional<DatasetPage.Call> call(Yaml.Fields fields) {
        if (!fields.has("load")) {
            return Optional.empty();
        }
        fields.allowPage(Set.of(
                "dataset", "about", "load", "with", "for_each", "from", "failed", "without_rows", "strict", "counts"));
        Map<String, Written> arguments =
                fields.written("with").orElse(new Written.Fields(Map.of())) instanceof Written.Fields(var given)
                        ? given
                        : Map.of();
        if (fields.has("with") && arguments.isEmpty()) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfValue("with"),
                    "`with` gives arguments by their names.",
                    "Write `with: {part: AQ}`, say.");
        }
        String loader = fields.required("load", "Name a loader of this shelf.");
        return Optional.of(new DatasetPage.Call(
                loader, arguments, each(fields), fields.flag("strict", false), fields.spanOfValue("load")));
    }

    /// `for_each: table` with `from: {parameter: column}`.
    private static Optional<DatasetPage.ForEach> each(Yaml.Fields fields) {
        if (!fields.has("for_each")) {
            Stream.of("from", "failed", "without_rows")
                    .filter(fields::has)
                    .forEach(n -> fields.report(
                            Code.BAD_FIELD,
                            fields.spanOfField(n),
                            "Only calls for the rows of a table have " + n + ".",
                            "Write `for_each:` and a dataset or a job, or leave it out."));
            return Optional.empty();
        }
        String failed = fields.choice("failed", List.of("stop", "leave_out"));
        String without = fields.choice("without_rows", List.of("leave_out", "keep"));
        Map<String, String> from = fields.pairs("from");
        if (from.isEmpty()) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfField("for_each"),
                    "Which columns of the table are arguments?",
                    "Write `from: {part: part_no}`: the parameter, and the column that it takes.");
        }
        return Optional.of(new DatasetPage.ForEach(
                fields.text("for_each", ""), from, failed.equals("leave_out"), without.equals("keep")));
    }

    public static DatasetPage read(Path file, SourceText source, List<String> nullWords) {
        List<Problem> problems = new ArrayList<>();
        String fallback = file.getFileName().toString().replaceFirst("\\.ya?ml$", "");
        Optional<Yaml.Fields> fields =
                Yaml.read(source, new Span(0, source.text().length()), problems);
        Optional<DatasetPage.Call> call = fields.flatMap(DatasetPages::call);
        fields.filter(_ -> call.isEmpty()).ifPresent(f -> {
            Set<String> known = new HashSet<>(ReadFields.NAMES);
            known.addAll(Set.of("dataset", "about", "counts", TYPES, STRICT));
            f.allowPage(known);
        });
        String name = fields.flatMap(f -> f.text("dataset")).orElse(fallback);
        fields.ifPresent(f -> f.wantName("dataset", name, "Write visits_alder_quay, say."));
        ReadOptions options = fields.filter(_ -> call.isEmpty())
                .map(f -> ReadFields.read(f, nullWords))
                .orElse(ReadOptions.of(""));
        return new DatasetPage(
                file,
                source,
                name,
                fields.map(f -> f.text("about", "")).orElse(""),
                options,
                call,
                fields.filter(_ -> call.isEmpty()).flatMap(f -> typed(f, options)),
                fields.map(f -> f.each("counts", KeptCounts::read)).orElse(List.of()),
                List.copyOf(problems));
    }
}
