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

/// Check that keys are in another table.
final class MakeSureIn extends BuiltIn {
    static final Blank<Relation> FROM = Blank.needed("from", ValueKinds.SOURCE, "The other table.");
    static final Blank<Boolean> ONLY_COUNT = Blank.usually(
            "only_count", ValueKinds.FLAG, "false", "Whether a run goes on, and only says how many rows break it.");

    MakeSureIn() {
        super(
                "make_sure_in",
                "Make sure that every row is in {from}, matching {matching}",
                new Meaning(
                        "Check that keys are in another table: foreign key, code on a list.",
                        "A missing key is in no table, and breaks it.",
                        "An empty text is a key like others.",
                        "Rows stay as they stand.",
                        "",
                        "The keys have one type on both sides.",
                        "",
                        "broken: the rows that break it. A run stops where there is any, unless it only counts.",
                        "A query that gives the rows that break it in SQL, an assertion in pandas and R."),
                List.of(FROM, Matching.MATCHING, Matching.COMPARE, ONLY_COUNT),
                List.of(new TableExample(
                        "It holds",
                        Table.of("a", "'x'"),
                        Map.of("list", Table.of("k", "'x'", "'y'")),
                        "make_sure_in: list\nmatching: {a: k}",
                        Table.of("a", "'x'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Problem> problems = new ArrayList<>();
        return Matching.of(given, given.get(FROM), problems)
                .map(m -> checked(given, m.rows(Relation.Meeting.WITHOUT), given.get(ONLY_COUNT)))
                .orElseGet(() -> new Resolution.Refused(problems));
    }
}
