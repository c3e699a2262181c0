package fixshelf.shelf;

import fixshelf.plan.ReadOptions;
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
        Optional<String> wrong = fixshelf.language.Names.problemWith(name);
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

    public static DatasetPage read(Path file, SourceText source, List<String> nullWords) {
        List<Problem> problems = new ArrayList<>();
        String fallback = file.getFileName().toString().replaceFirst("\\.ya?ml$", "");
        Optional<Yaml.Fields> fields =
                Yaml.read(source, new Span(0, source.text().length()), problems);
        fields.ifPresent(f -> {
            Set<String> known = new HashSet<>(ReadFields.NAMES);
            known.addAll(Set.of("dataset", "about"));
            f.allow(known);
        });
        String name = fields.flatMap(f -> f.text("dataset")).orElse(fallback);
        fields.ifPresent(f -> f.wantName("dataset", name, "Write visits_alder_quay, say."));
        return new DatasetPage(
                file,
                source,
                name,
                fields.map(f -> f.text("about", "")).orElse(""),
                fields.map(f -> ReadFields.read(f, nullWords)).orElse(ReadOptions.of("")),
                List.copyOf(problems));
    }
}
