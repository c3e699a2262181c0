package fixshelf.operations;

import fixshelf.plan.Blank;
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
                List.of(FROM, Matching.MATCHING, Matching.COMPARE),
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
        return Matching.of(given, given.get(FROM), problems)
                .<Resolution>map(m -> new Resolution.Done(m.rows(Relation.Meeting.WITHOUT)))
                .orElseGet(() -> new Resolution.Refused(problems));
    }
}
