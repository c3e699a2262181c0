package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
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

    /// A column with its pairs.
    record One(Field column, Map<String, @Nullable String> pairs) {
        private Expr found() {
            return Formula.call(
                    "lookup", column.value(), new Expr.Literal(pairs, new Type.Mapping(Type.TEXT, Type.TEXT)));
        }

        Computed cell(boolean othersStay) {
            return new Computed(column, othersStay ? Formula.call("coalesce", found(), column.value()) : found());
        }

        private Expr isOnNoList() {
            return Formula.all(List.of(Formula.isKnown(column.value()), Formula.isMissing(found())));
        }
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = given.get(COLUMNS);
        List<Problem> problems =
                columns.stream().flatMap(c -> refused(c).stream()).toList();
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        List<One> all = columns.stream().map(c -> new One(c, given.get(PAIRS))).toList();
        boolean stay = given.get(OTHERS).equals("stay");
        return new Resolution.Done(
                given.computed(all.stream().map(one -> one.cell(stay)).toList()), List.of(unmatched(given, all)));
    }

    @Override
    public boolean losesValues() {
        return true;
    }

    /// Why a column cannot be mapped.
    static Optional<Problem> refused(Field column) {
        return column.type().equals(Type.TEXT)
                ? Optional.empty()
                : Optional.of(Given.problem(
                        Code.WRONG_TYPE,
                        column.name() + " is " + column.type().label() + ", and a mapping is of texts.",
                        "Read it as text before."));
    }

    static Report unmatched(Given given, List<One> all) {
        return new Report(
                "unmatched",
                new Relation.Keep(
                        given.before(),
                        Formula.any(all.stream().map(One::isOnNoList).toList())),
                "rows with a value on no list");
    }
}
