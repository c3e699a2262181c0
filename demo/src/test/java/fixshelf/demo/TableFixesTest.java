package fixshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.shelf.TableFixPage;
import fixshelf.work.JobParity;
import fixshelf.work.LoaderCases;
import fixshelf.work.OperationExamples;
import fixshelf.work.TablePromiseResult;
import fixshelf.work.TablePromises;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
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
        List<OperationExamples.Example> cases = new ArrayList<>();
        for (TableFixPage page : shelf.tableFixes()) {
            assertThat(page.cases()).as(page.name()).isNotEmpty();
            cases.addAll(OperationExamples.of(LoaderCases.ready(shelf, page), shelf.callables())
                    .get());
        }
        List<String> wrong = new ArrayList<>();
        for (JobParity result : OperationExamples.in(engine, cases)) {
            // It has no exact decimals, and says so.
            boolean named = result.verdict() instanceof JobParity.CannotSay
                    && engine.language().id().equals("sqlite");
            if (!named && !(result.verdict() instanceof JobParity.Same)) {
                wrong.add(result.job() + ": " + result.detail());
            }
        }
        assertThat(wrong).isEmpty();
    }

    @Test
    void promisesHold() throws Exception {
        Shelf shelf = ShelfReader.read(DemoShelf.create(folder, 30)).get();
        List<TablePromiseResult> results = shelf.tableFixes().stream()
                .flatMap(page -> TablePromises.run(shelf, page).stream())
                .toList();
        assertThat(results).hasSizeGreaterThan(30).allSatisfy(r -> assertThat(r.holds())
                .as(r.page().name() + ": " + r.sentence())
                .isTrue());
    }
}
