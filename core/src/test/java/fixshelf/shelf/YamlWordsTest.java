package fixshelf.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import java.nio.file.Path;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What is wrong with a page that is no YAML is said in words of ours, where it stands.
class YamlWordsTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "job: a/lines:/→- read: a | 3 | a line is indented with a tab.",
                "job: a: b | 1 | a value holds a colon.",
                "job: a/title: Rows: all/lines: [] | 2 | a value holds a colon.",
                "job: a/  title: b | 2 | a value holds a colon.",
                "job: a/lines:/  - read: a/ - drop: [b] | 4 | this line is indented otherwise than those that it belongs to.",
                "job: a/title/lines: [] | 3 | a name stands here without a colon behind it.",
                "job: 'a/title: b | 1 | quotes are opened here and not closed.",
                "job: \"a/title: b | 1 | quotes are opened here and not closed.",
                "job: \"a\\q\" | 1 | a \\ in double quotes begins no sign that is known.",
                "job: [a/title: b | 2 | a list is opened with [ and not closed as it should be.",
                "job: {a: b/title: c | 2 | fields are opened with { and not closed as they should be.",
                "job: *a | 1 | a value begins with *, or names what is defined nowhere.",
                "job: @a | 1 | a value cannot begin with this sign.",
                "job: @b | 1 | a value cannot begin with this sign.",
                "job: %a | 1 | a value cannot begin with this sign."
            })
    void areOurs(String text, int line, String what) {
        String yaml = text.replace("→", "\t").replace('/', '\n') + "\n";
        JobPage page = JobPages.read(Path.of("a.yaml"), new SourceText("a.yaml", yaml));
        Problem problem = page.problems().getFirst();
        assertThat(problem.what()).isEqualTo("This is not YAML: " + what);
        assertThat(problem.where().position().line()).isEqualTo(line);
    }
}
