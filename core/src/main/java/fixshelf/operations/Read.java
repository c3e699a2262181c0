package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Line;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.table.Relation;
import java.util.List;
import java.util.Map;

/// The rows of a dataset of the shelf.
final class Read extends BuiltIn {
    static final Blank<Relation> SOURCE = Blank.needed("source", ValueKinds.SOURCE, "A dataset of the shelf.");

    Read() {
        super(
                Line.READ,
                "Read {source}",
                new Meaning(
                        "Begin with the rows of a dataset or a job of the shelf; below the first line, instead of those before. Give the line before a name, and join it later, or go on from it.",
                        "As the dataset says.",
                        "As the dataset says.",
                        "As in the source.",
                        "",
                        "Texts, or what its loader or job gives.",
                        "As in the source.",
                        "The rows that do not fit.",
                        "The rows are a table, or a data frame, called like the dataset."),
                List.of(SOURCE),
                List.of(new TableExample(
                        "A second table, to which the first is joined",
                        Table.of("k | n", "'a' | '1'", "'b' | '2'"),
                        Map.of("rates", Table.of("k | rate", "'b' | '7'", "'c' | '9'")),
                        "read: rates",
                        Table.of("k | rate", "'b' | '7'", "'c' | '9'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        return new Resolution.Done(given.begun(given.get(SOURCE)));
    }
}
