package fixshelf.plan;

import fixshelf.language.checking.Scope;
import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.emulation.Unfinished;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Names;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Relation;
import fixshelf.table.Shape;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/// Resolves the lines after the first against the columns of the source, and reports all that does not fit.
public final class Planner {
    private final Callables callables;
    private final Context.Sources sources;
    private final Looks looks;
    private final List<Step> steps = new ArrayList<>();
    private final Map<String, Expr.Literal> parameters = new LinkedHashMap<>();
    private final List<Problem> problems = new ArrayList<>();
    private final AwaitedColumns awaited = new AwaitedColumns();

    private Planner(Callables callables, Map<String, String> parameters, Context.Sources sources, Looks looks) {
        this.looks = looks;
        this.callables = callables;
        this.sources = new NamedLines(sources, looks, steps);
        parameters.forEach((name, value) -> this.parameters.put(name, constant(value)));
    }

    /// A line and where it and its blanks stand, for messages.
    public record PlacedLine(Line line, Where where, Map<String, Where> blanks) {
        public PlacedLine(Line line, Where where) {
            this(line, where, Map.of());
        }

        /// The same place with another line: the one that stands there, filled.
        public PlacedLine with(Line filled) {
            return new PlacedLine(filled, where, blanks);
        }

        private Where of(String blank) {
            return blanks.getOrDefault(blank, where);
        }
    }

