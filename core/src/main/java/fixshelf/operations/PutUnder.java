package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import fixshelf.type.Type;
import java.util.Optional;

/// The rows of another table below.
final class PutUnder extends BuiltIn {
    static final Blank<Relation> FROM = Blank.needed("from", ValueKinds.SOURCE, "The other table.");

    PutUnder() {
        super(
                "put_under",
                "Put the rows of {from} below",
                new Meaning(
                        "Put tables under each other by the names of their columns: append, union, stack.",
                        "A column that only one of them has is missing in the rows of the other.",
                        "",
                        "First the rows here, then those of the other table.",
                        "",
                        "Columns of one name have one type; whole and exact numbers become exact, a day beside a time becomes a time at midnight.",
                        "By name, exactly first, else without regard to case. Nothing in common is a problem.",
                        "differences: the columns that only one of them has, or whose type becomes another.",
                        "The same in all."),
                List.of(FROM),
                List.of(new TableExample(
                        "By name",
                        Table.of("a | b", "'1' | '2'"),
                        Map.of("more", Table.of("B | c", "'3' | '4'")),
                        "put_under: more",
                        Table.of("a | b | c", "'1' | '2' | NULL", "NULL | '3' | '4'"))));
    }

    private static Optional<Computed> cast(Field field, Type type) {
        return field.type().equals(type)
                ? Optional.empty()
                : Optional.of(new Computed(
                        field.typed(type), Readings.as(field.value(), type, "").orElseThrow()));
    }

    @Override
    public Resolution resolve(Given given) {
        Relation other = given.get(FROM);
        List<Field> mine = new ArrayList<>(given.fields());
        Map<Integer, Field> partners = new LinkedHashMap<>();
        List<Problem> problems = new ArrayList<>();
        List<Computed> castHere = new ArrayList<>();
        List<Computed> castThere = new ArrayList<>();
        for (Field field : given.fields()) {
            other.shape().find(field.name()).ifPresent(o -> {
                partners.put(field.id(), o);
                Optional<Type> type = Type.together(field.type(), o.type());
                if (type.isEmpty()) {
                    problems.add(Given.problem(
                            Code.WRONG_TYPE,
                            field.name() + " is " + field.type().label() + " here, and "
                                    + o.type().label() + " there.",
                            "Give both one type with read_as, in a line before this one or in the other table."));
                } else {
                    cast(field, type.get()).ifPresent(c -> {
                        castHere.add(c);
                        mine.set(mine.indexOf(field), c.made());
                    });
                    cast(o, type.get()).ifPresent(c -> {
                        castThere.add(c);
                        partners.put(field.id(), c.made());
                    });
                }
            });
        }
        if (partners.isEmpty()) {
            return Given.refused(
                    Code.NO_SUCH_COLUMN,
                    "These tables have no column in common.",
                    "There: " + String.join(", ", other.shape().names()) + ".");
        }
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        List<Computed> missingHere = new ArrayList<>();
        for (Field theirs : other.shape().fields()) {
            if (partners.values().stream().noneMatch(p -> p.id() == theirs.id())) {
                Field made = given.field(theirs.name(), theirs.type());
                missingHere.add(new Computed(made, Formula.missing(theirs.type())));
                mine.add(made);
                partners.put(made.id(), theirs);
            }
        }
        Map<String, String> differences = new LinkedHashMap<>();
        castHere.forEach(c ->
                differences.put(c.made().name(), "becomes " + c.made().type().label() + " here"));
        castThere.forEach(c -> differences.merge(
                c.made().name(), "becomes " + c.made().type().label() + " there", (here, _) -> here + " and there"));
        mine.stream().filter(f -> !partners.containsKey(f.id())).forEach(f -> differences.put(f.name(), "only here"));
        missingHere.forEach(c -> differences.put(c.made().name(), "only there"));
        List<Computed> missingThere = new ArrayList<>();
        List<Field> theirs = new ArrayList<>();
        for (Field field : mine) {
            Field partner = partners.get(field.id());
            if (partner == null) {
                Field made = given.field(field.name(), field.type());
                missingThere.add(new Computed(made, Formula.missing(field.type())));
                theirs.add(made);
            } else {
                theirs.add(partner.named(field.name()));
            }
        }
        missingHere.addAll(castHere);
        missingThere.addAll(castThere);
        Relation below = missingThere.isEmpty() ? other : new Relation.Compute(other, missingThere);
        return new Resolution.Done(
                new Relation.Union(List.of(given.computed(missingHere), new Relation.Pick(below, new Shape(theirs)))),
                differences.isEmpty()
                        ? List.of()
                        : List.of(new Report(
                                "differences",
                                Naming.told(given, "column", "is", differences),
                                "columns that differ",
                                false,
                                true)));
    }
}
