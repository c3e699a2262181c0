package fixshelf.desktop.languages;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.check.ParityResult;
import fixshelf.demo.DemoShelf;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.TestScreen;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// What the board knows of the parity of a fix, without a window.
class ParityModelTest {
    @TempDir
    Path folder;

    private final TestScreen screen = new TestScreen();
    private final Background background = new Background(screen);
    private final ParityModel model = new ParityModel(background);

    @AfterEach
    void close() {
        background.close();
    }

    /// A result is one of a fix as it was: a fix that was changed since has none.
    @Test
    void aResultCountsAsLongAsTheFixStaysAsItWas() throws Exception {
        DemoShelf.create(folder, 60);
        Shelf shelf = ShelfReader.read(folder).get();
        FixPage page = shelf.fix("squeeze_spaces").orElseThrow();
        Language sqlite = Languages.find("sqlite").orElseThrow();
        assertThat(model.result(shelf, page, sqlite)).isEmpty();
        model.check(shelf, List.of(page), 40, () -> {});
        screen.settle(background);
        assertThat(model.result(shelf, page, sqlite))
                .hasValueSatisfying(r -> assertThat(r.verdict()).isInstanceOf(ParityResult.Same.class));
        Path file = page.file();
        Files.writeString(file, Files.readString(file).replaceFirst("(?s)```sql.*?```", "```sql\nRETURN text;\n```"));
        Shelf changed = ShelfReader.read(folder).get();
        assertThat(model.result(changed, changed.fix("squeeze_spaces").orElseThrow(), sqlite))
                .isEmpty();
        assertThat(model.result(shelf, page, sqlite)).isPresent();
    }
}
