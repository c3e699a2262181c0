package fixshelf.spark;

import fixshelf.check.GeneratedParityTest;
import fixshelf.check.NestedExpressionsTest;
import fixshelf.check.ValueNeedsTest;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.render.CatalogueExamplesTest;
import fixshelf.work.ColumnNamesTest;
import fixshelf.work.JobParityTest;
import fixshelf.work.OperationExamplesTest;
import fixshelf.work.RandomJobsTest;
import fixshelf.work.TableNeedsTest;
import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// The catalogue in Spark SQL, run by the process of this module.
class SparkParityTest {
    private static final FixEngine SPARK = FixEngines.ALL.stream()
            .filter(e -> e.language().id().equals("spark"))
            .findFirst()
            .orElseThrow();

    @Tag("proof")
    @Test
    void everyExampleHolds() {
        CatalogueExamplesTest.everyExampleHoldsIn(SPARK);
    }

    @Test
    @Tag("proof")
    void everyNeedIsMet() {
        ValueNeedsTest.isMetBy(SPARK);
    }

    @Test
    void jobsGiveTheSameRows(@TempDir Path folder) throws IOException {
        JobParityTest.givesTheSameRowsIn(SPARK, folder);
    }

    @Tag("proof")
    @Test
    void columnsMayBeCalledAnything(@TempDir Path folder) throws IOException {
        JobParityTest.columnsMayBeCalledAnythingIn(SPARK, folder);
    }

    @Tag("proof")
    @Test
    void operationsGiveWhatTheirExamplesSay() {
        OperationExamplesTest.holdIn(SPARK);
    }

    @Tag("proof")
    @Test
    void needsOfTablesAreMet(@TempDir Path folder) throws Exception {
        TableNeedsTest.areMetIn(SPARK, folder);
    }

    @Tag("proof")
    @Test
    void jobsOfAllKindsOfLinesGiveTheSameRows(@TempDir Path folder) throws Exception {
        RandomJobsTest.holdIn(SPARK, folder, 6);
    }

    @Tag("proof")
    @Test
    void namesStandInEveryPlaceOfLines(@TempDir Path folder) throws Exception {
        ColumnNamesTest.holdIn(SPARK, folder);
    }

    @Tag("proof")
    @Test
    void functionsMeanTheSameInsideOneAnother() {
        NestedExpressionsTest.meanTheSameIn(SPARK, 40);
    }

    @Tag("proof")
    @Test
    void answersAsDuckDbDoes() {
        // Of all engines it takes by far the longest for each value.
        GeneratedParityTest.answersAsTheReference(SPARK, 160);
    }
}
