package fixshelf.language.pattern;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.language.pattern.PatternHelp.Inside;
import fixshelf.render.JavaPatterns;
import java.util.regex.Matcher;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Plain words become a portable pattern, and a call that finds what is looked for.
class PatternHelpTest {
    record Case(PatternHelp help, String pattern, String call, String text, String found) {}

    static Stream<Case> cases() {
        return Stream.of(
                new Case(
                        new PatternHelp("rate:", Inside.ANYTHING, "/"),
                        "rate:([^/]*)/",
                        "text_between(x, 'rate:', '/')",
                        "rate:4/5",
                        "4"),
                new Case(
                        new PatternHelp("(", Inside.DIGITS, ")"),
                        "\\(([0-9]+)\\)",
                        "regexp_extract(x, '\\(([0-9]+)\\)', 1)",
                        "a (12) b",
                        "12"),
                new Case(
                        new PatternHelp("", Inside.DIGITS, ""),
                        "[0-9]+",
                        "regexp_extract(x, '[0-9]+')",
                        "AQ-417",
                        "417"),
                new Case(
                        new PatternHelp("", Inside.NO_SPACES, " kg"),
                        "([^ ]+) kg",
                        "regexp_extract(x, '([^ ]+) kg', 1)",
                        "about 1.20 kg",
                        "1.20"),
                new Case(
                        new PatternHelp("", Inside.LETTERS, "]"),
                        "([A-Za-zÀ-ÖØ-öø-ɏ]+)\\]",
                        "regexp_extract(x, '([A-Za-zÀ-ÖØ-öø-ɏ]+)\\]', 1)",
                        "[café]",
                        "café"));
    }

    @ParameterizedTest
    @MethodSource("cases")
    void saysWhatIsLookedFor(Case c) {
        assertThat(c.help().pattern()).isEqualTo(c.pattern());
        assertThat(c.help().extraction("x")).isEqualTo(c.call());
        Matcher matcher =
                JavaPatterns.of(RegexParser.parse(c.help().pattern()).get()).matcher(c.text());
        assertThat(matcher.find()).isTrue();
        assertThat(matcher.groupCount() > 0 ? matcher.group(1) : matcher.group())
                .isEqualTo(c.found());
    }
}
