package fixshelf.plan;

import fixshelf.language.ConstantArguments;
import fixshelf.language.Constants;
import fixshelf.language.Arithmetic;
import fixshelf.language.Definition;
import fixshelf.language.Expr;
import fixshelf.language.Inliner;
import fixshelf.language.ExpressionParser;
import fixshelf.language.Names;
import fixshelf.language.Parameter;
import fixshelf.language.Scope;
import fixshelf.language.TypeChecks;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Resolves the lines after the first against the columns of the source, and reports all that does not fit.
public final class Planner {
    private final Scope.Fixes fixes;
    private final List<Problem> problems = new ArrayList<>();
    private Where where = Where.nowhere("job");

    private final Map<String, Expr.Literal> values = new LinkedHashMap<>();

    private Planner(Scope.Fixes fixes, Map<String, String> parameters) {
        parameters.forEach((name, value) -> values.put(name, constant(value)));
        this.fixes = fixes;
    }

    /// A line and where it stands, for messages.
    public record PlacedLine(Line line, Where where) {}

    /// Plans the lines that follow the reading one. A line with problems changes nothing for the lines after it, so
    /// that there is always a plan, beside the problems.
    ///
    /// @param parameters those of the job with their values: arguments of fixes name them
    public static Outcome<Plan> plan(
            Step.Read read, List<PlacedLine> lines, Scope.Fixes fixes, Map<String, String> parameters) {
        Planner planner = new Planner(fixes, parameters);
        List<Step> steps = new ArrayList<>();
        steps.add(read);
        for (PlacedLine line : lines) {
            planner.where = line.where();
            List<Column> columns = steps.getLast().columns();
            steps.add(planner.step(line.line(), columns)
                    .orElseGet(() -> new Step.Compute(List.of(), Line.Lost.COUNTED, columns)));
        }
        return Outcome.of(new Plan(steps), planner.problems);
    }

    private Optional<Step> step(Line line, List<Column> columns) {
        return switch (line) {
            case Line.ReadFile _, Line.ReadDataset _ -> {
                report(Code.BAD_FIELD, "Only the first line reads.", "Remove this line.");
                yield Optional.empty();
            }
            case Line.Apply apply -> apply(apply, columns);
            case Line.DropRepeats(List<String> keys, Line.Keep keep, List<String> order) -> {
                List<String> key =
                        keys.isEmpty() ? columns.stream().map(Column::name).toList() : known(keys, columns);
                yield Optional.of(new Step.KeepOne(key, keep, known(order, columns), columns));
            }
            case Line.Choose(List<String> names) -> Optional.of(project(known(names, columns), columns));
            case Line.Drop(List<String> names) -> {
                Set<String> out = new HashSet<>(known(names, columns));
                List<String> rest = columns.stream()
                        .map(Column::name)
                        .filter(n -> !out.contains(n))
                        .toList();
                if (rest.isEmpty()) {
                    report(Code.BAD_FIELD, "This would leave no column.", "Name fewer columns.");
                }
                yield rest.isEmpty() ? Optional.empty() : Optional.of(project(rest, columns));
            }
            case Line.Rename(Map<String, String> names) -> rename(names, columns);
        };
    }

    private Step project(List<String> names, List<Column> columns) {
        List<Step.Kept> kept =
                names.stream().distinct().map(n -> new Step.Kept(n, n)).toList();
        return new Step.Project(
                kept,
                kept.stream().map(k -> find(k.was(), columns).orElseThrow()).toList());
    }

    private Optional<Step> rename(Map<String, String> names, List<Column> columns) {
        Map<String, String> changes = new LinkedHashMap<>();
        names.forEach((was, name) -> known(List.of(was), columns).forEach(w -> changes.put(w, name)));
        List<Step.Kept> kept = columns.stream()
                .map(c -> new Step.Kept(c.name(), changes.getOrDefault(c.name(), c.name())))
                .toList();
        Set<String> seen = new HashSet<>();
        for (Step.Kept column : kept) {
            if (column.name().isBlank() || !seen.add(column.name().toLowerCase(Locale.ROOT))) {
                report(
                        Code.NAME_CLASH,
                        "Two columns would be called " + column.name() + ".",
                        "Choose another name for one of them.");
                return Optional.empty();
            }
        }
        List<Column> renamed = kept.stream()
                .map(k -> new Column(
                        k.name(), find(k.was(), columns).orElseThrow().type()))
                .toList();
        return Optional.of(new Step.Project(kept, renamed));
    }

