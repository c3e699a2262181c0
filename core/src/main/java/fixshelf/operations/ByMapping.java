package fixshelf.operations;

import fixshelf.plan.Absent;
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
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// Other values by a list of pairs.
final class ByMapping extends BuiltIn {
    static final Blank<List<Field>> COLUMNS = Blank.needed("columns", ColumnKinds.COLUMNS, "Which columns.");
    static final Blank<Map<String, @Nullable String>> PAIRS = Blank.needed(
            "pairs", ValueKinds.PAIRS, "Values with those that they become, or {in: table, from: column, to: column}.");
    static final Blank<String> OTHERS = Blank.usually(
            "others",
            ValueKinds.choice("stay", "become_missing", "become", "stop"),
            "stay",
            "What happens to values that are on no list: stop means that a run stops where there are any.");
    static final Blank<String> OTHERWISE =
            Blank.optional("otherwise", ValueKinds.TEXT, "With `others: become`, the value that they become.");

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
                        "Texts. A value becomes missing where the table of pairs says nothing beside it.",
                        "",
                        "unmatched: the rows with a value that is on no list; where others stop, a run stops.",
                        "The same in all."),
                List.of(COLUMNS, PAIRS, OTHERS, OTHERWISE, Absent.BLANK),
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
                                Table.of("a", "'mended'", "NULL")),
                        new TableExample(
                                "Others become a value",
                                Table.of("a", "'m'", "'x'", "NULL"),
                                "by_mapping: [a]\npairs: {m: mended}\nothers: become\notherwise: other",
                                Table.of("a", "'mended'", "'other'", "NULL"))));
    }

    /// A column with its pairs.
    record One(Field column, Map<String, @Nullable String> pairs) {
        private Expr call(String function) {
            return Formula.call(
                    function, column.value(), new Expr.Literal(pairs, new Type.Mapping(Type.TEXT, Type.TEXT)));
        }

        /// @param otherwise what a value becomes that is on no list; empty where it stays
        Computed cell(Optional<Expr> otherwise) {
            Expr other = otherwise.orElse(column.value());
            boolean plain = !pairs.containsValue(null);
            Expr found = call("lookup");
            Expr value = plain && otherwise.isEmpty()
                    ? Formula.call("coalesce", found, other)
                    : Formula.when(
                            Formula.isMissing(column.value()),
                            Formula.missing(Type.TEXT),
                            Formula.when(call("is_key"), found, other));
            return new Computed(column, value);
        }

        private Expr isOnNoList() {
            return Formula.all(List.of(Formula.isKnown(column.value()), Formula.not(call("is_key"))));
        }
    }

    /// What values on no list become; empty where they stay, or are refused.
    static Optional<Expr> otherwise(Given given) {
        return switch (given.get(OTHERS)) {
            case "become_missing" -> Optional.of(Formula.missing(Type.TEXT));
            case "become" -> Optional.of(Expr.Literal.text(given.find(OTHERWISE).orElse("")));
            default -> Optional.empty();
        };
    }

    /// What is wrong with the value that others become.
    static Optional<Problem> refusedOtherwise(Given given) {
        boolean becomes = given.get(OTHERS).equals("become");
        return becomes == given.find(OTHERWISE).isPresent()
                ? Optional.empty()
                : Optional.of(Given.problem(
                        Code.ARGUMENTS,
                        becomes ? "What do the others become?" : "Others become nothing else here.",
                        becomes
                                ? "Write `otherwise:` and that value."
                                : "Write `others: become`, or leave `otherwise` out."));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Field> columns = given.get(COLUMNS);
        List<Problem> problems = Stream.concat(
                        columns.stream().flatMap(c -> refused(c).stream()), refusedOtherwise(given).stream())
                .toList();
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        List<One> all = columns.stream().map(c -> new One(c, given.get(PAIRS))).toList();
        Optional<Expr> otherwise = otherwise(given);
        return new Resolution.Done(
                given.computed(all.stream().map(one -> one.cell(otherwise)).toList()), List.of(unmatched(given, all)));
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
                "rows with a value on no list",
                given.get(OTHERS).equals("stop"));
    }
}
