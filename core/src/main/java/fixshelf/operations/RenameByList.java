package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Columns under names that stand in another table.
final class RenameByList extends BuiltIn {
    static final Blank<Relation> FROM = Blank.needed("from", ValueKinds.SOURCE, "The table that holds the names.");
    static final Blank<String> OLD = Blank.needed("old", ValueKinds.TEXT, "Its column with the old names.");
    static final Blank<String> NEW = Blank.needed("new", ValueKinds.TEXT, "Its column with the new names.");
    static final Blank<String> ABSENT = Blank.usually(
            "if_absent",
            ValueKinds.choice("problem", "pass_over"),
            "problem",
            "What happens where an old name is no column here.");

    RenameByList() {
        super(
                "rename_by_list",
                "Rename by {from}, from {old} to {new}",
                new Meaning(
                        "Give columns the names that a list of the shelf holds, all at once: rename from a dictionary, a code book.",
                        "A pair with a missing name is passed over.",
                        "A pair with an empty name is passed over.",
                        "Rows stay as they stand.",
                        "The same old name with two new ones is a problem.",
                        "Types stay.",
                        "Two columns of one name are a problem, also where they differ in capitals only.",
                        "",
                        "What was seen in the data is written out."),
                List.of(FROM, OLD, NEW, ABSENT),
                List.of(
                        new TableExample(
                                "Two of three",
                                Table.of("a | b | c", "'1' | '2' | '3'"),
                                Map.of("list", Table.of("was | is", "'c' | 'a'", "'A' | 'c'", "NULL | 'x'")),
                                "rename_by_list: list\nold: was\nnew: is",
                                Table.of("c | b | a", "'1' | '2' | '3'")),
                        new TableExample(
                                "One that is not here",
                                Table.of("a", "'1'"),
                                Map.of("list", Table.of("was | is", "'a' | 'k'", "'z' | 'y'")),
                                "rename_by_list: list\nold: was\nnew: is\nif_absent: pass_over",
                                Table.of("k", "'1'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Relation from = given.get(FROM);
        List<Problem> problems = new ArrayList<>();
        Optional<Field> old = other(given.get(OLD), from, problems);
        Optional<Field> name = other(given.get(NEW), from, problems);
        for (Field field : List.of(old, name).stream().flatMap(Optional::stream).toList()) {
            if (!field.type().equals(Type.TEXT)) {
                problems.add(Given.problem(
                        Code.WRONG_TYPE,
                        field.name() + " is " + field.type().label() + ", and names are texts.",
                        "Name a column of text."));
            }
        }
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        return new Resolution.Asks(
                new Relation.Pick(from, new Shape(List.of(old.get(), name.get()))), seen -> renamed(given, seen));
    }

    private static Resolution renamed(Given given, List<List<@Nullable Object>> seen) {
        Map<Integer, String> names = new LinkedHashMap<>();
        List<Problem> problems = new ArrayList<>();
        for (List<@Nullable Object> row : seen) {
            String old = row.getFirst() == null ? "" : String.valueOf(row.getFirst());
            String name = row.getLast() == null ? "" : String.valueOf(row.getLast());
            if (old.isBlank() || name.isBlank()) {
                continue;
            }
            List<Problem> absent = new ArrayList<>();
            column(old, given, absent).ifPresent(f -> {
                String before = names.putIfAbsent(f.id(), name);
                if (before != null && !before.equals(name)) {
                    problems.add(Given.problem(
                            Code.NAME_CLASH,
                            f.name() + " would be called " + before + " and " + name + ".",
                            "Take one of them out of the list."));
                }
            });
            problems.addAll(given.get(ABSENT).equals("problem") ? absent : List.of());
        }
        Map<String, String> taken = new LinkedHashMap<>();
        List<Field> fields = new ArrayList<>();
        for (Field field : given.fields()) {
            String name = names.getOrDefault(field.id(), field.name());
            String other = taken.putIfAbsent(name.toLowerCase(Locale.ROOT), field.name());
            if (other != null) {
                problems.add(Given.problem(
                        Code.NAME_CLASH,
                        other + " and " + field.name() + " would both be called " + name + ".",
                        "Give one of them another name."));
            }
            fields.add(field.named(name));
        }
        return problems.isEmpty()
                ? new Resolution.Done(
                        new Relation.Pick(given.before(), new Shape(fields)), Naming.report(given, fields))
                : new Resolution.Refused(problems.stream().distinct().limit(5).toList());
    }
}
