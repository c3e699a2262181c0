package fixshelf.type;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// B16: what a reader would overlook is seen, and what is plain is left alone.
class VisibleTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            ignoreLeadingAndTrailingWhitespace = false,
            value = {
                "a b|a·b|a b",
                " a|·a|·a",
                "a |a·|a·",
                "a  b|a··b|a··b",
                "a·b c|a‹B7›b·c|a‹B7›b c",
                "é😀|é😀|é😀",
            })
    void blanksAreMarked(String text, String all, String odd) {
        assertThat(Visible.mark(text)).isEqualTo(all);
        assertThat(Visible.markOddities(text)).isEqualTo(odd);
    }

    @ParameterizedTest
    @CsvSource({"9, →", "10, ¶", "13, ␍", "160, ⍽", "8203, ‹200B›", "0, ‹00›", "57344, ‹E000›", "8239, ‹202F›"})
    void everyCharacterWithoutInkHasAMark(int code, String mark) {
        String text = "a" + Character.toString(code) + "b";
        assertThat(Visible.mark(text)).isEqualTo("a" + mark + "b");
        assertThat(Literals.print(text)).as("and is written by its number").contains(String.format("\\%04X", code));
    }
}