    private Optional<Step> apply(Line.Apply apply, List<Column> columns) {
        return switch (fixes.find(apply.fix())) {
            case Scope.Found.Ready(Definition fix) -> compute(fix, apply, columns);
            case Scope.Found.Broken(String why) -> {
                report(Code.NO_SUCH, "The fix " + apply.fix() + " cannot be used: " + why, "Mend that fix first.");
                yield Optional.empty();
            }
            case Scope.Found.Cyclic(List<String> path) -> {
                report(Code.CYCLE, "Fixes call each other in a circle: " + String.join(" → ", path) + ".", "Break it.");
                yield Optional.empty();
            }
            case Scope.Found.Missing() -> {
                report(
                        Code.NO_SUCH,
                        "There is no fix " + apply.fix() + " on this shelf.",
                        Names.suggest(apply.fix(), fixes.names(), "Write it, or name another."));
                yield Optional.empty();
            }
        };
    }

    private Optional<Step> compute(Definition fix, Line.Apply apply, List<Column> columns) {
        Optional<List<Expr>> arguments = arguments(fix, apply.arguments(), columns);
        if (arguments.isEmpty()) {
            return Optional.empty();
        }
        List<Step.Computed> computed = new ArrayList<>();
        List<Column> output = new ArrayList<>(columns);
        Parameter first = fix.parameters().getFirst();
        for (Column column : selected(apply.columns(), columns)) {
            Expr value = Arithmetic.held(new Expr.Name(column.name(), column.type()), first.type());
            if (!value.type().fits(first.type())) {
                report(
                        Code.WRONG_TYPE,
                        fix.name() + " takes " + first.type().label() + ", " + column.name() + " is "
                                + column.type().label() + ".",
                        "Leave that column out, or convert it before.");
                continue;
            }
            List<Expr> all = new ArrayList<>(arguments.get());
            all.set(0, value);
            Step.Computed made = new Step.Computed(column.name(), new Expr.FixCall(fix, all));
            wantConstantsRight(made.value(), fix.name());
            computed.add(made);
            output.set(output.indexOf(column), new Column(column.name(), fix.returns()));
        }
        return Optional.of(new Step.Compute(computed, apply.lost(), output));
    }

    private void wantConstantsRight(Expr expr, String fix) {
        wantConstantsRight(expr, fix, Collections.newSetFromMap(new IdentityHashMap<>()));
    }

    private void wantConstantsRight(Expr expr, String fix, Set<Expr> seen) {
        if (!seen.add(expr)) {
            return;
        }
        switch (expr) {
            case Expr.Literal _, Expr.Name _ -> {}
            case Expr.FixCall(Definition _, List<Expr> arguments) ->
                arguments.forEach(a -> wantConstantsRight(a, fix, seen));
            case Expr.Case(List<Expr.Branch> branches, Expr otherwise, Type _) -> {
                branches.forEach(b -> wantConstantsRight(b.condition(), fix, seen));
                branches.forEach(b -> wantConstantsRight(b.result(), fix, seen));
                wantConstantsRight(otherwise, fix, seen);
            }
            case Expr.Call call -> {
                ConstantArguments.problemWith(call.function(), call.arguments())
                        .ifPresent(r -> report(r.code(), fix + ": " + r.what(), r.todo()));
                call.arguments().forEach(a -> wantConstantsRight(a, fix, seen));
            }
        }
    }

    private Optional<List<Expr>> arguments(Definition fix, Map<String, String> given, List<Column> columns) {
        int before = problems.size();
        Scope scope = Scope.ofColumns(fixes, columns);
        values.forEach((name, value) -> scope.add(new Scope.Binding(name, value.type(), Scope.Kind.PARAMETER)));
        for (String name : given.keySet()) {
            if (fix.parameters().stream().skip(1).noneMatch(p -> p.name().equalsIgnoreCase(name))) {
                report(
                        Code.ARGUMENTS,
                        fix.name() + " has no argument " + name + " to give here.",
                        "It is " + fix.signature() + ".");
            }
        }
        List<Expr> arguments = new ArrayList<>();
        arguments.add(Expr.Literal.NULL);
        fix.parameters().stream().skip(1).forEach(p -> arguments.add(argument(fix, p, given, scope, columns)));
        return problems.size() == before ? Optional.of(arguments) : Optional.empty();
    }

    /// The values of the job's parameters by their names; a column of that name comes first.
    private Map<String, Expr> named(List<Column> columns) {
        Map<String, Expr> named = new HashMap<>();
        values.forEach((name, value) -> {
            if (columns.stream().noneMatch(c -> c.name().equalsIgnoreCase(name))) {
                named.put(name.toLowerCase(Locale.ROOT), value);
            }
        });
        return named;
    }

    /// A value as a constant of its type where it is written as one, else as a text.
    private static Expr.Literal constant(String value) {
        return Constants.read("value", value)
                .value()
                .flatMap(v -> v)
                .filter(v -> v.value() != null)
                .orElse(Expr.Literal.text(value));
    }

