package fixshelf.operations;

import fixshelf.language.pattern.RegexParser;
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
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/// The parts of a text in columns of their own.
final class SplitColumn extends BuiltIn {
    static final Blank<Field> COLUMN = Blank.needed("column", ColumnKinds.COLUMN, "The column whose texts are split.");
    static final Blank<List<String>> INTO =
            Blank.needed("into", ColumnKinds.NEW_NAMES, "New columns, one for each part.");
    static final Blank<String> SEPARATOR = Blank.optional(
                    "separator", ValueKinds.TEXT, "What stands between the parts.")
            .leftOutAs("the groups of a pattern");
    static final Blank<String> PATTERN = Blank.optional(
            "pattern",
            ValueKinds.TEXT,
            "Instead of a separator: a pattern with a group in round brackets for each new column.");

    SplitColumn() {
        super(
                "split_column",
                "Split {column} at {separator} into {into}",
                new Meaning(
                        "Split a text into columns at a separator, or by the groups of a pattern: first and last name, code and number.",
                        "Gives missing parts.",
                        "An empty text has one part, which is empty; a part between two separators is empty.",
                        "Rows stay as they stand.",
                        "",
                        "Texts.",
                        "The new names must be free. The column stays; drop it in a line after.",
                        "more_parts: the rows with more parts than there are names, whose last parts are nowhere. no_match: the rows with a text that the pattern does not match, whose parts are missing.",
                        "Where a language counts separators in another way, it says so. SQLite has no regular expressions: it cannot say groups of a pattern."),
                List.of(COLUMN, INTO, SEPARATOR, PATTERN),
                List.of(
                        new TableExample(
                                "By the groups of a pattern",
                                Table.of("a", "'AQ-17 blue'", "'none'", "NULL"),
                                "split_column: a\ninto: [letters, number]\npattern: '([A-Z]+)-([0-9]+)'",
                                Table.of(
                                        "a | letters | number",
                                        "'AQ-17 blue' | 'AQ' | '17'",
                                        "'none' | NULL | NULL",
                                        "NULL | NULL | NULL")),
                        new TableExample(
                                "Two parts, or fewer",
                                Table.of("a", "'x-1'", "'y'", "NULL", "'-2'"),
                                "split_column: a\ninto: [letter, number]\nseparator: '-'",
                                Table.of(
                                        "a | letter | number",
                                        "'x-1' | 'x' | '1'",
                                        "'y' | 'y' | NULL",
                                        "NULL | NULL | NULL",
                                        "'-2' | '' | '2'"))));
    }

    private static Resolution byPattern(Given given, Field column, String written) {
        List<Problem> problems = new ArrayList<>(RegexParser.parse(written).problems());
        if (!column.type().equals(Type.TEXT)) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    column.name() + " is " + column.type().label() + ", and only texts are split.",
                    "Read it as text before.");
        }
        if (problems.stream().anyMatch(Problem::isError)) {
            return new Resolution.Refused(problems);
        }
        int groups = Pattern.compile(written).matcher("").groupCount();
        int names = given.get(INTO).size();
        if (groups != names) {
            return Given.refused(
                    Code.ARGUMENTS,
                    "The pattern has " + groups + " groups, and there are " + names + " new columns.",
                    "Put each part in round brackets, and name them in order.");
        }
        List<Computed> cells = new ArrayList<>();
        Expr pattern = Expr.Literal.text(written);
        for (String name : given.get(INTO)) {
            given.meets(name).ifPresent(problems::add);
            cells.add(new Computed(
                    given.field(name, Type.TEXT),
                    Formula.call("regexp_extract", column.value(), pattern, Expr.Literal.integer(cells.size() + 1L))));
        }
        Expr none = Formula.not(Formula.call("regexp_like", column.value(), pattern));
        return problems.isEmpty()
                ? new Resolution.Done(
                        given.computed(cells),
                        List.of(new Report(
                                "no_match",
                                new Relation.Keep(given.before(), none),
                                "rows that the pattern does not match")))
                : new Resolution.Refused(problems);
    }

    @Override
    public Resolution resolve(Given given) {
        Field column = given.get(COLUMN);
        if (given.find(PATTERN).isPresent() == given.find(SEPARATOR).isPresent()) {
            return Given.refused(
                    Code.ARGUMENTS,
                    "A text is split in one way: at a separator, or by a pattern.",
                    "Write one of `separator` and `pattern`.");
        }
        if (given.find(PATTERN).isPresent()) {
            return byPattern(given, column, given.find(PATTERN).get());
        }
        String separator = given.find(SEPARATOR).orElseThrow();
        if (!column.type().equals(Type.TEXT) || separator.isEmpty()) {
            return Given.refused(
                    Code.WRONG_TYPE,
                    separator.isEmpty()
                            ? "A separator is at least one character."
                            : column.name() + " is " + column.type().label() + ", and only texts are split.",
                    separator.isEmpty() ? "Write the sign between the parts." : "Read it as text before.");
        }
        List<Problem> problems = new ArrayList<>();
        List<Computed> cells = new ArrayList<>();
        Expr sign = Expr.Literal.text(separator);
        for (String name : given.get(INTO)) {
            given.meets(name).ifPresent(problems::add);
            Expr number = Expr.Literal.integer(cells.size() + 1L);
            cells.add(new Computed(
                    given.field(name, Type.TEXT), Formula.call("split_part", column.value(), sign, number)));
        }
        if (!problems.isEmpty()) {
            return new Resolution.Refused(problems);
        }
        Expr count = Formula.call("part_count", column.value(), sign);
        Expr more = Formula.call(">", count, Expr.Literal.integer(cells.size()));
        return new Resolution.Done(
                given.computed(cells),
                List.of(new Report("more_parts", new Relation.Keep(given.before(), more), "rows with more parts")));
    }
}
