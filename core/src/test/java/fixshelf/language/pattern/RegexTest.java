package fixshelf.language.pattern;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/// The portable subset of regular expressions, and what an engine that looks for the longest match can say of it.
class RegexTest {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "a(?!b)",
                "a(?i)b",
                "[\\b]",
                "\\b*",
                "\\p{Greek}",
                "[[:alpha:]]",
                "a**",
                "^*",
                "a{300}",
                "[b-a]",
                "a)",
                "(a",
                "\\",
                "*a",
                "[\\D]",
                "a{x}"
            })
    void refusesWhatIsNotTheSameEverywhere(String pattern) {
        assertThat(RegexParser.parse(pattern).problems()).singleElement().satisfies(p -> {
            assertThat(p.what()).contains("at character");
            assertThat(p.todo()).isNotEmpty();
        });
    }

    @ParameterizedTest
    @CsvSource({
        "' +', true",
        "'^a+|b$', true",
        "'^ +| +$', true",
        "'[0-9]+(,[0-9]{3})*', true",
        "'a|ab', false",
        "'a+?b', false",
        "'a?(ab)?', false",
        "'(cat|dog)s', true",
        "'(x|xy)z', false",
        "'\\b[a-z]+\\b', true",
        "'\\ba|a', false"
    })
    void knowsWhereTheLongestMatchIsTheSame(String pattern, boolean same) {
        assertThat(Regexes.sameForLongestMatch(RegexParser.parse(pattern).get()))
                .isEqualTo(same);
    }
}
