package fixshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.check.CaseResult;
import fixshelf.check.Cases;
import fixshelf.check.PromiseResult;
import fixshelf.check.Promises;
import fixshelf.engine.Answer;
import fixshelf.engine.DuckSession;
import fixshelf.engine.Engines;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.engine.Grid;
import fixshelf.render.Languages;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.JobRun;
import fixshelf.work.PlannedJob;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// The demo shelf has no problem, its cases hold in every language, and its jobs find the truth again.
class DemoShelfTest {
    private static final long ROWS = 4_000;

    @TempDir
    static Path folder;

    static Shelf shelf;

    @BeforeAll
    static void make() throws Exception {
        DemoShelf.create(folder, ROWS);
        shelf = ShelfReader.read(folder).get();
    }

    static Stream<FixEngine> engines() {
        return Engines.all();
    }

    @Test
    void everyPageIsRightAndDocumented() {
        assertThat(shelf.problems()).isEmpty();
        assertThat(shelf.fixes()).hasSizeGreaterThanOrEqualTo(40).allSatisfy(f -> {
            assertThat(f.cases()).as(f.name()).hasSizeGreaterThanOrEqualTo(4);
            assertThat(f.prose()).as(f.name()).hasSizeGreaterThan(60);
            assertThat(f.parameters()).allSatisfy(p -> assertThat(p.about()).isNotBlank());
        });
        assertThat(Promises.run(shelf, shelf.fixes(), FixEngines.ALL.getFirst()))
                .isNotEmpty()
                .allMatch(PromiseResult::holds);
    }

    @ParameterizedTest
    @MethodSource("engines")
    void everyCaseHoldsInEveryLanguage(FixEngine engine) {
        Engines.assumeHere(engine);
        List<CaseResult> results = Cases.run(shelf, shelf.fixes(), engine);
        assertThat(results)
                .hasSizeGreaterThan(50)
                .filteredOn(r -> !r.holds() && !(isSqlite(engine) && r.answer() instanceof Answer.NotSaid))
                .extracting(r -> r.page().name() + ": " + r.got())
                .isEmpty();
    }

    /// SQLite has no decimals and no groups, and says so.
    private static boolean isSqlite(FixEngine engine) {
        return engine.language().id().equals("sqlite");
    }

    /// All but those with what is known only while code is written: a mapping, the number of a part, a layout, a word
    /// whose capitals do not matter.
    private static List<FixPage> fixesAsFunctions() {
        List<FixPage> fixes = shelf.fixes().stream()
                .filter(f -> !Set.of("by_list", "day_for_guests", "element", "without_word")
                        .contains(f.name()))
                .toList();
        assertThat(fixes).hasSize(shelf.fixes().size() - 4);
        return fixes;
    }

    /// What is copied as a function can be pasted and called; pandas runs its functions in the test above.
    @Test
    void everyDefinitionCanBePasted() throws Exception {
        try (DuckSession session = DuckSession.open()) {
            for (FixPage page : fixesAsFunctions()) {
                session.run(Languages.find("duckdb")
                        .orElseThrow()
                        .definition(shelf.definition(page).get(), page.summary())
                        .get());
            }
            assertThat(session.query("SELECT squeeze_spaces('  a   b '), squeeze_spaces(' a ', keep_ends := true),"
                                    + " amount('£1,204.5')")
                            .rows()
                            .getFirst())
                    .containsExactly("a b", " a ", new BigDecimal("1204.50"));
        }
        FixEngine postgres = FixEngines.ALL.get(1);
        Engines.assumeHere(postgres);
        try (var connection = Engines.connection(postgres);
                var statement = connection.createStatement()) {
            connection.setAutoCommit(false);
            for (FixPage page : fixesAsFunctions()) {
                statement.execute(postgres.language()
                        .definition(shelf.definition(page).get(), page.summary())
                        .get());
            }
            var row = statement.executeQuery(
                    "SELECT squeeze_spaces('  a   b '), squeeze_spaces(' a ', keep_ends => true), amount('£1,204.5')");
            row.next();
            assertThat(List.of(row.getString(1), row.getString(2), row.getString(3)))
                    .containsExactly("a b", " a ", "1204.50");
            connection.rollback();
        }
    }

    @Test
    void cleaningFindsTheTruthAgain() {
        JobRun.Report report = PlannedJob.plan(shelf, shelf.job("visits_clean").orElseThrow(), Map.of())
                .then(p -> JobRun.run(p, JobRun.Watcher.NONE))
                .get();
        Map<Long, List<@Nullable Object>> found = new HashMap<>();
        try (DuckSession session = DuckSession.open(report.files(), Optional.empty())) {
            Grid grid = session.query(
                    "SELECT visit_no, village, item, mender, received, weight_kg, parts_cost, outcome, fault, tags"
                            + " FROM '"
                            + report.files().getFirst() + "'");
            grid.rows()
                    .forEach(r -> found.put(
                            Long.parseLong(String.valueOf(r.getFirst()).substring(3)), r.subList(1, r.size())));
        }
        assertThat(found).hasSize((int) report.rows());
        found.forEach((number, row) -> {
            Visit truth = Visit.of(DemoShelf.SEED, number);
            assertThat(row)
                    .as("visit " + number)
                    .startsWith(
                            truth.village(),
                            truth.item(),
                            truth.mender(),
                            truth.received().toString(),
                            kilos(truth.weightGrams()),
                            pounds(truth.costCents()));
            boolean last = !DemoShelf.isNotedTwice(number)
                    || truth.outcome().equals(row.get(6))
                    || "waiting".equals(row.get(6));
            assertThat(last).isTrue();
            assertThat(row.subList(7, 9)).containsExactly(truth.fault(), truth.tags());
        });
        long twice = found.keySet().stream().filter(DemoShelf::isNotedTwice).count();
        assertThat(ROWS - report.rows()).isBetween(twice - 2, twice);
    }

    @Test
    void theOtherRoomsJobRunsToo() {
        JobRun.Report report = PlannedJob.plan(
                        shelf, shelf.job("thornmere_report").orElseThrow(), Map.of())
                .then(p -> JobRun.run(p, JobRun.Watcher.NONE))
                .get();
        assertThat(report.effects().getFirst().rowsAfter()).isEqualTo(ROWS / 3);
        assertThat(report.files())
                .singleElement()
                .satisfies(f -> assertThat(f).content().contains("café grinder").doesNotContain("  "));
    }

    private static @Nullable BigDecimal kilos(@Nullable Integer grams) {
        return grams == null ? null : new BigDecimal(String.format(java.util.Locale.ROOT, "%.2f", grams / 1000.0));
    }

    private static @Nullable BigDecimal pounds(@Nullable Integer cents) {
        return cents == null ? null : BigDecimal.valueOf(cents, 2).setScale(2, RoundingMode.UNNECESSARY);
    }
}
