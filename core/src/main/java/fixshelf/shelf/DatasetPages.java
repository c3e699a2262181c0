package fixshelf.shelf;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// Reads the page of a dataset.
public final class DatasetPages {
    private DatasetPages() {}

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
