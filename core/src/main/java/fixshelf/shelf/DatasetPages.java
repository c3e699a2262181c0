package fixshelf.shelf;

import fixshelf.plan.ReadOptions;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
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
    private DatasetPages() {}

    /// A page that reads a file with these options.
    public static String write(String name, ReadOptions options) {
        return "dataset: " + YamlText.scalar(name) + "\n" + String.join("\n", JobEdits.readFields(options)) + "\n";
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

    /// `load: day_prices` with its arguments in `with`.
    private static Optional<DatasetPage.Call> call(Yaml.Fields fields) {
        if (!fields.has("load")) {
            return Optional.empty();
        }
        fields.allow(Set.of("dataset", "about", "load", "with", "for_each", "from", "failed", "strict", "counts"));
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
            Stream.of("from", "failed")
                    .filter(fields::has)
                    .forEach(n -> fields.report(
                            Code.BAD_FIELD,
                            fields.spanOfField(n),
                            "Only calls for the rows of a table have " + n + ".",
                            "Write `for_each:` and a dataset or a job, or leave it out."));
            return Optional.empty();
        }
        String failed = fields.choice("failed", List.of("stop", "leave_out"));
        Map<String, String> from = fields.pairs("from");
        if (from.isEmpty()) {
            fields.report(
                    Code.BAD_FIELD,
                    fields.spanOfField("for_each"),
                    "Which columns of the table are arguments?",
                    "Write `from: {part: part_no}`: the parameter, and the column that it takes.");
        }
        return Optional.of(new DatasetPage.ForEach(fields.text("for_each", ""), from, failed.equals("leave_out")));
    }

    public static DatasetPage read(Path file, SourceText source, List<String> nullWords) {
        List<Problem> problems = new ArrayList<>();
        String fallback = file.getFileName().toString().replaceFirst("\\.ya?ml$", "");
        Optional<Yaml.Fields> fields =
                Yaml.read(source, new Span(0, source.text().length()), problems);
        Optional<DatasetPage.Call> call = fields.flatMap(DatasetPages::call);
        fields.filter(_ -> call.isEmpty()).ifPresent(f -> {
            Set<String> known = new HashSet<>(ReadFields.NAMES);
            known.addAll(Set.of("dataset", "about", "counts"));
            f.allow(known);
        });
        String name = fields.flatMap(f -> f.text("dataset")).orElse(fallback);
        fields.ifPresent(f -> f.wantName("dataset", name, "Write visits_alder_quay, say."));
        return new DatasetPage(
                file,
                source,
                name,
                fields.map(f -> f.text("about", "")).orElse(""),
                fields.filter(_ -> call.isEmpty())
                        .map(f -> ReadFields.read(f, nullWords))
                        .orElse(ReadOptions.of("")),
                call,
                fields.map(f -> f.each("counts", KeptCounts::read)).orElse(List.of()),
                List.copyOf(problems));
    }
}
