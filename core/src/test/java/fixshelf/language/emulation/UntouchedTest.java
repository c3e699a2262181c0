package fixshelf.language.emulation;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.language.pattern.Regex;
import fixshelf.language.pattern.RegexParser;
import fixshelf.language.pattern.Regexes;
import fixshelf.render.JavaPatterns;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What is asked before a slow replacement: never too little.
class UntouchedTest {
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
                ' +'             | ' '   | [  ]
                ' {2,}'          | ' '   | [  ]
                '[ \\t]+'        | ' '   | [  , \t]
                ' +'             | '-'   |
                '[/.]([0-9])'    | '/\\1'| [/, .]
                'rate:[0-9]+/'   | ''    | [rate:]
                'ab+c'           | ''    |
                'kg|lbs'         | ''    | [kg, lbs]
                '(?i)kg'         | ''    |
                '[0-9]+'         | ''    |
                'x?'             | ''    |
                '^(-+)$'         | ''    | [-]
                '[^a]'           | ''    |
                """)
    void findsTheSignsThatEveryMatchHolds(String pattern, String replacement, String needles) {
        Optional<List<String>> found = Untouched.needles(
                RegexParser.parse(pattern).get(),
                Optional.ofNullable(replacement).orElse(""));
        assertThat(found.map(List::toString).orElse(null)).isEqualTo(needles);
    }

    @Test
    void everyTextThatWouldChangeHoldsOne() {
        Random random = new Random(7);
        List<String> parts = List.of("a", "b", "/", "-", "[-/]", "[ab]", " ", "(/a)", "(-|//)", "^", "$", "[^a]", ".");
        List<String> repeats = List.of("", "", "+", "*", "?", "{2}", "{2,}", "+?");
        int asked = 0;
        for (int i = 0; i < 20_000; i++) {
            StringBuilder pattern = new StringBuilder();
            for (int n = 1 + random.nextInt(4); n > 0; n--) {
                String part = parts.get(random.nextInt(parts.size()));
                boolean anchor = part.equals("^") || part.equals("$");
                pattern.append(part).append(anchor ? "" : repeats.get(random.nextInt(repeats.size())));
            }
            if (random.nextInt(4) == 0) {
                pattern.append('|').append(parts.get(random.nextInt(3)));
            }
            String replacement = List.of("", "-", "/", " ", "\\0\\0").get(random.nextInt(5));
            Regex regex = RegexParser.parse(pattern.toString()).get();
            Optional<List<String>> needles =
                    Regexes.canBeEmpty(regex) ? Optional.empty() : Untouched.needles(regex, replacement);
            if (needles.isEmpty()) {
                continue;
            }
            asked++;
            String text = random.ints(random.nextInt(8), 0, 5)
                    .mapToObj(c -> String.valueOf("ab-/ ".charAt(c)))
                    .reduce("", String::concat);
            String changed = JavaPatterns.of(regex).matcher(text).replaceAll(replacement.replace("\\0", "$0"));
            assertThat(changed.equals(text) || needles.get().stream().anyMatch(text::contains))
                    .as("'%s' by '%s' makes '%s' of '%s', asked for %s", pattern, replacement, changed, text, needles)
                    .isTrue();
        }
        assertThat(asked).isGreaterThan(5_000);
    }
}