    /// A table that comes from outside.
    ///
    /// @param name what it is called
    /// @param declared the types that it says of its columns, which are texts; empty where it says none
    public static Relation source(String name, List<Column> columns, List<Type> declared, Context.Ids ids) {
        List<Field> fields = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            Column column = columns.get(i);
            fields.add(new Field(ids.next(), column, declared.isEmpty() ? Type.UNKNOWN : declared.get(i)));
        }
        return new Relation.Source(name, new Shape(fields));
    }

    /// Plans the lines; the first of them reads. A line with problems changes nothing for the lines after it, so that
    /// there is always a plan, beside the problems.
    ///
    /// @param read what the first line gives, worked out of the one table that is read
    /// @param parameters those of the job with their values, which expressions may name
    /// @param looks asked where what a line means depends on the data
    public static Outcome<Plan> plan(
            Relation read,
            List<PlacedLine> lines,
            Callables callables,
            Map<String, String> parameters,
            Context.Sources sources,
            Looks looks) {
        Planner planner = new Planner(callables, parameters, sources, looks);
        List<Step> steps = planner.steps;
        Line first = lines.isEmpty() ? Line.readDataset("") : lines.getFirst().line();
        steps.add(new Step(1, first, read, List.of()));
        for (int i = 1; i < lines.size(); i++) {
            steps.add(planner.step(lines.get(i), steps.getLast()));
        }
        return Outcome.of(new Plan(steps), planner.problems);
    }

    /// What a line means by itself; its looks and its reports are left to the caller, and problems stay where they are
    /// found, which in a call of a table fix is the page of that fix.
    public static Operation.Resolution inside(PlacedLine placed, Context context, Callables callables) {
        Planner planner = new Planner(callables, Map.of(), context.sources(), Looks.NONE);
        Optional<Operation.Resolution> resolution = planner.operation(placed)
                .flatMap(o -> planner.given(o, placed, context).map(o::resolve));
        return resolution.orElseGet(() -> new Operation.Resolution.Refused(planner.problems));
    }

    private Step step(PlacedLine placed, Step last) {
        Line line = placed.line();
        int number = last.number() + 1;
        Relation before = last.result();
        Step idle = new Step(number, line, before, List.of());
        if (line.call().equals(Line.READ_FILE)) {
            problems.add(Problem.error(
                    Code.BAD_FIELD,
                    placed.where(),
                    "Only the first line reads a file itself.",
                    "Make it a dataset, and read that here."));
            return idle;
        }
        if (line.rest()) {
            return idle;
        }
        int known = problems.size();
        wantFreeName(placed);
        Context context = new Context(before, callables.fixes(), parameters, sources, new Context.Ids(number));
        Optional<Operation> operation = operation(placed);
        Optional<Step> step =
                operation.flatMap(o -> given(o, placed, context).flatMap(given -> resolved(o, given, placed)
                        .map(done -> new Step(
                                number,
                                line,
                                done.after(),
                                reports(before, done, context.ids()),
                                done.guard(),
                                watch(o, given)))));
        List<Problem> found = problems.subList(known, problems.size());
        awaited.settle(found, number);
        if (step.isEmpty()) {
            awaited.add(number, line, operation);
        }
        return step.orElse(idle);
    }

    private static Optional<Function<Relation, Optional<Watching.Watched>>> watch(Operation operation, Given given) {
        return operation instanceof Watching watching
                ? Optional.of(table -> watching.figures(given, table))
                : Optional.empty();
    }

    private static List<Operation.Report> reports(Relation before, Operation.Resolution.Done done, Context.Ids ids) {
        List<Operation.Report> all = new ArrayList<>(done.reports());
        AlteredNumbers.of(before, done.after(), ids).ifPresent(all::add);
        unfinished(before, done.after()).ifPresent(all::add);
        return all;
    }

    /// The rows in which a replacement that goes on until nothing changes reached its bound.
    private static Optional<Operation.Report> unfinished(Relation before, Relation after) {
        List<Unfinished> reached = after instanceof Relation.Compute compute && compute.from() == before
                ? compute.cells().stream()
                        .flatMap(c -> Unfinished.of(c.value()).stream())
                        .toList()
                : List.of();
        return reached.isEmpty()
                ? Optional.empty()
                : Optional.of(new Operation.Report(
                        "unfinished",
                        new Relation.Keep(
                                before,
                                Formula.any(reached.stream()
                                        .map(Unfinished::condition)
                                        .toList())),
                        "rows in which a text " + reached.getFirst().words() + ", and is missing"));
    }

    /// A line's name is no other line's, and no dataset's or job's.
    private void wantFreeName(PlacedLine placed) {
        String name = placed.line().name();
        if (!name.isEmpty() && sources.names().contains(name)) {
            problems.add(Problem.error(
                    Code.NAME_CLASH,
                    placed.where(),
                    "There is a line, a dataset or a job " + name + " already.",
                    "Give this line another name."));
        }
    }

    private Optional<Operation> operation(PlacedLine placed) {
        String name = placed.line().call();
        Optional<Operation> operation = callables.find(name);
        if (operation.isPresent()) {
            return operation;
        }
        problems.add(
                switch (callables.fixes().find(name)) {
                    case Scope.Found.Broken(String why) ->
                        Problem.error(
                                Code.NO_SUCH,
                                placed.where(),
                                "The fix " + name + " cannot be used: " + why,
                                "Mend that fix first.");
                    case Scope.Found.Cyclic(List<String> path) ->
                        Problem.error(
                                Code.CYCLE,
                                placed.where(),
                                "Fixes call each other in a circle: " + String.join(" → ", path) + ".",
                                "Break it.");
                    case Scope.Found.Missing _, Scope.Found.Ready _ ->
                        Problem.error(
                                Code.NO_SUCH,
                                placed.where(),
                                "There is no fix or operation " + name + " on this shelf.",
                                callables.instead(name));
                });
        return Optional.empty();
    }

    /// The blanks, read and typed; empty beside problems.
    private Optional<Given> given(Operation operation, PlacedLine placed, Context context) {
        Line line = placed.line();
        int before = problems.size();
        for (String name : line.blanks().keySet()) {
            if (operation.blank(name).isEmpty()) {
                List<String> known =
                        operation.blanks().stream().map(Blank::name).toList();
                problems.add(Problem.error(
                        Code.ARGUMENTS,
                        placed.of(name),
                        operation.name() + " has no argument " + name + " to give here.",
                        callables.find(name).isPresent()
                                ? "A line calls one thing: begin another one with `- " + name + ":`."
                                : Names.suggest(name, known, "It takes " + String.join(", ", known) + ".")));
            }
        }
        if (line.strict() && !operation.losesValues()) {
            problems.add(Problem.error(
                    Code.BAD_FIELD,
                    placed.where(),
                    operation.name() + " loses no values, so that it cannot be strict.",
                    "Leave out `strict`."));
        }
        Given given = new Given(context);
        Context here = context;
        ProblemPlaces places = new ProblemPlaces();
        for (Blank<?> blank : operation.blanks()) {
            fill(given, blank, operation, placed, here, places);
            if (blank.kind() == ColumnKinds.COLUMNS) {
                here = given.find(blank).map(c -> context.about(fields(c))).orElse(here);
            }
        }
        return problems.size() == before ? Optional.of(given) : Optional.empty();
    }

    @SuppressWarnings("unchecked") // what the kind of columns gives
    private static List<Field> fields(Object columns) {
        return (List<Field>) columns;
    }

    private void fill(
            Given given,
            Blank<?> blank,
            Operation operation,
            PlacedLine placed,
            Context context,
            ProblemPlaces places) {
        Optional<Written> written = placed.line().written(blank.name()).or(blank::fallback);
        if (written.isEmpty()) {
            if (blank.needed()) {
                problems.add(Problem.error(
                        Code.ARGUMENTS,
                        placed.where(),
                        operation.name() + " needs " + blank.name() + ".",
                        blank.about()));
            }
            return;
        }
        Outcome<?> value = Absent.isPassedOver(operation, blank, placed.line())
                ? Absent.read(blank.kind(), written.get(), context)
                : blank.kind().read(written.get(), context);
        boolean main = operation.blanks().getFirst().equals(blank);
        value.problems()
                .forEach(p -> problems.add(
                        p.code().isElsewhere()
                                ? p
                                : new Problem(
                                        p.code(),
                                        p.severity(),
                                        p.where().source().text().isEmpty()
                                                        || p.where()
                                                                .source()
                                                                .name()
                                                                .equals("blank")
                                                ? places.within(placed.of(blank.name()), p)
                                                : p.where(),
                                        (main ? "" : blank.name() + ": ") + p.what(),
                                        p.todo())));
        given.write(blank.name(), written.get());
        value.value().ifPresent(v -> given.put(blank.name(), v));
    }

    private static final int MOST_LOOKS = 5;

    private Optional<Operation.Resolution.Done> resolved(Operation operation, Given given, PlacedLine placed) {
        Operation.Resolution resolution = operation.resolve(given);
        for (int asked = 0; resolution instanceof Operation.Resolution.Asks asks; asked++) {
            if (asks.about().shape().fields().isEmpty()) {
                // Of a table without columns there is nothing to ask.
                resolution = asks.then().apply(List.of());
                continue;
            }
            Outcome<List<List<@Nullable Object>>> seen = asked > MOST_LOOKS
                    ? Looks.NONE.rows(new Plan(steps), asks.about())
                    : looks.rows(new Plan(steps), asks.about());
            resolution = seen.isPresent()
                    ? asks.then().apply(seen.get())
                    : new Operation.Resolution.Refused(seen.problems());
        }
        return switch (resolution) {
            case Operation.Resolution.Done done -> whole(given.before(), done, placed);
            case Operation.Resolution.Asks _ -> Optional.empty();
            case Operation.Resolution.Refused(List<Problem> why) -> {
                ProblemPlaces places = new ProblemPlaces();
                why.forEach(p -> problems.add(p.placed(places.within(placed.where(), p))));
                yield Optional.empty();
            }
        };
    }

    /// Whether all rows are left out as well, as where every column was blank.
    private static boolean holdsNothing(Relation relation) {
        return switch (relation) {
            case Relation.Pick pick -> holdsNothing(pick.from());
            case Relation.Keep(Relation from, Expr condition) ->
                condition.equals(Expr.Literal.truth(false)) || holdsNothing(from);
            default -> false;
        };
    }

    /// A table has columns, no two of one name, and texts of blanks are patterns and layouts where they stand for such.
    private Optional<Operation.Resolution.Done> whole(
            Relation before, Operation.Resolution.Done done, PlacedLine placed) {
        Set<Problem> constants = new LinkedHashSet<>();
        constants(done.after(), before, Collections.newSetFromMap(new IdentityHashMap<>()), constants);
        if (!constants.isEmpty()) {
            ProblemPlaces places = new ProblemPlaces();
            constants.forEach(p -> problems.add(p.placed(places.within(placed.where(), p))));
            return Optional.empty();
        }
        boolean some = !before.shape().fields().isEmpty();
        if (some && done.after().shape().fields().isEmpty() && !holdsNothing(done.after())) {
            problems.add(
                    Problem.error(Code.BAD_FIELD, placed.where(), "This would leave no column.", "Keep at least one."));
            return Optional.empty();
        }
        Set<String> seen = new HashSet<>();
        for (Field field : done.after().shape().fields()) {
            if (field.name().indexOf(0) >= 0) {
                problems.add(Problem.error(
                        Code.BAD_FIELD,
                        placed.where(),
                        "A column's name would hold the character U+0000, which most languages cannot say.",
                        "Choose another name."));
                return Optional.empty();
            }
            if (field.name().isBlank() || !seen.add(field.name().toLowerCase(Locale.ROOT))) {
                problems.add(Problem.error(
                        Code.NAME_CLASH,
                        placed.where(),
                        field.name().isBlank()
                                ? "A column would have no name."
                                : "Two columns would be called " + field.name() + ".",
                        "Choose another name for one of them."));
                return Optional.empty();
            }
        }
        return Optional.of(done);
    }

    private static void constants(Relation table, Relation before, Set<Relation> seen, Set<Problem> found) {
        if (table == before || !seen.add(table)) {
            return;
        }
        switch (table) {
            case Relation.Keep(var _, Expr condition) -> found.addAll(ArgumentKind.constants(condition));
            case Relation.Compute compute ->
                compute.cells().forEach(c -> found.addAll(ArgumentKind.constants(c.value())));
            default -> {}
        }
        table.inputs().forEach(t -> constants(t, before, seen, found));
    }

    /// A value as a constant of its type where it is written as one, else as a text.
    private static Expr.Literal constant(String value) {
        return WrittenConstants.read("value", value)
                .value()
                .flatMap(v -> v)
                .filter(v -> v.value() != null)
                .orElse(Expr.Literal.text(value));
    }
}
