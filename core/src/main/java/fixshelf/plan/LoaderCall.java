package fixshelf.plan;

import fixshelf.problem.Code;
import java.util.List;

/// A loader as the first line of a job calls it. What it reads is known before any line is resolved, so that it has
/// nothing to do with a table before it.
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
        return Given.refused(
                Code.BAD_FIELD,
                name + " is a loader, and only the first line reads.",
                "Give it a page of a dataset, with `load: " + name + "`, and bring that in.");
    }
}
