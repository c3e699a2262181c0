package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Problem;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The rows of two tables side by side.
final class JoinTables extends BuiltIn {
    static final Blank<Relation> FROM = Blank.needed("from", ValueKinds.SOURCE, "The other table.");
    static final Blank<String> KEEP = Blank.usually(
            "keep",
            ValueKinds.choice("matches", "all_here", "all_there", "all"),
            "matches",
            "Which rows without a match stay beside the matches: none, those here, those of the other table, or all.");
    static final Blank<String> PREFIX = Blank.usually("prefix", ValueKinds.TEXT, "", "What new names begin with.");

    JoinTables() {
        super(
                "join",
                "Join with {from}, matching {matching}, keeping {keep}",
                new Meaning(
                        "All columns of two tables side by side, where keys are equal: inner, left, right and full join.",
                        "A missing key matches nothing.",
                        "An empty text is a key like others.",
                        "Rows as they stand here, and in each the matches in the order of the other table; the rows that only the other table has come last.",
                        "",
                        "The keys have one type on both sides.",
                        "The keys of the other table are left out, as they are equal; in a row that only it has, they stand in the columns here. A name that is there already is a problem; prefix: gives the new ones another beginning.",
                        "without_match, unmatched_keys, near_misses, ambiguous, unused: as for bring_in.",
                        "The same in all."),
                List.of(FROM, Matching.MATCHING, KEEP, BringIn.MOST, PREFIX, Matching.COMPARE),
                List.of(
                        new TableExample(
                                "Matches only",
                                Table.of("a | n", "'x' | '1'", "'y' | '2'", "NULL | '3'"),
                                Map.of("list", Table.of("k | v", "'x' | 'p'", "'z' | 'q'", "NULL | 'r'")),
                                "join: list\nmatching: {a: k}",
                                Table.of("a | n | v", "'x' | '1' | 'p'")),
                        new TableExample(
                                "All of both",
                                Table.of("a | n", "'x' | '1'", "'y' | '2'", "NULL | '3'"),
                                Map.of("list", Table.of("k | v", "'x' | 'p'", "'z' | 'q'", "NULL | 'r'")),
                                "join: list\nmatching: {a: k}\nkeep: all",
                                Table.of(
                                        "a | n | v",
                                        "'x' | '1' | 'p'",
                                        "'y' | '2' | NULL",
                                        "NULL | '3' | NULL",
                                        "'z' | NULL | 'q'",
                                        "NULL | NULL | 'r'")),
                        new TableExample(
                                "All there",
                                Table.of("a | v", "'x' | '1'", "'x' | '2'"),
                                Map.of("list", Table.of("k | v", "'z' | 'q'", "'x' | 'p'")),
                                "join: list\nmatching: {a: k}\nkeep: all_there\nprefix: list_",
                                Table.of("a | v | list_v", "'x' | '1' | 'p'", "'x' | '2' | 'p'", "'z' | NULL | 'q'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Relation other = given.get(FROM);
        List<Problem> problems = new ArrayList<>();
        Optional<Matching> matching = Matching.of(given, other, problems);
        List<Relation.Pair> plain = pairs(given, other, given.get(Matching.MATCHING), new ArrayList<>());
        List<Relation.Taken> taken = new ArrayList<>();
        for (Field field : other.shape().fields()) {
            if (plain.stream().noneMatch(p -> p.right().id() == field.id())) {
                String name = given.get(PREFIX) + field.name();
                given.meets(name).ifPresent(problems::add);
                taken.add(new Relation.Taken(field, given.field(name, field.type())));
            }
        }
        if (matching.isEmpty() || !problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        Matching met = matching.get();
        String keep = given.get(KEEP);
        boolean here = keep.equals("all_here") || keep.equals("all");
        Relation joined = met.shown(new Relation.Join(
                met.left(), met.right(), met.on(), here ? Relation.Meeting.ALL_LEFT : Relation.Meeting.PAIRS, taken));
        boolean there = keep.equals("all_there") || keep.equals("all");
        return new Resolution.Done(
                there ? new Relation.Union(List.of(joined, onlyThere(given, met, plain, taken))) : joined,
                MatchReports.of(given, met),
                Optional.of(met.guard(given, met.right(), given.get(BringIn.MOST), here)));
    }

    /// The rows of the other table without a match, with the columns of the joined table.
    private static Relation onlyThere(
            Given given, Matching met, List<Relation.Pair> plain, List<Relation.Taken> taken) {
        Relation alone = new Relation.Join(met.right(), met.left(), met.turned(), Relation.Meeting.WITHOUT, List.of());
        Map<Integer, Field> keys = new HashMap<>();
        plain.forEach(p -> keys.putIfAbsent(p.left().id(), p.right()));
        List<Computed> missing = new ArrayList<>();
        List<Field> fields = new ArrayList<>();
        for (Field field : given.fields()) {
            Field key = keys.get(field.id());
            if (key == null) {
                Field made = given.helper(field.name() + "_of_none", field.type());
                missing.add(new Computed(made, Formula.missing(field.type())));
                fields.add(made.named(field.name()));
            } else {
                fields.add(key.named(field.name()));
            }
        }
        taken.forEach(t -> fields.add(t.field().named(t.made().name())));
        Relation filled = missing.isEmpty() ? alone : new Relation.Compute(alone, missing);
        return new Relation.Pick(filled, new Shape(fields));
    }
}
