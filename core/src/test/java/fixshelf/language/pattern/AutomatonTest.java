package fixshelf.language.pattern;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.language.pattern.Automaton.State;
import fixshelf.render.JavaPatterns;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// The table of states finds what a regular expression engine finds, for every pattern whose longest match is its
/// first.
class AutomatonTest {
    private static final int TEXTS = 3_000;
    private static final String ALPHABET = "aab  1,.-xé😀\n";

    static Stream<String> patterns() {
        return Stream.of(
                " +",
                "^ +",
                " +$",
                "^ +| +$",
                "[0-9]{2,3}",
                "a+b?",
                "(ab)+",
                "[^a-z]+",
                "^[a-z ]*$",
                "a|x",
                "[ ,]*,[ ,]*",
                "a[^\\n]b",
                ".",
                "\\u00e9",
                "a{0,2}x",
                "^a$",
                "\\b[a-z]+\\b",
                "\\ba",
                "x\\b",
                "a\\B",
                "\\B[a-z]",
                "\\b[0-9]\\b,?",
                "\\bab? +\\b",
                "^\\B[^a]",
                "[^1]\\b$");
    }

    @ParameterizedTest
    @MethodSource("patterns")
    void findsTheSameMatches(String pattern) {
        Regex regex = RegexParser.parse(pattern).get();
        assertThat(Regexes.sameForLongestMatch(regex)).isTrue();
        Automaton match = Automaton.ofMatch(regex, 60).orElseThrow();
        Automaton search = Automaton.ofSearch(regex, 60).orElseThrow();
        Random random = new Random(5);
        for (int i = 0; i < TEXTS; i++) {
            int[] text = text(random);
            String string = new String(text, 0, text.length);
            Matcher matcher = JavaPatterns.of(regex).matcher(string);
            boolean found = matcher.find();
            assertThat(finds(search, text)).as(pattern + " in " + string).isEqualTo(found);
            String first = first(match, text);
            assertThat(first).as(pattern + " in " + string).isEqualTo(found ? matcher.group() : "nothing");
        }
    }

    @Test
    void aPatternThatIsTooLargeHasNoTable() {
        Regex large = RegexParser.parse("[ab]*a[ab]{8}").get();
        assertThat(Automaton.ofMatch(large, 60)).isEmpty();
    }

    private static int[] text(Random random) {
        int[] alphabet = ALPHABET.codePoints().toArray();
        return random.ints(random.nextInt(9), 0, alphabet.length)
                .map(i -> alphabet[i])
                .toArray();
    }

    private static int next(Automaton automaton, int state, int character) {
        return automaton.states().get(state).moves().stream()
                .filter(m -> m.ranges().stream().anyMatch(r -> r.first() <= character && character <= r.last()))
                .map(Automaton.Move::target)
                .findFirst()
                .orElse(-1);
    }

    private static boolean finds(Automaton search, int[] text) {
        int state = search.atStart();
        for (int i = 0; i <= text.length && state >= 0; i++) {
            State now = search.states().get(state);
            if (now.acceptsBefore(i < text.length ? text[i] : -1)) {
                return true;
            }
            state = i < text.length ? next(search, state, text[i]) : -1;
        }
        return false;
    }

    /// As the query for SQLite walks: from each place, the longest match.
    private static String first(Automaton match, int[] text) {
        for (int begin = 0; begin <= text.length; begin++) {
            int end = -1;
            boolean inWord = begin > 0 && "aabx1".indexOf(text[begin - 1]) >= 0;
            int state = begin == 0 ? match.atStart() : inWord ? match.laterInWord() : match.later();
            for (int i = begin; i <= text.length && state >= 0; i++) {
                State now = match.states().get(state);
                if (now.acceptsBefore(i < text.length ? text[i] : -1)) {
                    end = i;
                }
                state = i < text.length ? next(match, state, text[i]) : -1;
            }
            if (end >= 0) {
                return new String(text, begin, end - begin);
            }
        }
        return "nothing";
    }
}
