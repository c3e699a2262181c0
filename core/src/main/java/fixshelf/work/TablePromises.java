package fixshelf.work;

import fixshelf.check.CaseResult;
import fixshelf.check.MadeUpValues;
import fixshelf.engine.DuckJobs;
import fixshelf.plan.Callables;
import fixshelf.plan.TableExample;
import fixshelf.plan.Written;
import fixshelf.problem.Outcome;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.shelf.TablePromise;
import fixshelf.table.Field;
import fixshelf.table.Lineage;
import fixshelf.type.Column;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/// Looks for tables that break a promise of a table fix, and makes the one it finds as small as it can. Tables have the
/// columns of the cases, with the cells of these, missing cells and the edges of each type; the call is that of the
/// case. The same tables are made each time.
public final class TablePromises {
    /// So many tables are made of each case.
    private static final int TABLES = 12;

    private static final int MOST_CASES = 4;
    private static final int MOST_ROWS = 6;
    private static final int EDGES = 12;
    private static final long SEED = 20_260_207L;

    private final TableFixPage page;
    private final Callables callables;
    private final DuckJobs duckdb;
    private final List<TableExample> tables = new ArrayList<>();
    private final List<Outcome<OperationExamples.Answered>> once = new ArrayList<>();

    private TablePromises(Shelf shelf, TableFixPage page, DuckJobs duckdb) {
        this.page = page;
        this.duckdb = duckdb;
        this.callables = shelf.callables();
        Random random = new Random(SEED);
        LoaderCases.ready(shelf, page).examples().stream()
                .filter(c -> c.unread().isEmpty())
                .limit(MOST_CASES)
                .forEach(c -> {
                    for (int i = 0; i < TABLES; i++) {
                        tables.add(madeUp(c, i % (MOST_ROWS + 1), random));
                    }
                });
    }

    /// The results for all promises of a fix.
    public static List<TablePromiseResult> run(Shelf shelf, TableFixPage page) {
        if (page.promises().isEmpty()) {
            return List.of();
        }
        try (DuckJobs duckdb = new DuckJobs()) {
            TablePromises trial = new TablePromises(shelf, page, duckdb);
            trial.tables.forEach(t -> trial.once.add(trial.answer(t, 1)));
            return page.promises().stream().map(trial::look).toList();
        }
    }

    private Outcome<OperationExamples.Answered> answer(TableExample table, int times) {
        return OperationExamples.answer(table, callables, times, duckdb);
    }

    private static TableExample madeUp(TableExample example, int rows, Random random) {
        List<Column> columns = OperationExamples.columns(example.given());
        List<List<String>> pools = new ArrayList<>();
        for (int c = 0; c < columns.size(); c++) {
            int column = c;
            Set<String> pool = new LinkedHashSet<>();
            example.given().rows().forEach(r -> pool.add(r.get(column)));
            pool.add("NULL");
            pool.addAll(MadeUpValues.edges(columns.get(c).type(), random.nextInt(40), EDGES));
            pools.add(List.copyOf(pool));
        }
        List<List<String>> cells = new ArrayList<>();
        for (int r = 0; r < rows; r++) {
            boolean again = !cells.isEmpty() && random.nextInt(4) == 0;
            cells.add(
                    again
                            ? cells.get(random.nextInt(cells.size()))
                            : pools.stream()
                                    .map(pool -> pool.get(random.nextInt(
                                            random.nextBoolean() ? pool.size() : Math.min(4, pool.size()))))
                                    .toList());
        }
        return with(example, cells);
    }

    private static TableExample with(TableExample example, List<List<String>> rows) {
        return new TableExample(
                example.title(),
                new TableExample.Table(example.given().heading(), rows),
                example.others(),
                example.call(),
                example.gives());
    }

