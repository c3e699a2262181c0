package fixshelf.demo;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.Line;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.profile.DataLook;
import fixshelf.profile.Finding;
import fixshelf.profile.KnownList;
import fixshelf.profile.Oddity;
import fixshelf.profile.Remedies;
import fixshelf.profile.Remedy;
import fixshelf.profile.TableLook;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.JobEdits;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.work.Datasets;
import fixshelf.work.LineEffect;
import fixshelf.work.PlannedJob;
import fixshelf.work.Preview;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// What would help is found on the shelf, tried, and does the same as a line of a job.
class RemediesTest {
    private static final Set<Oddity> ROWS_THAT_LEAVE =
            Set.of(Oddity.REPEATS, Oddity.BLANK_ROWS, Oddity.HEADING_AGAIN, Oddity.TOTALS, Oddity.RULERS);

    /// Datasets of other kinds, whose values are odd in no new way.
    private static final List<String> ELSEWHERE =
            List.of("fuse_prices", "part_prices", "prices_asked", "quarterly_report", "tool_loans");

    @TempDir
    Path folder;

    @Tag("proof")
    @Test
    void remediesDoAsLinesWhatTheyDidWhenTheyWereTried() throws Exception {
        Path root = DemoShelf.create(folder.resolve("demo"), 900);
        oddRows(root);
        Shelf shelf = ShelfReader.read(root).get();
        List<String> found = new ArrayList<>();
        List<DatasetPage> datasets = shelf.datasets().stream()
                .filter(d -> !ELSEWHERE.contains(d.name()))
                .toList();
        for (DatasetPage dataset : datasets) {
            try (DataLook data = DataLook.open(
                            Datasets.open(shelf, dataset.name()).get(), Long.MAX_VALUE)
                    .get()) {
                TableLook table = data.columns(KnownList.of(shelf, data.file())).get();
                Map<Finding, List<Remedy>> remedies =
                        new Remedies(data, shelf).of(table).get();
                assertThat(remedies.keySet()).containsExactlyElementsOf(table.all());
                remedies.forEach((finding, all) -> {
                    all.forEach(r -> asALine(shelf, dataset, finding, r));
                    if (!all.isEmpty()) {
                        String column = finding.column() < 0
                                ? ""
                                : table.columns().get(finding.column()).name();
                        found.add(dataset.name() + " " + column + " "
                                + finding.oddity().id() + " " + all.getFirst().name());
                    }
                });
                together(shelf, dataset, remedies);
            }
        }
        assertThat(found)
                .contains(
                        "visits_alder_quay visit_no repeats drop_repeats",
                        "visits_alder_quay village edge_spaces squeeze_spaces",
                        "visits_alder_quay weight_kg units without_unit",
                        "visits_alder_quay tags empty_parts tidy_list",
                        "visits_thornmere Item  line_breaks one_line",
                        "copper_lane_quarter  blank_rows leave_out_blank_rows",
                        "odd_rows  heading_again leave_out_rows",
                        "odd_rows  shifted align_left",
                        "odd_rows no repeats drop_repeats",
                        "odd_rows no totals leave_out_rows",
                        "odd_rows no rulers leave_out_rows",
                        "odd_rows Item words_for_missing words_to_missing");
        assertThat(found).anyMatch(f -> f.startsWith("visits_alder_quay received layouts "));
    }

    /// A dataset with every kind of row that is no data; its heading comes again in other capitals, and not in full.
    private static void oddRows(Path root) throws Exception {
        StringBuilder text = new StringBuilder("no,Item,Kilos\n");
        for (int i = 0; i < 40; i++) {
            text.append(String.format("K-%03d,lamp,%d%n", i, i));
        }
        text.append(",ITEM,kilos \n,,\n,K-041,lamp\nTotal,,780\n-----,,\nK-042,?,3\nK-001,bell,77\n");
        Files.writeString(root.resolve("data/odd-rows.csv"), text);
        Files.writeString(root.resolve("datasets/odd_rows.yaml"), "dataset: odd_rows\nread: data/odd-rows.csv\n");
    }

    private static PlannedJob planned(Shelf shelf, DatasetPage dataset, List<Line> remedies) {
        List<Line> lines = new ArrayList<>(List.of(Line.readDataset(dataset.name())));
        lines.addAll(remedies);
        Path file = shelf.root().resolve("jobs/tried.yaml");
        JobPage job = JobPages.read(file, new SourceText("tried", JobEdits.newPage("tried", "Tried", lines)));
        var planned = PlannedJob.plan(shelf, job, Map.of());
        assertThat(planned.problems().stream().filter(Problem::isError).map(Problem::sentence))
                .isEmpty();
        return planned.get();
    }

    /// A fix that rids every row of something changes at least these rows; an operation does something.
    private static void asALine(Shelf shelf, DatasetPage dataset, Finding finding, Remedy remedy) {
        PlannedJob job = planned(shelf, dataset, List.of(remedy.line()));
        try (Preview preview = Preview.open(job.source()).get()) {
            LineEffect effect = preview.look(job).get().getLast();
            String what = dataset.name() + ": " + finding.sentence() + ": " + remedy.line();
            if (remedy.tried()) {
                assertThat(effect.cellsChanged()).as(what).isGreaterThanOrEqualTo(remedy.rid());
                assertThat(effect.valuesLost()).as(what).isLessThanOrEqualTo(remedy.missing() + remedy.odd());
            } else {
                boolean does = effect.cellsChanged() > 0
                        || effect.rowsAfter() < effect.rowsBefore()
                        || effect.columnsAfter() < effect.columnsBefore();
                assertThat(does).as(what).isTrue();
            }
            if (ROWS_THAT_LEAVE.contains(finding.oddity())) {
                assertThat(effect.rowsBefore() - effect.rowsAfter()).as(what).isEqualTo(finding.rows());
            }
        }
    }

    /// All first remedies make one job that can run, with fewer lines where columns need the same.
    private static void together(Shelf shelf, DatasetPage dataset, Map<Finding, List<Remedy>> remedies) {
        List<Remedy> first = remedies.values().stream()
                .map(r -> r.stream().findFirst())
                .flatMap(Optional::stream)
                .toList();
        List<Line> lines = Remedies.lines(first);
        assertThat(lines.size()).isLessThanOrEqualTo(first.size());
        PlannedJob job = planned(shelf, dataset, lines);
        try (Preview preview = Preview.open(job.source()).get()) {
            assertThat(preview.look(job).get()).hasSize(lines.size() + 1);
        }
    }
}
