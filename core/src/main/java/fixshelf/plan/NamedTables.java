package fixshelf.plan;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.table.Relation;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// The lines of a table fix that have a name, as tables, beside the other tables there are. Names of the caller's lines
/// are not seen.
record NamedTables(Context.Sources others, Map<String, Relation> named) implements Context.Sources {
    @Override
    public Outcome<Relation> find(String name, Context.Ids ids) {
        return line(name).map(Outcome::of).orElseGet(() -> others.find(name, ids));
    }

    @Override
    public Outcome<Relation> call(Line loader, Context.Ids ids) {
        return others.call(loader, ids);
    }

    @Override
    public Optional<Relation> line(String name) {
        return Optional.ofNullable(named.get(name));
    }

    @Override
    public List<String> names() {
        return Stream.concat(named.keySet().stream(), others.names().stream()).toList();
    }

    @Override
    public Outcome<Map<String, @Nullable String>> pairs(String source, String from, String to) {
        return named.containsKey(source)
                ? Refusal.of(
                        Code.ARGUMENTS,
                        "Inside a table fix a mapping is out of a dataset or a job, not out of the line " + source
                                + ".",
                        "Bring the columns in instead.")
                : others.pairs(source, from, to);
    }
}
