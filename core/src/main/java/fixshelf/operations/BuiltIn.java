package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Names;
import fixshelf.plan.Blank;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.Operation;
import fixshelf.plan.TableExample;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.table.Windowed;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// What built-in operations have in common.
abstract class BuiltIn implements Operation {
    private final String name;
    private final String sentence;
    private final Meaning about;
    private final List<Blank<?>> blanks;
    private final List<TableExample> examples;

    BuiltIn(String name, String sentence, Meaning about, List<Blank<?>> blanks, List<TableExample> examples) {
        this.name = name;
        this.sentence = sentence;
        this.about = about;
        this.blanks = List.copyOf(blanks);
        this.examples = List.copyOf(examples);
    }

    @Override
    public final String name() {
        return name;
    }

    @Override
    public final String sentence() {
        return sentence;
    }

    @Override
    public final Meaning about() {
        return about;
    }

    @Override
    public final List<Blank<?>> blanks() {
        return blanks;
    }

    @Override
    public final List<TableExample> examples() {
        return examples;
    }

    /// The rows for which a condition is neither true nor false.
    static List<Report> unknown(Relation before, Expr where) {
        return List.of(new Report(
                "unknown", new Relation.Keep(before, Formula.isMissing(where)), "rows for which it is unknown"));
    }

    /// The rows whose number in the table, from 1, is as wanted.
    static Resolution numbered(Given given, UnaryOperator<Expr> wanted) {
        Field number = given.helper("row_number", Type.INTEGER);
        Relation numbered = new Relation.Window(
                given.before(), List.of(Windowed.number(number, Windowed.Kind.NUMBER)), List.of(), List.of(), false);
        Relation kept = new Relation.Keep(numbered, wanted.apply(number.value()));
        return new Resolution.Done(Given.without(kept, List.of(number)));
    }

    /// What is wrong where columns are of different types, and an expression speaks of it.
    static Optional<Problem> mixed(List<Field> columns) {
        if (columns.isEmpty()) {
            return Optional.empty();
        }
        Field first = columns.getFirst();
        return columns.stream()
                .filter(c -> !c.type().equals(first.type()))
                .findFirst()
                .map(other -> Given.problem(
                        Code.WRONG_TYPE,
                        first.name() + " is " + first.type().label() + ", and " + other.name() + " is "
                                + other.type().label() + ", so that it would be of two types.",
                        "Name columns of one type in this line, and the others in another."));
    }

    /// The column of that name here.
    static Optional<Field> column(String name, Given given, List<Problem> problems) {
        return find(name, given.before(), "at this line", problems);
    }

    /// The column of that name in another table.
    static Optional<Field> other(String name, Relation table, List<Problem> problems) {
        return find(name, table, "in the other table", problems);
    }

    private static Optional<Field> find(String name, Relation table, String where, List<Problem> problems) {
        Optional<Field> field = table.shape().find(name);
        if (field.isEmpty()) {
            List<String> all = table.shape().names();
            problems.add(Given.problem(
                    Code.NO_SUCH_COLUMN,
                    name,
                    "There is no column " + name + " " + where + ".",
                    Names.suggestColumn(name, all)));
        }
        return field;
    }

    /// Columns here with those of another table; a pair of different types is a problem.
    static List<Relation.Pair> pairs(
            Given given, Relation other, Map<String, String> matching, List<Problem> problems) {
        List<Relation.Pair> pairs = new ArrayList<>();
        matching.forEach((here, there) -> {
            Optional<Field> left = column(here, given, problems);
            Optional<Field> right = other(there, other, problems);
            if (left.isEmpty() || right.isEmpty()) {
                return;
            }
            if (!left.get().type().equals(right.get().type())) {
                problems.add(Given.problem(
                        Code.WRONG_TYPE,
                        here + " is " + left.get().type().label() + ", and " + there + " is "
                                + right.get().type().label() + ".",
                        "Give both one type with read_as before."));
                return;
            }
            pairs.add(new Relation.Pair(left.get(), right.get(), false));
        });
        return pairs;
    }

    /// The same table, and the rows that break a check.
    static Resolution checked(Given given, Relation broken, boolean onlyCount) {
        return new Resolution.Done(
                given.before(), List.of(new Report("broken", broken, "rows that break it", !onlyCount)));
    }

    /// The table without those columns, of some, for which what was counted says so.
    ///
    /// @param counted the table in which is counted; it may have more fields
    /// @param isGone gets what was seen, and the place of the column among `columns`
    static Resolution withoutSome(
            Given given,
            Relation counted,
            List<Field> columns,
            List<Grouped> counts,
            BiPredicate<List<List<@Nullable Object>>, Integer> isGone) {
        return new Resolution.Asks(new Relation.Group(counted, List.of(), counts), seen -> {
            List<Field> gone = IntStream.range(0, columns.size())
                    .filter(i -> isGone.test(seen, i))
                    .mapToObj(columns::get)
                    .toList();
            // A table without columns has no rows.
            Relation before = gone.size() == given.fields().size()
                    ? new Relation.Keep(given.before(), Expr.Literal.truth(false))
                    : given.before();
            return new Resolution.Done(Given.without(before, gone));
        });
    }

    /// A number of the one row that was seen; none where no row was.
    static long count(List<List<@Nullable Object>> seen, int column) {
        return seen.isEmpty() || !(seen.getFirst().get(column) instanceof Number number) ? 0 : number.longValue();
    }
}
