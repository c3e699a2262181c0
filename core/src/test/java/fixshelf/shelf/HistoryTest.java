package fixshelf.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// Undo survives the end of the program, also one in the middle of a write.
class HistoryTest {
    @Test
    void textsComeBackAfterARestart(@TempDir Path shelf) {
        Path page = shelf.resolve("fixes/a.fix.md");
        History history = History.open(shelf, page, "one");
        history.record("two");
        history.record("two");
        history.record("drei é😀");
        assertThat(history.undo()).contains("two");
        History again = History.open(shelf, page, "one");
        assertThat(again.current()).isEqualTo("two");
        assertThat(again.redo()).contains("drei é😀");
        assertThat(again.undo()).contains("two");
        assertThat(again.undo()).contains("one");
        assertThat(again.undo()).isEmpty();
        again.record("four");
        assertThat(again.canRedo()).as("what could be redone is gone").isFalse();
        assertThat(History.open(shelf, page, "one").current()).isEqualTo("four");
    }

    @Test
    void aPageThatWasChangedOutsideIsTheCurrentText(@TempDir Path shelf) {
        Path page = shelf.resolve("jobs/a.yaml");
        History.open(shelf, page, "one").record("draft");
        History changed = History.open(shelf, page, "from outside");
        assertThat(changed.current()).isEqualTo("from outside");
        assertThat(changed.undo()).contains("draft");
    }

    /// Edits and moves, then the journal cut off anywhere: what was written whole is there, and what is written
    /// afterwards is read again.
    @Property(tries = 300)
    void aJournalThatWasCutOffIsReadUpToTheCutAndGoesOn(
            @ForAll @Size(min = 1, max = 8) List<@IntRange(min = -1, max = 40) Integer> moves,
            @ForAll @IntRange(min = 0, max = 400) int kept)
            throws Exception {
        Path shelf = Files.createTempDirectory("history");
        Path page = shelf.resolve("a.fix.md");
        History history = History.open(shelf, page, "first");
        List<String> all = new ArrayList<>(List.of("first"));
        for (int move : moves) {
            if (move < 0) {
                history.undo();
            } else {
                all.add("text " + move + " é");
                history.record("text " + move + " é");
            }
        }
        Path journal;
        try (var files = Files.list(shelf.resolve(".fixshelf/history"))) {
            journal = files.findFirst().orElseThrow();
        }
        byte[] bytes = Files.readAllBytes(journal);
        Files.write(journal, Arrays.copyOf(bytes, Math.min(kept, bytes.length)));
        History cut = History.open(shelf, page, "first");
        assertThat(all).as("never half a text").contains(cut.current());
        cut.record("after the cut");
        History last = History.open(shelf, page, "first");
        assertThat(last.current()).isEqualTo("after the cut");
        assertThat(last.undo().map(all::contains)).isNotEqualTo(java.util.Optional.of(false));
    }
}
