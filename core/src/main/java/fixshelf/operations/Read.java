package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Line;
import fixshelf.plan.Meaning;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.table.Relation;
import java.util.List;

/// The rows of a dataset of the shelf.
final class Read extends BuiltIn {
    static final Blank<Relation> SOURCE = Blank.needed("source", ValueKinds.SOURCE, "A dataset of the shelf.");

    Read() {
        super(
                Line.READ,
                "Read {source}",
                new Meaning(
                        "Begin with the rows of a dataset of the shelf.",
                        "As the dataset says.",
                        "As the dataset says.",
                        "As in the source.",
                        "",
                        "Texts.",
                        "As in the source.",
                        "The rows that do not fit.",
                        "The rows are a table, or a data frame, called like the dataset."),
                List.of(SOURCE),
                List.of());
    }

    @Override
    public Resolution resolve(Given given) {
        return Given.refused(Code.BAD_FIELD, "Only the first line reads.", "Remove this line.");
    }
}
