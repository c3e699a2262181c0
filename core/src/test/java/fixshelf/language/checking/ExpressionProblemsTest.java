package fixshelf.language.checking;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.language.catalogue.Functions;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.Printer;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// What is wrong in an expression is named in plain words, at the very characters, with a next step.
class ExpressionProblemsTest {
    record Case(String text, Code code, int line, int column, String what, String todo) {}

    static Stream<Case> problems() {
        return Stream.of(
                new Case("trimm(text)", Code.UNKNOWN_FUNCTION, 1, 1, "no function trimm", "trim"),
                new Case("upper(\n  txet)", Code.UNKNOWN_NAME, 2, 3, "no name txet", "text"),
                new Case("upper(text", Code.SYNTAX, 1, 11, "ends too early", "Close the parenthesis"),
                new Case("upper(text))", Code.SYNTAX, 1, 12, "closes nothing", "Remove"),
                new Case("'abc", Code.SYNTAX, 1, 1, "not closed", "Add '"),
                new Case("text text", Code.SYNTAX, 1, 6, "`text` is not expected", "comma or an operator"),
                new Case("replace(text, 'a',, 'b')", Code.SYNTAX, 1, 18, "`,` is not expected", "comma too many"),
                new Case("upper(n)", Code.WRONG_TYPE, 1, 7, "asks for text as text, this is integer", "to_text"),
                new Case("text = n", Code.WRONG_TYPE, 1, 8, "values of one type", "to_text"),
                new Case("CASE WHEN text THEN 1 END", Code.WRONG_TYPE, 1, 11, "asks for a condition", "Compare"),
                new Case("CASE WHEN TRUE THEN 'a' ELSE 1 END", Code.WRONG_TYPE, 1, 30, "one type", "to_text"),
                new Case("replace(text, 'a')", Code.ARGUMENTS, 1, 1, "takes 3, here are 2", "replace(text, search"),
                new Case("regexp_like(text, '(?=a)')", Code.BAD_PATTERN, 1, 19, "Look-around", "Only ( ) and (?: )"),
                new Case("regexp_like(text, '[a')", Code.BAD_PATTERN, 1, 19, "not closed", "Add ]"),
                new Case("regexp_replace(text, 'a*', 'b')", Code.BAD_PATTERN, 1, 22, "empty text", "+ instead of *"),
                new Case("regexp_replace(text, 'a', '\\1')", Code.BAD_PATTERN, 1, 27, "0 groups", "\\\\"),
                new Case(
                        "regexp_like(text, upper(text))",
                        Code.NOT_CONSTANT,
                        1,
                        19,
                        "must know its pattern",
                        "constant"),
                new Case("n / 2", Code.WRONG_TYPE, 1, 1, "asks for a floating-point number", "div"),
                new Case("to_number(text) + n", Code.WRONG_TYPE, 1, 1, "a number beside integer", "approximate"),
                new Case("to_number(text) > 1.5", Code.WRONG_TYPE, 1, 19, "values of one type", "1.5e0"),
                new Case("to_text(1.5e0)", Code.WRONG_TYPE, 1, 9, "a whole or exact number", "round(…, 2)"),
                new Case("1e400", Code.WRONG_TYPE, 1, 1, "1e-300 to 1e300", ""),
                new Case("to_date(text, 'tr: d MMMM yyyy')", Code.BAD_PATTERN, 1, 15, "in tr are not known", ""),
                new Case("keep_parts(text, ',', ARRAY[1])", Code.ARGUMENTS, 1, 23, "1 to 100 texts", "ARRAY"),
                new Case("skip_parts_in(text, ', ', ARRAY['a'])", Code.ARGUMENTS, 1, 21, "one character", ""),
                new Case(
                        "n IN (date_range(DATE '2026-01-01', DATE '2026-01-31'))",
                        Code.WRONG_TYPE,
                        1,
                        7,
                        "integer with list, which holds date",
                        ""),
                new Case(
                        "DATE '2026-01-01' IN (date_range(DATE '1900-01-01', DATE '2026-01-31'))",
                        Code.ARGUMENTS,
                        1,
                        53,
                        "10,000 days",
                        "Compare"),
                new Case("n + '1'", Code.WRONG_TYPE, 1, 5, "asks for a number", "to_integer"),
                new Case("year('2026-02-07')", Code.WRONG_TYPE, 1, 6, "asks for date", "to_date"),
                new Case("to_date('x', 'dd/MM/yy')", Code.BAD_PATTERN, 1, 14, "two digits", "dd/MM/yyyy"),
                new Case("DATE '2026-02-30'", Code.WRONG_TYPE, 1, 1, "no such day", "DATE"),
                new Case("TIMESTAMP '2026-02-07 24:00:00'", Code.WRONG_TYPE, 1, 1, "no such day or time", "TIMESTAMP"),
                new Case(
                        "in_list(text, ARRAY['a', 1])",
                        Code.WRONG_TYPE,
                        1,
                        15,
                        "do not make one",
                        "values of one type"),
                new Case("in_list(text, ARRAY[text])", Code.NOT_CONSTANT, 1, 21, "constant", ""),
                new Case("in_list(n, ARRAY['a'])", Code.WRONG_TYPE, 1, 12, "integer with list, which holds text", ""),
                new Case("lookup(text, MAP['a'])", Code.WRONG_TYPE, 1, 14, "do not make one", "keys of one type"),
                new Case(
                        "lookup(text, MAP['a', 'b', 'a', 'c'])",
                        Code.WRONG_TYPE,
                        1,
                        14,
                        "do not make one",
                        "each once"),
                new Case("split_part(text, '', 1)", Code.ARGUMENTS, 1, 18, "empty", ""),
                new Case("replace_until_same(text, 'a', 'b', 0)", Code.ARGUMENTS, 1, 36, "1", ""),
                new Case("round(1.5, 40)", Code.ARGUMENTS, 1, 12, "", ""),
                new Case(
                        "12345678901234567890123456789012345678901.5",
                        Code.WRONG_TYPE,
                        1,
                        1,
                        "at most 38 digits",
                        "Shorten"),
                new Case("normalize(text, 'NFX')", Code.ARGUMENTS, 1, 1, "takes 1, here are 2", "normalize(text)"),
                new Case("(SELECT 1)", Code.SYNTAX, 1, 1, "cannot query tables", "parameter"),
                new Case(
                        "read_csv('/etc/passwd')",
                        Code.UNKNOWN_FUNCTION,
                        1,
                        1,
                        "no function read_csv",
                        "fixshelf functions"),
                new Case("chr(0)", Code.ARGUMENTS, 1, 5, "no such character", "1 to 1114111"),
                new Case("", Code.SYNTAX, 1, 1, "no expression", "trim(text)"),
                new Case("(".repeat(130) + "text" + ")".repeat(130), Code.TOO_DEEP, 1, 121, "too deeply", "Split"));
    }

