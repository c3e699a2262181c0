package fixshelf.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.TableExample;
import fixshelf.problem.SourceText;
import fixshelf.shelf.FixEdits.ParameterText;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/// Parts of a table fix's page, edited one by one: what is not edited stays as it means.
class TableFixEditsTest {
    private static final String PAGE = """
            ---
            format: 2
            fix: it
            kind: table
            reads: it
            parameters:
              item: {type: column of text, about: "An item: its name."}
              keys: {type: columns, default: [no, "a, b"], about: Keys.}
              order: {type: order, default: [{no: descending}, b], about: ""}
              n: {type: integer, default: 3, about: How many.}
              word: {type: text, default: "no", about: A word.}
            ---
            # It

            Old words.

            ```yaml
            - first_rows: "{n}"
            ```
            """;

    private static TableFixPage page(String text) {
        return TableFixPages.read(Path.of("it.fix.md"), new SourceText("it", text));
    }

    @Test
    void parametersStayAsTheyMean() {
        TableFixPage before = page(PAGE);
        assertThat(before.problems()).isEmpty();
        List<ParameterText> texts = new ArrayList<>(TableFixEdits.parameters(before));
        assertThat(texts.getFirst().type()).isEqualTo("column of text");
        texts.set(3, new ParameterText("n", "integer", "4", "How many: all."));
        TableFixPage after = page(TableFixEdits.setParameters(before, texts));
        assertThat(after.problems()).isEmpty();
        for (int i : new int[] {0, 1, 2, 4}) {
            assertThat(after.parameters().get(i).fallback())
                    .isEqualTo(before.parameters().get(i).fallback());
        }
        assertThat(TableFixEdits.parameters(after)).isEqualTo(texts);
        TableFixPage none = page(TableFixEdits.setParameters(before, List.of()));
        assertThat(none.parameters()).isEmpty();
        assertThat(none.problems()).isEmpty();
    }

    @Test
    void wordsAndPromisesAreSaidAnew() {
        String text = TableFixEdits.setTitle(page(PAGE), "Another title");
        text = TableFixEdits.setProse(page(text), "New words.\n\nTwo of them.");
        text = TableFixEdits.setField(page(text), "promises", YamlText.list(List.of("unique_by keys", "rows_once")));
        TableFixPage after = page(text);
        assertThat(after.title()).isEqualTo("Another title");
        assertThat(after.prose()).isEqualTo("New words.\n\nTwo of them.");
        assertThat(after.promises()).extracting(TablePromise::written).containsExactly("unique_by keys", "rows_once");
        assertThat(after.lines()).hasSize(1);
        assertThat(after.parameters()).hasSize(5);
    }

    @Test
    void casesThatAreAddedHaveTitlesOfTheirOwn() {
        TableFixPage page = page(PAGE);
        TableExample.Table table = TableExample.Table.of("a", "'x'");
        for (int i = 0; i < 3; i++) {
            page = page(TableFixEdits.addCase(page, "Rows of visits", Map.of("n", "2"), table, table));
        }
        assertThat(page.problems()).isEmpty();
        assertThat(page.cases())
                .extracting(TableExample::title)
                .containsExactly("Rows of visits", "Rows of visits, 2", "Rows of visits, 3");
    }
}
