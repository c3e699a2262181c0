package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Problem;
import fixshelf.table.Relation;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/// Remove the rows whose key is in another table.
final class LeaveOutMatching extends BuiltIn {
    static final Blank<Relation> FROM = Blank.needed("from", ValueKinds.SOURCE, "The other table.");
    static final Blank<Map<String, String>> MATCHING =
            Blank.needed("matching", ColumnKinds.RENAMES, "Columns here with those there that they must equal.");

    LeaveOutMatching() {
        super(
                "leave_out_matching",
                "Leave out rows that are in {from}, matching {matching}",
                new Meaning(
                        "Remove the rows whose key is in another table: not on the list, anti-join, what is new.",
                        "A missing key is in no table.",
                        "An empty text is a key like others.",
                        "Rows stay as they stand.",
                        "",
                        "The keys have one type on both sides.",
                        "",
                        "The rows that leave.",
                        "The same in all."),
                List.of(FROM, MATCHING),
                List.of(new TableExample(
                        "Rows once",
                        Table.of("a", "'x'", "'y'", "NULL"),
                        Map.of("list", Table.of("k", "'x'", "'x'", "NULL")),
                        "leave_out_matching: list\nmatching: {a: k}",
                        Table.of("a", "'y'", "NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Problem> problems = new ArrayList<>();
        List<Relation.Pair> on = pairs(given, given.get(FROM), given.get(MATCHING), problems);
        return problems.isEmpty()
                ? new Resolution.Done(
                        new Relation.Join(given.before(), given.get(FROM), on, Relation.Meeting.WITHOUT, List.of()))
                : new Resolution.Refused(problems);
    }
}
