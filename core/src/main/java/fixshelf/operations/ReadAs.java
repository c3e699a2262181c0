package fixshelf.operations;

import fixshelf.plan.Blank;
import fixshelf.table.Relation;
import fixshelf.table.Formula;
import fixshelf.language.tree.Expr;
import fixshelf.plan.Given;
import fixshelf.plan.Meaning;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableExample.Table;
import fixshelf.plan.ValueKinds;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.table.Computed;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/// Columns as values of types.
final class ReadAs extends BuiltIn {
    static final Blank<Map<String, Type>> TYPES =
            Blank.needed("types", ValueKinds.TYPES, "Columns with the types that they are read as.");
    static final Blank<String> LAYOUT = Blank.usually(
            "layout",
            ValueKinds.TEXT,
            "",
            "The layout of days or times, as dd/MM/yyyy; else yyyy-MM-dd and yyyy-MM-dd HH:mm:ss, which a fraction of a second may follow.");

    ReadAs() {
        super(
                "read_as",
                "Read {types}",
                new Meaning(
                        "Give columns types: numbers, dates, true and false out of texts, and texts out of them.",
                        "Missing stays missing. A text that is no value of the type becomes missing, and is counted as lost.",
                        "An empty text is no number and no date: it is lost.",
                        "Rows stay as they stand.",
                        "",
                        "Digits with a point for numbers, rounded to the scale of a decimal; days and times by their layout. A number becomes another number exactly, or is lost; a floating one is rounded. A day is a time at midnight, and a time loses its hours as a day.",
                        "",
                        "rounded: the rows with values that are rounded, or lose their time of the day.",
                        "The same in all."),
                List.of(TYPES, LAYOUT),
                List.of(
                        new TableExample(
                                "Numbers and days",
                                Table.of("n | d", "'12' | '2026-02-07'", "'x' | NULL"),
                                "read_as: {n: integer, d: date}",
                                Table.of("n integer | d date", "12 | DATE '2026-02-07'", "NULL | NULL")),
                        new TableExample(
                                "A layout, and back to text",
                                Table.of("d", "'07/02/2026'"),
                                "read_as: {d: date}\nlayout: dd/MM/yyyy",
                                Table.of("d date", "DATE '2026-02-07'")),
                        new TableExample(
                                "A time as a day, and a day as a time",
                                Table.of(
                                        "t timestamp | d date",
                                        "TIMESTAMP '2026-02-07 18:30:00' | DATE '2026-02-07'",
                                        "NULL | NULL"),
                                "read_as: {t: date, d: timestamp}",
                                Table.of(
                                        "t date | d timestamp",
                                        "DATE '2026-02-07' | TIMESTAMP '2026-02-07 00:00:00'",
                                        "NULL | NULL")),
                        new TableExample(
                                "Numbers of one kind as another",
                                Table.of("n number | i integer", "2.5e0 | 3", "4e0 | NULL"),
                                "read_as: {n: integer, i: number}",
                                Table.of("n integer | i number", "NULL | 3e0", "4 | NULL"))));
    }

    @Override
    public Resolution resolve(Given given) {
        List<Computed> cells = new ArrayList<>();
        List<Problem> problems = new ArrayList<>();
        given.get(TYPES).forEach((name, type) -> column(name, given, problems).ifPresent(field -> {
            if (!field.type().equals(type)) {
                Readings.as(field.value(), type, given.get(LAYOUT))
                        .ifPresentOrElse(
                                e -> cells.add(new Computed(field.typed(type), e)),
                                () -> problems.add(Given.problem(
                                        Code.WRONG_TYPE,
                                        name + " is " + field.type().label() + ", which cannot be read as "
                                                + type.label() + ".",
                                        "Read it as text before.")));
            }
        }));
        return problems.isEmpty()
                ? new Resolution.Done(given.computed(cells), rounded(given))
                : new Resolution.Refused(problems);
    }

    /// The rows with values of which less is left than stood there.
    private static List<Report> rounded(Given given) {
        List<Expr> losing = new ArrayList<>();
        given.get(TYPES).forEach((name, type) -> given.before()
                .shape()
                .find(name)
                .flatMap(f -> Readings.loses(f.value(), type))
                .ifPresent(losing::add));
        return losing.isEmpty()
                ? List.of()
                : List.of(new Report(
                        "rounded",
                        new Relation.Keep(given.before(), Formula.any(losing)),
                        "rows with values that are rounded, or lose their time of the day"));
    }

    @Override
    public boolean losesValues() {
        return true;
    }
}
