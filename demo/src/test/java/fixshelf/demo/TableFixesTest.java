package fixshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.shelf.TableFixPage;
import fixshelf.work.JobParity;
import fixshelf.work.OperationExamples;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// The table fixes of the demo shelf have cases, and give in every language what those say.
class TableFixesTest {
    @TempDir
    Path folder;

    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @ParameterizedTest
    @MethodSource("engines")
    void casesHoldInEveryLanguage(FixEngine engine) throws Exception {
        Engines.assumeHere(engine);
        Shelf shelf = ShelfReader.read(DemoShelf.create(folder, 30)).get();
        assertThat(shelf.tableFixes()).hasSizeGreaterThanOrEqualTo(14);
        List<String> wrong = new ArrayList<>();
        for (TableFixPage page : shelf.tableFixes()) {
            JobParity result = OperationExamples.check(shelf.operation(page), shelf.callables(), engine);
            // It has no exact decimals, and says so; what brings in a dataset has no case of its own.
            boolean named = result.verdict() instanceof JobParity.CannotSay
                            && engine.language().id().equals("sqlite")
                    || page.cases().isEmpty() && page.name().equals("only_known");
            if (!named && !(result.verdict() instanceof JobParity.Same)) {
                wrong.add(page.name() + ": " + result.detail());
            }
        }
        assertThat(wrong).isEmpty();
    }
}
