package fixshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Outcome;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// Ready-made fixes on a shelf of one's own.
class ReadyMadeTest {
    @TempDir
    Path folder;

    private Shelf empty(String name) {
        return PageFiles.emptyShelf(folder.resolve(name), name)
                .then(ShelfReader::read)
                .get();
    }

    @Test
    @Tag("proof")
    void eachBringsWhatItCallsAndNothingOfTheDemo() throws Exception {
        for (ReadyMade.Fix fix : ReadyMade.all()) {
            Shelf shelf = empty(fix.name());
            ReadyMade.Taken taken = ReadyMade.take(shelf, List.of(fix.name().toUpperCase(java.util.Locale.ROOT)))
                    .get();
            assertThat(taken.written()).contains(fix.name());
            assertThat(fix.about()).as(fix.name()).isNotBlank();
            Shelf now = ShelfReader.read(shelf.root()).get();
            assertThat(now.problems()).as(fix.name()).isEmpty();
            assertThat(now.fixes().size() + now.tableFixes().size())
                    .isEqualTo(taken.written().size());
            // The page is the shelf's own, and as it stands in the demo.
            assertThat(Files.readString(shelf.root().resolve(fix.place()))).isEqualTo(fix.text());
        }
    }

    @Test
    void whatTheShelfHasStaysAsItIs() throws Exception {
        Shelf shelf = empty("mine");
        ReadyMade.take(shelf, List.of("amount"));
        Path page = shelf.root().resolve("fixes/numbers/amount.fix.md");
        Files.writeString(page, Files.readString(page) + "\nOurs.\n");
        Shelf now = ShelfReader.read(shelf.root()).get();
        List<String> all = ReadyMade.all().stream().map(ReadyMade.Fix::name).toList();
        ReadyMade.Taken taken = ReadyMade.take(now, all).get();
        assertThat(taken.there()).containsExactlyInAnyOrder("amount", "plain_number");
        assertThat(taken.written()).hasSize(all.size() - 2);
        assertThat(ShelfReader.read(shelf.root()).get().problems()).isEmpty();
        assertThat(Files.readString(page)).endsWith("Ours.\n");
        Outcome<ReadyMade.Taken> unknown = ReadyMade.take(now, List.of("amount", "squeeze_space"));
        assertThat(unknown.problems().getFirst().sentence())
                .isEqualTo("There is no ready-made fix squeeze_space. Nearest: squeeze_spaces.");
    }
}
