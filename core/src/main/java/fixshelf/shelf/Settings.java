package fixshelf.shelf;

import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// What `shelf.yaml` says.
///
/// @param nullWords the words that mean missing where a dataset says nothing else
/// @param environment the environment that is in force
/// @param environments names such as dev and prod, each with values for `{name}` in paths
public record Settings(
        String name,
        List<String> nullWords,
        String environment,
        Map<String, Map<String, String>> environments,
        List<Problem> problems) {

    /// The values of the environment in force.
    public Map<String, String> values() {
        return environments.getOrDefault(environment, Map.of());
    }

    Settings in(String other) {
        return new Settings(name, nullWords, other, environments, problems);
    }

    static Settings read(SourceText source) {
        List<Problem> problems = new ArrayList<>();
        Optional<Yaml.Fields> fields =
                Yaml.read(source, new Span(0, source.text().length()), problems);
        fields.ifPresent(f -> f.allowPage(Set.of("shelf", "null_words", "environment", "environments")));
        Map<String, Map<String, String>> environments = new LinkedHashMap<>();
        fields.flatMap(f -> f.fields("environments"))
                .ifPresent(all -> all.names().forEach(n -> environments.put(n, all.pairs(n))));
        return new Settings(
                fields.map(f -> f.text("shelf", "Shelf")).orElse("Shelf"),
                fields.filter(f -> f.has("null_words"))
                        .map(f -> f.texts("null_words"))
                        .orElse(List.of("")),
                fields.map(f -> f.text("environment", "dev")).orElse("dev"),
                environments,
                problems);
    }
}