    private TablePromiseResult look(TablePromise promise) {
        if (tables.isEmpty()) {
            return impossible(promise, "it is not tried, as there is no case to make tables of");
        }
        List<OperationExamples.Answered> taken =
                once.stream().flatMap(o -> o.value().stream()).toList();
        if (taken.isEmpty()) {
            return impossible(
                    promise,
                    "it takes none of the made-up tables: "
                            + once.getFirst().problems().getFirst().sentence());
        }
        Optional<String> never = never(promise, taken);
        if (never.isPresent()) {
            return impossible(promise, never.get());
        }
        for (int i = 0; i < tables.size(); i++) {
            TableExample table = tables.get(i);
            Optional<String> wrong = once.get(i).value().flatMap(a -> wrong(promise, table, a));
            if (wrong.isPresent()) {
                return broken(promise, table, taken.size());
            }
        }
        return new TablePromiseResult(
                page, promise, taken.size(), tables.size() - taken.size(), Optional.empty(), "", Optional.empty());
    }

    private TablePromiseResult impossible(TablePromise promise, String why) {
        return new TablePromiseResult(page, promise, 0, 0, Optional.empty(), "", Optional.of(why));
    }

    /// Why no table has to be tried: what its lines are says that it cannot be, or the columns are not there.
    private Optional<String> never(TablePromise promise, List<OperationExamples.Answered> taken) {
        if (promise.kind() == TablePromise.Kind.ROWS_ONCE) {
            Lineage.Rows rows = taken.getFirst().last().rows();
            return switch (rows) {
                case SAME, FEWER -> Optional.empty();
                case ANY -> Optional.of("that cannot be said, a line of it can make several rows of one, or new ones");
                case MERGED -> Optional.of("that cannot be, a line of it makes one row of several");
            };
        }
        List<String> names = taken.getFirst().last().after().shape().names();
        return promise.of().stream()
                .filter(o -> columns(o, tables.getFirst()).stream()
                        .anyMatch(n -> names.stream().noneMatch(n::equalsIgnoreCase)))
                .findFirst()
                .map(o -> "there is no parameter or column " + o + " that comes out");
    }

    /// The columns that a word of a promise means in a call: those that the parameter was given, or one of that name.
    private List<String> columns(String word, TableExample table) {
        if (page.parameters().stream().noneMatch(p -> p.name().equals(word))) {
            return List.of(word);
        }
        return JobPages.call(table.call())
                .written(word)
                .or(() -> page.parameters().stream()
                        .filter(p -> p.name().equals(word))
                        .findFirst()
                        .flatMap(p -> p.fallback()))
                .flatMap(Written::texts)
                .orElse(List.of(word));
    }

    /// What is wrong with what came out of a table; empty where the promise holds.
    private Optional<String> wrong(TablePromise promise, TableExample table, OperationExamples.Answered answered) {
        int in = table.given().rows().size();
        List<List<@Nullable Object>> rows = answered.rows();
        List<String> names = answered.last().after().shape().names();
        return switch (promise.kind()) {
            case ROWS_KEPT -> rows.size() == in ? Optional.empty() : Optional.of("come " + rows.size());
            case ROWS_NOT_MORE -> rows.size() <= in ? Optional.empty() : Optional.of("come " + rows.size());
            case ROWS_ONCE -> Optional.empty();
            case COLUMNS_KEPT ->
                OperationExamples.columns(table.given()).stream()
                        .map(Column::name)
                        .filter(n -> !names.contains(n))
                        .findFirst()
                        .map(n -> "the column " + n + " is gone");
            case UNIQUE_BY -> {
                Set<List<@Nullable Object>> seen = new HashSet<>();
                List<Integer> at = places(promise, table, names);
                yield rows.stream()
                        .<List<@Nullable Object>>map(
                                r -> at.stream().<@Nullable Object>map(r::get).toList())
                        .filter(k -> !seen.add(k))
                        .findFirst()
                        .map(k -> "several have " + shown(k));
            }
            case FILLED -> {
                List<Integer> at = places(promise, table, names);
                yield IntStream.range(0, rows.size())
                        .filter(r -> at.stream().anyMatch(c -> rows.get(r).get(c) == null))
                        .boxed()
                        .findFirst()
                        .map(r -> "row " + (r + 1) + " that comes out has none");
            }
            case IDEMPOTENT -> {
                Outcome<OperationExamples.Answered> twice = answer(table, 2);
                yield twice.isPresent()
                        ? differ(answered, twice.get())
                        : Optional.of("the second time it stops: "
                                + twice.problems().getFirst().sentence());
            }
        };
    }

