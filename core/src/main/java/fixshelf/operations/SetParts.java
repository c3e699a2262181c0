package fixshelf.operations;

import fixshelf.plan.Absent;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Blank;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.ExpressionKinds;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Aggregate;
import fixshelf.table.Computed;
import fixshelf.table.Field;
import fixshelf.table.Formula;
import fixshelf.table.Grouped;
import fixshelf.table.Relation;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Other parts in separated texts: an expression, or a fix in it, over each part by itself.
final class SetParts extends BuiltIn {
    private static final long MOST = 100;

    static final Blank<List<Field>> COLUMNS =
            Blank.needed("columns", ColumnKinds.COLUMNS, "The columns whose texts are lists.");
    static final Blank<String> SEPARATOR = Blank.needed("separator", ValueKinds.TEXT, "What stands between the parts.");
    static final Blank<Expr> TO =
            Blank.needed("to", ExpressionKinds.over("it"), "An expression in which it is a part; a fix can be called.");

    SetParts() {
        super(
                "set_parts",
                "Set each part of {columns}, which {separator} separates, to {to}",
                new Meaning(
                        "Apply a fix to each element of a list in a cell: map over parts, change tags.",
                        "A missing list stays missing. A part that becomes missing is left out, with its separator.",
                        "An empty text has one part, which is empty; where no part is left, the text is empty.",
                        "Rows and parts stay as they stand.",
                        "",
                        "Texts. The expression gives a text.",
                        "it is the part, also where a column is called so; the other columns are there too.",
                        "left_out: the rows in which a part that says something becomes missing.",
                        "What was seen in the data is written out, as many parts as the longest list has."),
                List.of(COLUMNS, SEPARATOR, TO, Absent.BLANK),
                List.of(
                        new TableExample(
                                "Blanks and capitals of each",
                                Table.of("k | a", "'1' | 'Lamp; tea ;'", "'2' | NULL", "'3' | ''"),
                                "set_parts: [a]\nseparator: ';'\nto: lower(trim(it))",
                                Table.of("k | a", "'1' | 'lamp;tea;'", "'2' | NULL", "'3' | ''")),
                        new TableExample(
                                "Some are left out",
                                Table.of("a | b", "'x,n/a,y' | 'n/a'", "'n/a' | 'z'"),
                                "set_parts: [a, b]\nseparator: ','\nto: nullif(it, 'n/a')",
                                Table.of("a | b", "'x,y' | ''", "'' | 'z'"))));
    }

    @Override
    public Resolution resolve(Given given) {
        String separator = given.get(SEPARATOR);
        List<Field> columns = given.get(COLUMNS);
        Optional<Problem> wrong = wrong(given, separator, columns);
        if (wrong.isPresent()) {
            return new Resolution.Refused(List.of(wrong.get()));
        }
        Expr sign = Expr.Literal.text(separator);
        List<Computed> counts = new ArrayList<>();
        List<Grouped> greatest = new ArrayList<>();
        for (Field column : columns) {
            Field count = given.helper("parts_of_" + column.name(), Type.INTEGER);
            counts.add(new Computed(count, Formula.call("part_count", column.value(), sign)));
            greatest.add(new Grouped(
                    given.helper("most_parts_of_" + column.name(), Type.INTEGER),
                    Aggregate.GREATEST,
                    Optional.of(count)));
        }
        Relation counted = given.computed(counts);
        return new Resolution.Asks(new Relation.Group(counted, List.of(), greatest), seen -> {
            List<Long> most = new ArrayList<>();
            for (int i = 0; i < columns.size(); i++) {
                most.add(Math.max(1, count(seen, i)));
            }
            long longest = most.stream().mapToLong(Long::longValue).max().orElse(1);
            return longest > MOST
                    ? Given.refused(
                            Code.BAD_FIELD,
                            "A list has " + longest + " parts, and at most " + MOST + " are set.",
                            "Look at the separator, or make rows of the lists.")
                    : set(given, counted, counts, most);
        });
    }

    private static Optional<Problem> wrong(Given given, String separator, List<Field> columns) {
        if (separator.isEmpty()) {
            return Optional.of(Given.problem(
                    Code.WRONG_TYPE, "A separator is at least one character.", "Write the sign between the parts."));
        }
        Optional<Field> other =
                columns.stream().filter(c -> !c.type().equals(Type.TEXT)).findFirst();
        if (other.isPresent()) {
            return Optional.of(Given.problem(
                    Code.WRONG_TYPE,
                    other.get().name() + " is " + other.get().type().label() + ", and only texts have parts.",
                    "Read it as text before."));
        }
        Type type = given.get(TO).type();
        return type.equals(Type.TEXT) || type instanceof Type.Unknown
                ? Optional.empty()
                : Optional.of(Given.problem(
                        Code.WRONG_TYPE,
                        "A part is a text, and not " + type.label() + ".",
                        "Write to_text around it."));
    }

    private static Resolution set(Given given, Relation counted, List<Computed> counts, List<Long> most) {
        List<Field> columns = given.get(COLUMNS);
        Expr sign = Expr.Literal.text(given.get(SEPARATOR));
        Expr to = given.get(TO);
        List<Computed> helpers = new ArrayList<>();
        List<Computed> cells = new ArrayList<>();
        List<Expr> leftOut = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            Field column = columns.get(i);
            Expr count = counts.get(i).made().value();
            List<Expr> joined = new ArrayList<>(List.of(sign));
            for (long n = 1; n <= most.get(i); n++) {
                Expr nth = Expr.Literal.integer(n);
                Field part = given.helper("part_" + n + "_of_" + column.name(), Type.TEXT);
                Expr was = Formula.call("split_part", column.value(), sign, nth);
                Expr is = Formula.renamed(to, name -> name.name().equals("it") ? was : name);
                Expr known = is.type() instanceof Type.Unknown ? Formula.missing(Type.TEXT) : is;
                Expr isHere = Formula.call(">=", count, nth);
                helpers.add(new Computed(part, Formula.when(isHere, known, Formula.missing(Type.TEXT))));
                joined.add(part.value());
                leftOut.add(Formula.call(
                        "AND", Formula.call("<>", was, Expr.Literal.text("")), Formula.isMissing(part.value())));
            }
            // One part alone needs nothing between.
            Expr all = joined.size() == 2 ? joined.getLast() : Formula.call("concat_ws", joined.toArray(Expr[]::new));
            cells.add(new Computed(
                    column,
                    Formula.when(
                            Formula.isMissing(column.value()),
                            Formula.missing(Type.TEXT),
                            Formula.call("coalesce", all, Expr.Literal.text("")))));
        }
        Relation parts = new Relation.Compute(counted, helpers);
        List<Field> gone = new ArrayList<>(counts.stream().map(Computed::made).toList());
        gone.addAll(helpers.stream().map(Computed::made).toList());
        Expr any = leftOut.stream().reduce((a, b) -> Formula.call("OR", a, b)).orElse(Expr.Literal.truth(false));
        Report report = new Report(
                "left_out", Given.without(new Relation.Keep(parts, any), gone), "rows in which a part is left out");
        return new Resolution.Done(Given.without(new Relation.Compute(parts, cells), gone), List.of(report));
    }
}
