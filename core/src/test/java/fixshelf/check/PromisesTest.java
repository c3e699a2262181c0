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
                "trim(text) ; never_null ; NULL",
                "reverse(text) ; order_kept ; 'a'",
                "trim(text) ; one_of '', 'a' ; '→'",
                "trim(text) ; matches '^[^z]*$' ; 'z'",
                "upper(text) ; undone_by lowered ; 'A'"
            })
    void theSmallestValueThatBreaksItIsShown(String body, String promise, String smallest) throws Exception {
        Shelf shelf = shelf(body, promise);
        List<PromiseResult> results =
                Promises.run(shelf, List.of(shelf.fix("tried").orElseThrow()), FixEngines.ALL.getFirst());
        assertThat(results).singleElement().satisfies(r -> {
            assertThat(r.holds()).isFalse();
            assertThat(r.sentence()).contains("but " + smallest + " gives");
        });
    }

    @Test
    void aPromiseThatIsKeptHolds() throws Exception {
        Shelf shelf = shelf(
                "trim(regexp_replace(text, ' +', ' '))",
                "idempotent, null_only_from_null, never_longer, \"matches '^([^ ]|$)'\"");
        assertThat(Promises.run(shelf, List.of(shelf.fix("tried").orElseThrow()), FixEngines.ALL.getFirst()))
                .hasSize(4)
                .allMatch(PromiseResult::holds);
        shelf = shelf("CASE WHEN text = 'x' THEN 'yes' END", "\"one_of 'yes', 'no'\"");
        assertThat(Promises.run(shelf, shelf.fixes(), FixEngines.ALL.getFirst()))
                .allMatch(PromiseResult::holds);
        shelf = shelf("text || '.'", "undone_by cut_last, order_kept");
        assertThat(Promises.run(shelf, List.of(shelf.fix("tried").orElseThrow()), FixEngines.ALL.getFirst()))
                .extracting(PromiseResult::sentence)
                .satisfiesExactly(
                        undone -> assertThat(undone).startsWith("Undone by cut_last, on"),
                        order -> assertThat(order).startsWith("What comes first stays first, but"));
    }

    @ParameterizedTest
    @CsvSource({
        "one_of, one_of",
        "idempotent ever, idempotent ever",
        "matches '(', matches '('",
        "undone_by a b, undone_by a b",
        "always_good, always_good"
    })
    void whatIsNoPromiseIsNamed(String written, String named) throws Exception {
        PageFiles.initShelf(root, "test");
        Files.writeString(
                root.resolve("fixes/tried.fix.md"),
                FixEdits.newPage("tried")
                        .replace("promises: [null_only_from_null]", "promises: [\"" + written + "\"]"));
        assertThat(ShelfReader.read(root).get().problems())
                .anySatisfy(p -> assertThat(p.sentence()).contains("This is no promise: " + named + "."));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "length(text) ; integer ; idempotent ; it gives another type than it takes",
                "length(text) ; integer ; matches '1' ; its result is not text",
                "length(text) ; integer ; undone_by lowered ; lowered does not take what it gives"
            })
    void aPromiseThatTheTypesDoNotAllowIsBrokenAndSaysWhy(String body, String type, String promise, String why)
            throws Exception {
        Shelf shelf = shelf(body, type, promise);
        assertThat(Promises.run(shelf, List.of(shelf.fix("tried").orElseThrow()), FixEngines.ALL.getFirst()))
                .singleElement()
                .satisfies(r -> {
                    assertThat(r.holds()).isFalse();
                    assertThat(r.sentence()).contains(why);
                });
    }

    @Test
    void aFailingCaseShowsInvisibleCharacters() throws Exception {
        Shelf shelf = shelf("ltrim(text)", "");
        FixPage page = shelf.fix("tried").orElseThrow();
        Shelf changed =
                shelf.with(FixEdits.reread(page, FixEdits.addCase(page, List.of("U&' a\\00A0\\0009 '", "'a'"))));
        List<CaseResult> results =
                Cases.run(changed, List.of(changed.fix("tried").orElseThrow()), FixEngines.ALL.getFirst());
        assertThat(results).hasSize(2);
        assertThat(results.getFirst().holds()).isTrue();
        assertThat(results.getLast().holds()).isFalse();
        assertThat(results.getLast().got()).isEqualTo("'a⍽→·'");
    }

    private Shelf shelf(String body, String promise) throws Exception {
        return shelf(body, "text", promise);
    }

    /// A shelf of the fix `tried`, `lowered` and `cut_last`.
    private Shelf shelf(String body, String type, String promise) throws Exception {
        PageFiles.initShelf(root, "test");
        String list = promise.contains("'") && !promise.contains("\"") ? '"' + promise + '"' : promise;
        write("tried", body, type, list);
        write("lowered", "lower(text)", "text", "");
        write("cut_last", "left(text, length(text) - 1)", "text", "");
        Shelf shelf = ShelfReader.read(root).get();
        assertThat(shelf.problems()).isEmpty();
        return shelf;
    }

    private void write(String name, String body, String type, String promises) throws Exception {
        String page = FixEdits.newPage(name)
                .replace("RETURN text;", body)
                .replace("returns: text", "returns: " + type)
                .replace("promises: [null_only_from_null]", "promises: [" + promises + "]");
        Files.writeString(root.resolve("fixes/" + name + ".fix.md"), page);
    }
}
