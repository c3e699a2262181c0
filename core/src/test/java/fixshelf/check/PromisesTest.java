package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.FixEngines;
import fixshelf.shelf.FixEdits;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// A broken promise is found, and shown with the smallest value that breaks it; a failing case shows what came.
class PromisesTest {
    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '|',
            value = {
                "replace(text, '  ', ' ') ; idempotent ; '···'",
                "ltrim(remove_prefix(text, 'x')) ; idempotent ; 'xx'",
                "nullif(text, 'n/a') ; null_only_from_null ; 'n/a'",
                "regexp_extract(text, '[0-9]+') ; null_only_from_null ; ''",
                "text || '.' ; idempotent ; ''",
                "text || '.' ; never_longer ; ''",
                "trim(text) ; never_null ; NULL"
            })
    void theSmallestValueThatBreaksItIsShown(String body, String promise, String smallest) throws Exception {
        Shelf shelf = shelf(body, promise);
        List<PromiseResult> results = Promises.run(shelf, shelf.fixes(), FixEngines.ALL.getFirst());
        assertThat(results).singleElement().satisfies(r -> {
            assertThat(r.holds()).isFalse();
            assertThat(r.sentence()).contains("but " + smallest + " gives");
        });
    }

    @Test
    void aPromiseThatIsKeptHolds() throws Exception {
        Shelf shelf = shelf("trim(regexp_replace(text, ' +', ' '))", "idempotent, null_only_from_null, never_longer");
        assertThat(Promises.run(shelf, shelf.fixes(), FixEngines.ALL.getFirst()))
                .hasSize(3)
                .allMatch(PromiseResult::holds);
    }

    @Test
    void aFailingCaseShowsInvisibleCharacters() throws Exception {
        Shelf shelf = shelf("ltrim(text)", "");
        FixPage page = shelf.fixes().getFirst();
        Shelf changed =
                shelf.with(FixEdits.reread(page, FixEdits.addCase(page, List.of("U&' a\\00A0\\0009 '", "'a'"))));
        List<CaseResult> results = Cases.run(changed, changed.fixes(), FixEngines.ALL.getFirst());
        assertThat(results).hasSize(2);
        assertThat(results.getFirst().holds()).isTrue();
        assertThat(results.getLast().holds()).isFalse();
        assertThat(results.getLast().got()).isEqualTo("'a⍽→·'");
    }

    private Shelf shelf(String body, String promise) throws Exception {
        PageFiles.initShelf(root, "test");
        String page = FixEdits.newPage("tried")
                .replace("RETURN text;", body)
                .replace("promises: [null_only_from_null]", "promises: [" + promise + "]");
        Files.writeString(root.resolve("fixes/tried.fix.md"), page);
        Shelf shelf = ShelfReader.read(root).get();
        assertThat(shelf.problems()).isEmpty();
        return shelf;
    }
}
