package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Every row that is read is accounted for: of the file, of the jobs and loaders between, of the tables brought in, and
/// in the outputs.
class LedgerTest {
    private static final String VISITS = "no,village,hours\n1,Thornmere,2\n2,Alder Quay,5\n3,,1\n4,Thornmere,4\n";

    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "read: visits ; 4 = 4",
                "read: visits@@keep_rows: village IS NOT NULL ; 4, −1 left at 2 = 3",
                "read: visits@@group: [village]@measures: {n: count_rows()} ; 4, −1 4 rows merged into 3 at 2 = 3",
                // A row that meets several becomes several; where each of the others' rows went is told beside.
                "read: visits@@bring_in: [kind]@from: list@matching: {village: village} ; 4, +2 more, as 2 became 4 at 2 = 6 / list at 2: 2 met rows here, 1 met none",
                "read: visits@@join: list@matching: {village: village} ; 4, −2 left at 2, +2 more, as 2 became 4 at 2 = 4 / list at 2: 2 met rows here, 1 met none",
                "read: visits@@join: list@matching: {village: village}@keep: all ; 4, +2 more, as 2 became 4 at 2, +1 came from another table at 2 = 7 / list at 2: 2 met rows here, 1 met none",
                "read: visits@@keep_matching: list@matching: {village: village} ; 4, −2 left at 2 = 2 / list at 2: 2 met rows here, 1 met none",
                "read: visits@@put_under: list ; 4, +3 came from another table at 2 = 7 / list at 2: 3 came below as rows of their own",
                "read: visits@@columns_to_rows: [no, hours]@names_in: what@values_in: value ; 4, +4 more, as 4 became 8 at 2 = 8",
                // Jobs and loaders that are read tell of their own lines, and what they give is what is read.
                "read: known@@keep_rows: hours > 2 ; [known: 4, −1 left at 3 = 3] 3, −1 left at 2 = 2",
                "read: second@@keep_rows: hours > 4 ; [second: [known: 4, −1 left at 3 = 3] 3, −1 left at 2 = 2] 2, −1 left at 2 = 1",
                "read: of_thornmere ; [of_thornmere: 4, −2 left at 2 = 2] 2 = 2",
                "of_village: {name: Alder Quay}@@first_rows: 1 ; [of_village_rows: 4, −3 left at 2 = 1] 1 = 1",
                "read: met@@keep_rows: hours > 2 ; [met: 4, −2 left at 3 = 2 / list at 3: 2 met rows here, 1 met none] 2, −1 left at 2 = 1",
                // Another table is called as the line calls it, in capitals too.
                "read: visits@@keep_matching: LIST@matching: {village: village} ; 4, −2 left at 2 = 2 / LIST at 2: 2 met rows here, 1 met none",
                "read: visits@@bring_in: [n]@from: COUNTED@matching: {village: village} ; 4 = 4 / COUNTED at 2: 2 met rows here, 1 met none",
                // A line that begins anew leaves the rows before it behind.
                "read: visits@@read: list ; 4, −4 stay behind, as the line begins with other rows at 2, +3 were read in their place at 2 = 3 / list at 2: 3 were read in place of those before",
                "read: visits@@of_village: {name: Thornmere} ; 4, −4 stay behind, as the line begins with other rows at 2, +2 were read in their place at 2 = 2 / of_village at 2: 2 were read in place of those before",
                // A missing key meets nothing.
                "read: visits@@bring_in: [n]@from: counted@matching: {village: village} ; 4 = 4 / counted at 2: 2 met rows here, 1 met none",
            })
    void addsUp(String lines, String told) throws Exception {
        Shelf shelf = shelf(lines);
        assertThat(shelf.problems()).isEmpty();
        PlannedJob job =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(job.source()).get()) {
            Ledger ledger = preview.ledger(job).get();
            assertThat(ledger.addsUp()).isTrue();
            assertThat(said(ledger)).isEqualTo(told);
            // What the job that is read would write is not written now.
            ledger.before().ifPresent(b -> assertThat(b.written()).isEmpty());
            assertThat(ledger.written())
                    .containsExactly(
                            new Ledger.Written(root.resolve("out.csv").toString(), ledger.out(), "the result"),
                            new Ledger.Written(
                                    root.resolve("read.csv").toString(),
                                    ledger.read(),
                                    lines.contains("@@") ? "line 1" : "the result"));
        }
    }

    private static String said(Ledger ledger) {
        List<String> parts = new ArrayList<>(List.of(
                ledger.before().map(b -> "[" + b.job() + ": " + said(b) + "] ").orElse("") + ledger.read()));
        ledger.entries()
                .forEach(e -> parts.add(
                        (e.change() < 0 ? "−" : "+") + Math.abs(e.change()) + " " + e.words() + " at " + e.line()));
        String others = ledger.others().stream()
                .map(o -> " / " + o.name() + " at " + o.line() + ": "
                        + o.parts().stream()
                                .map(p -> p.rows() + " " + p.words())
                                .collect(Collectors.joining(", ")))
                .collect(Collectors.joining());
        return String.join(", ", parts) + " = " + ledger.out() + others;
    }

    private Shelf shelf(String lines) throws IOException {
        Jobs.shelf(
                root,
                VISITS,
                "job: job\nlines:\n" + yaml(lines)
                        + "outputs:\n  - write: out.csv\n  - write: read.csv\n    of: {line: 1}\n");
        Files.writeString(root.resolve("data/list.csv"), "village,kind\nThornmere,far\nThornmere,near\nMoss,far\n");
        Files.writeString(root.resolve("datasets/visits.yaml"), "dataset: visits\nread: data/in.csv\n");
        Files.writeString(root.resolve("datasets/list.yaml"), "dataset: list\nread: data/list.csv\n");
        Files.writeString(
                root.resolve("datasets/of_thornmere.yaml"),
                "dataset: of_thornmere\nload: of_village\nwith: {name: Thornmere}\n");
        Files.writeString(
                root.resolve("jobs/known.yaml"),
                "job: known\nlines:\n"
                        + yaml("read: visits@@read_as: {hours: integer}@@keep_rows: village IS NOT NULL"));
        Files.writeString(
                root.resolve("jobs/met.yaml"),
                "job: met\nlines:\n"
                        + yaml(
                                "read: visits@@read_as: {hours: integer}@@keep_matching: list@matching: {village: village}")
                        + "outputs:\n  - write: met.csv\n");
        Files.writeString(
                root.resolve("jobs/second.yaml"), "job: second\nlines:\n" + yaml("read: known@@keep_rows: hours > 2"));
        Files.writeString(
                root.resolve("jobs/counted.yaml"),
                "job: counted\nlines:\n" + yaml("read: visits@@count_by: [village]@into: n"));
        Files.writeString(root.resolve("fixes/of_village.fix.md"), """
                ---
                format: 2
                fix: of_village
                kind: loader
                reads: read the visits of {name}
                parameters:
                  name: {type: text}
                returns: [no, village, hours]
                ---
                # Of a village

                ```yaml
                - read: {file: data/in.csv}
                - keep_rows: village = name
                ```
                """);
        return ShelfReader.read(root).get();
    }

    private static String yaml(String lines) {
        return "  - " + lines.replace("@@", "\n  - ").replace("@", "\n    ") + "\n";
    }
}
