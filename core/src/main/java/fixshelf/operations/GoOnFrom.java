package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.table.Relation;
import java.util.List;

/// The table of a line above, once more.
final class GoOnFrom extends BuiltIn {
    static final Blank<Relation> LINE = Blank.needed("line", ValueKinds.LINE, "The name of a line above.");

    GoOnFrom() {
        super(
                "go_on_from",
                "Go on from {line}",
                new Meaning(
                        "Begin a branch at a line above that has a name: two results out of one beginning.",
                        "",
                        "",
                        "As they stood after that line.",
                        "",
                        "As they were there.",
                        "As they were there.",
                        "",
                        "The same in all."),
                List.of(LINE),
                List.of(new TableExample(
                        "Back to what was read",
                        Table.of("n integer | a", "1 | 'x'"),
                        "go_on_from: begin",
                        Table.of("n | a", "'1' | 'x'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        return new Resolution.Done(given.get(LINE));
    }
}
