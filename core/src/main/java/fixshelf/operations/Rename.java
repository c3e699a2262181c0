package fixshelf.operations;

import fixshelf.plan.Absent;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.problem.Problem;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// Columns under other names.
final class Rename extends BuiltIn {
    static final Blank<Map<String, String>> NAMES =
            Blank.needed("names", ColumnKinds.RENAMES, "Old names with new ones.");

    Rename() {
        super(
                "rename",
                "Rename {names}",
                new Meaning(
                        "Give columns other names; all pairs at once, so that two can be exchanged.",
                        "",
                        "",
                        "Rows stay as they stand.",
                        "",
                        "Types stay.",
                        "Two columns of one name are a problem, also where they differ in capitals only.",
                        "",
                        "The same in all."),
                List.of(NAMES, Absent.BLANK),
                List.of(new TableExample(
                        "Exchanged",
                        Table.of("a | b", "'1' | '2'"),
                        "rename: {a: b, b: a}",
                        Table.of("b | a", "'1' | '2'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Map<Integer, String> names = new LinkedHashMap<>();
        List<Problem> problems = new ArrayList<>();
        List<Problem> absent = new ArrayList<>();
        given.get(NAMES).forEach((was, name) -> column(was, given, absent).ifPresent(f -> names.put(f.id(), name)));
        problems.addAll(given.get(Absent.BLANK).equals("problem") ? absent : List.of());
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        return new Resolution.Done(new Relation.Pick(
                given.before(),
                new Shape(given.fields().stream()
                        .map(f -> f.named(names.getOrDefault(f.id(), f.name())))
                        .toList())));
    }
}