    @ParameterizedTest
    @MethodSource("problems")
    void isNamedWhereItIs(Case c) {
        Outcome<Expr> outcome = ExpressionParser.parse("page", c.text(), scope());
        assertThat(outcome.problems()).isNotEmpty();
        Problem problem = outcome.problems().getFirst();
        assertThat(problem.code()).as(problem.sentence()).isEqualTo(c.code());
        assertThat(problem.what()).contains(c.what());
        assertThat(problem.todo()).contains(c.todo());
        assertThat(problem.where().position()).isEqualTo(new SourceText.Position(c.line(), c.column()));
    }

    @Test
    void allProblemsAreToldAtOnce() {
        Outcome<Expr> outcome = ExpressionParser.parse("page", "trimm(txet) || uper(n)", scope());
        assertThat(outcome.problems()).hasSize(2);
    }

    @Test
    void whatIsPrintedReadsBackAsTheSameTree() {
        for (FunctionDef function : Functions.ALL) {
            for (FunctionDef.Example example : function.examples()) {
                Expr once = ExpressionParser.parse("e", example.call(), scope()).get();
                String printed = Printer.print(once);
                Expr again = ExpressionParser.parse("e", printed, scope()).get();
                assertThat(again).as(printed).isEqualTo(once);
                assertThat(Printer.print(again)).isEqualTo(printed);
            }
        }
    }

    @Test
    void namesAreFoundWithoutRegardToCaseAlsoWhenTheyAreWordsOfSql() {
        Scope scope = Scope.ofColumns(
                Scope.Fixes.NONE, List.of(new Column("Date", Type.TEXT), new Column("Visit No", Type.TEXT)));
        assertThat(Printer.print(ExpressionParser.parse("e", "upper(date) || \"visit no\"", scope)
                        .get()))
                .isEqualTo("upper(Date) || \"Visit No\"");
    }

    private static Scope scope() {
        return Scope.ofColumns(Scope.Fixes.NONE, List.of(new Column("text", Type.TEXT), new Column("n", Type.INTEGER)));
    }
}
