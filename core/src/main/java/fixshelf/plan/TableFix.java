package fixshelf.plan;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Written.Fields;
import fixshelf.plan.Written.Items;
import fixshelf.plan.Written.Word;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Field;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.table.Sorted;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/// A table fix as an operation: its lines, with the arguments of a call in place of its parameters.
///
/// In blanks that take columns and names a parameter stands as `{x}`; in expressions it is a bare name, as are the
/// columns that lines above made. Columns that it makes are its own, and leave it only under a parameter that is a new
/// name; columns of the caller that it is not given stay as they are.
///
/// @param callables what its lines can call
/// @param showsOwn whether columns of its own come out too, for who writes it
/// @param loads whether its table is one that it reads itself, so that all columns are its own and come out
/// @param returns the columns that come out of one that loads, where it says them
public record TableFix(
        String name,
        String sentence,
        String prose,
        List<Blank<?>> blanks,
        List<Planner.PlacedLine> placed,
        List<TableExample> examples,
        Supplier<Callables> callables,
        boolean showsOwn,
        boolean loads,
        List<Column> returns)
        implements Operation {
    private static final String LINES_OF = "lines of ";
    private static final int DEEPEST = 20;
    private static final ThreadLocal<Integer> DEPTH = ThreadLocal.withInitial(() -> 0);

    public TableFix {
        blanks = List.copyOf(blanks);
        placed = List.copyOf(placed);
        examples = List.copyOf(examples);
    }

    /// Its lines, without their places.
    public List<Line> lines() {
        return placed.stream().map(Planner.PlacedLine::line).toList();
    }

    /// The call of what a loader does with the table that it reads; nobody writes it on a page.
    public static String linesOf(String loader) {
        return LINES_OF + loader;
    }

    /// The loader whose lines a call is, or the call itself.
    public static String withoutLinesOf(String call) {
        return call.startsWith(LINES_OF) ? call.substring(LINES_OF.length()) : call;
    }

    /// The same with other examples: those that read a file have its rows.
    public TableFix with(List<TableExample> ready) {
        return new TableFix(name, sentence, prose, blanks, placed, ready, callables, showsOwn, loads, returns);
    }

    @Override
    public String shown() {
        return withoutLinesOf(name);
    }

    @Override
    public Meaning about() {
        String calls = lines().stream().map(Line::call).distinct().collect(Collectors.joining(", "));
        return new Meaning(
                prose,
                "",
                "",
                "As its lines say: " + calls + ".",
                "",
                "",
                "Columns of its own meet none.",
                "",
                "As its lines.");
    }

    @Override
    public boolean losesValues() {
        return true;
    }

    @Override
    public Resolution resolve(Given given) {
        if (DEPTH.get() > DEEPEST) {
            return Given.refused(Code.CYCLE, "Table fixes call each other in a circle: " + shown() + ".", "Break it.");
        }
        return new Call(given).resolve();
    }

    /// One call of the fix.
    private final class Call {
        private final Given given;
        private final Map<String, Written> arguments = new LinkedHashMap<>();
        private final Map<String, Expr> named = new LinkedHashMap<>();
        /// The columns that parameters stand for.
        private final Map<String, Field> callers = new LinkedHashMap<>();
        /// The names, in lower case, that parameters give to new columns.
        private final Map<String, String> newNames = new LinkedHashMap<>();
        private final List<Field> outer;
        /// The tables after lines that have a name.
        private final Map<String, Relation> lineTables = new HashMap<>();

        /// What lines with problems would have given.
        private final AwaitedColumns awaited = new AwaitedColumns();

        private Call(Given given) {
            this.given = given;
            Set<String> taken = lines().stream()
                    .flatMap(this::words)
                    .map(w -> w.toLowerCase(Locale.ROOT))
                    .collect(Collectors.toSet());
            outer = given.fields().stream()
                    .map(f -> loads ? f : f.named(free(f.name(), taken)))
                    .toList();
            blanks.forEach(this::bind);
        }

        private String free(String name, Set<String> taken) {
            String free = name;
            while (taken.contains(free.toLowerCase(Locale.ROOT))) {
                free += "_";
            }
            return free;
        }

        /// The words of a line, but for the columns of another table that ours are matched with.
        private Stream<String> words(Line line) {
            Set<String> own = lines().stream().map(Line::name).collect(Collectors.toSet());
            boolean ofOthers =
                    line.blanks().values().stream().noneMatch(w -> w instanceof Word(String t) && own.contains(t));
            Optional<Operation> operation = callables.get().find(line.call());
            return line.blanks().entrySet().stream().flatMap(b -> {
                boolean pairs = operation
                        .flatMap(o -> o.blank(b.getKey()))
                        .filter(k -> k.kind().equals(ColumnKinds.MATCHING))
                        .isPresent();
                return ofOthers && pairs && b.getValue() instanceof Fields(Map<String, Written> fields)
                        ? fields.keySet().stream()
                        : words(b.getValue()).stream();
            });
        }

        private static List<String> words(Written written) {
            return switch (written) {
                case Word(String text) -> List.of(text);
                case Items(List<Written> items) ->
                    items.stream().flatMap(i -> words(i).stream()).toList();
                case Fields(Map<String, Written> fields) -> {
                    List<String> all = new ArrayList<>(fields.keySet());
                    fields.values().forEach(v -> all.addAll(words(v)));
                    yield all;
                }
            };
        }

        private String inside(Field field) {
            return outer.stream()
                    .filter(o -> o.id() == field.id())
                    .findFirst()
                    .map(Field::name)
                    .orElse(field.name());
        }

        /// What a parameter stands for, in blanks and in expressions.
        private void bind(Blank<?> blank) {
            Object value = given.find(blank).orElse(null);
            switch (value) {
                case null -> {}
                case Field field -> {
                    arguments.put(blank.name(), Written.word(inside(field)));
                    callers.put(blank.name(), field);
                }
                case Expr expr -> {
                    named.put(blank.name(), expr);
                    if (expr instanceof Expr.Literal(Object constant, var _) && constant != null) {
                        arguments.put(blank.name(), Written.word(constant.toString()));
                    }
                }
                case String name -> {
                    arguments.put(blank.name(), Written.word(name));
                    if (blank.kind().equals(ColumnKinds.NEW_NAME)) {
                        newNames.put(blank.name(), name.toLowerCase(Locale.ROOT));
                    }
                }
                case List<?> fields
                when fields.stream().allMatch(Field.class::isInstance) ->
                    arguments.put(
                            blank.name(),
                            Written.words(
                                    fields.stream().map(f -> inside((Field) f)).toList()));
                case List<?> order
                when order.stream().allMatch(Sorted.class::isInstance) ->
                    arguments.put(
                            blank.name(),
                            new Items(
                                    order.stream().map(s -> sorted((Sorted) s)).toList()));
                default -> given.written(blank.name()).ifPresent(w -> arguments.put(blank.name(), w));
            }
        }

        private Written sorted(Sorted sorted) {
            String column = inside(sorted.field());
            return sorted.descending() ? Written.field(column, Written.word("descending")) : Written.word(column);
        }

        private Resolution resolve() {
            boolean same = outer.equals(given.fields());
            Relation begun = same ? given.before() : new Relation.Pick(given.before(), new Shape(outer));
            DEPTH.set(DEPTH.get() + 1);
            try {
                return go(0, new Now(begun, List.of(), List.of()));
            } finally {
                DEPTH.set(DEPTH.get() - 1);
            }
        }

        /// As people count the lines of the page; the first of a loader reads.
        private int numberOf(int index) {
            return index + (loads ? 2 : 1);
        }

        /// How far it came: the table as it is now, what was reported, and what is wrong with lines before.
        private record Now(Relation table, List<Report> reports, List<Problem> wrong) {}

        /// Goes on behind a line with a problem, as if it were not there, so that all of them are told.
        private Resolution go(int index, Now now) {
            if (index == lines().size()) {
                return now.wrong().isEmpty()
                        ? finished(now.table(), now.reports())
                        : new Resolution.Refused(now.wrong());
            }
            Line line = filled(lines().get(index));
            if (line.rest()) {
                return go(index + 1, now);
            }
            Resolution resolution = Planner.inside(placed.get(index).with(line), context(now.table()), callables.get());
            return after(resolution, index, now);
        }

        private Resolution after(Resolution resolution, int index, Now now) {
            return switch (resolution) {
                case Resolution.Done(Relation after, List<Report> more, var _) -> {
                    List<Report> all = new ArrayList<>(now.reports());
                    more.forEach(r -> all.add(new Report(
                            r.name() + "_" + numberOf(index),
                            r.relation(),
                            r.words() + ", line " + numberOf(index),
                            r.breaks(),
                            r.dear())));
                    name(index, after);
                    yield go(index + 1, new Now(after, all, now.wrong()));
                }
                case Resolution.Asks(Relation about, var then) ->
                    now.wrong().isEmpty()
                            ? new Resolution.Asks(about, rows -> after(then.apply(rows), index, now))
                            : new Resolution.Refused(now.wrong());
                case Resolution.Refused(List<Problem> why) -> {
                    List<Problem> found = new ArrayList<>(why);
                    awaited.settle(found, numberOf(index));
                    Line line = lines().get(index);
                    awaited.add(numberOf(index), line, callables.get().find(line.call()));
                    name(index, now.table());
                    List<Problem> all = new ArrayList<>(now.wrong());
                    found.forEach(p -> all.add(told(p, index)));
                    yield go(index + 1, new Now(now.table(), now.reports(), all));
                }
            };
        }

        private void name(int index, Relation table) {
            String name = lines().get(index).name();
            if (!name.isEmpty()) {
                lineTables.put(name, table);
            }
        }

        private Problem told(Problem p, int index) {
            String line = shown() + ", line " + numberOf(index) + ": ";
            return p.code().isElsewhere()
                    ? p
                    : new Problem(
                            p.code(),
                            p.severity(),
                            p.where(),
                            line + p.what(),
                            ofCaller(p).orElse(p.todo()));
        }

        /// What to do about a column that only the caller knows.
        private Optional<String> ofCaller(Problem problem) {
            String name = problem.words();
            boolean callers = (problem.code() == Code.NO_SUCH_COLUMN || problem.code() == Code.UNKNOWN_NAME)
                    && !loads
                    && given.before().shape().find(name).isPresent();
            return callers
                    ? Optional.of("Columns of the table that comes in are known through parameters only: let "
                            + "`parameters` hold a name with {type: column}, and write that in braces.")
                    : Optional.empty();
        }

        /// Names in expressions are parameters, and the columns that were made so far.
        private Context context(Relation now) {
            Map<String, Expr> names = new LinkedHashMap<>(named);
            List<Field> own = now.shape().fields().stream()
                    .filter(f -> loads || outer.stream().noneMatch(o -> o.id() == f.id()))
                    .toList();
            // As they are now: a line may have given them another type.
            callers.forEach(
                    (parameter, field) -> now.shape().find(field.id()).ifPresent(f -> names.put(parameter, f.value())));
            newNames.forEach((parameter, name) -> now.shape().fields().stream()
                    .filter(f -> f.name().toLowerCase(Locale.ROOT).equals(name)
                            && (own.contains(f) || !inside(f).equals(f.name())))
                    .findFirst()
                    .ifPresent(f -> names.put(parameter, f.value())));
            own.forEach(f -> names.putIfAbsent(f.name(), f.value()));
            Context context = given.context();
            return new Context(
                    now,
                    context.fixes(),
                    Map.of(),
                    new NamedTables(context.sources(), lineTables),
                    context.ids(),
                    Optional.of(names));
        }

        private Line filled(Line line) {
            Map<String, Written> filled = new LinkedHashMap<>();
            line.blanks().forEach((blank, written) -> filled.put(blank, filled(written)));
            return new Line(line.call(), filled, "", false, line.rest());
        }

        /// The written with arguments in place of `{x}`; a list that stands for an item is spread.
        private Written filled(Written written) {
            return switch (written) {
                case Word(String text) -> argument(text).orElse(written);
                case Items(List<Written> items) -> {
                    List<Written> all = new ArrayList<>();
                    for (Written item : items) {
                        Written one = filled(item);
                        if (item instanceof Word && one instanceof Items(List<Written> several)) {
                            all.addAll(several);
                        } else {
                            all.add(one);
                        }
                    }
                    yield new Items(all);
                }
                case Fields(Map<String, Written> fields) -> {
                    Map<String, Written> all = new LinkedHashMap<>();
                    fields.forEach((k, v) -> all.put(
                            argument(k)
                                    .filter(Word.class::isInstance)
                                    .map(w -> ((Word) w).text())
                                    .orElse(k),
                            filled(v)));
                    yield new Fields(all);
                }
            };
        }

        private Optional<Written> argument(String text) {
            boolean whole = text.startsWith("{") && text.endsWith("}");
            return whole ? Optional.ofNullable(arguments.get(text.substring(1, text.length() - 1))) : Optional.empty();
        }

        /// Whether a column has a name that a line gives it; what is named by data is nobody's own.
        private boolean isNamedHere(Field field) {
            return lines().stream()
                    .flatMap(l -> callables.get().find(l.call()).stream()
                            .flatMap(o -> o.blanks().stream().flatMap(b -> l.written(b.name()).or(b::fallback).stream()
                                    .flatMap(w -> newNames(b, filled(w)).stream()))))
                    .anyMatch(n -> n.equalsIgnoreCase(field.name()));
        }

        private static List<String> newNames(Blank<?> blank, Written written) {
            return switch (blank.kind().name()) {
                case "new name", "new names" -> words(written);
                case "new columns", "measures" ->
                    written instanceof Fields(Map<String, Written> fields) ? List.copyOf(fields.keySet()) : List.of();
                default -> List.of();
            };
        }

        /// The caller's columns under their own names, and new ones under the names that were asked for.
        private Resolution finished(Relation now, List<Report> reports) {
            if (loads) {
                return loaded(now, reports);
            }
            List<Field> fields = new ArrayList<>();
            for (Field field : now.shape().fields()) {
                Optional<Field> theirs = given.fields().stream()
                        .filter(f -> f.id() == field.id())
                        .findFirst();
                Optional<Field> started =
                        outer.stream().filter(f -> f.id() == field.id()).findFirst();
                if (theirs.isPresent()) {
                    boolean renamed = !started.orElseThrow().name().equals(field.name());
                    fields.add(renamed ? field : field.named(theirs.get().name()));
                } else if (newNames.containsValue(field.name().toLowerCase(Locale.ROOT))) {
                    fields.add(field);
                } else if (!isNamedHere(field)) {
                    fields.add(field);
                } else if (showsOwn) {
                    Set<String> taken = given.fields().stream()
                            .map(f -> f.name().toLowerCase(Locale.ROOT))
                            .collect(Collectors.toSet());
                    fields.add(field.named(free(field.name(), taken)));
                }
            }
            Shape shape = new Shape(fields);
            return new Resolution.Done(shape.equals(now.shape()) ? now : new Relation.Pick(now, shape), reports);
        }

        /// All that it read and made, if these are the columns that it says.
        private Resolution loaded(Relation now, List<Report> reports) {
            List<String> said = returns.stream().map(Call::words).toList();
            List<String> found = now.shape().columns().stream().map(Call::words).toList();
            return returns.isEmpty() || said.equals(found)
                    ? new Resolution.Done(now, reports)
                    : Given.refused(
                            Code.WRONG_TYPE,
                            shown() + " says that it returns " + String.join(", ", said) + ", and gives "
                                    + String.join(", ", found) + ".",
                            "Mend `returns` or the lines of its page, or look whether the source has changed.");
        }

        private static String words(Column column) {
            return column.name()
                    + (column.type().equals(Type.TEXT)
                            ? ""
                            : " " + column.type().label());
        }
    }
}
