package fixshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import fixshelf.export.Export;
import fixshelf.export.Receipt;
import fixshelf.problem.Outcome;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// What an exported folder says of the proof that was made here.
class ProvenTest {
    /// What was proven here goes with the folder, and is a receipt like that of any other engine.
    @Test
    void theFolderSaysWhatWasProven(@TempDir Path folder) throws Exception {
        Shelf shelf =
                ShelfReader.read(DemoShelf.create(folder.resolve("demo"), 50)).get();
        Path other = folder.resolve("out");
        Language sqlite = Languages.find("sqlite").orElseThrow();
        Export.Wanted proven = new Export.Wanted(false, 5, false, List.of(), List.of());
        Outcome<Export.Report> report = Export.write(shelf, sqlite, other, proven);
        assertThat(report.problems()).isEmpty();
        String text = Files.readString(other.resolve("proven.txt"));
        Receipt receipt = Receipt.read("proven.txt", text).get();
        assertThat(receipt.objections(shelf)).isEmpty();
        assertThat(receipt.engine()).startsWith("3.");
        assertThat(receipt.caseCount()).isGreaterThan(200);
        assertThat(receipt.failingCount()).isZero();
        var tree = new ObjectMapper().readTree(text.substring(text.indexOf('{')));
        assertThat(tree.path("made_up_values").path("squeeze_spaces").asInt()).isGreaterThan(5);
        assertThat(tree.path("differing").size()).isZero();
        assertThat(tree.path("compared_with").asText()).startsWith("v");
        // Other functions are not what was proven.
        Receipt old = Receipt.read("", text.replace(receipt.digest(), "0000")).get();
        assertThat(old.objections(shelf)).singleElement().asString().contains("other functions");
        Outcome<Export.Report> none =
                Export.write(shelf, Languages.find("oracle").orElseThrow(), other.resolve("o"), proven);
        assertThat(none.get().refused()).contains("proven.txt: Oracle SQL is not here to be tried.");
    }
}