    private List<Integer> places(TablePromise promise, TableExample table, List<String> names) {
        return promise.of().stream()
                .flatMap(o -> columns(o, table).stream())
                .map(o -> IntStream.range(0, names.size())
                        .filter(i -> names.get(i).equalsIgnoreCase(o))
                        .findFirst())
                .filter(java.util.OptionalInt::isPresent)
                .map(java.util.OptionalInt::getAsInt)
                .toList();
    }

    private static Optional<String> differ(OperationExamples.Answered once, OperationExamples.Answered twice) {
        List<String> names = once.last().after().shape().names();
        if (!names.equals(twice.last().after().shape().names())) {
            return Optional.of("the second time gives the columns "
                    + String.join(", ", twice.last().after().shape().names()));
        }
        if (once.rows().size() != twice.rows().size()) {
            return Optional.of("the first time gives " + once.rows().size() + ", the second "
                    + twice.rows().size());
        }
        for (int r = 0; r < once.rows().size(); r++) {
            for (int c = 0; c < names.size(); c++) {
                Object first = once.rows().get(r).get(c);
                Object second = twice.rows().get(r).get(c);
                if (!CaseResult.same(first, second)) {
                    return Optional.of("the first time gives " + CaseResult.shown(first) + " in " + names.get(c)
                            + ", the second " + CaseResult.shown(second));
                }
            }
        }
        return Optional.empty();
    }

    private static String shown(List<@Nullable Object> key) {
        return String.join(", ", key.stream().map(CaseResult::shown).toList());
    }

    /// The table without rows that are not needed, and with the simplest cells.
    private TablePromiseResult broken(TablePromise promise, TableExample found, int taken) {
        TableExample table = found;
        for (Optional<TableExample> next = Optional.of(found); next.isPresent(); ) {
            table = next.get();
            next = smaller(table).stream()
                    .filter(s -> answer(s, 1)
                            .value()
                            .flatMap(a -> wrong(promise, s, a))
                            .isPresent())
                    .findFirst();
        }
        OperationExamples.Answered answered = answer(table, 1).get();
        String detail = wrong(promise, table, answered).orElseThrow();
        List<String> heading = answered.last().after().shape().fields().stream()
                .map(TablePromises::heading)
                .toList();
        List<List<String>> rows = answered.rows().stream()
                .map(r -> r.stream().map(Literals::print).toList())
                .toList();
        TableExample whole = new TableExample(
                promise.sentence(),
                new TableExample.Table(
                        OperationExamples.columns(table.given()).stream()
                                .map(c -> heading(c.name(), c.type()))
                                .toList(),
                        table.given().rows()),
                table.others(),
                table.call(),
                new TableExample.Table(heading, rows));
        return new TablePromiseResult(page, promise, taken, 0, Optional.of(whole), detail, Optional.empty());
    }

    private static String heading(Field field) {
        return heading(field.name(), field.type());
    }

    private static String heading(String name, Type type) {
        return type.equals(Type.TEXT) ? name : name + ": " + type.label();
    }

    private static List<TableExample> smaller(TableExample table) {
        List<List<String>> rows = table.given().rows();
        List<TableExample> all = new ArrayList<>();
        for (int r = 0; r < rows.size(); r++) {
            List<List<String>> fewer = new ArrayList<>(rows);
            fewer.remove(r);
            all.add(with(table, fewer));
        }
        List<Column> columns = OperationExamples.columns(table.given());
        for (int c = 0; c < columns.size(); c++) {
            int column = c;
            String simple = MadeUpValues.simplest(columns.get(c).type()).getFirst();
            if (rows.stream().anyMatch(r -> !r.get(column).equals(simple))) {
                all.add(with(
                        table, rows.stream().map(r -> with(r, column, simple)).toList()));
            }
        }
        for (int r = 0; r < rows.size(); r++) {
            for (int c = 0; c < columns.size(); c++) {
                for (String simple : MadeUpValues.simplest(columns.get(c).type())) {
                    if (simple.equals(rows.get(r).get(c))) {
                        break;
                    }
                    List<List<String>> other = new ArrayList<>(rows);
                    other.set(r, with(rows.get(r), c, simple));
                    all.add(with(table, other));
                }
            }
        }
        return all;
    }

    private static List<String> with(List<String> row, int column, String cell) {
        List<String> other = new ArrayList<>(row);
        other.set(column, cell);
        return other;
    }
}
