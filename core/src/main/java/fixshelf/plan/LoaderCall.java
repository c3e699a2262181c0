package fixshelf.plan;

import fixshelf.problem.Outcome;
import fixshelf.table.Relation;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// A loader as lines of a job call it. What a first line reads is known before any line is resolved; in a later one its
/// rows stand in place of those before.
///
/// @param lines what the loader does with the table that it reads
public record LoaderCall(String name, String sentence, TableFix lines) implements Operation {
    @Override
    public List<Blank<?>> blanks() {
        return lines.blanks();
    }

    @Override
    public Meaning about() {
        return lines.about();
    }

    @Override
    public List<TableExample> examples() {
        return List.of();
    }

    @Override
    public Resolution resolve(Given given) {
        Map<String, Written> arguments = new LinkedHashMap<>();
        blanks().forEach(b -> given.written(b.name()).ifPresent(w -> arguments.put(b.name(), w)));
        Outcome<Relation> table = given.context()
                .sources()
                .call(new Line(name, arguments), given.context().ids());
        return table.isPresent()
                ? new Resolution.Done(given.begun(table.get()))
                : new Resolution.Refused(table.problems());
    }
}
