package fixshelf.operations;

import fixshelf.language.tree.Names;
import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Field;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/// Check that a table has the columns that are stated.
final class MakeSureColumns extends BuiltIn {
    static final Blank<Map<String, Type>> TYPES =
            Blank.needed("types", ValueKinds.TYPES, "The columns that are there, with their types.");
    static final Blank<String> OTHERS = Blank.usually(
            "other_columns",
            ValueKinds.choice("may_stand", "must_not"),
            "may_stand",
            "Whether there may be other columns beside those.");

    MakeSureColumns() {
        super(
                "make_sure_columns",
                "Make sure that there are {types}, other columns {other_columns}",
                new Meaning(
                        "Check that columns are as stated: the layout of a file, schema, new, missing and renamed columns.",
                        "",
                        "",
                        "Rows stay as they stand; columns may stand in another order.",
                        "",
                        "A column of another type breaks it.",
                        "Exactly, or the only one without regard to capitals.",
                        "",
                        "It is looked at before any row is: what breaks it is a problem of the line, in each language before its code is written."),
                List.of(TYPES, OTHERS),
                List.of(new TableExample(
                        "It holds",
                        Table.of("a | n integer", "'x' | 1"),
                        "make_sure_columns: {a: text, n: integer}\nother_columns: must_not",
                        Table.of("a | n integer", "'x' | 1"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<String> absent = new ArrayList<>();
        List<String> other = new ArrayList<>();
        List<Field> stated = new ArrayList<>();
        given.get(TYPES).forEach((name, type) -> {
            Optional<Field> found = given.before().shape().find(name);
            found.ifPresent(stated::add);
            if (found.isEmpty()) {
                absent.add(name);
            } else if (!found.get().type().equals(type)) {
                other.add(name + " is " + found.get().type().label() + ", not " + type.label());
            }
        });
        List<String> more = given.fields().stream()
                .filter(f -> given.get(OTHERS).equals("must_not") && !stated.contains(f))
                .map(Field::name)
                .toList();
        List<Problem> problems = new ArrayList<>();
        if (!absent.isEmpty()) {
            problems.add(Given.problem(
                    Code.NO_SUCH_COLUMN,
                    Names.listed(absent) + (absent.size() == 1 ? " is" : " are") + " not there.",
                    "There are: " + given.fields().stream().map(Field::name).collect(Collectors.joining(", ")) + "."));
        }
        if (!other.isEmpty()) {
            problems.add(Given.problem(
                    Code.WRONG_TYPE,
                    String.join("; ", other) + ".",
                    "Read it as that type before, or state the other."));
        }
        if (!more.isEmpty()) {
            problems.add(Given.problem(
                    Code.NO_SUCH_COLUMN,
                    Names.listed(more) + (more.size() == 1 ? " is" : " are") + " there, and not stated.",
                    "State them, choose the others before, or let `other_columns` be."));
        }
        return problems.isEmpty() ? new Resolution.Done(given.before()) : new Resolution.Refused(problems);
    }
}
