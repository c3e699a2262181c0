package fixshelf.operations;

import fixshelf.language.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// Other values by a list of pairs.
final class ByMapping extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");
    static final Blank<Map<String, @Nullable String>> PAIRS = Blank.needed(
            "pairs", ValueKinds.PAIRS, "Values with those that they become, or {in: table, from: column, to: column}.");
    static final Blank<String> OTHERS = Blank.usually(
            "others",
            ValueKinds.choice("stay", "become_missing"),
            "stay",
            "What happens to values that are on no list.");

    ByMapping() {
        super(
                "by_mapping",
                "Change {columns} by {pairs}, others {others}",
                new Meaning(
                        "Replace values by a mapping: recode, translate codes, merge spellings, look up in a list.",
                        "Missing stays missing.",
                        "An empty text can be a key.",
                        "Rows stay as they stand.",
                        "The first pair of a key counts.",
                        "Texts.",
                        "",
                        "unmatched: the values that are on no list, with how many rows.",
                        "The same in all."),
                List.of(COLUMNS, PAIRS, OTHERS),
                List.of(
                        new TableExample(
                                "Others stay",
                                Table.of("a", "'m'", "'x'", "NULL"),
                                "by_mapping: [a]\npairs: {m: mended}",
                                Table.of("a", "'mended'", "'x'", "NULL")),
                        new TableExample(
                                "Others become missing",
                                Table.of("a", "'m'", "'x'"),
                                "by_mapping: [a]\npairs: {m: mended}\nothers: become_missing",
                                Table.of("a", "'mended'", "NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = given.get(COLUMNS);
        Optional<Field> other =
                columns.stream().filter(c -> !c.type().equals(Type.TEXT)).findFirst();
        if (other.isPresent()) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    other.get().name() + " is " + other.get().type().label() + ", and a mapping is of texts.",
                    "Read it as text before.");
        }
        Expr pairs = new Expr.Literal(given.get(PAIRS), new Type.Mapping(Type.TEXT, Type.TEXT));
        boolean stay = given.get(OTHERS).equals("stay");
        List<Computed> cells = columns.stream()
                .map(c ->
                        new Computed(c, stay ? mapped(c, pairs, c.value()) : Formula.call("lookup", c.value(), pairs)))
                .toList();
        return new Resolution.Done(given.computed(cells), List.of(unmatched(given, columns, pairs)));
    }

    @Override
    public boolean losesValues() {
        return true;
    }

    private static Expr mapped(Field field, Expr pairs, Expr otherwise) {
        return Formula.call("coalesce", Formula.call("lookup", field.value(), pairs), otherwise);
    }

    private static Report unmatched(Given given, List<Field> columns, Expr pairs) {
        List<Expr> without = columns.stream()
                .map(c -> Formula.all(List.of(
                        Formula.isKnown(c.value()), Formula.isMissing(Formula.call("lookup", c.value(), pairs)))))
                .toList();
        return new Report(
                "unmatched", new Relation.Keep(given.before(), Formula.any(without)), "rows with a value on no list");
    }
}
