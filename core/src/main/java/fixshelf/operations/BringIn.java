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
import java.util.Optional;

/// Columns of another table.
final class BringIn extends BuiltIn {
    static final Blank<List<String>> COLUMNS =
            Blank.needed("columns", ColumnKinds.NEW_NAMES, "The columns of the other table.");
    static final Blank<Relation> FROM = Blank.needed("from", ValueKinds.SOURCE, "The other table.");
    static final Blank<String> REST = Blank.usually(
            "without_match", ValueKinds.choice("stay", "leave"), "stay", "What happens to rows without a match.");
    static final Blank<String> SEVERAL = Blank.usually(
            "several",
            ValueKinds.choice("all", "first", "stop"),
            "all",
            "Of several matches all, or the first; or a run stops where there are several.");
    static final Blank<Long> MOST = Blank.usually(
            "most",
            ValueKinds.whole(1, 1_000_000),
            "20",
            "How many times as many rows may come out; more are a problem.");
    static final Blank<String> PREFIX = Blank.usually("prefix", ValueKinds.TEXT, "", "What new names begin with.");

    BringIn() {
        super(
                "bring_in",
                "Bring in {columns} from {from}, matching {matching}",
                new Meaning(
                        "Look up columns in another table by keys: join, enrich, add from a list.",
                        "A missing key matches nothing.",
                        "An empty text is a key like others.",
                        "Rows stay as they stand; of several matches, in the order of the other table.",
                        "A row that matches several gets a row for each, unless only the first is taken, or a run stops there.",
                        "The keys have one type on both sides.",
                        "A name that is there already is a problem; prefix: gives the new ones another beginning.",
                        "without_match: the rows without a match. unmatched_keys: their different keys, with how many rows. near_misses: unmatched keys that nearly match, and all that they differ in (white space, capitals, accents, marks, leading zeros); where one text is the key also one letter (another, too many, missing, exchanged; keys of 4 to 30 letters without digits), from eight letters on one missing and one too many, or two others in keys that begin or end with the same three letters; or the initial of the first word; the first 5,000 keys of each side. ambiguous: the rows that match several. unused: the rows of the other table that match none.",
                        "The same in all."),
                List.of(COLUMNS, FROM, Matching.MATCHING, REST, SEVERAL, MOST, PREFIX, Matching.COMPARE),
                List.of(
                        new TableExample(
                                "Without a match stays",
                                Table.of("a", "'x'", "'y'", "NULL"),
                                Map.of("list", Table.of("k | v", "'x' | '1'", "NULL | '9'")),
                                "bring_in: [v]\nfrom: list\nmatching: {a: k}",
                                Table.of("a | v", "'x' | '1'", "'y' | NULL", "NULL | NULL")),
                        new TableExample(
                                "Two matches give two rows",
                                Table.of("a", "'x'", "'y'"),
                                Map.of("list", Table.of("k | v", "'x' | '1'", "'x' | '2'")),
                                "bring_in: [v]\nfrom: list\nmatching: {a: k}\nwithout_match: leave",
                                Table.of("a | v", "'x' | '1'", "'x' | '2'")),
                        new TableExample(
                                "The first match only",
                                Table.of("a", "'x'"),
                                Map.of("list", Table.of("k | v", "'x' | '1'", "'x' | '2'")),
                                "bring_in: [v]\nfrom: list\nmatching: {a: k}\nseveral: first\nprefix: list_",
                                Table.of("a | list_v", "'x' | '1'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Relation other = given.get(FROM);
        List<Problem> problems = new ArrayList<>();
        Optional<Matching> matching = Matching.of(given, other, problems);
        List<Relation.Taken> taken = new ArrayList<>();
        for (String name : given.get(COLUMNS)) {
            String made = given.get(PREFIX) + name;
            given.meets(made).ifPresent(problems::add);
            other(name, other, problems).ifPresent(f -> taken.add(new Relation.Taken(f, given.field(made, f.type()))));
        }
        if (matching.isEmpty() || !problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        Matching met = matching.get();
        Relation right = given.get(SEVERAL).equals("first")
                ? new Relation.FirstOf(met.right(), met.rightKeys(), List.of(), false)
                : met.right();
        boolean stay = given.get(REST).equals("stay");
        Relation joined = new Relation.Join(
                met.left(), right, met.on(), stay ? Relation.Meeting.ALL_LEFT : Relation.Meeting.PAIRS, taken);
        return new Resolution.Done(
                met.shown(joined),
                MatchReports.of(given, met, given.get(SEVERAL).equals("stop")),
                Optional.of(met.guard(given, right, given.get(MOST), stay)));
    }
}
