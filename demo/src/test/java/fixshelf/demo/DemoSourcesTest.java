package fixshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.fetch.Consent;
import fixshelf.fetch.Copies;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.source.SourceFile;
import fixshelf.work.Datasets;
import fixshelf.work.Preview;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// What the generator put into a PDF, a database and pages of the web comes out of them.
class DemoSourcesTest {
    @TempDir
    Path folder;

    private Shelf shelf;

    @BeforeEach
    void make() throws Exception {
        shelf = ShelfReader.read(DemoShelf.create(folder, 60)).get();
        Copies.forget();
    }

    private static List<List<String>> rows(Outcome<SourceFile> source) {
        assertThat(source.problems()).isEmpty();
        try (Preview preview = Preview.open(source.get()).get()) {
            return preview.firstRows(999);
        }
    }

    private static BigDecimal number(String cell) {
        return new BigDecimal(cell.replace(",", ""));
    }

    @Test
    void theReportAddsUpOverItsPages() {
        Outcome<SourceFile> report = Datasets.open(shelf, "quarterly_report");
        List<List<String>> rows = rows(report);
        assertThat(report.get().columns().stream().map(c -> c.name()))
                .containsExactly("Room", "Group", "Visits", "Mended", "Parts cost");
        assertThat(rows).hasSize(17);
        assertThat(rows.get(5).get(2)).as("the visits that nobody noted").isEqualTo("∅");
        assertThat(rows.getLast().getFirst()).isEqualTo("Total");
        for (int column : new int[] {3, 4}) {
            BigDecimal sum = rows.subList(0, 16).stream()
                    .map(r -> number(r.get(column)))
                    .reduce(BigDecimal.ZERO, BigDecimal::add);
            assertThat(sum).isEqualByComparingTo(number(rows.getLast().get(column)));
        }
    }

    @Test
    void loansAreReadAsTheyStand() {
        List<List<String>> rows = rows(Datasets.open(shelf, "tool_loans"));
        assertThat(rows).hasSize(80);
        assertThat(rows.get(3)).contains("13/01/2026", "10");
        assertThat(rows.stream().filter(r -> r.get(4).equals("∅"))).hasSize(16);
    }

    @Test
    void pricesComeFromTheirPages() throws Exception {
        assertThat(Datasets.open(shelf, "part_prices").problems())
                .singleElement()
                .satisfies(p -> assertThat(p.code()).isEqualTo(Code.NOT_ALLOWED));
        try (PricePages pages = PricePages.serve(0)) {
            Files.writeString(
                    folder.resolve("shelf.yaml"),
                    Files.readString(folder.resolve("shelf.yaml"))
                            .replace("http://127.0.0.1:" + PricePages.PORT, pages.address()));
            Consent.keep(folder, Consent.Place.of(pages.address().replace("http://", "")));
            assertThat(rows(Datasets.open(ShelfReader.read(folder).get(), "part_prices")))
                    .hasSize(4)
                    .allMatch(r -> r.get(1).matches("£ [0-9]+\\.[0-9]{2}"))
                    .anyMatch(r -> r.get(2).equals("3 weeks"));
            // A page for each part and day that is asked for; two of the five are not there.
            var several = Datasets.open(ShelfReader.read(folder).get(), "prices_asked");
            assertThat(rows(several)).hasSize(12).allMatch(r -> r.get(3).matches("[0-9]+\\.[0-9]{2}"));
            assertThat(several.get().notes(java.util.Optional.empty()).getFirst())
                    .contains("3 calls of day_prices", "2 calls failed", "part AQ-104, day 2026-03-01", "part ZZ-999");
            for (var asked : List.of(
                    List.of("/CQ-007", ""), List.of("/ZZ-000", "(404)"), List.of("/AQ-104/2026/03/01", "(404)"))) {
                Files.writeString(
                        folder.resolve("datasets/other.yaml"),
                        "dataset: other\nkind: web\nread: \"{prices}" + asked.getFirst() + "\"\ntable: 2\n");
                Outcome<SourceFile> other =
                        Datasets.open(ShelfReader.read(folder).get(), "other");
                assertThat(other.isPresent()).isEqualTo(asked.getLast().isEmpty());
                other.problems().forEach(p -> assertThat(p.what()).contains(asked.getLast()));
            }
        }
    }
}
