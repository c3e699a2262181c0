package fixshelf.operations;

import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ExpressionKinds;
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
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/// Check that a sum or a count is a number, or that of another table.
final class MakeSureTotal extends BuiltIn {
    static final Blank<Map<String, ExpressionKinds.Measure>> MEASURES = Blank.needed(
            "measures", ExpressionKinds.MEASURES, "One or more names with aggregates of the rows: {cost: sum(cost)}.");
    static final Blank<String> IS =
            Blank.optional("is", ValueKinds.TEXT, "The number that each must be; or name a table with `as_in`.");
    static final Blank<Relation> AS_IN = Blank.optional(
            "as_in",
            ValueKinds.SOURCE,
            "A line above, a dataset or a job, whose columns of those names must have the same totals.");
    static final Blank<Boolean> ONLY_COUNT = Blank.usually(
            "only_count", ValueKinds.FLAG, "false", "Whether a run goes on, and only says how many differ.");

    MakeSureTotal() {
        super(
                "make_sure_total",
                "Make sure of {measures}",
                new Meaning(
                        "Check a sum, a count or a mean against a number, or against the same of another line, dataset or job: control total, reconcile.",
                        "Sums and means pass missing values over, as in group. A missing total is the same as a missing one.",
                        "An empty text is a value.",
                        "Rows stay as they stand.",
                        "",
                        "The totals of both sides have one type.",
                        "In the other table each measure is of the column that has its name there.",
                        "broken: a row for each total that differs, with both. A run stops where there is any, unless it only counts.",
                        "SQLite has no exact decimals: it cannot say sums of decimals, nor means."),
                List.of(MEASURES, IS, AS_IN, ONLY_COUNT),
                List.of(
                        new TableExample(
                                "A number",
                                Table.of("n integer", "3", "NULL", "4"),
                                "make_sure_total: {n: sum(n)}\nis: '7'",
                                Table.of("n integer", "3", "NULL", "4")),
                        new TableExample(
                                "As in another table",
                                Table.of("n integer | a", "3 | 'x'", "4 | 'x'"),
                                Map.of("list", Table.of("n", "'7'", "'0'")),
                                "make_sure_total: {n: count(n), rows: count_rows()}\nas_in: list",
                                Table.of("n integer | a", "3 | 'x'", "4 | 'x'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        Map<String, ExpressionKinds.Measure> measures = given.get(MEASURES);
        Optional<Relation> other = given.find(AS_IN);
        if (other.isPresent() == given.find(IS).isPresent()) {
            return Given.refused(Code.ARGUMENTS, "A total is compared with one thing.", "Write `is` or `as_in`.");
        }
        Relation here = ((Resolution.Done) Measures.grouped(given, List.of(), measures)).after();
        List<Problem> problems = new ArrayList<>();
        Optional<Relation> both = other.map(o -> beside(given, here, totals(given, o, measures, problems), problems))
                .or(() -> with(given, here, given.get(IS), problems));
        return problems.isEmpty()
                ? checked(given, differing(given, both.orElseThrow(), measures.size()), given.get(ONLY_COUNT))
                : new Resolution.Refused(problems);
    }

    /// The totals with the same number beside each.
    private static Optional<Relation> with(Given given, Relation here, String is, List<Problem> problems) {
        List<Computed> cells = new ArrayList<>();
        for (Field field : here.shape().fields()) {
            Optional<Expr> wanted = given.constant(is, field.type());
            if (wanted.isEmpty()) {
                problems.add(Given.problem(
                        Code.WRONG_TYPE,
                        is + " is no " + field.type().label() + ", as " + field.name() + " is.",
                        "Write a value of that type."));
            } else {
                cells.add(new Computed(given.field("wanted " + field.name(), field.type()), wanted.get()));
            }
        }
        return problems.isEmpty() ? Optional.of(new Relation.Compute(here, cells)) : Optional.empty();
    }

    /// The same totals of another table, over its columns of those names.
    private static Relation totals(
            Given given, Relation other, Map<String, ExpressionKinds.Measure> measures, List<Problem> problems) {
        List<String> known = new ArrayList<>();
        measures.values().forEach(m -> m.of().ifPresent(e -> Formula.renamed(e, name -> {
            Optional<Field> field = given.fields().stream()
                    .filter(f -> f.key().equals(name.name()))
                    .findFirst();
            return field.filter(_ -> known.add(name.name()))
                    .flatMap(f -> other(f.name(), other, problems))
                    .<Expr>map(Field::value)
                    .orElse(name);
        })));
        if (!problems.isEmpty()) {
            return other;
        }
        return Measures.totals(given, other, measures, name -> given.fields().stream()
                .filter(f -> f.key().equals(name.name()))
                .findFirst()
                .flatMap(f -> other.shape().find(f.name()))
                .<Expr>map(Field::value)
                .orElse(name));
    }

    private static Relation beside(Given given, Relation here, Relation there, List<Problem> problems) {
        for (int i = 0; problems.isEmpty() && i < here.shape().fields().size(); i++) {
            Field left = here.shape().fields().get(i);
            Field right = there.shape().fields().get(i);
            if (!left.type().equals(right.type())) {
                problems.add(Given.problem(
                        Code.WRONG_TYPE,
                        left.name() + " is " + left.type().label() + " here, and "
                                + right.type().label() + " there.",
                        "Give both one type with read_as before."));
            }
        }
        Field left = given.helper("one_here", Type.INTEGER);
        Field right = given.helper("one_there", Type.INTEGER);
        Expr one = Expr.Literal.integer(1);
        return new Relation.Join(
                new Relation.Compute(here, List.of(new Computed(left, one))),
                new Relation.Compute(there, List.of(new Computed(right, one))),
                List.of(new Relation.Pair(left, right, false)),
                Relation.Meeting.PAIRS,
                there.shape().fields().stream()
                        .map(f -> new Relation.Taken(f, given.field("wanted " + f.name(), f.type())))
                        .toList());
    }

    /// A row for each pair of totals that differ, as texts.
    private static Relation differing(Given given, Relation both, int count) {
        List<Field> fields = both.shape().fields();
        List<Computed> texts = new ArrayList<>();
        List<List<Field>> sets = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            Field here = fields.get(i);
            Field wanted = fields.get(fields.size() - count + i);
            Field is = given.helper("is_" + i, Type.TEXT);
            Field should = given.helper("should_" + i, Type.TEXT);
            Field differs = given.helper("differs_" + i, Type.BOOLEAN);
            texts.add(new Computed(is, text(here)));
            texts.add(new Computed(should, text(wanted)));
            texts.add(new Computed(differs, Formula.call("IS DISTINCT FROM", here.value(), wanted.value())));
            sets.add(List.of(is, should, differs));
        }
        Field differs = given.helper("differs", Type.BOOLEAN);
        Field total = given.field("total", Type.TEXT);
        List<Field> made = List.of(given.field("is", Type.TEXT), given.field("should_be", Type.TEXT), differs);
        Relation rows = new Relation.Unpivot(
                new Relation.Compute(both, texts),
                sets,
                fields.subList(0, count).stream().map(Field::name).toList(),
                total,
                made,
                true);
        return new Relation.Pick(
                new Relation.Keep(rows, differs.value()),
                new fixshelf.table.Shape(
                        Stream.of(total, made.get(0), made.get(1)).toList()));
    }

    private static Expr text(Field field) {
        return Readings.as(field.value(), Type.TEXT, "").orElse(field.value());
    }
}
