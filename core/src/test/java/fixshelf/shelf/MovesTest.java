package fixshelf.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// Files that appear together, or are finished by the next program.
class MovesTest {
    @TempDir
    Path folder;

    private List<Moves.Move> three() throws Exception {
        List<Moves.Move> moves = new ArrayList<>();
        for (String name : List.of("a b", "ü\t", "c")) {
            Path target = Files.writeString(folder.resolve(name), "old");
            moves.add(new Moves.Move(Files.writeString(folder.resolve("." + name + ".part"), "new"), target));
        }
        return moves;
    }

    @Test
    void allAreInPlaceAndNothingIsLeft() throws Exception {
        List<Moves.Move> moves = three();
        Moves.together(folder.resolve("journal"), moves);
        assertThat(moves).allSatisfy(m -> assertThat(m.target()).hasContent("new"));
        try (Stream<Path> left = Files.list(folder.resolve("journal"))) {
            assertThat(left).isEmpty();
        }
    }

    /// Killed after each number of moves: the next start finishes what is left.
    @Test
    void whatWasCutOffIsFinished() throws Exception {
        long gone = new ProcessBuilder("true").start().pid();
        Thread.sleep(200);
        for (int done = 0; done <= 3; done++) {
            List<Moves.Move> moves = three();
            Path journals = Files.createDirectories(folder.resolve("journal"));
            StringBuilder text = new StringBuilder();
            for (Moves.Move move : moves) {
                text.append(java.net.URLEncoder.encode(move.part().toString(), StandardCharsets.UTF_8))
                        .append('\t')
                        .append(java.net.URLEncoder.encode(move.target().toString(), StandardCharsets.UTF_8))
                        .append('\n');
            }
            Path journal = Files.writeString(journals.resolve("moves-" + gone + "-x"), text);
            for (int i = 0; i < done; i++) {
                Files.move(
                        moves.get(i).part(), moves.get(i).target(), java.nio.file.StandardCopyOption.REPLACE_EXISTING);
            }
            assertThat(Moves.finishLeftBehind(journals)).hasSize(3 - done);
            assertThat(moves).allSatisfy(m -> assertThat(m.target()).hasContent("new"));
            assertThat(journal).doesNotExist();
        }
    }

    /// One that is still at work finishes by itself.
    @Test
    void aProgramThatIsAtWorkIsLeftAlone() throws Exception {
        Path journals = Files.createDirectories(folder.resolve("journal"));
        Path mine = Files.writeString(
                journals.resolve("moves-" + ProcessHandle.current().pid() + "-x"), "");
        assertThat(Moves.finishLeftBehind(journals)).isEmpty();
        assertThat(mine).exists();
    }
}