    private Expr argument(
            Definition fix, Parameter parameter, Map<String, String> given, Scope scope, List<Column> columns) {
        Optional<String> text = given.entrySet().stream()
                .filter(e -> e.getKey().equalsIgnoreCase(parameter.name()))
                .map(Map.Entry::getValue)
                .findFirst();
        if (text.isEmpty()) {
            if (parameter.fallback().isEmpty()) {
                report(
                        Code.ARGUMENTS,
                        fix.name() + " needs " + parameter.name() + ".",
                        "It is " + fix.signature() + ".");
            }
            return parameter.fallback().orElse(Expr.Literal.NULL);
        }
        Outcome<Expr> outcome = ExpressionParser.parse(parameter.name(), text.get(), scope);
        outcome.problems()
                .forEach(p -> problems.add(
                        new Problem(p.code(), p.severity(), where, parameter.name() + ": " + p.what(), p.todo())));
        values.keySet().stream()
                .filter(n -> text.get().contains("{" + n + "}"))
                .forEach(n -> report(
                        Code.ARGUMENTS,
                        parameter.name() + " of " + fix.name() + " writes {" + n
                                + "}, and braces are ordinary signs there.",
                        "Write " + n + " without braces and quotes."));
        Expr written =
                outcome.value().map(e -> Inliner.inline(e, named(columns))).orElse(Expr.Literal.NULL);
        Expr value = Arithmetic.held(Constants.value(written).<Expr>map(v -> v).orElse(written), parameter.type());
        if (!Constants.fits(value, parameter.type())) {
            report(
                    Code.WRONG_TYPE,
                    fix.name() + " asks for " + parameter.type().label() + " as " + parameter.name() + ", this is "
                            + value.type().label() + ".",
                    value instanceof Expr.Literal && value.type().equals(Type.TEXT)
                            ? "Write it without the quotes inside, as " + parameter.name() + ": "
                                    + example(parameter.type()) + ", say."
                            : TypeChecks.hint(value.type(), parameter.type()));
        }
        if (parameter.fixed() && !(value instanceof Expr.Literal)) {
            report(
                    Code.NOT_CONSTANT,
                    parameter.name() + " of " + fix.name() + " must be a constant.",
                    "Write it in '…'.");
        }
        return value;
    }

    /// A constant of that type, as it is written.
    private static String example(Type type) {
        return switch (type) {
            case Type.Int _ -> "5";
            case Type.Decimal _ -> "0.5";
            case Type.Num _ -> "1.5e0";
            case Type.Bool _ -> "TRUE";
            case Type.Date _ -> "DATE '2026-02-07'";
            case Type.Timestamp _ -> "TIMESTAMP '2026-02-07 10:12:00'";
            case Type.ListOf(Type element) -> "ARRAY[" + example(element) + "]";
            case Type.Mapping(Type from, Type to) -> "MAP[" + example(from) + ", " + example(to) + "]";
            case Type.Text _, Type.Unknown _ -> "'a'";
        };
    }

    private List<Column> selected(Columns selection, List<Column> columns) {
        return switch (selection) {
            case Columns.EveryText() ->
                columns.stream().filter(c -> c.type().equals(Type.TEXT)).toList();
            case Columns.AllBut(List<String> names) -> {
                Set<String> out = new HashSet<>(known(names, columns));
                yield columns.stream()
                        .filter(c -> c.type().equals(Type.TEXT) && !out.contains(c.name()))
                        .toList();
            }
            case Columns.Named(List<String> names) ->
                known(names, columns).stream()
                        .distinct()
                        .map(n -> find(n, columns).orElseThrow())
                        .toList();
        };
    }

    /// The names with the capitals of the columns; those that are no column are reported and left out.
    private List<String> known(List<String> names, List<Column> columns) {
        List<String> known = new ArrayList<>();
        List<String> all = columns.stream().map(Column::name).toList();
        for (String name : names) {
            Optional<Column> column = find(name, columns);
            column.ifPresent(c -> known.add(c.name()));
            if (column.isEmpty()) {
                report(
                        Code.NO_SUCH_COLUMN,
                        "There is no column " + name + " at this line.",
                        Names.suggest(
                                name,
                                all,
                                "Columns: "
                                        + String.join(
                                                ", ", all.stream().limit(20).toList()) + "."));
            }
        }
        return known;
    }

    private static Optional<Column> find(String name, List<Column> columns) {
        Optional<Column> exact =
                columns.stream().filter(c -> c.name().equals(name)).findFirst();
        return exact.isPresent()
                ? exact
                : columns.stream().filter(c -> c.name().equalsIgnoreCase(name)).findFirst();
    }

    private void report(Code code, String what, String todo) {
        problems.add(Problem.error(code, where, what, todo));
    }
}
