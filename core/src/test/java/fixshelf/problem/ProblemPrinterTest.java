package fixshelf.problem;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Problem.Where;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Places in a text, and how a problem is printed in a terminal.
class ProblemPrinterTest {
    private static final String TEXT = "one\ntwö 😀 x\r\n\n\tlast";

    @ParameterizedTest
    @CsvSource({"0, 1, 1", "3, 1, 4", "4, 2, 1", "8, 2, 5", "10, 2, 6", "11, 2, 7", "15, 4, 1", "16, 4, 2", "99, 4, 6"})
    void aPlaceIsALineAndACharacter(int offset, int line, int column) {
        assertThat(new SourceText("t", TEXT).position(offset)).isEqualTo(new SourceText.Position(line, column));
    }

    @ParameterizedTest
    @CsvSource({"1, 0", "2, 4", "3, 14", "4, 15", "9, 20"})
    void aLineBeginsSomewhere(int line, int offset) {
        assertThat(new SourceText("t", TEXT).offsetOfLine(line)).isEqualTo(offset);
    }

    @Test
    void theLineIsShownWithMarksUnderThePlace() {
        SourceText page = new SourceText("fixes/a.fix.md", "SET a = b;\r\nRETURN\ttrimm(text);\n");
        Span span = new Span(19, 24);
        assertThat(ProblemPrinter.print(Problem.error(
                        Code.UNKNOWN_FUNCTION, new Where(page, span), "no function trimm.", "Nearest: trim.")))
                .isEqualTo("""
                        fixes/a.fix.md:2:8: error E103: no function trimm.
                            RETURN trimm(text);
                                   ^^^^^
                          Nearest: trim.
                        """);
        // Of a place that goes over several lines the first one is marked; of an empty line nothing.
        assertThat(ProblemPrinter.print(Problem.error(Code.SYNTAX, new Where(page, new Span(4, 30)), "no.", "")))
                .isEqualTo("fixes/a.fix.md:1:5: error E101: no.\n    SET a = b;\n        ^^^^^^\n");
        assertThat(ProblemPrinter.print(Problem.about(Code.FILE_MISSING, "in.csv", "It is not there.", "Look.")))
                .isEqualTo("in.csv: error E301: It is not there.\n  Look.\n");
    }

    @Test
    void everyKindHasAnIdOfItsOwn() {
        assertThat(List.of(Code.values()))
                .extracting(Code::id)
                .doesNotHaveDuplicates()
                .allMatch(i -> i.matches("E[1-5]\\d\\d"));
    }
}
